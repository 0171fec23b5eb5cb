/**
 * Round solids: cylinders along an axis, with flat ends or ends dished as half of an ellipsoid of revolution.
 *
 * Cut across its axis it is a circle; what lies under the surface there is a segment of half-angle theta from the
 * lowest point: area r^2 (theta - sin theta cos theta), first moment -2/3 r^3 sin^3 theta (any handbook of mensuration).
 * Along the axis the sum is taken over theta where the wall is straight (the integrand is then smooth to the last
 * digit), and over the ellipse's own angle in a dished end, between the places where the surface touches the wall.
 */
import type { Up } from "./attitude";
import { gaussLegendre } from "./gauss";
import type { Below, Solid, Tilted } from "./solid";

export type Axis = "x" | "y" | "z";

export interface RoundSpec {
  readonly axis: Axis;
  readonly radiusM: number;
  readonly lengthM: number;
  /** How far each dished end stands out beyond the length; 0 is flat. */
  readonly endDepthM: number;
  /** Centre of the first end's circle, tank frame. */
  readonly centre: readonly [number, number, number];
}

const rule = gaussLegendre(24);
const axes: readonly Axis[] = ["x", "y", "z"];
/** Under this the surface lies square to the axis. */
const SQUARE = 1e-12;
/** A change of theta under this is taken as none: the segment changes by less than 1e-12 of the circle over it. */
const SAME_THETA = 1e-6;

export class RoundSolid implements Solid {
  constructor(readonly spec: RoundSpec) {}
  tilt(up: Up): Tilted {
    return new TiltedRound(this.spec, up);
  }
}

class TiltedRound implements Tilted {
  readonly low: number;
  readonly high: number;
  /** Component of the vertical along the axis, and across it. */
  private readonly along: number;
  private readonly across: number;
  private readonly base: number;
  private readonly axisIndex: number;
  private readonly others: readonly [number, number];

  constructor(
    private readonly spec: RoundSpec,
    private readonly up: Up,
  ) {
    const i = axes.indexOf(spec.axis);
    this.axisIndex = i;
    this.others = [0, 1, 2].filter((k) => k !== i) as [number, number];
    this.along = up[i] as number;
    this.across = Math.hypot(up[this.others[0]] as number, up[this.others[1]] as number);
    const { centre, lengthM, radiusM, endDepthM } = spec;
    this.base = up[0] * centre[0] + up[1] * centre[1] + up[2] * centre[2];
    const far = this.base + this.along * lengthM;
    const reach = Math.hypot(this.across * radiusM, this.along * endDepthM);
    this.low = Math.min(this.base, far) - reach;
    this.high = Math.max(this.base, far) + reach;
  }

  addBelow(offset: number, sign: 1 | -1, into: Below): void {
    if (!(offset > this.low)) return;
    const { lengthM, endDepthM, radiusM } = this.spec;
    this.addStraight(offset, sign, into);
    if (endDepthM > 0) {
      this.addDished(offset, sign, into, 0, -1);
      this.addDished(offset, sign, into, lengthM, 1);
    } else {
      for (const s of [0, lengthM]) into.wettedM2 += sign * this.segment(offset, s, radiusM).area;
    }
  }

  /** Half-angle of the wet segment at a place along the axis: 0 dry, pi full. */
  private theta(offset: number, s: number, radius: number): number {
    const over = offset - this.base - this.along * s;
    if (this.across < SQUARE) return over > 0 ? Math.PI : 0;
    const h = over / (this.across * radius);
    return h >= 1 ? Math.PI : h <= -1 ? 0 : Math.acos(-h);
  }

  private segment(offset: number, s: number, radius: number): { area: number; theta: number } {
    const theta = this.theta(offset, s, radius);
    return { area: radius * radius * (theta - Math.sin(theta) * Math.cos(theta)), theta };
  }

  /** Adds a slice of thickness `ds` whose segment has half-angle `theta`; `wall` is wall per length of axis. */
  private addSlice(
    s: number,
    radius: number,
    theta: number,
    ds: number,
    wall: number,
    sign: number,
    into: Below,
  ): void {
    const { spec, up, across, axisIndex, others } = this;
    const sine = Math.sin(theta);
    const area = radius * radius * (theta - sine * Math.cos(theta));
    const volume = sign * area * ds;
    const lean = sign * ds * (-2 / 3) * (radius * sine) ** 3;
    const moment = [0, 0, 0];
    moment[axisIndex] = volume * ((spec.centre[axisIndex] as number) + s);
    for (const k of others) {
      const share = across < SQUARE ? 0 : (up[k] as number) / across;
      moment[k] = volume * (spec.centre[k] as number) + lean * share;
    }
    into.volumeM3 += volume;
    into.xM4 += moment[0] as number;
    into.yM4 += moment[1] as number;
    into.zM4 += moment[2] as number;
    into.wettedM2 += sign * 2 * theta * radius * wall * ds;
    if (across >= SQUARE) into.surfaceM2 += (sign * 2 * radius * sine * ds) / across;
  }

  private addStraight(offset: number, sign: number, into: Below): void {
    const { lengthM, radiusM } = this.spec;
    const { along, across, base } = this;
    const cuts = [0, lengthM];
    if (Math.abs(along) > SQUARE) {
      for (const side of across < SQUARE ? [0] : [-1, 1]) {
        const s = (offset - base - side * across * radiusM) / along;
        if (s > 0 && s < lengthM) cuts.push(s);
      }
      if (
        across < SQUARE &&
        offset > base + Math.min(0, along * lengthM) &&
        offset < base + Math.max(0, along * lengthM)
      )
        into.surfaceM2 += (sign * Math.PI * radiusM * radiusM) / Math.abs(along);
    }
    cuts.sort((a, b) => a - b);
    for (let i = 1; i < cuts.length; i++) {
      const [from, to] = [cuts[i - 1] as number, cuts[i] as number];
      const middle = this.theta(offset, (from + to) / 2, radiusM);
      if (!(to > from) || middle === 0) continue;
      if (middle === Math.PI) this.addSlice((from + to) / 2, radiusM, Math.PI, to - from, 1, sign, into);
      else this.addCut(offset, from, to, sign, into);
    }
  }

  /** A length of straight wall that the surface cuts throughout. */
  private addCut(offset: number, from: number, to: number, sign: number, into: Below): void {
    const { radiusM } = this.spec;
    const start = this.theta(offset, from, radiusM);
    const change = this.theta(offset, to, radiusM) - start;
    if (Math.abs(change) < SAME_THETA) {
      const middle = this.theta(offset, (from + to) / 2, radiusM);
      this.addSlice((from + to) / 2, radiusM, middle, to - from, 1, sign, into);
      return;
    }
    const perAngle = (this.across * radiusM) / this.along;
    const over = offset - this.base;
    for (let p = 0; p < rule.at.length; p++) {
      const theta = start + change * (rule.at[p] as number);
      const s = (over + this.across * radiusM * Math.cos(theta)) / this.along;
      const ds = Math.abs(change * perAngle * Math.sin(theta)) * (rule.weight[p] as number);
      this.addSlice(s, radiusM, theta, ds, 1, sign, into);
    }
  }

  /** An end dished outward from `foot`, toward `way` along the axis: s = foot + way d sin phi, r = R cos phi. */
  private addDished(offset: number, sign: number, into: Below, foot: number, way: 1 | -1): void {
    const { radiusM, endDepthM } = this.spec;
    const { along, across, base } = this;
    const over = offset - base - along * foot;
    const lift = along * way * endDepthM;
    const cuts = [0, Math.PI / 2];
    for (const side of [-1, 1]) {
      const reach = Math.hypot(lift, across * radiusM);
      if (!(Math.abs(over) <= reach) || reach === 0) continue;
      const middle = Math.atan2(lift, side * across * radiusM);
      const off = Math.acos(over / reach);
      for (const raw of [middle - off, middle + off]) {
        const phi = raw - 2 * Math.PI * Math.floor((raw + Math.PI) / (2 * Math.PI));
        if (phi > 0 && phi < Math.PI / 2) cuts.push(phi);
      }
    }
    cuts.sort((a, b) => a - b);
    for (let i = 1; i < cuts.length; i++) {
      const from = cuts[i - 1] as number;
      const length = (cuts[i] as number) - from;
      if (!(length > 0)) continue;
      for (let p = 0; p < rule.at.length; p++) {
        // Smoothed at both ends, where the surface touches the wall and a segment starts as the power 3/2.
        const t = rule.at[p] as number;
        const phi = from + length * t * t * (3 - 2 * t);
        const dPhi = length * 6 * t * (1 - t) * (rule.weight[p] as number);
        const radius = radiusM * Math.cos(phi);
        const s = foot + way * endDepthM * Math.sin(phi);
        const theta = this.theta(offset, s, radius);
        if (theta === 0) continue;
        const ds = endDepthM * Math.cos(phi) * dPhi;
        const wall = Math.hypot(1, (radiusM * Math.sin(phi)) / (endDepthM * Math.cos(phi)));
        this.addSlice(s, radius, theta, ds, wall, sign, into);
      }
    }
  }
}
