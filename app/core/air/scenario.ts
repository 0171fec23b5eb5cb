/** What is wrong with a line that is practised on: chosen by a seed, hidden in the model, named when it was found. */
import { lowestUsableM3 } from "../hydraulics/worst";
import type { Id } from "../kinds/record";
import { partsOf } from "../plan/ports";
import type { Conditions } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { seeded } from "../random/seeded";
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
  | { kind: "lowTank"; partId: Id };

/** Holes that let in a stream of bubbles and no flood, m2. Common practice, no source. */
const LEAK_M2 = [0.05e-6, 0.1e-6, 0.2e-6] as const;
const LOW_SHARE = 0.25;

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
  const valves = stations.flatMap((id): Scenario[] =>
    parts.get(id)?.kind === "twoWay" ? [{ kind: "shutValve", partId: id }] : [],
  );
  const filters = stations.flatMap((id): Scenario[] =>
    model.mesh.jugOf.has(id) ? [{ kind: "emptyFilter", partId: id }] : [],
  );
  const tank = stations[0];
  return [
    ...leaks,
    ...valves,
    ...filters,
    ...(tank === undefined ? [] : [{ kind: "lowTank" as const, partId: tank }]),
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

/** A session in which it is so, and nothing else; the line as it would be found: full, or as the fault left it. */
export function startWrong(task: ProcedureTask, scenario: Scenario, seed: number): AirSession | null {
  const conditions: Conditions =
    scenario.kind === "lowTank"
      ? {
          ...task.conditions,
          aboardM3: {
            ...task.conditions.aboardM3,
            [scenario.partId]: Math.min(
              task.conditions.aboardM3[scenario.partId] ?? 0,
              Math.max(
                lowestUsableM3(task.network.job)[scenario.partId] ?? 0,
                LOW_SHARE * (task.conditions.aboardM3[scenario.partId] ?? 0),
              ),
            ),
          },
        }
      : task.conditions;
  const session = AirSession.start(task.network, task.lineUp, conditions);
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
    case "shutValve": {
      fillContent(session, { kind: "dry" }, task.way);
      const valve = task.network.plan.parts.find(({ id }) => id === scenario.partId);
      const shut =
        valve?.kind === "twoWay" ? positionsOf(valve).find(({ joins }) => joins.length === 0) : undefined;
      if (shut)
        session.act({ do: "valve", id: scenario.partId, setting: { kind: "position", position: shut.id } });
      break;
    }
    case "lowTank":
      fillContent(session, { kind: "dry" }, task.way);
      break;
  }
  return session;
}
