/**
 * Every change to a job is one of these small typed commands. Each runs on a draft; the change and its inverse
 * are recorded as patches, so that undo is exact whatever the command did.
 */
import { applyPatches, current, enablePatches, isDraft, type Patch, produceWithPatches } from "immer";
import { isPowered, isValve } from "../kinds/families";
import { type Engine, kindOf, type PlanPart } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import { type NewPartKind, newEngine, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { distanceM, placedPorts, portKey, portsOf, samePort } from "../plan/ports";
import { isTooShort, runGeometry } from "../plan/route";
import { straysOf } from "../plan/strays";
import type { Conditions, Job, LineUp, Plan, PortRef, Run, Tank, ValveSetting } from "../plan/types";
import { firstSetting } from "../plan/valves";
import { checkTank } from "../tanks/check";
import { capacityM3 } from "../tanks/tank";
import { rebased } from "./merge";

enablePatches();

/** A hose is this much longer than the straight way until it is measured. Common practice, no source. */
const HOSE_OVER_STRAIGHT = 1.15;
const LEAST_HOSE_M = 0.1;

/** A change of a record's fields, and these as they were shown when it was made; without them it holds as it is. */
interface Edit<Change> {
  change: Change;
  shown?: Change;
}

export type Command =
  | { name: "rename"; jobName: string }
  | ({ name: "editJob" } & Edit<Partial<Pick<Job, "kind" | "note" | "units" | "schools" | "site" | "fuel">>>)
  | { name: "addTank"; id: Id; tankName: string; position: Position }
  | ({ name: "editTank"; id: Id } & Edit<Partial<Omit<Tank, "id">>>)
  | { name: "removeTank"; id: Id }
  | { name: "addEngine"; id: Id; engineName: string; position: Position; kind?: Engine["kind"] }
  | ({ name: "editEngine"; id: Id } & Edit<Partial<Omit<Engine, "id" | "kind">>>)
  | { name: "removeEngine"; id: Id }
  | { name: "addPart"; id: Id; kind: NewPartKind; position: Position }
  | { name: "insertPart"; id: Id; kind: NewPartKind; runId: Id; newRunId: Id; at?: number }
  | { name: "replacePart"; id: Id; newId: Id; kind: NewPartKind }
  | ({ name: "editPart"; id: Id } & Edit<Record<string, unknown>>)
  | { name: "removePart"; id: Id }
  | { name: "turnPart"; id: Id }
  | { name: "connect"; id: Id; from: PortRef; to: PortRef }
  | { name: "join"; id: Id; from: PortRef; to: PortRef }
  | ({ name: "editRun"; id: Id } & Edit<Partial<Omit<Run, "id" | "from" | "to">>>)
  | { name: "disconnect"; id: Id }
  | { name: "setValve"; lineUpId: Id; valveId: Id; setting: ValveSetting }
  | { name: "setBranch"; lineUpId: Id; valveId: Id; branch: Id; isOpen: boolean }
  | { name: "setPump"; lineUpId: Id; pumpId: Id; state: "on" | "off" }
  | { name: "setConsumer"; lineUpId: Id; consumerId: Id; state: "running" | "stopped" }
  | { name: "addLineUp"; id: Id; lineUpName: string }
  | { name: "duplicateLineUp"; id: Id; from: Id; lineUpName: string }
  | ({ name: "editLineUp"; id: Id } & Edit<Partial<Pick<LineUp, "name" | "purpose" | "intendedTransfer">>>)
  | { name: "removeLineUp"; id: Id }
  | { name: "setConditions"; change: Partial<Conditions> }
  | ({ name: "editPlan" } & Edit<Partial<Pick<Plan, "name" | "limits" | "serviceAllowanceM" | "duty">>>)
  /** A copy of the current plan beside it, made current; the copy knows what it came from. */
  | { name: "forkPlan"; id: Id; planName: string }
  /** A whole plan beside the others, made current; tanks gain the ports it needs. */
  | { name: "addPlan"; plan: Plan; tanks: Tank[] }
  | { name: "choosePlan"; id: Id }
  | { name: "removePlan"; id: Id }
  | { name: "nudge"; id: Id; dx: number; dy: number }
  /** The whole job as a file has it. */
  | { name: "replaceJob"; job: Job };

/** What a command could not keep, for the user to see. */
export interface Note {
  code: "endsNoLongerMeet" | "boresDiffer" | "portsLeftOpen" | "aboardLowered";
  ids: Id[];
}

export interface Applied {
  job: Job;
  patches: Patch[];
  inverse: Patch[];
  notes: Note[];
}

export class CommandRefused extends Error {
  constructor(
    readonly code: "noSuch" | "portTaken" | "samePort" | "lastPlan" | "badId",
    readonly id: string,
  ) {
    super(`${code}: ${id}`);
  }
}

const planOf = (job: Job): Plan =>
  found(
    job.plans.find(({ id }) => id === job.currentPlanId),
    job.currentPlanId,
  );

function found<T>(item: T | undefined, id: string): T {
  if (item === undefined) throw new CommandRefused("noSuch", id);
  return item;
}

const partOf = (plan: Plan, id: Id): PlanPart =>
  found(
    plan.parts.find((part) => part.id === id),
    id,
  );
const lineUpOf = (plan: Plan, id: Id): LineUp =>
  found(
    plan.lineUps.find((lineUp) => lineUp.id === id),
    id,
  );

const tankOf = (job: Job, id: Id): Tank =>
  found(
    job.tanks.find((tank) => tank.id === id),
    id,
  );
const consumerOf = (job: Job, id: Id): Engine =>
  found(
    job.consumers.find((consumer) => consumer.id === id),
    id,
  );
const runOf = (plan: Plan, id: Id): Run =>
  found(
    plan.runs.find((run) => run.id === id),
    id,
  );

/** The record that an edit changes; null for a command that edits none. */
function editedRecord(job: Job, command: Command): object | null {
  const plan = planOf(job);
  switch (command.name) {
    case "editJob":
      return job;
    case "editTank":
      return tankOf(job, command.id);
    case "editEngine":
      return consumerOf(job, command.id);
    case "editPart":
      return partOf(plan, command.id);
    case "editRun":
      return runOf(plan, command.id);
    case "editLineUp":
      return lineUpOf(plan, command.id);
    case "editPlan":
      return plan;
    default:
      return null;
  }
}

/** An edit made from a job as it is shown, with what it was made from: written later, it changes nothing else. */
export function madeFrom(job: Job, command: Command): Command {
  try {
    const record = editedRecord(job, command);
    if (!record || !("change" in command)) return command;
    const shown = Object.fromEntries(
      Object.keys(command.change).map((key) => [key, (record as Record<string, unknown>)[key]]),
    );
    return { ...command, shown } as Command;
  } catch (error) {
    // What it edits is gone from the page already: writing it says so.
    if (error instanceof CommandRefused) return command;
    throw error;
  }
}

function portAt(job: Job, plan: Plan, ref: PortRef) {
  return found(placedPorts(job, plan).get(portKey(ref)), portKey(ref));
}

function straightHose(job: Job, plan: Plan, from: PortRef, to: PortRef): number {
  const straight = distanceM(portAt(job, plan, from).position, portAt(job, plan, to).position);
  return Math.max(LEAST_HOSE_M, Math.round(straight * HOSE_OVER_STRAIGHT * 1000) / 1000);
}

function refuseTaken(plan: Plan, ref: PortRef): void {
  const taken = [...plan.runs, ...plan.joints].some(
    ({ from, to }) => samePort(from, ref) || samePort(to, ref),
  );
  if (taken) throw new CommandRefused("portTaken", portKey(ref));
}

/** The two ports a part is let into a run by; null where it cannot be. */
export const throughPorts = (part: PlanPart): readonly [Id, Id] | null => kindOf(part).through(part);

function register(plan: Plan, part: PlanPart): void {
  plan.parts.push(part);
  for (const lineUp of plan.lineUps) {
    if (isValve(part)) lineUp.valves[part.id] = firstSetting(part);
    if (isPowered(part)) lineUp.pumps[part.id] = "on";
  }
}

function forget(plan: Plan, id: Id): void {
  plan.parts = plan.parts.filter((part) => part.id !== id);
  for (const lineUp of plan.lineUps) {
    delete lineUp.valves[id];
    delete lineUp.pumps[id];
    delete lineUp.consumers[id];
  }
  delete plan.nudges[id];
}

/** A length that was worked out, not measured: whatever was entered for the old one no longer stands. */
function setWorkedOutLength(run: Run, lengthM: number): void {
  run.route = { kind: "measured", lengthM, bends: [], extremes: [] };
  if (run.given) delete run.given.lengthM;
}

function insertPart(
  job: Job,
  plan: Plan,
  { id, kind, runId, newRunId, at = 0.5 }: Extract<Command, { name: "insertPart" }>,
): void {
  const run = runOf(plan, runId);
  const from = portAt(job, plan, run.from).position;
  const to = portAt(job, plan, run.to).position;
  const geometry = runGeometry(run, portAt(job, plan, run.from), portAt(job, plan, run.to));
  const between = (a: number, b: number) => a + at * (b - a);
  const part = newPart(kind, id, {
    xM: between(from.xM, to.xM),
    yM: between(from.yM, to.yM),
    zM: between(from.zM, to.zM),
  });
  part.boreM = run.boreM;
  register(plan, part);
  const through = found(throughPorts(part) ?? undefined, id);
  const rest = newRun(newRunId, { part: id, port: through[1] }, run.to, 1, run.boreM);
  rest.product = { ...run.product };
  rest.roughnessM = run.roughnessM;
  if (run.endBoreM) rest.endBoreM = [...run.endBoreM];
  const { bends } = run.route.kind === "measured" ? run.route : { bends: [] };
  setWorkedOutLength(run, geometry.lengthM * at);
  if (run.route.kind === "measured") run.route.bends = bends;
  setWorkedOutLength(rest, geometry.lengthM * (1 - at));
  run.to = { part: id, port: through[0] };
  plan.runs.splice(plan.runs.indexOf(run) + 1, 0, rest);
  fitHoses(job, plan, id, { evenMeasured: true });
}

type Connection = { item: { id: Id; from: PortRef; to: PortRef }; far: PortRef; isRun: boolean };

function connectionAt(plan: Plan, ref: PortRef): Connection | null {
  for (const item of plan.runs) {
    if (samePort(item.from, ref)) return { item, far: item.to, isRun: true };
    if (samePort(item.to, ref)) return { item, far: item.from, isRun: true };
  }
  for (const item of plan.joints) {
    if (samePort(item.from, ref)) return { item, far: item.to, isRun: false };
    if (samePort(item.to, ref)) return { item, far: item.from, isRun: false };
  }
  return null;
}

function drop(plan: Plan, id: Id): void {
  plan.runs = plan.runs.filter((run) => run.id !== id);
  plan.joints = plan.joints.filter((joint) => joint.id !== id);
}

/** Takes a part out; the run it was let into heals, its other hoses go, and what no longer meets is told. */
function removePart(job: Job, plan: Plan, id: Id): Note[] {
  const part = partOf(plan, id);
  const through = throughPorts(part);
  const sides = through?.map((port) => connectionAt(plan, { part: id, port })) ?? [];
  const others = portsOf(part)
    .map((port) => connectionAt(plan, { part: id, port: port.id }))
    .filter((connection) => connection !== null);
  const lost = others.filter(({ item }) => !sides.some((side) => side?.item.id === item.id));
  const notes: Note[] = [];
  const [before, after] = sides;
  for (const { item } of others) drop(plan, item.id);
  forget(plan, id);
  if (before && after && !samePort(before.far, after.far)) {
    const kept = (before.isRun ? before.item : after.isRun ? after.item : null) as Run | null;
    const other = (before.isRun && after.isRun ? after.item : null) as Run | null;
    if (kept) {
      const from = before.far;
      const to = after.far;
      const length = (run: Run | null) => (run?.route.kind === "measured" ? run.route.lengthM : 0);
      const healed = { ...kept, from, to };
      const lengthM = Math.max(
        length(kept) + length(other),
        straightHose(job, plan, from, to) / HOSE_OVER_STRAIGHT,
      );
      setWorkedOutLength(healed, lengthM);
      plan.runs.push(healed);
      if (other && other.boreM !== kept.boreM) notes.push({ code: "boresDiffer", ids: [kept.id] });
      fitHoses(job, plan, from.part, { evenMeasured: true });
    } else {
      plan.joints.push({ ...before.item, from: before.far, to: after.far });
    }
  } else {
    for (const side of sides) if (side) lost.push(side);
  }
  if (lost.length > 0) notes.push({ code: "endsNoLongerMeet", ids: lost.map(({ far }) => far.part) });
  return notes;
}

/** Puts a part of another kind in the place of one: its way through keeps its hoses, and branches as far as there are ports. */
function replacePart(
  job: Job,
  plan: Plan,
  { id, newId, kind }: Extract<Command, { name: "replacePart" }>,
): Note[] {
  const old = partOf(plan, id);
  const part = newPart(kind, newId, { ...old.position });
  part.boreM = old.boreM;
  const newPorts = portsOf(part).map((port) => port.id);
  const newPort = new Map<Id, Id>();
  const through = throughPorts(part);
  if (through) throughPorts(old)?.forEach((port, side) => newPort.set(port, through[side] as Id));
  for (const port of portsOf(old)) {
    const spare = newPorts.find((id) => ![...newPort.values()].includes(id));
    if (!newPort.has(port.id) && spare !== undefined) newPort.set(port.id, spare);
  }
  const lost: Id[] = [];
  const renamed = (ref: PortRef): PortRef | null => {
    if (ref.part !== id) return ref;
    const port = newPort.get(ref.port);
    return port === undefined ? null : { part: newId, port };
  };
  for (const item of [...plan.runs, ...plan.joints]) {
    const from = renamed(item.from);
    const to = renamed(item.to);
    if (from && to) {
      item.from = from;
      item.to = to;
    } else {
      lost.push(item.from.part === id ? item.to.part : item.from.part);
      drop(plan, item.id);
    }
  }
  forget(plan, id);
  register(plan, part);
  fitHoses(job, plan, newId, { evenMeasured: true });
  return lost.length > 0 ? [{ code: "endsNoLongerMeet", ids: lost }] : [];
}

/**
 * Hoses of a part that no longer reach are given a worked-out length. One that was measured is left
 * (and the change then refused as too short) unless the change itself put its end elsewhere.
 */
function fitHoses(job: Job, plan: Plan, id: Id, { evenMeasured }: { evenMeasured: boolean }): void {
  const ports = placedPorts(job, plan);
  for (const run of plan.runs) {
    const from = ports.get(portKey(run.from));
    const to = ports.get(portKey(run.to));
    if ((run.from.part !== id && run.to.part !== id) || !from || !to) continue;
    const isMeasured = run.given?.lengthM?.basis === "measured";
    if (isTooShort(runGeometry(run, from, to)) && (evenMeasured || !isMeasured)) {
      setWorkedOutLength(run, straightHose(job, plan, run.from, run.to));
    }
  }
}

/** Turns a part end for end: what came in goes out. */
function turnPart(plan: Plan, id: Id): void {
  const [a, b] = found(throughPorts(partOf(plan, id)) ?? undefined, id);
  for (const { from, to } of [...plan.runs, ...plan.joints]) {
    for (const ref of [from, to]) {
      if (ref.part === id && (ref.port === a || ref.port === b)) ref.port = ref.port === a ? b : a;
    }
  }
}

function removeSurveyed(job: Job, id: Id): Note[] {
  const lost: Id[] = [];
  for (const plan of job.plans) {
    for (const item of [...plan.runs, ...plan.joints]) {
      if (item.from.part !== id && item.to.part !== id) continue;
      lost.push(item.from.part === id ? item.to.part : item.from.part);
      drop(plan, item.id);
    }
    forget(plan, id);
    delete plan.conditions.aboardM3[id];
    delete plan.conditions.load[id];
  }
  return lost.length > 0 ? [{ code: "portsLeftOpen", ids: lost }] : [];
}

function connect(job: Job, plan: Plan, command: Extract<Command, { name: "connect" | "join" }>): void {
  const { id, from, to } = command;
  if (samePort(from, to)) throw new CommandRefused("samePort", portKey(from));
  refuseTaken(plan, from);
  refuseTaken(plan, to);
  if (command.name === "join") {
    portAt(job, plan, from);
    portAt(job, plan, to);
    plan.joints.push({ id, from, to });
    return;
  }
  const bore = Math.min(portAt(job, plan, from).boreM, portAt(job, plan, to).boreM);
  plan.runs.push(newRun(id, from, to, straightHose(job, plan, from, to), bore));
}

/** By tank, element and consumer: what another tab set meanwhile for another one stands. */
function setConditions(
  conditions: Conditions,
  { fuelC, aboardM3, loading, load, trim }: Partial<Conditions>,
): void {
  if (fuelC !== undefined) conditions.fuelC = fuelC;
  if (trim !== undefined) conditions.trim = trim;
  Object.assign(conditions.aboardM3, aboardM3);
  Object.assign(conditions.loading, loading);
  Object.assign(conditions.load, load);
}

/** A tank that holds less than is aboard is then full, and that is told: a shape is drawn with fuel in it. */
function editTank(job: Job, plan: Plan, command: Extract<Command, { name: "editTank" }>): Note[] {
  const { id } = command;
  const tank = tankOf(job, id);
  editRecord(tank, command);
  fitHoses(job, plan, id, { evenMeasured: false });
  const now = current(tank);
  if (checkTank(now).length > 0) return [];
  const most = capacityM3(now);
  const overfull = job.plans.filter(({ conditions }) => (conditions.aboardM3[id] ?? 0) > most);
  for (const { conditions } of overfull) conditions.aboardM3[id] = most;
  return overfull.length > 0 ? [{ code: "aboardLowered", ids: [id] }] : [];
}

/** Sets what is given, merged with what has changed since it was shown; what is given as undefined goes. */
function editRecord<T extends object>(record: T, { change, shown }: Edit<Partial<T>>): void {
  const now = isDraft(record) ? (current(record as object) as T) : record;
  const edits = rebased(change, shown, now);
  Object.assign(record, edits);
  for (const key of Object.keys(edits) as (keyof T)[]) if (edits[key] === undefined) delete record[key];
}

function addLineUp(job: Job, plan: Plan, id: Id, name: string): void {
  const lineUp = newLineUp(id, name);
  for (const part of plan.parts) {
    if (isValve(part)) lineUp.valves[part.id] = firstSetting(part);
    if (isPowered(part)) lineUp.pumps[part.id] = "on";
  }
  for (const consumer of job.consumers) lineUp.consumers[consumer.id] = "running";
  plan.lineUps.push(lineUp);
}

function run(job: Job, command: Command): Note[] {
  const plan = planOf(job);
  switch (command.name) {
    case "rename":
      job.name = command.jobName;
      return [];
    case "editJob":
      editRecord(job, command);
      return [];
    case "addTank":
      job.tanks.push(newTank(command.id, command.tankName, command.position));
      for (const each of job.plans) each.conditions.aboardM3[command.id] = 0.1;
      return [];
    case "editTank":
      return editTank(job, plan, command);
    case "removeTank":
      job.tanks = job.tanks.filter(({ id }) => id !== command.id);
      return removeSurveyed(job, command.id);
    case "addEngine":
      job.consumers.push(newEngine(command.id, command.engineName, command.position, command.kind));
      for (const each of job.plans)
        for (const lineUp of each.lineUps) lineUp.consumers[command.id] = "running";
      return [];
    case "editEngine":
      editRecord(consumerOf(job, command.id), command);
      fitHoses(job, plan, command.id, { evenMeasured: false });
      return [];
    case "removeEngine":
      job.consumers = job.consumers.filter(({ id }) => id !== command.id);
      return removeSurveyed(job, command.id);
    case "addPart":
      register(plan, newPart(command.kind, command.id, command.position));
      return [];
    case "insertPart":
      insertPart(job, plan, command);
      return [];
    case "replacePart":
      return replacePart(job, plan, command);
    case "editPart":
      editRecord<object>(partOf(plan, command.id), command);
      fitHoses(job, plan, command.id, { evenMeasured: false });
      return [];
    case "removePart":
      return removePart(job, plan, command.id);
    case "turnPart":
      turnPart(plan, command.id);
      fitHoses(job, plan, command.id, { evenMeasured: true });
      return [];
    case "connect":
    case "join":
      connect(job, plan, command);
      return [];
    case "editRun":
      editRecord(runOf(plan, command.id), command);
      return [];
    case "disconnect":
      drop(plan, command.id);
      return [];
    case "setValve":
      lineUpOf(plan, command.lineUpId).valves[command.valveId] = command.setting;
      return [];
    case "setBranch": {
      const { valves } = lineUpOf(plan, command.lineUpId);
      const now = valves[command.valveId];
      const others = now?.kind === "branches" ? now.open.filter((id) => id !== command.branch) : [];
      valves[command.valveId] = {
        kind: "branches",
        open: command.isOpen ? [...others, command.branch] : others,
      };
      return [];
    }
    case "setPump":
      lineUpOf(plan, command.lineUpId).pumps[command.pumpId] = command.state;
      return [];
    case "setConsumer":
      lineUpOf(plan, command.lineUpId).consumers[command.consumerId] = command.state;
      return [];
    case "addLineUp":
      addLineUp(job, plan, command.id, command.lineUpName);
      return [];
    case "duplicateLineUp": {
      const copy = JSON.parse(JSON.stringify(lineUpOf(plan, command.from))) as LineUp;
      plan.lineUps.push({ ...copy, id: command.id, name: command.lineUpName });
      return [];
    }
    case "editLineUp":
      editRecord(lineUpOf(plan, command.id), command);
      return [];
    case "removeLineUp":
      plan.lineUps = plan.lineUps.filter(({ id }) => id !== command.id);
      if (plan.duty) plan.duty = plan.duty.filter(({ lineUpId }) => lineUpId !== command.id);
      return [];
    case "setConditions":
      setConditions(plan.conditions, command.change);
      return [];
    case "editPlan":
      editRecord(plan, command);
      return [];
    case "forkPlan": {
      const copy = JSON.parse(JSON.stringify(plan)) as Plan;
      job.plans.push({ ...copy, id: command.id, name: command.planName, basedOn: plan.id });
      job.currentPlanId = command.id;
      return [];
    }
    case "addPlan":
      job.tanks = command.tanks;
      job.plans.push(command.plan);
      job.currentPlanId = command.plan.id;
      return [];
    case "choosePlan":
      job.currentPlanId = found(
        job.plans.find(({ id }) => id === command.id),
        command.id,
      ).id;
      return [];
    case "removePlan":
      return removePlan(job, command.id);
    case "nudge": {
      const { dx, dy } = plan.nudges[command.id] ?? { dx: 0, dy: 0 };
      plan.nudges[command.id] = { dx: dx + command.dx, dy: dy + command.dy };
      return [];
    }
    case "replaceJob":
      Object.assign(job, command.job, { id: job.id });
      return [];
  }
}

/** The last plan stays; what was based on a plan that goes is based on what that was based on. */
function removePlan(job: Job, id: Id): Note[] {
  const gone = found(
    job.plans.find((one) => one.id === id),
    id,
  );
  if (job.plans.length === 1) throw new CommandRefused("lastPlan", id);
  job.plans = job.plans.filter((one) => one.id !== id);
  for (const plan of job.plans) {
    if (plan.basedOn !== id) continue;
    if (gone.basedOn === undefined) delete plan.basedOn;
    else plan.basedOn = gone.basedOn;
  }
  if (job.currentPlanId === id) {
    const next = job.plans.find((one) => one.id === gone.basedOn) ?? job.plans[0];
    if (next) job.currentPlanId = next.id;
  }
  return [];
}

/** Fields of commands that hold an id, which may become a key of a record. */
const holdsId = /^(id|part|port|branch|position|open)$|Id$/;

/** A name that every object answers to is lost as a key of a record: refused, in whatever place of a command. */
function refuseLostKeys(value: unknown, field = ""): void {
  if (typeof value === "string") {
    if (holdsId.test(field) && value in {}) throw new CommandRefused("badId", value);
  } else if (Array.isArray(value)) {
    for (const item of value) refuseLostKeys(item, field);
  } else if (typeof value === "object" && value !== null) {
    for (const key of Object.keys(value)) {
      if (key in {}) throw new CommandRefused("badId", key);
      refuseLostKeys((value as Record<string, unknown>)[key], key);
    }
  }
}

/** Applies a command. Throws {@link CommandRefused} where it cannot be; the job given is never changed. */
export function applyCommand(job: Job, command: Command): Applied {
  refuseLostKeys(command);
  let notes: Note[] = [];
  const [next, patches, inverse] = produceWithPatches(job, (draft) => {
    notes = run(draft as Job, command);
  });
  const strays = straysOf(next);
  if (strays.length === 0) return { job: next, patches, inverse, notes };
  // What named a thing that the command took away goes with it.
  const [swept, sweep, back] = produceWithPatches(next, (draft) => {
    for (const { path } of strays) removeAt(draft as Job, path);
  });
  return { job: swept, patches: [...patches, ...sweep], inverse: [...back, ...inverse], notes };
}

function removeAt(job: Job, path: readonly (string | number)[]): void {
  const holder = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], job);
  delete (holder as Record<string, unknown>)[String(path.at(-1))];
}

/** Plays recorded patches: a command again, or its inverse. */
export const playPatches = (job: Job, patches: readonly Patch[]): Job => applyPatches(job, [...patches]);
