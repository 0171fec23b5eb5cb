/** A plan's solution as plain figures by id, with units in the names: what the command line prints. */
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Conditions, Job } from "../plan/types";
import { fromSi } from "../units/factors";
import { figuresAt, figuresOf } from "./derive";
import type { SolvedLineUp } from "./solve";
import { judgeAll, type LineUpVerdict } from "./worst";

const lh = (flow: number) => fromSi("flow", flow, "L/h");
const kpa = (pressure: number) => fromSi("pressure", pressure, "kPa");

function pointReport(solved: SolvedLineUp, node: number) {
  const gaugePa = solved.gaugePa[node] as number;
  // Fuel shut in between closed valves: its pressure is not known, and none is given.
  if (Number.isNaN(gaugePa)) return null;
  const { absolutePa, vacuumPa, freeAir } = figuresAt(solved, gaugePa);
  return {
    gaugeKpa: kpa(gaugePa),
    absoluteKpa: kpa(absolutePa),
    vacuumKpa: kpa(vacuumPa),
    vacuumInHg: fromSi("pressure", vacuumPa, "inHg"),
    freeAirFraction: freeAir,
  };
}

function solvedReport(solved: SolvedLineUp) {
  const { network } = solved;
  const points = network.nodes
    .slice(0, network.topology.unknowns)
    .map((node, i) => [node.id, pointReport(solved, i)] as const);
  const links = network.links.map((link, i) => {
    const { flowM3S, velocityMS, reynolds, lossPa } = figuresOf(solved, i);
    // Between trapped ends no loss is known.
    const lossKpa = Number.isFinite(lossPa) ? kpa(lossPa) : null;
    return [link.id, { flowLH: lh(flowM3S), velocityMS, reynolds, lossKpa }] as const;
  });
  const consumers = [...solved.consumers].map(([id, outcome]) => {
    switch (outcome.outcome) {
      case "fed":
        return [
          id,
          { outcome: outcome.outcome, feedLH: lh(outcome.feedM3S), burnLH: lh(outcome.burnM3S) },
        ] as const;
      case "starved":
      case "air": {
        const { feedM3S, mostM3S, ...rest } = outcome;
        return [id, { ...rest, feedLH: lh(feedM3S), mostLH: lh(mostM3S) }] as const;
      }
      case "noPath":
        return [id, { outcome: outcome.outcome, side: outcome.side }] as const;
      case "stopped":
        return [id, { outcome: outcome.outcome }] as const;
    }
  });
  return {
    residual: { massM3S: solved.massM3S, energyPa: solved.energyPa, iterations: solved.iterations },
    consumers: Object.fromEntries(consumers),
    points: Object.fromEntries(points),
    links: Object.fromEntries(links),
  };
}

function lineUpReport({ lineUp, result, way, suction }: LineUpVerdict) {
  const head = { id: lineUp.id, name: lineUp.name, outcome: result.outcome };
  if (result.outcome !== "solved") return head;
  const worst = way?.suctionLosses[0];
  return {
    ...head,
    ...solvedReport(result),
    suction: suction && {
      at: suction.id,
      vacuumKpa: kpa(suction.vacuumPa),
      vacuumInHg: fromSi("pressure", suction.vacuumPa, "inHg"),
      limitKpa: kpa(suction.limitPa),
      basis: suction.basis,
      freeAirFraction: suction.freeAir,
    },
    worstPart: worst ? { id: worst.id, lossKpa: kpa(worst.lossPa), shareOfSuction: worst.share } : null,
  };
}

/** Every line-up of the current plan at its conditions, which are echoed. */
export function solveReport(job: Job, conditions: Conditions = currentPlan(job).conditions) {
  const network = buildNetwork(job);
  const litres = Object.entries(conditions.aboardM3).map(([id, m3]) => [id, fromSi("volume", m3, "L")]);
  return {
    job: job.id,
    plan: network.plan.id,
    conditions: {
      fuelC: conditions.fuelC,
      aboardL: Object.fromEntries(litres),
      loading: conditions.loading,
      load: conditions.load,
      ...(conditions.trim ? { trim: conditions.trim } : {}),
    },
    lineUps: judgeAll(network, conditions).map(lineUpReport),
  };
}
