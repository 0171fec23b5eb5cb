/**
 * A plan as a network: nodes are ports (ports screwed together are one node), links are runs and ways through parts.
 * What does not change with a line-up or a slider is worked out here, once a plan.
 */

import { endLossK } from "../laws/boreChange";
import { jetLosses, nozzlePerFlow2 } from "../laws/jetPump";
import { effectiveCurve } from "../laws/pumpCurve";
import { type FittingKind, twoKOf } from "../laws/twoK";
import {
  type Filtering,
  isConsumer,
  isPlainThrough,
  isPushing,
  type OneWayPart,
  type Pushing,
  type RatedPart,
} from "../plan/families";
import {
  currentPlan,
  distanceM,
  fromTank,
  type PlacedPort,
  partsOf,
  placedPorts,
  portKey,
} from "../plan/ports";
import { type RunGeometry, runGeometry } from "../plan/route";
import type {
  DosingPump,
  Engine,
  Id,
  JetPump,
  Job,
  Part,
  Plan,
  Position,
  Regulator,
  Run,
  Tank,
  TankPort,
  Tee,
} from "../plan/types";
import { isValve, type Valve, waysThrough } from "../plan/valves";
import type { Curve } from "../solver/newton";
import { makeTopology, type Topology } from "../solver/newton";
import { areaM2 } from "../units/bore";

export interface NetworkNode {
  /** `part.port` of its first port; a tank's own id. */
  readonly id: string;
  readonly ports: readonly string[];
  readonly zM: number;
  /** Place of its first port; a tank's origin. */
  readonly at: Position;
}

interface LinkBase {
  /** Run id, part id, or `part.port` where a part has several ways. */
  readonly id: string;
  readonly from: number;
  readonly to: number;
}

export type NetworkLink = LinkBase &
  (
    | { readonly kind: "run"; readonly run: Run; readonly geometry: RunGeometry }
    | { readonly kind: "tankPort"; readonly tank: Tank; readonly port: TankPort }
    | { readonly kind: "valve"; readonly valve: Valve; readonly ports: readonly [Id, Id] }
    | { readonly kind: "tee"; readonly part: Tee }
    | { readonly kind: "filter"; readonly part: Filtering }
    | { readonly kind: "pump"; readonly part: Pushing }
    | { readonly kind: "dosing"; readonly part: DosingPump }
    /** Opens one way at a pressure; past it a drop that goes with flow. */
    | {
        readonly kind: "check";
        readonly part: OneWayPart | Pushing;
        readonly opensPa: number;
        readonly perFlowPa: number;
      }
    | { readonly kind: "throttle"; readonly part: Regulator }
    | { readonly kind: "rated"; readonly part: RatedPart }
    | { readonly kind: "jet"; readonly part: JetPump; readonly way: "nozzle" | "draw" | "mix" }
  );

/** Flow-independent coefficients of a link; density and viscosity scale them. */
export interface LinkShape {
  /** dp = mu * perViscosity * Q + rho * perDensity * Q|Q| + rho * perFriction * f Q|Q|; Re = reBore * |Q| / nu. */
  readonly perViscosity: Float64Array;
  readonly perDensity: Float64Array;
  readonly perFriction: Float64Array;
  readonly reBore: Float64Array;
  readonly relativeRoughness: Float64Array;
  readonly curve: Int16Array;
  readonly curves: readonly Curve[];
}

type LinkOf<K extends NetworkLink["kind"]> = Extract<NetworkLink, { kind: K }>;
interface Indexed<K extends NetworkLink["kind"]> {
  readonly index: number;
  readonly link: LinkOf<K>;
}

/** Links whose law a line-up or its conditions change, by kind, so that a setting touches only them. */
export interface SettableLinks {
  readonly valve: readonly Indexed<"valve">[];
  readonly check: readonly Indexed<"check">[];
  readonly filter: readonly Indexed<"filter">[];
  readonly pump: readonly Indexed<"pump">[];
  readonly tankPort: readonly (Indexed<"tankPort"> & {
    readonly mouthM: number;
    readonly mouth: Position;
  })[];
  readonly dosing: readonly Indexed<"dosing">[];
  readonly throttle: readonly Indexed<"throttle">[];
  readonly jet: readonly Indexed<"jet">[];
  /** Runs with a high or low point between their ends. */
  readonly humped: readonly Indexed<"run">[];
}

export interface Network {
  readonly job: Job;
  readonly plan: Plan;
  readonly topology: Topology;
  readonly nodes: readonly NetworkNode[];
  readonly nodeHeightM: Float64Array;
  readonly links: readonly NetworkLink[];
  readonly shape: LinkShape;
  readonly settable: SettableLinks;
  /** Node of a port, by `part.port`; node of a tank, by its id. */
  readonly nodeOf: ReadonlyMap<string, number>;
  readonly linkOf: ReadonlyMap<string, number>;
  /** A heater has no return. */
  readonly engines: readonly {
    readonly part: Engine;
    readonly feed: number;
    readonly back: number | null;
  }[];
  /** What changes a link's law by what it finds: a pressure held at a node, or the flow that drives a jet. */
  readonly adjusted: readonly Adjusted[];
  readonly ports: ReadonlyMap<string, PlacedPort>;
}

/** A link whose constant drop is set so that a node stands at a gauge pressure; a jet's mixing link follows its nozzle. */
export type Adjusted =
  | {
      readonly kind: "hold";
      readonly index: number;
      readonly node: number;
      readonly gaugePa: number;
      readonly leastPa: number;
      /**
       * Nodes that no other link joins to a tank, and no jet or held pressure lies among: what flows there is given by
       * its draws, and what the link holds back only lowers them all. Null where fuel can come and go otherwise.
       */
      readonly beyond: readonly number[] | null;
    }
  | { readonly kind: "jet"; readonly index: number; readonly nozzle: number; readonly part: JetPump };

class Groups {
  private readonly parent = new Map<string, string>();

  add(key: string): void {
    if (!this.parent.has(key)) this.parent.set(key, key);
  }

  find(key: string): string {
    const up = this.parent.get(key);
    if (up === undefined || up === key) return key;
    const top = this.find(up);
    this.parent.set(key, top);
    return top;
  }

  join(a: string, b: string): void {
    const top = this.find(a);
    const other = this.find(b);
    if (top !== other) this.parent.set(other, top);
  }
}

/** Node of a port, by its key. */
type At = (key: string) => number;

function linksOfPart(part: Part, at: At): NetworkLink[] {
  const { id } = part;
  const node = (port: Id) => at(`${id}.${port}`);
  if (isValve(part)) {
    return waysThrough(part).map((way) => ({
      kind: "valve",
      id: way.id,
      from: node(way.ports[0]),
      to: node(way.ports[1]),
      valve: part,
      ports: way.ports,
    }));
  }
  const through = { id, from: node("in"), to: node("out") };
  if (isPushing(part) && part.kind !== "pumpFilterUnit")
    return part.off.kind === "bypass"
      ? [{ kind: "pump", ...through, part }, bypassOf(part, through)]
      : [{ kind: "pump", ...through, part }];
  switch (part.kind) {
    case "tee":
      return [
        { kind: "tee", id: `${id}.b`, from: node("a"), to: node("b"), part },
        { kind: "tee", id: `${id}.c`, from: node("a"), to: node("c"), part },
      ];
    case "filter":
      return [{ kind: "filter", ...through, part }];
    case "pumpFilterUnit": {
      const inner = { ...through, id: `${id}.p`, to: node("x") };
      return [
        { kind: "pump", ...inner, part },
        ...(part.off.kind === "bypass" ? [bypassOf(part, inner)] : []),
        { kind: "filter", id: `${id}.f`, from: node("x"), to: node("out"), part },
        {
          kind: "check",
          id: `${id}.r`,
          from: node("x"),
          to: node("back"),
          part,
          opensPa: part.reliefPa,
          perFlowPa: (RELIEF_DROOP * part.reliefPa) / part.ratedFlowM3S,
        },
      ];
    }
    case "dosingPump":
      return [{ kind: "dosing", ...through, part }];
    case "check":
    case "antiSiphon":
    case "bulb":
      return [{ kind: "check", ...through, part, opensPa: part.crackingPa, perFlowPa: 0 }];
    case "relief":
      return [{ kind: "check", ...through, part, ...opensBy(part) }];
    case "regulator":
      return part.holds === "before"
        ? [{ kind: "check", ...through, part, ...opensBy(part) }]
        : [{ kind: "throttle", ...through, part }];
    case "cooler":
    case "flowMeter":
    case "fuelHeater":
      return [{ kind: "rated", id, from: node("in"), to: node("out"), part }];
    case "jetPump":
      return [
        { kind: "jet", way: "nozzle", id: `${id}.n`, from: node("drive"), to: node("x"), part },
        { kind: "jet", way: "draw", id: `${id}.s`, from: node("draw"), to: node("x"), part },
        { kind: "jet", way: "mix", id: `${id}.m`, from: node("x"), to: node("out"), part },
      ];
    case "gauge":
    case "bleedScrew":
    case "samplingTap":
    case "waterSensor":
    case "bulkhead":
    case "swirlPot":
    case "engine":
    case "generator":
    case "heater":
      return [];
  }
}

/** A unit's relief lets the rated flow back at this share over its setting. Common practice, no source. */
const RELIEF_DROOP = 0.1;

const opensBy = ({
  setPa,
  droopPa,
  ratedFlowM3S,
}: Pick<Regulator, "setPa" | "droopPa" | "ratedFlowM3S">) => ({
  opensPa: setPa,
  perFlowPa: droopPa / ratedFlowM3S,
});

const freeFlowOf = ({ curve }: Pick<Pushing, "curve">): number =>
  curve.reduce((most, { flowM3S }) => Math.max(most, flowM3S), 0);

/** Drop of an unpowered pump at its free flow, per flow. */
export const offPerFlowPa = (part: Pushing): number =>
  part.off.kind === "blocked" ? 0 : part.off.dropPa / freeFlowOf(part);

const bypassOf = (part: Pushing, way: { from: number; to: number }): NetworkLink => ({
  kind: "check",
  ...way,
  id: `${part.id}.by`,
  part,
  opensPa: part.off.kind === "bypass" ? part.off.opensPa : 0,
  perFlowPa: offPerFlowPa(part),
});

/** Places inside a part that no port shows. */
const innerPortsOf = (part: Part): Id[] =>
  part.kind === "pumpFilterUnit" || part.kind === "jetPump" ? ["x"] : [];

/** Runs whose ports both exist: a plan may be incomplete, and everything works on what is there. */
function linksOfRuns(plan: Plan, ports: ReadonlyMap<string, PlacedPort>, at: At): NetworkLink[] {
  const links: NetworkLink[] = [];
  for (const run of plan.runs) {
    const [a, b] = [portKey(run.from), portKey(run.to)];
    const from = ports.get(a);
    const to = ports.get(b);
    if (!from || !to) continue;
    links.push({
      kind: "run",
      id: run.id,
      from: at(a),
      to: at(b),
      run,
      geometry: runGeometry(run, from, to),
    });
  }
  return links;
}

/** Drawn from the port into the tank, so that 'one way' means fuel may only fall into it. */
const linksOfTank = (tank: Tank, at: At): NetworkLink[] =>
  tank.ports.map((port) => {
    const id = `${tank.id}.${port.id}`;
    return { kind: "tankPort", id, from: at(id), to: at(tank.id), tank, port };
  });

/** What a line of one bore loses, apart from what flows in it. */
interface Loss {
  boreM: number;
  lengthM: number;
  roughnessM: number;
  /** Sum of K over Re, and of K that does not change with flow. */
  overRe: number;
  constant: number;
}

function fitting(kind: FittingKind, boreM: number, lengthM = 0): Loss {
  const { overRe, constant } = twoKOf(kind, boreM);
  return { boreM, lengthM, roughnessM: 0, overRe, constant };
}

function lossOfRun({ run, geometry }: LinkOf<"run">): Loss {
  const { boreM, roughnessM, endBoreM } = run;
  const quarter = twoKOf("elbow90", boreM);
  const eighth = twoKOf("elbow45", boreM);
  const ends = endBoreM ? endLossK(boreM, endBoreM[0]) + endLossK(boreM, endBoreM[1]) : 0;
  return {
    boreM,
    lengthM: geometry.lengthM,
    roughnessM,
    overRe: geometry.bends90 * quarter.overRe + geometry.bends45 * eighth.overRe,
    constant: ends + geometry.bends90 * quarter.constant + geometry.bends45 * eighth.constant,
  };
}

function lossOf(link: NetworkLink): Loss | null {
  switch (link.kind) {
    case "run":
      return lossOfRun(link);
    case "tankPort": {
      const { mouth, outside, role, boreM } = link.port;
      return fitting(role === "outlet" ? "entrance" : "exit", boreM, distanceM(mouth, outside));
    }
    case "valve":
      return fitting("ballValve", link.valve.boreM);
    case "tee":
      return fitting(link.id.endsWith(".c") ? "teeBranch" : "teeRun", link.part.boreM);
    case "check":
      return isPushing(link.part) ? null : fitting("checkSwing", link.part.boreM);
    case "filter":
    case "pump":
    case "dosing":
    case "throttle":
    case "rated":
    case "jet":
      return null;
  }
}

/** Drop per density and square of flow of what is rated at one point, with common diesel. */
const ratedPerDensity = ({ ratedDropPa, ratedFlowM3S }: { ratedDropPa: number; ratedFlowM3S: number }) =>
  ratedDropPa / (RATED_DENSITY_KG_M3 * ratedFlowM3S ** 2);
/** Middle of EN 590: what makers rate a cooler or meter with. Common practice, no source. */
const RATED_DENSITY_KG_M3 = 830;

/** What a link loses beside its {@link Loss}, per density and square of flow. */
function ownPerDensity(link: NetworkLink): number {
  if (link.kind === "rated") return ratedPerDensity(link.part);
  if (link.kind === "check" && link.part.kind === "bulb") return ratedPerDensity(link.part);
  if (link.kind === "jet" && link.way === "nozzle") return (1 + jetLosses.nozzle) * nozzlePerFlow2(link.part);
  return 0;
}

/** A unit's relief is a way of its own; a pump's is in its curve. */
function curveOf(part: Pushing): Curve {
  const points = effectiveCurve(part.curve, part.kind === "pumpFilterUnit" ? undefined : part.reliefPa);
  const flow = new Float64Array(points.map(({ flowM3S }) => flowM3S));
  return { flow, drop: new Float64Array(points.map(({ risePa }) => -risePa)) };
}

/** Where no heater takes what is metered: the pump's most rise at rest, none at its most flow. */
function dosingCurve({ strokeM3, mostHz, mostRisePa }: DosingPump): Curve {
  return { flow: new Float64Array([0, strokeM3 * mostHz]), drop: new Float64Array([-mostRisePa, 0]) };
}

/** Writes what a line of one bore loses into a link's coefficients. */
function writeLoss(
  shape: LinkShape,
  i: number,
  { boreM, lengthM, roughnessM, overRe, constant }: Loss,
): void {
  const area = areaM2(boreM);
  const perVelocityHead = 1 / (2 * area * area);
  shape.perViscosity[i] = overRe / (2 * boreM * area);
  shape.perDensity[i] = (shape.perDensity[i] as number) + constant * perVelocityHead;
  shape.perFriction[i] = (lengthM / boreM) * perVelocityHead;
  shape.reBore[i] = boreM / area;
  shape.relativeRoughness[i] = roughnessM / boreM;
}

/**
 * Gives a run another bore in the network's own coefficients, its ends no wider than it, and back with its own: what a
 * sweep of sizes tries without building a network for each.
 */
export function tryBore({ links, shape }: Network, index: number, boreM: number): void {
  const link = links[index];
  if (link?.kind !== "run") throw new Error(`link ${index} is no run`);
  const endBoreM = link.run.endBoreM?.map((end) =>
    boreM === link.run.boreM ? end : (end / link.run.boreM) * boreM,
  ) as Run["endBoreM"];
  shape.perDensity[index] = 0;
  writeLoss(
    shape,
    index,
    lossOfRun({ ...link, run: { ...link.run, boreM, ...(endBoreM ? { endBoreM } : {}) } }),
  );
}

function shapeOf(links: readonly NetworkLink[]): LinkShape {
  const make = () => new Float64Array(links.length);
  const [perViscosity, perDensity, perFriction, reBore, relativeRoughness] = [
    make(),
    make(),
    make(),
    make(),
    make(),
  ];
  const curve = new Int16Array(links.length).fill(-1);
  const curves: Curve[] = [];
  const shape = { perViscosity, perDensity, perFriction, reBore, relativeRoughness, curve, curves };
  reBore.fill(1);
  for (let i = 0; i < links.length; i++) {
    const link = links[i] as NetworkLink;
    if (link.kind === "pump") {
      curve[i] = curves.length;
      curves.push(curveOf(link.part));
    }
    if (link.kind === "dosing") {
      curve[i] = curves.length;
      curves.push(dosingCurve(link.part));
    }
    perDensity[i] = ownPerDensity(link);
    const loss = lossOf(link);
    if (loss) writeLoss(shape, i, loss);
  }
  return shape;
}

function settableLinks(links: readonly NetworkLink[]): SettableLinks {
  const lists: { -readonly [K in keyof SettableLinks]: SettableLinks[K][number][] } = {
    valve: [],
    check: [],
    filter: [],
    pump: [],
    tankPort: [],
    dosing: [],
    throttle: [],
    jet: [],
    humped: [],
  };
  links.forEach((link, index) => {
    if (link.kind === "valve") lists.valve.push({ index, link });
    else if (link.kind === "check") lists.check.push({ index, link });
    else if (link.kind === "filter") lists.filter.push({ index, link });
    else if (link.kind === "pump") lists.pump.push({ index, link });
    else if (link.kind === "tankPort") {
      const mouth = fromTank(link.tank, link.port.mouth);
      lists.tankPort.push({ index, link, mouthM: mouth.zM, mouth });
    } else if (link.kind === "dosing") lists.dosing.push({ index, link });
    else if (link.kind === "throttle") lists.throttle.push({ index, link });
    else if (link.kind === "jet") lists.jet.push({ index, link });
    else if (link.kind === "run" && link.geometry.profile.length > 2) lists.humped.push({ index, link });
  });
  return lists;
}

/** The heater that a dosing pump's outlet leads to, over hoses and what lies in them. */
function heaterBehind(
  links: readonly NetworkLink[],
  heaters: ReadonlySet<number>,
  start: number,
): number | null {
  const seen = new Set([start]);
  const queue = [start];
  for (let node = queue.shift(); node !== undefined; node = queue.shift()) {
    if (heaters.has(node)) return node;
    for (const link of links) {
      if (link.kind === "dosing" || link.kind === "tankPort" || link.kind === "pump") continue;
      const next = link.from === node ? link.to : link.to === node ? link.from : -1;
      if (next < 0 || seen.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return null;
}

/** Nodes on the far side of a link that only it joins to the rest; null where there is another way, or a tank. */
function nodesBeyond(links: readonly NetworkLink[], index: number, unknowns: number): number[] | null {
  const { from, to } = links[index] as NetworkLink;
  const seen = new Set([to]);
  const queue = [to];
  for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
    if (node >= unknowns || node === from) return null;
    for (let k = 0; k < links.length; k++) {
      const link = links[k] as NetworkLink;
      if (k === index || (link.from !== node && link.to !== node)) continue;
      if (link.kind === "throttle" || link.kind === "dosing" || link.kind === "jet") return null;
      const next = link.from === node ? link.to : link.from;
      if (seen.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return [...seen];
}

function adjustedLinks(
  links: readonly NetworkLink[],
  heaters: ReadonlySet<number>,
  unknowns: number,
): Adjusted[] {
  const hold = (index: number, node: number, gaugePa: number, leastPa: number): Adjusted => {
    const beyond = nodesBeyond(links, index, unknowns);
    return { kind: "hold", index, node, gaugePa, leastPa, beyond: beyond?.includes(node) ? beyond : null };
  };
  return links.flatMap((link, index): Adjusted[] => {
    if (link.kind === "throttle") return [hold(index, link.to, link.part.setPa, 0)];
    if (link.kind === "dosing") {
      // A burner is open to the air: the pump gives what it takes to bring the metered fuel there, and holds it back.
      const node = heaterBehind(links, heaters, link.to);
      return node === null ? [] : [hold(index, node, 0, -link.part.mostRisePa)];
    }
    if (link.kind !== "jet" || link.way !== "mix") return [];
    const nozzle = links.findIndex((one) => one.id === `${link.part.id}.n`);
    return [{ kind: "jet", index, nozzle, part: link.part }];
  });
}

/** Builds the network of a plan. Ports named by runs but missing in the plan are left out. */
export function buildNetwork(job: Job, plan: Plan = currentPlan(job)): Network {
  const ports = placedPorts(job, plan);
  const groups = new Groups();
  for (const key of ports.keys()) groups.add(key);
  for (const { from, to } of plan.joints) {
    if (ports.has(portKey(from)) && ports.has(portKey(to))) groups.join(portKey(from), portKey(to));
  }
  const parts = partsOf(job, plan);
  for (const part of parts) {
    if (isPlainThrough(part)) groups.join(`${part.id}.a`, `${part.id}.b`);
    if (part.kind === "swirlPot")
      for (const port of ["back", "out", "over"]) groups.join(`${part.id}.fill`, `${part.id}.${port}`);
  }

  const nodes: NetworkNode[] = [];
  const nodeOf = new Map<string, number>();
  for (const [key, port] of ports) {
    const top = groups.find(key);
    let index = nodeOf.get(top);
    if (index === undefined) {
      index = nodes.length;
      const at = ports.get(top)?.position ?? port.position;
      nodes.push({ id: key, ports: [], zM: at.zM, at });
      nodeOf.set(top, index);
    }
    (nodes[index]?.ports as string[]).push(key);
    nodeOf.set(key, index);
  }
  for (const part of parts) {
    for (const inner of innerPortsOf(part)) {
      const id = `${part.id}.${inner}`;
      nodeOf.set(id, nodes.length);
      nodes.push({ id, ports: [], zM: part.position.zM, at: part.position });
    }
  }
  const unknowns = nodes.length;
  for (const tank of job.tanks) {
    nodeOf.set(tank.id, nodes.length);
    nodes.push({ id: tank.id, ports: [], zM: tank.origin.zM, at: tank.origin });
  }
  const at: At = (key) => nodeOf.get(key) as number;
  const links = [
    ...job.tanks.flatMap((tank) => linksOfTank(tank, at)),
    ...linksOfRuns(plan, ports, at),
    ...parts.flatMap((part) => linksOfPart(part, at)),
  ];
  const topology = makeTopology(
    unknowns,
    nodes.length,
    new Int32Array(links.map(({ from }) => from)),
    new Int32Array(links.map(({ to }) => to)),
  );
  const engines = parts.filter(isConsumer).map((part) => ({
    part,
    feed: nodeOf.get(`${part.id}.feed`) as number,
    back: nodeOf.get(`${part.id}.return`) ?? null,
  }));
  const heaters = new Set(engines.filter(({ back }) => back === null).map(({ feed }) => feed));
  const linkOf = new Map(links.map(({ id }, index) => [id, index]));
  return {
    job,
    plan,
    topology,
    nodes,
    links,
    shape: shapeOf(links),
    nodeHeightM: new Float64Array(nodes.map(({ zM }) => zM)),
    settable: settableLinks(links),
    nodeOf,
    linkOf,
    engines,
    adjusted: adjustedLinks(links, heaters, unknowns),
    ports,
  };
}

/** Height of a tank port's mouth in the job's frame. */
export const mouthHeightM = (tank: Tank, port: TankPort): number => fromTank(tank, port.mouth).zM;
