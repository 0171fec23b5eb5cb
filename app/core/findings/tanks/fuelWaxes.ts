/**
 * The site is colder than the fuel's cloud point: wax lies on the filter, and no figure of flow holds there. Cloud point
 * by EN 23015 (from memory); typical of the grade where nobody gave it.
 */
import { rule } from "../rule";

export const fuelWaxes = rule({
  id: "fuelWaxes",
  practice: [],
  place: "survey",
  judge: ({ job }) => {
    const { cloudPointC } = job.fuel;
    const { ambientLowC } = job.site;
    if (cloudPointC === undefined || ambientLowC >= cloudPointC) return [];
    const [tank] = job.tanks;
    return [
      {
        grade: "mend" as const,
        ids: tank ? [tank.id] : [],
        lineUpIds: [],
        basis: "standard" as const,
        values: { coldestC: ambientLowC, cloudC: cloudPointC },
        figure: cloudPointC - ambientLowC,
      },
    ];
  },
});
