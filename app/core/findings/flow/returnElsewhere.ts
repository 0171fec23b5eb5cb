/**
 * Practice 1: fuel of a running line-up ends in another tank than it came from. The hours are those of the plan's own
 * run over time; tanks whose levels settle before one overflows or starves are a Watch. Common practice.
 */
import { returnLinks, tankFlows } from "../../hydraulics/derive";
import type { SolvedLineUp } from "../../hydraulics/solve";
import { NO_FLOW_M3S } from "../../hydraulics/starving";
import { linkKindOf } from "../../network/links";
import type { NetworkLink } from "../../network/links/link";
import { walk } from "../../network/walk";
import type { Tank } from "../../plan/types";
import { heldRun, type RunEvent, type RunPoint } from "../../running/run";
import { HOUR_S } from "../../units/factors";
import { rule } from "../rule";

/** A line-up held longer than this is seen to. Common practice, no source. */
const MOST_H = 48;

type Cause = "return" | "pump" | "gravity";

/** What brings fuel into a tank: a return, a pump that works, or height alone. */
function causeOf(solved: SolvedLineUp, tank: Tank): Cause {
  const { network, flow, settings } = solved;
  const { links, topology, nodeOf } = network;
  const isReturn = returnLinks(solved);
  if (links.some((link, i) => link.kind === "tankPort" && link.tank === tank && isReturn[i])) return "return";
  const upstream = walk(topology, [nodeOf.get(tank.id) as number], (k, node) => {
    const q = flow[k] as number;
    return q > NO_FLOW_M3S ? topology.to[k] === node : q < -NO_FLOW_M3S && topology.from[k] === node;
  }).seen;
  const isPumped = links.some((link, i) => {
    const draws = linkKindOf(link as NetworkLink).draws?.(link);
    return draws && settings.lineUp.pumps[draws.id] === "on" && flow[i] !== 0 && upstream[link.to] === 1;
  });
  return isPumped ? "pump" : "gravity";
}

const shortages = new Set<RunEvent["kind"]>(["starved", "air", "noPath"]);
/** Has a tank gained all that it gains before the run ended? */
function hasSettled(points: readonly RunPoint[], { id }: Tank): boolean {
  const aboard = points.map(({ aboardM3 }) => aboardM3[id] ?? 0);
  return (aboard.at(-1) ?? 0) < Math.max(...aboard);
}

const isTold = (events: readonly RunEvent[], receiving: readonly Tank[]): boolean =>
  events.some(({ kind }) => shortages.has(kind)) &&
  receiving.every(({ id }) => events.some((one) => one.kind === "overfilled" && one.tankId === id));
const hoursOf = (event: RunEvent | undefined): number | null => (event ? event.atS / HOUR_S : null);

export const returnElsewhere = rule({
  id: "returnElsewhere",
  practice: [1],
  place: "layout",
  judge: ({ job, network, verdicts }) => {
    const seen = new Set<string>();
    return verdicts.flatMap(({ lineUp, result }) => {
      // A line-up with several consumers is judged once for each; what its tanks gain is the same.
      if (result.outcome !== "solved" || lineUp.intendedTransfer || seen.has(lineUp.id)) return [];
      seen.add(lineUp.id);
      const flows = tankFlows(result);
      const receiving = job.tanks.filter(({ id }) => (flows.get(id) ?? 0) < -NO_FLOW_M3S);
      const [from] = job.tanks.filter(({ id }) => (flows.get(id) ?? 0) > NO_FLOW_M3S);
      if (!from || receiving.length === 0) return [];
      const { conditions } = result.settings;
      const { events, points } = heldRun(
        network,
        lineUp,
        conditions,
        { ambientC: conditions.fuelC },
        MOST_H,
        (seen) => isTold(seen, receiving),
      );
      const emptyHours = hoursOf(events.find(({ kind }) => shortages.has(kind)));
      return receiving.map((to) => {
        const fullHours = hoursOf(events.find((one) => one.kind === "overfilled" && one.tankId === to.id));
        const cause = causeOf(result, to);
        const isSettling = cause === "gravity" && fullHours === null && hasSettled(points, to);
        return {
          grade: isSettling ? ("watch" as const) : ("stop" as const),
          ids: [to.id, from.id],
          lineUpIds: [lineUp.id],
          basis: "common" as const,
          values: {
            lineUp: lineUp.name,
            to: to.name,
            from: from.name,
            cause,
            fullHours,
            emptyHours,
            flowM3S: -(flows.get(to.id) ?? 0),
          },
          figure: -Math.min(fullHours ?? MOST_H, emptyHours ?? MOST_H),
        };
      });
    });
  },
});
