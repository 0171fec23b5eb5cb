/** The shop's own stock, over all jobs: adapters by shape, hose by marking and bore, and things that are only counted. */

import { type CutList, cutListFrom } from "../cuts/cutList";
import { shapeOf } from "../ends/adapters";
import { guessEnds } from "../ends/byHand";
import type { InBox } from "../ends/chain";
import type { End } from "../ends/ends";
import type { PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";

export type BoxItem =
  /** An adapter by the generic shape that it has. */
  | { kind: "adapter"; id: Id; shape: string; count: number }
  | { kind: "hose"; id: Id; marking: string; boreM: number; lengthM: number; form: "offcut" | "coil" }
  /** A hole saw that the shop owns. */
  | { kind: "saw"; id: Id; diameterM: number }
  /** A part with its figures as the shop knows it, and what its ports end in: its id and place are nothing here. */
  | { kind: "part"; id: Id; name: string; part: PlanPart; ends: Record<Id, End>; on: string }
  /** Elements, seals, clamps, clips: by its name. */
  | { kind: "thing"; id: Id; name: string; count: number };

export type BoxHose = Extract<BoxItem, { kind: "hose" }>;

/** What the box offers to chains. */
export const adaptersIn = (items: readonly BoxItem[]): InBox[] =>
  items.flatMap((item) => {
    const adapter = item.kind === "adapter" && item.count > 0 ? shapeOf(item.shape) : undefined;
    return adapter && item.kind === "adapter" ? [{ ...adapter, count: item.count }] : [];
  });

/** Things counted under a name are the same thing whatever its letters. */
export const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** What is only counted. */
export type Counted = Extract<BoxItem, { count: number }>;
const isCounted = (item: BoxItem): item is Counted => "count" in item;

/** Puts something in: what is there already is counted up. Hose is never added together: two offcuts are no coil. */
export function putIn(items: readonly BoxItem[], item: BoxItem): BoxItem[] {
  const isSame = (one: BoxItem) =>
    (one.kind === "adapter" && item.kind === "adapter" && one.shape === item.shape) ||
    (one.kind === "thing" && item.kind === "thing" && sameName(one.name, item.name));
  if (!isCounted(item) || !items.some(isSame)) return [...items, item];
  return items.map((one) =>
    isSame(one) && isCounted(one) ? { ...one, count: one.count + item.count } : one,
  );
}

/** Takes one of it out; the last takes its line with it. */
export const takeOut = (items: readonly BoxItem[], id: Id): BoxItem[] =>
  items.flatMap((one) => {
    if (one.id !== id) return [one];
    return !isCounted(one) || one.count <= 1 ? [] : [{ ...one, count: one.count - 1 }];
  });

/** What is counted under a name, if there is any. */
export const namedIn = (items: readonly BoxItem[], name: string) =>
  items.find(
    (item): item is Extract<BoxItem, { kind: "thing" }> =>
      item.kind === "thing" && item.count > 0 && sameName(item.name, name),
  );

/** Adapters that have an end like what is in the hand: outside diameter, and pitch of a thread. */
export function likeInHand(items: readonly BoxItem[], outsideM: number, pitchM: number | null): BoxItem[] {
  const guesses = guessEnds(outsideM, pitchM).map(({ end }) => end);
  return items.filter(
    (item) =>
      item.kind === "adapter" &&
      shapeOf(item.shape)?.ends.some((end) =>
        guesses.some((one) => one.family === end.family && one.size === end.size),
      ),
  );
}

export interface HoseAsked {
  marking: string;
  boreM: number;
  lengthsM: readonly number[];
}

export interface HoseCuts {
  /** Offcuts and coils of this marking and bore, in the order that the cut list counts them. */
  offcuts: readonly BoxHose[];
  coils: readonly BoxHose[];
  list: CutList;
  /** Length that the box does not have, and that is bought, m. */
  toBuyM: number;
}

/** A saw or knife wastes nothing worth the name of hose; remnants from this on go back. Common practice, no source. */
export const KERF_M = 0.002;
export const KEEP_M = 0.15;
/** Bores this near are one hose. */
const SAME_BORE_M = 2e-4;

/** Cuts hose of one marking and bore from what the box has; what does not fit there is bought in one length. */
export function cutsFromBox(items: readonly BoxItem[], { marking, boreM, lengthsM }: HoseAsked): HoseCuts {
  const mine = items.filter(
    (one): one is BoxHose =>
      one.kind === "hose" && sameName(one.marking, marking) && Math.abs(one.boreM - boreM) < SAME_BORE_M,
  );
  const offcuts = mine.filter(({ form }) => form === "offcut");
  const coils = mine.filter(({ form }) => form === "coil");
  const cut = (lengths: readonly number[]) =>
    cutListFrom(
      offcuts.map(({ lengthM }) => lengthM),
      coils.map(({ lengthM }) => lengthM),
      lengths,
      KERF_M,
      KEEP_M,
    );
  // The longest that the box cannot give are bought: what is left is asked of it again.
  const sorted = [...lengthsM].sort((a, b) => b - a);
  let from = 0;
  let list = cut(sorted);
  while (list.outcome !== "cut" && from < sorted.length) {
    from++;
    list = cut(sorted.slice(from));
  }
  return { offcuts, coils, list, toBuyM: sorted.slice(0, from).reduce((sum, one) => sum + one + KERF_M, 0) };
}

/** The box after the cut: pieces are gone, remnants worth keeping are back. */
export function afterCut(items: readonly BoxItem[], { offcuts, coils, list }: HoseCuts): BoxItem[] {
  const left = new Map<Id, number>();
  const spend = (stock: BoxHose | undefined, pieces: readonly number[]) => {
    if (!stock || pieces.length === 0) return;
    const spent = pieces.reduce((sum, one) => sum + one + KERF_M, 0);
    left.set(stock.id, Math.max(0, stock.lengthM - spent));
  };
  list.offcuts.forEach((pieces, i) => spend(offcuts[i], pieces));
  list.coil.forEach((pieces, i) => spend(coils[i], pieces));
  return items.flatMap((one) => {
    const lengthM = left.get(one.id);
    if (one.kind !== "hose" || lengthM === undefined) return [one];
    return lengthM >= KEEP_M ? [{ ...one, lengthM }] : [];
  });
}
