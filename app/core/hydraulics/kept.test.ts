import { describe, expect, test } from "@jest/globals";
import { KeptByBytes } from "./kept";

describe("answers kept by the bytes they were asked with", () => {
  const key = (...bytes: number[]) => Uint8Array.from(bytes);

  test("are found by content, not by identity, and a key changed afterwards does not change what is kept", () => {
    const kept = new KeptByBytes<string>();
    const asked = key(0, 1, 2);
    expect(kept.get(asked)).toBeUndefined();
    expect(kept.set(asked, "one")).toBe("one");
    asked[0] = 9;
    expect(kept.get(asked)).toBeUndefined();
    expect(kept.get(key(0, 1, 2))).toBe("one");
    expect(kept.get(key(0, 1))).toBeUndefined();
  });

  test("the least used goes first, what was asked for of late stays", () => {
    const kept = new KeptByBytes<number>();
    for (let i = 0; i < 8; i++) kept.set(key(i), i);
    expect(kept.get(key(0))).toBe(0);
    kept.set(key(8), 8);
    expect(kept.get(key(0))).toBe(0);
    expect(kept.get(key(1))).toBeUndefined();
    for (const i of [2, 3, 4, 5, 6, 7, 8]) expect(kept.get(key(i))).toBe(i);
  });
});
