/** Holes that hoses pass: what must go through, with which saw, and what its edge needs. */
import { type HoleSaw, holeSawFor, type Saw, type SawSeries } from "../fit/holeSaw";
import { hosesOf } from "../plan/lying";
import type { Passage, Plan } from "../plan/types";
import type { UnitChoice } from "../units/format";
import { inInches } from "../units/trade";

/** Room round what passes a bare hole. Common practice, no source. */
const CLEARANCE_M = 0.003;
/** No hole's edge nearer to an edge than this, nor than its own radius. Common practice, no source. */
const LEAST_EDGE_M = 0.01;
/** A sleeve stands out of a wall on both sides, and no farther. Common practice, no source. */
const SLEEVE_OUT_M = [0.003, 0.02] as const;

/** Cut edges of wood and cored panels are sealed, metal is deburred and painted. Common practice, no source. */
export type EdgeCare = "sealCore" | "sealGrain" | "deburrPaint" | "deburr";
const care: Readonly<Record<Passage["made"], EdgeCare>> = {
  cored: "sealCore",
  wood: "sealGrain",
  metal: "deburrPaint",
  plastic: "deburr",
};

export interface PassageHole {
  passage: Passage;
  /** What goes through, side by side in the least circle, m. */
  passM: number;
  saw: HoleSaw;
  /** The saw is in the shop's box. */
  isOwned: boolean;
  edge: EdgeCare;
  faults: (
    | "nothingPasses"
    | "noSaw"
    | "nearEdge"
    | "notLooked"
    | "behind"
    | "bareMetal"
    | "sleeveShort"
    | "sleeveLong"
  )[];
}

/**
 * Least circle round so many equal ones, by their diameter: proved to 11 but for 10, best known beyond (R. L. Graham and
 * others, Discrete Mathematics 181, 1998, p. 139, from memory). None is looser than 0.68 by area up to 20.
 */
const ROUND = [0, 1, 2, 2.1547, 2.4143, 2.7014, 3, 3, 3.3048, 3.6132, 3.8131, 3.9239, 4.0297] as const;
const LOOSE = 0.68;

/** A circle that surely takes circles side by side: two exactly, more as if all were as large as the largest. */
export function bundleM(diametersM: readonly number[]): number {
  const [first = 0, second = 0] = [...diametersM].sort((a, b) => b - a);
  const count = diametersM.length;
  return count <= 2 ? first + second : first * (ROUND[count] ?? Math.sqrt(count / LOOSE));
}

/** Saws that are in the drawer where the job is measured so. */
export const sawsOf = (units: UnitChoice): SawSeries => (inInches(units) ? "inch" : "metric");

/** A saw in the box is taken where it is no looser than this over what is needed. Common practice, no source. */
const LOOSER_M = 0.004;

/** The saw of the box that fits a hole best; null where none is near. */
function ownSaw(needM: number, ownedM: readonly number[]): Saw | null {
  const fits = ownedM.filter((one) => one >= needM - 1e-6 && one <= needM + LOOSER_M);
  return fits.length > 0 ? { diameterM: Math.min(...fits), name: "own" } : null;
}

/**
 * Every hole of a plan with its saw: one that the shop owns where it fits, else the next of the series.
 * @param ownedM diameters of the shop's own saws
 */
export function passageHoles(plan: Plan, series: SawSeries, ownedM: readonly number[] = []): PassageHole[] {
  return (plan.passages ?? []).map((passage) => {
    const through = passage.runs.flatMap(
      (id) => hosesOf(plan).find((run) => run.id === id)?.product.outerDiameterM ?? [],
    );
    const passM = bundleM([...through, ...(passage.alsoM === undefined ? [] : [passage.alsoM])]);
    const clearanceM = passage.grommetM === undefined ? CLEARANCE_M : 2 * passage.grommetM;
    const next = holeSawFor(passM, clearanceM, series);
    const own = passM > 0 ? ownSaw(next.needM, ownedM) : null;
    const saw = own ? { ...next, saw: own, looseM: own.diameterM - passM } : next;
    const radiusM = (saw.saw?.diameterM ?? saw.needM) / 2;
    const faults: PassageHole["faults"] = [];
    if (passM === 0) faults.push("nothingPasses");
    else if (!saw.saw) faults.push("noSaw");
    const leastM = radiusM + Math.max(radiusM, LEAST_EDGE_M);
    if (passage.fromEdgeM?.some((edge) => edge < leastM)) faults.push("nearEdge");
    if (passage.behind === undefined) faults.push("notLooked");
    else if (passage.behind !== "free") faults.push("behind");
    if (passage.made === "metal" && passage.grommetM === undefined) faults.push("bareMetal");
    if (passage.sleeveM !== undefined) {
      const outM = (passage.sleeveM - passage.wallM) / 2;
      if (outM < SLEEVE_OUT_M[0]) faults.push("sleeveShort");
      else if (outM > SLEEVE_OUT_M[1]) faults.push("sleeveLong");
    }
    return { passage, passM, saw, isOwned: own !== null, edge: care[passage.made], faults };
  });
}
