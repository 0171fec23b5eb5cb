import { fitting, type LinkKind, type LinkOf } from "./link";

/** The run or the branch of a tee. */
export const tee: LinkKind<LinkOf<"tee">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "tee",
  loss: ({ part, way }) => fitting(way === "branch" ? "teeBranch" : "teeRun", part.boreM),
  export: (_, { from, to }, file) => file.pipe(from, to, 0, 0, "Open"),
};
