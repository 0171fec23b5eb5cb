/** Every pump of a plan where it runs: its point in each line-up, its limits, and what two of it would do. */

import { isPushing, type Pushing } from "../kinds/families";
import type { Id } from "../kinds/record";
import { buildNetwork, type Network } from "../network/network";
import type { Conditions, LineUp } from "../plan/types";
import { LineUpSolver } from "./solve";
import { judgeLineUp, type LineUpVerdict } from "./worst";

export interface PumpPointAt {
  pumpId: Id;
  lineUpId: Id;
  flowM3S: number;
  risePa: number;
  /** Gauge pressure at its inlet: negative is vacuum. */
  inletPa: number;
  /** Rise at no flow, held by its relief. */
  deadHeadPa: number;
  isAtRelief: boolean;
}

const deadHead = ({ curve, reliefPa }: Pushing): number => {
  const rise = Math.max(...curve.map(({ risePa }) => risePa));
  return reliefPa === undefined ? rise : Math.min(rise, reliefPa);
};

/** Within this share of its setting a relief is open. */
const AT_RELIEF = 0.005;

function pointsOf(network: Network, { lineUp, result }: LineUpVerdict): PumpPointAt[] {
  if (result.outcome !== "solved") return [];
  return network.sorted.pumps.flatMap(({ index, link }): PumpPointAt[] => {
    const { part } = link;
    if (lineUp.pumps[part.id] !== "on") return [];
    const [inletPa, outletPa] = [result.gaugePa[link.from] as number, result.gaugePa[link.to] as number];
    const risePa = outletPa - inletPa;
    return [
      {
        pumpId: part.id,
        lineUpId: lineUp.id,
        flowM3S: result.flow[index] as number,
        risePa,
        inletPa,
        deadHeadPa: deadHead(part),
        isAtRelief: part.reliefPa !== undefined && risePa >= part.reliefPa * (1 - AT_RELIEF),
      },
    ];
  });
}

/** Operating points of every pump that is on, line-up by line-up. */
export function pumpPoints(network: Network, conditions: Conditions): PumpPointAt[] {
  const solver = new LineUpSolver(network);
  return network.plan.lineUps.flatMap((lineUp) => pointsOf(network, judgeLineUp(solver, lineUp, conditions)));
}

export const arrangements = ["alone", "parallel", "series"] as const;
export type Arrangement = (typeof arrangements)[number];

/** Two alike in parallel give twice the flow at a rise, in series twice the rise at a flow. */
export function arranged(pump: Pushing, arrangement: Arrangement): Pushing {
  const [flow, rise] = arrangement === "parallel" ? [2, 1] : arrangement === "series" ? [1, 2] : [1, 1];
  return {
    ...pump,
    curve: pump.curve.map(({ flowM3S, risePa }) => ({ flowM3S: flow * flowM3S, risePa: rise * risePa })),
    ...(pump.reliefPa === undefined ? {} : { reliefPa: rise * pump.reliefPa }),
  };
}

export interface ArrangedPoint {
  arrangement: Arrangement;
  point: PumpPointAt | null;
  /** Pressure at the first running consumer, Pa. */
  feedPa: number | null;
}

/** One pump against two of it, in a line-up. */
export function arrangedPoints(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  pumpId: Id,
): ArrangedPoint[] {
  const pump = network.plan.parts.filter(isPushing).find(({ id }) => id === pumpId);
  if (!pump) return [];
  return arrangements.map((arrangement) => {
    const parts = network.plan.parts.map((part) => (part.id === pumpId ? arranged(pump, arrangement) : part));
    const other = buildNetwork(network.job, { ...network.plan, parts });
    const verdict = judgeLineUp(new LineUpSolver(other), lineUp, conditions);
    return {
      arrangement,
      point: pointsOf(other, verdict).find((one) => one.pumpId === pumpId) ?? null,
      feedPa: verdict.way?.stations.find(({ kind }) => kind === "engine")?.beforePa ?? null,
    };
  });
}
