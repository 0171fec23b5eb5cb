/** `keel calc`: the laws of joints, cuts, holes, lines and boards. The names are a contract with scripts. */
import { cutListFrom } from "~/core/cuts/cutList";
import { cutsFrom } from "~/core/cuts/cuts";
import { type ChainAsked, chainBetween } from "~/core/ends/chain";
import { type End, endFault } from "~/core/ends/ends";
import { bentLine } from "~/core/fit/bend";
import { holeSawFor } from "~/core/fit/holeSaw";
import { hosePath } from "~/core/fit/hosePath";
import { panelClashes } from "~/core/fit/panel";
import { endSchema, materials } from "./end";
import { CalcFault, type Law, law } from "./law";
import { z } from "./zod";

const MOST = 500;
const MM = 1e-3;
const positive = z.number().positive().max(1e6);
const atLeastZero = z.number().min(0).max(1e6);
const place = z.number().min(-1e6).max(1e6);

const adapter = z.strictObject({
  id: z.string().min(1).max(80),
  ends: z.array(endSchema).min(2).max(3),
  materials: z.array(z.enum(materials)).min(1),
  cost: atLeastZero,
  inner: z.int().min(0).max(9),
});

/** An end whose size or form its family does not know is a fault at its own place. */
function known(end: End, path: string): void {
  const fault = endFault(end);
  if (fault !== null)
    throw new CalcFault(`${path}.${fault}`, "unknownEnd", {
      family: end.family,
      size: end.size,
      form: end.form,
    });
}

const mm = (m: number) => m / MM;
/** A saw's size without the noise of metres. */
const sizeMm = (m: number) => Math.round(m * 1e7) / 1e4;
/** To a thousandth of a millimetre: a saw never larger than it is. */
const floored = (millimetres: number) => Math.floor(millimetres * 1e3 + 1e-6) / 1e3;
const rounded = (millimetres: number) => Number(millimetres.toFixed(3));

const box = z.strictObject({ x: place, z: place, w: positive, h: positive });
const solid = box.extend({ y0: place, y1: place });

export const fitLaws: Readonly<Record<string, Law>> = {
  chain: law(
    z.strictObject({
      from: endSchema,
      to: endSchema,
      branch: endSchema.exactOptional(),
      box: z
        .array(adapter.extend({ count: z.int().min(0).max(9999) }))
        .max(2000)
        .exactOptional(),
      boxExtra: z.int().min(0).max(5).exactOptional(),
      biodieselPercent: z.number().min(0).max(100).exactOptional(),
      catalogue: z.union([z.literal("generic"), z.array(adapter).max(2000)]).default("generic"),
      pipe: z.enum(["npt", "bsp"]).exactOptional(),
    }),
    ({ catalogue, ...asked }) => {
      known(asked.from, "from");
      known(asked.to, "to");
      if (asked.branch) known(asked.branch, "branch");
      const listed = catalogue === "generic" ? {} : { catalogue };
      for (const [name, list] of [
        ["box", asked.box ?? []],
        ["catalogue", listed.catalogue ?? []],
      ] as const)
        list.forEach(({ ends }, i) => ends.forEach((end, k) => known(end, `${name}[${i}].ends[${k}]`)));
      return { ...chainBetween({ ...asked, ...listed } as ChainAsked) };
    },
  ),
  cuts: law(
    z.strictObject({
      stockM: z.array(positive).max(MOST),
      lengthsM: z.array(positive).max(MOST),
      kerfMm: atLeastZero,
    }),
    ({ stockM, lengthsM, kerfMm }) => ({ ...cutsFrom(stockM, lengthsM, kerfMm * MM) }),
  ),
  cutList: law(
    z.strictObject({
      offcutsM: z.array(positive).max(MOST),
      coilsM: z.array(positive).max(MOST),
      lengthsM: z.array(positive).max(MOST),
      kerfMm: atLeastZero,
      keepM: atLeastZero,
    }),
    ({ offcutsM, coilsM, lengthsM, kerfMm, keepM }) => ({
      ...cutListFrom(offcutsM, coilsM, lengthsM, kerfMm * MM, keepM),
    }),
  ),
  holeSaw: law(
    z.strictObject({
      passMm: positive,
      clearanceMm: atLeastZero,
      series: z.enum(["inch", "metric"]),
      mostMm: positive.exactOptional(),
    }),
    ({ passMm, clearanceMm, series, mostMm }) => {
      const { needM, saw, fits } = holeSawFor(
        passMm * MM,
        clearanceMm * MM,
        series,
        mostMm === undefined ? undefined : mostMm * MM,
      );
      const sawMm = saw && sizeMm(saw.diameterM);
      return {
        needMm: mm(needM),
        sawMm: sawMm && floored(sawMm),
        saw: saw?.name ?? null,
        looseMm: sawMm && rounded(sawMm - passMm),
        fits,
      };
    },
  ),
  bend: law(
    z.strictObject({
      legsMm: z.array(positive).min(1).max(MOST),
      bendsDeg: z.array(z.number().gt(0).lt(180)).max(MOST),
      radiusMm: positive,
      tubeMm: positive.exactOptional(),
      flares: z
        .array(z.strictObject({ flareMm: positive, halfAngleDeg: z.number().gt(0).lt(90) }))
        .max(2)
        .exactOptional(),
    }),
    ({ legsMm, bendsDeg, radiusMm, tubeMm, flares }) => {
      if (bendsDeg.length !== legsMm.length - 1) throw new CalcFault("bendsDeg", "oneLessThanLegs");
      const bent = bentLine(
        legsMm.map((one) => one * MM),
        bendsDeg,
        radiusMm * MM,
        (tubeMm ?? 0) * MM,
        flares?.map(({ flareMm, halfAngleDeg }) => ({ flareM: flareMm * MM, halfAngleDeg })),
      );
      return {
        developedMm: mm(bent.developedM),
        straightsMm: bent.straightsM.map(mm),
        arcsMm: bent.arcsM.map(mm),
        flareAllowancesMm: bent.flareAllowancesM.map(mm),
        cutMm: mm(bent.cutM),
      };
    },
  ),
  hosePath: law(
    z.strictObject({
      from: z.strictObject({ xMm: place, zMm: place, headingDeg: z.number() }),
      to: z.strictObject({ xMm: place, zMm: place, headingDeg: z.number() }),
      radiusMm: positive,
      straightMm: atLeastZero,
    }),
    ({ from, to, radiusMm, straightMm }) => {
      const pose = ({ xMm, zMm, headingDeg }: typeof from) => ({ xM: xMm * MM, zM: zMm * MM, headingDeg });
      const { lengthM, word } = hosePath(pose(from), pose(to), radiusMm * MM, straightMm * MM);
      return { lengthMm: mm(lengthM), word };
    },
  ),
  panel: law(
    z.strictObject({
      board: box,
      opening: box,
      hoseArea: box,
      parts: z
        .array(
          z.strictObject({
            id: z.string().min(1).max(40),
            w: positive,
            h: positive,
            turns: z.array(z.int().min(0).max(3)).min(1),
            serviced: z.boolean().exactOptional(),
            bodies: z.array(solid).min(1),
            service: z.array(solid.extend({ kind: z.string().min(1).max(20) })).exactOptional(),
            ports: z.record(z.string(), z.unknown()),
          }),
        )
        .max(100),
      hoses: z.array(z.unknown()).max(200),
      at: z.array(z.strictObject({ x: place, z: place, t: z.int().min(0).max(3) })),
      gapMm: atLeastZero,
    }),
    ({ board, opening, parts, at, gapMm }) => {
      if (at.length !== parts.length) throw new CalcFault("at", "onePerPart");
      const clashes = panelClashes({ board, opening, parts, at, gap: gapMm });
      return { clashes: clashes.map(({ code, a, b, by }) => ({ code, a, b, mm: by })) };
    },
  ),
};
