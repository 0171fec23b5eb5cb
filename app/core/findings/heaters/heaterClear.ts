/** Practice 42: warm air in and out clear, and room round the heater. Common practice; the maker's manual goes before it. */
import { onPart } from "../onPart";
import { rule } from "../rule";

const LEAST_CLEAR_M = 0.1;

export const heaterClear = rule({
  id: "heaterClear",
  practice: [42],
  place: "layout",
  judge: ({ job }) =>
    job.consumers.flatMap((part) => {
      const fit = part.heater;
      if (part.kind !== "heater" || !fit || (fit.airWayClear !== false && fit.clearanceM >= LEAST_CLEAR_M))
        return [];
      return [
        onPart({
          grade: "watch",
          part,
          values: {
            clearM: fit.clearanceM,
            leastM: LEAST_CLEAR_M,
            airWay: fit.airWayClear === false ? 0 : 1,
          },
          figure: LEAST_CLEAR_M - fit.clearanceM,
        }),
      ];
    }),
});
