import { isFiltering } from "../kinds/families";
import type { PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import { newPart, newRun } from "../plan/blank";
import { portsOf, samePort } from "../plan/ports";
import { runGeometry } from "../plan/route";
import type { Job, Plan, PortRef, Run } from "../plan/types";
import { carriedLost } from "./carried";
import { type CommandOf, CommandRefused, type Handlers, type Note } from "./command";
import { withFigures } from "./figures";
import { found, partOf, runOf } from "./find";
import {
  connectionAt,
  drop,
  fitHoses,
  HOSE_OVER_STRAIGHT,
  portAt,
  setWorkedOutLength,
  straightHose,
} from "./hoses";
import { editRecord } from "./record";
import { forget, register, throughPorts } from "./standing";

/** An in-tank pump hangs at the outlet that the hose leaves its tank by: screwed to it, the hose goes on behind it. */
function insertInTank(job: Job, plan: Plan, { id, kind, runId, newRunId }: CommandOf<"insertPart">): void {
  const run = runOf(plan, runId);
  const side = (["from", "to"] as const).find((end) => {
    const port = job.tanks
      .find((tank) => tank.id === run[end].part)
      ?.ports.find((one) => one.id === run[end].port);
    return port?.role === "outlet";
  });
  if (!side) throw new CommandRefused("notAtTank", runId);
  const outlet = { ...run[side] };
  const part = newPart(kind, id, { ...portAt(job, plan, outlet).position });
  part.boreM = run.boreM;
  register(plan, part);
  const [inlet, behind] = found(throughPorts(part) ?? undefined, id);
  plan.joints.push({ id: newRunId, from: outlet, to: { part: id, port: inlet } });
  run[side] = { part: id, port: behind };
  fitHoses(job, plan, id, { evenMeasured: true });
}

function insertPart(
  job: Job,
  plan: Plan,
  { id, kind, runId, newRunId, at = 0.5 }: CommandOf<"insertPart">,
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

/** Takes a part out; the run it was let into heals, its other hoses go, and what no longer meets is told. */
function removePart(job: Job, plan: Plan, id: Id): Note[] {
  const part = partOf(plan, id);
  const through = throughPorts(part);
  const sides = through?.map((port) => connectionAt(plan, { part: id, port })) ?? [];
  const others = portsOf(part)
    .map((port) => connectionAt(plan, { part: id, port: port.id }))
    .filter((connection) => connection !== null);
  const lost = others.filter(({ item }) => !sides.some((side) => side?.item.id === item.id));
  const notes: Note[] = carriedLost(plan, part);
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
function replacePart(job: Job, plan: Plan, { id, newId, kind }: CommandOf<"replacePart">): Note[] {
  const old = partOf(plan, id);
  const part = newPart(kind, newId, { ...old.position });
  part.boreM = old.boreM;
  const carried = carriedLost(plan, old, part);
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
  return [...carried, ...(lost.length > 0 ? [{ code: "endsNoLongerMeet" as const, ids: lost }] : [])];
}

/** Turns a part end for end: what came in goes out. */
function turnPart(plan: Plan, id: Id): void {
  const part = partOf(plan, id);
  const through = found(throughPorts(part) ?? undefined, id);
  // A head with two of each turns both pairs.
  const [from, to] = through.map((end) => [
    end,
    ...portsOf(part)
      .filter(({ sameAs }) => sameAs === end)
      .map((port) => port.id),
  ]) as [Id[], Id[]];
  const across = new Map([
    ...from.map((port, i) => [port, to[i] as Id] as const),
    ...to.map((port, i) => [port, from[i] as Id] as const),
  ]);
  for (const connection of [...plan.runs, ...plan.joints])
    for (const ref of [connection.from, connection.to])
      if (ref.part === id) ref.port = across.get(ref.port) ?? ref.port;
}

export const partCommands: Handlers<
  | "addPart"
  | "insertPart"
  | "replacePart"
  | "editPart"
  | "changeElement"
  | "takeFigures"
  | "removePart"
  | "turnPart"
> = {
  addPart: {
    run: (job, plan, { kind, id, position }) => register(plan, newPart(kind, id, position), job),
  },
  insertPart: {
    run: (job, plan, command) =>
      command.kind === "inTankPump" ? insertInTank(job, plan, command) : insertPart(job, plan, command),
  },
  replacePart: { run: replacePart },
  editPart: {
    record: (_, plan, { id }) => partOf(plan, id),
    run: (job, plan, command) => {
      const part = partOf(plan, command.id);
      editRecord<object>(part, command);
      // A port that goes must be free first: a hose is not let go of by a switch.
      const ports = portsOf(part).map(({ id }) => id);
      for (const connection of [...plan.runs, ...plan.joints])
        for (const ref of [connection.from, connection.to])
          if (ref.part === part.id && !ports.includes(ref.port))
            throw new CommandRefused("portTaken", ref.port);
      fitHoses(job, plan, command.id, { evenMeasured: false });
    },
  },
  changeElement: {
    run: (_, plan, { id, fittedOn }) => {
      const part = partOf(plan, id);
      const element = found((isFiltering(part) && part.element) || undefined, id);
      element.fittedOn = fittedOn;
      plan.conditions.loading[element.id] = 1;
    },
  },
  takeFigures: {
    run: (job, plan, { id, part: kept, ends }) => {
      const at = plan.parts.findIndex((one) => one.id === id);
      const part = partOf(plan, id);
      if (part.kind !== kept.kind || at < 0) throw new CommandRefused("otherKind", id);
      plan.parts[at] = withFigures(part as PlanPart, kept);
      if (Object.keys(ends).length > 0) plan.ends = { ...plan.ends, [id]: { ...ends } };
      fitHoses(job, plan, id, { evenMeasured: false });
    },
  },
  removePart: { run: (job, plan, { id }) => removePart(job, plan, id) },
  turnPart: {
    run: (job, plan, { id }) => {
      turnPart(plan, id);
      fitHoses(job, plan, id, { evenMeasured: true });
    },
  },
};
