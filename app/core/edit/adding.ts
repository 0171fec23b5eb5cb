/** What is added to a plan where the hand points: one part, or the few that make one thing, joined as they come. */
import { isLetIn } from "../kinds/families";
import { newId } from "../kinds/ids";
import type { Engine } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import { type NewPartKind, newPart } from "../plan/blank";
import { freePorts } from "../plan/joining";
import { type PlacedPort, placedPorts, portKey, portsOf } from "../plan/ports";
import type { Job, Plan, PortRef } from "../plan/types";
import type { Command } from "./command";
import { throughPorts } from "./standing";

/** Parts that are one thing to whoever fits them. */
export type Group = "duplex" | "pumpWithBypass" | "teeWithTap" | "twinPort";
export type Thing =
  | { kind: "part"; part: NewPartKind }
  | { kind: "consumer"; consumer: Engine["kind"] }
  | { kind: "tank"; name: string }
  | { kind: "group"; group: Group };

/** On a hose, at a free port, or by itself. */
export type Spot = { kind: "hose"; runId: Id } | { kind: "port"; ref: PortRef } | { kind: "loose" };

export interface Adding {
  command: Command;
  /** What it came to: chosen next. */
  id: Id;
}

/** Beside what it is joined to, m. Common practice, no source. */
const BESIDE_M = 0.3;
/** The port that all ways of a valve lead to. */
const common: Partial<Record<NewPartKind, Id>> = { selector: "c", bank: "c" };
const LOOSE: Position = { xM: 1, yM: 0.2, zM: 0.6 };
/** Tanks and engines come one beside the other. */
const TANK_AT: Position = { xM: 2.2, yM: 0.4, zM: 0.2 };
const ENGINE_AT: Position = { xM: 0, yM: 0, zM: 0.5 };

/** Does fuel come out of a port? Of an engine's return it does, of a tank's it does not. */
const isGiving = (job: Job, { ref, role }: Pick<PlacedPort, "ref" | "role">): boolean =>
  role === "return"
    ? job.consumers.some(({ id }) => id === ref.part)
    : role === "out" || role === "outlet" || role === "either" || role === "branch";

/** Can it be put there? A tank or a consumer is let into nothing; a breather is joined, and never let in. */
export function fitsSpot(thing: Thing, spot: Spot): boolean {
  if (spot.kind === "loose") return true;
  if (thing.kind === "tank") return false;
  if (thing.kind === "consumer") return spot.kind === "port";
  if (spot.kind === "port") return true;
  return thing.kind === "group" || (isLetIn(thing.part) && thing.part !== "breatherValve");
}

/** The port that a thing is joined by to a port: the one whose use answers it. */
function answering(
  ports: readonly { id: Id; role: string }[],
  gives: boolean,
  through: readonly [Id, Id] | null,
): Id | undefined {
  if (through) return gives ? through[0] : through[1];
  const wanted = gives ? ["in", "feed", "either"] : ["out", "return", "either"];
  return (ports.find((port) => wanted.includes(port.role)) ?? ports[0])?.id;
}

function partAt(job: Job, plan: Plan, kind: NewPartKind, spot: Spot, id: Id): Command[] {
  if (spot.kind === "hose") return [{ name: "insertPart", id, kind, runId: spot.runId, newRunId: newId() }];
  if (spot.kind === "loose") return [{ name: "addPart", id, kind, position: LOOSE }];
  const far = placedPorts(job, plan).get(portKey(spot.ref));
  const position = far ? { ...far.position, xM: far.position.xM - BESIDE_M } : LOOSE;
  const part = newPart(kind, id, position);
  const gives = far === undefined || isGiving(job, far);
  // A valve of many ways takes a tank by a way of its own, and all else by what they have in common.
  const isTank = job.tanks.some(({ id: tank }) => tank === spot.ref.part);
  const port = !isTank && common[kind] ? common[kind] : answering(portsOf(part), gives, throughPorts(part));
  return [
    { name: "addPart", id, kind, position },
    ...(port === undefined ? [] : [joined(spot.ref, { part: id, port }, gives)]),
  ];
}

/** A hose from what gives to what takes. */
const joined = (spot: PortRef, own: PortRef, gives: boolean): Command =>
  gives
    ? { name: "connect", id: newId(), from: spot, to: own }
    : { name: "connect", id: newId(), from: own, to: spot };

/** A branch beside a chain of parts: from a tee before it to a tee behind it. */
function beside(first: Id, last: Id, chain: readonly { id: Id; from: Id; to: Id }[]): Command[] {
  const stops: [PortRef, PortRef][] = [];
  let from: PortRef = { part: first, port: "c" };
  for (const { id, from: inPort, to } of chain) {
    stops.push([from, { part: id, port: inPort }]);
    from = { part: id, port: to };
  }
  stops.push([from, { part: last, port: "c" }]);
  return stops.map(([a, b]): Command => ({ name: "connect", id: newId(), from: a, to: b }));
}

/** The first of a row stands where it was wanted, each other one behind it. */
function row(
  job: Job,
  plan: Plan,
  kinds: readonly NewPartKind[],
  spot: Spot,
): { ids: Id[]; commands: Command[] } {
  const ids = kinds.map(() => newId());
  if (spot.kind === "hose") {
    // Each is let into what is left of the hose behind the one before it.
    let runId = spot.runId;
    const commands = kinds.map((kind, i): Command => {
      const newRunId = newId();
      const command: Command = { name: "insertPart", id: ids[i] as Id, kind, runId, newRunId };
      runId = newRunId;
      return command;
    });
    return { ids, commands };
  }
  const commands: Command[] = [];
  let at = spot;
  kinds.forEach((kind, i) => {
    const id = ids[i] as Id;
    if (i === 0 || at.kind === "loose") commands.push(...partAt(job, plan, kind, at, id));
    else commands.push(...behind(kind, at.ref, id));
    const through = throughPorts(newPart(kind, id, LOOSE));
    at = through ? { kind: "port", ref: { part: id, port: through[1] } } : { kind: "loose" };
  });
  return { ids, commands };
}

function behind(kind: NewPartKind, from: PortRef, id: Id): Command[] {
  const through = throughPorts(newPart(kind, id, LOOSE));
  return [
    { name: "addPart", id, kind, position: LOOSE },
    ...(through ? [{ name: "connect" as const, id: newId(), from, to: { part: id, port: through[0] } }] : []),
  ];
}

function groupAt(job: Job, plan: Plan, group: Group, spot: Spot): Adding {
  const loose = (kind: NewPartKind): { id: Id; command: Command } => {
    const id = newId();
    return { id, command: { name: "addPart", id, kind, position: LOOSE } };
  };
  const several = (commands: Command[], id: Id): Adding => ({ command: { name: "several", commands }, id });
  switch (group) {
    case "duplex": {
      const { ids, commands } = row(job, plan, ["tee", "twoWay", "filter", "tee"], spot);
      const [first, , filter, last] = ids as [Id, Id, Id, Id];
      const [valve, other] = [loose("twoWay"), loose("filter")];
      const branch = beside(first, last, [
        { id: valve.id, from: "a", to: "b" },
        { id: other.id, from: "in", to: "out" },
      ]);
      return several([...commands, valve.command, other.command, ...branch], filter);
    }
    case "pumpWithBypass": {
      const { ids, commands } = row(job, plan, ["tee", "liftPump", "tee"], spot);
      const [first, pump, last] = ids as [Id, Id, Id];
      const check = loose("check");
      const [a, b] = throughPorts(newPart("check", check.id, LOOSE)) as [Id, Id];
      return several(
        [...commands, check.command, ...beside(first, last, [{ id: check.id, from: a, to: b }])],
        pump,
      );
    }
    case "twinPort": {
      const { ids, commands } = row(job, plan, ["filter"], spot);
      const id = ids[0] as Id;
      return several([...commands, { name: "editPart", id, change: { isTwin: true } }], id);
    }
    case "teeWithTap": {
      const { ids, commands } = row(job, plan, ["tee"], spot);
      const tap = loose("twoWay");
      const tee = ids[0] as Id;
      return several(
        [
          ...commands,
          tap.command,
          { name: "connect", id: newId(), from: { part: tee, port: "c" }, to: { part: tap.id, port: "a" } },
        ],
        tap.id,
      );
    }
  }
}

/** A thing and where it goes, as one command: one step of undo. */
export function adding(job: Job, plan: Plan, thing: Thing, spot: Spot): Adding {
  const at = fitsSpot(thing, spot) ? spot : ({ kind: "loose" } as const);
  const one = (commands: Command[], id: Id): Adding => ({
    command: commands.length === 1 ? (commands[0] as Command) : { name: "several", commands },
    id,
  });
  const id = newId();
  switch (thing.kind) {
    case "part":
      return one(partAt(job, plan, thing.part, at, id), id);
    case "group":
      return groupAt(job, plan, thing.group, at);
    case "tank": {
      const position = { ...TANK_AT, yM: TANK_AT.yM - 1.2 * job.tanks.length };
      return one([{ name: "addTank", id, tankName: thing.name, position }], id);
    }
    case "consumer": {
      const { consumer: kind } = thing;
      const engineName = { engine: "Engine", generator: "Generator", heater: "Heater" }[kind];
      const position = { ...ENGINE_AT, yM: ENGINE_AT.yM - 0.5 * job.consumers.length };
      const commands: Command[] = [{ name: "addEngine", id, kind, engineName, position }];
      if (at.kind === "port")
        commands.push({ name: "connect", id: newId(), from: at.ref, to: { part: id, port: "feed" } });
      return one(commands, id);
    }
  }
}

/** Where something is put when a thing is chosen: on a hose, at the free end of a part, at a free outlet of a tank. */
export function spotOf(
  job: Job,
  plan: Plan,
  chosen: Id | null,
  free: readonly Pick<PlacedPort, "ref" | "role">[],
): Spot {
  if (plan.runs.some(({ id }) => id === chosen)) return { kind: "hose", runId: chosen as Id };
  const own = free.filter(({ ref }) => ref.part === chosen);
  // Of a tank's outlets the one that came last is meant; a consumer is fed before its return is led anywhere.
  const at =
    own.findLast(({ role }) => role === "outlet") ??
    own.find(({ role }) => role === "out" || role === "feed") ??
    own.find((port) => isGiving(job, port));
  return at ? { kind: "port", ref: at.ref } : { kind: "loose" };
}

/** Where the next of a row goes: at a free port of what was just added, else into the hose behind it. */
export function nextSpot(job: Job, plan: Plan, added: Id | null): Spot {
  const spot = spotOf(job, plan, added, freePorts(job, plan));
  const behind = spot.kind === "loose" ? plan.runs.find(({ from }) => from.part === added) : undefined;
  return behind ? { kind: "hose", runId: behind.id } : spot;
}

/** What is at hand once a port is joined: what it is of while that has more to give, else what it was joined to. */
export function nextAtHand(
  job: Job,
  free: readonly Pick<PlacedPort, "ref" | "role">[],
  from: PortRef,
  to: PortRef,
): Id {
  const givesMore = free.some(
    (port) => port.ref.part === from.part && portKey(port.ref) !== portKey(from) && isGiving(job, port),
  );
  return givesMore ? from.part : to.part;
}
