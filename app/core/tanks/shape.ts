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

/**
 * Level of a volume, tank frame, m. Within one band between corners the volume is quadratic in level;
 * bisection narrows it to a double's last bits. Empty gives the floor, overfull the top.
 */
export function levelOfVolumeM(shape: TankShape, volumeM3: number): number {
  const { lowM, highM } = heightsOf(shape);
  if (volumeM3 <= 0) return lowM;
  if (volumeM3 >= capacityM3(shape)) return highM;
  let low = lowM;
  let high = highM;
  while (high - low > 1e-12 * (highM - lowM)) {
    const middle = (low + high) / 2;
    if (volumeAtLevelM3(shape, middle) < volumeM3) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
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
