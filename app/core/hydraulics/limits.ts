/** Suction at the first pump of a way against its limit: the maker's figure, or common practice marked so. */
import { isPowered, type Powered } from "../kinds/families";
import type { Engine } from "../kinds/index";
import type { Limits, Plan } from "../plan/types";
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

const limitOf = (part: Powered | Engine | undefined, limits: Limits) =>
  part?.suctionLimitPa !== undefined
    ? ({ limitPa: part.suctionLimitPa, basis: "maker" } as const)
    : ({ limitPa: limits.suctionChangePa, basis: "common" } as const);

/**
 * What a pump that draws in a share of its stroke takes over the mean: the flow while it draws is the mean over that
 * share, and a heater's line is laminar, so that its loss goes with flow.
 */
const pulsePa = (way: FuelWay, drawShare: number): number =>
  (1 / drawShare - 1) * way.suctionLosses.reduce((sum, { lossPa }) => sum + Math.max(0, lossPa), 0);

/** Null where the way has neither pump nor consumer. */
export function suctionOf(solved: SolvedLineUp, way: FuelWay, plan: Plan): Suction | null {
  const pump = plan.parts.filter(isPowered).find(({ id }) => id === way.firstPumpId);
  const part = pump ?? way.consumer ?? undefined;
  if (!part) return null;
  const gaugePa = gaugeAtPort(solved, `${part.id}.${pump ? "in" : "feed"}`);
  if (Number.isNaN(gaugePa)) return null;
  const hardestPa = gaugePa - (pump?.kind === "dosingPump" ? pulsePa(way, pump.drawShare) : 0);
  const { vacuumPa, freeAir } = figuresAt(solved, hardestPa);
  const { limitPa, basis } = limitOf(part, plan.limits);
  return { id: part.id, vacuumPa, freeAir, limitPa, basis, marginPa: limitPa + hardestPa };
}
