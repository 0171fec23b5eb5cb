/** The outside of a tank as flat faces, for drawing it in space: volumes are never worked out from these. */
import type { SectionPoint, Tank, TankShape } from "../plan/types";
import { shellFloorUnder } from "./floor";
import { sectionOf } from "./shape";

/** x, y, z, m. */
export type Corner = readonly [x: number, y: number, z: number];
/** Corners of a flat face, in order round it. */
export type Face = readonly Corner[];

export interface Station {
  xM: number;
  polygon: readonly SectionPoint[];
}

/** Sides between sections of as many corners each, and the two ends; outwards where corners run anticlockwise seen from ahead. */
export function ruledFaces(stations: readonly Station[]): Face[] {
  const at = ({ xM, polygon }: Station) => polygon.map(([y, z]): Corner => [xM, y, z]);
  const rings = stations.map(at);
  const sides = rings.slice(1).flatMap((ring, s) =>
    ring.map((corner, k): Face => {
      const [before, next] = [rings[s] as Corner[], (k + 1) % ring.length];
      return [before[k] as Corner, before[next] as Corner, ring[next] as Corner, corner];
    }),
  );
  const [first, last] = [rings[0], rings.at(-1)];
  return first && last ? [first.toReversed(), ...sides, last] : [];
}

/** Corners that a circle is drawn with: its edge is out by less than one part in a hundred. */
const ROUND_CORNERS = 24;
/** Rings of a dished end. */
const DISH_RINGS = 4;

/** A round body about x, dished outwards at both ends where it has a depth; its middle line on y = z = 0. */
export function roundFaces(radiusM: number, lengthM: number, endDepthM = 0): Face[] {
  const ring = (xM: number, r: number): Station => ({
    xM,
    polygon: Array.from({ length: ROUND_CORNERS }, (_, i): SectionPoint => {
      const turn = (2 * Math.PI * i) / ROUND_CORNERS;
      return [r * Math.cos(turn), r * Math.sin(turn)];
    }),
  });
  const dish = Array.from({ length: endDepthM > 0 ? DISH_RINGS : 0 }, (_, i) => {
    const turn = (Math.PI / 2) * (1 - (i + 0.25) / DISH_RINGS);
    return { out: endDepthM * Math.sin(turn), r: radiusM * Math.cos(turn) };
  });
  return ruledFaces([
    ...dish.map(({ out, r }) => ring(-out, r)),
    ring(0, radiusM),
    ring(lengthM, radiusM),
    ...dish.toReversed().map(({ out, r }) => ring(lengthM + out, r)),
  ]);
}

export type Axis = "x" | "y" | "z";

/** What lies along x, laid along another axis without being mirrored. */
export const laidAlong = (faces: readonly Face[], axis: Axis): Face[] =>
  axis === "x"
    ? [...faces]
    : faces.map((face) => face.map(([x, y, z]): Corner => (axis === "y" ? [z, x, y] : [y, z, x])));

export const movedBy = (faces: readonly Face[], [dx, dy, dz]: Corner): Face[] =>
  faces.map((face) => face.map(([x, y, z]): Corner => [x + dx, y + dy, z + dz]));

function shellFaces(shape: TankShape): Face[] {
  if (shape.kind === "loft") return ruledFaces(shape.sections);
  if (shape.kind !== "cylinder")
    return ruledFaces([0, shape.lengthM].map((xM) => ({ xM, polygon: sectionOf(shape) })));
  const { axis, diameterM, lengthM, endDepthM } = shape;
  const r = diameterM / 2;
  const foot = (name: Axis) => (name === axis ? 0 : r);
  return movedBy(laidAlong(roundFaces(r, lengthM, endDepthM), axis), [foot("x"), foot("y"), foot("z")]);
}

/** Shell, and the sump under it; in the tank's frame. */
export function facesOf(tank: Pick<Tank, "shape" | "wallM" | "sump">): { shell: Face[]; sump: Face[] } {
  const { sump } = tank;
  if (!sump) return { shell: shellFaces(tank.shape), sump: [] };
  const { xM, yM, diameterM, depthM } = sump;
  const foot = shellFloorUnder(tank, xM, yM) - depthM;
  return {
    shell: shellFaces(tank.shape),
    sump: movedBy(laidAlong(roundFaces(diameterM / 2, depthM), "z"), [xM, yM, foot]),
  };
}

/** The box between two corners. */
export function boxFaces([x0, y0, z0]: Corner, [x1, y1, z1]: Corner): Face[] {
  const polygon: SectionPoint[] = [
    [y0, z0],
    [y1, z0],
    [y1, z1],
    [y0, z1],
  ];
  return ruledFaces([
    { xM: x0, polygon },
    { xM: x1, polygon },
  ]);
}
