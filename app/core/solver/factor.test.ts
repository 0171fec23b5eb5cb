/** LU over a kept elimination order, against elimination with pivots on the whole matrix. */
import { describe, expect, test } from "@jest/globals";
import { seeded } from "../random/seeded";
import { analyse, factorAndSolve, factorAndSolveGeneral } from "./factor";

/** Gaussian elimination with partial pivoting: any text on linear algebra. */
function dense(a: number[][], b: number[]): number[] {
  const n = b.length;
  const m = a.map((row, i) => [...row, b[i] as number]);
  for (let k = 0; k < n; k++) {
    const pivot = m
      .slice(k)
      .reduce((best, row, i) => (Math.abs(row[k] as number) > Math.abs(m[best]?.[k] ?? 0) ? k + i : best), k);
    [m[k], m[pivot]] = [m[pivot] as number[], m[k] as number[]];
    for (let i = k + 1; i < n; i++) {
      const factor = (m[i]?.[k] as number) / (m[k]?.[k] as number);
      for (let j = k; j <= n; j++)
        (m[i] as number[])[j] = (m[i]?.[j] as number) - factor * (m[k]?.[j] as number);
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let sum = m[i]?.[n] as number;
    for (let j = i + 1; j < n; j++) sum -= (m[i]?.[j] as number) * (x[j] as number);
    x[i] = sum / (m[i]?.[i] as number);
  }
  return x;
}

function randomSystem(seed: number, isSymmetric: boolean) {
  const random = seeded(seed);
  const n = 3 + Math.floor(random() * 20);
  const pairs: [number, number][] = [];
  const a = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 1; i < n; i++) {
    // A tree, and here and there a loop.
    const others = [Math.floor(random() * i), ...(random() < 0.3 ? [Math.floor(random() * i)] : [])];
    for (const j of new Set(others)) {
      pairs.push([i, j]);
      const low = -random();
      (a[i] as number[])[j] = low;
      (a[j] as number[])[i] = isSymmetric ? low : -random();
    }
  }
  for (let k = 0; k < n; k++)
    (a[k] as number[])[k] =
      0.1 + a.reduce((sum, row, i) => sum + (i === k ? 0 : Math.abs(row[k] as number)), 0);
  const b = Array.from({ length: n }, () => random() - 0.5);
  return { n, pairs, a, b };
}

describe("a factor over a kept order", () => {
  test.each(Array.from({ length: 40 }, (_, i) => i + 1))(
    "of a matrix that is not symmetric, seed %p",
    (seed) => {
      const { n, pairs, a, b } = randomSystem(seed, false);
      const f = analyse(n, pairs);
      const diagonal = new Float64Array(n);
      const [lower, upper] = [new Float64Array(f.row.length), new Float64Array(f.row.length)];
      const x = new Float64Array(n);
      for (let i = 0; i < n; i++) {
        diagonal[f.position[i] as number] = a[i]?.[i] as number;
        x[f.position[i] as number] = b[i] as number;
      }
      pairs.forEach(([i, j], k) => {
        const slot = f.slotOfPair[k] as number;
        const isLater = (f.position[i] as number) > (f.position[j] as number);
        lower[slot] = (isLater ? a[i]?.[j] : a[j]?.[i]) as number;
        upper[slot] = (isLater ? a[j]?.[i] : a[i]?.[j]) as number;
      });
      factorAndSolveGeneral(f, diagonal, lower, upper, x);
      dense(a, b).forEach((wanted, i) => expect(x[f.position[i] as number]).toBeCloseTo(wanted, 9));
    },
  );

  test.each(Array.from({ length: 20 }, (_, i) => 500 + i))(
    "of one that is, both ways alike, seed %p",
    (seed) => {
      const { n, pairs, a, b } = randomSystem(seed, true);
      const f = analyse(n, pairs);
      const fill = () => {
        const diagonal = new Float64Array(n);
        const lower = new Float64Array(f.row.length);
        const x = new Float64Array(n);
        for (let i = 0; i < n; i++) {
          diagonal[f.position[i] as number] = a[i]?.[i] as number;
          x[f.position[i] as number] = b[i] as number;
        }
        pairs.forEach(([i, j], k) => {
          lower[f.slotOfPair[k] as number] = a[i]?.[j] as number;
        });
        return { diagonal, lower, x };
      };
      const own = fill();
      factorAndSolve(f, own.diagonal, own.lower, own.x);
      const general = fill();
      factorAndSolveGeneral(f, general.diagonal, general.lower, general.lower.slice(), general.x);
      own.x.forEach((value, i) => expect(general.x[i]).toBeCloseTo(value, 12));
      dense(a, b).forEach((wanted, i) => expect(own.x[f.position[i] as number]).toBeCloseTo(wanted, 9));
    },
  );
});
