/** Pans that catch what comes out: swapped before they are four fifths full. */
import type { Derived } from "./derive";
import { at, type Fact, ordered, type WorkStep } from "./facts";
import { bareStep } from "./minutes";

/** What a pan holds where nobody said; and how full it may be carried. Assumed; common practice, no source. */
export const PAN_M3 = 0.01;
const CARRIED_FULL = 0.8;

/** What comes of a step into the pan at its place; a tank is drained into cans. */
const intoPanM3 = ({ verb, litresM3 }: WorkStep) => (verb === "drainTank" ? 0 : litresM3);

/** Steps of which one alone gives more than a pan may be carried with. */
export const overPan = (steps: readonly WorkStep[], panM3 = PAN_M3): WorkStep[] =>
  steps.filter((step) => intoPanM3(step) > CARRIED_FULL * panM3);

/**
 * The same work with its swaps. In an order that keeps the needs, what would overfill a pan comes after a swap, and with
 * it all that comes later at that place: no ring can come of that.
 */
export function swapPans(derived: Derived, panM3 = PAN_M3): Derived {
  const mostM3 = CARRIED_FULL * panM3;
  const sums = new Map<string, number>();
  for (const step of derived.steps) sums.set(step.place, (sums.get(step.place) ?? 0) + intoPanM3(step));
  if ([...sums.values()].every((sum) => sum <= mostM3)) return derived;
  const order = ordered(derived.steps, derived.found);
  if (order.outcome !== "order") return derived;
  const now = new Map<string, { pan: number; inM3: number }>();
  const panOf = new Map<string, number>();
  const swaps: WorkStep[] = [];
  const value = (pan: number) => (pan === 1 ? "yes" : String(pan));
  for (const step of order.steps) {
    const { place } = step;
    if (!step.pre.some(({ fact }) => fact === `pan.${place}`)) continue;
    const state = now.get(place) ?? { pan: 1, inM3: 0 };
    const more = intoPanM3(step);
    if (state.inM3 > 0 && state.inM3 + more > mostM3) {
      const fact = `pan.${place}`;
      swaps.push({
        ...bareStep("swapPan"),
        id: `swapPan:${place}.${state.pan + 1}`,
        of: [],
        place,
        pre: [at(fact, value(state.pan))],
        post: [at(fact, value(state.pan + 1))],
      });
      state.pan++;
      state.inM3 = 0;
    }
    state.inM3 += more;
    now.set(place, state);
    panOf.set(step.id, state.pan);
  }
  const steps = derived.steps.map((step) => {
    const pan = panOf.get(step.id) ?? 1;
    return pan === 1
      ? step
      : {
          ...step,
          pre: step.pre.map((one) => (one.fact === `pan.${step.place}` ? at(one.fact, value(pan)) : one)),
        };
  });
  const wanted = new Map(derived.wanted);
  for (const { post } of swaps) for (const one of post) wanted.set(one.fact, one.value);
  return { ...derived, steps: [...steps, ...swaps], wanted };
}

/** What leaves fuel or old parts behind it. */
const leavesWaste = ({ verb, litresM3 }: WorkStep) =>
  litresM3 > 0 || verb === "swapPan" || verb === "hoseOut" || verb === "partOut";

/** The same work, and at its end what came out of it carried off: fuel, rags, old parts. */
export function carryOff(derived: Derived): Derived {
  const came = new Map<string, Fact>();
  for (const step of derived.steps) if (leavesWaste(step)) came.set(step.id, at(`waste.${step.id}`, "there"));
  if (came.size === 0) return derived;
  const found = new Map(derived.found);
  const wanted = new Map(derived.wanted);
  const all = [...came.values()];
  for (const { fact, value } of all) {
    found.set(fact, "none");
    wanted.set(fact, value);
  }
  const steps = derived.steps.map((step) => {
    const fact = came.get(step.id);
    return fact ? { ...step, post: [...step.post, fact] } : step;
  });
  found.set("carriedOff", "no");
  wanted.set("carriedOff", "yes");
  const waste: WorkStep = {
    ...bareStep("waste"),
    id: "waste:main",
    of: [],
    place: "test",
    pre: all,
    post: [at("carriedOff", "yes")],
  };
  return { steps: [...steps, waste], found, wanted };
}
