/** A pump's curve and what its system asks, over flow: where they meet is where it runs. Every point is a solve. */

import type { Pushing } from "../kinds/families";
import type { Id } from "../kinds/record";
import { effectiveCurve, riseAt } from "../laws/pumpCurve";
import { buildNetwork, type Network } from "../network/network";
import type { Conditions, LineUp } from "../plan/types";
import { gaugeAtPort } from "./derive";
import { type LineUpResult, LineUpSolver } from "./solve";

export interface CurvePoint {
  flowM3S: number;
  risePa: number;
}

export interface PumpAndSystem {
  pump: CurvePoint[];
  /** Rise the system asks at a flow: to bring fuel to the consumer at the pressure of the air, or from tank to tank. */
  system: CurvePoint[];
  running: CurvePoint;
}

const SAMPLES = 12;

function point(result: LineUpResult, pumpId: Id, consumerId: Id | null): CurvePoint | null {
  if (result.outcome !== "solved") return null;
  const pump = result.network.sorted.pumps.find(({ link }) => link.part.id === pumpId);
  if (!pump) return null;
  const flowM3S = result.flow[pump.index] as number;
  const rise = (result.gaugePa[pump.link.to] as number) - (result.gaugePa[pump.link.from] as number);
  const left = consumerId === null ? 0 : gaugeAtPort(result, `${consumerId}.feed`);
  return flowM3S > 0 && Number.isFinite(rise - left) ? { flowM3S, risePa: rise - left } : null;
}

/** With a consumer its load is run through; from tank to tank the pump is made weaker and stronger. Null where it does not run. */
export function pumpAndSystem(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  pump: Pushing,
  consumerId: Id | null,
): PumpAndSystem | null {
  const here = point(new LineUpSolver(network).solve(lineUp, conditions), pump.id, null);
  if (!here) return null;
  const shares = Array.from({ length: SAMPLES + 1 }, (_, i) => i / SAMPLES);
  const solver = new LineUpSolver(network);
  const system = shares.flatMap((share) => {
    if (consumerId !== null) {
      return (
        point(
          solver.solve(lineUp, { ...conditions, load: { ...conditions.load, [consumerId]: share } }),
          pump.id,
          consumerId,
        ) ?? []
      );
    }
    const strength = 0.2 + 1.6 * share;
    const parts = network.plan.parts.map((part) =>
      part.id === pump.id
        ? {
            ...pump,
            curve: pump.curve.map(({ flowM3S, risePa }) => ({
              flowM3S: flowM3S * strength,
              risePa: risePa * strength,
            })),
          }
        : part,
    );
    const other = new LineUpSolver(buildNetwork(network.job, { ...network.plan, parts }));
    return point(other.solve(lineUp, conditions), pump.id, null) ?? [];
  });
  const curve = effectiveCurve(pump.curve, pump.reliefPa);
  const most = curve.at(-1)?.flowM3S ?? 0;
  const points = shares.map((share) => ({ flowM3S: share * most, risePa: riseAt(curve, share * most) }));
  return { pump: points, system, running: here };
}
