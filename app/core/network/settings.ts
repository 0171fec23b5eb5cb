/** What a line-up and its conditions make of a network: laws, demands and fixed potentials, written into kept arrays. */
import { atmospherePa, type FuelState, fuelAt, headPa } from "../fuel/fuel";
import { filterCoefficients } from "../laws/filterDrop";
import type { Conditions, Engine, Id, LineUp } from "../plan/types";
import { isOpen } from "../plan/valves";
import { type LinkLaws, Way } from "../solver/newton";
import { type Network, offPerFlowPa } from "./network";
import { type Posture, postureOf } from "./posture";

export interface Settings {
  readonly lineUp: LineUp;
  readonly conditions: Conditions;
  readonly fuel: FuelState;
  readonly atmospherePa: number;
  readonly laws: LinkLaws;
  readonly demand: Float64Array;
  /** Potential of the fixed nodes, by node index less the unknowns. */
  readonly fixed: Float64Array;
  /** Height of the fuel surface by tank, along the true vertical. */
  readonly surfaceM: ReadonlyMap<Id, number>;
  readonly posture: Posture;
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
    feedM3S: engine.kind === "heater" ? burnM3S : low.feedM3S + t * (high.feedM3S - low.feedM3S),
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

type Applied = Pick<Settings, "lineUp" | "conditions" | "fuel" | "surfaceM" | "posture">;

function setFilters({ settable }: Network, laws: LinkLaws, { conditions, fuel }: Applied): void {
  for (const { index, link } of settable.filter) {
    const { part } = link;
    if (!part.element) {
      laws.way[index] = Way.shut;
      continue;
    }
    const rating = {
      flowM3S: part.ratedFlowM3S,
      dropPa: part.ratedDropPa,
      dynamicPaS: part.ratedDynamicPaS,
      densityKgM3: part.ratedDensityKgM3,
      viscousShare: part.viscousShare,
    };
    const loading = conditions.loading[part.element.id] ?? 1;
    const { linear, square } = filterCoefficients(rating, fuel.dynamicPaS, fuel.densityKgM3, loading);
    laws.linear[index] = linear;
    laws.square[index] = square;
  }
}

function setPumps({ settable, adjusted }: Network, laws: LinkLaws, { lineUp }: Applied): void {
  for (const { index, link } of settable.pump) {
    const { part } = link;
    laws.way[index] = Way.oneWay;
    if (lineUp.pumps[part.id] === "on") continue;
    laws.curve[index] = -1;
    // With a bypass fuel goes round it, over a way of its own.
    if (part.off.kind === "free") laws.linear[index] = offPerFlowPa(part);
    else laws.way[index] = Way.shut;
  }
  for (const { index, link } of settable.dosing) {
    if (lineUp.pumps[link.part.id] !== "on") {
      laws.way[index] = Way.shut;
      continue;
    }
    laws.way[index] = Way.oneWay;
    if (adjusted.some((one) => one.index === index)) laws.curve[index] = -1;
  }
}

function setParts(network: Network, laws: LinkLaws, applied: Applied): void {
  const { lineUp, fuel, surfaceM, posture } = applied;
  for (const { index, link } of network.settable.valve) {
    if (!isOpen(link.valve, link.ports, lineUp.valves[link.valve.id])) laws.way[index] = Way.shut;
  }
  for (const { index, link } of network.settable.check) {
    laws.way[index] = Way.oneWay;
    laws.constant[index] = link.opensPa;
    laws.linear[index] = (laws.linear[index] as number) + link.perFlowPa;
  }
  for (const { index, link } of network.settable.throttle) {
    laws.way[index] = Way.oneWay;
    laws.linear[index] = link.part.droopPa / link.part.ratedFlowM3S;
  }
  setFilters(network, laws, applied);
  setPumps(network, laws, applied);
  network.settable.tankPort.forEach(({ index, link }, i) => {
    const uncoveredM = (posture.mouthM[i] as number) - (surfaceM.get(link.tank.id) ?? 0);
    if (uncoveredM < 0) return;
    laws.way[index] = Way.oneWay;
    laws.constant[index] = headPa(fuel.densityKgM3, uncoveredM);
  });
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
    fixed[i] = headPa(fuel.densityKgM3, surfaceM.get(tank.id) ?? 0);
  });
  demand.fill(0);
  for (const { part, feed, back } of network.engines) {
    if (lineUp.consumers[part.id] !== "running") continue;
    const { feedM3S, burnM3S } = engineFlows(part, conditions.load[part.id] ?? 1);
    demand[feed] = (demand[feed] ?? 0) + feedM3S;
    if (back !== null) demand[back] = (demand[back] ?? 0) - (feedM3S - burnM3S);
  }
  setFlowLaws(network, laws, fuel);
  setParts(network, laws, { lineUp, conditions, fuel, surfaceM, posture });
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
