/**
 * Symbolic and numeric LDL' factor of the network's matrix.
 *
 * What the topology fixes (elimination order, fill, where each product lands) is worked out once;
 * a numeric factor is then one pass over flat arrays. Right-looking, minimum degree.
 */
export interface SymbolicFactor {
  readonly size: number;
  /** Elimination position of a node. */
  readonly position: Int32Array;
  readonly columnStart: Int32Array;
  readonly row: Int32Array;
  /** Where the product of two entries of a column lands, in the order the numeric pass meets them. */
  readonly target: Int32Array;
  /** Slot of the off-diagonal entry of each pair given to {@link analyse}. */
  readonly slotOfPair: Int32Array;
}

function eliminate(
  size: number,
  pairs: readonly (readonly [number, number])[],
): { order: number[]; fill: Set<number>[] } {
  const neighbours = Array.from({ length: size }, () => new Set<number>());
  for (const [a, b] of pairs) {
    neighbours[a]?.add(b);
    neighbours[b]?.add(a);
  }
  const left = new Set(neighbours.keys());
  const order: number[] = [];
  const fill: Set<number>[] = [];
  while (left.size > 0) {
    let best = -1;
    let degree = Infinity;
    for (const node of left) {
      const size = neighbours[node]?.size ?? 0;
      if (size >= degree) continue;
      best = node;
      degree = size;
      // The end of a branch makes no fill: none can be better.
      if (degree <= 1) break;
    }
    const around = neighbours[best] ?? new Set<number>();
    for (const a of around) {
      neighbours[a]?.delete(best);
      for (const b of around) if (a !== b) neighbours[a]?.add(b);
    }
    left.delete(best);
    order.push(best);
    fill.push(around);
  }
  return { order, fill };
}

/** Pairs are the off-diagonal entries between unknown nodes, each pair of distinct indices below `size`. */
export function analyse(size: number, pairs: readonly (readonly [number, number])[]): SymbolicFactor {
  const { order, fill } = eliminate(size, pairs);
  const position = new Int32Array(size);
  order.forEach((node, at) => {
    position[node] = at;
  });
  const columnStart = new Int32Array(size + 1);
  const rows: number[] = [];
  const slot = new Map<number, number>();
  fill.forEach((around, column) => {
    const sorted = [...around].map((node) => position[node] as number).sort((a, b) => a - b);
    for (const row of sorted) {
      slot.set(column * size + row, rows.length);
      rows.push(row);
    }
    columnStart[column + 1] = rows.length;
  });
  const target: number[] = [];
  for (let column = 0; column < size; column++) {
    const end = columnStart[column + 1] as number;
    for (let e = columnStart[column] as number; e < end; e++) {
      for (let e2 = e + 1; e2 < end; e2++) {
        target.push(slot.get((rows[e] as number) * size + (rows[e2] as number)) as number);
      }
    }
  }
  const slotOfPair = Int32Array.from(pairs, ([a, b]) => {
    const pa = position[a] as number;
    const pb = position[b] as number;
    return slot.get(Math.min(pa, pb) * size + Math.max(pa, pb)) as number;
  });
  return {
    size,
    position,
    columnStart,
    row: Int32Array.from(rows),
    target: Int32Array.from(target),
    slotOfPair,
  };
}

/**
 * Solves A x = b in place. `diagonal` and `lower` hold A on entry (by position and slot) and its factor after;
 * `x` holds b on entry and the solution after, by position.
 */
export function factorAndSolve(
  f: SymbolicFactor,
  diagonal: Float64Array,
  lower: Float64Array,
  x: Float64Array,
): void {
  const { size, columnStart, row, target } = f;
  let t = 0;
  for (let k = 0; k < size; k++) {
    const end = columnStart[k + 1] as number;
    const d = diagonal[k] as number;
    const xk = x[k] as number;
    for (let e = columnStart[k] as number; e < end; e++) {
      const value = lower[e] as number;
      const l = value / d;
      const i = row[e] as number;
      diagonal[i] = (diagonal[i] as number) - l * value;
      x[i] = (x[i] as number) - l * xk;
      for (let e2 = e + 1; e2 < end; e2++) {
        const s = target[t++] as number;
        lower[s] = (lower[s] as number) - l * (lower[e2] as number);
      }
      lower[e] = l;
    }
  }
  for (let k = size - 1; k >= 0; k--) {
    let sum = (x[k] as number) / (diagonal[k] as number);
    const end = columnStart[k + 1] as number;
    for (let e = columnStart[k] as number; e < end; e++) {
      sum -= (lower[e] as number) * (x[row[e] as number] as number);
    }
    x[k] = sum;
  }
}

/**
 * Solves A x = b in place for a matrix whose pattern is symmetric and whose values are not: `lower` holds what stands
 * under the diagonal, `upper` what stands over it, by the same slots. LU without pivoting, for matrices whose diagonal
 * outweighs their columns.
 */
export function factorAndSolveGeneral(
  f: SymbolicFactor,
  diagonal: Float64Array,
  lower: Float64Array,
  upper: Float64Array,
  x: Float64Array,
): void {
  const { size, columnStart, row, target } = f;
  let t = 0;
  for (let k = 0; k < size; k++) {
    const end = columnStart[k + 1] as number;
    const d = diagonal[k] as number;
    const xk = x[k] as number;
    for (let e = columnStart[k] as number; e < end; e++) {
      const l = (lower[e] as number) / d;
      const u = upper[e] as number;
      const i = row[e] as number;
      diagonal[i] = (diagonal[i] as number) - l * u;
      x[i] = (x[i] as number) - l * xk;
      for (let e2 = e + 1; e2 < end; e2++) {
        const s = target[t++] as number;
        lower[s] = (lower[s] as number) - ((lower[e2] as number) / d) * u;
        upper[s] = (upper[s] as number) - l * (upper[e2] as number);
      }
    }
  }
  for (let k = size - 1; k >= 0; k--) {
    let sum = x[k] as number;
    const end = columnStart[k + 1] as number;
    for (let e = columnStart[k] as number; e < end; e++) {
      sum -= (upper[e] as number) * (x[row[e] as number] as number);
    }
    x[k] = sum / (diagonal[k] as number);
  }
}
