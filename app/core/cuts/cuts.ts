/**
 * Cutting pieces from stock that is all alike: the least length opened, then the fewest stocks, then the longest single
 * remnant. Every cut takes its kerf, but the last of a stock that it uses up. On a grid of 0.1 mm.
 */
import { grid, metres } from "./grid";
import { pack } from "./pack";

export interface Cuts {
  outcome: "cut" | "tooLong" | "notEnough" | "gaveUp";
  /** Lengths cut from each stock, m; empty where it stays whole. */
  pieces: number[][];
  stocks: number;
  stockUsedM: number;
  /** Opened less the pieces. */
  wasteM: number;
  longestRemnantM: number;
  /** The best there is; "remnant" where only the last remnant was not settled; false where less may do. */
  proved: boolean | "remnant";
  /** What opening less might save at most, m. */
  gapM: number;
}

/** So many stocks have all their sets gone through in order; beyond, the largest are opened first. */
const MOST_STOCKS = 18;
/** Sets that could not be settled are left after so many. */
const MOST_UNSETTLED = 12;
/** With many pieces a remnant is looked for in so many steps. */
const MOST_HALVINGS = 24;

interface Opened {
  stocks: number[];
  total: number;
}

/** Every set of stocks that could hold it, by length, then by number. */
function setsOf(stock: readonly number[], need: number, kerf: number): Opened[] {
  const sets: Opened[] = [];
  for (let mask = 1; mask < 1 << stock.length; mask++) {
    const stocks: number[] = [];
    let total = 0;
    for (let i = 0; i < stock.length; i++)
      if (mask & (1 << i)) {
        stocks.push(i);
        total += stock[i] as number;
      }
    if (total + kerf * stocks.length >= need) sets.push({ stocks, total });
  }
  return sets.sort((a, b) => a.total - b.total || a.stocks.length - b.stocks.length);
}

const MANY_PIECES = 20;
const remnantOf = (room: number, used: number) => Math.max(0, room - used);

/** The longest remnant that one stock of a set can keep with all pieces in, by halving. */
function longestRemnant(
  sizes: readonly number[],
  rooms: readonly number[],
  kerf: number,
): { bins: number[][]; remnant: number; isSettled: boolean } | null {
  const first = pack(sizes, rooms);
  if (first === null || first === "gaveUp") return null;
  const remnants = (bins: readonly number[][]) =>
    bins.map((bin, b) =>
      remnantOf(
        (rooms[b] as number) - kerf,
        bin.reduce((sum, i) => sum + (sizes[i] as number), 0),
      ),
    );
  let best = { bins: first.bins, remnant: Math.max(...remnants(first.bins)) };
  let isSettled = true;
  let halvings = 0;
  const seen = new Set<number>();
  rooms.forEach((room, b) => {
    if (seen.has(room)) return;
    seen.add(room);
    let [low, high] = [best.remnant, room - kerf];
    while (high - low >= 1) {
      if (++halvings > MOST_HALVINGS && sizes.length > MANY_PIECES) {
        isSettled = false;
        return;
      }
      const tried = Math.ceil((low + high) / 2);
      const found = pack(
        sizes,
        rooms.map((one, k) => (k === b ? Math.max(0, one - kerf - tried) : one)),
      );
      if (found === "gaveUp") isSettled = false;
      if (found === null || found === "gaveUp") {
        high = tried - 1;
        continue;
      }
      const got = Math.max(...remnants(found.bins));
      if (got > best.remnant) best = { bins: found.bins, remnant: got };
      low = Math.max(tried, best.remnant);
    }
  });
  return { ...best, isSettled };
}

const none = (outcome: Exclude<Cuts["outcome"], "cut">): Cuts => ({
  outcome,
  pieces: [],
  stocks: 0,
  stockUsedM: 0,
  wasteM: 0,
  longestRemnantM: 0,
  proved: outcome !== "gaveUp",
  gapM: 0,
});

export function cutsFrom(stockM: readonly number[], lengthsM: readonly number[], kerfM: number): Cuts {
  const kerf = grid(kerfM);
  const stock = stockM.map(grid);
  const lengths = lengthsM.map(grid);
  const sizes = lengths.map((length) => length + kerf);
  const need = sizes.reduce((sum, size) => sum + size, 0);
  if (lengths.some((length) => length > Math.max(0, ...stock))) return none("tooLong");
  if (stock.reduce((sum, one) => sum + one + kerf, 0) < need) return none("notEnough");
  // Of very many stocks the longest are looked at.
  const order = stock
    .map((_, i) => i)
    .sort((a, b) => (stock[b] as number) - (stock[a] as number))
    .slice(0, MOST_STOCKS);
  const known = order.map((i) => stock[i] as number);
  const sets = setsOf(known, need, kerf);
  const roomsOf = ({ stocks }: Opened) => stocks.map((i) => (known[i] as number) + kerf);
  let unsettled: number | null = stock.length > MOST_STOCKS ? (sets[0]?.total ?? null) : null;
  let given = 0;
  let found: Opened | null = null;
  for (const set of sets) {
    // What cannot be settled soon is passed over, in longer and longer steps.
    if (given > MOST_UNSETTLED && set.total < (unsettled ?? 0) * (1 + (given - MOST_UNSETTLED) * 1e-3))
      continue;
    const packed = pack(sizes, roomsOf(set));
    if (packed === "gaveUp") {
      unsettled ??= set.total;
      given++;
    } else if (packed) {
      found = set;
      break;
    }
  }
  // Where some stocks were not looked at, nothing is known of them.
  if (!found) return none(unsettled === null && stock.length <= MOST_STOCKS ? "notEnough" : "gaveUp");
  const best = found;
  const alike = sets.filter(
    ({ total, stocks }) => total === best.total && stocks.length === best.stocks.length,
  );
  let isSettled = true;
  const answers = alike.flatMap((set) => {
    const one = longestRemnant(sizes, roomsOf(set), kerf);
    if (one && !one.isSettled) isSettled = false;
    return one ? [{ set, ...one }] : [];
  });
  const answer = answers.reduce((a, b) => (b.remnant > a.remnant ? b : a));
  const pieces: number[][] = stockM.map(() => []);
  answer.set.stocks.forEach((place, b) => {
    pieces[order[place] as number] = (answer.bins[b] ?? []).map((i) => metres(lengths[i] as number));
  });
  return {
    outcome: "cut",
    pieces,
    stocks: best.stocks.length,
    stockUsedM: metres(best.total),
    wasteM: metres(best.total - lengths.reduce((sum, length) => sum + length, 0)),
    longestRemnantM: metres(answer.remnant),
    proved: unsettled !== null && unsettled < best.total ? false : isSettled ? true : "remnant",
    gapM: unsettled === null ? 0 : metres(Math.max(0, best.total - unsettled)),
  };
}
