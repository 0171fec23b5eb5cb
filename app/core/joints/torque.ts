/** What a joint is tightened to where its maker gives no figure: to compare by, never before the maker's own. */
import type { SchoolChoice } from "../plan/types";

/** N m, least and most: banjo bolt M12 to M14, and the flange of a sump. Common practice, no source. */
const BANJO_NM = [20, 24] as const;
const SUMP_FLANGE_NM = 30;
/** What the other school takes off a bolt in aluminium. Common practice, no source. */
const LOWER_BY = 1 / 6;

/** Of a banjo in aluminium by the job's school, and of a sump's flange, N m. */
export function commonTorquesNM(school: SchoolChoice<"torque">) {
  const share = school === "lowerBySixth" ? 1 - LOWER_BY : 1;
  return { banjo: [BANJO_NM[0] * share, BANJO_NM[1] * share] as const, sumpFlange: SUMP_FLANGE_NM };
}
