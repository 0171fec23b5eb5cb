/** What a tank found on board is worth (common practice, no source): looked at first, then judged by its worst. */
import { describe, expect, test } from "@jest/globals";
import type { Puddle } from "../book/entries";
import { newTank } from "../plan/blank";
import type { Condition } from "../plan/types";
import { judgeTank, testPressurePa } from "./condition";

const sound: Condition = {
  cleanedFirst: true,
  seams: "sound",
  feet: "sound",
  fittings: "sound",
  drains: "drains",
};
const puddle = (engine: Puddle["engine"]): Puddle => ({
  id: "x",
  kind: "puddle",
  at: "2026-01-01T00:00:00Z",
  planId: "p",
  planHash: "",
  tankId: "t",
  volumeM3: 1e-5,
  aboardM3: 0.1,
  engine,
});
const judged = (change: Partial<Condition>, puddles: Puddle[] = []) =>
  judgeTank({ condition: { ...sound, ...change } }, puddles);

describe("a tank", () => {
  test("that is sound all over is kept", () => {
    expect(judged({})).toEqual({ verdict: "keep", reasons: [] });
  });
  test("that nobody has looked at, or that was not cleaned first, is looked at first", () => {
    expect(judgeTank({}, [])).toEqual({ verdict: "lookFirst", reasons: ["notCleaned", "seamsUnseen"] });
    expect(judged({ cleanedFirst: false }).verdict).toBe("lookFirst");
    expect(judged({ seams: "unseen" }).reasons).toEqual(["seamsUnseen"]);
  });
  test.each([
    [{ seams: "worn" }, "seamsWorn"],
    [{ feet: "bad" }, "feetBad"],
    [{ feet: "worn" }, "feetWorn"],
    [{ fittings: "bad" }, "fittingsBad"],
    [{ fittings: "worn" }, "fittingsWorn"],
    [{ drains: "holdsWater" }, "holdsWater"],
    [{ drains: "foam" }, "foam"],
    [{ testHeld: false }, "testFailed"],
  ] as const)("with %j is mended", (change, reason) => {
    expect(judged(change)).toEqual({ verdict: "mend", reasons: [reason] });
  });
  test("with bad seams goes, whatever else, looked at or not", () => {
    for (const more of [{}, { cleanedFirst: false }, { feet: "bad" as const }, { testHeld: true }])
      expect(judged({ seams: "bad", ...more }).verdict).toBe("replace");
  });
  test("whose drains and feet nobody saw is not blamed for them", () => {
    expect(judged({ drains: "unseen", feet: "unseen", fittings: "unseen" }).verdict).toBe("keep");
  });
  test("under which it is wet with the engine stopped leaks itself; only with it running, a line", () => {
    expect(judged({}, [puddle("stopped")]).reasons).toEqual(["leaksStopped"]);
    expect(judged({}, [puddle("running")]).reasons).toEqual(["leaksRunning"]);
    expect(judged({}, [puddle("running"), puddle("stopped")]).reasons).toEqual(["leaksStopped"]);
  });
});

describe("a test by pressure", () => {
  const tank = newTank("t", "Tank", { xM: 0, yM: 0, zM: 0 });
  const rated = { ...tank, filling: { ratedPa: 5000 } as NonNullable<typeof tank.filling> };
  test("goes to the tank's own rating and never over it; none where that is not known, never with petrol", () => {
    expect(testPressurePa(rated, false)).toBe(5000);
    expect(testPressurePa(tank, false)).toBeNull();
    expect(testPressurePa(rated, true)).toBeNull();
  });
});
