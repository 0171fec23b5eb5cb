import type { Position } from "../kinds/record";
import type { Tank } from "../plan/types";
import { floorUnder } from "./floor";
import { boundsOf, planOf, reachOver, sectionAt } from "./shape";

/** What of a tank a place lies beyond. */
export type Beyond = "end" | "side" | "floor" | "top";

/** A place this near to the wall counts as inside. */
const TOLERANCE_M = 1e-3;

type Form = Pick<Tank, "shape" | "wallM" | "sump">;

/** Height of the underside of the top over a place, tank frame, m. */
function topOver({ shape }: Form, xM: number, yM: number): number {
  if (shape.kind !== "cylinder") return reachOver(sectionAt(shape, xM), yM)?.[1] ?? boundsOf(shape).z[1];
  if (shape.axis === "z") return shape.lengthM;
  const r = shape.diameterM / 2;
  const off = (shape.axis === "x" ? yM : xM) - r;
  return r + Math.sqrt(Math.max(0, r * r - off * off));
}

/** How far a place, tank frame, lies outside a tank, m, and beyond what of it; null inside. A sump is inside. */
export function outsideOf(tank: Form, at: Position): { beyond: Beyond; byM: number } | null {
  const { x } = boundsOf(tank.shape);
  const over = (beyond: Beyond, byM: number) => (byM > TOLERANCE_M ? { beyond, byM } : null);
  const end = over("end", Math.max(x[0] - at.xM, at.xM - x[1]));
  if (end) return end;
  const across = reachOver(planOf(tank.shape), at.xM);
  const side = across && over("side", Math.max(across[0] - at.yM, at.yM - across[1]));
  if (side) return side;
  return (
    over("floor", floorUnder(tank, at.xM, at.yM) - at.zM) ?? over("top", at.zM - topOver(tank, at.xM, at.yM))
  );
}
