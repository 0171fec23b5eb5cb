/** Practice 20: the pickup's mouth too near the floor for its form, or too low where dirt may lie. Common practice. */
import { floorUnder } from "../../tanks/floor";
import { clearanceFullM, leastClearanceM } from "../../tanks/pickup";
import { onTank } from "../onTank";
import { rule } from "../rule";

export const pickupClearance = rule({
  id: "pickupClearance",
  practice: [20],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      const fit = tank.pickupFit;
      const port = tank.ports.find(({ id }) => id === fit?.portId);
      if (!fit || !port) return [];
      const { mouth } = port;
      const drawnM = mouth.zM - floorUnder(tank, mouth.xM, mouth.yM);
      const clearM = Math.min(drawnM, clearanceFullM(fit));
      const leastM = leastClearanceM(fit.mouth, port.boreM);
      if (clearM >= leastM - 1e-9) return [];
      return [
        onTank({
          grade: "mend",
          tank,
          values: { port: port.name, clearM, leastM, mouth: fit.mouth },
          figure: leastM - clearM,
        }),
      ];
    }),
});
