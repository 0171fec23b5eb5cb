/** Practice 25: a long tank without baffles, or one that lies across the vehicle, sloshes. Common practice. */
import { boundsOf } from "../../tanks/shape";
import { capacityM3 } from "../../tanks/tank";
import { onTank } from "../onTank";
import { rule } from "../rule";

/** Beyond these a tank is given a baffle. Common practice, no source. */
const LONG_M = 0.75;
const LARGE_M3 = 0.12;

export const sloshing = rule({
  id: "sloshing",
  practice: [25],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      if (job.kind === "heater" || capacityM3(tank) < LARGE_M3 || (tank.baffles ?? []).length > 0) return [];
      const { x, y } = boundsOf(tank.shape);
      const yaw = Math.abs(Math.sin((tank.yawDeg * Math.PI) / 180)) > Math.SQRT1_2;
      const [along, across] = yaw ? [y[1] - y[0], x[1] - x[0]] : [x[1] - x[0], y[1] - y[0]];
      const longest = Math.max(along, across);
      if (!(longest > LONG_M)) return [];
      return [
        onTank({
          grade: "watch",
          tank,
          values: { longM: longest, across: across > along ? 1 : 0 },
          figure: longest,
        }),
      ];
    }),
});
