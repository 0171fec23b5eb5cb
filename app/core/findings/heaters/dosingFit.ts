/**
 * Practice 38: a dosing pump slopes 15 to 35 degrees, outlet up, in rubber; its lengths and lift are the maker's, and
 * without the maker's figure they are not judged. Common practice and maker's.
 */

import type { LineUpVerdict } from "../../hydraulics/worst";
import type { DosingPump } from "../../kinds/dosingPump";
import { isConsumer } from "../../kinds/families";
import { onPart } from "../onPart";
import { rule } from "../rule";

const LEAST_TILT_DEG = 15;
const MOST_TILT_DEG = 35;

interface Judged {
  code: "tilt" | "rubber" | "before" | "after" | "lift";
  is: number;
  limit: number;
  basis: "common" | "maker";
}

function judge(pump: DosingPump, { way, result }: LineUpVerdict): Judged[] {
  const found: Judged[] = [];
  const { tiltDeg, rubberMounted, mostBeforeM, mostAfterM, mostLiftM } = pump;
  if (tiltDeg !== undefined && !(tiltDeg >= LEAST_TILT_DEG && tiltDeg <= MOST_TILT_DEG))
    found.push({
      code: "tilt",
      is: tiltDeg,
      limit: tiltDeg < LEAST_TILT_DEG ? LEAST_TILT_DEG : MOST_TILT_DEG,
      basis: "common",
    });
  if (rubberMounted === false) found.push({ code: "rubber", is: 0, limit: 1, basis: "common" });
  const at = way?.stations.find(({ id }) => id === pump.id);
  if (!way || !at || result.outcome !== "solved") return found;
  const over = (code: Judged["code"], is: number, limit: number | undefined) => {
    if (limit !== undefined && is > limit) found.push({ code, is, limit, basis: "maker" });
  };
  over("before", at.atM, mostBeforeM);
  over("after", way.consumerAtM - at.atM, mostAfterM);
  const surface = result.settings.surfaceM.get(way.stations[0]?.id ?? "") ?? at.zM;
  over("lift", at.zM - surface, mostLiftM);
  return found;
}

export const dosingFit = rule({
  id: "dosingFit",
  practice: [38],
  place: "layout",
  judge: ({ plan, job, verdicts }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "dosingPump" || !job.consumers.some(isConsumer)) return [];
      return verdicts.flatMap((verdict) =>
        judge(part, verdict).map(({ code, is, limit, basis }) =>
          onPart({
            grade: "mend",
            part,
            also: [code],
            basis,
            lineUpIds: [verdict.lineUp.id],
            values: { code, is, limit },
            figure: Math.abs(is - limit),
          }),
        ),
      );
    }),
});
