/** Weights and forces of a tank, by hand. */
import { describe, expect, test } from "@jest/globals";
import { startJob } from "../edit/starters";
import type { Tank } from "../plan/types";
import { emptyKg, holdOf } from "./hold";

const job = startJob("j", "J", "oneTank");
const tank: Tank = {
  ...job.tanks[0]!,
  shape: { kind: "box", lengthM: 0.95, widthM: 0.42, heightM: 0.33 },
  material: "plastic",
  wallM: 0.006,
};
delete tank.installed;

describe("a plastic tank of 950 by 420 by 330 mm, 6 mm thick", () => {
  test("weighs 9.7 kg empty: 1.70 m2 by 6 mm by 950 kg/m3", () => {
    expect(emptyKg(tank)).toBeCloseTo(1.7022 * 0.006 * 950, 3);
    const hold = holdOf(job, tank, 840);
    expect(hold.emptyIs).toBe("estimated");
    // Inside its walls 938 by 408 by 318 mm.
    expect(hold.fuelKg).toBeCloseTo(0.938 * 0.408 * 0.318 * 840, 1);
    expect(holdOf(job, { ...tank, emptyKg: 12 }, 840)).toMatchObject({ emptyIs: "given", emptyKg: 12 });
  });

  test("pushes m g sin 15 across where nothing is said, twice its weight up, and has two straps at the least", () => {
    const { site: _site } = job;
    const { envelope: _, accelerationG: __, ...site } = _site;
    const hold = holdOf({ ...job, site }, tank, 840);
    const weightN = hold.fullKg * 9.80665;
    expect(hold.loadN.across).toBeCloseTo(weightN * 0.258819, 1);
    expect(hold.loadN.up).toBeCloseTo(2 * weightN, 1);
    expect(hold.straps.count).toBe(2);
    expect(hold.straps.count * hold.straps.eachN).toBeCloseTo(hold.loadN.up, 6);
    const long = { ...tank, shape: { ...tank.shape, lengthM: 2 } as Tank["shape"] };
    expect(holdOf({ ...job, site }, long, 840).straps.count).toBe(4);
  });
});
