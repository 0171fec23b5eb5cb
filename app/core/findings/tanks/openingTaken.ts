/** Practice 57 and 59: what used to warn is gone; a sender's adapter has taken the cleaning opening. Common practice. */
import { onTank } from "../onTank";
import { rule } from "../rule";

export const cleaningTaken = rule({
  id: "cleaningTaken",
  practice: [59],
  place: "survey",
  judge: ({ job }) =>
    job.tanks
      .filter(({ opening }) => opening?.cleaningTaken)
      .map((tank) => onTank({ grade: "watch", tank, values: {} })),
});

export const warningGone = rule({
  id: "warningGone",
  practice: [57],
  place: "survey",
  judge: ({ job }) =>
    job.tanks
      .filter(({ opening }) => opening?.warnedBy === "nothing")
      .map((tank) => onTank({ grade: "watch", tank, values: {} })),
});
