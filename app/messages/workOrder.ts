/** The work order in words: what is done to what, what must be minded, what holds it, what is undone. */

import { looksOf, type PlanJoint, planJoints } from "~/core/joints/joints";
import { isPushing } from "~/core/kinds/families";
import type { Id } from "~/core/kinds/record";
import type { Fact, Verb, WorkStep } from "~/core/order/facts";
import type { Interim } from "~/core/order/interim";
import type { Progress, UntilDelivery } from "~/core/order/progress";
import { plugsOf } from "~/core/plan/plugs";
import { currentPlan, partsOf, portsOf } from "~/core/plan/ports";
import type { Cover, Delivery, Job, Plan, PortRef } from "~/core/plan/types";
import { minutesText } from "./service";
import { dayText } from "./when";

export const verbTexts: Record<Verb, string> = {
  batteryOff: "Battery negative off",
  extinguisher: "Extinguisher to hand",
  ventilate: "Ventilate",
  support: "Stands and chocks",
  eyes: "Eye protection and gloves",
  pan: "Pan under",
  photograph: "Photograph and label",
  swapPan: "Swap the pan",
  openCover: "Open",
  photographBehind: "Photograph what lies behind",
  closeCover: "Close",
  engineOut: "Lift out",
  engineIn: "Lift in again",
  shutOff: "Shut",
  unfasten: "Undo",
  handDown: "Let down by a hand's breadth",
  tankDown: "Let down to the ground",
  unitOpen: "Clean round the plate, then open",
  unitShut: "Close, with a new seal,",
  handUp: "Lift to a hand's breadth under its place",
  tankUp: "Lift home",
  refasten: "Make fast again",
  drainTank: "Drain",
  drainBowl: "Drain the bowl of",
  closeDrain: "Shut the drain of",
  undo: "Undo",
  cap: "Cap",
  unplug: "Unplug",
  tapeSpare: "Tape and label the loose plug of",
  blow: "Blow through the old hose",
  hoseOut: "Take out the hose",
  partOut: "Take out",
  emptyTank: "See that nothing is left in",
  tankFitting: "Make the opening of",
  swarf: "Deburr the opening and take the swarf out of",
  setTank: "Set in its place and strap down",
  cutHole: "Cut the hole",
  careEdge: "Seal or paint the edge of",
  checkIn: "Check in",
  fixPart: "Fix",
  boardPart: "Hang on the board",
  boardUp: "Put up the board",
  element: "Fit the element of",
  cutHose: "Cut the hose",
  makeEnds: "Make the ends of",
  cutTube: "Cut the tube",
  formEnds: "Nuts on, flare and bend",
  lay: "Lay the hose",
  clip: "Clip the hose",
  join: "Join",
  wire: "Wire",
  exhaust: "Lead out the exhaust of",
  combustionAir: "Lead in the combustion air of",
  alarm: "Hang the carbon monoxide alarm",
  plugIn: "Plug in",
  fill: "Fill",
  batteryOn: "Battery negative on",
  setLineUp: "Set the valves for",
  power: "Power to the pump",
  bleed: "Bleed",
  look: "Look at every joint in",
  baseline: "Note pressure and vacuum",
  start: "Start",
  idle: "Idle",
  load: "Load",
  runDown: "Let run down, by its own switch,",
  lookAgain: "Look again after the first hours",
  waste: "Carry off old fuel, rags and parts",
};

/** One caution a step, in the step itself. */
const cautions: Partial<Record<Verb, string>> = {
  batteryOff: "Negative first, so that no spanner shorts to the frame near vapour.",
  extinguisher: "For fuel fires, checked and in reach of the way out.",
  ventilate: "No flame, no spark; petrol vapour lies low: test for it before anything is opened.",
  support: "Level, on stands and chocks; never under a jack alone.",
  swapPan: "Carried at four fifths, no fuller; into a closed can, earthed, outside.",
  engineOut: "A hoist rated for it, by its own eyes; nobody under it, and a second person at the controls.",
  engineIn: "Look that no hose, wire or hand is between; mounts started by hand first.",
  blow: "Diesel only, never a line that held petrol. Held end in the pan, eyes covered; 35 kPa until gas comes, more only then; never into a tank.",
  eyes: "Fuel on skin and in eyes: rinse at once; fuel under the skin is an emergency.",
  handDown:
    "Two people or a cradle; nobody under it, never on straps or a jack alone. Note which way its outlets face.",
  tankDown: "Every hose, plug and strap is off; what is left in it moves as it tips.",
  unitOpen:
    "No flame, no spark, air moving; never a bare lamp into a tank. One that held petrol goes to a licensed cleaner.",
  unitShut: "Count rags and tools out first; the seal new and dry, screws crosswise.",
  handUp: "Two people or a cradle; look that no hose or wire is pinched.",
  tankUp: "Straps by hand first; fingers clear of the frame.",
  drainTank: "Into closed cans, earthed, outside; waste fuel goes its legal way.",
  drainBowl: "Vent open, cup under it, face to the side.",
  undo: "Fuel stands behind it: eyes covered, face to the side, pan under it before the nut moves.",
  hoseOut: "Its dips still hold fuel: both ends up, into the pan.",
  partOut: "It is heavier full than it looks, and spills when it is turned.",
  tankFitting:
    "Never drill a tank that held petrol without a licensed cleaner. Clean round it, saw square, count the swarf out.",
  emptyTank:
    "Dip it, and look in with a lamp that is safe in vapour; what is there goes into closed cans first.",
  swarf:
    "With a magnet and a lint-free rag, never compressed air into the tank; every chip counted out: one lamed a pump.",
  closeDrain: "Hand tight, dry, and looked at: a drain that was left open pumps the bilge or the road full.",
  setTank:
    "Two people or a hoist, the tank empty; straps or bolts by the maker's torque before a hose is joined: full, it is many times heavier.",
  checkIn: "Count against the order, every end started by hand, seals there; what is wrong is set apart.",
  cutHole: "Looked behind, battery off, eyes covered; swarf out, every piece counted.",
  boardUp: "Two people, or a cradle; nobody under it while it hangs.",
  element: "Seal oiled, hand tight to contact, then the maker's part of a turn.",
  cutHose: "Square, with a hose knife; blow the dust out, away from the face.",
  cutTube: "Straightened, cut square, deburred inside and out; blown out away from the face, eyes covered.",
  formEnds:
    "By its cut card. Nut on first, its thread towards the end: it does not go over a flare. A flare that is cracked or askew is cut off.",
  join: "New washers, the old ones counted out; a second spanner on plastic; the maker's torque first.",
  wire: "Own fused supply at the battery, the fuse last.",
  fill: "No naked flame; watch the vent, stop before it spills.",
  power: "Every filter on, drains shut, every joint on the way tight, the return open.",
  bleed:
    "Face and hands away from the opened joint; never by pressure in the tank; never crank a dry high-pressure pump.",
  look: "Dry cloth, pump on, no flame. A joint under vacuum shows no drop.",
  exhaust:
    "Carbon monoxide kills: gas-tight, outside, falling outward, clear of what burns, away from windows and its own air.",
  combustionAir: "From outside, never from where people are; its mouth away from the exhaust and from spray.",
  alarm:
    "Where people sleep, at the height its maker says; tested, its date noted. It never replaces a tight exhaust.",
  runDown: "Never by the battery switch: what is hot cools by its own fan.",
  waste:
    "Closed and labelled cans; rags with fuel on them in a lidded tin. Where it goes is local law, never a drain, the ground or the water.",
  start: "Clear of belts; exhaust led outside. The high-pressure side is never loosened as it runs.",
  load: "Hot pipes: look, do not feel.",
};
/** Stainless in aluminium or in itself. Common practice, no source. */
const GALLING =
  "These metals gall: dress the thread with sealant or anti-seize at every trial too, never dry. Two fingers wind it in; where it stiffens, stop and back it out.";

/** @param joints of the plan that is worked to; what a joint asks for itself stands with it */
export function cautionText(
  { verb, of: [id], port }: Pick<WorkStep, "verb" | "of" | "port">,
  joints: readonly PlanJoint[],
): string | null {
  const caution = cautions[verb] ?? null;
  if (verb !== "join") return caution;
  const key = `${id}.${port}`;
  const isGalling = joints.some(
    (joint) =>
      [joint.a, joint.b].some((side) => `${side.id}.${side.port}` === key) &&
      looksOf(joint).includes("antiSeize"),
  );
  return isGalling ? `${caution} ${GALLING}` : caution;
}

const tools: Partial<Record<Verb, string>> = {
  undo: "two spanners, rag",
  blow: "regulator with gauge, blow gun, rag",
  tapeSpare: "tape, label",
  engineOut: "hoist, stand",
  engineIn: "hoist",
  join: "torque spanner, second spanner",
  cutHose: "hose knife, tape",
  cutTube: "tube cutter, deburring tool",
  formEnds: "flaring tool, tube bender",
  cutHole: "hole saw, file, vacuum cleaner",
  tankFitting: "hole saw, file, magnet",
  element: "filter wrench, seal oil",
  wire: "crimper, meter",
  exhaust: "hole saw, clamps, sealing paste",
  drainTank: "transfer pump, cans",
  waste: "cans, lidded tin, labels",
  look: "dry cloth, torch",
};
export const toolsText = (verb: Verb): string | null => tools[verb] ?? null;

/** What `keel work` prints: each step with its tools and its caution in words. */
export function inWords<
  S extends { id: string; verb: Verb; of: readonly string[]; place: string },
  R extends { steps: readonly S[]; from: Id | null },
>(job: Job, report: R) {
  const after = currentPlan(job);
  const before = job.plans.find(({ id }) => id === report.from) ?? null;
  const joints = planJoints(job, after);
  return {
    ...report,
    steps: report.steps.map((step) => ({
      ...step,
      words: stepText(job, before, after, withPort(step)),
      tools: toolsText(step.verb),
      cautions: cautionText(withPort(step), joints),
    })),
  };
}

/** A reported step names its port behind what it is done to; its id says whether it has one. */
function withPort<S extends { id: string; verb: Verb; of: readonly string[]; place: string }>(step: S): Told {
  const port = step.id.slice(step.verb.length + 1).split(".")[1];
  return port !== undefined && step.of.at(-1) === port ? { ...step, of: step.of.slice(0, -1), port } : step;
}

/** What of a step its words are made from. */
type Told = Pick<WorkStep, "id" | "verb" | "of" | "place" | "port">;

export const placeTexts: Record<string, string> = {
  safe: "Make safe",
  bench: "Bench",
  tanks: "At the tanks",
  board: "At the board",
  line: "Along the lines",
  engine: "At the engine",
  test: "Test",
};

/** Names of everything that work is done to: of the plan as it was found and as it is to be. */
export function namer(job: Job, before: Plan | null, after: Plan): (id: Id) => string {
  const things = [
    ...job.tanks,
    ...(before?.parts ?? []),
    ...partsOf(job, after),
    ...after.lineUps,
    ...(after.boards ?? []),
    ...(after.passages ?? []),
    ...(before?.covers ?? []),
    ...(after.covers ?? []),
    ...job.consumers,
    ...job.tanks.flatMap(({ attachments = [] }) => attachments),
  ];
  const names = new Map(things.map(({ id, name }) => [id, name]));
  for (const part of [...(before?.parts ?? []), ...after.parts])
    for (const { key, name } of plugsOf(part)) if (name) names.set(key, `${part.name}, ${name}`);
  for (const { id, from, to } of [...(before?.runs ?? []), ...after.runs])
    names.set(id, `${names.get(from.part) ?? ""} to ${names.get(to.part) ?? ""}`);
  for (const { id, tank, use } of [...(before?.tankLines ?? []), ...(after.tankLines ?? [])])
    names.set(id, `${names.get(tank) ?? ""}, ${use}`);
  return (id) => names.get(id) ?? id;
}

/** A port by its owner's name and its own. */
function portName(job: Job, before: Plan | null, after: Plan, id: Id, port: Id): string {
  const tank = job.tanks.find((one) => one.id === id);
  if (tank) return tank.ports.find((one) => one.id === port)?.name ?? port;
  const part = [...partsOf(job, after), ...(before?.parts ?? [])].find((one) => one.id === id);
  return (part && portsOf(part).find((one) => one.id === port)?.name) ?? port;
}

/** Done to one plug of a part. */
const plugVerbs: ReadonlySet<string> = new Set<Verb>(["unplug", "plugIn", "tapeSpare"]);

export interface StepWords {
  verb: string;
  object: string;
}

/** Where the hose at a port leads, or what is screwed to it: two ports of a tee have one name. */
function leadsTo(plan: Plan | null, { of: [id], port }: Told, name: (id: Id) => string): string {
  const far = ({ from, to }: { from: PortRef; to: PortRef }) =>
    from.part === id && from.port === port ? to : to.part === id && to.port === port ? from : null;
  for (const run of plan?.runs ?? []) {
    const other = far(run);
    if (other) return `, hose to ${name(other.part)}`;
  }
  for (const joint of plan?.joints ?? []) {
    const other = far(joint);
    if (other) return `, on ${name(other.part)}`;
  }
  return "";
}

/** Hoses in the way of the gas, and the pump whose bypass lets it by. */
function blownWay(before: Plan | null, { of }: Told, name: (id: Id) => string): string {
  const hoses = of.filter((id) => before?.runs.some((run) => run.id === id));
  const pumps = (before?.parts ?? []).filter(isPushing).filter(({ id }) => of.includes(id));
  const [first = "", ...on] = hoses.map(name);
  const last = on.at(-1);
  return [
    last === undefined ? first : `${first}, on to ${last}`,
    ...pumps.map(
      ({ id, off }) => `${off.kind === "bypass" ? "by the bypass of" : "through"} ${name(id)}, off`,
    ),
  ].join(", ");
}

/** Of a rigid run. */
const tubeTexts: Partial<Record<Verb, string>> = {
  hoseOut: "Take out the tube",
  lay: "Lay the tube",
  clip: "Clip the tube",
};

/** Done to what was there: it is called by the names that it had. */
const oldVerbs: ReadonlySet<Verb> = new Set<Verb>([
  "undo",
  "blow",
  "hoseOut",
  "partOut",
  "drainBowl",
  "shutOff",
]);

export function stepWords(job: Job, before: Plan | null, after: Plan, step: Told): StepWords {
  const name = before && oldVerbs.has(step.verb) ? namer(job, after, before) : namer(job, before, after);
  const [first] = step.of;
  const isTube = [before, after].some((plan) =>
    [...(plan?.runs ?? []), ...(plan?.tankLines ?? [])].some(
      ({ id, make }) => id === first && make === "rigid",
    ),
  );
  const verb = (isTube && tubeTexts[step.verb]) || verbTexts[step.verb];
  if (step.verb === "pan" || step.verb === "photograph" || step.verb === "swapPan")
    return { verb, object: (placeTexts[step.place] ?? step.place).toLowerCase() };
  if (first === undefined || step.verb === "power") return { verb, object: "" };
  if (step.verb === "blow") return { verb, object: blownWay(before, step, name) };
  if (plugVerbs.has(step.verb)) return { verb, object: name(step.id.slice(step.verb.length + 1)) };
  if (step.port === undefined) return { verb, object: name(first) };
  const port = `${name(first)}, ${portName(job, before, after, first, step.port)}`;
  const plan = step.verb === "undo" || step.verb === "cap" ? before : after;
  return { verb, object: `${port}${leadsTo(plan, step, name)}` };
}

export const stepText = (job: Job, before: Plan | null, after: Plan, step: Told): string => {
  const { verb, object } = stepWords(job, before, after, step);
  return object ? `${verb} ${object}` : verb;
};

/** Of a tank that comes down: what it is not yet. */
const tankStands: Readonly<Record<string, string>> = {
  up: "is not in its place",
  loose: "is not let down by a hand's breadth",
  down: "is not down",
  raised: "is not lifted to its place",
  fixed: "is not home",
};

/** What a fact that is not so yet says to whoever is held by it. */
export function holdText({ fact, value }: Fact, name: (id: Id) => string): string {
  const [kind = "", id = ""] = fact.split(".");
  switch (kind) {
    case "battery":
      return value === "off" ? "The battery is on." : "The battery is off.";
    case "extinguisher":
      return "No extinguisher to hand.";
    case "ventilated":
      return "Not ventilated.";
    case "supported":
      return "Not on stands and chocks.";
    case "eyes":
      return "Eyes and hands are bare.";
    case "pan":
      return value === "yes" ? "No pan under it." : "The pan is as full as it may be carried: swap it first.";
    case "cover":
      return value === "open" ? `${name(id)} is closed.` : `${name(id)} is open.`;
    case "photoBehind":
      return `What lies behind ${name(id)} is not photographed.`;
    case "engine":
      return value === "out" ? `${name(id)} is not out.` : `${name(id)} is not in its place.`;
    case "photo":
      return "Not photographed and labelled.";
    case "shut":
      return `${name(id)} is open.`;
    case "fuel":
      return value === "drained" ? `${name(id)} would run out.` : `${name(id)} is not filled.`;
    case "port":
      return value === "open" ? `${name(id)}: its port is not open.` : `${name(id)}: a joint is not tight.`;
    case "part":
      return value === "out" ? `${name(id)} is still in its place.` : `${name(id)} is not in its place.`;
    case "board":
      return `${name(id)} is not up.`;
    case "element":
      return `${name(id)} has no element on.`;
    case "bowl":
      return value === "shut" ? `${name(id)}: its drain is open.` : `${name(id)} is not drained.`;
    case "plug":
      if (value === "taped") return `The loose plug of ${name(fact.slice(5))} is not taped.`;
      return value === "off"
        ? `${name(fact.slice(5))} is plugged in.`
        : `${name(fact.slice(5))} is not plugged in.`;
    case "wire":
      return `${name(id)} is not wired.`;
    case "run":
      return `The hose ${name(id)} is not ready.`;
    case "clip":
      return `The hose ${name(id)} is not clipped.`;
    case "tank":
      return `${name(id)} ${tankStands[value] ?? "is not where it must be"}.`;
    case "unit":
      return value === "open"
        ? `${name(id)}: its plate is shut.`
        : `${name(id)}: its plate is not closed again.`;
    case "fast":
      return value === "off" ? `${name(id)} is still fast.` : `${name(id)} is not made fast again.`;
    case "exhaust":
      return `${name(id)}: its exhaust is not led out.`;
    case "air":
      return `${name(id)}: its combustion air is not led in.`;
    case "alarm":
      return "No carbon monoxide alarm hangs.";
    case "waste":
      return "Fuel or old parts are still to come out.";
    case "here":
      return `${name(id)} has not come.`;
    case "hole":
      return `${name(id)} is not cut and sealed.`;
    case "stands":
      return `${name(id)} is not set and strapped down.`;
    case "fitting":
      return value === "made"
        ? `${name(id)}: its opening is not made, or its swarf is still in the tank.`
        : `${name(id)}: its opening is not cut.`;
    case "empty":
      return `Nobody saw that ${name(id)} is empty.`;
    case "lineUp":
      return value === "none" ? "A line-up is set already." : `The valves are not set for ${name(value)}.`;
    case "power":
      return "The pump has no power.";
    case "bled":
      return `${name(id)} is not bled.`;
    case "looked":
      return `Not every joint was looked at in ${name(id)}.`;
    case "baseline":
      return "No baseline is noted.";
    case "consumer":
      return `${name(id)} is not there yet: one step is left out.`;
    default:
      return `${fact} is not ${value}.`;
  }
}

/** What is undone, as a thing to be redone. */
export function undoneText({ fact, value }: Fact, name: (id: Id) => string): string {
  const [kind = "", id = ""] = fact.split(".");
  switch (kind) {
    case "battery":
      return "Battery negative, off";
    case "port":
      return `${name(id)}: port ${value}`;
    case "plug":
      return `${name(fact.slice(5))}: plug off`;
    case "cover":
      return `${name(id)}, open`;
    case "engine":
      return `${name(id)}, out`;
    case "part":
      return value === "out" ? `${name(id)}, taken out` : `${name(id)}, hung`;
    case "fuel":
      return `${name(id)}, empty`;
    case "bowl":
      return `${name(id)}: bowl drained`;
    case "tank":
      return `${name(id)}, let down`;
    case "unit":
      return `${name(id)}: plate open`;
    case "fast":
      return `${name(id)}, off`;
    case "run":
      return `Hose ${name(id)}: ${value}`;
    default:
      return `${name(id) || kind}: ${value}`;
  }
}

/** What has not come, by whom and when it is to come. */
export const awaitedText = (name: string, delivery: Delivery | undefined): string =>
  [
    name,
    delivery?.from && `from ${delivery.from}`,
    delivery?.due && `due ${dayText(new Date(`${delivery.due}T00:00:00Z`))}`,
    delivery?.wrong && `came wrong: ${delivery.wrong}`,
  ]
    .filter(Boolean)
    .join(", ");

/** How long the work goes on before it stands still for what has not come. */
export function waitText(until: UntilDelivery | null, name: (id: Id) => string): string | null {
  if (!until) return null;
  const [first = "", ...more] = until.missing.map(name);
  const what = more.length === 0 ? first : `${first} and ${more.length} more`;
  const when = until.due === null ? "no day is told" : `due ${dayText(new Date(`${until.due}T00:00:00Z`))}`;
  return `${minutesText(until.beforeMin * 60)} of it before ${what} must be here (${when}), ${minutesText(until.afterMin * 60)} after.`;
}

/** What going on without it would give and cost. */
export function interimText(interim: Interim | null, name: (id: Id) => string): string | null {
  if (!interim) return null;
  const { without, runsAfterMin, moreMin } = interim;
  return `Without ${without.map(name).join(" and ")} until then, its hoses joined, it runs after ${minutesText(runsAfterMin * 60)}: ${minutesText(Math.max(0, moreMin) * 60)} more in all.`;
}

export const coverKindNames: Record<Cover["kind"], string> = {
  floor: "a floor or sole",
  hatch: "a hatch over the way",
  panel: "a panel",
  tankDown: "a tank that is let down",
  engineOut: "an engine that is lifted out",
};

/** A step that the plan has no longer, by its id. */
export function stepIdText(id: string, name: (id: Id) => string): string {
  const [verb = "", object = ""] = id.split(":");
  const of = plugVerbs.has(verb) ? object : (object.split(".")[0] ?? "");
  return `${verbTexts[verb as Verb] ?? verb} ${of === "main" ? "" : name(of)}`.trim();
}

/** Why a work order could not be made: told so that it can be looked for, not mended by a guess. */
export function orderFaultText(fault: NonNullable<Progress["fault"]>, name: (id: Id) => string): string {
  if (fault.outcome === "cannotBeOrdered")
    return `These steps need each other in a ring: ${fault.ids.map((id) => stepIdText(id, name)).join("; ")}.`;
  return `Nothing makes this so: ${fault.needs.map((one) => `${stepIdText(one.id, name)}: ${holdText(one, name)}`).join(" ")}`;
}
