/**
 * What a shop cuts hose from: offcuts first, and coils go back on the reel. In order: the least taken from coils, the
 * least offcut length spent (a remnant of at least `keepM` goes back to the box), the fewest stocks touched, the longest
 * remnant. On a grid of 0.1 mm.
 */
import { grid, metres } from "./grid";
import { pack } from "./pack";

export interface CutList {
  outcome: "cut" | "tooLong" | "notEnough";
  /** Lengths cut from each offcut, m. */
  offcuts: number[][];
  /** Lengths cut from coils, m, by coil. */
  coil: number[][];
  coilTakenM: number;
  offcutsSpentM: number;
  touched: number;
  longestRemnantM: number;
  proved: boolean;
  /** What less might be taken from coils at most, m. */
  gapM: number;
}

const sumOf = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0);

const MOST_NODES = 400000;

interface Score {
  taken: number;
  spent: number;
  touched: number;
  remnant: number;
}
const isBetter = (a: Score, b: Score | null): boolean => {
  if (!b) return true;
  if (a.taken !== b.taken) return a.taken < b.taken;
  if (a.spent !== b.spent) return a.spent < b.spent;
  if (a.touched !== b.touched) return a.touched < b.touched;
  return a.remnant > b.remnant;
};

export function cutListFrom(
  offcutsM: readonly number[],
  coilsM: readonly number[],
  lengthsM: readonly number[],
  kerfM: number,
  keepM: number,
): CutList {
  const [kerf, keep] = [grid(kerfM), grid(keepM)];
  const offcuts = offcutsM.map(grid);
  const rooms = offcuts.map((one) => one + kerf);
  const coilRooms = coilsM.map((one) => grid(one) + kerf);
  const order = lengthsM.map((_, i) => i).sort((a, b) => (lengthsM[b] ?? 0) - (lengthsM[a] ?? 0));
  const sizes = order.map((i) => grid(lengthsM[i] ?? 0) + kerf);
  const nothing = { offcuts: [], coil: [], coilTakenM: 0, offcutsSpentM: 0, touched: 0, longestRemnantM: 0 };
  const longest = Math.max(0, ...rooms, ...coilRooms);
  if (sizes.some((size) => size > longest)) return { outcome: "tooLong", ...nothing, proved: true, gapM: 0 };
  const after = new Float64Array(sizes.length + 1);
  for (let i = sizes.length - 1; i >= 0; i--) after[i] = (after[i + 1] as number) + (sizes[i] as number);

  const used = offcuts.map(() => 0);
  const at: number[] = sizes.map(() => -1);
  let best: { score: Score; at: number[]; coils: number[][] } | null = null;
  let nodes = 0;
  let taken = 0;
  const remnant = (b: number) => Math.max(0, (offcuts[b] as number) - (used[b] as number));

  const scoreOf = (coils: readonly number[][]): Score => {
    let [spent, touched, most] = [0, coils.filter((one) => one.length > 0).length, 0];
    offcuts.forEach((one, b) => {
      if (used[b] === 0) return;
      touched++;
      const rest = remnant(b);
      const isKept = rest >= keep && rest > 0;
      spent += isKept ? one - rest : one;
      most = Math.max(most, rest);
    });
    return { taken, spent, touched, remnant: most };
  };

  const finish = () => {
    const inCoils = at.flatMap((b, i) => (b < 0 ? [i] : []));
    const packed = pack(
      inCoils.map((i) => sizes[i] as number),
      coilRooms,
    );
    if (packed === null || packed === "gaveUp") return;
    const coils = packed.bins.map((bin) => bin.map((k) => inCoils[k] as number));
    const score = scoreOf(coils);
    if (isBetter(score, best?.score ?? null)) best = { score, at: [...at], coils };
  };

  /** Largest first; a piece goes into an offcut before it goes to a coil. */
  const place = (i: number): void => {
    if (++nodes > MOST_NODES) return;
    if (i === sizes.length) return finish();
    let open = 0;
    rooms.forEach((room, b) => {
      open += Math.max(0, room - (used[b] as number));
    });
    const sure = taken + Math.max(0, (after[i] as number) - open);
    if (best && sure > best.score.taken) return;
    const size = sizes[i] as number;
    const tried = new Set<string>();
    for (let b = 0; b < rooms.length; b++) {
      const room = (rooms[b] as number) - (used[b] as number);
      const key = `${rooms[b]}:${used[b]}`;
      if (room < size || tried.has(key)) continue;
      tried.add(key);
      used[b] = (used[b] as number) + size;
      at[i] = b;
      place(i + 1);
      used[b] = (used[b] as number) - size;
    }
    at[i] = -1;
    taken += size;
    place(i + 1);
    taken -= size;
  };
  place(0);
  const answer = best as { score: Score; at: number[]; coils: number[][] } | null;
  const isProved = nodes <= MOST_NODES;
  if (!answer) return { outcome: "notEnough", ...nothing, proved: isProved, gapM: 0 };
  const lengthOf = (i: number) => metres((sizes[i] as number) - kerf);
  const least = Math.max(0, (after[0] as number) - sumOf(rooms));
  return {
    outcome: "cut",
    offcuts: offcuts.map((_, b) => answer.at.flatMap((one, i) => (one === b ? [lengthOf(i)] : []))),
    coil: answer.coils.map((one) => one.map(lengthOf)),
    coilTakenM: metres(answer.score.taken),
    offcutsSpentM: metres(answer.score.spent),
    touched: answer.score.touched,
    longestRemnantM: metres(answer.score.remnant),
    proved: isProved,
    gapM: isProved ? 0 : metres(answer.score.taken - least),
  };
}
