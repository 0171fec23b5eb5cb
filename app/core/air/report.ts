/** Bleeding and moving air as scripts read them. Field names are the contract; millilitres, seconds, shares of one. */
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, lowestUsableM3 } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { crossedPump, primedBy } from "../plan/crossover";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp, Schools } from "../plan/types";
import { LITRE_M3 } from "../units/factors";
import { bledWay } from "./bleed";
import { type Content, fillContent } from "./content";
import { airIn, reachOf } from "./joints";
import {
  bleedProcedure,
  onABadDay,
  type Procedure,
  type ProcedureStep,
  type ProcedureTask,
  replay,
} from "./procedure";
import { type AirAction, type AirRefusal, AirSession } from "./session";

const ml = (m3: number): number => (m3 / LITRE_M3) * 1000;

/** The task of a line-up: its network, its way, what its lines hold; null where nothing leads from a tank to a consumer. */
export function bleedTask(
  job: Job,
  lineUp: LineUp,
  content: Content,
  { endId, pumpShare }: Pick<ProcedureTask, "endId" | "pumpShare"> = {},
): ProcedureTask | null {
  const plan = currentPlan(job);
  const network = buildNetwork(job);
  const solver = new LineUpSolver(network);
  const crossed = crossedPump(plan, lineUp);
  const asPrimed = crossed ? primedBy(lineUp, crossed) : lineUp;
  const { from } = bledWay(solver, judgeLineUp(solver, asPrimed, plan.conditions), plan.conditions);
  if (!from?.way) return null;
  return {
    network,
    lineUp,
    conditions: plan.conditions,
    way: from.way,
    content,
    endId,
    pumpShare,
    crossingId: crossed?.valveId,
  };
}

/** A procedure with what it is worth: played again, and on three bad days. */
export interface Proved {
  procedure: Procedure;
  proof: { replayed: number | null; weakPump: number | null; cold: number | null; lowest: number | null };
}

export function provedBleed(
  job: Job,
  task: ProcedureTask,
  schools: Schools,
  onTry?: (tries: number) => void,
): Proved | null {
  const procedure = bleedProcedure(task, schools, onTry);
  if (!procedure) return null;
  const lowest = lowestUsableM3(job);
  const day = (one: "weakPump" | "cold" | "lowest") => onABadDay(task, procedure, one, lowest);
  return {
    procedure,
    proof: {
      replayed: replay(task, procedure.actions),
      weakPump: day("weakPump"),
      cold: day("cold"),
      lowest: day("lowest"),
    },
  };
}

const valveAction = (action: Extract<AirAction, { do: "valve" }>) => ({
  do: action.do,
  id: action.id,
  ...(action.setting.kind === "position"
    ? { position: action.setting.position }
    : { open: action.setting.kind === "branches" ? action.setting.open : [] }),
});

/** An action as a file has it. */
export const actionOut = (action: AirAction) =>
  action.do === "pour"
    ? { do: action.do, id: action.id, ml: ml(action.m3) }
    : action.do === "valve"
      ? valveAction(action)
      : action;

function stepOut(step: ProcedureStep) {
  const actions = step.actions.map(actionOut);
  switch (step.kind) {
    case "valves":
      return { kind: step.kind, isBack: step.isBack, ids: step.ids, actions };
    case "fill":
      return {
        kind: step.kind,
        isAgain: step.isAgain,
        vessels: step.vessels.map(({ partId, pouredM3, shutIds, isToInlet }) => ({
          id: partId,
          pouredMl: ml(pouredM3),
          shut: shutIds,
          isToInlet,
        })),
        actions,
      };
    case "runOn":
      return {
        kind: step.kind,
        isAgain: step.isAgain,
        by: step.by,
        seconds: step.seconds,
        strokes: step.strokes,
        presses: step.presses,
        through: step.through,
        fillsMl: ml(step.fillsM3),
        actions,
      };
    case "bleed":
      return {
        kind: step.kind,
        isAgain: step.isAgain,
        joint: step.joint.key,
        jointKind: step.joint.kind,
        overFuelM: step.joint.overFuelM,
        by: step.by,
        seconds: step.seconds,
        strokes: step.strokes,
        presses: step.presses,
        fillsMl: ml(step.fillsM3),
        panMl: ml(step.panM3),
        isSolid: step.isSolid,
        dryS: step.dryS,
        goes: step.goes,
        actions,
      };
  }
}

/** Volumes of a reason in millilitres, the rest as it is. */
const reasonOut = (reason: Procedure["whyNot"][number]) => {
  if (!("airM3" in reason)) return reason;
  const { airM3, ...rest } = reason;
  return { ...rest, airMl: ml(airM3) };
};

export function bleedReport(job: Job, lineUp: LineUp, schools: Schools, content: Content) {
  const head = { lineup: lineUp.id, content };
  const task = bleedTask(job, lineUp, content);
  const proved = task && provedBleed(job, task, schools);
  if (!proved) return { ...head, outcome: "noPath" as const };
  const { procedure, proof } = proved;
  return {
    ...head,
    outcome: procedure.isBled ? ("bled" as const) : ("airStays" as const),
    steps: procedure.steps.map(stepOut),
    airMl: ml(procedure.airM3),
    roomMl: ml(procedure.roomM3),
    left: procedure.left,
    pouredMl: ml(procedure.pouredM3),
    panMl: ml(procedure.panM3),
    panRoomL: procedure.panRoomM3 / LITRE_M3,
    seconds: procedure.seconds,
    dry: procedure.dry,
    whyNot: procedure.whyNot.map(reasonOut),
    where: procedure.where.map(({ at, airM3 }) => ({ at, airMl: ml(airM3) })),
    proof,
  };
}

/** What stood there at a moment: air of the line, what came at each joint, what pumps did. */
function stateOut(session: AirSession, cells: readonly number[], after: number | null) {
  const { airM3, roomM3 } = airIn(session.model, cells);
  return {
    atS: session.atS,
    after,
    airMl: ml(airM3),
    left: roomM3 > 0 ? airM3 / roomM3 : 0,
    joints: Object.fromEntries(
      [...session.came].map(([key, { fuelM3, airM3: air, drawnM3, solidS }]) => [
        key,
        { isOpen: session.isOpen(key), fuelMl: ml(fuelM3), airMl: ml(air), drawnMl: ml(drawnM3), solidS },
      ]),
    ),
    pouredMl: Object.fromEntries([...session.poured].map(([id, m3]) => [id, ml(m3)])),
    dryS: Object.fromEntries(session.dryS),
  };
}

/**
 * Actions played on a line-up, with the state after each; long waits are told every `everyS` seconds.
 * @returns null where nothing leads from a tank; `refused` with the place of the action that could not be done
 */
export function airReport(
  job: Job,
  lineUp: LineUp,
  actions: readonly AirAction[],
  content: Content,
  everyS: number,
) {
  const task = bleedTask(job, lineUp, content);
  const session = task && AirSession.start(task.network, lineUp, task.conditions);
  if (!task || !session) return null;
  fillContent(session, content, task.way);
  const { cells } = reachOf(session.model, task);
  const states = [stateOut(session, cells, null)];
  let refused: (AirRefusal & { action: number }) | null = null;
  for (const [i, action] of actions.entries()) {
    const waits = action.do === "wait" ? Math.max(1, Math.ceil(action.seconds / everyS)) : 1;
    for (let k = 0; k < waits && !refused; k++) {
      const part: AirAction = action.do === "wait" ? { do: "wait", seconds: action.seconds / waits } : action;
      const found = session.act(part);
      if (found) refused = { ...found, action: i };
      else states.push(stateOut(session, cells, i));
    }
    if (refused) break;
  }
  return { lineup: lineUp.id, roomMl: ml(airIn(session.model, cells).roomM3), states, refused };
}
