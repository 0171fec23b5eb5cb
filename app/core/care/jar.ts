/** What a sample jar says, and what to do next. Common practice, no source, but for Stokes. */

import type { Sample } from "../book/entries";
import type { FuelState } from "../fuel/fuel";
import { stokesVelocityMS } from "../laws/stokes";
import { HOUR_S } from "../units/factors";

export type JarVerdict = "clean" | "waitAndLook" | "stripAndPolish" | "emulsion" | "growth";

/** A haze that still stands after this many hours is an emulsion. Common practice, no source. */
export const HAZE_STAYS_H = 24;

/** Growth goes before haze, haze that stays before water: the last look counts for haze, every look for growth. */
export function judgeJar({ looks }: Pick<Sample, "looks">): JarVerdict {
  const last = looks.reduce((latest, look) => (look.afterH >= latest.afterH ? look : latest));
  if (looks.some(({ growth }) => growth !== "none")) return "growth";
  if (last.haze !== "clear") return last.afterH >= HAZE_STAYS_H ? "emulsion" : "waitAndLook";
  const hadWater = looks.some(({ water, haze }) => water !== "none" || haze !== "clear");
  return hadWater || last.colour === "dark" ? "stripAndPolish" : "clean";
}

/** Verdicts, the worst first. */
const badness: readonly JarVerdict[] = ["growth", "emulsion", "stripAndPolish", "waitAndLook", "clean"];

/** Of each tank its last jar, and of them the worst; null where none was looked at. */
export function worstJar<T extends Pick<Sample, "looks" | "tankId">>(
  samples: readonly T[],
): { sample: T; verdict: JarVerdict } | null {
  const last = new Map(samples.map((sample) => [sample.tankId, sample]));
  const judged = [...last.values()].map((sample) => ({ sample, verdict: judgeJar(sample) }));
  return judged.sort((a, b) => badness.indexOf(a.verdict) - badness.indexOf(b.verdict))[0] ?? null;
}

export type JarSign = "growth" | "emulsion" | "water" | "haze";

/** Everything that a jar shows and that has a cure of its own, the worst first; free water though the haze above it has cleared. */
export function jarSigns(sample: Pick<Sample, "looks">): JarSign[] {
  const verdict = judgeJar(sample);
  const last = sample.looks.reduce((latest, look) => (look.afterH >= latest.afterH ? look : latest));
  const isEmulsion = last.haze !== "clear" && last.afterH >= HAZE_STAYS_H;
  const signs: Record<JarSign, boolean> = {
    growth: verdict === "growth",
    emulsion: isEmulsion,
    // What has parted is under the fuel to stay.
    water: !isEmulsion && sample.looks.some(({ water }) => water === "layer"),
    haze: verdict === "waitAndLook",
  };
  return (Object.keys(signs) as JarSign[]).filter((sign) => signs[sign]);
}

/** Days after a jar that was not clean until the next one: a cure is done when two in a row are clear. Common practice, no source. */
export const NEXT_JAR_DAYS = 10;
const CLEAR_IN_A_ROW = 2;

/** Whether the last jars of a tank say that it is being cured: one of the last two was not clean. */
export const isCuring = (samples: readonly Pick<Sample, "looks">[]): boolean =>
  samples.slice(-CLEAR_IN_A_ROW).some((one) => judgeJar(one) !== "clean");

/** Fresh water, for the densities of a tank: 998 kg/m3 at 20 degC (handbook). */
export const WATER_KG_M3 = 998;

/** Hours for droplets of a size to fall through a depth of still fuel; null where water would not sink. */
export function settleHours(fuel: FuelState, diameterM: number, depthM: number): number | null {
  const densityDifferenceKgM3 = WATER_KG_M3 - fuel.densityKgM3;
  if (!(densityDifferenceKgM3 > 0)) return null;
  return (
    depthM / stokesVelocityMS({ diameterM, densityDifferenceKgM3, dynamicPaS: fuel.dynamicPaS }) / HOUR_S
  );
}
