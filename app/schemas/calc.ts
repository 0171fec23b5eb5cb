/** `keel calc`: single laws, one JSON object in and one out. The names are a contract with scripts. */

import { iso4406Code } from "~/core/care/iso4406";
import { densityAt, densityProductByDensity } from "~/core/fuel/density";
import { freeAirFraction, ostwaldAir } from "~/core/fuel/dissolvedAir";
import { petrolVapourPa } from "~/core/fuel/vapour";
import { viscosityAt } from "~/core/fuel/viscosity";
import { churchill } from "~/core/laws/friction";
import { lineDrop } from "~/core/laws/line";
import { stokesVelocityMS } from "~/core/laws/stokes";
import { fittingKinds } from "~/core/laws/twoK";
import { wireDrop } from "~/core/laws/wire";
import type { TankShape } from "~/core/plan/types";
import { type Attitude, STEEPEST_DEG } from "~/core/tanks/attitude";
import { shapeFaults } from "~/core/tanks/check";
import { soundingOf, TiltedTank } from "~/core/tanks/tank";
import { ampere, celsius, kilogramPerCubicMetre, metre, squareMetre } from "~/core/units/brands";
import { fromSi, HOUR_S, MM2_S_IN_M2_S, toSi } from "~/core/units/factors";
import { airLaws } from "./airLaws";
import { careLaws } from "./careLaws";
import { fitLaws } from "./fitLaws";
import { CalcFault, type Law, law } from "./law";
import { coordinate, tankShape } from "./shape";
import { workLaws } from "./workLaws";
import { z } from "./zod";

const positive = z.number().positive();
const density15 = z.number().min(600).max(1100);
const tempC = z.number().min(-60).max(150);
const viscosityPoint = z.strictObject({ tempC, mm2S: z.number().min(0.21) });

const attitude = {
  pitchDeg: z.number().min(-STEEPEST_DEG).max(STEEPEST_DEG),
  rollDeg: z.number().min(-STEEPEST_DEG).max(STEEPEST_DEG),
};
const at = z.strictObject({ xM: coordinate, yM: coordinate }).optional();

/** A tank of a shape at an attitude, and the place its level is measured at. */
function tilted(
  shape: TankShape,
  attitude: Attitude,
  place: { xM: number; yM: number } | undefined,
): { tank: TiltedTank; place: { xM: number; yM: number } } {
  const [fault] = shapeFaults(shape);
  if (fault) throw new CalcFault(fault.path, fault.code, fault.values);
  return { tank: new TiltedTank({ shape }, attitude), place: place ?? soundingOf({ shape }) };
}

export const laws: Readonly<Record<string, Law>> = {
  ...fitLaws,
  ...airLaws,
  ...careLaws,
  ...workLaws,
  tank: law(
    z.strictObject({ shape: tankShape, levelM: coordinate, ...attitude, at }),
    ({ shape, levelM, pitchDeg, rollDeg, at }) => {
      const { tank, place } = tilted(shape, { pitchDeg, rollDeg }, at);
      const { volumeM3, xM4, yM4, zM4 } = tank.below(
        Math.min(tank.high, tank.offsetAt(place.xM, place.yM, levelM)),
      );
      const centroidM = volumeM3 > 0 ? [xM4 / volumeM3, yM4 / volumeM3, zM4 / volumeM3] : null;
      return { volumeM3, centroidM, capacityM3: tank.capacityM3 };
    },
  ),
  level: law(
    z.strictObject({ shape: tankShape, volumeM3: z.number().min(0), ...attitude, at }),
    ({ shape, volumeM3, pitchDeg, rollDeg, at }) => {
      const { tank, place } = tilted(shape, { pitchDeg, rollDeg }, at);
      if (volumeM3 > tank.capacityM3 * (1 + 1e-9)) throw new CalcFault("volumeM3", "overCapacity");
      return { levelM: tank.levelAt(place.xM, place.yM, tank.offsetOfVolume(volumeM3)) };
    },
  ),
  settle: law(
    z.strictObject({
      dropletUm: positive,
      waterKgM3: positive,
      fuelKgM3: positive,
      viscosityMm2S: positive,
      depthMm: positive,
    }),
    ({ dropletUm, waterKgM3, fuelKgM3, viscosityMm2S, depthMm }) => {
      if (!(waterKgM3 > fuelKgM3)) throw new CalcFault("waterKgM3", "waterFloats");
      const velocity = stokesVelocityMS({
        diameterM: dropletUm * 1e-6,
        densityDifferenceKgM3: waterKgM3 - fuelKgM3,
        dynamicPaS: viscosityMm2S * MM2_S_IN_M2_S * fuelKgM3,
      });
      const hours = toSi("length", depthMm, "mm") / velocity / HOUR_S;
      return { velocityMmH: fromSi("length", velocity, "mm") * HOUR_S, hours };
    },
  ),
  iso4406: law(
    z.strictObject({ perMl: z.tuple([z.number().min(0), z.number().min(0), z.number().min(0)]) }),
    ({ perMl }) => {
      if (!(perMl[0] >= perMl[1] && perMl[1] >= perMl[2])) throw new CalcFault("perMl", "countsNotFalling");
      const code = iso4406Code(perMl);
      if (code === null) throw new CalcFault("perMl", "countsOutOfScale");
      return { code };
    },
  ),
  friction: law(
    z.strictObject({ reynolds: positive, relativeRoughness: z.number().min(0).max(0.1) }),
    ({ reynolds, relativeRoughness }) => {
      const out = { factor: 0, logSlope: 0 };
      churchill.evaluate(reynolds, relativeRoughness, out);
      return { darcyFrictionFactor: out.factor };
    },
  ),
  fuel: law(
    z.strictObject({
      density15KgM3: density15,
      viscosityPoints: z
        .tuple([viscosityPoint, viscosityPoint])
        .refine(([a, b]) => a.tempC !== b.tempC, "sameTemperature"),
      tempC,
    }),
    ({ density15KgM3, viscosityPoints, tempC }) => {
      const viscosityMm2S = viscosityAt(viscosityPoints, tempC);
      if (viscosityMm2S === null) throw new CalcFault("tempC", "viscosityOutOfRange");
      const product = densityProductByDensity(density15KgM3);
      const densityKgM3 = densityAt(kilogramPerCubicMetre(density15KgM3), celsius(tempC), product);
      return { densityKgM3, viscosityMm2S, ostwaldAir: ostwaldAir(density15KgM3, tempC) };
    },
  ),
  vapour: law(z.strictObject({ reidKpa: positive, tempC }), ({ reidKpa, tempC }) => ({
    vapourKpa: fromSi("pressure", petrolVapourPa(toSi("pressure", reidKpa, "kPa"), tempC), "kPa"),
  })),
  freeAir: law(
    z.strictObject({
      density15KgM3: density15,
      tempC,
      saturatedKpa: positive,
      pressureKpa: positive,
      vapourKpa: z.number().min(0).default(0),
    }),
    ({ density15KgM3, tempC, saturatedKpa, pressureKpa, vapourKpa }) => {
      const fraction = freeAirFraction(
        ostwaldAir(density15KgM3, tempC),
        saturatedKpa,
        pressureKpa,
        vapourKpa,
      );
      if (fraction === null) throw new CalcFault("pressureKpa", "boils");
      return { fraction };
    },
  ),
  line: law(
    z.strictObject({
      boreMm: positive,
      lengthM: z.number().min(0),
      roughnessMm: z.number().min(0),
      flowLH: z.number(),
      densityKgM3: positive,
      viscosityMm2S: positive,
      fittings: z.array(z.strictObject({ kind: z.enum(fittingKinds), count: z.int().min(0) })),
    }),
    ({ boreMm, roughnessMm, flowLH, viscosityMm2S, ...rest }) => ({
      ...lineDrop({
        ...rest,
        boreM: toSi("length", boreMm, "mm"),
        roughnessM: toSi("length", roughnessMm, "mm"),
        flowM3S: toSi("flow", flowLH, "L/h"),
        kinematicM2S: viscosityMm2S * MM2_S_IN_M2_S,
      }),
    }),
  ),
  wire: law(
    z.strictObject({
      currentA: z.number().min(0),
      oneWayM: z.number().min(0),
      areaMm2: positive,
      conductorC: tempC,
    }),
    ({ currentA, oneWayM, areaMm2, conductorC }) => ({
      dropV: wireDrop(ampere(currentA), metre(oneWayM), squareMetre(areaMm2 * 1e-6), celsius(conductorC)),
    }),
  ),
};
