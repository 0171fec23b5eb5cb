/** Practice 24: vent and fill: height over the spill point at heel, dips, bores, pressure, arrester. ABYC, ISO 10088, 33 CFR 183 (from memory). */
import { fuelAt } from "../../fuel/fuel";
import { envelopeOf } from "../../plan/envelope";
import { floorUnder } from "../../tanks/floor";
import { soundingOf } from "../../tanks/tank";
import { fillingOf } from "../../tanks/tankLine";
import {
  brimPressurePa,
  FILL_PRESSURE_SHARE,
  LEAST_FILL_BORE_M,
  LEAST_FILL_HOSE_M,
  LEAST_VENT_BORE_M,
  spillAtHeel,
} from "../../tanks/vent";
import { onTank } from "../onTank";
import { type FindingBasis, type Found, rule } from "../rule";

type VentCode = "spillsFirst" | "dip" | "fillBore" | "fillHose" | "ventBore" | "brimPressure" | "noArrester";

export const ventLow = rule({
  id: "ventLow",
  practice: [24],
  place: "survey",
  judge: ({ job, plan }) =>
    job.tanks.flatMap((tank) => {
      const filling = fillingOf(tank, plan);
      if (!filling) return [];
      const found: Found<{ tank: string; code: VentCode; figure: number; limit: number | null }>[] = [];
      const say = (code: VentCode, figure: number, limit: number | null, basis: FindingBasis) =>
        found.push(
          onTank({
            grade: "mend",
            tank,
            also: code,
            values: { code, figure, limit },
            figure,
            basis,
          }),
        );
      const spill = spillAtHeel({ filling }, envelopeOf(job));
      if (spill && spill.ventOverFillM < 0) say("spillsFirst", -spill.ventOverFillM, null, "standard");
      if (filling.hasDip) say("dip", 0, null, "common");
      if (filling.fillBoreM < LEAST_FILL_BORE_M - 1e-6)
        say("fillBore", filling.fillBoreM, LEAST_FILL_BORE_M, "standard");
      if (filling.fillHoseBoreM < LEAST_FILL_HOSE_M - 1e-6)
        say("fillHose", filling.fillHoseBoreM, LEAST_FILL_HOSE_M, "standard");
      if (filling.ventBoreM < LEAST_VENT_BORE_M - 1e-6)
        say("ventBore", filling.ventBoreM, LEAST_VENT_BORE_M, "standard");
      const state = fuelAt(job.fuel, plan.conditions.fuelC);
      const { xM, yM } = soundingOf(tank);
      const brimPa = state ? brimPressurePa(state.densityKgM3, filling.spill, floorUnder(tank, xM, yM)) : 0;
      if (brimPa > FILL_PRESSURE_SHARE * filling.ratedPa)
        say("brimPressure", brimPa, FILL_PRESSURE_SHARE * filling.ratedPa, "standard");
      if (job.fuel.grade === "petrol" && filling.hasArrester === false)
        say("noArrester", 1, null, "standard");
      return found;
    }),
});
