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

interface Loss {
  boreM: number;
  lengthM: number;
  roughnessM: number;
  fittings: [FittingKind, number][];
  endK: number;
}

const HALF = 0.5;

function lossOf(link: NetworkLink): Loss | null {
  const none = { lengthM: 0, roughnessM: 0, endK: 0 };
  switch (link.kind) {
    case "run": {
      const { run, geometry } = link;
      const ends = run.endBoreM?.reduce((sum, bore) => sum + endLossK(run.boreM, bore), 0) ?? 0;
      return {
        boreM: run.boreM,
        lengthM: geometry.lengthM,
        roughnessM: run.roughnessM,
        fittings: [
          ["elbow90", geometry.bends90],
          ["elbow45", geometry.bends45],
        ],
        endK: ends,
      };
    }
    case "tankPort": {
      const { mouth, outside, role, boreM } = link.port;
      const fittings: [FittingKind, number][] = [[role === "outlet" ? "entrance" : "exit", 1]];
      return { boreM, lengthM: distanceM(mouth, outside), roughnessM: 0, fittings, endK: 0 };
    }
    case "valve":
      return { ...none, boreM: link.valve.boreM, fittings: [["ballValve", 1]] };
    case "tee":
      return {
        ...none,
        boreM: link.part.boreM,
        fittings: [[link.id.endsWith(".c") ? "teeBranch" : "teeRun", 1]],
      };
    case "check":
      return { ...none, boreM: link.part.boreM, fittings: [["checkSwing", 1]] };
    case "filter":
    case "pump":
      return null;
  }
}

function shapeOf(links: readonly NetworkLink[]): LinkShape {
  const make = () => new Float64Array(links.length);
  const curve = new Int16Array(links.length).fill(-1);
  const curves: Curve[] = [];
  const shape = {
    perViscosity: make(),
    perDensity: make(),
    perFriction: make(),
    reBore: make(),
    relativeRoughness: make(),
  };
  links.forEach((link, i) => {
    if (link.kind === "pump") {
      const points = effectiveCurve(link.part.curve, link.part.reliefPa);
      curve[i] = curves.length;
      curves.push({
        flow: Float64Array.from(points, (point) => point.flowM3S),
        drop: Float64Array.from(points, (point) => -point.risePa),
      });
    }
    const loss = lossOf(link);
    shape.reBore[i] = 1;
    if (!loss) return;
    const { boreM, lengthM, roughnessM, fittings, endK } = loss;
    const area = (Math.PI / 4) * boreM ** 2;
    const perVelocityHead = 1 / (2 * area ** 2);
    let overRe = 0;
    let constant = endK;
    for (const [kind, count] of fittings) {
      const k = twoKOf(kind, boreM);
      overRe += count * k.overRe;
      constant += count * k.constant;
    }
    shape.perViscosity[i] = (overRe * HALF) / (boreM * area);
    shape.perDensity[i] = constant * perVelocityHead;
    shape.perFriction[i] = (lengthM / boreM) * perVelocityHead;
    shape.reBore[i] = boreM / area;
    shape.relativeRoughness[i] = roughnessM / boreM;
  });
  return { ...shape, curve, curves };
}

function settableLinks(links: readonly NetworkLink[]): SettableLinks {
  const of = <K extends NetworkLink["kind"]>(kind: K): Indexed<K>[] =>
    links.flatMap((link, index) => (link.kind === kind ? [{ index, link: link as LinkOf<K> }] : []));
  return {
    valve: of("valve"),
    check: of("check"),
    filter: of("filter"),
    pump: of("pump"),
    tankPort: of("tankPort").map((one) => ({ ...one, mouthM: mouthHeightM(one.link.tank, one.link.port) })),
    humped: of("run").filter(({ link }) => link.geometry.profile.length > 2),
  };
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
    Int32Array.from(links, ({ from }) => from),
    Int32Array.from(links, ({ to }) => to),
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
    settable: settableLinks(links),
    nodeOf,
    linkOf,
    engines,
    ports,
  };
}

/** Height of a tank port's mouth in the job's frame. */
export const mouthHeightM = (tank: Tank, port: TankPort): number => fromTank(tank, port.mouth).zM;
