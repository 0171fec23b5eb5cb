/** What a line-up and its conditions make of a network: laws, demands and fixed potentials, written into kept arrays. */
import { atmospherePa, type FuelState, fuelAt, headPa } from "../fuel/fuel";
import { burnsAll } from "../kinds/consumer";
import type { Engine } from "../kinds/index";
import type { Conditions, LineUp } from "../plan/types";
import { type LinkLaws, Way } from "../solver/newton";
import type { Applied, Setter } from "./links/link";
import type { Network } from "./network";
import { postureOf } from "./posture";

export interface Settings extends Applied {
  readonly atmospherePa: number;
  readonly laws: LinkLaws;
  readonly demand: Float64Array;
  /** Potential of the fixed nodes, by node index less the unknowns. */
  readonly fixed: Float64Array;
}

/** Feed and burn at a load, straight between the sheet's points; below the first it is held. A heater burns all. */
export function engineFlows(engine: Engine, load: number): { feedM3S: number; burnM3S: number } {
  const { loads } = engine;
  const above = loads.findIndex((point) => point.load >= load);
  const high = loads[above < 0 ? loads.length - 1 : above];
  const low = loads[Math.max(0, (above < 0 ? loads.length : above) - 1)];
  if (!high || !low) return { feedM3S: 0, burnM3S: 0 };
  const t = high.load === low.load ? 1 : Math.min(1, Math.max(0, (load - low.load) / (high.load - low.load)));
  const burnM3S = low.burnM3S + t * (high.burnM3S - low.burnM3S);
  return {
    feedM3S: burnsAll(engine) ? burnM3S : low.feedM3S + t * (high.feedM3S - low.feedM3S),
    burnM3S,
  };
}

export type SettingsFault = { code: "viscosityOutOfRange"; tempC: number };

function emptyLaws(network: Network): LinkLaws {
  const { links, shape } = network;
  const make = () => new Float64Array(links.length);
  return {
    way: new Uint8Array(links.length),
    constant: make(),
    linear: make(),
    square: make(),
    friction: make(),
    reynoldsPerFlow: make(),
    relativeRoughness: shape.relativeRoughness,
    curve: new Int16Array(links.length),
    curves: shape.curves,
  };
}

function setFlowLaws({ shape }: Network, laws: LinkLaws, fuel: FuelState): void {
  const { perViscosity, perDensity, perFriction, reBore } = shape;
  const { linear, square, friction, reynoldsPerFlow } = laws;
  const { dynamicPaS, densityKgM3 } = fuel;
  const perKinematic = 1 / fuel.kinematicM2S;
  laws.way.fill(Way.open);
  laws.constant.fill(0);
  laws.curve.set(shape.curve);
  for (let i = 0; i < perViscosity.length; i++) {
    linear[i] = dynamicPaS * (perViscosity[i] as number);
    square[i] = densityKgM3 * (perDensity[i] as number);
    friction[i] = densityKgM3 * (perFriction[i] as number);
    reynoldsPerFlow[i] = (reBore[i] as number) * perKinematic;
  }
}

/** Settings of a line-up at conditions, reusing `into`'s arrays where given. */
export function makeSettings(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  into?: Settings,
): Settings | SettingsFault {
  const { job, topology } = network;
  const fuel = fuelAt(job.fuel, conditions.fuelC);
  if (!fuel) return { code: "viscosityOutOfRange", tempC: conditions.fuelC };
  const laws = into?.laws ?? emptyLaws(network);
  const demand = into?.demand ?? new Float64Array(topology.nodes);
  const fixed = into?.fixed ?? new Float64Array(topology.nodes - topology.unknowns);
  const posture = postureOf(network, conditions.trim);
  const surfaceM = new Map(
    job.tanks.map((tank) => [tank.id, posture.surfaceM(tank, conditions.aboardM3[tank.id] ?? 0)]),
  );
  job.tanks.forEach((tank, i) => {
    fixed[i] = headPa(fuel.densityKgM3, surfaceM.get(tank.id) ?? 0) - (network.ventVacuumPa[i] as number);
  });
  demand.fill(0);
  for (const { part, feed, back } of network.engines) {
    if (lineUp.consumers[part.id] !== "running") continue;
    const { feedM3S, burnM3S } = engineFlows(part, conditions.load[part.id] ?? 1);
    demand[feed] = (demand[feed] ?? 0) + feedM3S;
    if (back !== null) demand[back] = (demand[back] ?? 0) - (feedM3S - burnM3S);
  }
  setFlowLaws(network, laws, fuel);
  const applied = { lineUp, conditions, fuel, surfaceM, posture };
  const { setters } = network.sorted;
  for (let i = 0; i < setters.length; i++) (setters[i] as Setter)(laws, applied);
  // What is held at a node between solves has no curve of its own.
  for (const { index } of network.adjusted) laws.curve[index] = -1;
  return {
    lineUp,
    conditions,
    fuel,
    atmospherePa: atmospherePa(job.site.altitudeM),
    laws,
    demand,
    fixed,
    surfaceM,
    posture,
  };
}
