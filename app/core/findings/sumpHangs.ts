/** Practice 19 and 21: a sump's hole that its flange does not cover, and how near the ground it hangs. Common practice. */
import { volumeAtLevelM3 } from "../tanks/tank";
import { onTank } from "./onTank";
import type { Finding, Rule } from "./types";

/** A sump this near the ground is struck on a kerb or a ramp. Common practice, no source. */
const LEAST_GROUND_M = 0.25;

export const sumpHangs: Rule = ({ job, plan }) =>
  job.tanks.flatMap((tank): Finding[] => {
    const { sump } = tank;
    if (!sump) return [];
    const found: Finding[] = [];
    if (sump.mostHoleM !== undefined && sump.holeM > sump.mostHoleM)
      found.push(
        onTank({
          rule: "plateHole",
          grade: "mend",
          tank,
          also: "sump",
          values: { code: "largerThanFlange", use: "sump", byM: sump.holeM - sump.mostHoleM },
          figure: sump.holeM - sump.mostHoleM,
          basis: "maker",
        }),
      );
    if (sump.floorOverGroundM === undefined) return found;
    const clearM = sump.floorOverGroundM - sump.depthM;
    if (clearM < LEAST_GROUND_M) {
      const aboard = plan.conditions.aboardM3[tank.id] ?? 0;
      const lostM3 = Math.max(0, aboard - volumeAtLevelM3(tank, -sump.depthM));
      found.push(
        onTank({
          rule: "sumpHangs",
          grade: "watch",
          tank,
          values: { clearM, leastM: LEAST_GROUND_M, lostM3 },
          figure: LEAST_GROUND_M - clearM,
        }),
      );
    }
    return found;
  });
