import { expect, test } from "@jest/globals";
import { lidHeldText } from "./board";

const length = (m: number) => `${Math.round(m * 1000)} mm`;
const held = { valve: "Return selector", position: "off", byM: 0.04, lineUps: ["Run on port", "Polish"] };

test("a handle that keeps the lid open is told with what leaves it so, and one that the lid clears with its room", () => {
  expect(lidHeldText(held, length)).toBe(
    "Return selector at 'off': its handle stands 40 mm over the shut lid, which does not close. So left by Run on port, Polish: the lid stays open there.",
  );
  expect(lidHeldText({ ...held, lineUps: [] }, length)).toContain("No line-up leaves it so.");
  expect(lidHeldText({ ...held, byM: -0.02 }, length)).toBe(
    "Return selector at 'off': the lid clears its handle by 20 mm.",
  );
});
