/**
 * A tank that comes down for the work: lightened to what its means lift, what is fast to it undone in the order that it
 * is reached, lowered a hand's breadth and then down, opened and closed, and all of it back again. What was kept in the
 * plan is undone and redone with it.
 */
import { fuelAt } from "../fuel/fuel";
import type { Id } from "../kinds/record";
import { placedPorts, portKey } from "../plan/ports";
import { runGeometry } from "../plan/route";
import type { Job, Plan, PortRef, Tank } from "../plan/types";
import { drainFirstM3, liftingKg, tankWeight } from "../tanks/weight";
import { areaM2 } from "../units/bore";
import { at, type Fact, type Verb } from "./facts";
import { drained } from "./litres";
import type { StepMaker } from "./maker";

/** What is fast to a tank beside its hoses, and by when it is reached. */
interface Fast {
  id: Id;
  /** From below or the side while it hangs, or only once it is a hand's breadth down. */
  isInReach: boolean;
  /** What must be so before it is undone. */
  pre: Fact[];
}

/** A line that is led anew comes off and is laid by steps of its own. */
function fastTo(maker: StepMaker, tank: Tank, plan: Plan): Fast[] {
  const own = (tank.attachments ?? []).map(({ id, kind }) => ({
    id,
    isInReach: kind !== "connector" && kind !== "earth",
    pre: [],
  }));
  const kept = (plan.tankLines ?? []).filter(
    (line) => line.tank === tank.id && !maker.steps.has(`hoseOut:${line.id}`),
  );
  return [...own, ...kept.map((line) => ({ id: line.id, isInReach: true, pre: maker.tankLineSafe(line) }))];
}

/** What runs out of a hose when its end at the tank is opened, m3. */
function outM3(job: Job, plan: Plan, ref: PortRef): number {
  const run = plan.runs.find(({ from, to }) => [from, to].some((one) => portKey(one) === portKey(ref)));
  if (!run) return 0;
  const ports = placedPorts(job, plan);
  const [from, to] = [ports.get(portKey(run.from)), ports.get(portKey(run.to))];
  if (!from || !to) return 0;
  const side = portKey(run.from) === portKey(ref) ? "from" : "to";
  return drained(runGeometry(run, from, to).profile, areaM2(run.boreM), [side]).outM3;
}

/** What must go before a tank can be lowered by its means, m3; nothing where no means or no density is known. */
function lightenedM3(job: Job, plan: Plan, tank: Tank): number {
  const state = fuelAt(job.fuel, plan.conditions.fuelC);
  if (!state || tank.droppedBy === undefined) return 0;
  const weight = tankWeight(tank, plan.conditions.aboardM3[tank.id] ?? 0, state.densityKgM3);
  return drainFirstM3(weight, liftingKg[tank.droppedBy], state.densityKgM3);
}

/** Every hose and fitting at a thing's ports, kept ones too: undone before it moves, and joined when it is back. */
export function hosesOff(
  maker: StepMaker,
  job: Job,
  before: Plan,
  after: Plan,
  id: Id,
  reached: Fact,
): { opened: Fact[]; on(back: Fact): Fact[] } {
  const joinedIn = (plan: Plan) =>
    [
      ...plan.runs.map(({ id: withId, from, to }) => ({ from, to, withId })),
      ...plan.joints.map(({ from, to }) => ({ from, to, withId: from.part === id ? to.part : from.part })),
    ].flatMap(({ from, to, withId }) =>
      [from, to].flatMap((ref) => (ref.part === id ? [{ ref, withId }] : [])),
    );
  /** The step that gives a port a value already, as it does where the plan changes there. */
  const makerOf = (key: string, value: string) =>
    [...maker.steps.values()].find(({ post }) =>
      post.some((one) => one.fact === `port.${key}` && one.value === value),
    );
  const opened = joinedIn(before).map(({ ref }) => {
    const key = portKey(ref);
    const step = makerOf(key, "open") ?? maker.undo(before, ref, outM3(job, before, ref));
    maker.add(step.id, { pre: [reached] });
    return at(`port.${key}`, "open");
  });
  const on = (back: Fact) =>
    joinedIn(after).map(({ ref, withId }) => {
      const key = portKey(ref);
      const made = makerOf(key, "tight");
      if (made) maker.add(made.id, { pre: [back] });
      else maker.join(withId, ref, [back], null);
      return at(`port.${key}`, "tight");
    });
  return { opened, on };
}

export function takeDown(maker: StepMaker, job: Job, before: Plan, after: Plan, tank: Tank): void {
  const { id } = tank;
  const fact = `tank.${id}`;
  const of = [id];
  const place = "tanks";
  const tankStep = (verb: Verb, pre: Fact[], value: string) =>
    maker.step(verb, id, { of, place, pre, post: [at(fact, value)] });
  maker.fact(fact, "up");

  const litres = lightenedM3(job, before, tank);
  const light = litres > 0 ? [maker.drainTank(tank, litres)] : [];
  const fast = fastTo(maker, tank, before);
  const off = (one: Fast, pre: Fact[]) => {
    maker.fact(`fast.${one.id}`, "on");
    const post = [at(`fast.${one.id}`, "off")];
    maker.step("unfasten", one.id, { of: [one.id, id], place, pre: [...pre, ...one.pre], post });
    return at(`fast.${one.id}`, "off");
  };
  const first = fast.filter(({ isInReach }) => isInReach).map((one) => off(one, maker.safe(place)));
  const ledAnew = (plan: Plan, verb: Verb) =>
    (plan.tankLines ?? []).flatMap((line) => {
      const step = line.tank === id ? maker.steps.get(`${verb}:${line.id}`) : undefined;
      return step ? [step] : [];
    });
  const out = ledAnew(before, "hoseOut").flatMap(({ post }) => post);
  tankStep("handDown", [...maker.safe(place), ...light, ...first, ...out, at(fact, "up")], "loose");
  const then = fast.filter(({ isInReach }) => !isInReach).map((one) => off(one, [at(fact, "loose")]));

  const hangsIn = (plan: Plan) => (part: Plan["parts"][number]) =>
    part.kind === "inTankPump" &&
    [...plan.joints, ...plan.runs].some(
      ({ from, to }) =>
        [from, to].some((one) => one.part === id) && [from, to].some((one) => one.part === part.id),
    );
  // A pump that hangs in it stays in it: its plug, on the tank's top, would tear.
  const kept = after.parts.filter((part) => hangsIn(before)(part) && !maker.steps.has(`partOut:${part.id}`));
  const unplugged = kept.map((part) => {
    const plug = `plug.${part.id}`;
    maker.fact(plug, "on");
    const pre = [maker.batteryOff(), at(fact, "loose"), at(plug, "on")];
    maker.step("unplug", part.id, { of: [part.id], place, pre, post: [at(plug, "off")] });
    return at(plug, "off");
  });
  const hoses = hosesOff(maker, job, before, after, id, at(fact, "loose"));
  tankStep("tankDown", [at(fact, "loose"), ...then, ...unplugged, ...hoses.opened], "down");
  // What hangs in it goes out and in through its top, where hands get at it only now.
  for (const part of before.parts.filter(hangsIn(before)))
    if (maker.steps.has(`partOut:${part.id}`)) maker.add(`partOut:${part.id}`, { pre: [at(fact, "down")] });
  const hung = after.parts.filter((part) => hangsIn(after)(part) && maker.steps.has(`fixPart:${part.id}`));
  for (const part of hung) maker.add(`fixPart:${part.id}`, { pre: [at(fact, "down")] });
  const unit = `unit.${id}`;
  maker.fact(unit, "shut");
  maker.step("unitOpen", id, {
    of,
    place,
    pre: [at(fact, "down"), at(unit, "shut")],
    post: [at(unit, "open")],
  });
  maker.step("unitShut", id, { of, place, pre: [at(unit, "open")], post: [at(unit, "resealed")] });
  tankStep(
    "handUp",
    [at(fact, "down"), at(unit, "resealed"), ...hung.map((part) => at(`part.${part.id}`, "fixed"))],
    "raised",
  );

  const on = (one: Fast, pre: Fact[]) => {
    maker.step("refasten", one.id, {
      of: [one.id, id],
      place,
      pre: [at(`fast.${one.id}`, "off"), ...pre],
      post: [at(`fast.${one.id}`, "refast")],
    });
    return at(`fast.${one.id}`, "refast");
  };
  const plugged = fast.filter(({ isInReach }) => !isInReach).map((one) => on(one, [at(fact, "raised")]));
  const tight = hoses.on(at(fact, "raised"));
  const replugged = kept.map((part) => {
    const plug = `plug.${part.id}`;
    const pre = [at(plug, "off"), at(fact, "raised")];
    maker.step("plugIn", part.id, { of: [part.id], place, pre, post: [at(plug, "in")] });
    return at(plug, "in");
  });
  tankStep("tankUp", [at(fact, "raised"), ...plugged, ...replugged, ...tight], "fixed");
  const fastened = fast.filter(({ isInReach }) => isInReach).map((one) => on(one, [at(fact, "fixed")]));
  for (const { id: lay } of ledAnew(after, "lay")) maker.add(lay, { pre: [at(fact, "fixed")] });
  const fill = `fill:${id}`;
  if (maker.steps.has(fill)) maker.add(fill, { pre: [at(fact, "fixed"), ...fastened] });
}
