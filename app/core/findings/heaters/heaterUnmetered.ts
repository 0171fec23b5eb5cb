/** Practice 38: a heater whose fuel comes over no dosing pump, and that has no regulator of its own: it floods. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const heaterUnmetered = rule({
  id: "heaterUnmetered",
  practice: [38],
  place: "layout",
  judge: ({ plan, verdicts }) => {
    const dosing = new Set(plan.parts.filter(({ kind }) => kind === "dosingPump").map(({ id }) => id));
    return verdicts.flatMap(({ lineUp, way }) => {
      const heater = way?.consumer;
      if (heater?.kind !== "heater" || heater.metersItself) return [];
      if (way?.stations.some(({ id }) => dosing.has(id))) return [];
      return [
        onPart({ grade: "stop", part: heater, lineUpIds: [lineUp.id], values: { lineUp: lineUp.name } }),
      ];
    });
  },
});
