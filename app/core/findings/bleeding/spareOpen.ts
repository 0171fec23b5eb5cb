/**
 * Practice, bleeding: a filter valved off from its tank with its outlet open to the suction. Dry, its air swells under the
 * vacuum and is drawn out, pull by pull (Boyle, laws/trappedAir.ts): fill it before it is left so.
 */
import { isFiltering } from "../../kinds/families";
import { swollenM3 } from "../../laws/trappedAir";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Less vacuum than this draws nothing that counts. */
const LEAST_VACUUM_PA = 1000;

export const spareOpen = rule({
  id: "spareOpen",
  practice: [9],
  place: "bleed",
  judge: ({ plan, network, verdicts }) =>
    plan.parts.filter(isFiltering).flatMap((part) => {
      const index = network.links.findIndex((link) => link.kind === "filter" && link.part.id === part.id);
      const link = network.links[index];
      if (!link || !part.element) return [];
      const open = verdicts.flatMap(({ lineUp, result }) => {
        if (lineUp.purpose !== "run" || result.outcome !== "solved" || result.flow[index] !== 0) return [];
        const gaugePa = result.gaugePa[link.to] as number;
        return gaugePa < -LEAST_VACUUM_PA
          ? [{ id: lineUp.id, vacuumPa: -gaugePa, atmospherePa: result.settings.atmospherePa }]
          : [];
      });
      const worst = open.reduce<(typeof open)[number] | null>(
        (most, one) => (most && most.vacuumPa >= one.vacuumPa ? most : one),
        null,
      );
      if (!worst) return [];
      const { vacuumPa, atmospherePa } = worst;
      const drawnM3 = swollenM3(part.volumeM3, atmospherePa, atmospherePa - vacuumPa) - part.volumeM3;
      return [
        onPart({
          grade: "watch",
          part,
          lineUpIds: open.map(({ id }) => id),
          values: { heldM3: part.volumeM3, vacuumPa, drawnM3 },
          figure: drawnM3,
        }),
      ];
    }),
});
