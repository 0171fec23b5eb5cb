import { describe, expect, test } from "@jest/globals";
import { ranked } from "./find";

const items = ["Dosing pump", "Fuel heater", "Heater", "Heater hose block"].map((name) => ({ name }));

describe("what is sought", () => {
  test("by its own name stands first, before what only begins or goes on so", () => {
    expect(ranked(items, "heater").map(({ name }) => name)).toEqual([
      "Heater",
      "Heater hose block",
      "Fuel heater",
      "Dosing pump",
    ]);
  });
  test("while nothing is typed keeps its order", () => {
    expect(ranked(items, " ")).toBe(items);
  });
  test("of one rank keeps its order", () => {
    expect(ranked(items, "pump").map(({ name }) => name)).toEqual([
      "Dosing pump",
      "Fuel heater",
      "Heater",
      "Heater hose block",
    ]);
  });
});
