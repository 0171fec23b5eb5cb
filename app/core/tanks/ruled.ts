/**
 * Solids through polygons: boxes, drawn-out sections (prisms) and lofts, whose corners run along straight lines
 * from one section to the next (ruled sides).
 *
 *      v ^  b (dry)         One side of the outline at a place x. v is the height over the free surface; what is
 *        | /                under it is counted by Green's theorem, A = (1/nz) * sum over sides of the integral of
 *   -----x-----> y          y dv up to v = 0: the surface itself adds nothing, since dv = 0 there. So sides are
 *       /                   counted one by one, whatever the outline's form (B. F. Green's theorem; any calculus text).
 *      a (wet)
 *
 * Along x a corner's v is linear. Between the places where corners cross the surface, a side is dry, wet or cut.
 * A wet side, and a cut side of a prism, are polynomials of degree 3 in x, exact with two Gauss points. A cut side of
 * a loft is of higher degree and carries a pole where the side lies level, outside the piece: pieces are halved until
 * the pole is far for eight points (error under 1e-12 of the piece).
 */
import type { SectionPoint } from "../plan/types";
import type { Up } from "./attitude";
import { gaussLegendre } from "./gauss";
import type { Below, Solid, Tilted } from "./solid";

export interface RuledSection {
  readonly xM: number;
  readonly polygon: readonly SectionPoint[];
}

const exactToCubic = gaussLegendre(2);
const smooth = gaussLegendre(8);
/** A piece is halved while the distance of its ends from the pole differs more than this. */
const MOST_POLE_RATIO = 2;
const MOST_PIECES = 40;

const signedArea = (points: readonly SectionPoint[]): number =>
  points.reduce((sum, [y, z], i) => {
    const [y2, z2] = points[(i + 1) % points.length] as SectionPoint;
    return sum + (y * z2 - y2 * z) / 2;
  }, 0);

export class RuledSolid implements Solid {
  readonly sections: readonly RuledSection[];
  /** One section drawn straight out. */
  readonly isPrism: boolean;
  /** +1 where the outline runs counter-clockwise seen from the front. */
  readonly sense: 1 | -1;

  constructor(sections: readonly RuledSection[]) {
    this.sections = sections;
    this.isPrism = sections.length === 2 && sections[0]?.polygon === sections[1]?.polygon;
    this.sense = sections.reduce((sum, { polygon }) => sum + signedArea(polygon), 0) < 0 ? -1 : 1;
  }

  tilt(up: Up): Tilted {
    return this.isPrism ? new TiltedPrism(this, up) : new TiltedRuled(this, up);
  }
}

/** A box whose low corner is given. */
export function boxSolid(xM: number, yM: number, zM: number, dx: number, dy: number, dz: number): RuledSolid {
  const polygon: SectionPoint[] = [
    [yM, zM],
    [yM + dy, zM],
    [yM + dy, zM + dz],
    [yM, zM + dz],
  ];
  return new RuledSolid([
    { xM, polygon },
    { xM: xM + dx, polygon },
  ]);
}

class TiltedRuled implements Tilted {
  readonly low: number;
  readonly high: number;
  protected readonly corners: number;
  protected readonly x: Float64Array;
  protected readonly y: Float64Array;
  /** Height of each corner of each section along the vertical. */
  protected readonly v: Float64Array;
  private readonly z: Float64Array;
  private readonly breaks = new Float64Array(4);

  constructor(
    protected readonly solid: RuledSolid,
    protected readonly up: Up,
  ) {
    const { sections } = solid;
    const corners = sections[0]?.polygon.length ?? 0;
    this.corners = corners;
    this.x = new Float64Array(sections.map(({ xM }) => xM));
    this.y = new Float64Array(sections.length * corners);
    this.z = new Float64Array(sections.length * corners);
    this.v = new Float64Array(sections.length * corners);
    let low = Infinity;
    let high = -Infinity;
    sections.forEach(({ xM, polygon }, s) => {
      polygon.forEach(([y, z], k) => {
        const v = up[0] * xM + up[1] * y + up[2] * z;
        this.y[s * corners + k] = y;
        this.z[s * corners + k] = z;
        this.v[s * corners + k] = v;
        if (v < low) low = v;
        if (v > high) high = v;
      });
    });
    this.low = low;
    this.high = high;
  }

  addBelow(offset: number, sign: 1 | -1, into: Below): void {
    if (!(offset > this.low)) return;
    const { corners, x, solid } = this;
    const scale = (sign * solid.sense) / this.up[2];
    const spans = x.length - 1;
    for (let s = 0; s < spans; s++) {
      for (let k = 0; k < corners; k++) this.addSide(s, k, offset, scale, sign, into);
    }
    this.addEnd(0, offset, sign, into);
    this.addEnd(spans, offset, sign, into);
  }

  /** One side of the outline between two sections. */
  private addSide(s: number, k: number, offset: number, scale: number, sign: number, into: Below): void {
    const { corners, v } = this;
    const next = k + 1 === corners ? 0 : k + 1;
    const a0 = (v[s * corners + k] as number) - offset;
    const b0 = (v[s * corners + next] as number) - offset;
    const a1 = (v[(s + 1) * corners + k] as number) - offset;
    const b1 = (v[(s + 1) * corners + next] as number) - offset;
    if (a0 >= 0 && b0 >= 0 && a1 >= 0 && b1 >= 0) return;
    const { breaks } = this;
    let count = 1;
    breaks[0] = 0;
    const ta = a0 < 0 !== a1 < 0 ? a0 / (a0 - a1) : 0;
    const tb = b0 < 0 !== b1 < 0 ? b0 / (b0 - b1) : 0;
    const [first, second] = ta < tb ? [ta, tb] : [tb, ta];
    if (first > 0 && first < 1) breaks[count++] = first;
    if (second > 0 && second < 1) breaks[count++] = second;
    breaks[count] = 1;
    for (let i = 0; i < count; i++) {
      const from = breaks[i] as number;
      const to = breaks[i + 1] as number;
      const middle = (from + to) / 2;
      const a = a0 + (a1 - a0) * middle;
      const b = b0 + (b1 - b0) * middle;
      if (a >= 0 && b >= 0) continue;
      if (a < 0 && b < 0) this.addPiece(s, k, next, offset, from, to, scale, sign, into, false);
      else {
        // The side lies level where its ends have one height: the pole of the crossing.
        const fall0 = Math.abs(b0 - a0 + (b1 - b0 - a1 + a0) * from);
        const fall1 = Math.abs(b0 - a0 + (b1 - b0 - a1 + a0) * to);
        this.addCut(s, k, next, offset, from, to, fall0, fall1, scale, sign, into, MOST_PIECES);
      }
    }
  }

  private addCut(
    s: number,
    k: number,
    next: number,
    offset: number,
    from: number,
    to: number,
    fall0: number,
    fall1: number,
    scale: number,
    sign: number,
    into: Below,
    left: number,
  ): void {
    const [near, far] = fall0 < fall1 ? [fall0, fall1] : [fall1, fall0];
    if (far <= MOST_POLE_RATIO * near || left === 0) {
      this.addPiece(s, k, next, offset, from, to, scale, sign, into, !this.solid.isPrism);
      return;
    }
    const middle = (from + to) / 2;
    const fall = (fall0 + fall1) / 2;
    this.addCut(s, k, next, offset, from, middle, fall0, fall, scale, sign, into, left - 1);
    this.addCut(s, k, next, offset, middle, to, fall, fall1, scale, sign, into, left - 1);
  }

  /** A piece of a side on which it is wet or cut throughout. */
  private addPiece(
    s: number,
    k: number,
    next: number,
    offset: number,
    from: number,
    to: number,
    scale: number,
    sign: number,
    into: Below,
    isLoft: boolean,
  ): void {
    const { corners, x, y, z, v, up } = this;
    const i0 = s * corners + k;
    const j0 = s * corners + next;
    const i1 = i0 + corners;
    const j1 = j0 + corners;
    const x0 = x[s] as number;
    const length = (x[s + 1] as number) - x0;
    const share = to - from;
    const { at, weight } = isLoft ? smooth : exactToCubic;
    for (let p = 0; p < at.length; p++) {
      const t = from + share * (at[p] as number);
      const w = length * share * (weight[p] as number);
      const mix = (list: Float64Array, i: number, j: number) =>
        (list[i] as number) + t * ((list[j] as number) - (list[i] as number));
      let y1 = mix(y, i0, i1);
      let v1 = mix(v, i0, i1) - offset;
      let y2 = mix(y, j0, j1);
      let v2 = mix(v, j0, j1) - offset;
      const z1 = mix(z, i0, i1);
      const z2 = mix(z, j0, j1);
      const sideM = Math.hypot(y2 - y1, z2 - z1);
      let wet = 1;
      // In a sliver of the last digit's width rounding may lift both ends over the surface: dry, not whole.
      if (v1 >= 0 && v2 >= 0) continue;
      if (v1 < 0 !== v2 < 0) {
        const cut = v1 / (v1 - v2);
        const yCut = y1 + cut * (y2 - y1);
        if (v1 < 0) {
          wet = cut;
          y2 = yCut;
          v2 = 0;
          into.surfaceM2 += scale * w * yCut;
        } else {
          wet = 1 - cut;
          y1 = yCut;
          v1 = 0;
          into.surfaceM2 -= scale * w * yCut;
        }
      }
      const dv = v2 - v1;
      const area = scale * dv * ((y1 + y2) / 2);
      const yMoment = (scale * dv * (y1 * y1 + y1 * y2 + y2 * y2)) / 6;
      const vMoment = (scale * dv * (y1 * (2 * v1 + v2) + y2 * (v1 + 2 * v2))) / 6;
      const xHere = x0 + length * t;
      into.volumeM3 += w * area;
      into.xM4 += w * area * xHere;
      into.yM4 += w * yMoment;
      into.zM4 += (w * (vMoment + (offset - up[0] * xHere) * area - up[1] * yMoment)) / up[2];
      into.wettedM2 += sign * w * wet * sideM * this.stretch(i0, j0, i1, j1, length);
    }
  }

  /** Wall per length of side and of x: more than 1 where the side leans along x. */
  private stretch(i0: number, j0: number, i1: number, j1: number, length: number): number {
    const { y, z } = this;
    const half = (list: Float64Array, i: number, j: number) =>
      ((list[i] as number) + (list[j] as number)) / 2;
    const dy = half(y, i1, j1) - half(y, i0, j0);
    const dz = half(z, i1, j1) - half(z, i0, j0);
    const sy = half(y, j0, j1) - half(y, i0, i1);
    const sz = half(z, j0, j1) - half(z, i0, i1);
    const side = Math.hypot(sy, sz);
    if (!(side > 0)) return 1;
    return Math.hypot(1, (dy * sz - dz * sy) / (side * length));
  }

  /** Wet area of an end wall. */
  private addEnd(s: number, offset: number, sign: number, into: Below): void {
    const { corners, y, v, up, solid } = this;
    let area = 0;
    for (let k = 0; k < corners; k++) {
      const i = s * corners + k;
      const j = s * corners + (k + 1 === corners ? 0 : k + 1);
      let [y1, v1] = [y[i] as number, (v[i] as number) - offset];
      let [y2, v2] = [y[j] as number, (v[j] as number) - offset];
      if (v1 >= 0 && v2 >= 0) continue;
      if (v1 < 0 !== v2 < 0) {
        const cut = y1 + (v1 / (v1 - v2)) * (y2 - y1);
        if (v1 < 0) [y2, v2] = [cut, 0];
        else [y1, v1] = [cut, 0];
      }
      area += ((y1 + y2) / 2) * (v2 - v1);
    }
    into.wettedM2 += (sign * solid.sense * area) / up[2];
  }
}

/** Under this difference of height from end to end, the closed form would take the difference of two like numbers. */
const NEARLY_LEVEL_M = 1e-6;

/** A side whose ends differ less in height lies level: its slope would be a quotient of last digits. */
const LEVEL_SIDE_M = 1e-15;

/**
 * A prism's volume in closed form. With h the surface's height less what x adds, a side's share E(h) grows as a
 * quadratic in h between its ends' heights and stands outside them; the sum over x is F(h) at the two ends, divided
 * by the slope, F the integral of E.
 */
class TiltedPrism extends TiltedRuled {
  private readonly span: number;
  private readonly slope: number;
  private e = 0;
  private f = 0;

  constructor(solid: RuledSolid, up: Up) {
    super(solid, up);
    this.span = (this.x[1] as number) - (this.x[0] as number);
    this.slope = up[0];
  }

  addVolume(offset: number, sign: 1 | -1, into: Below): void {
    if (!(offset > this.low)) return;
    const { slope, span, solid, up } = this;
    const fall = slope * span;
    if (Math.abs(fall) < NEARLY_LEVEL_M && fall !== 0) {
      this.addBelow(offset, sign, into);
      return;
    }
    // Heights in `v` hold what x adds at the first end.
    const scale = (sign * solid.sense) / up[2];
    this.sumTo(offset);
    if (fall === 0) {
      into.volumeM3 += scale * span * this.e;
      into.surfaceM2 += scale * span * this.widthAt(offset);
      return;
    }
    const [e0, f0] = [this.e, this.f];
    this.sumTo(offset - fall);
    into.volumeM3 += (scale * (f0 - this.f)) / slope;
    into.surfaceM2 += (scale * (e0 - this.e)) / slope;
  }

  /** E and F of the whole outline up to a height. */
  private sumTo(h: number): void {
    const { corners, y, v } = this;
    let e = 0;
    let f = 0;
    for (let k = 0; k < corners; k++) {
      const next = k + 1 === corners ? 0 : k + 1;
      const va = v[k] as number;
      const vb = v[next] as number;
      const rises = va < vb;
      const low = rises ? va : vb;
      const rise = rises ? vb - va : va - vb;
      if (h <= low || rise < LEVEL_SIDE_M) continue;
      const yLow = (rises ? y[k] : y[next]) as number;
      const yHigh = (rises ? y[next] : y[k]) as number;
      const up = h - low;
      const d = up < rise ? up : rise;
      const half = (yHigh - yLow) / rise / 2;
      let side = d * (yLow + half * d);
      let sum = d * d * (yLow / 2 + (half * d) / 3);
      if (up > rise) sum += side * (up - rise);
      if (!rises) {
        side = -side;
        sum = -sum;
      }
      e += side;
      f += sum;
    }
    this.e = e;
    this.f = f;
  }

  /** Width of the section at a height: the slope of E. */
  private widthAt(h: number): number {
    const { corners, y, v } = this;
    let width = 0;
    for (let k = 0; k < corners; k++) {
      const next = k + 1 === corners ? 0 : k + 1;
      const [va, vb] = [v[k] as number, v[next] as number];
      if (va < h === vb < h || Math.abs(vb - va) < LEVEL_SIDE_M) continue;
      const at = (y[k] as number) + ((h - va) / (vb - va)) * ((y[next] as number) - (y[k] as number));
      width += va < vb ? at : -at;
    }
    return width;
  }
}
