import type { Tank } from "../plan/types";
import { boundsOf, reachOver, sectionAt } from "./shape";

type Floored = Pick<Tank, "shape" | "wallM" | "sump">;

/** Height of the floor inside under a place, tank frame, m: where the dipstick stands. */
export function floorUnder(form: Floored, xM: number, yM: number): number {
  const { sump } = form;
  return sump && Math.hypot(xM - sump.xM, yM - sump.yM) <= sump.diameterM / 2
    ? shellFloorUnder(form, sump.xM, sump.yM) - sump.depthM
    : shellFloorUnder(form, xM, yM);
}

/** Height of the shell's own floor there, tank frame, m: what a sump hangs from. */
export function shellFloorUnder({ shape, wallM = 0 }: Floored, xM: number, yM: number): number {
  const lowest = boundsOf(shape).z[0];
  switch (shape.kind) {
    case "box":
      return wallM;
    case "prism":
    case "loft":
      return (reachOver(sectionAt(shape, xM), yM)?.[0] ?? lowest) + wallM;
    case "cylinder": {
      const r = shape.diameterM / 2;
      if (shape.axis === "z") return wallM;
      const off = (shape.axis === "x" ? yM : xM) - r;
      return r - Math.sqrt(Math.max(0, (r - wallM) ** 2 - off * off));
    }
  }
}
