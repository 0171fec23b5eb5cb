import { isPushing } from "../../kinds/families";
import { ratedPerDensity } from "../../laws/ratedDrop";
import { Way } from "../../solver/newton";
import { fitting, type LinkKind, type LinkOf } from "./link";

/** Opens one way at a pressure; past it a drop that goes with flow. A pump's bypass and a unit's relief have no body of their own. */
export const check: LinkKind<LinkOf<"check">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "check",
  loss: ({ part }) => (isPushing(part) ? null : fitting("checkSwing", part.boreM)),
  perDensity: ({ part }) => (part.kind === "bulb" ? ratedPerDensity(part) : 0),
  setter:
    ({ opensPa, perFlowPa }, index) =>
    (laws) => {
      laws.way[index] = Way.oneWay;
      laws.constant[index] = opensPa;
      laws.linear[index] = (laws.linear[index] as number) + perFlowPa;
    },
  export: ({ id, from: start, opensPa, perFlowPa }, { from, to }, file) => {
    if (opensPa === 0 && perFlowPa === 0) return file.pipe(from, to, 0, 0, "CV");
    const middle = file.middle(start);
    file.pipe(from, middle, 0, 0, "CV");
    return file.sampled(middle, to, `${id}~c`, (q) => opensPa + perFlowPa * q);
  },
};
