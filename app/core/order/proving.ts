/** What ends the work: open ports capped, and from power to the second look each line-up in turn. */
import type { Id } from "../kinds/record";
import type { Job, Plan } from "../plan/types";
import { at, type Fact, type Verb } from "./facts";
import type { StepMaker } from "./maker";
import { minutes } from "./minutes";

/** A port left open that nothing is joined to any more is capped: of a tank or of what stays. */
export function capOpen(maker: StepMaker, job: Job, after: Plan): void {
  const stays = (id: Id) => [...job.tanks, ...job.consumers, ...after.parts].some((one) => one.id === id);
  for (const [fact, value] of maker.wanted) {
    if (!fact.startsWith("port.") || value !== "open") continue;
    const key = fact.slice("port.".length);
    const [id = "", port = ""] = key.split(".");
    if (!stays(id)) continue;
    maker.step("cap", key, {
      of: [id],
      port,
      place: maker.placeOf(id),
      pre: [at(fact, "open"), ...maker.owner(id)],
      post: [at(fact, "capped")],
    });
  }
}

/** Everything that fuel behind these things reaches without passing a tank, valves open or shut. */
function reached(job: Job, after: Plan, from: readonly Id[]): Set<Id> {
  const tanks = new Set(job.tanks.map(({ id }) => id));
  const next = new Map<Id, Id[]>();
  const link = (a: Id, b: Id) => next.set(a, [...(next.get(a) ?? []), b]);
  for (const { from: a, to: b } of [...after.runs, ...after.joints]) {
    link(a.part, b.part);
    link(b.part, a.part);
  }
  const seen = new Set<Id>();
  const queue = [...from];
  for (let id = queue.shift(); id !== undefined; id = queue.shift()) {
    if (seen.has(id)) continue;
    seen.add(id);
    if (!tanks.has(id)) queue.push(...(next.get(id) ?? []));
  }
  return seen;
}

/** Whether a tank or consumer is joined to anything in a plan. */
export const joins = (plan: Plan, id: Id) =>
  [...plan.runs, ...plan.joints].some(({ from, to }) => from.part === id || to.part === id);

/**
 * What a heater needs beside its fuel before it burns for the first time: a way out for what it burns, a way in for its
 * air, and a carbon monoxide alarm where people sleep.
 */
function breathes(maker: StepMaker, before: Plan | null, after: Plan, id: Id): Fact[] {
  if ((before && joins(before, id)) || !joins(after, id)) return [];
  const own = (verb: Verb, fact: string, value: string, of: Id[]): Fact => {
    maker.fact(fact, "none");
    maker.step(verb, of[0] ?? "main", {
      of,
      place: "engine",
      pre: verb === "alarm" ? [] : [maker.batteryOff(), ...maker.owner(id)],
      post: [at(fact, value)],
    });
    return at(fact, value);
  };
  return [
    own("exhaust", `exhaust.${id}`, "led", [id]),
    own("combustionAir", `air.${id}`, "led", [id]),
    own("alarm", "alarm", "hung", []),
  ];
}

/** From power to the second look: each line-up that runs with something new on its way, in turn. */
export function prove(maker: StepMaker, job: Job, before: Plan | null, after: Plan): void {
  const has = (verb: Verb) => [...maker.steps.values()].filter((step) => step.verb === verb);
  const made: Fact[] = [
    ...has("join"),
    ...has("cap"),
    ...has("element"),
    ...has("boardUp"),
    ...has("plugIn"),
    ...has("wire"),
    ...has("clip"),
    ...has("fill"),
    ...has("closeDrain"),
    ...has("tankUp"),
    ...has("refasten"),
    ...has("engineIn"),
  ].flatMap(({ post }) => post.slice(-1).concat(post.slice(0, -1)));
  const battery = maker.batteryOff();
  // A tank is filled when all is tight that its fuel reaches.
  const tight = has("join").flatMap(({ post }) => post);
  for (const { id } of has("fill")) maker.add(id, { pre: tight });
  maker.step("batteryOn", "main", {
    of: [],
    place: "safe",
    pre: [battery, ...made.filter(({ fact }) => /^(plug|wire|port|tank|fast|engine|bowl)/.test(fact))],
    post: [at("battery", "on")],
  });
  const touched = reached(
    job,
    after,
    [...has("join"), ...has("element")].flatMap(({ of }) => of),
  );
  const concerned = job.consumers.filter(({ id }) => touched.has(id));
  const runs = after.lineUps.filter(
    ({ purpose, consumers }) => purpose === "run" && concerned.some(({ id }) => consumers[id] === "running"),
  );
  const lineUps = runs.length > 0 ? runs : after.lineUps.slice(0, 1);
  maker.fact("lineUp", "none");
  let set = "none";
  const looked: Fact[] = [];
  const joints = has("join").length;
  maker.fact("power", "off");
  lineUps.forEach(({ id }, i) => {
    maker.step("setLineUp", id, {
      of: [id],
      place: "test",
      pre: [at("lineUp", set), ...made.filter(({ fact }) => /^(port|board)/.test(fact))],
      post: [at("lineUp", id)],
    });
    set = id;
    const power = at("power", "on");
    if (i === 0)
      maker.step("power", "main", {
        of: [id],
        place: "test",
        pre: [at("battery", "on"), at("lineUp", id), ...made],
        post: [power],
      });
    maker.fact(`bled.${id}`, "no");
    maker.step("bleed", id, {
      of: [id],
      place: "test",
      pre: [power, at("lineUp", id)],
      post: [at(`bled.${id}`, "yes")],
    });
    maker.fact(`looked.${id}`, "no");
    maker.step("look", id, {
      of: [id],
      place: "test",
      pre: [power, at("lineUp", id), at(`bled.${id}`, "yes")],
      post: [at(`looked.${id}`, "yes")],
      workMin: minutes.look[0] + joints,
    });
    looked.push(at(`looked.${id}`, "yes"));
  });
  maker.fact("baseline", "no");
  const last = lineUps.at(-1)?.id;
  if (last === undefined) return;
  maker.step("baseline", "main", {
    of: [last],
    place: "test",
    pre: [at("power", "on"), ...looked],
    post: [at("baseline", "yes")],
  });
  for (const { id, kind } of concerned) {
    const isHeater = kind === "heater";
    maker.fact(`consumer.${id}`, "stopped");
    const state = (value: string) => at(`consumer.${id}`, value);
    maker.step("start", id, {
      of: [id],
      place: "engine",
      pre: [
        state("stopped"),
        at("baseline", "yes"),
        at("battery", "on"),
        ...looked,
        ...(isHeater ? breathes(maker, before, after, id) : []),
        ...made.filter(({ fact }) => fact.startsWith("clip")),
      ],
      post: [state("started")],
    });
    maker.step("idle", id, { of: [id], place: "engine", pre: [state("started")], post: [state("idled")] });
    maker.step("load", id, { of: [id], place: "engine", pre: [state("idled")], post: [state("loaded")] });
    // Shut off by its own controller, its fan runs on until it is cold.
    if (isHeater)
      maker.step("runDown", id, {
        of: [id],
        place: "engine",
        pre: [state("loaded")],
        post: [state("ranDown")],
      });
    maker.step("lookAgain", id, {
      of: [id],
      place: "engine",
      pre: [state(isHeater ? "ranDown" : "loaded")],
      post: [state("lookedAgain")],
    });
  }
}
