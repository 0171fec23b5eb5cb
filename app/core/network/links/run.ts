import { endLossK } from "../../laws/boreChange";
import { twoKOf } from "../../laws/twoK";
import type { LinkKind, LinkOf, Loss } from "./link";

/** A hose or tube: friction along it, its bends, and its ends where they are narrower. */
export function lossOfRun({ run, geometry }: Pick<LinkOf<"run">, "run" | "geometry">): Loss {
  const { boreM, roughnessM, endBoreM } = run;
  const quarter = twoKOf("elbow90", boreM);
  const eighth = twoKOf("elbow45", boreM);
  const ends = endBoreM ? endLossK(boreM, endBoreM[0]) + endLossK(boreM, endBoreM[1]) : 0;
  return {
    boreM,
    lengthM: geometry.lengthM,
    roughnessM,
    overRe: geometry.bends90 * quarter.overRe + geometry.bends45 * eighth.overRe,
    constant: ends + geometry.bends90 * quarter.constant + geometry.bends45 * eighth.constant,
  };
}

export const run: LinkKind<LinkOf<"run">> = {
  boreM: ({ run: { boreM } }) => boreM,
  owner: () => null,
  station: null,
  loss: lossOfRun,
  export: ({ run: { roughnessM }, geometry }, { from, to }, file) =>
    file.pipe(from, to, geometry.lengthM, roughnessM, "Open"),
};
