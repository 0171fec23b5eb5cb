/**
 * Practice 50: the water sensor is not in the first bowl that water reaches: what collects before it warns. School: the
 * first bowl, or the factory filter's. Common practice, divided.
 */
import { isFiltering } from "../../kinds/families";
import { schoolOf } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Of a bowl, what water may fill before it is carried on. Common practice, no source. */
const BOWL_SHARE = 0.3;

export const sensorLate = rule({
  id: "sensorLate",
  practice: [50],
  place: "layout",
  judge: ({ job, plan, verdicts }) => {
    if (schoolOf(job.schools, "waterSensor") !== "firstBowl") return [];
    return verdicts.flatMap(({ lineUp, way }) => {
      if (!way?.consumer) return [];
      const feed = way.stations.filter(({ side }) => side === "feed").map(({ id }) => id);
      const parts = feed.flatMap((id) => plan.parts.find((part) => part.id === id) ?? []);
      const warns = parts.findIndex(
        (part) => part.kind === "waterSensor" || (isFiltering(part) && part.sensorHeldM3 !== undefined),
      );
      const sensor = parts[warns];
      if (!sensor) return [];
      const before = parts
        .slice(0, warns)
        .filter(isFiltering)
        .reduce((sum, { volumeM3 }) => sum + BOWL_SHARE * volumeM3, 0);
      if (before === 0) return [];
      const own =
        sensor.kind === "waterSensor" ? sensor.heldM3 : isFiltering(sensor) ? (sensor.sensorHeldM3 ?? 0) : 0;
      return [
        onPart({
          grade: "watch",
          part: sensor,
          lineUpIds: [lineUp.id],
          school: "waterSensor:firstBowl",
          values: { heldM3: before + own },
          figure: before + own,
        }),
      ];
    });
  },
});

/** A sensor that warns only when this much of its bowl is water sits too high: water is carried on before. Common practice, no source. */
const WARNS_BY_SHARE = 0.5;

export const waterSensorHigh = rule({
  id: "waterSensorHigh",
  practice: [50],
  place: "layout",
  judge: ({ plan }) =>
    plan.parts.flatMap((part) => {
      if (!isFiltering(part) || part.sensorHeldM3 === undefined) return [];
      if (!(part.sensorHeldM3 > WARNS_BY_SHARE * part.volumeM3)) return [];
      const { sensorHeldM3: heldM3, volumeM3 } = part;
      return [onPart({ grade: "watch", part, values: { heldM3, volumeM3 }, figure: heldM3 })];
    }),
});
