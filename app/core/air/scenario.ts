/** What is wrong with a line that is practised on: chosen by a seed, hidden in the model, named when it was found. */
import type { FuelWay } from "../hydraulics/route";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, lowestUsableM3 } from "../hydraulics/worst";
import { isConsumer, isFiltering } from "../kinds/families";
import type { Id } from "../kinds/record";
import { buildNetwork, type Network } from "../network/network";
import { partsOf } from "../plan/ports";
import type { Conditions, PortRef } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { seeded } from "../random/seeded";
import { bledWay } from "./bleed";
import { fillContent } from "./content";
import { answeredCells, drawnCells, wayCells } from "./joints";
import { moverLinks } from "./movers";
import type { ProcedureTask } from "./procedure";
import { AirSession, type JointKey } from "./session";

export type Scenario =
  /** A joint before the pump lets air in: a washer doubled, a nut finger tight. */
  | { kind: "suctionLeak"; joint: JointKey; partId: Id }
  | { kind: "shutValve"; partId: Id }
  /** A filter that was put back dry. */
  | { kind: "emptyFilter"; partId: Id }
  | { kind: "lowTank"; partId: Id }
  /** A check or an anti-siphon valve against the flow. */
  | { kind: "turnedCheck"; partId: Id }
  /** Behind a bulb: squeezed, it goes hard and brings nothing. */
  | { kind: "bulbAgainstShut"; partId: Id }
  /** Under a banjo: it draws before the pump, and weeps behind it. */
  | { kind: "doubledWasher"; joint: JointKey; partId: Id }
  /** The vehicle leans, and its tank is a quarter full. */
  | { kind: "leaning"; partId: Id; rollDeg: number };

/** Holes that let in a stream of bubbles and no flood, m2. Common practice, no source. */
const LEAK_M2 = [0.05e-6, 0.1e-6, 0.2e-6] as const;
const WASHER_M2 = 0.03e-6;
const LOW_SHARE = 0.25;
/** It leans as far as fuel still finds its way; so far at the most. */
const LEANS_DEG = [12, 8, 4] as const;

const pick = <T>(random: () => number, items: readonly T[]): T | undefined =>
  items[Math.floor(random() * items.length)];

/** Everything that could be wrong with this line: what the trainee chooses from. */
export function scenariosOf(task: ProcedureTask): Scenario[] {
  const session = AirSession.start(task.network, task.lineUp, task.conditions);
  if (!session) return [];
  const { model } = session;
  const { network, way } = task;
  const movers = new Set(moverLinks(network).keys());
  const answered = answeredCells(model, way);
  const drawn = drawnCells(model, answered, movers);
  const onWay = new Set(wayCells(model, way));
  const parts = new Map(partsOf(network.job, network.plan).map((part) => [part.id, part]));
  const leaks = network.nodes.flatMap((node, index): Scenario[] => {
    const joint = node.ports[0];
    const partId = joint?.split(".")[0];
    const cell = model.mesh.cellOfNode[index] as number;
    if (
      joint === undefined ||
      partId === undefined ||
      !parts.has(partId) ||
      !drawn.has(cell) ||
      !onWay.has(cell)
    )
      return [];
    return [{ kind: "suctionLeak", joint, partId }];
  });
  const stations = way.stations.filter(({ side }) => side === "feed").map(({ id }) => id);
  const bulbAt = stations.findIndex((id) => parts.get(id)?.kind === "bulb");
  const valves = stations.flatMap((id, i): Scenario[] => {
    if (parts.get(id)?.kind !== "twoWay") return [];
    return [{ kind: bulbAt >= 0 && i > bulbAt ? "bulbAgainstShut" : "shutValve", partId: id }];
  });
  const checks = stations.flatMap((id): Scenario[] => {
    const kind = parts.get(id)?.kind;
    return kind === "check" || kind === "antiSiphon" ? [{ kind: "turnedCheck", partId: id }] : [];
  });
  const washers = network.nodes.flatMap((node, index): Scenario[] => {
    const isAnswered = answered.includes(model.mesh.cellOfNode[index] as number);
    return node.ports.flatMap((joint): Scenario[] => {
      const [partId = "", port = ""] = joint.split(".");
      // A filter or an engine of which nobody has said what its ports end in may well have banjos.
      const part = parts.get(partId);
      const family = network.plan.ends?.[partId]?.[port]?.family;
      const isBanjo =
        family === "eye" || (!family && part !== undefined && (isFiltering(part) || isConsumer(part)));
      return isAnswered && isBanjo ? [{ kind: "doubledWasher", joint, partId }] : [];
    });
  });
  const filters = stations.flatMap((id): Scenario[] =>
    model.mesh.jugOf.has(id) ? [{ kind: "emptyFilter", partId: id }] : [],
  );
  const tank = stations[0];
  return [
    ...leaks,
    ...valves,
    ...checks,
    ...washers,
    ...filters,
    ...(tank === undefined ? [] : [{ kind: "lowTank" as const, partId: tank }, ...leaning(task, tank)]),
  ];
}

/** One of them by a seed, each kind as likely; null where nothing can be wrong. */
export function scenarioBySeed(task: ProcedureTask, seed: number): Scenario | null {
  const all = scenariosOf(task);
  const random = seeded(seed);
  const kind = pick(random, [...new Set(all.map((one) => one.kind))]);
  return (
    pick(
      random,
      all.filter((one) => one.kind === kind),
    ) ?? null
  );
}

/** With its tank a quarter full, no lower than can be drawn; leaning where that is what is wrong. */
function conditionsOf({ conditions, network }: ProcedureTask, scenario: Scenario): Conditions {
  if (scenario.kind !== "lowTank" && scenario.kind !== "leaning") return conditions;
  const { partId } = scenario;
  const aboardM3 = conditions.aboardM3[partId] ?? 0;
  const leastM3 = lowestUsableM3(network.job)[partId] ?? 0;
  const low = {
    ...conditions,
    aboardM3: {
      ...conditions.aboardM3,
      [partId]: Math.min(aboardM3, Math.max(leastM3, LOW_SHARE * aboardM3)),
    },
  };
  if (scenario.kind === "lowTank") return low;
  return { ...low, trim: { pitchDeg: conditions.trim?.pitchDeg ?? 0, rollDeg: scenario.rollDeg } };
}

/** The way at these conditions; null where fuel finds none. */
function wayAt({ network, lineUp }: ProcedureTask, conditions: Conditions): FuelWay | null {
  const solver = new LineUpSolver(network);
  return bledWay(solver, judgeLineUp(solver, lineUp, conditions), conditions).from?.way ?? null;
}

function leaning(task: ProcedureTask, tank: Id): Scenario[] {
  for (const rollDeg of LEANS_DEG) {
    const one: Scenario = { kind: "leaning", partId: tank, rollDeg };
    if (wayAt(task, conditionsOf(task, one))) return [one];
  }
  return [];
}

/** The task as it is with that wrong: where things stand, and which way fuel goes. */
export function wrongTask(task: ProcedureTask, scenario: Scenario): ProcedureTask {
  const conditions = conditionsOf(task, scenario);
  if (scenario.kind === "turnedCheck")
    return { ...task, conditions, network: turned(task.network, scenario.partId) };
  const way = scenario.kind === "leaning" ? wayAt(task, conditions) : null;
  return { ...task, conditions, way: way ?? task.way };
}

/** The network in which a part stands the other way round. */
function turned(network: Network, partId: Id): Network {
  const other: Readonly<Record<string, Id>> = { in: "out", out: "in", a: "b", b: "a" };
  const turn = (ref: PortRef): PortRef =>
    ref.part === partId ? { ...ref, port: other[ref.port] ?? ref.port } : ref;
  const { job, plan } = network;
  const around = <T extends { from: PortRef; to: PortRef }>(items: readonly T[]): T[] =>
    items.map((item) => ({ ...item, from: turn(item.from), to: turn(item.to) }));
  const next = { ...plan, runs: around(plan.runs), joints: around(plan.joints) };
  return buildNetwork({ ...job, plans: job.plans.map((one) => (one.id === plan.id ? next : one)) });
}

/** A session in which it is so, and nothing else; the line as it would be found: full, or as the fault left it. */
export function startWrong(right: ProcedureTask, scenario: Scenario, seed: number): AirSession | null {
  const task = wrongTask(right, scenario);
  const session = AirSession.start(task.network, task.lineUp, task.conditions);
  if (!session) return null;
  switch (scenario.kind) {
    case "suctionLeak": {
      for (const cell of answeredCells(session.model, task.way)) session.model.fill(cell, 1);
      session.leak(scenario.joint, pick(seeded(seed + 1), LEAK_M2) ?? LEAK_M2[0]);
      break;
    }
    case "emptyFilter":
      fillContent(session, { kind: "filterChanged", partId: scenario.partId }, task.way);
      break;
    case "doubledWasher":
      for (const cell of answeredCells(session.model, task.way)) session.model.fill(cell, 1);
      session.leak(scenario.joint, WASHER_M2);
      break;
    case "bulbAgainstShut":
    case "shutValve": {
      fillContent(session, { kind: "dry" }, task.way);
      const valve = task.network.plan.parts.find(({ id }) => id === scenario.partId);
      const shut =
        valve?.kind === "twoWay" ? positionsOf(valve).find(({ joins }) => joins.length === 0) : undefined;
      if (shut)
        session.act({ do: "valve", id: scenario.partId, setting: { kind: "position", position: shut.id } });
      break;
    }
    case "turnedCheck":
    case "leaning":
    case "lowTank":
      fillContent(session, { kind: "dry" }, task.way);
      break;
  }
  return session;
}
