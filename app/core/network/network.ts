/**
 * A plan as a network: nodes are ports (ports screwed together are one node), links are runs and ways through parts.
 * What does not change with a line-up or a slider is worked out here, once a plan.
 */

import type { Curve } from "../hydraulics/newton";
import { makeTopology, type Topology } from "../hydraulics/newton";
import { endLossK } from "../laws/boreChange";
import { effectiveCurve } from "../laws/pumpCurve";
import { type FittingKind, twoKOf } from "../laws/twoK";
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
  CheckValve,
  Engine,
  Filter,
  Id,
  Job,
  LiftPump,
  Part,
  Plan,
  Run,
  Tank,
  TankPort,
  Tee,
} from "../plan/types";
import { isValve, type Valve, waysThrough } from "../plan/valves";

export interface NetworkNode {
  /** `part.port` of its first port; a tank's own id. */
  readonly id: string;
  readonly ports: readonly string[];
  readonly zM: number;
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
    | { readonly kind: "filter"; readonly part: Filter }
    | { readonly kind: "pump"; readonly part: LiftPump }
    | { readonly kind: "check"; readonly part: CheckValve }
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
  readonly tankPort: readonly (Indexed<"tankPort"> & { readonly mouthM: number })[];
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
  readonly engines: readonly { readonly part: Engine; readonly feed: number; readonly back: number }[];
  readonly ports: ReadonlyMap<string, PlacedPort>;
}

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
  switch (part.kind) {
    case "tee":
      return [
        { kind: "tee", id: `${id}.b`, from: node("a"), to: node("b"), part },
        { kind: "tee", id: `${id}.c`, from: node("a"), to: node("c"), part },
      ];
    case "filter":
      return [{ kind: "filter", id, from: node("in"), to: node("out"), part }];
    case "liftPump":
      return [{ kind: "pump", id, from: node("in"), to: node("out"), part }];
    case "check":
      return [{ kind: "check", id, from: node("in"), to: node("out"), part }];
    case "gauge":
    case "engine":
      return [];
  }
}

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
      return fitting("checkSwing", link.part.boreM);
    case "filter":
    case "pump":
      return null;
  }
}

function curveOf({ curve, reliefPa }: LiftPump): Curve {
  const points = effectiveCurve(curve, reliefPa);
  const flow = new Float64Array(points.map(({ flowM3S }) => flowM3S));
  return { flow, drop: new Float64Array(points.map(({ risePa }) => -risePa)) };
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
  reBore.fill(1);
  for (let i = 0; i < links.length; i++) {
    const link = links[i] as NetworkLink;
    if (link.kind === "pump") {
      curve[i] = curves.length;
      curves.push(curveOf(link.part));
    }
    const loss = lossOf(link);
    if (!loss) continue;
    const { boreM, lengthM, roughnessM, overRe, constant } = loss;
    const area = (Math.PI / 4) * boreM * boreM;
    const perVelocityHead = 1 / (2 * area * area);
    perViscosity[i] = overRe / (2 * boreM * area);
    perDensity[i] = constant * perVelocityHead;
    perFriction[i] = (lengthM / boreM) * perVelocityHead;
    reBore[i] = boreM / area;
    relativeRoughness[i] = roughnessM / boreM;
  }
  return { perViscosity, perDensity, perFriction, reBore, relativeRoughness, curve, curves };
}

function settableLinks(links: readonly NetworkLink[]): SettableLinks {
  const lists: { -readonly [K in keyof SettableLinks]: SettableLinks[K][number][] } = {
    valve: [],
    check: [],
    filter: [],
    pump: [],
    tankPort: [],
    humped: [],
  };
  links.forEach((link, index) => {
    if (link.kind === "valve") lists.valve.push({ index, link });
    else if (link.kind === "check") lists.check.push({ index, link });
    else if (link.kind === "filter") lists.filter.push({ index, link });
    else if (link.kind === "pump") lists.pump.push({ index, link });
    else if (link.kind === "tankPort")
      lists.tankPort.push({ index, link, mouthM: mouthHeightM(link.tank, link.port) });
    else if (link.kind === "run" && link.geometry.profile.length > 2) lists.humped.push({ index, link });
  });
  return lists;
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
  for (const part of parts) if (part.kind === "gauge") groups.join(`${part.id}.a`, `${part.id}.b`);

  const nodes: NetworkNode[] = [];
  const nodeOf = new Map<string, number>();
  for (const [key, port] of ports) {
    const top = groups.find(key);
    let index = nodeOf.get(top);
    if (index === undefined) {
      index = nodes.length;
      nodes.push({ id: key, ports: [], zM: ports.get(top)?.position.zM ?? port.position.zM });
      nodeOf.set(top, index);
    }
    (nodes[index]?.ports as string[]).push(key);
    nodeOf.set(key, index);
  }
  const unknowns = nodes.length;
  for (const tank of job.tanks) {
    nodeOf.set(tank.id, nodes.length);
    nodes.push({ id: tank.id, ports: [], zM: tank.origin.zM });
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
  const engines = parts.flatMap((part) =>
    part.kind === "engine"
      ? [
          {
            part,
            feed: nodeOf.get(`${part.id}.feed`) as number,
            back: nodeOf.get(`${part.id}.return`) as number,
          },
        ]
      : [],
  );
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
    ports,
  };
}

/** Height of a tank port's mouth in the job's frame. */
export const mouthHeightM = (tank: Tank, port: TankPort): number => fromTank(tank, port.mouth).zM;
