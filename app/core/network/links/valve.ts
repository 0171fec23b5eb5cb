import { isOpen } from "../../plan/valves";
import { Way } from "../../solver/newton";
import { fitting, type LinkKind, type LinkOf } from "./link";

/** One way through a valve; open where the line-up's setting joins its two ports. */
export const valve: LinkKind<LinkOf<"valve">> = {
  boreM: (link) => link.valve.boreM,
  owner: (link) => link.valve,
  station: "valve",
  loss: (link) => fitting("ballValve", link.valve.boreM),
  setter:
    (link, index) =>
    (laws, { lineUp }) => {
      if (!isOpen(link.valve, link.ports, lineUp.valves[link.valve.id])) laws.way[index] = Way.shut;
    },
  export: (_, { from, to, way }, file) => file.pipe(from, to, 0, 0, way === Way.shut ? "Closed" : "Open"),
};
