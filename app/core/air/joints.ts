/** Which cells a bleed answers for, and which joints it may open, from the tank to the consumer. */
import type { FuelWay } from "../hydraulics/route";
import { isConsumer, isFiltering } from "../kinds/families";
import { hasHeadScrew } from "../kinds/filtering";
import type { Part } from "../kinds/index";
import type { Id } from "../kinds/record";
import { linkKindOf } from "../network/links";
import type { NetworkLink } from "../network/links/link";
import { partsOf, portKey } from "../plan/ports";
import type { AirFlow } from "./flow";
import { moverLinks } from "./movers";
import { type JointKey, lidKey } from "./session";

export interface BleedJoint {
  key: JointKey;
  partId: Id;
  name: string;
  kind: "lid" | "headScrew" | "screw" | "inlet" | "outlet" | "crest" | "feed" | "deadEnd";
  zM: number;
  /** Over the fuel's surface in the tank that feeds it; less than nothing under it. */
  overFuelM: number;
  /** Pumps, bulbs and primers that stand before it on the way, the nearest the tank first. */
  movers: Id[];
  /** Cells that it is opened for: of the way from the joint before it, or of its dead leg. */
  cells: readonly number[];
}

/** A crest stands over the line on both sides of it within this reach, and air that gathers there is worth opening it. */
const CREST_REACH_M = 0.5;
const LEAST_CREST_M = 0.02;

const lidKind = (part: Part): "lid" | "headScrew" =>
  isFiltering(part) && hasHeadScrew(part) ? "headScrew" : "lid";

const feedLegs = (way: FuelWay) => way.legs.filter(({ side }) => side === "feed");

/** Cells of the way from pickup to consumer, in the order of the flow. */
export function wayCells(model: AirFlow, way: FuelWay): number[] {
  const { mesh, network } = model;
  const cells: number[] = [];
  const seen = new Set<number>();
  const runs = new Set(network.links.flatMap(({ kind, id }) => (kind === "run" ? [id] : [])));
  const linksOf = new Map<Id, NetworkLink[]>(feedLegs(way).map(({ id }) => [id, []]));
  for (const link of network.links)
    if (link.kind !== "tankPort") linksOf.get(linkKindOf(link).owner(link)?.id ?? "")?.push(link);
  const ownRuns = new Set(feedLegs(way).map(({ id }) => id));
  const add = (cell: number | undefined) => {
    if (cell === undefined || cell < 0 || seen.has(cell)) return;
    // The end of another hose may stand for a port of a part on the way.
    const owner = mesh.cells.owner[cell] as string;
    if (runs.has(owner) && !ownRuns.has(owner)) return;
    seen.add(cell);
    cells.push(cell);
  };
  const tank = way.stations.find(({ kind, side }) => kind === "tank" && side === "feed");
  for (const cell of [...(mesh.cellsOf.get(tank?.linkId ?? "") ?? [])].reverse()) add(cell);
  for (const leg of feedLegs(way)) {
    if (leg.kind === "run") {
      const own = mesh.cellsOf.get(leg.id) ?? [];
      const link = network.links[network.linkOf.get(leg.id) ?? -1];
      const start = leg.points[0]?.zM;
      const isForward =
        link === undefined || Math.abs((start ?? 0) - (model.mesh.posture.nodeM[link.from] as number)) < 1e-9;
      for (const cell of isForward ? own : [...own].reverse()) add(cell);
      if (link) for (const node of [link.from, link.to]) add(mesh.cellOfNode[node]);
      continue;
    }
    for (const link of linksOf.get(leg.id) ?? []) {
      add(mesh.cellOfNode[link.from]);
      add(mesh.cellOfNode[link.to]);
    }
    add(mesh.vesselOf.get(leg.id));
  }
  const engine = network.engines.find(({ part }) => part.id === way.consumer?.id);
  if (engine) {
    add(mesh.cellOfNode[engine.feed]);
    add(mesh.vesselOf.get(engine.part.id));
  }
  return cells;
}

/**
 * The way with what an open valve joins to it: dead legs and spare filters give their air to the fuel that is drawn past.
 * What ends in a tank as a return is not of the feed.
 */
export function answeredCells(model: AirFlow, way: FuelWay): number[] {
  const { mesh, network } = model;
  const { faces, cells } = mesh;
  const own = new Set(wayCells(model, way));
  const neighbours: number[][] = Array.from({ length: cells.count }, () => []);
  const endsInTank = new Set<number>();
  network.links.forEach((link, i) => {
    for (const f of mesh.facesOf[i] as readonly number[]) {
      if (model.isShut(f)) continue;
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      if (a >= cells.count || b >= cells.count) {
        if (link.kind === "tankPort" && link.port.role === "return") endsInTank.add(Math.min(a, b));
        continue;
      }
      neighbours[a]?.push(b);
      neighbours[b]?.push(a);
    }
  });
  const seen = new Set(own);
  const answered = [...own];
  for (const start of own) {
    for (const next of neighbours[start] as number[]) {
      if (seen.has(next)) continue;
      const branch = [next];
      seen.add(next);
      for (const cell of branch) {
        for (const far of neighbours[cell] as number[]) {
          if (seen.has(far)) continue;
          seen.add(far);
          branch.push(far);
        }
      }
      if (!branch.some((cell) => endsInTank.has(cell))) answered.push(...branch);
    }
  }
  return answered;
}

/** Of some cells those that are before everything that pushes: what stands in them is drawn. */
export function drawnCells(model: AirFlow, cells: readonly number[], movers: ReadonlySet<Id>): Set<number> {
  const { mesh, network } = model;
  const { faces } = mesh;
  // Round a pump through its bypass nothing is drawn either.
  const pushing = new Set(
    network.links.flatMap((link, i) =>
      link.kind !== "filter" && movers.has(linkKindOf(link).owner(link)?.id ?? "") ? [i] : [],
    ),
  );
  const within = new Set(cells);
  const next = new Map<number, number[]>();
  const join = (a: number, b: number) => next.set(a, [...(next.get(a) ?? []), b]);
  mesh.facesOf.forEach((own, i) => {
    if (pushing.has(i)) return;
    for (const f of own) {
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      if (model.isShut(f) || !within.has(a) || !within.has(b)) continue;
      join(a, b);
      join(b, a);
    }
  });
  const first = cells[0];
  const drawn = new Set(first === undefined ? [] : [first]);
  for (const cell of drawn) for (const far of next.get(cell) ?? []) drawn.add(far);
  return drawn;
}

/** Air in cells, m3 at their pressures, and the room that there is. */
export function airIn(model: AirFlow, cells: readonly number[]): { airM3: number; roomM3: number } {
  let airM3 = 0;
  let roomM3 = 0;
  for (const cell of cells) {
    airM3 += Math.max(0, model.airM3(cell));
    roomM3 += model.mesh.cells.volumeM3[cell] as number;
  }
  return { airM3, roomM3 };
}

/** Legs that an open way joins to the way, each as its cells. */
function deadLegs(model: AirFlow, way: FuelWay): number[][] {
  const own = new Set(wayCells(model, way));
  const answered = new Set(answeredCells(model, way).filter((cell) => !own.has(cell)));
  const { faces } = model.mesh;
  const next = new Map<number, number[]>();
  for (let f = 0; f < faces.count; f++) {
    const [a, b] = [faces.from[f] as number, faces.to[f] as number];
    if (model.isShut(f) || !answered.has(a) || !answered.has(b)) continue;
    next.set(a, [...(next.get(a) ?? []), b]);
    next.set(b, [...(next.get(b) ?? []), a]);
  }
  const legs: number[][] = [];
  while (answered.size > 0) {
    const [start] = answered;
    const leg = new Set([start as number]);
    for (const cell of leg) for (const far of next.get(cell) ?? []) leg.add(far);
    for (const cell of leg) answered.delete(cell);
    legs.push([...leg]);
  }
  return legs;
}

/** Whether hand and spanner get to a joint; what joins two ports is told at either. */
function inReach({ network }: AirFlow): (joint: BleedJoint) => boolean {
  const { runs, joints, jointLooks = {} } = network.plan;
  const shut = new Set(Object.keys(jointLooks).filter((key) => jointLooks[key]?.outOfReach));
  if (shut.size === 0) return () => true;
  for (const { from, to } of [...runs, ...joints]) {
    const keys = [portKey(from), portKey(to)];
    const isScrewed = joints.some((one) => portKey(one.from) === keys[0]);
    if (isScrewed && keys.some((key) => shut.has(key))) for (const key of keys) shut.add(key);
  }
  return ({ key }) => !shut.has(key);
}

/** Joints that a bleed may open, the nearest the tank first; those of dead legs behind a pump stand before the last. */
export function bleedJoints(model: AirFlow, way: FuelWay): BleedJoint[] {
  const surfaceM = model.surfaceOf(way.stations[0]?.id ?? "");
  const reached = inReach(model);
  const joints = wayJoints(model, way, surfaceM).filter(reached);
  const last = joints.at(-1);
  if (!last || last.movers.length === 0) return joints;
  const drawn = drawnCells(model, answeredCells(model, way), new Set(last.movers));
  const legs = deadLegs(model, way).filter((leg) => !leg.some((cell) => drawn.has(cell)));
  const ends = legs
    .flatMap((leg) => legJoints(model, leg, { surfaceM, movers: last.movers }))
    .filter(reached);
  // Before the first joint behind all that pushes where fuel could be let out at last.
  const end = joints.findIndex(
    ({ kind, movers }) => (kind === "screw" || kind === "feed") && movers.length === last.movers.length,
  );
  const at = end < 0 ? joints.length : end;
  return [...joints.slice(0, at), ...ends, ...joints.slice(at)];
}

/** Of a dead leg: the lids of what holds fuel in it, and its highest end. */
function legJoints(
  model: AirFlow,
  leg: readonly number[],
  { surfaceM, movers }: { surfaceM: number; movers: Id[] },
): BleedJoint[] {
  const { mesh, network } = model;
  const parts = partsOf(network.job, network.plan);
  const nameOf = (id: Id) => parts.find((part) => part.id === id)?.name ?? id;
  const lids = parts.flatMap((part): BleedJoint[] => {
    const cell = mesh.vesselOf.get(part.id);
    if (cell === undefined || !leg.includes(cell) || !mesh.lidOf.has(part.id)) return [];
    const zM = (mesh.cells.zM[cell] as number) + (mesh.cells.tallM[cell] as number);
    const joint = { key: lidKey(part.id), partId: part.id, name: part.name, kind: lidKind(part) };
    return [{ ...joint, zM, overFuelM: zM - surfaceM, movers, cells: [cell] }];
  });
  const within = new Set(leg);
  let end: { key: string; zM: number } | null = null;
  network.nodes.forEach((node, index) => {
    const key = node.ports[0];
    if (key === undefined || !within.has(mesh.cellOfNode[index] as number)) return;
    const open = network.links.filter(
      ({ from, to }, i) =>
        (from === index || to === index) &&
        (mesh.facesOf[i] as readonly number[]).some((f) => !model.isShut(f)),
    );
    const zM = mesh.posture.nodeM[index] as number;
    if (open.length <= 1 && (!end || zM > end.zM)) end = { key, zM };
  });
  const found = end as { key: string; zM: number } | null;
  if (!found) return lids;
  const partId = found.key.split(".")[0] as string;
  const { zM } = found;
  return [
    ...lids,
    {
      key: found.key,
      partId,
      name: nameOf(partId),
      kind: "deadEnd",
      zM,
      overFuelM: zM - surfaceM,
      movers,
      cells: leg,
    },
  ];
}

/** Joints of the way itself. */
function wayJoints(model: AirFlow, way: FuelWay, surfaceM: number): BleedJoint[] {
  const { mesh, network } = model;
  const parts = new Map(partsOf(network.job, network.plan).map((part) => [part.id, part]));
  const moving = moverLinks(network);
  const movers: Id[] = [];
  const joints: BleedJoint[] = [];
  const order = wayCells(model, way);
  let reached = 0;
  const add = (key: JointKey, partId: Id, kind: BleedJoint["kind"], zM: number) => {
    if (joints.some((one) => one.key === key)) return;
    const name = parts.get(partId)?.name ?? partId;
    const [part = "", port] = key.split(".");
    const cell = port === "lid" ? mesh.vesselOf.get(part) : mesh.cellOfNode[network.nodeOf.get(key) ?? -1];
    const place = order.indexOf(cell ?? -1);
    const own = order.slice(reached, place + 1);
    reached = Math.max(reached, place + 1);
    joints.push({ key, partId, name, kind, zM, overFuelM: zM - surfaceM, movers: [...movers], cells: own });
  };
  const points = feedLegs(way).flatMap((leg) => leg.points);
  const nodeZ = (key: string) => mesh.posture.nodeM[network.nodeOf.get(key) ?? -1];
  for (const station of way.stations) {
    if (station.side !== "feed") continue;
    const part = parts.get(station.id);
    if (!part) continue;
    if (part.kind === "bleedScrew") {
      add(`${part.id}.a`, part.id, "screw", station.zM);
      continue;
    }
    if (isConsumer(part)) {
      add(`${part.id}.feed`, part.id, "feed", nodeZ(`${part.id}.feed`) ?? station.zM);
      continue;
    }
    const isMover = moving.has(part.id);
    // Fuel that stands over a dosing pump comes down to it by itself: it is wetted before its first stroke.
    const inletM = part.kind === "dosingPump" ? nodeZ(`${part.id}.in`) : undefined;
    if (inletM !== undefined && inletM < surfaceM) add(`${part.id}.in`, part.id, "inlet", inletM);
    if (isMover) movers.push(part.id);
    const vessel = mesh.vesselOf.get(part.id);
    if (vessel !== undefined && mesh.lidOf.has(part.id) && (isFiltering(part) || part.kind === "strainer")) {
      const z = (mesh.cells.zM[vessel] as number) + (mesh.cells.tallM[vessel] as number);
      add(lidKey(part.id), part.id, lidKind(part), z);
    }
    if (isMover && nodeZ(`${part.id}.out`) !== undefined) {
      add(`${part.id}.out`, part.id, "outlet", nodeZ(`${part.id}.out`) as number);
      continue;
    }
    const near = points.filter(({ atM }) => Math.abs(atM - station.atM) < CREST_REACH_M);
    const [before, after] = [
      near.filter(({ atM }) => atM < station.atM - 1e-9),
      near.filter(({ atM }) => atM > station.atM + 1e-9),
    ].map((side) => Math.min(...side.map(({ zM }) => zM))) as [number, number];
    const isCrest =
      station.zM >= Math.max(...near.map(({ zM }) => zM)) - 1e-9 &&
      station.zM - before > LEAST_CREST_M &&
      station.zM - after > LEAST_CREST_M;
    const node = network.ports.keys();
    if (!isCrest) continue;
    const key = [...node].find((one) => one.startsWith(`${part.id}.`));
    if (key) add(key, part.id, "crest", station.zM);
  }
  return joints;
}

/** What a bleed reaches: the cells it answers for, its joints, and where fuel could be let out at last. */
export interface Reach {
  cells: number[];
  joints: BleedJoint[];
  /** The consumer's feed joint and the screws before it, the farthest first. */
  ends: BleedJoint[];
}

/** @param endId part at whose joint it ends; by default the farthest. What lies behind that is not answered for. */
export function reachOf(model: AirFlow, { way, endId }: { way: FuelWay; endId?: Id | undefined }): Reach {
  const joints = bleedJoints(model, way);
  const cells = answeredCells(model, way);
  const ends = joints.filter(({ kind }) => kind === "feed" || kind === "screw").reverse();
  const end = ends.find(({ partId }) => partId === endId);
  if (!end || end === ends[0]) return { cells, joints, ends };
  const behind = new Set(joints.slice(joints.indexOf(end) + 1).flatMap((joint) => joint.cells));
  return {
    cells: cells.filter((cell) => !behind.has(cell)),
    joints: joints.slice(0, joints.indexOf(end) + 1),
    ends,
  };
}
