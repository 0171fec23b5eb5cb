/** Laws of air in fuel lines as scripts call them. */
import { blowThrough } from "~/core/laws/blowThrough";
import { bubblePointPa, bubbleRiseMS, clearingMS, eotvos } from "~/core/laws/bubbles";
import { airThroughM3S, strokesFor } from "~/core/laws/displacement";
import { dryVacuumPa, gasEfficiency, liftM } from "~/core/laws/dryLift";
import { gravityFill } from "~/core/laws/gravityFill";
import { deadEndAirM, headAirM3, swollenM3 } from "~/core/laws/trappedAir";
import { areaM2 } from "~/core/units/bore";
import { DEGREE_RAD, LITRE_M3, LITRE_PER_HOUR_M3_S, MM2_S_IN_M2_S } from "~/core/units/factors";
import { CalcFault, type Law, law } from "./law";
import { z } from "./zod";

const MM = 1e-3;
const KPA = 1000;
const ML = LITRE_M3 / 1000;
const LITRE_PER_MINUTE = LITRE_M3 / 60;
const positive = z.number().positive().max(1e6);
const atLeastZero = z.number().min(0).max(1e6);
const share = z.number().min(0).max(1);
const efficiency = z.number().positive().max(1);
const density = z.number().min(400).max(1500);
const tension = z.number().positive().max(0.1);
const clearance = { clearanceRatio: positive, polytropicExponent: z.number().min(1).max(1.7).default(1) };

export const airLaws: Readonly<Record<string, Law>> = {
  gravityFill: law(
    z.strictObject({
      boreMm: positive,
      lengthM: positive,
      slopeDeg: z.number().min(-90).max(90),
      headM: positive,
      densityKgM3: density,
      viscosityMm2S: positive,
    }),
    ({ boreMm, lengthM, slopeDeg, headM, viscosityMm2S }) => {
      const found = gravityFill(
        { boreM: boreMm * MM, lengthM, slopeRad: slopeDeg * DEGREE_RAD, headM },
        viscosityMm2S * MM2_S_IN_M2_S,
      );
      return { ...found, ...(found.endReynolds === null ? { endReynolds: undefined } : {}) };
    },
  ),
  strokes: law(
    z.strictObject({ volumeMl: positive, strokeMl: positive, efficiency }),
    ({ volumeMl, strokeMl, efficiency: share }) => {
      const strokes = strokesFor(volumeMl * ML, strokeMl * ML, share);
      return { strokes, displacedMl: strokes * strokeMl * share };
    },
  ),
  dryLift: law(
    z.strictObject({
      ...clearance,
      outletKpa: positive,
      atmosphereKpa: positive,
      checkKpa: atLeastZero,
      densityKgM3: density,
    }),
    ({ clearanceRatio, polytropicExponent, outletKpa, atmosphereKpa, checkKpa, densityKgM3 }) => {
      const vacuumPa = dryVacuumPa(
        { ratio: clearanceRatio, polytropic: polytropicExponent },
        atmosphereKpa * KPA,
        outletKpa * KPA,
        checkKpa * KPA,
      );
      return { vacuumKpa: vacuumPa / KPA, liftM: liftM(vacuumPa, densityKgM3) };
    },
  ),
  gasEfficiency: law(
    z.strictObject({ ...clearance, inletKpa: positive, outletKpa: positive }),
    ({ clearanceRatio, polytropicExponent, inletKpa, outletKpa }) => ({
      efficiency: gasEfficiency(
        { ratio: clearanceRatio, polytropic: polytropicExponent },
        inletKpa * KPA,
        outletKpa * KPA,
      ),
    }),
  ),
  deadEnd: law(
    z.strictObject({
      boreMm: positive,
      lengthM: positive,
      slopeDeg: z.number().min(-90).max(90),
      headM: z.number().min(0).max(100),
      densityKgM3: density,
      atmosphereKpa: positive,
    }),
    ({ boreMm, lengthM, slopeDeg, headM, densityKgM3, atmosphereKpa }) => {
      const airM = deadEndAirM(
        { lengthM, slopeRad: slopeDeg * DEGREE_RAD, headM },
        densityKgM3,
        atmosphereKpa * KPA,
      );
      return {
        airLengthM: airM,
        airMl: (areaM2(boreMm * MM) * airM) / ML,
        airKpa: (atmosphereKpa * lengthM) / airM,
      };
    },
  ),
  trappedAir: law(
    z.strictObject({ airMl: positive, fromKpa: positive, toKpa: positive }),
    ({ airMl, fromKpa, toKpa }) => {
      const after = swollenM3(airMl, fromKpa, toKpa);
      return { airMl: after, drawnOutMl: after - airMl };
    },
  ),
  clearingFlow: law(
    z.strictObject({
      boreMm: positive,
      slopeDeg: z.number().min(0).max(90),
      densityKgM3: density,
      surfaceTensionNM: tension,
    }),
    ({ boreMm, slopeDeg, densityKgM3, surfaceTensionNM }) => ({
      flowLH:
        (clearingMS(boreMm * MM, slopeDeg * DEGREE_RAD, densityKgM3, surfaceTensionNM) *
          areaM2(boreMm * MM)) /
        LITRE_PER_HOUR_M3_S,
    }),
  ),
  bubbleRise: law(
    z.strictObject({ boreMm: positive, riseM: positive, densityKgM3: density, surfaceTensionNM: tension }),
    ({ boreMm, riseM, densityKgM3, surfaceTensionNM }) => {
      const velocityMS = bubbleRiseMS(boreMm * MM, densityKgM3, surfaceTensionNM);
      return {
        eotvos: eotvos(boreMm * MM, densityKgM3, surfaceTensionNM),
        velocityMS,
        seconds: velocityMS === null ? null : riseM / velocityMS,
      };
    },
  ),
  blowThrough: law(
    z.strictObject({
      boreMm: positive,
      riseM: positive,
      riseDeg: z.number().positive().max(90),
      blowKpa: positive,
      gasFlowLMin: positive,
      holdup: share,
      densityKgM3: density,
    }),
    ({ boreMm, riseM, riseDeg, blowKpa, gasFlowLMin, holdup, densityKgM3 }) => {
      const found = blowThrough(
        { boreM: boreMm * MM, riseM, riseRad: riseDeg * DEGREE_RAD },
        { blowPa: blowKpa * KPA, gasM3S: gasFlowLMin * LITRE_PER_MINUTE, holdup },
        densityKgM3,
      );
      const { breaksThrough, leastPa, gasMS, wallis, carriesUp, leftM3 } = found;
      return {
        breaksThrough,
        leastKpa: leastPa / KPA,
        gasVelocityMS: gasMS,
        wallis,
        carriesUp,
        leftMl: leftM3 / ML,
      };
    },
  ),
  doseFill: law(
    z.strictObject({
      boreMm: positive,
      lengthM: positive,
      partsMl: atLeastZero,
      strokeMm3: positive,
      hertz: positive,
      efficiency,
    }),
    ({ boreMm, lengthM, partsMl, strokeMm3, hertz, efficiency: share }) => {
      const volumeM3 = areaM2(boreMm * MM) * lengthM + partsMl * ML;
      const strokeM3 = strokeMm3 * MM ** 3;
      return {
        volumeMl: volumeM3 / ML,
        seconds: volumeM3 / (strokeM3 * hertz * share),
        strokes: strokesFor(volumeM3, strokeM3, share),
      };
    },
  ),
  leakAir: law(
    z.strictObject({ holeMm: positive, vacuumKpa: atLeastZero, coefficient: efficiency, flowLH: positive }),
    ({ holeMm, vacuumKpa, coefficient, flowLH }) => {
      const airLH = airThroughM3S(holeMm * MM, vacuumKpa * KPA, coefficient) / LITRE_PER_HOUR_M3_S;
      return { airLH, shareOfFlow: airLH / (airLH + flowLH) };
    },
  ),
  filterHead: law(
    z.strictObject({
      volumeMl: positive,
      headShare: share,
      atmosphereKpa: positive,
      gaugeKpa: z.number().min(-100).max(1000),
    }),
    ({ volumeMl, headShare, atmosphereKpa, gaugeKpa }) => {
      if (gaugeKpa <= -atmosphereKpa) throw new CalcFault("gaugeKpa", "tooSmall", { least: -atmosphereKpa });
      const trappedMl = headAirM3(volumeMl, headShare, atmosphereKpa, gaugeKpa);
      return { fillsMl: volumeMl - trappedMl, trappedMl };
    },
  ),
  bubblePoint: law(
    z.strictObject({ poreUm: positive, contactDeg: z.number().min(0).max(180), surfaceTensionNM: tension }),
    ({ poreUm, contactDeg, surfaceTensionNM }) => ({
      bubblePointKpa: bubblePointPa(poreUm * 1e-6, contactDeg * DEGREE_RAD, surfaceTensionNM) / KPA,
    }),
  ),
};
