import { expect, test } from "@jest/globals";
import { gestureOf } from "./gesture";

test("presses soon after one another are one gesture, however long it lasts; a pause or another thing ends it", () => {
  const first = gestureOf("a", 1400);
  expect(gestureOf("a", 1600)).toBe(first);
  expect(gestureOf("a", 3000)).toBe(first);
  expect(gestureOf("b", 3001)).not.toBe(first);
  expect(gestureOf("a", 4600)).not.toBe(first);
});
