/** Practice 39: a heater's exhaust bends 270 degrees at most, falls to its end, drains at its lowest, and ends clear of what breathes. Common practice. */
import { onPart } from "./onPart";
import type { Finding, Rule } from "./types";

export const MOST_BEND_DEG = 270;

export const heaterExhaust: Rule = ({ job }) =>
  job.consumers.flatMap((part): Finding[] => {
    const fit = part.heater;
    if (part.kind !== "heater" || !fit) return [];
    const wrong = [
      fit.exhaustBendDeg > MOST_BEND_DEG && "bends",
      !fit.exhaustFalls && "falls",
      !fit.drainAtLowest && "drain",
      !fit.outletClear && "outlet",
      !fit.airFacesRear && "air",
    ].filter((code) => code !== false);
    if (wrong.length === 0) return [];
    return [
      onPart({
        rule: "heaterExhaust",
        grade: "mend",
        part,
        values: { codes: wrong.join(" "), bendDeg: fit.exhaustBendDeg },
        figure: wrong.length,
      }),
    ];
  });
