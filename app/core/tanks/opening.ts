/** The plate over a tank's opening: holes, the saws that cut them, and what is too near to what. */
import { nextSaw } from "../fit/holeSaw";
import type { Opening, PlateHole, Tank } from "../plan/types";

/** A saw of 2 1/8 in is sold as 54 mm: sizes that differ by less are the same saw. */
const SAME_SAW_M = 0.0002;

/** The saw for a hole: the smallest that is not under it, where the flange still covers it; null without. */
export function sawFor({ diameterM, mostM }: Pick<PlateHole, "diameterM" | "mostM">): number | null {
  const saw = nextSaw(diameterM - SAME_SAW_M, "inch")?.diameterM ?? null;
  return saw !== null && saw <= mostM + SAME_SAW_M ? saw : null;
}

export type HoleFault =
  | { code: "largerThanFlange"; holeId: string; overM: number }
  | { code: "noSaw"; holeId: string }
  | { code: "nearEdge"; holeId: string; shortM: number }
  | { code: "nearHole"; holeId: string; otherId: string; leftM: number }
  | { code: "nearBaffle"; holeId: string; baffleId: string; shortM: number }
  | { code: "swingFouls"; holeId: string; otherId: string; shortM: number }
  | { code: "noRoomAbove"; holeId: string; shortM: number };

/** A baffle and its weld as they are drawn. */
const BAFFLE_SEEN_M = 0.003;

/** Metal left between two holes, m: their flanges may touch but not lie over each other. */
const between = (a: PlateHole, b: PlateHole) => Math.hypot(a.aM - b.aM, a.bM - b.bM);

/** Place of a hole in the tank's frame: a runs along x, b along y from the plate's low corner. */
const placeOf = (opening: Opening, hole: PlateHole) => ({
  xM: opening.at.xM + hole.aM,
  yM: opening.at.yM + hole.bM,
});

/** Every hole that cannot be cut or served as drawn. */
export function holeFaults(tank: Tank): HoleFault[] {
  const { opening } = tank;
  if (!opening) return [];
  const { holes, aM, bM, roomAboveM } = opening;
  return holes.flatMap((hole, i): HoleFault[] => {
    const faults: HoleFault[] = [];
    const holeId = hole.id;
    const land = hole.flangeM / 2;
    if (hole.diameterM > hole.mostM)
      faults.push({ code: "largerThanFlange", holeId, overM: hole.diameterM - hole.mostM });
    else if (sawFor(hole) === null) faults.push({ code: "noSaw", holeId });
    const edge = Math.min(hole.aM, hole.bM, aM - hole.aM, bM - hole.bM) - land;
    if (edge < 0) faults.push({ code: "nearEdge", holeId, shortM: -edge });
    for (const other of holes.slice(i + 1)) {
      const left = between(hole, other) - land - other.flangeM / 2;
      if (left < 0)
        faults.push({
          code: "nearHole",
          holeId,
          otherId: other.id,
          leftM: between(hole, other) - (hole.diameterM + other.diameterM) / 2,
        });
    }
    for (const other of holes) {
      const away = between(hole, other);
      if (other.id !== hole.id && hole.swingM > 0 && away < hole.swingM && other.partLengthM > HANGS_M)
        faults.push({ code: "swingFouls", holeId, otherId: other.id, shortM: hole.swingM - away });
    }
    const place = placeOf(opening, hole);
    for (const baffle of tank.baffles ?? []) {
      const away = Math.abs((baffle.across === "x" ? place.xM : place.yM) - baffle.atM);
      if (away < land) faults.push({ code: "nearBaffle", holeId, baffleId: baffle.id, shortM: land - away });
      else if (hole.swingM > 0 && away < hole.swingM)
        faults.push({ code: "swingFouls", holeId, otherId: baffle.id, shortM: hole.swingM - away });
    }
    for (const { id, low, high } of tank.internals ?? []) {
      const away = Math.hypot(
        Math.max(low.xM - place.xM, 0, place.xM - high.xM),
        Math.max(low.yM - place.yM, 0, place.yM - high.yM),
      );
      if (away < hole.swingM)
        faults.push({ code: "swingFouls", holeId, otherId: id, shortM: hole.swingM - away });
    }
    if (hole.partLengthM > roomAboveM)
      faults.push({ code: "noRoomAbove", holeId, shortM: hole.partLengthM - roomAboveM });
    return faults;
  });
}

/** What reaches further than this under its plate hangs in a float's way. Common practice, no source. */
const HANGS_M = 0.1;

/** Least metal from a hole's rim to the next hole's, m; null for the only hole. */
export function metalLeftM({ holes }: Opening, hole: PlateHole): number | null {
  const left = holes
    .filter(({ id }) => id !== hole.id)
    .map((other) => between(hole, other) - (hole.diameterM + other.diameterM) / 2);
  return left.length > 0 ? Math.min(...left) : null;
}

/** What lies behind the plate, in the plate's own a and b: where no hole, or no float, may come. */
export interface KeepOut {
  id: string;
  aM: [number, number];
  bM: [number, number];
}

/** Baffles and what stands inside, as far as they lie behind the plate. */
export function keepOuts(tank: Tank): KeepOut[] {
  const { opening, baffles = [], internals = [] } = tank;
  if (!opening) return [];
  const { aM, bM, at } = opening;
  const clip = (low: number, high: number, most: number): [number, number] | null =>
    high > 0 && low < most ? [Math.max(0, low), Math.min(most, high)] : null;
  const found = [
    ...baffles.map(({ id, across, atM }) => ({
      id,
      aM:
        across === "x" ? clip(atM - at.xM - BAFFLE_SEEN_M, atM - at.xM + BAFFLE_SEEN_M, aM) : clip(0, aM, aM),
      bM:
        across === "y" ? clip(atM - at.yM - BAFFLE_SEEN_M, atM - at.yM + BAFFLE_SEEN_M, bM) : clip(0, bM, bM),
    })),
    ...internals.map(({ id, low, high }) => ({
      id,
      aM: clip(low.xM - at.xM, high.xM - at.xM, aM),
      bM: clip(low.yM - at.yM, high.yM - at.yM, bM),
    })),
  ];
  return found.flatMap(({ id, aM: a, bM: b }) => (a && b ? [{ id, aM: a, bM: b }] : []));
}

/** A hole as the other side of the plate shows it: the same datum edge a, mirrored along b. */
export const mirrored = ({ bM }: Opening, hole: PlateHole): { aM: number; bM: number } => ({
  aM: hole.aM,
  bM: bM - hole.bM,
});
