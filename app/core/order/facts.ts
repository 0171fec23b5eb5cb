/**
 * Work as facts. A step needs facts to have a value and gives facts a value; which step goes before which follows from
 * that alone: a need 'fact = value' goes after the step that makes the value and before the one that ends it.
 */
import type { Id } from "../kinds/record";
import { inNeed, type TimedStep } from "./schedule";

/** From the line-up that is set to the second look: done at no one part. */
export const provingVerbs = [
  "setLineUp",
  "power",
  "bleed",
  "look",
  "baseline",
  "start",
  "idle",
  "load",
  "runDown",
  "lookAgain",
] as const;

export const verbs = [
  "batteryOff",
  "extinguisher",
  "ventilate",
  "support",
  "eyes",
  "pan",
  "photograph",
  "swapPan",
  "openCover",
  "photographBehind",
  "closeCover",
  "engineOut",
  "engineIn",
  "shutOff",
  "unfasten",
  "handDown",
  "tankDown",
  "unitOpen",
  "unitShut",
  "handUp",
  "tankUp",
  "refasten",
  "drainTank",
  "drainBowl",
  "closeDrain",
  "undo",
  "cap",
  "unplug",
  "tapeSpare",
  "blow",
  "hoseOut",
  "partOut",
  "emptyTank",
  "tankFitting",
  "swarf",
  "setTank",
  "cutHole",
  "careEdge",
  "checkIn",
  "fixPart",
  "boardPart",
  "boardUp",
  "element",
  "cutHose",
  "makeEnds",
  "cutTube",
  "formEnds",
  "lay",
  "clip",
  "join",
  "wire",
  "exhaust",
  "combustionAir",
  "alarm",
  "plugIn",
  "fill",
  "batteryOn",
  ...provingVerbs,
  "waste",
] as const;
export type Verb = (typeof verbs)[number];

export interface Fact {
  fact: string;
  value: string;
}

export interface WorkStep extends TimedStep {
  /** `verb:object`, the same over derivations and devices. */
  id: string;
  verb: Verb;
  /** Parts, tanks, runs or line-ups that it is done to; the first is its object. */
  of: readonly Id[];
  /** A port of the first of them. */
  port?: Id;
  pre: readonly Fact[];
  post: readonly Fact[];
  /** What comes out into the pan; sure, by gravity, m3. */
  litresM3: number;
  /** The cover that it is done behind, or the window that it is done in. */
  within?: Id;
}

export type Facts = ReadonlyMap<string, string>;

export const at = (fact: string, value: string): Fact => ({ fact, value });

export type Ordered =
  | { outcome: "order"; steps: WorkStep[] }
  | { outcome: "nothing" }
  /** Steps that need each other in a ring. */
  | { outcome: "cannotBeOrdered"; ids: string[] }
  /** Facts that no step makes and that were not found so. */
  | { outcome: "neverTrue"; needs: { id: string; fact: string; value: string }[] };

/** Gives every step its needs, and all of them an order that keeps these. */
export function ordered(steps: readonly WorkStep[], found: Facts): Ordered {
  if (steps.length === 0) return { outcome: "nothing" };
  const makers = new Map<string, WorkStep[]>();
  for (const step of steps)
    for (const { fact } of step.post) makers.set(fact, [...(makers.get(fact) ?? []), step]);
  const needs = new Map(steps.map(({ id, needs: own }) => [id, new Set(own)]));
  const never: { id: string; fact: string; value: string }[] = [];
  const valueOf = (step: WorkStep, fact: string) => step.post.find((one) => one.fact === fact)?.value;
  for (const step of steps) {
    for (const { fact, value } of step.pre) {
      const all = (makers.get(fact) ?? []).filter((one) => one !== step);
      const making = all.filter((one) => valueOf(one, fact) === value);
      if (making.length === 0 && found.get(fact) !== value) {
        never.push({ id: step.id, fact, value });
        continue;
      }
      for (const maker of making) needs.get(step.id)?.add(maker.id);
      // Whoever gives it another value later ends it: that comes after this step.
      const first = all.filter((one) => valueOf(one, fact) !== value);
      for (const ender of first)
        if (endsIt(fact, value, ender, found, all)) needs.get(ender.id)?.add(step.id);
    }
  }
  if (never.length > 0) return { outcome: "neverTrue", needs: never };
  const needing = steps.map((step) => ({ ...step, needs: [...(needs.get(step.id) ?? [])] }));
  const order = inNeed(needing);
  if (order) return { outcome: "order", steps: order };
  return { outcome: "cannotBeOrdered", ids: inRing(needing) };
}

/** A chain of values runs one way: a step ends a value if it comes after it in the chain. */
function endsIt(
  fact: string,
  value: string,
  ender: WorkStep,
  found: Facts,
  all: readonly WorkStep[],
): boolean {
  const own = ender.pre.find((one) => one.fact === fact)?.value;
  if (own === value) return true;
  if (own !== undefined) {
    // It goes on from a later value: whether that comes after this one is asked of the chain.
    const before = all.find((one) => one.post.some((post) => post.fact === fact && post.value === own));
    return (
      before !== undefined &&
      before !== ender &&
      endsIt(
        fact,
        value,
        before,
        found,
        all.filter((one) => one !== ender),
      )
    );
  }
  return found.get(fact) === value;
}

/** Steps that a ring is made of: what is left when all that can be ordered is. */
function inRing(steps: readonly WorkStep[]): string[] {
  let left = [...steps];
  for (;;) {
    const ids = new Set(left.map(({ id }) => id));
    const next = left.filter(({ needs }) => needs.some((need) => ids.has(need)));
    const needed = new Set(next.flatMap(({ needs }) => needs));
    const both = next.filter(({ id }) => needed.has(id));
    if (both.length === left.length) return left.map(({ id }) => id);
    left = both;
  }
}

/** Facts as they are when these steps are done, in this order. */
export function factsAfter(found: Facts, done: readonly WorkStep[]): Map<string, string> {
  const now = new Map(found);
  for (const { post } of done) for (const { fact, value } of post) now.set(fact, value);
  return now;
}

/** What keeps a step from being done now: its facts that are not so, in the order of its needs. */
export const unmet = (step: WorkStep, now: Facts): Fact[] =>
  step.pre.filter(({ fact, value }) => now.get(fact) !== value);
