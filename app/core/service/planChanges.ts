/** The element changes of a plan: what feeds meanwhile, what fills the new one, and what its place on a board allows. */
import { type BoardJudged } from "../boards/board";
import { bodySizeOf } from "../boards/envelope";
import type { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "../hydraulics/worst";
import { isFiltering, isPushing, isValve } from "../kinds/families";
import { hasBowl } from "../kinds/filtering";
import { kindOf } from "../kinds/index";
import type { Body } from "../kinds/kind";
import { freeFlowM3S } from "../kinds/pumping";
import type { Id } from "../kinds/record";
import { goesByRoad } from "../plan/road";
import type { Conditions, Job } from "../plan/types";
import { neighbourSettings, settingOf } from "../plan/valves";
import { type Change, cupFor, elementChange, type Served } from "./elementChange";

type Room = Body["room"][number]["use"];

export interface PlanChange {
  part: Served;
  change: Change;
  /** The valve before it that keeps its tank back, and what it feeds, where the plan has them. */
  valveId: Id | null;
  consumerId: Id | null;
  isDuplex: boolean;
  /** It hangs on a board, so that its rooms are known. */
  board: string | null;
}

const FLOWS_M3S = 1e-9;

/** Consumers that a run line-up feeds; none where one of them goes short. */
function fedBy({ result, lineUp }: LineUpVerdict): Id[] {
  if (lineUp.purpose !== "run" || result.outcome !== "solved") return [];
  const outcomes = [...result.consumers].filter(([, { outcome }]) => outcome !== "stopped");
  return outcomes.every(([, { outcome }]) => outcome === "fed") ? outcomes.map(([id]) => id) : [];
}

/** Whoever is fed through a filter is fed in another line-up without it, or with one handle turned. */
function isSpared(
  solver: LineUpSolver,
  conditions: Conditions,
  verdicts: readonly LineUpVerdict[],
  id: Id,
): boolean {
  const valves = solver.network.plan.parts.filter(isValve);
  const turned = ({ lineUp }: LineUpVerdict) =>
    valves.flatMap((valve) =>
      neighbourSettings(valve, settingOf(lineUp, valve)).map((setting) =>
        judgeLineUp(solver, { ...lineUp, valves: { ...lineUp.valves, [valve.id]: setting } }, conditions),
      ),
    );
  return verdicts.some((one) => {
    const fed = takes(one, id) ? fedBy(one) : [];
    if (fed.length === 0) return false;
    const spares = (other: LineUpVerdict) =>
      !takes(other, id) && fed.every((consumer) => fedBy(other).includes(consumer));
    return verdicts.some(spares) || turned(one).some(spares);
  });
}

const takes = ({ result }: LineUpVerdict, id: Id): boolean =>
  result.outcome === "solved" &&
  result.network.links.some(
    (link, i) =>
      link.kind === "filter" && link.part.id === id && Math.abs(result.flow[i] as number) > FLOWS_M3S,
  );

/** Rooms of a part that are taken or out of reach where it hangs. */
function blockedRooms(judged: BoardJudged, id: Id): Set<Room> {
  const part = judged.layout.parts.find((one) => one.id === id);
  const all = part ? kindOf(part).body.room.map(({ use }) => use) : [];
  return new Set(
    judged.clashes.flatMap(({ a, rooms }) => (a === id ? all.filter((use) => rooms.includes(use)) : [])),
  );
}

/**
 * @param conditions at which the line-ups are judged
 * @param boards the boards as they hang
 * @param kind of the job: on the road nothing is behind a hatch unless the plan has a cover before it
 */
export function planChanges(
  solver: LineUpSolver,
  conditions: Conditions,
  boards: readonly BoardJudged[],
  kind: Job["kind"],
): PlanChange[] {
  const isRoad = goesByRoad(kind);
  const { plan } = solver.network;
  const verdicts = plan.lineUps.map((lineUp) => judgeLineUp(solver, lineUp, conditions));
  const pumps = plan.parts.filter(isPushing);
  /** Pumps that stand before a filter on a way: what lies on their suction they do not fill. */
  const pushing = (id: Id) =>
    pumps.filter((pump) =>
      verdicts.some(({ way }) => {
        const feed = way?.stations.filter(({ side }) => side === "feed").map((station) => station.id) ?? [];
        const [at, own] = [feed.indexOf(pump.id), feed.indexOf(id)];
        return at >= 0 && at < own;
      }),
    );
  const valves = new Set(plan.parts.filter(isValve).map(({ id }) => id));
  /** Before a filter on its feed: the nearest valve, whether fuel stands over it, and what it feeds. */
  const before = (id: Id) => {
    for (const { way } of verdicts) {
      const feed = way?.stations.filter(({ side }) => side === "feed") ?? [];
      const own = feed.findIndex((station) => station.id === id);
      if (!way || own < 0) continue;
      const shuts = feed.slice(0, own).filter((station) => valves.has(station.id));
      const [tank] = feed;
      return {
        valveId: shuts.at(-1)?.id ?? null,
        consumerId: way.consumer?.id ?? null,
        isUnder: (tank?.zM ?? Infinity) > (feed[own]?.zM ?? 0),
      };
    }
    return { valveId: null, consumerId: null, isUnder: true };
  };
  return plan.parts.filter(isFiltering).flatMap((part): PlanChange[] => {
    if (part.kind !== "filter" && part.kind !== "pumpFilterUnit") return [];
    const judged = boards.find(({ layout }) => layout.parts.some(({ id }) => id === part.id));
    const cup = kindOf(part).body.room.find(({ use }) => use === "drainCup");
    const isDuplex = isSpared(solver, conditions, verdicts, part.id);
    const free = Math.max(0, ...pushing(part.id).map(({ curve }) => freeFlowM3S(curve)));
    const { valveId, consumerId, isUnder } = before(part.id);
    const change = elementChange({
      heldM3: part.volumeM3,
      housing: part.housing ?? "spinOn",
      hasSensor: part.sensorHeldM3 !== undefined,
      hasBowl: hasBowl(part, isRoad),
      hasHatch: !isRoad || plan.covers?.some(({ hides }) => hides.includes(part.id)) === true,
      heldBy: valveId !== null ? "valve" : isUnder ? "pinch" : "height",
      isDuplex,
      pumpM3S: free > 0 ? free : null,
      blocked: judged ? blockedRooms(judged, part.id) : new Set(),
      // Of a generic size it is not said that it spills.
      cupM3: judged && cup && part.size ? cupFor(bodySizeOf(part), cup.clearM) : null,
    });
    return [{ part, change, valveId, consumerId, isDuplex, board: judged?.layout.board.name ?? null }];
  });
}
