/** `keel calc`: single laws, one JSON object in and one out. The names are a contract with scripts. */
import { z } from "zod";
import { densityAt, densityProductByDensity } from "~/core/fuel/density";
import { freeAirFraction, ostwaldAir } from "~/core/fuel/dissolvedAir";
import { petrolVapourPa } from "~/core/fuel/vapour";
import { viscosityAt } from "~/core/fuel/viscosity";
import { churchill } from "~/core/laws/friction";
import { lineDrop } from "~/core/laws/line";
import { fittingKinds } from "~/core/laws/twoK";
import { wireDrop } from "~/core/laws/wire";
import { ampere, celsius, kilogramPerCubicMetre, metre, squareMetre } from "~/core/units/brands";
import { fromSi, MM2_S_IN_M2_S, toSi } from "~/core/units/factors";

/** A fault of the input that its shape alone does not show. */
export class CalcFault extends Error {
  constructor(
    readonly path: string,
    readonly code: string,
  ) {
    super(`${path}: ${code}`);
  }
}

const positive = z.number().positive();
const density15 = z.number().min(600).max(1100);
const tempC = z.number().min(-60).max(150);
const viscosityPoint = z.strictObject({ tempC, mm2S: z.number().min(0.21) });

interface Law {
  input: z.ZodType;
  run(input: never): Record<string, unknown>;
}

function law<S extends z.ZodType>(input: S, run: (input: z.infer<S>) => Record<string, unknown>): Law {
  return { input, run: run as Law["run"] };
}

export const laws: Readonly<Record<string, Law>> = {
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
