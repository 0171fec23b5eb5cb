/** Suction at the first pump of a way against its limit: the maker's figure, or common practice marked so. */
import type { Engine, LiftPump, Limits, Plan } from "../plan/types";
import { figuresAt, gaugeAtPort } from "./derive";
import type { FuelWay } from "./route";
import type { SolvedLineUp } from "./solve";

export interface Suction {
  /** Pump or consumer the limit belongs to. */
  id: string;
  vacuumPa: number;
  freeAir: number | null;
  limitPa: number;
  basis: "maker" | "common";
  marginPa: number;
}

const limitOf = (part: LiftPump | Engine | undefined, limits: Limits) =>
  part?.suctionLimitPa !== undefined
    ? ({ limitPa: part.suctionLimitPa, basis: "maker" } as const)
    : ({ limitPa: limits.suctionChangePa, basis: "common" } as const);

/** Null where the way has neither pump nor consumer. */
export function suctionOf(solved: SolvedLineUp, way: FuelWay, plan: Plan): Suction | null {
  const pump = plan.parts.find(
    (part): part is LiftPump => part.id === way.firstPumpId && part.kind === "liftPump",
  );
  const part = pump ?? way.consumer ?? undefined;
  if (!part) return null;
  const gaugePa = gaugeAtPort(solved, `${part.id}.${pump ? "in" : "feed"}`);
  if (Number.isNaN(gaugePa)) return null;
  const { vacuumPa, freeAir } = figuresAt(solved, gaugePa);
  const { limitPa, basis } = limitOf(part, plan.limits);
  return { id: part.id, vacuumPa, freeAir, limitPa, basis, marginPa: limitPa + gaugePa };
}
