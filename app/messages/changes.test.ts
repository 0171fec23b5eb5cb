/** The last change in words: what it was done to by its name, never an id. */
import { describe, expect, test } from "@jest/globals";
import type { Command } from "~/core/edit/command";
import { changeText } from "./changes";

const name = (id: string) => ({ sep: "Separator", port: "Port tank" })[id] ?? id;
const cases: [Command, string][] = [
  [{ name: "addPart", id: "sep", kind: "filter", position: { xM: 0, yM: 0, zM: 0 } }, "added: Separator"],
  // One that was removed again is told by its kind.
  [{ name: "addPart", id: "x9", kind: "filter", position: { xM: 0, yM: 0, zM: 0 } }, "added: filter"],
  [{ name: "editPart", id: "sep", change: {} } as Command, "figures of Separator"],
  [{ name: "editPart", id: "x9", change: {} } as Command, "figures"],
  [{ name: "removePart", id: "sep" }, "a part removed"],
  [
    { name: "connect", id: "r", from: { part: "sep", port: "out" }, to: { part: "port", port: "ret" } },
    "hose laid to Port tank",
  ],
  [{ name: "setPump", lineUpId: "l", pumpId: "x9", state: "on" }, "switched"],
  [{ name: "rename", jobName: "Tern" }, "named Tern"],
  [{ name: "addLineUp", id: "l", lineUpName: "Run on port" }, "line-up added: Run on port"],
  [{ name: "setConditions", change: {} }, "conditions"],
];

describe("the last change", () => {
  test.each(cases)("%j", (command, text) => {
    expect(changeText(command, name)).toBe(text);
  });
});
