/**
 * The way of fuel through a solved line-up, laid straight: from a tank along the largest flow to a consumer
 * and back, or from tank to tank. It is what the Keel draws.
 */
import { headPa } from "../fuel/fuel";
import { isPlainThrough } from "../kinds/families";
import type { Engine } from "../kinds/index";
import type { Id } from "../kinds/record";
import { linkKindOf } from "../network/links";
import type { NetworkLink, StationKind } from "../network/links/link";
import type { Plan } from "../plan/types";
import { areaM2 } from "../units/bore";
import { figuresOf, transitionRange } from "./derive";
import type { SolvedLineUp } from "./solve";

export type Side = "feed" | "return";

/** A part met on the way. Its pressure is before and after it; its loss is what it takes, heights apart. */
export interface Station {
  id: Id;
  name: string;
  kind: StationKind;
  side: Side;
  atM: number;
  beforePa: number;
  afterPa: number;
  lossPa: number;
  flowM3S: number;
  zM: number;
  linkId: string | null;
}

/** A point of the drawn line: distance, height, gauge pressure. */
export interface WayPoint {
  atM: number;
  zM: number;
  gaugePa: number;
}

export interface Leg {
  /** Run or part the leg belongs to. */
  id: string;
  kind: "run" | "part";
  side: Side;
  points: WayPoint[];
  lossPa: number;
  flowM3S: number;
  boreM: number;
  lengthM: number;
  riseM: number;
  range: { lowPa: number; highPa: number } | null;
}

export interface FuelWay {
  consumer: Engine | null;
  stations: Station[];
  legs: Leg[];
  lengthM: number;
  /** Distance at which the consumer stands, or the end. */
  consumerAtM: number;
  /** First pump on the feed side that works, to which the suction limit belongs; else the consumer. */
  firstPumpId: Id | null;
  /** Losses up to the first pump, biggest first, with their share of the sum. */
  suctionLosses: { id: string; kind: "run" | "part"; lossPa: number; share: number }[];
}

interface Hop {
  link: number;
  forward: boolean;
}

function largest(solved: SolvedLineUp, node: number, into: boolean, used: Uint8Array): Hop | null {
  const { from, to, linkStart, linkAt } = solved.network.topology;
  let best: Hop | null = null;
  let most = 0;
  for (let k = linkStart[node] as number; k < (linkStart[node + 1] as number); k++) {
    const link = linkAt[k] as number;
    const q = solved.flow[link] as number;
    const size = Math.abs(q);
    if (!(size > most) || used[link] || from[link] === to[link]) continue;
    const end = q > 0 === into ? to[link] : from[link];
    if (end !== node) continue;
    best = { link, forward: q > 0 };
    most = size;
  }
  return best;
}

/** Follows the largest flow from a node, up to the tank it comes from (`into`) or down to where it ends. */
function follow(solved: SolvedLineUp, start: number, into: boolean): Hop[] {
  const hops: Hop[] = [];
  const used = new Uint8Array(solved.flow.length);
  for (let node = start; node < solved.network.topology.unknowns || hops.length === 0; ) {
    const hop = largest(solved, node, into, used);
    if (!hop) break;
    used[hop.link] = 1;
    hops.push(hop);
    const link = solved.network.links[hop.link] as NetworkLink;
    node = into === hop.forward ? link.from : link.to;
    if (node >= solved.network.topology.unknowns) break;
  }
  return into ? hops.reverse() : hops;
}

class WayBuilder {
  readonly stations: Station[] = [];
  readonly legs: Leg[] = [];
  private atM = 0;

  constructor(private readonly solved: SolvedLineUp) {}

  get lengthM(): number {
    return this.atM;
  }

  private gauge(node: number): number {
    return this.solved.gaugePa[node] as number;
  }

  hop({ link: index, forward }: Hop, side: Side): void {
    const link = this.solved.network.links[index] as NetworkLink;
    const [start, end] = forward ? [link.from, link.to] : [link.to, link.from];
    if (link.kind === "run") this.run(index, link, forward, side);
    else if (link.kind === "tankPort") this.tank(index, link, side, forward);
    else this.part(index, link, start, end, side);
    if (link.kind === "run") this.gaugesAt(end, side);
  }

  private run(
    index: number,
    link: Extract<NetworkLink, { kind: "run" }>,
    forward: boolean,
    side: Side,
  ): void {
    const { solved } = this;
    const { lengthM } = link.geometry;
    const { posture, fuel } = solved.settings;
    const density = fuel.densityKgM3;
    const profile = posture.profileOf(link);
    const riseM = (profile.at(-1)?.zM ?? 0) - (profile[0]?.zM ?? 0);
    const potential = (node: number) => this.gauge(node) + headPa(density, posture.nodeM[node] ?? 0);
    const [a, b] = [potential(link.from), potential(link.to)];
    const points = profile.map(({ atM, zM }) => ({
      atM: this.atM + (forward ? atM : lengthM - atM),
      zM,
      gaugePa: a + ((b - a) * atM) / lengthM - headPa(density, zM),
    }));
    if (!forward) points.reverse();
    const { lossPa, flowM3S } = figuresOf(solved, index);
    const range = transitionRange(solved, index);
    const rise = forward ? riseM : -riseM;
    this.legs.push({
      id: link.id,
      kind: "run",
      side,
      points,
      lossPa,
      flowM3S: Math.abs(flowM3S),
      boreM: link.run.boreM,
      lengthM,
      riseM: rise,
      range,
    });
    this.atM += lengthM;
  }

  private tank(
    index: number,
    link: Extract<NetworkLink, { kind: "tankPort" }>,
    side: Side,
    forward: boolean,
  ): void {
    const { lossPa, flowM3S } = figuresOf(this.solved, index);
    const port = this.solved.network.ports.get(link.id);
    const inside = port ? this.solved.settings.posture.heightM(port.position) : 0;
    const at = this.gauge(link.from);
    const surfaceM = this.solved.settings.surfaceM.get(link.tank.id) ?? 0;
    this.stations.push({
      id: link.tank.id,
      name: link.tank.name,
      kind: "tank",
      side,
      atM: this.atM,
      beforePa: forward
        ? at
        : headPa(this.solved.settings.fuel.densityKgM3, Math.max(0, surfaceM - inside)) + this.gauge(link.to),
      afterPa: at,
      lossPa,
      flowM3S: Math.abs(flowM3S),
      zM: inside,
      linkId: link.id,
    });
  }

  private part(
    index: number,
    link: Exclude<NetworkLink, { kind: "run" | "tankPort" }>,
    start: number,
    end: number,
    side: Side,
  ): void {
    const { lossPa, flowM3S } = figuresOf(this.solved, index);
    const part = link.kind === "valve" ? link.valve : link.part;
    const { station } = linkKindOf(link);
    if (station === null) return;
    const { nodeM } = this.solved.settings.posture;
    const beforePa = this.gauge(start);
    const afterPa = this.gauge(end);
    const zM = nodeM[start] ?? 0;
    const endM = nodeM[end] ?? 0;
    const last = this.stations.at(-1);
    const lastLeg = this.legs.at(-1);
    if (last?.id === part.id && lastLeg?.id === part.id) {
      // A unit is one station, whatever fuel meets inside it.
      Object.assign(last, { afterPa, lossPa: last.lossPa + lossPa });
      lastLeg.lossPa += lossPa;
      lastLeg.points[1] = { atM: this.atM, zM: endM, gaugePa: afterPa };
      return;
    }
    this.stations.push({
      id: part.id,
      name: part.name,
      kind: station,
      side,
      atM: this.atM,
      beforePa,
      afterPa,
      lossPa,
      flowM3S: Math.abs(flowM3S),
      zM,
      linkId: link.id,
    });
    this.legs.push({
      id: part.id,
      kind: "part",
      side,
      points: [
        { atM: this.atM, zM, gaugePa: beforePa },
        { atM: this.atM, zM: endM, gaugePa: afterPa },
      ],
      lossPa,
      flowM3S: Math.abs(flowM3S),
      boreM: part.boreM,
      lengthM: 0,
      riseM: endM - zM,
      range: null,
    });
  }

  private gaugesAt(node: number, side: Side): void {
    for (const key of this.solved.network.nodes[node]?.ports ?? []) {
      const id = key.split(".")[0] as string;
      const part = this.solved.network.plan.parts.find((one) => one.id === id);
      if (!part || !isPlainThrough(part) || this.stations.some((station) => station.id === id)) continue;
      const pa = this.gauge(node);
      this.stations.push({
        id,
        name: part.name,
        kind: "gauge",
        side,
        atM: this.atM,
        beforePa: pa,
        afterPa: pa,
        lossPa: 0,
        flowM3S: 0,
        zM: this.solved.settings.posture.heightM(part.position),
        linkId: null,
      });
    }
  }

  engine(part: Engine, feed: number, back: number | null): void {
    const beforePa = this.gauge(feed);
    const afterPa = back === null ? beforePa : this.gauge(back);
    this.stations.push({
      id: part.id,
      name: part.name,
      kind: "engine",
      side: "feed",
      atM: this.atM,
      beforePa,
      afterPa,
      lossPa: 0,
      flowM3S: this.solved.settings.demand[feed] ?? 0,
      zM: this.solved.settings.posture.nodeM[feed] ?? 0,
      linkId: null,
    });
  }
}

/** A hose that meets a part of the way but is not on it: another branch, which can be chosen. */
export interface Stub {
  stationId: Id;
  runId: Id;
  /** Part at the other end of the hose. */
  farId: Id;
}

export function stubsOf(plan: Plan, way: FuelWay): Stub[] {
  const onWay = new Set(way.legs.map(({ id }) => id));
  const stations = new Set(way.stations.filter(({ kind }) => kind !== "tank").map(({ id }) => id));
  return plan.runs.flatMap(({ id, from, to }) => {
    if (onWay.has(id)) return [];
    if (stations.has(from.part)) return [{ stationId: from.part, runId: id, farId: to.part }];
    return stations.has(to.part) ? [{ stationId: to.part, runId: id, farId: from.part }] : [];
  });
}

/** Losses from the tank up to a part of the feed, its standpipe among them, biggest first, with their share of the sum. */
export function suctionLosses(
  { legs, stations }: Pick<FuelWay, "legs" | "stations">,
  upTo: Id | null,
): FuelWay["suctionLosses"] {
  const feed = legs.filter(({ side }) => side === "feed");
  const end = feed.findIndex(({ id }) => id === upTo);
  const tank = stations.find(({ kind, side }) => kind === "tank" && side === "feed");
  const before = [
    ...(tank ? [{ id: tank.id, kind: "part" as const, lossPa: tank.lossPa }] : []),
    ...(end < 0 ? feed : feed.slice(0, end)),
  ];
  const sum = before.reduce((total, { lossPa }) => total + Math.max(0, lossPa), 0);
  return before
    .map(({ id, kind, lossPa }) => ({ id, kind, lossPa, share: sum > 0 ? Math.max(0, lossPa) / sum : 0 }))
    .sort((a, b) => b.lossPa - a.lossPa);
}

/**
 * Seconds that fuel stands under vacuum on its way to a part of the feed; endless where nothing flows.
 * @param volumeOf what a part holds, m3
 */
export function underVacuumS({ legs }: FuelWay, upTo: Id, volumeOf: (id: Id) => number): number {
  const feed = legs.filter(({ side }) => side === "feed");
  const end = feed.findIndex(({ id }) => id === upTo);
  return (end < 0 ? feed : feed.slice(0, end)).reduce((sum, { id, kind, points, boreM, flowM3S }) => {
    const heldM3 = kind === "part" && (points[0]?.gaugePa ?? 0) < 0 ? volumeOf(id) : 0;
    const lineM3 = kind === "run" ? areaM2(boreM) * lengthBelowZeroM(points) : 0;
    const volumeM3 = heldM3 + lineM3;
    return volumeM3 > 0 ? sum + volumeM3 / flowM3S : sum;
  }, 0);
}

/** Length of a profile in which its gauge pressure is below zero. */
function lengthBelowZeroM(points: readonly WayPoint[]): number {
  return points.slice(1).reduce((sum, b, i) => {
    const a = points[i] as WayPoint;
    const long = Math.abs(b.atM - a.atM);
    if (a.gaugePa >= 0 && b.gaugePa >= 0) return sum;
    if (a.gaugePa < 0 && b.gaugePa < 0) return sum + long;
    return sum + (long * -Math.min(a.gaugePa, b.gaugePa)) / Math.abs(a.gaugePa - b.gaugePa);
  }, 0);
}

/** The busiest outlet of any tank: where a transfer starts. */
function busiestTank(solved: SolvedLineUp): number | null {
  let best: number | null = null;
  let most = 0;
  solved.network.links.forEach((link, i) => {
    const out = -(solved.flow[i] as number);
    if (link.kind === "tankPort" && out > most) [best, most] = [link.to, out];
  });
  return best;
}

/** The way to a consumer and back; without one (or with it stopped) from tank to tank. Null where nothing flows. */
export function fuelWay(solved: SolvedLineUp, consumerId?: Id): FuelWay | null {
  const { network, settings } = solved;
  const running = network.engines.filter(
    ({ part, feed }) => (settings.demand[feed] ?? 0) > 0 && settings.lineUp.consumers[part.id] === "running",
  );
  const engine = running.find(({ part }) => part.id === consumerId) ?? running[0] ?? null;
  const builder = new WayBuilder(solved);
  let consumerAtM = 0;
  if (engine) {
    for (const hop of follow(solved, engine.feed, true)) builder.hop(hop, "feed");
    consumerAtM = builder.lengthM;
    builder.engine(engine.part, engine.feed, engine.back);
    if (engine.back !== null)
      for (const hop of follow(solved, engine.back, false)) builder.hop(hop, "return");
  } else {
    const tank = busiestTank(solved);
    if (tank === null) return null;
    for (const hop of follow(solved, tank, false)) builder.hop(hop, "feed");
    consumerAtM = builder.lengthM;
  }
  if (builder.stations.length === 0) return null;
  const { stations, legs, lengthM } = builder;
  const firstPumpId =
    stations.find(
      ({ id, kind, side }) => kind === "pump" && side === "feed" && settings.lineUp.pumps[id] === "on",
    )?.id ?? null;
  return {
    consumer: engine?.part ?? null,
    stations,
    legs,
    lengthM,
    consumerAtM,
    firstPumpId,
    suctionLosses: suctionLosses({ legs, stations }, firstPumpId),
  };
}
