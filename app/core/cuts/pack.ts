/** Whether pieces go into bins, and how: exact, by bin completion with a memory of what failed. Whole numbers throughout. */

export interface Packed {
  /** Pieces by bin, as places in the list of pieces. */
  bins: number[][];
}

/** Nodes that are looked at before the answer is given up. */
export const MOST_NODES = 20000;

/**
 * Bins one after the other, the smallest first, each filled so that no more is lost than may be: what there is much of is
 * found fast so, and nothing is proved where it is not found.
 */
function completed(sizes: readonly number[], rooms: readonly number[], most: number): number[][] | null {
  const order = rooms.map((_, b) => b).sort((a, b) => (rooms[a] as number) - (rooms[b] as number));
  const isTaken = new Uint8Array(sizes.length);
  const bins: number[][] = rooms.map(() => []);
  let nodes = 0;

  const fill = (at: number, loss: number): boolean => {
    if (at === order.length) return isTaken.every((one) => one === 1);
    const b = order[at] as number;
    const bin = bins[b] as number[];
    const isLast = at === order.length - 1;
    // An even share of what may be lost first; all of it where that does not do.
    const shares = isLast ? [loss] : [loss / (order.length - at), loss];
    for (const share of shares) {
      const choose = (i: number, room: number): boolean => {
        if (++nodes > most) return false;
        if (room <= share) {
          if (fill(at + 1, loss - room)) return true;
          if (nodes > most) return false;
        }
        let tried = -1;
        for (let k = i; k < sizes.length; k++) {
          const size = sizes[k] as number;
          if (isTaken[k] || size > room || size === tried) continue;
          tried = size;
          isTaken[k] = 1;
          bin.push(k);
          if (choose(k + 1, room - size)) return true;
          bin.pop();
          isTaken[k] = 0;
          if (nodes > most) return false;
        }
        return false;
      };
      if (choose(0, rooms[b] as number)) return true;
      if (nodes > most) return false;
    }
    return false;
  };
  const loss = rooms.reduce((sum, one) => sum + one, 0) - sizes.reduce((sum, one) => sum + one, 0);
  return loss >= 0 && fill(0, loss) ? bins : null;
}

/** From so many pieces on most answers come by filling bin after bin. */
const MANY = 14;

/**
 * @param pieces lengths with their cut, any order
 * @param rooms room of each bin
 * @returns how they go in, null where they do not, "gaveUp" where that was not settled within `most` nodes
 */
export function pack(
  pieces: readonly number[],
  rooms: readonly number[],
  most = MOST_NODES,
): Packed | null | "gaveUp" {
  const order = pieces.map((_, i) => i).sort((a, b) => (pieces[b] as number) - (pieces[a] as number));
  const sorted = order.map((i) => pieces[i] as number);
  const after = new Float64Array(sorted.length + 1);
  for (let i = sorted.length - 1; i >= 0; i--) after[i] = (after[i + 1] as number) + (sorted[i] as number);
  if (sorted.length >= MANY) {
    const bins = completed(sorted, rooms, most);
    if (bins) return { bins: bins.map((bin) => bin.map((k) => order[k] as number)) };
  }
  const least = sorted.at(-1) ?? 0;
  const left = [...rooms];
  const bins: number[][] = rooms.map(() => []);
  const failed = new Set<string>();
  let nodes = 0;
  let isGivenUp = false;

  const place = (i: number): boolean => {
    if (i === sorted.length) return true;
    if (++nodes > most) {
      isGivenUp = true;
      return false;
    }
    // Room that not even the smallest piece fits into is none.
    let usable = 0;
    for (const room of left) if (room >= least) usable += room;
    if (usable < (after[i] as number)) return false;
    const key = `${i}:${[...left].sort((a, b) => a - b).join(",")}`;
    if (failed.has(key)) return false;
    const size = sorted[i] as number;
    const tried = new Set<number>();
    // The fullest bin that takes it comes first.
    const takers = left.map((_, b) => b).filter((b) => (left[b] as number) >= size);
    takers.sort((a, b) => (left[a] as number) - (left[b] as number));
    for (const b of takers) {
      const room = left[b] as number;
      if (tried.has(room)) continue;
      tried.add(room);
      left[b] = room - size;
      bins[b]?.push(order[i] as number);
      if (place(i + 1)) return true;
      if (isGivenUp) return false;
      left[b] = room;
      bins[b]?.pop();
    }
    failed.add(key);
    return false;
  };
  if (place(0)) return { bins };
  return isGivenUp ? "gaveUp" : null;
}
