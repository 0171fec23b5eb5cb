/** Practice 38: a heater whose fuel comes over no dosing pump, and that has no regulator of its own: it floods. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const heaterUnmetered = rule({
  id: "heaterUnmetered",
  practice: [38],
  place: "layout",
  judge: ({ network, verdicts }) => {
    // By how it is plumbed, whatever flows: a pump that starves meters all the same.
    const metered = new Set(
      network.adjusted.flatMap((one) =>
        one.kind === "hold" && network.links[one.index]?.kind === "dosing" ? [one.node] : [],
      ),
    );
    const byPump = new Set(
      network.engines.filter(({ feed }) => metered.has(feed)).map(({ part }) => part.id),
    );
    return verdicts.flatMap(({ lineUp, way }) => {
      const heater = way?.consumer;
      if (heater?.kind !== "heater" || heater.metersItself || byPump.has(heater.id)) return [];
      return [
        onPart({ grade: "stop", part: heater, lineUpIds: [lineUp.id], values: { lineUp: lineUp.name } }),
      ];
    });
  },
});
