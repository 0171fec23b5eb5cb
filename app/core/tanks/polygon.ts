/** Plane polygons of tank sections: area, the part below a height, crossings, and the inside of a wall. */
import type { SectionPoint } from "../plan/types";

/** Area of a simple polygon (shoelace), positive whatever its sense. */
export function polygonArea(points: readonly SectionPoint[]): number {
  return Math.abs(signedArea(points));
}

/** Shoelace; positive counter-clockwise. */
export function signedArea(points: readonly SectionPoint[]): number {
  let twice = 0;
  for (let i = 0; i < points.length; i++) {
    const [y1, z1] = points[i] as SectionPoint;
    const [y2, z2] = points[(i + 1) % points.length] as SectionPoint;
    twice += y1 * z2 - y2 * z1;
  }
  return twice / 2;
}

/**
 * The part of a polygon on the low side of a line: level, or leaning by `slope` (rise per metre of y) through
 * (0, levelM). Sutherland-Hodgman against one line; touching edges carry no area.
 */
export function polygonBelow(points: readonly SectionPoint[], levelM: number, slope = 0): SectionPoint[] {
  const kept: SectionPoint[] = [];
  const over = ([y, z]: SectionPoint) => z - levelM - slope * y;
  for (let i = 0; i < points.length; i++) {
    const a = points[i] as SectionPoint;
    const b = points[(i + 1) % points.length] as SectionPoint;
    const [va, vb] = [over(a), over(b)];
    if (va <= 0) kept.push(a);
    if (va <= 0 !== vb <= 0) {
      const t = va / (va - vb);
      kept.push([a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]);
    }
  }
  return kept;
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

/** The outline moved inward by a wall: each side by its own normal, corners where neighbours meet. */
export function insetPolygon(points: readonly SectionPoint[], wallM: number): SectionPoint[] {
  const sense = Math.sign(signedArea(points)) || 1;
  const n = points.length;
  const sides = points.map(([y, z], i) => {
    const [y2, z2] = points[(i + 1) % n] as SectionPoint;
    const length = Math.hypot(y2 - y, z2 - z) || 1;
    const [dy, dz] = [(y2 - y) / length, (z2 - z) / length];
    return { y: y - sense * dz * wallM, z: z + sense * dy * wallM, dy, dz };
  });
  return sides.map((here, i): SectionPoint => {
    const before = sides[(i + n - 1) % n] as (typeof sides)[number];
    const turn = before.dy * here.dz - before.dz * here.dy;
    if (Math.abs(turn) < 1e-9) return [here.y, here.z];
    const t = ((here.y - before.y) * here.dz - (here.z - before.z) * here.dy) / turn;
    return [before.y + t * before.dy, before.z + t * before.dz];
  });
}
