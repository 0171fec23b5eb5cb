/**
 * What must come away before a thing is reached: covers that are opened and closed, and windows (an engine out, a tank
 * down) into which the work behind them is pulled. A cover is closed when what is behind it was tested and photographed;
 * a hatch stays open until an idling engine was seen.
 */
import type { Id } from "../kinds/record";
import type { Cover, Job, Plan } from "../plan/types";
import { at, type Fact, provingVerbs, type Verb, type WorkStep } from "./facts";
import type { StepMaker } from "./maker";
import { hosesOff, takeDown } from "./tankDown";

/** Done elsewhere than at the thing that they are of. */
const fromAfar: ReadonlySet<Verb> = new Set([...provingVerbs, "fill", "checkIn", "alarm", "waste"]);

/** Covers of both plans: one that both have hides what either says. */
export function coversOf(before: Plan | null, after: Plan): Cover[] {
  const mine = after.covers ?? [];
  const old = before?.covers ?? [];
  const also = new Map(old.map((cover) => [cover.id, cover.hides]));
  return [
    ...mine.map((cover) => ({
      ...cover,
      hides: [...new Set([...cover.hides, ...(also.get(cover.id) ?? [])])],
    })),
    ...old.filter(({ id }) => !mine.some((cover) => cover.id === id)),
  ];
}

/** Steps that are done to what a cover hides. */
function behind(maker: StepMaker, after: Plan, { hides }: Cover): WorkStep[] {
  const hidden = new Set(hides);
  const boards = new Set(
    Object.entries(after.mounted ?? {}).flatMap(([id, { boardId }]) => (hidden.has(id) ? [boardId] : [])),
  );
  return [...maker.steps.values()].filter(
    ({ verb, place, of: [first = ""] }) =>
      place !== "bench" &&
      place !== "safe" &&
      !fromAfar.has(verb) &&
      (hidden.has(first) || boards.has(first)),
  );
}

/** What these steps leave behind for good. */
const made = (maker: StepMaker, steps: readonly WorkStep[]): Fact[] =>
  steps.flatMap(({ post }) => post.filter(({ fact, value }) => maker.wanted.get(fact) === value));

const madeBy = (maker: StepMaker, verb: Verb): Fact[] =>
  [...maker.steps.values()].filter((step) => step.verb === verb).flatMap(({ post }) => post);

function within(maker: StepMaker, cover: Cover, steps: readonly WorkStep[], open: Fact): Fact {
  const { id } = cover;
  // What is joined to the thing that is away is joined when it is back: it is clipped in its place before.
  const later = "of" in cover ? `port.${cover.of}.` : null;
  for (const step of steps) {
    const pre = later === null ? step.pre : step.pre.filter(({ fact }) => !fact.startsWith(later));
    maker.change(step.id, { pre: [...pre, open], within: id });
  }
  const fact = `photoBehind.${id}`;
  maker.fact(fact, "no");
  maker.step("photographBehind", id, {
    of: [id],
    place: steps[0]?.place ?? "line",
    pre: [open, ...made(maker, steps)],
    post: [at(fact, "yes")],
  });
  return at(fact, "yes");
}

/** An engine lifted out, its hoses off, and in again before the battery is on. */
function engineOut(maker: StepMaker, job: Job, before: Plan, after: Plan, cover: Cover, engine: Id): void {
  const fact = `engine.${engine}`;
  const [of, place] = [[engine], "engine"];
  maker.fact(fact, "in");
  const steps = behind(maker, after, cover).filter(({ of: [first] }) => first !== engine);
  const hoses = hosesOff(maker, job, before, after, engine, at(fact, "in"));
  maker.step("engineOut", engine, {
    of,
    place,
    pre: [...maker.safe(place), ...hoses.opened, at(fact, "in")],
    post: [at(fact, "out")],
  });
  const photo = within(maker, cover, steps, at(fact, "out"));
  maker.step("engineIn", engine, { of, place, pre: [at(fact, "out"), photo], post: [at(fact, "back")] });
  hoses.on(at(fact, "back"));
}

/** Windows into which work is pulled: made before the proving, which needs all that is joined in them. */
export function openWindows(maker: StepMaker, job: Job, before: Plan | null, after: Plan): void {
  if (!before) return;
  for (const cover of coversOf(before, after)) {
    if (!("of" in cover)) continue;
    const steps = behind(maker, after, cover);
    if (steps.length === 0) continue;
    if (cover.kind === "engineOut") {
      engineOut(maker, job, before, after, cover, cover.of);
      continue;
    }
    const tank = job.tanks.find(({ id }) => id === cover.of);
    if (!tank) continue;
    if (!maker.steps.has(`tankDown:${tank.id}`)) takeDown(maker, job, before, after, tank);
    const photo = within(maker, cover, steps, at(`tank.${tank.id}`, "down"));
    maker.add(`handUp:${tank.id}`, { pre: [photo] });
  }
}

/** Covers that are opened, and closed when all was looked at. */
export function openCovers(maker: StepMaker, before: Plan | null, after: Plan): void {
  for (const cover of coversOf(before, after)) {
    if ("of" in cover) continue;
    const steps = behind(maker, after, cover);
    if (steps.length === 0) continue;
    const { id, kind } = cover;
    const fact = `cover.${id}`;
    const [of, place] = [[id], steps[0]?.place ?? "line"];
    maker.fact(fact, "closed");
    maker.step("openCover", id, { of, place, pre: [at(fact, "closed")], post: [at(fact, "open")] });
    const photo = within(maker, cover, steps, at(fact, "open"));
    const tested = [...madeBy(maker, "look"), ...(kind === "hatch" ? madeBy(maker, "idle") : [])];
    const pre = [at(fact, "open"), photo, ...tested];
    maker.step("closeCover", id, { of, place, pre, post: [at(fact, "shut")] });
  }
}
