/**
 * Volume and level of a tank that stands level: exact for boxes and drawn-out polygons.
 *
 *      z ^    section seen along x; fuel fills it up to `levelM`
 *        |  \________/
 *        |   \~~~~~~/
 *        |    \____/
 *        +----------> y
 */
import type { SectionPoint, TankShape } from "../plan/types";

export function sectionOf(shape: TankShape): SectionPoint[] {
  if (shape.kind === "prism") return shape.section;
  const { widthM: w, heightM: h } = shape;
  return [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ];
}

/** Area of a simple polygon (shoelace), positive whatever its sense. */
export function polygonArea(points: readonly SectionPoint[]): number {
  let twice = 0;
  for (let i = 0; i < points.length; i++) {
    const [y1, z1] = points[i] as SectionPoint;
    const [y2, z2] = points[(i + 1) % points.length] as SectionPoint;
    twice += y1 * z2 - y2 * z1;
  }
  return Math.abs(twice) / 2;
}

/** The part of a polygon at or below a height (Sutherland-Hodgman against one line; touching edges carry no area). */
export function polygonBelow(points: readonly SectionPoint[], levelM: number): SectionPoint[] {
  const kept: SectionPoint[] = [];
  for (let i = 0; i < points.length; i++) {
    const a = points[i] as SectionPoint;
    const b = points[(i + 1) % points.length] as SectionPoint;
    if (a[1] <= levelM) kept.push(a);
    if (a[1] <= levelM !== b[1] <= levelM) {
      const t = (levelM - a[1]) / (b[1] - a[1]);
      kept.push([a[0] + t * (b[0] - a[0]), levelM]);
    }
  }
  return kept;
}

export interface Heights {
  lowM: number;
  highM: number;
}

export function heightsOf(shape: TankShape): Heights {
  const heights = sectionOf(shape).map(([, z]) => z);
  return { lowM: Math.min(...heights), highM: Math.max(...heights) };
}

export const capacityM3 = (shape: TankShape): number => polygonArea(sectionOf(shape)) * shape.lengthM;

export const volumeAtLevelM3 = (shape: TankShape, levelM: number): number =>
  polygonArea(polygonBelow(sectionOf(shape), levelM)) * shape.lengthM;

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

/** Level of a volume, tank frame, m: exact, by bands between corners. Empty gives the floor, overfull the top. */
export function levelOfVolumeM(shape: TankShape, volumeM3: number): number {
  const { lengthM } = shape;
  if (shape.kind === "box") return Math.min(shape.heightM, Math.max(0, volumeM3 / (lengthM * shape.widthM)));
  const { lowM, highM } = heightsOf(shape);
  const area = volumeM3 / lengthM;
  if (!(area > 0)) return lowM;
  const band = bands(shape.section).find(({ below, whole }) => area < below + whole);
  return band ? band.fromM + band.heightM * shareOfBand(band, area - band.below) : highM;
}

/** Does the outline cross itself? Every pair of sides that do not touch is tested. */
export function crossesItself(points: readonly SectionPoint[]): boolean {
  const side = (a: SectionPoint, b: SectionPoint, c: SectionPoint) =>
    Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
  const n = points.length;
  for (let i = 0; i < n; i++) {
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const [a, b, c, d] = [points[i], points[i + 1], points[j], points[(j + 1) % n]] as SectionPoint[];
      if (!a || !b || !c || !d) continue;
      if (side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b)) return true;
    }
  }
  return false;
}
