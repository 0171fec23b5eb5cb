/** Holes that hoses pass: what must go through, with which saw, and what its edge needs. */
import { type HoleSaw, holeSawFor, type SawSeries } from "../fit/holeSaw";
import type { Passage, Plan } from "../plan/types";

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
 * The circle round circles side by side: exact for one and two; for more the closed form for equal circles of the
 * largest (Graham 1968, from memory: 3, 4, 5, 6, 7), beyond seven by area at 0.7.
 */
export function bundleM(diametersM: readonly number[]): number {
  const sorted = [...diametersM].sort((a, b) => b - a);
  const [first = 0, second = 0] = sorted;
  if (sorted.length <= 2) return first + second;
  const round = [0, 1, 2, 2.1547, 2.4142, 2.7013, 3, 3][sorted.length];
  if (round !== undefined) return first * round;
  return Math.sqrt(sorted.reduce((sum, one) => sum + one ** 2, 0) / 0.7);
}

export function passageHoles(plan: Plan, series: SawSeries): PassageHole[] {
  return (plan.passages ?? []).map((passage) => {
    const through = passage.runs.flatMap(
      (id) => plan.runs.find((run) => run.id === id)?.product.outerDiameterM ?? [],
    );
    const passM = bundleM([...through, ...(passage.alsoM === undefined ? [] : [passage.alsoM])]);
    const clearanceM = passage.grommetM === undefined ? CLEARANCE_M : 2 * passage.grommetM;
    const saw = holeSawFor(passM, clearanceM, series);
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
    return { passage, passM, saw, edge: care[passage.made], faults };
  });
}
