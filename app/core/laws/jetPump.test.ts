import { describe, expect, test } from "@jest/globals";
import { areaRatio, jetLosses, jetPoint } from "./jetPump";

const sized = (ratio: number) => ({ nozzleM: Math.sqrt(ratio) * 0.01, throatM: 0.01 });

/** Best efficiency over the flow ratio, and where it is. */
function best(ratio: number, losses = jetLosses) {
  let top = { m: 0, efficiency: 0 };
  for (let m = 0; m < 6; m += 0.001) {
    const { efficiency } = jetPoint(sized(ratio), m, losses);
    if (efficiency > top.efficiency) top = { m, efficiency };
  }
  return top;
}

describe("jet pump", () => {
  // N. L. Sanger, NASA TN D-4445 and D-4759 (1968), water: area ratio 0.066, best measured efficiency 29.5 to 30.4 %
  // near M 3.5; area ratio 0.197, 35.7 to 37.6 % near M 1.4 (from memory).
  test.each([
    [0.066, 0.3, 3.6],
    [0.197, 0.365, 1.4],
  ])("area ratio %d: best efficiency near %d at M near %d", (ratio, efficiency, m) => {
    const laboratory = { nozzle: 0.03, entry: 0, throat: 0.06, diffuser: 0.1 };
    const found = best(ratio, laboratory);
    expect(Math.abs(found.efficiency - efficiency)).toBeLessThan(0.02);
    expect(Math.abs(found.m - m) / m).toBeLessThan(0.2);
    expect(best(ratio).efficiency).toBeLessThan(found.efficiency);
  });

  test("without loss, energy is only lost in mixing: efficiency stays under 1 and falls to 0 where nothing is lifted", () => {
    for (const ratio of [0.1, 0.2, 0.4]) {
      const size = sized(ratio);
      let last = Infinity;
      for (let m = 0; m < 3; m += 0.05) {
        const { pressureRatio } = jetPoint(size, m);
        expect(pressureRatio).toBeLessThan(last);
        last = pressureRatio;
        expect(jetPoint(size, m).efficiency).toBeLessThan(0.5);
      }
    }
  });

  test("at M = 0 the throat's momentum gives 2 b - b^2 of the jet's pressure, less its losses", () => {
    const size = sized(0.25);
    const b = areaRatio(size);
    const rise = 2 * b - b * b * (1 + jetLosses.throat + jetLosses.diffuser);
    expect(jetPoint(size, 0).pressureRatio).toBeCloseTo(rise / (1 + jetLosses.nozzle - rise), 12);
  });
});
