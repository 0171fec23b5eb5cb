/** Practice 39: a heater's exhaust bends 270 degrees at most, falls to its end, drains at its lowest, and ends clear of what breathes. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const MOST_BEND_DEG = 270;

export type ExhaustCode = "bends" | "falls" | "drain" | "outlet" | "air";

export const heaterExhaust = rule({
  id: "heaterExhaust",
  practice: [39],
  place: "layout",
  judge: ({ job }) =>
    job.consumers.flatMap((part) => {
      const fit = part.heater;
      if (part.kind !== "heater" || !fit) return [];
      const wrong = [
        fit.exhaustBendDeg > MOST_BEND_DEG && "bends",
        fit.exhaustFalls === false && "falls",
        fit.drainAtLowest === false && "drain",
        fit.outletClear === false && "outlet",
        fit.airFacesRear === false && "air",
      ].filter((code) => code !== false);
      if (wrong.length === 0) return [];
      return [
        onPart({
          grade: "mend",
          part,
          values: { codes: wrong.join(" "), bendDeg: fit.exhaustBendDeg },
          figure: wrong.length,
        }),
      ];
    }),
});
