/**
 * Links whose law hangs on what the solve finds: a regulator that holds the pressure after it, a dosing pump that
 * brings metered fuel to an open burner, a jet whose throat follows its nozzle. Each is put right between solves,
 * until nothing moves. Where only draws lie beyond, flows are given and the pressures there are shifted at once; else
 * the constant is found by secants.
 */
import { headPa } from "../fuel/fuel";
import { nozzlePerFlow2, riseWeights } from "../laws/jetPump";
import type { Adjusted } from "../network/links/link";
import type { Settings } from "../network/settings";
import type { FlowState } from "../solver/newton";

/** Two regulators in a row on a resistive load have needed 9. */
export const MOST_ADJUSTMENTS = 60;
/** A held pressure this near is held, Pa. */
const HELD_PA = 0.05;
/** A nozzle whose flow moved less than this share drives the throat as it did. */
const SAME_FLOW = 1e-7;
/** Of a change of what it holds back, at least this share must show after it. */
const LEAST_ANSWER = 1e-3;
const NO_FLOW_M3S = 1e-10;

interface Tried {
  constant: number;
  missPa: number;
}

export class Adjusters {
  private readonly last: (Tried | null)[];
  private readonly driven: Float64Array;
  /** Links through which fuel is forced whatever they hold back: the pressure after them does not answer. */
  readonly forced = new Set<number>();

  private settings!: Settings;

  constructor(private readonly adjusted: readonly Adjusted[]) {
    this.last = adjusted.map(() => null);
    this.driven = new Float64Array(adjusted.length);
  }

  /** Before the solves of one setting: nothing is known of it yet. */
  begin(settings: Settings): void {
    this.settings = settings;
    this.last.fill(null);
    if (this.forced.size > 0) this.forced.clear();
  }

  /** Before a solve: throats take the flow of their nozzles as it stands. */
  follow(flow: Float64Array): void {
    const { laws, fuel } = this.settings;
    this.adjusted.forEach((one, k) => {
      if (one.kind !== "jet") return;
      const q = Math.max(0, flow[one.nozzle] as number);
      const { own, drawn, mixed } = riseWeights(one.part);
      const jet = fuel.densityKgM3 * nozzlePerFlow2(one.part);
      this.driven[k] = q;
      // -(own Q1^2 + drawn (Q - Q1)^2 - mixed Q^2), the drop along the throat.
      laws.constant[one.index] = -jet * (own + drawn) * q * q;
      laws.linear[one.index] = 2 * jet * drawn * q;
      laws.square[one.index] = jet * (mixed - drawn);
    });
  }

  /** After a solve: sets what is not right yet. False where all is. */
  correct({ flow, potential }: FlowState): boolean {
    const { laws, fuel, posture } = this.settings;
    let moved = false;
    this.adjusted.forEach((one, k) => {
      const constant = laws.constant[one.index] as number;
      if (one.kind === "jet") {
        const q = Math.max(0, flow[one.nozzle] as number);
        if (Math.abs(q - (this.driven[k] as number)) > SAME_FLOW * q + NO_FLOW_M3S) moved = true;
        return;
      }
      if (!((flow[one.index] as number) > NO_FLOW_M3S) && constant <= 0) return;
      const gauge =
        (potential[one.node] as number) - headPa(fuel.densityKgM3, posture.nodeM[one.node] as number);
      // A regulator's droop lies after the place it holds.
      const missPa = gauge + (laws.linear[one.index] as number) * (flow[one.index] as number) - one.gaugePa;
      if (
        this.forced.has(one.index) ||
        Math.abs(missPa) <= HELD_PA ||
        (constant <= one.leastPa && missPa < 0)
      )
        return;
      if (one.beyond) {
        const held = Math.max(one.leastPa, constant + missPa);
        laws.constant[one.index] = held;
        for (const node of one.beyond) potential[node] = (potential[node] as number) - (held - constant);
        return;
      }
      const before = this.last[k];
      this.last[k] = { constant, missPa };
      const slope =
        before && before.constant !== constant ? (missPa - before.missPa) / (constant - before.constant) : -1;
      if (slope > -LEAST_ANSWER) {
        this.forced.add(one.index);
        return;
      }
      const next = Math.max(one.leastPa, constant - missPa / slope);
      if (next === constant) return;
      laws.constant[one.index] = next;
      moved = true;
    });
    return moved;
  }
}
