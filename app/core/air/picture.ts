/** Where the cells of a bleed stand on a drawing: laid straight along the way, at their true heights. */
import type { FuelWay } from "../hydraulics/route";
import type { Id } from "../kinds/record";
import { partsOf } from "../plan/ports";
import type { AirFlow } from "./flow";
import { answeredCells, wayCells } from "./joints";

/** A cell of a hose, from its start to its end in the direction of the flow. */
export interface PictureLine {
  cell: number;
  x0: number;
  z0: number;
  x1: number;
  z1: number;
}
export interface PictureVessel {
  cell: number;
  partId: Id;
  name: string;
  x0: number;
  x1: number;
  floorM: number;
  tallM: number;
  /** Off the way, joined to it by an open way: a spare, or what a dead leg holds. */
  isAside: boolean;
}
export interface PictureStation {
  id: Id;
  name: string;
  kind: FuelWay["stations"][number]["kind"];
  x: number;
  zM: number;
}
export interface AirPicture {
  wideM: number;
  lowM: number;
  highM: number;
  surfaceM: number;
  tank: { id: Id; name: string; x0: number; x1: number } | null;
  lines: PictureLine[];
  vessels: PictureVessel[];
  stations: PictureStation[];
}

/** Room of a tank, a vessel and any other part along the drawing, m; a hose shorter than the least is drawn as long as that. */
const TANK_M = 0.5;
const VESSEL_M = 0.5;
const PART_M = 0.12;
const LEAST_HOSE_M = 0.2;

export function airPicture(model: AirFlow, way: FuelWay, surfaceM: number): AirPicture {
  const { mesh, network } = model;
  const { cells } = mesh;
  const parts = new Map(partsOf(network.job, network.plan).map((part) => [part.id, part]));
  const onWay = new Set(wayCells(model, way));
  const aside = answeredCells(model, way).filter((cell) => cells.isVessel[cell] && !onWay.has(cell));
  const lines: PictureLine[] = [];
  const vessels: PictureVessel[] = [];
  const stations: PictureStation[] = [];
  const feed = way.stations.filter(({ side }) => side === "feed");
  const first = feed[0];
  let x = 0.1;
  let tank: AirPicture["tank"] = null;
  const vessel = (cell: number, isAside: boolean) => {
    const partId = cells.owner[cell] as string;
    const floorM = cells.zM[cell] as number;
    const tallM = cells.tallM[cell] as number;
    const name = parts.get(partId)?.name ?? partId;
    vessels.push({ cell, partId, name, x0: x, x1: x + VESSEL_M, floorM, tallM, isAside });
    stations.push({ id: partId, name, kind: "filter", x: x + VESSEL_M / 2, zM: floorM + tallM });
    x += VESSEL_M;
  };
  const tube = (own: readonly number[], isReversed: boolean, widthM: number) => {
    const from = own[0];
    const to = own.at(-1);
    if (from === undefined || to === undefined) return;
    const lengthM = (cells.toM[to] as number) - (cells.fromM[from] as number) || 1;
    for (const cell of isReversed ? [...own].reverse() : own) {
      const wide = (widthM * ((cells.toM[cell] as number) - (cells.fromM[cell] as number))) / lengthM;
      const [a, b] = [cells.fromZM[cell] as number, cells.toZM[cell] as number];
      lines.push({ cell, x0: x, z0: isReversed ? b : a, x1: x + wide, z1: isReversed ? a : b });
      x += wide;
    }
  };
  if (first?.kind === "tank") {
    tank = { id: first.id, name: first.name, x0: x, x1: x + TANK_M };
    stations.push({ id: first.id, name: first.name, kind: "tank", x: x + TANK_M / 2, zM: surfaceM });
    x += TANK_M / 2;
    // The tube rises in the tank and leaves it at its edge.
    tube(mesh.cellsOf.get(first.linkId ?? "") ?? [], true, TANK_M / 2);
    x = tank.x1;
  }
  let areAsideDrawn = false;
  for (const leg of way.legs.filter(({ side }) => side === "feed")) {
    if (leg.kind === "run") {
      const own = mesh.cellsOf.get(leg.id) ?? [];
      const start = leg.points[0]?.zM ?? 0;
      const link = network.links[network.linkOf.get(leg.id) ?? -1];
      const isReversed =
        link !== undefined && Math.abs((mesh.posture.nodeM[link.from] as number) - start) > 1e-9;
      tube(own, isReversed, Math.max(LEAST_HOSE_M, leg.lengthM));
      // What is let in without a way of its own stands where two hoses meet: a gauge, a screw.
      const endM = leg.points.at(-1)?.atM ?? 0;
      for (const { id, name, kind, zM, atM } of feed)
        if (kind === "gauge" && Math.abs(atM - endM) < 1e-9) stations.push({ id, name, kind, x, zM });
      continue;
    }
    const cell = mesh.vesselOf.get(leg.id);
    if (cell !== undefined) {
      vessel(cell, false);
      if (!areAsideDrawn) {
        areAsideDrawn = true;
        for (const one of aside) {
          x += PART_M;
          vessel(one, true);
        }
        if (aside.length > 0) x += PART_M;
      }
      continue;
    }
    const station = feed.find(({ id }) => id === leg.id);
    if (!station) continue;
    stations.push({
      id: station.id,
      name: station.name,
      kind: station.kind,
      x: x + PART_M / 2,
      zM: station.zM,
    });
    x += PART_M;
  }
  const end = feed.at(-1);
  if (end?.kind === "engine") {
    stations.push({ id: end.id, name: end.name, kind: "engine", x: x + PART_M, zM: end.zM });
    x += 3 * PART_M;
  }
  const heights = [
    surfaceM,
    ...lines.flatMap(({ z0, z1 }) => [z0, z1]),
    ...vessels.flatMap(({ floorM, tallM }) => [floorM, floorM + tallM]),
  ];
  return {
    wideM: x + 0.1,
    lowM: Math.min(...heights),
    highM: Math.max(...heights),
    surfaceM,
    tank,
    lines,
    vessels,
    stations,
  };
}

/** Where a joint stands on the drawing: at its part, at its own height. */
export function jointPlace(
  picture: AirPicture,
  { partId, kind, zM }: { partId: Id; kind: string; zM: number },
): { x: number; zM: number } | null {
  const vessel = picture.vessels.find((one) => one.partId === partId);
  if (vessel)
    return {
      x: (vessel.x0 + vessel.x1) / 2,
      zM: kind === "lid" || kind === "headScrew" ? vessel.floorM + vessel.tallM : zM,
    };
  const station = picture.stations.find(({ id }) => id === partId);
  return station ? { x: station.x, zM } : null;
}
