/** Where the work stands, by the book: what is done, what is undone until it is redone, what is next and what holds it. */
import { type Book, entriesOf, type HoldAside } from "../book/entries";
import type { Id } from "../kinds/record";
import type { Cover, Job, Plan } from "../plan/types";
import { coversOf } from "./covers";
import { type Derived, derive } from "./derive";
import { type Fact, factsAfter, type Ordered, ordered, unmet, type WorkStep } from "./facts";
import { bodiesAt } from "./minutes";
import { criticalWay, type Slot, schedule } from "./schedule";

/** One thing that is neither as it was found nor as it is to be. */
export interface Undone extends Fact {
  /** The step that undid it, and the one that will redo it; null where the plan has none. */
  undidBy: string;
  redoneBy: string | null;
}

export interface Held {
  step: WorkStep;
  /** What is not so yet, the nearest first; what was set aside is left out. */
  holds: Fact[];
}

export interface Progress {
  outcome: Ordered["outcome"];
  /** What cannot be ordered, or is never true. */
  fault: Exclude<Ordered, { outcome: "order" | "nothing" }> | null;
  /** In an order that keeps the needs. */
  steps: WorkStep[];
  done: ReadonlySet<string>;
  /** Steps ticked that the plan, as it is now, does not want. */
  noLongerWanted: string[];
  asides: HoldAside[];
  ledger: Undone[];
  /** What holds each step that is left; nothing where it can be done now. */
  holds: ReadonlyMap<string, Fact[]>;
  next: Held | null;
  /** Can be done now, in this order. */
  now: WorkStep[];
  /** In the order that a day goes; places without a step are left out. */
  byPlace: AtPlace[];
  /** Ports that are made, by their keys. */
  tight: ReadonlySet<string>;
  /** Parts that are gone whose plugs were taped: named until hand-over. */
  taped: Id[];
  /** What lies behind covers that are closed. */
  hidden: ReadonlySet<Id>;
  covers: Cover[];
}

export interface AtPlace {
  place: string;
  steps: WorkStep[];
  left: WorkStep[];
  /** Of hands, for what is left. */
  leftMin: number;
  /** What comes into the pans there by what is left, m3. */
  leftM3: number;
}

const day = ["safe", "bench", "tanks", "board", "line", "engine", "test"] as const;

/** Asked for in place of a plan: a new installation. */
export const FROM_NOTHING = "nothing";

/**
 * The plan that a work order starts from; null for a new installation.
 * @param asked its id, or {@link FROM_NOTHING}; where it is absent or gone, what the plan is based on
 */
export function startsFrom(job: Job, plan: Plan, asked?: string | null): Plan | null {
  if (asked === FROM_NOTHING) return null;
  const named = (wanted: Id | null | undefined) =>
    job.plans.find(({ id }) => id === wanted && id !== plan.id);
  return named(asked) ?? named(plan.basedOn) ?? null;
}

/** Steps ticked by the book, in the order they were; a tick taken back is none. */
export function ticked(book: Book, planId: Id): string[] {
  const done = new Map<string, string>();
  for (const { stepId, isDone, planId: own, at } of entriesOf(book, "stepDone")) {
    if (own !== planId) continue;
    done.delete(stepId);
    if (isDone) done.set(stepId, at);
  }
  return [...done.keys()];
}

export function progressOf(job: Job, before: Plan | null, after: Plan, book: Book): Progress {
  const derived: Derived = derive(job, before, after);
  const order = ordered(derived.steps, derived.found);
  const steps = order.outcome === "order" ? order.steps : [];
  const byId = new Map(steps.map((step) => [step.id, step]));
  const marks = ticked(book, after.id);
  const done = marks.flatMap((id) => byId.get(id) ?? []);
  const isDone = new Set(done.map(({ id }) => id));
  const now = factsAfter(derived.found, done);
  const covers = coversOf(before, after);
  const asides = entriesOf(book, "holdAside").filter(
    ({ planId, stepId }) => planId === after.id && byId.has(stepId),
  );
  const left = steps.filter(({ id }) => !isDone.has(id));
  // What ends a value waits for every step that still needs it: the valves are not set anew before the pump had power.
  const waitsFor = ({ needs, pre }: WorkStep): Fact[] =>
    needs.flatMap((id) => {
      const need = isDone.has(id) ? undefined : byId.get(id);
      const makes = need?.post.some((one) =>
        pre.some(({ fact, value }) => fact === one.fact && value === one.value),
      );
      return need && !makes ? need.post.slice(0, 1) : [];
    });
  const holdsOf = (step: WorkStep) =>
    [...unmet(step, now), ...waitsFor(step)].filter(
      ({ fact }) => !asides.some((one) => one.stepId === step.id && one.fact === fact),
    );
  const holds = new Map(left.map((step) => [step.id, holdsOf(step)]));
  const ready = left.filter(({ id }) => holds.get(id)?.length === 0);
  // Whoever works stays where the last step was, behind the same cover first, while there is something to do there.
  const last = done.at(-1);
  const next =
    ready.find(({ within }) => within !== undefined && within === last?.within) ??
    ready.find(({ place }) => place === last?.place) ??
    ready[0] ??
    left[0];
  return {
    outcome: order.outcome,
    fault: order.outcome === "order" || order.outcome === "nothing" ? null : order,
    steps,
    done: isDone,
    noLongerWanted: marks.filter((id) => !byId.has(id)),
    asides,
    ledger: ledgerOf(derived, steps, done, now),
    holds,
    next: next ? { step: next, holds: holds.get(next.id) ?? [] } : null,
    now: ready,
    byPlace: day.flatMap((place): AtPlace[] => {
      const mine = steps.filter((step) => step.place === place);
      const open = mine.filter(({ id }) => !isDone.has(id));
      if (mine.length === 0) return [];
      const sum = (of: (step: WorkStep) => number) => open.reduce((all, step) => all + of(step), 0);
      const [leftMin, leftM3] = [sum(({ workMin }) => workMin), sum(({ litresM3 }) => litresM3)];
      return [{ place, steps: mine, left: open, leftMin, leftM3 }];
    }),
    taped: idsAt(now, "plug", "taped"),
    hidden: hiddenBy(covers, now),
    covers,
    tight: new Set(idsAt(now, "port", "tight")),
  };
}

/** Things of which a fact has a value now. */
const idsAt = (now: ReadonlyMap<string, string>, kind: string, value: string): Id[] =>
  [...now].flatMap(([fact, own]) =>
    fact.startsWith(`${kind}.`) && own === value ? [fact.slice(kind.length + 1)] : [],
  );

/** What covers hide that are not open; an engine that is in, and a tank that is up, hide what is behind them. */
function hiddenBy(covers: readonly Cover[], now: ReadonlyMap<string, string>): Set<Id> {
  const isOpen = (cover: Cover) => {
    if (cover.kind === "engineOut") return now.get(`engine.${cover.of}`) === "out";
    if (cover.kind === "tankDown") return now.get(`tank.${cover.of}`) === "down";
    return now.get(`cover.${cover.id}`) === "open";
  };
  return new Set(covers.filter((cover) => !isOpen(cover)).flatMap(({ hides }) => hides));
}

/** What holds a step beyond its turn: what no step before it brings about, and what has still to come. */
export function trulyHeld({ steps, holds }: Progress, step: WorkStep): Fact[] {
  const brought = new Set(
    steps
      .slice(0, steps.indexOf(step))
      .flatMap(({ post }) => post.map(({ fact, value }) => `${fact} ${value}`)),
  );
  return (holds.get(step.id) ?? []).filter(
    ({ fact, value }) => fact.startsWith("here.") || !brought.has(`${fact} ${value}`),
  );
}

/** The step that is still to make a fact what it must be. */
export const makerOf = (
  { steps, done }: Pick<Progress, "steps" | "done">,
  { fact, value }: Fact,
): WorkStep | null =>
  steps.find(
    ({ id, post }) => !done.has(id) && post.some((one) => one.fact === fact && one.value === value),
  ) ?? null;

/** Valves that were shut are set again by the line-up; hoses half made, pans, pictures and goggles are no thing undone. */
const passing =
  /^(run|shut|pan|photo|extinguisher|ventilated|eyes|supported|power|lineUp|bled|looked|baseline|consumer)\b/;

function ledgerOf(
  derived: Derived,
  steps: readonly WorkStep[],
  done: readonly WorkStep[],
  now: ReadonlyMap<string, string>,
): Undone[] {
  const isDone = new Set(done.map(({ id }) => id));
  return [...now].flatMap(([fact, value]): Undone[] => {
    if (passing.test(fact) || value === derived.found.get(fact) || value === derived.wanted.get(fact))
      return [];
    const undidBy = done.findLast(({ post }) => post.some((one) => one.fact === fact));
    if (!undidBy) return [];
    const redone = steps.find(({ id, post }) => !isDone.has(id) && post.some((one) => one.fact === fact));
    return [{ fact, value, undidBy: undidBy.id, redoneBy: redone?.id ?? null }];
  });
}

export interface Hours {
  slots: Slot[];
  finishMin: number;
  critical: ReadonlySet<string>;
}

/** When what is left can be done by so many hands, from now on. */
export function hoursLeft(
  { steps, done, covers }: Pick<Progress, "steps" | "done" | "covers">,
  people: number,
): Hours {
  const left = steps
    .filter(({ id }) => !done.has(id))
    .map((step) => ({
      ...step,
      needs: step.needs.filter((need) => !done.has(need)),
      // Behind a cover so many have room as was told for it.
      place: step.within ?? step.place,
    }));
  const room = Object.fromEntries(covers.map(({ id, bodies }) => [id, bodies ?? 1]));
  const slots = schedule(left, people, { ...bodiesAt, ...room }) ?? [];
  return {
    slots,
    finishMin: slots.reduce((last, { doneMin }) => Math.max(last, doneMin), 0),
    critical: new Set(criticalWay(left)?.ids ?? []),
  };
}

export interface UntilDelivery {
  /** What has not come, and the last day it is due where every one has a day. */
  missing: Id[];
  due: string | null;
  /** Of what can be done before it comes, and of what is left for then. */
  beforeMin: number;
  afterMin: number;
}

/** How long the work goes on before it stands still for what has not come; null where nothing is awaited. */
export function untilDelivery(progress: Progress, plan: Plan, people: number): UntilDelivery | null {
  const { steps, done } = progress;
  const missing = (plan.awaited ?? []).filter(
    (id) => steps.some((step) => step.id === `checkIn:${id}`) && !done.has(`checkIn:${id}`),
  );
  if (missing.length === 0) return null;
  const held = new Set(missing.flatMap((id) => [`checkIn:${id}`, ...heldUpBy(steps, `checkIn:${id}`)]));
  const free = steps.filter(({ id }) => !held.has(id));
  const all = hoursLeft(progress, people).finishMin;
  const beforeMin = hoursLeft({ ...progress, steps: free }, people).finishMin;
  const days = missing.map((id) => plan.deliveries?.[id]?.due);
  const due = days.every((day) => day !== undefined) ? (days.toSorted().at(-1) ?? null) : null;
  return { missing, due, beforeMin, afterMin: Math.max(0, all - beforeMin) };
}

/** What is awaited and not checked in: how many steps wait for it, and how many can be done meanwhile. */
export function waitingFor(
  { steps, done, now }: Progress,
  awaited: readonly Id[],
): { held: number; free: number } {
  const missing = awaited.map((id) => `checkIn:${id}`).filter((id) => !done.has(id));
  const held = new Set(missing.flatMap((id) => heldUpBy(steps, id)));
  return { held: held.size, free: now.filter(({ verb }) => verb !== "checkIn").length };
}

/** Steps that cannot be done before one is, near or far behind it; of steps that stand in an order of their needs. */
export function heldUpBy(steps: readonly WorkStep[], id: string): string[] {
  const held = new Set([id]);
  for (const step of steps) if (step.needs.some((need) => held.has(need))) held.add(step.id);
  held.delete(id);
  return [...held];
}
