/** Tanks at attitudes: the map over pitch, roll and level, and levels from volumes, each checked against a slower way. */

import type { TankShape } from "~/core/plan/types";
import { LEVEL } from "~/core/tanks/attitude";
import { volumeMap } from "~/core/tanks/pickup";
import { polygonArea, polygonBelow } from "~/core/tanks/polygon";
import { hull, vee } from "~/core/tanks/shapes.fixture";
import { TiltedTank } from "~/core/tanks/tank";
import { median, ms, show } from "./measure";

const shape = { kind: "prism" as const, section: vee, lengthM: 1.04 };
const reach = { pitchDeg: 30, rollDeg: 30 };
const COUNT = 41;
const LEVELS = 101;

/** By quadrature: the section under the surface clipped at 400 places along the tank. */
function quadrature(pitchDeg: number, rollDeg: number, offset: number): number {
  const { up } = new TiltedTank({ shape }, { pitchDeg, rollDeg });
  const slices = 400;
  let sum = 0;
  for (let i = 0; i < slices; i++) {
    const x = (shape.lengthM * (i + 0.5)) / slices;
    sum += polygonArea(polygonBelow(vee, (offset - up[0] * x) / up[2], -up[1] / up[2]));
  }
  return (sum * shape.lengthM) / slices;
}

let map: Float64Array = new Float64Array();
const times = Array.from({ length: 7 }, () =>
  ms(() => {
    map = volumeMap({ shape }, reach, COUNT, LEVELS);
  }),
);
let worst = 0;
for (let i = 0; i < COUNT; i += 8)
  for (let j = 0; j < COUNT; j += 8) {
    const attitude = { pitchDeg: -30 + (60 * i) / (COUNT - 1), rollDeg: -30 + (60 * j) / (COUNT - 1) };
    const { low, high } = new TiltedTank({ shape }, attitude);
    for (let k = 0; k < LEVELS; k += 20) {
      const slow = quadrature(attitude.pitchDeg, attitude.rollDeg, low + ((high - low) * k) / (LEVELS - 1));
      worst = Math.max(worst, Math.abs((map[(i * COUNT + j) * LEVELS + k] as number) - slow));
    }
  }
const capacity = new TiltedTank({ shape }, LEVEL).capacityM3;
show(
  `V tank: map of ${COUNT} x ${COUNT} attitudes x ${LEVELS} levels`,
  `first ${(times[0] ?? 0).toFixed(0)} ms, then ${median(times.slice(1)).toFixed(0)} ms; quadrature differs by ${((100 * worst) / capacity).toExponential(1)} % of capacity`,
);

const round: TankShape = { kind: "cylinder", diameterM: 0.6, lengthM: 1.2, axis: "x", endDepthM: 0.1 };
for (const [name, one] of [
  ["prism", shape],
  ["three-section loft", hull],
  ["dished cylinder", round],
] as const) {
  const tank = new TiltedTank({ shape: one }, { pitchDeg: 5, rollDeg: -8 });
  const CALLS = 4000;
  let off = 0;
  const run = () => {
    for (let i = 0; i < CALLS; i++) {
      const volume = (tank.capacityM3 * ((i * 0.618034) % 1)) as number;
      off = Math.max(off, tank.offsetOfVolume(volume) - tank.high);
    }
  };
  run();
  show(`${name} at tilt: level from a volume`, `${((1000 * ms(run)) / CALLS).toFixed(1)} us`);
}
