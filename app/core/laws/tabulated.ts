/**
 * A friction law kept in a table, for the solver's inner loop: the law itself is asked once for each node of the
 * table that is ever needed, and between nodes a cubic through values and slopes stands in for it.
 *
 * 128 nodes an octave of Re, evenly between powers of two, so that a node is found from the number's own bits.
 * Differs from Churchill's law by less than 1e-6 (measured in laws.test.ts); the slope is that of the cubic.
 */
import { type FrictionLaw, type FrictionValue, LAMINAR_BELOW_RE } from "./friction";

/** Re from 2^10 to 2^20; outside the law itself answers. */
const FIRST_OCTAVE = 10;
const LAST_OCTAVE = 20;
const NODES_BITS = 7;
const NODES = 1 << NODES_BITS;
const COUNT = (LAST_OCTAVE - FIRST_OCTAVE) * NODES;
const HIGHEST_RE = 2 ** LAST_OCTAVE;

/** A number and its bits; which half is the high one is the machine's matter. */
const number = new Float64Array(1);
const halves = new Uint32Array(number.buffer);
number[0] = 1;
const HIGH = halves[1] === 0x3ff00000 ? 1 : 0;
/** Distance of the nodes by octave. */
const widths = Float64Array.from(
  { length: LAST_OCTAVE - FIRST_OCTAVE },
  (_, i) => 2 ** (FIRST_OCTAVE + i) / NODES,
);

interface Table {
  /** Factor at each node, NaN where it has not been asked for, and the factor's slope by Re. */
  readonly factor: Float64Array;
  readonly slope: Float64Array;
}

const nodeRe = (node: number): number =>
  2 ** (FIRST_OCTAVE + Math.floor(node / NODES)) * (1 + (node % NODES) / NODES);

class TabulatedLaw implements FrictionLaw {
  readonly name: string;
  private readonly tables = new Map<number, Table>();
  private lastRoughness = Number.NaN;
  private last: Table | null = null;
  private readonly value: FrictionValue = { factor: 0, logSlope: 0 };

  constructor(private readonly law: FrictionLaw) {
    this.name = law.name;
  }

  evaluate(re: number, roughness: number, out: FrictionValue): void {
    if (!(re >= LAMINAR_BELOW_RE && re < HIGHEST_RE)) {
      this.law.evaluate(re, roughness, out);
      return;
    }
    const table = roughness === this.lastRoughness && this.last ? this.last : this.tableOf(roughness);
    number[0] = re;
    const node = ((halves[HIGH] as number) >>> (20 - NODES_BITS)) - ((1023 + FIRST_OCTAVE) << NODES_BITS);
    const { factor, slope } = table;
    if (Number.isNaN(factor[node] as number)) this.fill(table, node, roughness);
    if (Number.isNaN(factor[node + 1] as number)) this.fill(table, node + 1, roughness);
    const width = widths[node >> NODES_BITS] as number;
    const t = re / width - NODES - (node & (NODES - 1));
    const f0 = factor[node] as number;
    const rise = (factor[node + 1] as number) - f0;
    const s0 = (slope[node] as number) * width;
    const s1 = (slope[node + 1] as number) * width;
    const square = 3 * rise - 2 * s0 - s1;
    const cube = s0 + s1 - 2 * rise;
    const f = f0 + t * (s0 + t * (square + t * cube));
    out.factor = f;
    out.logSlope = ((s0 + t * (2 * square + 3 * t * cube)) / width) * (re / f);
  }

  private tableOf(roughness: number): Table {
    let table = this.tables.get(roughness);
    if (!table) {
      table = { factor: new Float64Array(COUNT + 1).fill(Number.NaN), slope: new Float64Array(COUNT + 1) };
      this.tables.set(roughness, table);
    }
    this.lastRoughness = roughness;
    this.last = table;
    return table;
  }

  private fill(table: Table, node: number, roughness: number): void {
    const re = nodeRe(node);
    this.law.evaluate(re, roughness, this.value);
    table.factor[node] = this.value.factor;
    table.slope[node] = (this.value.logSlope * this.value.factor) / re;
  }
}

export const tabulated = (law: FrictionLaw): FrictionLaw => new TabulatedLaw(law);
