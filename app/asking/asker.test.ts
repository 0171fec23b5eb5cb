import { describe, expect, test } from "@jest/globals";
import { askedBy, currentAsker } from "./asker";

describe("who is told of a refusal", () => {
  test("what a field starts takes the field along, also beyond the moment", async () => {
    const told: string[] = [];
    const refuse = async () => {
      const asker = currentAsker();
      await Promise.resolve();
      expect(currentAsker()).toBeNull();
      asker?.("too short");
    };
    let under: Promise<void> | undefined;
    askedBy(
      (text) => told.push(text) > 0,
      () => {
        under = refuse();
      },
    );
    await under;
    expect(told).toEqual(["too short"]);
  });

  test("nobody asks before, after, or once a field failed", () => {
    expect(currentAsker()).toBeNull();
    expect(() =>
      askedBy(
        () => true,
        () => {
          throw new Error("field");
        },
      ),
    ).toThrow("field");
    expect(currentAsker()).toBeNull();
  });

  test("a field within a field is the asker until it is done", () => {
    const [outer, inner] = [() => true, () => true];
    askedBy(outer, () => {
      askedBy(inner, () => expect(currentAsker()).toBe(inner));
      expect(currentAsker()).toBe(outer);
    });
  });
});
