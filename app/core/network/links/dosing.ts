import { Way } from "../../solver/newton";
import type { LinkKind, LinkOf } from "./link";

/**
 * A pump that meters. A burner is open to the air: before one it gives what it takes to bring the metered fuel there,
 * and holds it back. Where no heater takes what is metered it has a straight curve from its most rise at rest.
 */
export const dosing: LinkKind<LinkOf<"dosing">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "pump",
  curve: ({ part: { strokeM3, mostHz, mostRisePa } }) => ({
    flow: new Float64Array([0, strokeM3 * mostHz]),
    drop: new Float64Array([-mostRisePa, 0]),
  }),
  setter:
    ({ part: { id } }, index) =>
    (laws, { lineUp }) => {
      laws.way[index] = lineUp.pumps[id] === "on" ? Way.oneWay : Way.shut;
    },
  draws: ({ part }) => part,
  adjusted: ({ part, to }, _, { heaterBehind, hold }) => {
    const burner = heaterBehind(to);
    return burner === null ? null : hold(burner, 0, -part.mostRisePa);
  },
  export: ({ part }, { from, to, way, curve, isMetered }, file) => {
    // What it meters is drawn from the node before it and put in at the node after it.
    if (isMetered) return;
    // A pump that meters for a burner and draws nothing passes nothing.
    if (way === Way.shut || !curve) return file.pipe(from, to, 0, 0, "Closed");
    return file.rising(from, to, (q) => -(curve.drop[0] as number) * (1 - q / part.strokeM3 / part.mostHz));
  },
};
