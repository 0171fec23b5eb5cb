/**
 * Practice 8: suction at the first pump over its limit. The maker's limit, or common practice
 * (10 kPa clean, 20 kPa change, 34 kPa never); air is said to come out at 1 % (common practice).
 */
import type { LineUpVerdict } from "../hydraulics/worst";
import type { Finding, Rule } from "./types";

function figures({ lineUp, suction, way }: LineUpVerdict): Finding["values"] {
  const worst = way?.suctionLosses[0];
  return {
    lineUp: lineUp.name,
    pump: way?.stations.find(({ id }) => id === suction?.id)?.name ?? "",
    vacuumPa: suction?.vacuumPa ?? 0,
    limitPa: suction?.limitPa ?? 0,
    freeAir: suction?.freeAir ?? null,
    worstId: worst?.id ?? "",
    worstShare: worst?.share ?? 0,
  };
}

export const suctionOverLimit: Rule = ({ plan, verdicts, clean }) => {
  const { limits } = plan;
  const loaded = verdicts.flatMap((verdict): Finding[] => {
    const { suction, lineUp } = verdict;
    if (!suction || suction.vacuumPa <= suction.limitPa) return [];
    const never = suction.basis === "common" && suction.vacuumPa > limits.suctionNeverPa;
    const values = figures(verdict);
    if (never) values.limitPa = limits.suctionNeverPa;
    return [
      {
        rule: "suctionOverLimit",
        grade: never ? "stop" : "mend",
        ids: [suction.id],
        lineUpIds: [lineUp.id],
        basis: suction.basis,
        values,
        figure: suction.vacuumPa,
      },
    ];
  });
  const whenClean = clean.flatMap((verdict): Finding[] => {
    const { suction, lineUp } = verdict;
    if (!suction || suction.basis === "maker" || suction.vacuumPa <= limits.suctionCleanPa) return [];
    const values = { ...figures(verdict), limitPa: limits.suctionCleanPa };
    return [
      {
        rule: "suctionClean",
        grade: "mend",
        ids: [suction.id],
        lineUpIds: [lineUp.id],
        basis: "common",
        values,
        figure: suction.vacuumPa,
      },
    ];
  });
  const air = verdicts.flatMap((verdict): Finding[] => {
    const { suction, lineUp } = verdict;
    if (!suction || suction.freeAir === null || suction.freeAir <= limits.freeAirFraction) return [];
    const values = { ...figures(verdict), limit: limits.freeAirFraction };
    return [
      {
        rule: "freeAir",
        grade: "watch",
        ids: [suction.id],
        lineUpIds: [lineUp.id],
        basis: "common",
        values,
        figure: suction.freeAir,
      },
    ];
  });
  return [...loaded, ...whenClean, ...air];
};
