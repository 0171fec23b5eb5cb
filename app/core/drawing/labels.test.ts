import { describe, expect, test } from "@jest/globals";
import { kinds } from "../kinds/index";
import { type NewPartKind, newPart } from "../plan/blank";
import { LINE_PX, labelRoom, wrapped } from "./labels";

describe("names in lines", () => {
  test("at natural size a long name stands in two even lines, a short one in one", () => {
    expect(wrapped("Polish valve")).toEqual(["Polish valve"]);
    expect(wrapped("Starboard tank valve")).toEqual(["Starboard", "tank valve"]);
    expect(wrapped("Windscreenwasher")).toEqual(["Windscreenwasher"]);
  });

  test("large beside its part it stands in as many lines as it needs, no word is lost and none is broken", () => {
    const name = "Starboard engine transfer shut-off valve";
    const lines = wrapped(name, 1.4);
    expect(lines.join(" ")).toBe(name);
    for (const line of lines) expect(line.length <= 11 || !line.includes(" ")).toBe(true);
  });

  test("every kind of part has room for its name, or says it elsewhere", () => {
    const named: string[] = ["tee", "bank", "gauge"];
    const all = Object.keys(kinds).filter((id) => !["engine", "generator", "heater"].includes(id));
    for (const id of all as NewPartKind[]) {
      const room = labelRoom(newPart(id, "p", { xM: 0, yM: 0, zM: 0 }));
      if (named.includes(id)) expect(room).toBeNull();
      else expect(room?.height).toBeGreaterThanOrEqual(LINE_PX);
    }
  });
});
