/** Laws of care as scripts call them. */
import { trendOf } from "~/core/care/blocking";
import { dropOfLoadingPa, elementLoading } from "~/core/care/elementLoading";
import { biocideDose, breathed, polished, polishedInTwoParts } from "~/core/care/tankCleaning";
import { LITRE_M3, LITRE_PER_HOUR_M3_S } from "~/core/units/factors";
import { CalcFault, type Law, law } from "./law";
import { z } from "./zod";

const MILLI = 1e-3;
const positive = z.number().positive().max(1e9);
const atLeastZero = z.number().min(0).max(1e9);
const share = z.number().min(0).max(1);
const within = z.number().gt(0).lt(1);
const density = z.number().min(400).max(1500);
const tempC = z.number().min(-60).max(80);

const polish = {
  volumeL: positive,
  flowLH: positive,
  singlePass: z.number().positive().max(1),
  initial: atLeastZero,
  ingressPerH: atLeastZero,
  hours: atLeastZero,
};
const polishOf = ({
  volumeL,
  flowLH,
  singlePass,
  ingressPerH,
}: Record<"volumeL" | "flowLH" | "singlePass" | "ingressPerH", number>) => ({
  volumeM3: volumeL * LITRE_M3,
  flowM3S: flowLH * LITRE_PER_HOUR_M3_S,
  singlePass,
  ingressPerH,
});

export const careLaws: Readonly<Record<string, Law>> = {
  loading: law(
    z.strictObject({
      ratedFlowLH: positive,
      ratedDropPa: positive,
      ratedDynamicMPaS: positive,
      ratedDensityKgM3: density,
      viscousShare: z.number().positive().max(1),
      flowLH: positive,
      dynamicMPaS: positive,
      densityKgM3: density,
      dropPa: positive,
      dropPlusMinusPa: atLeastZero,
      flowShareError: share,
      referenceFlowLH: positive,
      referenceDynamicMPaS: positive,
      referenceDensityKgM3: density,
    }),
    (v) => {
      const rating = {
        flowM3S: v.ratedFlowLH * LITRE_PER_HOUR_M3_S,
        dropPa: v.ratedDropPa,
        dynamicPaS: v.ratedDynamicMPaS * MILLI,
        densityKgM3: v.ratedDensityKgM3,
        viscousShare: v.viscousShare,
      };
      const at = (flowLH: number, dynamicMPaS: number, densityKgM3: number) => ({
        flowM3S: flowLH * LITRE_PER_HOUR_M3_S,
        dynamicPaS: dynamicMPaS * MILLI,
        densityKgM3,
      });
      const found = elementLoading(rating, at(v.flowLH, v.dynamicMPaS, v.densityKgM3), {
        dropPa: v.dropPa,
        plusMinusPa: v.dropPlusMinusPa,
        flowShareError: v.flowShareError,
      });
      const reference = at(v.referenceFlowLH, v.referenceDynamicMPaS, v.referenceDensityKgM3);
      return { ...found, referenceDropPa: dropOfLoadingPa(rating, reference, found.loading) };
    },
  ),
  trend: law(
    z.strictObject({
      points: z
        .array(z.strictObject({ x: z.number(), loading: positive, plusMinus: positive }))
        .min(3)
        .max(50_000),
      order: z.number().min(0).max(3),
      target: positive,
      share: within,
    }),
    ({ points, order, target, share: wanted }) => {
      const found = trendOf(points, order, target, wanted);
      if (!found) throw new CalcFault("points", "onePlace");
      return { ...found };
    },
  ),
  polish: law(z.strictObject(polish), (v) => polished(polishOf(v), v.initial, v.hours)),
  twoCompartment: law(
    z.strictObject({ ...polish, deadShare: within, exchangeShare: z.number().positive().max(10) }),
    (v) => polishedInTwoParts(polishOf(v), v, v.initial, v.hours),
  ),
  condensation: law(
    z.strictObject({ ullageL: atLeastZero, warmC: tempC, coldC: tempC, relativeHumidity: share }),
    ({ ullageL, warmC, coldC, relativeHumidity }) => {
      if (coldC > warmC) throw new CalcFault("coldC", "notColder");
      const { airM3, waterKg } = breathed(ullageL * LITRE_M3, { warmC, coldC, relativeHumidity });
      return { breathedL: airM3 / LITRE_M3, gramsPerDay: waterKg * 1000 };
    },
  ),
  biocide: law(
    z.strictObject({
      maker: z.strictObject({ mlPer100L: positive }),
      aboardL: atLeastZero,
      treatedShare: share.default(0),
      fillL: atLeastZero.default(0),
    }),
    ({ maker, aboardL, treatedShare, fillL }) => {
      const found = biocideDose(maker.mlPer100L / 1e5, {
        aboardM3: aboardL * LITRE_M3,
        treatedShare,
        fillM3: fillL * LITRE_M3,
      });
      return { ml: (found.doseM3 / LITRE_M3) * 1000, treatedL: found.treatedM3 / LITRE_M3 };
    },
  ),
};
