/** Practice 2: a valve position can shut the return while a consumer runs. As set: a Stop; one handle away: a Watch. Common practice. */
import { isValve } from "../../kinds/families";
import { neighbourSettings, settingOf } from "../../plan/valves";
import { type Found, rule } from "../rule";

/** As it is set, or one movement of one handle away. */
type ReturnShut = Found<{ oneMove: 0; lineUp: string } | { oneMove: 1; valve: string }>;

export const returnCanClose = rule({
  id: "returnCanClose",
  practice: [2],
  place: "layout",
  judge: ({ plan, solver, verdicts }) =>
    verdicts.flatMap(({ lineUp, result, way }): ReturnShut[] => {
      if (result.outcome !== "solved") return [];
      const shut = [...result.consumers].filter(
        ([, outcome]) => outcome.outcome === "noPath" && outcome.side === "return",
      );
      const base = {
        lineUpIds: [lineUp.id],
        basis: "common" as const,
        figure: null,
      };
      if (shut.length > 0) {
        return shut.map(([id]) => ({
          ...base,
          grade: "stop",
          ids: [id],
          values: { lineUp: lineUp.name, oneMove: 0 },
        }));
      }
      const onReturn = new Set(
        way?.stations.filter(({ side, kind }) => side === "return" && kind === "valve").map(({ id }) => id),
      );
      return plan.parts.filter(isValve).flatMap((valve): ReturnShut[] => {
        if (!onReturn.has(valve.id)) return [];
        const closes = neighbourSettings(valve, settingOf(lineUp, valve)).some((setting) => {
          const moved = { ...lineUp, valves: { ...lineUp.valves, [valve.id]: setting } };
          const outcomes = solver.paths(moved, result.settings.conditions);
          return [...outcomes.values()].some(
            (outcome) => outcome.outcome === "noPath" && outcome.side === "return",
          );
        });
        if (!closes) return [];
        return [{ ...base, grade: "watch", ids: [valve.id], values: { valve: valve.name, oneMove: 1 } }];
      });
    }),
});
