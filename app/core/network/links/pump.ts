import type { Pushing } from "../../kinds/families";
import { offPerFlowPa } from "../../kinds/pumping";
import { effectiveCurve } from "../../laws/pumpCurve";
import { type Curve, Way } from "../../solver/newton";
import type { LinkKind, LinkOf } from "./link";

/** A unit's relief is a way of its own; a pump's is in its curve. */
function curveOf(part: Pushing): Curve {
  const points = effectiveCurve(part.curve, part.kind === "pumpFilterUnit" ? undefined : part.reliefPa);
  const flow = new Float64Array(points.map(({ flowM3S }) => flowM3S));
  return { flow, drop: new Float64Array(points.map(({ risePa }) => -risePa)) };
}

/** What pushes by a curve; switched off it lets fuel through, or shuts. With a bypass fuel goes round it, over a way of its own. */
export const pump: LinkKind<LinkOf<"pump">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "pump",
  curve: ({ part }) => curveOf(part),
  setter: ({ part }, index) => {
    const { id, off } = part;
    const offPerFlow = offPerFlowPa(part);
    return (laws, { lineUp }) => {
      laws.way[index] = Way.oneWay;
      if (lineUp.pumps[id] === "on") return;
      laws.curve[index] = -1;
      if (off.kind === "free") laws.linear[index] = offPerFlow;
      else laws.way[index] = Way.shut;
    };
  },
  draws: ({ part }) => part,
  export: ({ id, from: start }, { from, to, way, curve, linear }, file) => {
    if (way === Way.shut) return file.pipe(from, to, 0, 0, "Closed");
    if (curve) return file.pump(from, to, curve);
    const middle = file.middle(start);
    file.pipe(from, middle, 0, 0, "CV");
    return file.sampled(middle, to, `${id}~c`, (q) => linear * q);
  },
};
