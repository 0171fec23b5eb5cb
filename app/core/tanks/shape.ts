/** The outside of a tank as it is drawn, and the quick level of drawn-out sections that stand level. */
import type { SectionPoint, Tank, TankShape } from "../plan/types";
import { polygonArea, polygonBelow } from "./polygon";

/** Corners that draw a circle to within 0.1 % of its radius. For drawing only: volumes are exact. */
const CIRCLE_CORNERS = 72;

const rectangle = (w: number, h: number): SectionPoint[] => [
  [0, 0],
  [w, 0],
  [w, h],
  [0, h],
];

/** Outline seen along x, for drawing: of a loft, the section of largest area. */
export function sectionOf(shape: TankShape): SectionPoint[] {
  switch (shape.kind) {
    case "prism":
      return shape.section;
    case "box":
      return rectangle(shape.widthM, shape.heightM);
    case "loft":
      return shape.sections.reduce<SectionPoint[]>(
        (best, { polygon }) => (polygonArea(polygon) > polygonArea(best) ? polygon : best),
        [],
      );
    case "cylinder": {
      const { axis, diameterM: d, lengthM, endDepthM = 0 } = shape;
      if (axis === "x")
        return Array.from({ length: CIRCLE_CORNERS }, (_, i): SectionPoint => {
          const turn = (2 * Math.PI * i) / CIRCLE_CORNERS;
          return [(d / 2) * (1 + Math.cos(turn)), (d / 2) * (1 + Math.sin(turn))];
        });
      const outline = dishedOutline(lengthM, d, endDepthM);
      return axis === "z" ? outline.map(([s, r]) => [r, s]) : outline;
    }
  }
}

/** A cylinder seen from its side: along its axis first, then across. */
function dishedOutline(lengthM: number, d: number, depthM: number): SectionPoint[] {
  if (!(depthM > 0)) return rectangle(lengthM, d);
  const end = (foot: number, way: 1 | -1) =>
    Array.from({ length: 19 }, (_, i): SectionPoint => {
      const turn = (Math.PI * i) / 18 - Math.PI / 2;
      return [foot + way * depthM * Math.cos(turn), (d / 2) * (1 + way * Math.sin(turn))];
    });
  return [...end(lengthM, 1), ...end(0, -1)];
}

/** Lowest and highest z of a closed outline over a place across it; null where the outline does not reach. */
export function reachOver(points: readonly SectionPoint[], y: number): [number, number] | null {
  let reach: [number, number] | null = null;
  points.forEach(([y1, z1], i) => {
    const [y2, z2] = points[(i + 1) % points.length] as SectionPoint;
    if (y < Math.min(y1, y2) || y > Math.max(y1, y2)) return;
    const ends = y1 === y2 ? [z1, z2] : [z1 + ((y - y1) / (y2 - y1)) * (z2 - z1)];
    reach = [Math.min(...ends, reach?.[0] ?? Infinity), Math.max(...ends, reach?.[1] ?? -Infinity)];
  });
  return reach;
}

/** The outline across the tank at a place along x. */
export function sectionAt(shape: TankShape, xM: number): SectionPoint[] {
  if (shape.kind !== "loft") return sectionOf(shape);
  const { sections } = shape;
  const found = sections.findIndex((section) => section.xM >= xM);
  const i = Math.max(1, found < 0 ? sections.length - 1 : found);
  const [a, b] = [sections[i - 1], sections[i]];
  if (!a || !b) return sectionOf(shape);
  const t = Math.min(1, Math.max(0, (xM - a.xM) / (b.xM - a.xM)));
  return a.polygon.map(([y, z], k): SectionPoint => {
    const [y2, z2] = b.polygon[k] as SectionPoint;
    return [y + t * (y2 - y), z + t * (z2 - z)];
  });
}

/** The outline seen from the side, cut at a place in y: along x, then z. For drawing. */
export function profileAt(shape: TankShape, yM: number): SectionPoint[] {
  if (shape.kind === "cylinder") {
    const { axis, diameterM: d, lengthM, endDepthM = 0 } = shape;
    if (axis === "x") return dishedOutline(lengthM, d, endDepthM);
    return sectionOf({ ...shape, axis: axis === "y" ? "x" : "z" });
  }
  const stations =
    shape.kind === "loft"
      ? shape.sections
      : [0, shape.lengthM].map((xM) => ({ xM, polygon: sectionOf(shape) }));
  const reached = stations.flatMap(({ xM, polygon }) => {
    const reach = reachOver(polygon, yM);
    return reach ? [{ xM, reach }] : [];
  });
  return [
    ...reached.map(({ xM, reach }): SectionPoint => [xM, reach[0]]),
    ...reached.reverse().map(({ xM, reach }): SectionPoint => [xM, reach[1]]),
  ];
}

/** The outline seen from above: along x, then y. For drawing. */
export function planOf(shape: TankShape): SectionPoint[] {
  if (shape.kind === "cylinder") {
    const { axis, diameterM: d, lengthM, endDepthM = 0 } = shape;
    if (axis === "z") return sectionOf({ ...shape, axis: "x" });
    const outline = dishedOutline(lengthM, d, endDepthM);
    return axis === "x" ? outline : outline.map(([s, r]) => [r, s]);
  }
  const stations =
    shape.kind === "loft"
      ? shape.sections
      : [0, shape.lengthM].map((xM) => ({ xM, polygon: sectionOf(shape) }));
  const ends = stations.map(({ xM, polygon }) => {
    const ys = polygon.map(([y]) => y);
    return { xM, low: Math.min(...ys), high: Math.max(...ys) };
  });
  return [
    ...ends.map(({ xM, low }): SectionPoint => [xM, low]),
    ...ends.reverse().map(({ xM, high }): SectionPoint => [xM, high]),
  ];
}

/** The box round the shape, tank frame, without a sump. */
export interface Bounds {
  x: [number, number];
  y: [number, number];
  z: [number, number];
}

export function boundsOf(shape: TankShape): Bounds {
  const section = sectionOf(shape);
  const range = (values: number[]): [number, number] => [Math.min(...values), Math.max(...values)];
  const y = range(section.map(([one]) => one));
  const z = range(section.map(([, one]) => one));
  switch (shape.kind) {
    case "box":
    case "prism":
      return { x: [0, shape.lengthM], y, z };
    case "loft": {
      const corners = shape.sections.flatMap(({ polygon }) => polygon);
      return {
        x: range(shape.sections.map(({ xM }) => xM)),
        y: range(corners.map(([one]) => one)),
        z: range(corners.map(([, one]) => one)),
      };
    }
    case "cylinder": {
      const { axis, diameterM: d, lengthM, endDepthM = 0 } = shape;
      const along: [number, number] = [-endDepthM, lengthM + endDepthM];
      return {
        x: axis === "x" ? along : [0, d],
        y: axis === "y" ? along : [0, d],
        z: axis === "z" ? along : [0, d],
      };
    }
  }
}

/** A tank of drawn-out section whose inside is its shape: no wall taken off, nothing in it, no sump, fitted level. */
export const isPlainPrism = (
  tank: Tank,
): tank is Tank & { shape: Extract<TankShape, { kind: "box" | "prism" }> } =>
  (tank.shape.kind === "box" || tank.shape.kind === "prism") &&
  !tank.wallM &&
  !tank.sump &&
  !tank.installed &&
  !tank.internals?.length;

/** Between two corner heights the area below grows as a quadratic in height. */
interface Band {
  fromM: number;
  heightM: number;
  /** Area below the band, in its lower half and in all of it. */
  below: number;
  half: number;
  whole: number;
}

const bandsOf = new WeakMap<readonly SectionPoint[], Band[]>();

function bands(section: readonly SectionPoint[]): Band[] {
  const known = bandsOf.get(section);
  if (known) return known;
  const heights = [...new Set(section.map(([, z]) => z))].sort((a, b) => a - b);
  const below = heights.map((z) => polygonArea(polygonBelow(section, z)));
  const made = heights.slice(1).map((toM, i): Band => {
    const fromM = heights[i] as number;
    const start = below[i] as number;
    const middle = polygonArea(polygonBelow(section, (fromM + toM) / 2));
    return {
      fromM,
      heightM: toM - fromM,
      below: start,
      half: middle - start,
      whole: (below[i + 1] as number) - start,
    };
  });
  bandsOf.set(section, made);
  return made;
}

/** Share of a band's height at which `area` of it is filled: a s + b s^2, through its middle and its top. */
function shareOfBand({ half, whole }: Band, area: number): number {
  const b = 2 * (whole - 2 * half);
  const a = whole - b;
  return (2 * area) / (a + Math.sqrt(Math.max(0, a * a + 4 * b * area)));
}

/**
 * Level of a volume in a drawn-out section that stands level, tank frame, m: in closed form, by bands between corners.
 * Empty gives the floor, overfull the top. The solver asks it at every setting.
 */
export function levelOfPrismM(
  shape: Extract<TankShape, { kind: "box" | "prism" }>,
  volumeM3: number,
): number {
  const { lengthM } = shape;
  if (shape.kind === "box") return Math.min(shape.heightM, Math.max(0, volumeM3 / (lengthM * shape.widthM)));
  const area = volumeM3 / lengthM;
  const all = bands(shape.section);
  if (!(area > 0)) return all[0]?.fromM ?? 0;
  const band = all.find(({ below, whole }) => area < below + whole);
  const last = all[all.length - 1];
  if (!band) return last ? last.fromM + last.heightM : 0;
  return band.fromM + band.heightM * shareOfBand(band, area - band.below);
}
