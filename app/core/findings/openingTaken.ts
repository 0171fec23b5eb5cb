/** Practice 57 and 59: what used to warn is gone; a sender's adapter has taken the cleaning opening. Common practice. */
import { onTank } from "./onTank";
import type { Finding, Rule } from "./types";

export const openingTaken: Rule = ({ job }) =>
  job.tanks.flatMap((tank): Finding[] => {
    const { opening } = tank;
    if (!opening) return [];
    return [
      ...(opening.cleaningTaken ? [onTank({ rule: "cleaningTaken", grade: "watch", tank })] : []),
      ...(opening.warnedBy === "nothing" ? [onTank({ rule: "warningGone", grade: "watch", tank })] : []),
    ];
  });
