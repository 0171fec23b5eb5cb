/** Families of part kinds that share a law or a treatment, told once. */
import type {
  Bulb,
  CheckValve,
  Cooler,
  DosingPump,
  Engine,
  Filter,
  FlowMeter,
  FuelHeater,
  Part,
  Pump,
  PumpFilterUnit,
  Regulator,
  ReliefValve,
} from "./types";
import { pumpKinds } from "./types";

/** Pumps with a curve, alone. */
export const isPump = (part: Part): part is Pump => (pumpKinds as readonly string[]).includes(part.kind);

/** Whatever a line-up switches on and off and that pushes by a curve. */
export type Pushing = Pump | PumpFilterUnit;
export const isPushing = (part: Part): part is Pushing => isPump(part) || part.kind === "pumpFilterUnit";

/** Everything a line-up switches on and off. */
export type Powered = Pushing | DosingPump;
export const isPowered = (part: Part): part is Powered => isPushing(part) || part.kind === "dosingPump";

/** What holds an element that loads. */
export type Filtering = Filter | PumpFilterUnit;
export const isFiltering = (part: Part): part is Filtering =>
  part.kind === "filter" || part.kind === "pumpFilterUnit";

/** One way only, from a pressure on. */
export type OneWayPart = CheckValve | Bulb | ReliefValve | Regulator;

/** A drop rated at one flow. */
export type RatedPart = Cooler | FlowMeter | FuelHeater;
export const isRated = (part: Part): part is RatedPart =>
  part.kind === "cooler" || part.kind === "flowMeter" || part.kind === "fuelHeater";

/** Through `a`-`b` without a loss worth counting: its two ports are one place. */
export const isPlainThrough = (part: Part): boolean =>
  part.kind === "gauge" ||
  part.kind === "bleedScrew" ||
  part.kind === "samplingTap" ||
  part.kind === "waterSensor" ||
  part.kind === "bulkhead";

export const isConsumer = (part: Part): part is Engine =>
  part.kind === "engine" || part.kind === "generator" || part.kind === "heater";

/** Elements of a plan's filters, with the part they stand in. */
export const elementsOf = (parts: readonly Part[]): { id: string; part: Filtering }[] =>
  parts.flatMap((part) => (isFiltering(part) && part.element ? [{ id: part.element.id, part }] : []));
