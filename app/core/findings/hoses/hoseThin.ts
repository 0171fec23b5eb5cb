/** A hose whose outside is no wider than its bore: there is no such hose, and its saw and clamps would be wrong. */
import { rule } from "../rule";

export const hoseThin = rule({
  id: "hoseThin",
  practice: [],
  place: "fit",
  judge: ({ plan }) =>
    [...plan.runs, ...(plan.tankLines ?? [])].flatMap(({ id, boreM, product }) =>
      product.outerDiameterM > boreM
        ? []
        : [
            {
              grade: "mend" as const,
              ids: [id],
              lineUpIds: [],
              basis: "common" as const,
              values: { run: id, boreM, outsideM: product.outerDiameterM },
              figure: boreM,
            },
          ],
    ),
});
