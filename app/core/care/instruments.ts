/** What can be read off a plan: its gauges, its flow meters, the senders of its tanks; and what the plan computes for each. */

import type { Quantity } from "../book/entries";
import { gaugeAtPort } from "../hydraulics/derive";
import type { LineUpResult, SolvedLineUp } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Conditions, Job, Plan } from "../plan/types";
import { mixTemperatures } from "../running/mixing";
import type { UnitChoice } from "../units/format";
import { gaugeUnit, vacuumUnit } from "../units/trade";

export interface Instrument {
  id: Id;
  name: string;
  /** A vacuum is read below the open air, as it is written on its dial. */
  quantity: Quantity | "vacuum";
}

export function instrumentsOf({ tanks }: Job, { parts }: Plan): Instrument[] {
  return [
    ...parts.flatMap(({ id, name, ...part }): Instrument[] => {
      if (part.kind === "gauge") return [{ id, name, quantity: part.measures }];
      if (part.kind === "thermometer") return [{ id, name, quantity: "temperature" }];
      return part.kind === "flowMeter" ? [{ id, name, quantity: "flow" }] : [];
    }),
    ...tanks.map(({ id, name }): Instrument => ({ id, name, quantity: "level" })),
  ];
}

/** What an instrument should read, in its own sign; null where fuel stands still there or nothing is solved. */
export function computedAt(
  { links, nodeOf }: Network,
  result: LineUpResult | null,
  { id, quantity }: Instrument,
  { aboardM3, fuelC }: Conditions,
): number | null {
  if (quantity === "level") return aboardM3[id] ?? 0;
  if (result?.outcome !== "solved") return null;
  if (quantity === "flow") {
    const index = links.findIndex((link) => link.kind === "rated" && link.part.id === id);
    return index < 0 ? null : Math.abs(result.flow[index] as number);
  }
  if (quantity === "temperature") return temperatureAt(result, nodeOf.get(`${id}.a`), fuelC);
  const gaugePa = gaugeAtPort(result, `${id}.a`);
  if (!Number.isFinite(gaugePa)) return null;
  return quantity === "vacuum" ? -gaugePa : gaugePa;
}

/** Where something flows: what comes from the tanks, warmed and cooled on its way. */
function temperatureAt(result: SolvedLineUp, node: number | undefined, fuelC: number): number | null {
  const { network, flow } = result;
  const passes = network.links.some(({ from, to }, i) => (from === node || to === node) && flow[i] !== 0);
  if (node === undefined || !passes) return null;
  const temps = new Float64Array(network.topology.nodes).fill(fuelC);
  mixTemperatures(result, temps);
  return temps[node] as number;
}

/** What an instrument's figure is of, and the unit in which the job shows it. */
export const dimensionOf = ({ quantity }: Pick<Instrument, "quantity">) =>
  (
    ({
      vacuum: "pressure",
      pressure: "pressure",
      flow: "flow",
      level: "volume",
      temperature: "temperature",
    }) as const
  )[quantity];
export function unitOf({ quantity }: Pick<Instrument, "quantity">, units: UnitChoice): string {
  if (quantity === "vacuum") return vacuumUnit(units);
  if (quantity === "pressure") return gaugeUnit(units, 1);
  if (quantity === "flow") return units.flow;
  return quantity === "level" ? units.volume : units.temperature;
}

/** A sender and a meter tell this much of what they read. Common practice, no source; assumed. */
const SHARE: Record<Instrument["quantity"], number> = {
  vacuum: 0.15,
  pressure: 0.15,
  flow: 0.1,
  level: 0.1,
  temperature: 0,
};
/** Below this nothing is told: a dial of class 1.6 over 40 kPa, 2 L/h, 2 L, 4 K. */
const LEAST: Record<Instrument["quantity"], number> = {
  vacuum: 640,
  pressure: 1600,
  flow: 5.6e-7,
  level: 2e-3,
  temperature: 4,
};

export interface Fit {
  off: number;
  within: number;
  fits: boolean;
}

/** Does a reading fit the plan, within what its instrument can tell and what the plan's figures are good for? */
export function fitOf({ quantity }: Pick<Instrument, "quantity">, read: number, computed: number): Fit {
  const off = read - computed;
  const within = Math.hypot(LEAST[quantity], SHARE[quantity] * computed);
  return { off, within, fits: Math.abs(off) <= within };
}
