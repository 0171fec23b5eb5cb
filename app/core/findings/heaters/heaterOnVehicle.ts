/**
 * Practice 43: a heater on the vehicle's tank draws above a reserve, so that the vehicle gets home; vegetable fuel in
 * that tank rules it out. The litres that stay are computed. Common practice, divided.
 */

import { schoolOf } from "../../plan/types";
import { capacityM3, volumeAtLevelM3 } from "../../tanks/tank";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** A heater's own tank is smaller than this. Common practice, no source. */
const OWN_TANK_M3 = 0.03;
/** What must stay to get home, of the tank. Common practice, no source. */
const RESERVE_SHARE = 0.15;
/** More biodiesel than the pump's common 7 % counts as vegetable fuel. */
const MOST_BIODIESEL = 0.07;

export const heaterOnVehicle = rule({
  id: "heaterOnVehicle",
  practice: [43],
  place: "layout",
  judge: ({ job, verdicts }) =>
    verdicts.flatMap(({ lineUp, way }) => {
      const tank = job.tanks.find(({ id }) => id === way?.stations[0]?.id);
      const outletId = way?.stations[0]?.linkId?.split(".")[1];
      const port = tank?.ports.find(({ id }) => id === outletId);
      if (!tank || !port || way?.consumer?.kind !== "heater" || job.kind === "boat") return [];
      const capacity = capacityM3(tank);
      // Whose tank it is, is asked; until somebody says, its size does.
      if (tank.heatersOwn ?? capacity < OWN_TANK_M3) return [];
      const reserveM3 = volumeAtLevelM3(tank, port.mouth.zM);
      const school = schoolOf(job.schools, "heaterFuel");
      const found = (code: "vegetable" | "notOwn" | "noReserve", figure: number) =>
        onPart({
          grade: "watch",
          part: way.consumer as { id: string; name: string },
          also: [tank.id],
          lineUpIds: [lineUp.id],
          school: `heaterFuel:${school}`,
          values: { code, tank: tank.name, reserveM3, wantedM3: RESERVE_SHARE * capacity },
          figure,
        });
      if ((job.fuel.biodieselShare ?? 0) > MOST_BIODIESEL) return [found("vegetable", 1)];
      if (school === "ownTank") return [found("notOwn", 1)];
      return school === "vehicleAboveReserve" && reserveM3 < RESERVE_SHARE * capacity
        ? [found("noReserve", RESERVE_SHARE * capacity - reserveM3)]
        : [];
    }),
});
