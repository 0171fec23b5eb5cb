/**
 * A plan as a network: nodes are ports (ports screwed together are one node), links are runs and ways through parts.
 * What does not change with a line-up or a slider is worked out here, once a plan.
 */
import { type Consumer, isBreather, isConsumer } from "../kinds/families";
import { kindOf, type Part } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import { currentPlan, fromTank, type PlacedPort, partsOf, placedPorts, portKey } from "../plan/ports";
import { runGeometry } from "../plan/route";
import type { Job, Plan, Run, Tank, TankPort } from "../plan/types";
import { makeTopology, type Topology } from "../solver/newton";
import { isInWell } from "../tanks/pickup";
import { linkKindOf } from "./links";
import type { Adjusted, LinkOf, NetworkLink, Setter, Surroundings } from "./links/link";
import { type LinkShape, shapeOf } from "./shape";
import { walk } from "./walk";

export interface NetworkNode {
  /** `part.port` of its first port; a tank's own id. */
  readonly id: string;
  readonly ports: readonly string[];
  readonly zM: number;
  /** Place of its first port; a tank's origin. */
  readonly at: Position;
}

interface Indexed<K extends NetworkLink["kind"]> {
  readonly index: number;
  readonly link: LinkOf<K>;
}

/** Links that are asked after by what they are, found once a plan. */
export interface SortedLinks {
  /** What a line-up or its conditions change. */
  readonly setters: readonly Setter[];
  readonly tankPorts: readonly Indexed<"tankPort">[];
  readonly pumps: readonly Indexed<"pump">[];
  /** Links that something draws through that can lose its suction. */
  readonly drawing: readonly number[];
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
  readonly sorted: SortedLinks;
  /** Node of a port, by `part.port`; node of a tank, by its id. */
  readonly nodeOf: ReadonlyMap<string, number>;
  readonly linkOf: ReadonlyMap<string, number>;
  /** A heater has no return. */
  readonly engines: readonly {
    readonly part: Consumer;
    readonly feed: number;
    readonly back: number | null;
  }[];
  /** What changes a link's law by what it finds: a pressure held at a node, or the flow that drives a jet. */
  readonly adjusted: readonly Adjusted[];
  readonly ports: ReadonlyMap<string, PlacedPort>;
  /** Vacuum over the fuel of each tank while it is drawn from, Pa, by tank: what its breather valve needs to open. */
  readonly ventVacuumPa: Float64Array;
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

const linksOfPart = (part: Part, at: At): NetworkLink[] =>
  kindOf(part)
    .links(part)
    .map((link) => ({ ...link, from: at(`${part.id}.${link.from}`), to: at(`${part.id}.${link.to}`) }));

/** A run whose ends are no wider than the adapters that were chosen for them. */
function throughChains(run: Run, chainsM: readonly [number | undefined, number | undefined]): Run {
  if (chainsM.every((one) => one === undefined)) return run;
  const ends = run.endBoreM ?? [run.boreM, run.boreM];
  return {
    ...run,
    endBoreM: [Math.min(ends[0], chainsM[0] ?? ends[0]), Math.min(ends[1], chainsM[1] ?? ends[1])],
  };
}

/** Runs whose ports both exist: a plan may be incomplete, and everything works on what is there. */
function linksOfRuns(plan: Plan, ports: ReadonlyMap<string, PlacedPort>, at: At): NetworkLink[] {
  return plan.runs.flatMap((run): NetworkLink[] => {
    const [a, b] = [portKey(run.from), portKey(run.to)];
    const from = ports.get(a);
    const to = ports.get(b);
    if (!from || !to) return [];
    const geometry = runGeometry(run, from, to);
    const narrowed = throughChains(run, [plan.chains?.[a]?.boreM, plan.chains?.[b]?.boreM]);
    return [{ kind: "run", id: run.id, from: at(a), to: at(b), run: narrowed, geometry }];
  });
}

/**
 * Draw ports of jets that fill a tank's own well: what is drawn from the well comes clear with the jet's draw, and not with
 * its own mouth, as long as the jet draws more than is burned.
 */
function wellsKept({ tanks }: Job, plan: Plan): Map<Id, TankPort> {
  const kept = new Map<Id, TankPort>();
  const met = (jet: Id, port: Id) =>
    plan.runs.flatMap(({ from, to }) =>
      [
        [from, to],
        [to, from],
      ].flatMap(([one, other]) => (one?.part === jet && one.port === port && other ? [other] : [])),
    )[0];
  for (const { id, kind } of plan.parts) {
    if (kind !== "jetPump") continue;
    const [out, draw] = [met(id, "out"), met(id, "draw")];
    const tank = tanks.find((one) => one.id === out?.part && one.id === draw?.part);
    const [into, from] = [out, draw].map((ref) => tank?.ports.find((port) => port.id === ref?.port));
    if (tank && into && from && isInWell(tank, into.mouth) && !isInWell(tank, from.mouth))
      kept.set(tank.id, from);
  }
  return kept;
}

const linksOfTanks = (tanks: readonly Tank[], kept: ReadonlyMap<Id, TankPort>, at: At): NetworkLink[] =>
  tanks
    .flatMap((tank) => tank.ports.map((port) => ({ tank, port })))
    .map(({ tank, port }, nth) => {
      const id = `${tank.id}.${port.id}`;
      const by = port.role === "outlet" && isInWell(tank, port.mouth) ? kept.get(tank.id) : undefined;
      const zM = Math.min(port.mouth.zM, by?.mouth.zM ?? port.mouth.zM);
      const mouth = fromTank(tank, { ...port.mouth, zM });
      return { kind: "tankPort", id, from: at(id), to: at(tank.id), tank, port, nth, mouth };
    });

/** A breather screwed to a tank is its vent; of several the one that opens first. */
function ventVacuums({ tanks }: Job, plan: Plan): Float64Array {
  const joined = [...plan.runs, ...plan.joints].flatMap(({ from, to }) => [
    [from.part, to.part] as const,
    [to.part, from.part] as const,
  ]);
  const breathers = plan.parts.filter(isBreather);
  return Float64Array.from(tanks, ({ id }) => {
    const own = breathers.filter((one) => joined.some(([tank, part]) => tank === id && part === one.id));
    return own.length === 0 ? 0 : Math.min(...own.map(({ opensInPa }) => opensInPa));
  });
}

function sortedLinks(links: readonly NetworkLink[]): SortedLinks {
  const of = <K extends NetworkLink["kind"]>(kind: K): Indexed<K>[] =>
    links.flatMap((link, index) => (link.kind === kind ? [{ index, link: link as LinkOf<K> }] : []));
  const where = (test: (link: NetworkLink) => boolean): number[] =>
    links.flatMap((link, index) => (test(link) ? [index] : []));
  return {
    setters: links.flatMap((link, index) => linkKindOf(link).setter?.(link, index) ?? []),
    tankPorts: of("tankPort"),
    pumps: of("pump"),
    drawing: where((link) => linkKindOf(link).draws?.(link).mostSuctionPa !== undefined),
    humped: of("run").filter(({ link }) => link.geometry.profile.length > 2),
  };
}

/** Nodes on the far side of a link that only it joins to the rest; null where there is another way, or a tank. */
function nodesBeyond(links: readonly NetworkLink[], topology: Topology, index: number): number[] | null {
  const { from, to } = links[index] as NetworkLink;
  const { order, seen } = walk(topology, [to], (link) => link !== index);
  const isOpenEnded = order.some((node) => node === from || node >= topology.unknowns);
  const isAdjusted = links.some(
    (link, k) =>
      k !== index &&
      linkKindOf(link).adjusted !== undefined &&
      (seen[link.from] === 1 || seen[link.to] === 1),
  );
  return isOpenEnded || isAdjusted ? null : [...order];
}

/** What stops the search for the burner behind a dosing pump: a tank, or another pump. */
const endsFeed = new Set<NetworkLink["kind"]>(["dosing", "tankPort", "pump"]);

function adjustedLinks(
  links: readonly NetworkLink[],
  topology: Topology,
  heaters: ReadonlySet<number>,
): Adjusted[] {
  return links.flatMap((link, index) => {
    const { adjusted } = linkKindOf(link);
    if (!adjusted) return [];
    const around: Surroundings = {
      hold: (node, gaugePa, leastPa) => {
        const beyond = nodesBeyond(links, topology, index);
        return {
          kind: "hold",
          index,
          node,
          gaugePa,
          leastPa,
          beyond: beyond?.includes(node) ? beyond : null,
        };
      },
      heaterBehind: (node) =>
        walk(topology, [node], (k) => !endsFeed.has((links[k] as NetworkLink).kind)).order.find((one) =>
          heaters.has(one),
        ) ?? null,
      indexOf: (id) => links.findIndex((one) => one.id === id),
    };
    return adjusted(link, index, around) ?? [];
  });
}

/** Where a pump that hangs in its tank draws: at the mouth of the port it is joined to, wherever its body is drawn. */
function mouthsOf(job: Job, plan: Plan, parts: readonly Part[], find: (key: string) => string) {
  const mouths = new Map<string, Position>();
  const hanging = new Set(
    parts.flatMap((part) => {
      const { inTank } = kindOf(part);
      return inTank ? [`${part.id}.${inTank}`] : [];
    }),
  );
  for (const { from, to } of plan.joints)
    for (const [pump, other] of [
      [from, to],
      [to, from],
    ] as const) {
      if (!hanging.has(portKey(pump))) continue;
      const tank = job.tanks.find(({ id }) => id === other.part);
      const port = tank?.ports.find(({ id }) => id === other.port);
      if (tank && port) mouths.set(find(portKey(pump)), fromTank(tank, port.mouth));
    }
  return mouths;
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
    const [first, ...others] = kindOf(part).joined ?? [];
    for (const port of others) groups.join(`${part.id}.${first}`, `${part.id}.${port}`);
    for (const { id, sameAs } of kindOf(part).ports(part))
      if (sameAs) groups.join(`${part.id}.${sameAs}`, `${part.id}.${id}`);
  }

  const nodes: NetworkNode[] = [];
  const nodeOf = new Map<string, number>();
  const drawn = mouthsOf(job, plan, parts, (key) => groups.find(key));
  for (const [key, port] of ports) {
    const top = groups.find(key);
    let index = nodeOf.get(top);
    if (index === undefined) {
      index = nodes.length;
      const at = drawn.get(top) ?? ports.get(top)?.position ?? port.position;
      nodes.push({ id: key, ports: [], zM: at.zM, at });
      nodeOf.set(top, index);
    }
    (nodes[index]?.ports as string[]).push(key);
    nodeOf.set(key, index);
  }
  for (const part of parts) {
    for (const inner of kindOf(part).inner ?? []) {
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
    ...linksOfTanks(job.tanks, wellsKept(job, plan), at),
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
    sorted: sortedLinks(links),
    nodeOf,
    linkOf,
    engines,
    adjusted: adjustedLinks(links, topology, heaters),
    ports,
    ventVacuumPa: ventVacuums(job, plan),
  };
}

/** Height of a tank port's mouth in the job's frame. */
export const mouthHeightM = (tank: Tank, port: TankPort): number => fromTank(tank, port.mouth).zM;
