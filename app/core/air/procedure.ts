/**
 * How a line-up is bled: which joint is opened, what is run, and when it is shut, found by trying it in the model. Joints
 * are gone through from the tank to the consumer; at each the first way that brings solid fuel is taken: by itself, by
 * what stands before it, or after vessels before the pump were filled by hand. What is left is swept. The written steps are
 * then played again from the start: with the same hands they end the same; a weaker pump, cold fuel and the lowest level
 * show what a bad day does to them.
 */
import { isPetrol } from "../fuel/grades";
import type { FuelWay } from "../hydraulics/route";
import { isFiltering } from "../kinds/families";
import type { Id } from "../kinds/record";
import { clearingMS, FUEL_TENSION_N_M } from "../laws/bubbles";
import { linkKindOf } from "../network/links";
import type { Network } from "../network/network";
import type { Conditions, LineUp, Plan, Schools, ValveSetting } from "../plan/types";
import { schoolOf } from "../plan/types";
import { areaM2 } from "../units/bore";
import { type Content, fillContent } from "./content";
import { AirFault } from "./flow";
import { handle, sparesOf, valvesBefore } from "./handles";
import { airIn, answeredCells, type BleedJoint, drawnCells, reachOf, wayCells } from "./joints";
import { handStrokesS, leverOf } from "./movers";
import { type AirAction, AirSession, lidKey, partOfMover, QUARTERS_OFF, type SavedSession } from "./session";

/** Air left by volume from pickup to consumer under which a bleed has ended. */
export const ENOUGH = 0.001;
/**
 * What an engine passes of itself as it is cranked, of the room, beside what rests over the outlets of filter heads, which
 * comes through a little at a time. Common practice, no source.
 */
const PASSED_SHARE = 0.03;
/** Fuel that has run solid so long is not spat at by the next bubble. Common practice, no source. */
const SOLID_S = 3;
/** A joint this far under the fuel runs by itself. */
const UNDER_M = 0.03;
/** Nobody waits longer at a joint. */
const MOST_GRAVITY_S = 240;
const MOST_PUMP_S = 180;
/** Most seconds that a pump may run dry, and presses of a timed pump. Common practice, no source; the maker's figure goes first. */
export const mostDryS = { lift: 15, dosing: 60 } as const;
/** A try is given up when the pump has run dry so many times what it may. */
const GIVE_UP_DRY = 3;
export const KEY_CYCLE_S = 3;
const MOST_TURNS = 3;
/** A tank that is carried, or a can in its place, is held so high. Common practice, no source. */
export const LIFTED_M = 0.8;
/** A vessel with less than this in it is filled. */
const FULL_SHARE = 0.98;
const WORTH_M3 = 1e-6;
/** Nobody lifts a lid for less than a spoonful, or than this share of all that the line holds. */
const TOP_UP_M3 = 5e-6;
const TOP_UP_SHARE = 0.0005;
/** Where nothing has moved for so long nothing will. */
const IDLE_S = 10;
const IDLE_M3 = 0.1e-6;
const IDLE_SHARE = 0.01;
/** What ends in a tank is run on until it clears by itself, so long at the most. */
const MOST_RUN_ON_S = 120;
/** Pan: what comes, a third more, up to the next half litre. Common practice, no source. */
/** Of the last joint as it is run once more: more flow takes with it what clings to a slope. */
export const WIDE_QUARTERS = 4;
const PAN_MORE = 1.3;
const PAN_STEP_M3 = 0.5e-3;
/** A hand's seconds differ so much from the model's. Common practice, no source. */
export const secondsRange = { least: 0.8, most: 1.3 } as const;

interface Moved {
  id: Id;
  kind: MoverKind;
  key: Id;
}

export type MoverKind = "gravity" | "lifted" | "pump" | "bulb" | "lever" | "primer";

export interface Filled {
  partId: Id;
  name: string;
  pouredM3: number;
  /** Valves shut first, so that what is poured does not run back; none where there are none. */
  shutIds: Id[];
  /** Nothing shuts it off from the tank: it fills no higher than its inlet. */
  isToInlet: boolean;
}

export type ProcedureStep =
  /** Spare filters are bled with the rest: their valves stand open meanwhile, and are put back. */
  | { kind: "valves"; isBack: boolean; ids: Id[]; actions: AirAction[] }
  | { kind: "fill"; isAgain: boolean; vessels: Filled[]; actions: AirAction[] }
  | {
      kind: "bleed";
      isAgain: boolean;
      joint: BleedJoint;
      by: { kind: MoverKind; id: Id | null };
      seconds: number;
      /** Strokes of the hand, or presses of a timed pump; null where it simply runs. */
      strokes: number | null;
      presses: number | null;
      /** What it fills, and what comes out of the joint. */
      fillsM3: number;
      panM3: number;
      isSolid: boolean;
      /** Dry in one go, and goes with a rest between them: a dosing pump that is dry cools and is tried again. */
      dryS: number;
      goes: number;
      dryLimitS: number;
      actions: AirAction[];
    }
  /** Nothing is opened: what runs carries the air on into a tank, or through the consumer. */
  | {
      kind: "runOn";
      isAgain: boolean;
      by: { kind: MoverKind; id: Id | null };
      seconds: number;
      /** Squeezes of a bulb or strokes of a lever, presses of a timed pump; null where it simply runs. */
      strokes: number | null;
      presses: number | null;
      /** Consumer that takes what comes; null where it goes on into a tank. */
      through: Id | null;
      fillsM3: number;
      actions: AirAction[];
    };

export type WhyNot =
  | { code: "noPath" }
  /** No pump, bulb or primer, and no joint that lies under the fuel. */
  | { code: "underVacuum"; at: string; overFuelM: number }
  | { code: "dryLift"; at: string; dryS: number; limitS: number }
  /** A slope down which what flows carries no air. */
  | { code: "notSwept"; at: string; airM3: number; hadMS: number; needsMS: number }
  | { code: "headHolds"; at: string; airM3: number }
  /** A vessel before the pump that no valve shuts off: what is poured into it runs back to the tank. */
  | { code: "runsBack"; at: string; airM3: number }
  | { code: "deadLeg"; at: string; airM3: number }
  /** What flows would carry it, and has not. */
  | { code: "stays"; at: string; airM3: number };

export interface Procedure {
  steps: ProcedureStep[];
  /** All actions of all steps, from the start. */
  actions: AirAction[];
  airM3: number;
  roomM3: number;
  /** Air left as a share of the room from pickup to consumer. */
  left: number;
  /** No air is left, or where nothing is opened no more than the engine passes. */
  isBled: boolean;
  pouredM3: number;
  panM3: number;
  /** Room that the pan should have. */
  panRoomM3: number;
  seconds: number;
  whyNot: WhyNot[];
  /** Seconds dry by pump, over its limit or not. */
  dry: { id: Id; seconds: number; limitS: number }[];
  /** Where the air is that is left: run or part, m3, the most first. */
  where: { at: string; airM3: number }[];
}

export interface ProcedureTask {
  network: Network;
  lineUp: LineUp;
  conditions: Conditions;
  way: FuelWay;
  content: Content;
  /** What its pumps give of their curves, as bleeds before have told; all of it without. */
  pumpShare?: number | undefined;
  /** Part at whose joint fuel is let out at last, a screw before the consumer; what lies behind it is left as it is. */
  endId?: Id | undefined;
  /** Handle of the way round a priming pump: shut while it primes, and the way leads through the pump. */
  crossingId?: Id | undefined;
}

function newestStart({ network, lineUp, conditions, pumpShare }: ProcedureTask): AirSession | null {
  const session = AirSession.start(network, lineUp, conditions);
  if (session) session.model.pumpShare = pumpShare ?? 1;
  return session;
}

/** Runs until it is enough, or until the model finds no step from there: what was reached is what there is. */
function runTo(session: AirSession, seconds: number, isDone: () => boolean): number {
  const before = session.atS;
  try {
    return session.run(seconds, isDone);
  } catch (fault) {
    if (!(fault instanceof AirFault)) throw fault;
    return session.atS - before;
  }
}

/** What sets a mover going, and what ends it. */
const moved = ({ kind, key }: Moved, isOn: boolean): AirAction =>
  kind === "lifted" ? { do: "lift", id: key, m: isOn ? LIFTED_M : 0 } : { do: "pump", id: key, on: isOn };

class Planner {
  readonly steps: ProcedureStep[] = [];
  readonly joints: BleedJoint[];
  private readonly cells: number[];
  private readonly way: Set<number>;
  /** Handles that stand otherwise while it is bled, and how they stood. */
  private readonly turned: { id: Id; was: ValveSetting | undefined }[];
  private readonly drawn: Set<number>;
  private readonly worthALid: number;
  private readonly movers: Moved[];
  private tries = 0;
  /** The way round the primer is shut. */
  private isCrossed = false;
  /** Through each face as the last joint ran. */
  private lastFlow = new Float64Array(0);

  constructor(
    private readonly session: AirSession,
    private readonly task: ProcedureTask,
    private readonly schools: Schools,
    private readonly onTry: (tries: number) => void,
  ) {
    const { model } = session;
    const { way } = task;
    this.way = new Set(wayCells(model, way));
    const spares = sparesOf(session, task, answeredCells(model, way), this.way);
    const { crossingId } = task;
    this.turned = [...(crossingId ? [crossingId] : []), ...spares].map((id) => ({
      id,
      was: session.valves[id],
    }));
    this.isCrossed = crossingId !== undefined;
    if (crossingId) this.steps.push(this.turn([crossingId], (id) => handle(task.network, id, false), false));
    if (spares.length > 0) this.steps.push(this.turn(spares, (id) => handle(task.network, id, true), false));
    const { cells, joints } = reachOf(model, task);
    this.cells = cells;
    this.joints = joints;
    this.movers = this.moversInOrder();
    this.drawn = drawnCells(model, this.cells, new Set(this.movers.map(({ id }) => id)));
    this.worthALid = Math.min(TOP_UP_M3, TOP_UP_SHARE * airIn(model, this.cells).roomM3);
  }

  private turn(ids: Id[], to: (id: Id) => ValveSetting | null, isBack: boolean): ProcedureStep {
    const actions = ids.flatMap((id): AirAction[] => {
      const setting = to(id);
      return setting ? [{ do: "valve", id, setting }] : [];
    });
    this.all(actions);
    return { kind: "valves", isBack, ids, actions };
  }

  private plan(): Plan {
    return this.task.network.plan;
  }

  /** What moves fuel, in the order that the school asks for it. */
  private moversInOrder(): Moved[] {
    const ids = this.joints.at(-1)?.movers ?? [];
    const primer = schoolOf(this.schools, "primer");
    const list = ids.flatMap((id): Moved[] => {
      const part = this.plan().parts.find((one) => one.id === id);
      if (!part) return [];
      if (part.kind === "bulb") return [{ id, kind: "bulb", key: id }];
      if (part.kind === "primingPump") return [{ id, kind: "primer", key: id }];
      const own = { id, kind: "pump" as const, key: id };
      return part.kind === "liftPump" && primer === "liftLever"
        ? [{ id, kind: "lever" as const, key: leverOf(id) }, own]
        : [own];
    });
    const rank = {
      bulb: primer === "bulb" ? 0 : 2,
      primer: primer === "electricBypass" ? 0 : 1,
      lever: 0,
      lifted: 0,
      pump: 3,
      gravity: 4,
    };
    return list.sort((a, b) => rank[a.kind] - rank[b.kind]);
  }

  private air(): number {
    return airIn(this.session.model, this.cells).airM3;
  }
  left(): number {
    const { airM3, roomM3 } = airIn(this.session.model, this.cells);
    return roomM3 > 0 ? airM3 / roomM3 : 0;
  }

  /** Is it bled? With everything closed what rests in heads is passed a little at a time, and the rest as it is cranked. */
  private isBled(): boolean {
    const { model } = this.session;
    if (this.left() <= ENOUGH) return true;
    if (!this.isClosed || this.steps.length === 0) return false;
    const heads = new Set(model.mesh.vesselOf.values());
    const { roomM3 } = airIn(model, this.cells);
    const loose = airIn(
      model,
      this.cells.filter((cell) => !heads.has(cell)),
    );
    return loose.airM3 <= PASSED_SHARE * roomM3;
  }

  private get isPetrol(): boolean {
    return isPetrol(this.task.network.job.fuel);
  }

  private limitOf(id: Id): number {
    const part = this.plan().parts.find((one) => one.id === partOfMover(id));
    const told = part && "dry" in part ? part.dry?.mostS : undefined;
    return told ?? (part?.kind === "dosingPump" ? mostDryS.dosing : mostDryS.lift);
  }

  private all(actions: readonly AirAction[]): void {
    for (const action of actions) {
      const refused = this.session.act(action);
      if (refused) throw new PlanFault(refused.code, refused.at);
    }
  }

  /** Opens a joint, moves, shuts it when it has run solid; the state stays as it ends. */
  private bleed(
    joint: BleedJoint,
    by: Moved | null,
    isAgain: boolean,
  ): Extract<ProcedureStep, { kind: "bleed" }> {
    this.tries += 1;
    this.onTry(this.tries);
    const { session } = this;
    const before = this.air();
    const dryBefore = by ? (session.dryS.get(by.key) ?? 0) : 0;
    const limit = by ? this.limitOf(by.id) : Number.POSITIVE_INFINITY;
    const start: AirAction[] = [
      { do: "open", joint: joint.key, ...(isAgain && joint.kind === "feed" && { quarters: WIDE_QUARTERS }) },
    ];
    if (by) start.push(moved(by, true));
    this.all(start);
    const dry = () => (by ? (session.dryS.get(by.key) ?? 0) - dryBefore : 0);
    const came = session.came.get(joint.key);
    const idle = this.idleness(() => (came?.fuelM3 ?? 0) + (came?.airM3 ?? 0));
    const clears = this.idleness(() => 0);
    const isPumped = by !== null && by.kind !== "lifted";
    const seconds = runTo(session, isPumped ? MOST_PUMP_S : MOST_GRAVITY_S, () => {
      if (dry() > GIVE_UP_DRY * limit) return true;
      const isSolid = (came?.solidS ?? 0) >= SOLID_S;
      // Run once more, it goes on as long as air goes with it.
      if (isAgain) return this.left() <= ENOUGH ? isSolid : clears();
      return isSolid || idle();
    });
    this.lastFlow = session.model.flow.slice();
    const end: AirAction[] = [{ do: "shut", joint: joint.key }];
    if (by) end.push(moved(by, false));
    this.all(end);
    const isSolid = (came?.solidS ?? 0) >= SOLID_S;
    // What never came is one long try, and is told as such.
    const goes = isSolid && this.isDosing(by) ? Math.max(1, Math.ceil(dry() / limit)) : 1;
    return {
      kind: "bleed",
      isAgain,
      joint,
      by: { kind: by?.kind ?? "gravity", id: by?.id ?? null },
      seconds,
      ...this.countedBy(by, seconds),
      fillsM3: Math.max(0, before - this.air()),
      panM3: came?.fuelM3 ?? 0,
      isSolid,
      dryS: dry() / goes,
      goes,
      dryLimitS: limit,
      actions: [...start, { do: "wait", seconds }, ...end],
    };
  }

  private isDosing(by: Moved | null): boolean {
    return this.plan().parts.some(({ id, kind }) => id === by?.id && kind === "dosingPump");
  }

  /** Seconds as a hand counts them: strokes, or presses of the key. */
  private countedBy(by: Moved | null, seconds: number): { strokes: number | null; presses: number | null } {
    const rate = by?.kind === "bulb" ? handStrokesS.bulb : by?.kind === "lever" ? handStrokesS.lever : null;
    const isTimed =
      by?.kind === "pump" &&
      !this.isDosing(by) &&
      (this.isPetrol || schoolOf(this.schools, "priming") === "keyCycles");
    return {
      strokes: rate === null ? null : Math.ceil(seconds * rate),
      presses: isTimed ? Math.ceil(seconds / KEY_CYCLE_S) : null,
    };
  }

  /** Tells when for some seconds next to nothing has come and no air has gone: at that pace it takes for ever. */
  private idleness(came: () => number): () => boolean {
    const { session } = this;
    let since = session.atS;
    let last = came() - this.air();
    return () => {
      if (session.atS - since < IDLE_S) return false;
      const now = came() - this.air();
      const isIdle = Math.abs(now - last) < Math.max(IDLE_M3, IDLE_SHARE * this.air());
      since = session.atS;
      last = now;
      return isIdle;
    };
  }

  /**
   * Nothing is opened: petrol is never let out into a pan, and with the school of key cycles a pump at the key, and a
   * return or the engine itself, carry the air away.
   */
  private get isClosed(): boolean {
    // A school that nobody chose opens what it must.
    const byKey = this.schools.priming === "keyCycles";
    const hasPump = this.movers.some(({ kind }) => kind === "pump");
    return this.task.way.consumer !== null && (this.isPetrol || (byKey && hasPump));
  }

  /** Runs what moves with everything shut, until no more air goes, or until fuel comes solid to who takes it. */
  private runOn(by: Moved, isAgain: boolean, through: Id | null = null): ProcedureStep {
    const { session } = this;
    const before = this.air();
    const take = (on: boolean): AirAction[] => (through === null ? [] : [{ do: "take", id: through, on }]);
    const start = [...take(true), moved(by, true)];
    this.all(start);
    const took = through === null ? undefined : session.took.get(through);
    const idle = this.idleness(() => (took?.fuelM3 ?? 0) + (took?.airM3 ?? 0));
    const seconds = runTo(session, through === null ? MOST_RUN_ON_S : MOST_PUMP_S, () =>
      took && took.solidS >= SOLID_S && (!isAgain || this.left() <= ENOUGH) ? true : idle(),
    );
    const end = [moved(by, false), ...take(false)];
    this.all(end);
    return {
      kind: "runOn",
      isAgain,
      by: { kind: by.kind, id: by.id },
      seconds,
      ...this.countedBy(by, seconds),
      through,
      fillsM3: Math.max(0, before - this.air()),
      actions: [...start, { do: "wait", seconds }, ...end],
    };
  }

  /** Vessels before the pump that are not full, spare ones with an open way to the suction too. */
  private lowVessels(least: (share: number, m3: number) => boolean): Id[] {
    const { mesh } = this.session.model;
    return this.plan().parts.flatMap((part) => {
      const cell = mesh.vesselOf.get(part.id);
      if (cell === undefined || !mesh.jugOf.has(part.id) || !this.drawn.has(cell)) return [];
      if (isFiltering(part) && part.kind !== "filter") return [];
      const volume = mesh.cells.volumeM3[cell] as number;
      const share = (this.session.model.fuelM3[cell] as number) / volume;
      return least(share, (1 - share) * volume) ? [part.id] : [];
    });
  }

  /** Lids off, valves before them shut, filled by hand, shut and opened again. */
  private fill(ids: readonly Id[], isAgain: boolean): Extract<ProcedureStep, { kind: "fill" }> {
    const { session, task } = this;
    const actions: AirAction[] = [];
    const vessels: Filled[] = [];
    const act = (action: AirAction) => {
      this.all([action]);
      actions.push(action);
    };
    for (const partId of ids) {
      const shutIds = valvesBefore(task.network, { ...task.lineUp, valves: session.valves }, partId);
      const handles = (shutIds ?? []).flatMap((id) => {
        const setting = handle(task.network, id, false);
        return setting ? [{ id, setting, was: session.valves[id] }] : [];
      });
      for (const { id, setting } of handles) act({ do: "valve", id, setting });
      const cell = session.model.mesh.vesselOf.get(partId) as number;
      const volume = session.model.mesh.cells.volumeM3[cell] as number;
      const before = session.poured.get(partId) ?? 0;
      act({ do: "open", joint: lidKey(partId), quarters: QUARTERS_OFF });
      // Where nothing holds it, what is poured runs back: no more than the vessel holds.
      act({ do: "pour", id: partId, m3: shutIds ? 2 * volume : volume });
      act({ do: "shut", joint: lidKey(partId) });
      for (const { id, was } of handles) if (was) act({ do: "valve", id, setting: was });
      vessels.push({
        partId,
        name: this.plan().parts.find(({ id }) => id === partId)?.name ?? partId,
        pouredM3: (session.poured.get(partId) ?? 0) - before,
        shutIds: handles.map(({ id }) => id),
        isToInlet: shutIds === null,
      });
    }
    return { kind: "fill", isAgain, vessels, actions };
  }

  /** The first way that brings solid fuel to a joint; its steps are kept, and the state is as they end. */
  private bringTo(joint: BleedJoint): boolean {
    const { session } = this;
    const start = session.save();
    const pumps = this.movers.filter(({ id }) => joint.movers.includes(id));
    const usable = [...this.liftFor(joint), ...pumps];
    let best: { steps: ProcedureStep[]; end: SavedSession; isSolid: boolean; over: number } | null = null;
    const consider = (steps: ProcedureStep[], last: Extract<ProcedureStep, { kind: "bleed" }>): boolean => {
      const over = Math.max(0, last.dryS - last.dryLimitS);
      if (!best || Number(last.isSolid) - over > Number(best.isSolid) - best.over)
        best = { steps, end: session.save(), isSolid: last.isSolid, over };
      return last.isSolid && over === 0;
    };
    const isLast = joint === this.joints.at(-1);
    const settle = (): boolean => {
      // What brought nothing is left out; at the last joint it is what there is.
      if (!best || !(best.isSolid || isLast)) {
        session.load(start);
        return false;
      }
      session.load(best.end);
      this.steps.push(...best.steps);
      return best.isSolid;
    };
    // A dead leg wants more than what trickles: where something pushes, that.
    const isTrickle = joint.kind === "deadEnd" && usable.length > 0;
    if (joint.overFuelM < -UNDER_M && !isTrickle) {
      const step = this.bleed(joint, null, false);
      if (consider([step], step)) return settle();
      session.load(start);
    }
    for (const mover of usable) {
      const step = this.bleed(joint, mover, false);
      if (consider([step], step)) return settle();
      session.load(start);
    }
    const first = usable[0];
    if (first) {
      const low = this.lowVessels((share) => share < FULL_SHARE);
      if (low.length > 0) {
        const fill = this.fill(low, false);
        const filled = session.save();
        for (const mover of usable) {
          const step = this.bleed(joint, mover, false);
          if (consider([fill, step], step)) return settle();
          session.load(filled);
        }
      }
    }
    return settle();
  }

  /** The tank, or a can in its place, lifted: by the school that does so, where it stands over the joint then. */
  private liftFor({ overFuelM }: BleedJoint): Moved[] {
    const id = this.task.way.stations[0]?.id;
    if (id === undefined || this.isPetrol || schoolOf(this.schools, "priming") !== "tankLifted") return [];
    return overFuelM - LIFTED_M < -UNDER_M ? [{ id, kind: "lifted", key: id }] : [];
  }

  /** Over the fuel with nothing but suction before it, a joint is never opened. */
  private mayOpen = (joint: BleedJoint): boolean =>
    this.movers.some(({ id }) => joint.movers.includes(id)) ||
    joint.overFuelM < -UNDER_M ||
    this.liftFor(joint).length > 0;

  /** What moves, one after the other, each until the engine has solid fuel; more than once where air still goes. */
  private runClosed(consumerId: Id): void {
    for (const mover of this.movers)
      for (let turn = 0; turn <= MOST_TURNS && this.left() > ENOUGH; turn++) {
        const before = this.air();
        const start = this.session.save();
        const step = this.runOn(mover, turn > 0, consumerId);
        if (before - this.air() < WORTH_M3) {
          this.session.load(start);
          break;
        }
        this.steps.push(step);
        if (this.galleryAir() > WORTH_M3 && mover.kind === "pump") this.steps.push(this.runOn(mover, true));
      }
  }

  run(): void {
    const consumerId = this.task.way.consumer?.id;
    if (this.isClosed && consumerId !== undefined) {
      this.runClosed(consumerId);
      this.putBack();
      return;
    }
    const open = this.joints.filter(this.mayOpen);
    const last = open.at(-1);
    for (const joint of open) {
      const isNeeded = airIn(this.session.model, joint.cells).airM3 > this.worthALid;
      if (isNeeded) this.bringTo(joint);
    }
    if (last) {
      this.sweepAll(open, last);
      this.oneByOne(last);
      this.sweepAll(open, last);
    }
    if (last) this.clearCrossing(open, last);
    this.putBack();
  }

  /**
   * What stands in the way round a primer is drawn off past it, the handle open for that one joint; what it leaves in a
   * head on its way is let out with the primer once more.
   */
  private clearCrossing(open: readonly BleedJoint[], last: BleedJoint): void {
    const { crossingId: id } = this.task;
    if (!id || this.left() <= ENOUGH) return;
    const [opened, shut] = [true, false].map((isOpened): AirAction[] => {
      const setting = handle(this.task.network, id, isOpened);
      return setting ? [{ do: "valve", id, setting }] : [];
    }) as [AirAction[], AirAction[]];
    this.isCrossed = false;
    this.all(opened);
    const step = this.bleed(last, this.moverFor(last), true);
    this.all(shut);
    this.isCrossed = true;
    this.steps.push({ ...step, actions: [...opened, ...step.actions, ...shut] });
    this.ventHeads(open);
  }

  /** Handles that stood otherwise meanwhile. */
  private putBack(): void {
    if (this.turned.length === 0) return;
    const was = new Map(this.turned.map((one) => [one.id, one.was]));
    this.steps.push(this.turn([...was.keys()], (id) => was.get(id) ?? null, true));
  }

  private sweepAll(open: readonly BleedJoint[], last: BleedJoint): void {
    for (let turn = 0; turn < MOST_TURNS && this.left() > ENOUGH; turn++) {
      const [before, start, told] = [this.air(), this.session.save(), this.steps.length];
      this.sweep(open, last, turn);
      if (before - this.air() >= WORTH_M3) continue;
      // What let nothing more out is left out, but for the first try: it says why the rest stays.
      if (turn > 0) {
        this.session.load(start);
        this.steps.length = told;
      }
      break;
    }
  }

  private sweep(open: readonly BleedJoint[], last: BleedJoint, turn: number): void {
    const mover = this.moverFor(last);
    const low = this.lowVessels((_, m3) => m3 > this.worthALid);
    if (low.length > 0) this.steps.push(this.fill(low, true));
    if (mover === null && last.overFuelM > -UNDER_M) return;
    if (mover && mover.kind !== "lifted" && !this.task.way.consumer)
      this.steps.push(this.runOn(mover, turn > 0));
    else this.steps.push(this.bleed(last, mover, true));
    // A consumer's own gallery is swept to its return, with every joint shut.
    if (mover && mover.kind !== "lifted" && this.galleryAir() > WORTH_M3)
      this.steps.push(this.runOn(mover, turn > 0));
    this.ventHeads(open);
  }

  /** Heads behind the pump let go of what was swept into them. */
  private ventHeads(open: readonly BleedJoint[]): void {
    const heads = open.filter(
      ({ kind, movers }) => (kind === "lid" || kind === "headScrew" || kind === "screw") && movers.length > 0,
    );
    for (const joint of heads) {
      const cell = this.session.model.mesh.vesselOf.get(joint.partId);
      const air = cell === undefined ? 0 : this.session.model.airM3(cell);
      const own = this.moverFor(joint);
      if (air > this.worthALid && own) this.steps.push(this.bleed(joint, own, true));
    }
  }

  private galleryAir(): number {
    const cell = this.session.model.mesh.vesselOf.get(this.task.way.consumer?.id ?? "");
    return cell === undefined ? 0 : this.session.model.airM3(cell);
  }

  /** What of the school's movers does most before a joint. */
  private moverFor(joint: BleedJoint): Moved | null {
    const { crossingId } = this.task;
    // Behind a way round that is shut the primer alone moves; with it open fuel goes past the primer.
    const pump = this.movers
      .filter(
        ({ id, kind }) =>
          joint.movers.includes(id) && (!crossingId || this.isCrossed === (kind === "primer")),
      )
      .at(-1);
    return pump ?? this.liftFor(joint)[0] ?? null;
  }

  /** Through a pair at once each gets half the flow: one handle after the other is shut, and all of it goes through the other. */
  private oneByOne(last: BleedJoint): void {
    const { session, task } = this;
    const mover = this.moverFor(last);
    if (!mover) return;
    const now = { ...task.lineUp, valves: session.valves };
    const vessels = this.plan().parts.filter(({ id }) =>
      this.drawn.has(session.model.mesh.vesselOf.get(id) ?? -1),
    );
    const handles = [...new Set(vessels.flatMap(({ id }) => valvesBefore(task.network, now, id) ?? []))];
    if (handles.length < 2 || this.left() <= ENOUGH) return;
    const before = this.air();
    const start = session.save();
    const steps: ProcedureStep[] = [];
    let isDry = false;
    for (const id of handles) {
      const was = session.valves[id];
      const shut = this.turn([id], () => handle(task.network, id, false), false);
      const step = this.bleed(last, mover, true);
      steps.push(
        shut,
        step,
        this.turn([id], () => was ?? null, true),
      );
      isDry ||= step.dryS > step.dryLimitS;
    }
    if (before - this.air() > WORTH_M3 && !isDry) this.steps.push(...steps);
    else session.load(start);
  }

  /** Where air is left, by run or part, the most first. */
  private where(): { at: string; airM3: number; cells: number[] }[] {
    const { model } = this.session;
    const by = new Map<string, { at: string; airM3: number; cells: number[] }>();
    for (const cell of this.cells) {
      const air = model.airM3(cell);
      if (!(air > 0)) continue;
      const at = (model.mesh.cells.owner[cell] as string).split(".")[0] as string;
      const one = by.get(at) ?? { at, airM3: 0, cells: [] };
      one.airM3 += air;
      one.cells.push(cell);
      by.set(at, one);
    }
    return [...by.values()].sort((a, b) => b.airM3 - a.airM3);
  }

  private whyNot(where: { at: string; airM3: number; cells: number[] }[]): WhyNot[] {
    if (this.isBled()) return [];
    const reasons: WhyNot[] = [];
    const open = this.joints.filter(this.mayOpen);
    const last = this.joints.at(-1);
    const bled = this.steps.filter((step) => step.kind === "bleed");
    if (last && open.at(-1)?.key !== last.key)
      reasons.push({ code: "underVacuum", at: last.partId, overFuelM: last.overFuelM });
    const ended = bled.filter(({ joint }) => joint.key === open.at(-1)?.key);
    const driest = ended.reduce(
      (most, step) => (step.dryS > most.dryS ? step : most),
      ended[0] ?? { dryS: 0, dryLimitS: 0, by: { id: null } },
    );
    if (ended.at(-1)?.isSolid === false && driest.by.id && driest.dryS > driest.dryLimitS)
      reasons.push({ code: "dryLift", at: driest.by.id, dryS: driest.dryS, limitS: driest.dryLimitS });
    const enough = ENOUGH * airIn(this.session.model, this.cells).roomM3;
    for (const { at, airM3, cells } of where) {
      if (airM3 < enough / 4) break;
      reasons.push(this.reasonAt(at, airM3, cells));
    }
    return reasons;
  }

  private reasonAt(at: string, airM3: number, cells: readonly number[]): WhyNot {
    const { model } = this.session;
    if (!cells.some((cell) => this.way.has(cell))) return { code: "deadLeg", at, airM3 };
    const vessel = model.mesh.vesselOf.get(at);
    if (vessel !== undefined) {
      const now = { ...this.task.lineUp, valves: this.session.valves };
      const isLoose = this.drawn.has(vessel) && valvesBefore(this.task.network, now, at) === null;
      return { code: isLoose ? "runsBack" : "headHolds", at, airM3 };
    }
    const index = this.task.network.linkOf.get(at) ?? -1;
    const link = this.task.network.links[index];
    if (link?.kind === "run") {
      const boreM = linkKindOf(link).boreM(link);
      const faces = model.mesh.facesOf[index] as readonly number[];
      const steep = Math.max(...faces.map((f) => Math.abs(model.mesh.faces.sine[f] as number)), 0);
      const needsMS = clearingMS(boreM, Math.asin(steep), model.densityKgM3, FUEL_TENSION_N_M);
      const hadMS = Math.max(...faces.map((f) => Math.abs(this.lastFlow[f] ?? 0)), 0) / areaM2(boreM);
      if (hadMS < needsMS) return { code: "notSwept", at, airM3, hadMS, needsMS };
    }
    return { code: "stays", at, airM3 };
  }

  result(): Procedure {
    const { session, steps } = this;
    const { airM3, roomM3 } = airIn(session.model, this.cells);
    const where = this.where();
    const panM3 = steps.reduce((sum, step) => sum + (step.kind === "bleed" ? step.panM3 : 0), 0);
    const pouredM3 = [...session.poured.values()].reduce((sum, one) => sum + one, 0);
    return {
      steps,
      actions: steps.flatMap(({ actions }) => actions),
      airM3,
      roomM3,
      left: roomM3 > 0 ? airM3 / roomM3 : 0,
      isBled: this.isBled(),
      pouredM3,
      panM3,
      panRoomM3: Math.ceil((panM3 * PAN_MORE) / PAN_STEP_M3) * PAN_STEP_M3,
      seconds: steps.reduce((sum, step) => sum + ("seconds" in step ? step.seconds : 0), 0),
      whyNot: this.whyNot(where),
      dry: this.movers
        .map(({ key, id }) => ({ id, seconds: session.dryS.get(key) ?? 0, limitS: this.limitOf(id) }))
        .filter(({ seconds }) => seconds > 0),
      where: where.map(({ at, airM3: air }) => ({ at, airM3: air })).filter(({ airM3: air }) => air > 1e-9),
    };
  }
}

/** The model would not follow what a step asked for. */
export class PlanFault extends Error {
  constructor(
    readonly code: string,
    readonly at: string,
  ) {
    super(`${code} at ${at}`);
  }
}

/** The bleed of a line-up from what its lines hold; null where its fuel is not known at that temperature. */
export function bleedProcedure(
  task: ProcedureTask,
  schools: Schools,
  onTry: (tries: number) => void = () => undefined,
): Procedure | null {
  const session = newestStart(task);
  if (!session) return null;
  fillContent(session, task.content, task.way);
  const planner = new Planner(session, task, schools, onTry);
  planner.run();
  return planner.result();
}

/** A bad day: what a procedure is tried on beside the plan as it is. */
export type Disturbance = "weakPump" | "cold" | "lowest";
const WEAK_PUMP = 0.8;
export const COLD_C = 0;
/** Where fuel does not come solid, a hand goes on for so many times what the steps say. */
const PATIENCE = 3;

/** Air left when the written steps are followed by eye on a bad day: each joint is shut when it runs solid; null where the fuel is not known. */
export function onABadDay(
  task: ProcedureTask,
  { steps }: Procedure,
  day: Disturbance,
  lowestM3: Conditions["aboardM3"],
): number | null {
  const conditions: Conditions = {
    ...task.conditions,
    ...(day === "cold" ? { fuelC: COLD_C } : {}),
    ...(day === "lowest" ? { aboardM3: lowestM3 } : {}),
  };
  const session = newestStart({ ...task, conditions });
  if (!session) return null;
  if (day === "weakPump") session.model.pumpShare *= WEAK_PUMP;
  fillContent(session, task.content, task.way);
  for (const step of steps) {
    for (const action of step.actions) {
      if (action.do !== "wait" || step.kind !== "bleed") {
        if (session.act(action)) return null;
        continue;
      }
      // No shorter than it says, and on until it is solid.
      runTo(session, action.seconds, () => false);
      const more = (PATIENCE - 1) * action.seconds;
      const came = session.came.get(step.joint.key);
      if (step.isSolid && (came?.solidS ?? 0) < SOLID_S)
        runTo(session, more, () => (came?.solidS ?? 0) >= SOLID_S);
    }
  }
  const { airM3, roomM3 } = airIn(session.model, reachOf(session.model, task).cells);
  return roomM3 > 0 ? airM3 / roomM3 : 0;
}

/** Air left after the same actions from the same start: a procedure that was computed replays to the same. */
export function replay(task: ProcedureTask, actions: readonly AirAction[]): number | null {
  const session = newestStart(task);
  if (!session) return null;
  fillContent(session, task.content, task.way);
  for (const action of actions) if (session.act(action)) return null;
  const { airM3, roomM3 } = airIn(session.model, reachOf(session.model, task).cells);
  return roomM3 > 0 ? airM3 / roomM3 : 0;
}
