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
  test("of one rank stands by its length", () => {
    const parts = ["Separator 1 valve", "Separator 2", "Separator 1"].map((name) => ({ name }));
    expect(ranked(parts, "separ").map(({ name }) => name)).toEqual([
      "Separator 2",
      "Separator 1",
      "Separator 1 valve",
    ]);
  });
});
