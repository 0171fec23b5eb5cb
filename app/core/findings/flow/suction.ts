/**
 * Practice 8: suction at the first pump over its limit. The maker's limit, or common practice
 * (10 kPa clean, 20 kPa change, 34 kPa never). Air is said to be seen at 1 % (common practice); told is what harms.
 */
import { harmfulAirFraction } from "../../fuel/dissolvedAir";
import type { Suction } from "../../hydraulics/limits";
import type { LineUpVerdict } from "../../hydraulics/worst";
import { rule } from "../rule";

/** A finding at a judged suction, with what it is and what takes most of it. */
function atSuction({ lineUp, way }: LineUpVerdict, suction: Suction, limitPa: number) {
  return {
    ids: [suction.id],
    lineUpIds: [lineUp.id],
    values: {
      lineUp: lineUp.name,
      pump: way?.stations.find(({ id }) => id === suction.id)?.name ?? "",
      vacuumPa: suction.vacuumPa,
      limitPa,
      freeAir: suction.freeAir,
      worstId: suction.most?.id ?? "",
      worstShare: suction.most?.share ?? 0,
    },
    figure: suction.vacuumPa,
  };
}

export const suctionOverLimit = rule({
  id: "suctionOverLimit",
  practice: [8],
  place: "prove",
  judge: ({ plan: { limits }, verdicts }) =>
    verdicts.flatMap((verdict) => {
      const { suction } = verdict;
      if (!suction || suction.vacuumPa <= suction.limitPa) return [];
      const never = suction.basis === "common" && suction.vacuumPa > limits.suctionNeverPa;
      const found = atSuction(verdict, suction, never ? limits.suctionNeverPa : suction.limitPa);
      return [{ ...found, grade: never ? "stop" : "mend", basis: suction.basis }];
    }),
});

export const suctionClean = rule({
  id: "suctionClean",
  practice: [8],
  place: "prove",
  judge: ({ plan: { limits }, clean }) =>
    clean.flatMap((verdict) => {
      const { suction } = verdict;
      if (
        !suction ||
        suction.inStrokes ||
        suction.basis === "maker" ||
        suction.vacuumPa <= limits.suctionCleanPa
      )
        return [];
      return [{ ...atSuction(verdict, suction, limits.suctionCleanPa), grade: "mend", basis: "common" }];
    }),
});

export const freeAir = rule({
  id: "freeAir",
  practice: [8],
  place: "prove",
  judge: ({ plan: { limits }, verdicts }) =>
    verdicts.flatMap((verdict) => {
      const { suction } = verdict;
      const limit = Math.max(limits.freeAirFraction, harmfulAirFraction(limits.suctionChangePa));
      if (!suction || suction.airOut === null || suction.airOut <= limit) return [];
      const { values, ...at } = atSuction(verdict, suction, suction.limitPa);
      return [
        {
          ...at,
          grade: "watch",
          basis: "common",
          values: { ...values, freeAir: suction.airOut, limit },
          figure: suction.airOut,
        },
      ];
    }),
});
