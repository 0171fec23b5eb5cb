/** Suction at the inlets of a way against their limits: the maker's figure, or common practice marked so. */
import { releasedShare } from "../fuel/dissolvedAir";
import { isConsumer, isPowered, type Powered } from "../kinds/families";
import { type Engine, kindOf } from "../kinds/index";
import type { Id } from "../kinds/record";
import type { Limits, Plan } from "../plan/types";
import { figuresAt, gaugeAtPort } from "./derive";
import { type FuelWay, suctionLosses, underVacuumS } from "./route";
import type { SolvedLineUp } from "./solve";
import { DOSING_SUCTION_PA, strokeGaugePa } from "./starving";

export interface Suction {
  /** Pump or consumer the limit belongs to. */
  id: string;
  vacuumPa: number;
  /** Free air at rest at this vacuum, and what of it has come out by the time the fuel is there; null where it boils. */
  freeAir: number | null;
  airOut: number | null;
  /** A pump that draws in strokes: its vacuum is that of the stroke. */
  inStrokes: boolean;
  limitPa: number;
  basis: "maker" | "common";
  marginPa: number;
  /** What takes most of it, and its share. */
  most: { id: string; share: number } | null;
}

/** A dosing pump is held against what it can draw itself: the scale of an engine's gauge says nothing of its strokes. */
const limitOf = (part: Powered | Engine, limits: Limits) => {
  const maker = part.suctionLimitPa ?? (part.kind === "dosingPump" ? part.mostSuctionPa : undefined);
  if (maker !== undefined) return { limitPa: maker, basis: "maker" } as const;
  const limitPa = part.kind === "dosingPump" ? DOSING_SUCTION_PA : limits.suctionChangePa;
  return { limitPa, basis: "common" } as const;
};

/** The inlets on a way that draw: working pumps in their order, and the consumer's own. */
function inletsOf(solved: SolvedLineUp, way: FuelWay, plan: Plan): (Powered | Engine)[] {
  const { pumps } = solved.settings.lineUp;
  const working = way.stations.flatMap(({ id, side, kind }) =>
    side === "feed" && kind === "pump" && pumps[id] === "on"
      ? plan.parts.filter(isPowered).filter((part) => part.id === id)
      : [],
  );
  return way.consumer ? [...working, way.consumer] : working;
}

function suctionAt(
  solved: SolvedLineUp,
  way: FuelWay,
  part: Powered | Engine,
  { limits, parts }: Plan,
): Suction | null {
  const volumeOf = (id: Id) => {
    const passed = parts.find((one) => one.id === id);
    return passed ? (kindOf(passed).volumeM3(passed) ?? 0) : 0;
  };
  const gaugePa = gaugeAtPort(solved, `${part.id}.${isConsumer(part) ? "feed" : "in"}`);
  if (Number.isNaN(gaugePa)) return null;
  const losses = suctionLosses(way, part.id);
  const lossPa = losses.reduce((sum, one) => sum + Math.max(0, one.lossPa), 0);
  const flowM3S = way.stations.find(({ id, side }) => id === part.id && side === "feed")?.flowM3S ?? 0;
  const inStrokes = part.kind === "dosingPump";
  const hardestPa = inStrokes ? strokeGaugePa(part, flowM3S, lossPa, gaugePa) : gaugePa;
  const { vacuumPa } = figuresAt(solved, hardestPa);
  // A stroke is over before air has come out at its pressure: what does, does at the mean.
  const { freeAir } = figuresAt(solved, gaugePa);
  const { limitPa, basis } = limitOf(part, limits);
  const airOut = freeAir === null ? null : freeAir * releasedShare(underVacuumS(way, part.id, volumeOf));
  const [most] = losses;
  return {
    id: part.id,
    vacuumPa,
    freeAir,
    airOut,
    inStrokes,
    limitPa,
    basis,
    marginPa: limitPa + hardestPa,
    most: most ? { id: most.id, share: most.share } : null,
  };
}

/** At the first inlet that draws: what the suction side alone answers for. */
export function firstSuction(solved: SolvedLineUp, way: FuelWay, plan: Plan): Suction | null {
  const [first] = inletsOf(solved, way, plan);
  return first ? suctionAt(solved, way, first, plan) : null;
}

/**
 * The inlet of a way that stands nearest to its limit: of the first working pump, of those behind it, and of the
 * consumer itself. Null where the way has neither pump nor consumer.
 */
export function suctionOf(solved: SolvedLineUp, way: FuelWay, plan: Plan): Suction | null {
  const judged = inletsOf(solved, way, plan).flatMap((part) => suctionAt(solved, way, part, plan) ?? []);
  return judged.reduce<Suction | null>(
    (worst, one) => (!worst || one.marginPa < worst.marginPa ? one : worst),
    null,
  );
}
