/**
 * A jet pump in a line-up that drives it: one that pushes fuel back out of its draw, one that draws less than is burned so
 * that the well behind it runs dry, one that stands over the fuel. A jet moves liquid and hardly lifts air. Common practice.
 */
import type { SolvedLineUp } from "../../hydraulics/solve";
import type { JetPump } from "../../kinds/jetPump";
import { fromTank } from "../../plan/ports";
import type { Job, Tank, TankPort } from "../../plan/types";
import { isInWell, wellHoldsS } from "../../tanks/pickup";
import { levelOfVolumeM } from "../../tanks/tank";
import { HOUR_S } from "../../units/factors";
import { onPart } from "../onPart";
import { rule } from "../rule";

const DRIVEN_M3S = 1e-9;
/** A jet still drawn up over the fuel by this on a good day. Common practice, no source. */
const LIFTS_AIR_M = 0.025;

/** Flow of a way of a jet, m3/s: `n` what drives it, `s` what it draws. */
const flowOf = ({ network, flow }: SolvedLineUp, { id }: JetPump, way: "n" | "s"): number => {
  const index = network.linkOf.get(`${id}.${way}`);
  return index === undefined ? 0 : (flow[index] as number);
};

/** The tank with a well that is drawn from, and through which of its ports. */
function wellOf({ network, flow }: SolvedLineUp): { tank: Tank; port: TankPort } | null {
  for (const [i, link] of network.links.entries())
    if (link.kind === "tankPort" && (flow[i] as number) < -DRIVEN_M3S && isInWell(link.tank, link.port.mouth))
      return { tank: link.tank, port: link.port };
  return null;
}

/** How far a jet stands over the fuel that it draws, m: over the highest surface of the job's tanks. */
function overM(job: Job, aboardM3: Readonly<Record<string, number>>, { position }: JetPump): number {
  const surfaces = job.tanks.map(
    (tank) => fromTank(tank, { xM: 0, yM: 0, zM: levelOfVolumeM(tank, aboardM3[tank.id] ?? 0) }).zM,
  );
  return position.zM - Math.max(...surfaces);
}

export const jetDraws = rule({
  id: "jetDraws",
  practice: [],
  place: "prove",
  judge: ({ job, plan, verdicts }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "jetPump") return [];
      return verdicts.flatMap(({ lineUp, result }) => {
        if (result.outcome !== "solved") return [];
        const [driveM3S, drawM3S] = [flowOf(result, part, "n"), flowOf(result, part, "s")];
        if (!(driveM3S > DRIVEN_M3S)) return [];
        const burnM3S = [...result.consumers.values()].reduce(
          (sum, one) => sum + (one.outcome === "fed" ? one.burnM3S : 0),
          0,
        );
        const well = wellOf(result);
        const lacksM3S = burnM3S - Math.max(0, drawM3S);
        const dryS = well && lacksM3S > 0 ? wellHoldsS(well.tank, well.port.mouth, lacksM3S) : null;
        const dryHours = dryS === null ? null : dryS / HOUR_S;
        const liftM = overM(job, plan.conditions.aboardM3, part);
        const found = (code: "pushesBack" | "lessThanBurn" | "onAir", figure: number) =>
          onPart({
            grade: code === "onAir" ? "watch" : "mend",
            part,
            also: [code],
            lineUpIds: [lineUp.id],
            values: { code, lineUp: lineUp.name, driveM3S, drawM3S, burnM3S, dryHours, liftM },
            figure,
          });
        if (drawM3S < -DRIVEN_M3S) return [found("pushesBack", -drawM3S)];
        if (lacksM3S > 0) return [found("lessThanBurn", lacksM3S)];
        return liftM > LIFTS_AIR_M ? [found("onAir", liftM)] : [];
      });
    }),
});
