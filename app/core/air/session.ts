/** Hands at a plan full of fuel and air: what is opened, run, squeezed, poured and waited for, and what came of it. */
import { isFiltering, isValve } from "../kinds/families";
import { hasHeadScrew } from "../kinds/filtering";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Conditions, LineUp, ValveSetting } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { AirFault, type AirFlow, type AirSnapshot, airFlow } from "./flow";
import { handStrokesS, leverOf, moverLinks, openingM2 } from "./movers";

/** A joint opened by hand: a port of the plan as `part.port`, or the lid of a vessel as `part.lid`. */
export type JointKey = string;
export const lidKey = (id: Id): JointKey => `${id}.lid`;

/** What a pair of hands does. Seconds run on with everything as it was left. */
export type AirAction =
  | { do: "open"; joint: JointKey; quarters?: number }
  | { do: "shut"; joint: JointKey }
  | { do: "pump"; id: Id; on: boolean }
  /** A bulb, or the primer lever of a lift pump. */
  | { do: "strokes"; id: Id; count: number }
  | { do: "valve"; id: Id; setting: ValveSetting }
  /** Into the vessel's lid, which must be off; no more than goes in. */
  | { do: "pour"; id: Id; m3: number }
  /** A consumer that draws at a share of its full load; nought stops it. */
  | { do: "draw"; id: Id; load: number }
  /** A consumer that takes what is brought to it, air and fuel, into its float bowl or by its return; nothing is opened. */
  | { do: "take"; id: Id; on: boolean }
  /** A tank, or a can in its place, lifted so high over where it stands; nought puts it down. */
  | { do: "lift"; id: Id; m: number }
  | { do: "wait"; seconds: number };

/** Why an action was not done, with what it named. */
export type AirRefusal =
  | { code: "noJoint"; at: string }
  | { code: "noPump"; at: string }
  | { code: "noValve"; at: string }
  | { code: "noVessel"; at: string }
  | { code: "noConsumer"; at: string }
  | { code: "noTank"; at: string }
  | { code: "lidShut"; at: string }
  /** The model found no step from here; what was done so far stays. */
  | { code: "stuck"; at: string };

/** What has come out of a joint since it was last opened. */
export interface Came {
  fuelM3: number;
  /** At the pressure of the open air. */
  airM3: number;
  /** Air drawn in, at the pressure of the open air. */
  drawnM3: number;
  /** Seconds that it has run solid without a break. */
  solidS: number;
}

/** Fuel that runs out with less air than this is solid to the eye. */
const SOLID_SHARE = 0.995;
/** Less than this out of a joint is a weep, not a run: 60 mL an hour. */
const RUNS_M3_S = 60e-6 / 3600;
/** A pump whose inlet is less than half fuel runs dry. */
const DRY_SHARE = 0.5;
const QUARTERS_OF_A_JOINT = 2;
/** Poured so full it runs over. */
const BRIM = 0.9998;
/** A jug that runs slower than this runs through: nobody pours longer. Common practice, no source. */
const SLOW_POUR_M3_S = 20e-6;
const POUR_BEGINS_S = 2;
/** A whole turn takes a lid off. */
export const QUARTERS_OFF = 4;

export const partOfMover = (id: Id): Id => id.replace(/~lever$/, "");

export class AirSession {
  private lineUp: LineUp;
  private readonly open = new Map<JointKey, { face: number; m2: number }>();
  private readonly taking = new Map<Id, { face: number; m2: number }>();
  private readonly leaks = new Map<number, number>();
  private readonly running = new Set<Id>();
  private readonly pouring = new Set<Id>();
  private readonly drawing = new Map<Id, number>();
  private readonly lifted = new Map<Id, number>();
  readonly came = new Map<JointKey, Came>();
  /** What a consumer has taken since it last began to. */
  readonly took = new Map<Id, Came>();
  /** What was poured into a vessel, m3. */
  readonly poured = new Map<Id, number>();
  /** Seconds that a pump has run dry, by pump. */
  readonly dryS = new Map<Id, number>();

  private constructor(
    readonly model: AirFlow,
    lineUp: LineUp,
    private readonly conditions: Conditions,
    private readonly movers: ReadonlyMap<Id, number>,
  ) {
    this.lineUp = lineUp;
  }

  /** A line-up, dry, with its pumps off and its consumers stopped; null where there is no such fuel. */
  static start(network: Network, lineUp: LineUp, conditions: Conditions): AirSession | null {
    const still: LineUp = {
      ...lineUp,
      pumps: Object.fromEntries(Object.keys(lineUp.pumps).map((id) => [id, "off" as const])),
      consumers: Object.fromEntries(Object.keys(lineUp.consumers).map((id) => [id, "stopped" as const])),
    };
    const model = airFlow(network, still, conditions);
    if ("code" in model) return null;
    const session = new AirSession(model, still, conditions, moverLinks(network));
    session.apply();
    return session;
  }

  get atS(): number {
    return this.model.atS;
  }
  /** Height of the fuel in a tank. */
  surfaceM(tankId: Id): number {
    return this.model.surfaceOf(tankId);
  }
  get valves(): LineUp["valves"] {
    return this.lineUp.valves;
  }
  isOpen(joint: JointKey): boolean {
    return this.open.has(joint);
  }
  /** Fuel that came out of joints since each was last opened, m3. */
  get panM3(): number {
    return [...this.came.values()].reduce((sum, { fuelM3 }) => sum + fuelM3, 0);
  }
  /** Seconds dry of all that pumps. */
  get allDryS(): number {
    return [...this.dryS.values()].reduce((sum, seconds) => sum + seconds, 0);
  }

  /** Does anything run, or stand open, or is fuel still finding its way? */
  get isMoving(): boolean {
    return this.open.size > 0 || this.running.size > 0 || this.drawing.size > 0 || this.lifted.size > 0;
  }
  isLifted(tankId: Id): boolean {
    return this.lifted.has(tankId);
  }
  runs(id: Id): boolean {
    return this.running.has(id);
  }

  /** A hole that nobody sees: a joint that is not tight. It is no joint that was opened, and stays until it is mended. */
  leak(joint: JointKey, m2: number): void {
    const hole = this.opening(joint);
    if (hole) this.leaks.set(hole.face, m2);
    this.apply();
  }

  private apply(): void {
    this.model.set({
      open: new Map([
        ...this.leaks,
        ...[...this.open.values(), ...this.taking.values()].map(({ face, m2 }): [number, number] => [
          face,
          m2,
        ]),
      ]),
      running: this.running,
      pouring: this.pouring,
      drawing: this.drawing,
      lifted: this.lifted,
    });
  }

  /** Face of the mesh that a joint opens, and the hole it makes. */
  private opening(joint: JointKey): { face: number; m2: number } | null {
    const { mesh, network } = this.model;
    const [part = "", port] = joint.split(".");
    if (port === "lid") {
      const face = mesh.lidOf.get(part);
      const own = network.plan.parts.find(({ id }) => id === part);
      const hasScrew = own !== undefined && isFiltering(own) && hasHeadScrew(own);
      return face === undefined ? null : { face, m2: hasScrew ? openingM2.screw : openingM2.joint };
    }
    const node = network.nodeOf.get(joint);
    const face = node === undefined ? -1 : (mesh.openingOfNode[node] ?? -1);
    if (face < 0) return null;
    const isScrew = network.plan.parts.some(({ id, kind }) => id === part && kind === "bleedScrew");
    return { face, m2: isScrew ? openingM2.screw : openingM2.joint };
  }

  /** Runs on for so many seconds, or until `isDone` says so; gives those that passed. */
  run(seconds: number, isDone?: (session: AirSession) => boolean): number {
    const { model } = this;
    return model.run(seconds, (dt) => {
      for (const [came, { face }] of this.counted()) {
        const q = model.flow[face] as number;
        const share = model.share[face] as number;
        if (q > 0) {
          came.fuelM3 += share * q * dt;
          const pa = model.pressurePa[model.mesh.faces.from[face] as number] as number;
          came.airM3 += ((1 - share) * q * dt * pa) / model.atmospherePa;
        } else came.drawnM3 -= q * dt;
        came.solidS = q > RUNS_M3_S && share > SOLID_SHARE ? came.solidS + dt : 0;
      }
      for (const id of this.running) {
        if (this.wetAtInlet(id) < DRY_SHARE) this.dryS.set(id, (this.dryS.get(id) ?? 0) + dt);
      }
      return isDone?.(this);
    });
  }

  /** What is counted at each hole that stands open now. */
  private counted(): [Came, { face: number }][] {
    const at = <K>(holes: ReadonlyMap<K, { face: number }>, counts: ReadonlyMap<K, Came>) =>
      [...holes].flatMap(([key, hole]): [Came, { face: number }][] => {
        const came = counts.get(key);
        return came ? [[came, hole]] : [];
      });
    return [...at(this.open, this.came), ...at(this.taking, this.took)];
  }

  /** How much of what stands at a pump's inlet is fuel. */
  wetAtInlet(id: Id): number {
    const { mesh, network } = this.model;
    const link = network.links[this.movers.get(partOfMover(id)) ?? -1];
    const cell = link ? (mesh.cellOfNode[link.from] as number) : -1;
    return cell < 0 ? 1 : (this.model.fuelM3[cell] as number) / (mesh.cells.volumeM3[cell] as number);
  }

  /** Does one thing; what it needs is looked at first, so that a refusal changes nothing. */
  act(action: AirAction): AirRefusal | null {
    try {
      return this.doIt(action);
    } catch (fault) {
      if (fault instanceof AirFault) return { code: "stuck", at: action.do };
      throw fault;
    }
  }

  private doIt(action: AirAction): AirRefusal | null {
    const { network, mesh } = this.model;
    switch (action.do) {
      case "open": {
        const hole = this.opening(action.joint);
        if (!hole) return { code: "noJoint", at: action.joint };
        const turned = Math.min(QUARTERS_OFF, Math.max(0, action.quarters ?? QUARTERS_OF_A_JOINT));
        if (turned === 0) return this.doIt({ do: "shut", joint: action.joint });
        // A lid is loosened like any joint until it is off.
        const isOff = turned === QUARTERS_OFF && action.joint.endsWith(".lid");
        const m2 = isOff ? openingM2.lid : (hole.m2 * turned) / QUARTERS_OF_A_JOINT;
        this.open.set(action.joint, { face: hole.face, m2 });
        this.came.set(action.joint, { fuelM3: 0, airM3: 0, drawnM3: 0, solidS: 0 });
        break;
      }
      case "shut":
        if (!this.opening(action.joint)) return { code: "noJoint", at: action.joint };
        this.open.delete(action.joint);
        break;
      case "pump":
        if (!this.movers.has(action.id) && !this.handMover(partOfMover(action.id)))
          return { code: "noPump", at: action.id };
        if (action.on) this.running.add(action.id);
        else this.running.delete(action.id);
        break;
      case "strokes": {
        const mover = this.handMover(action.id);
        if (!mover) return { code: "noPump", at: action.id };
        this.running.add(mover.key);
        this.apply();
        this.run(action.count / mover.strokesS);
        this.running.delete(mover.key);
        break;
      }
      case "valve": {
        const valve = network.plan.parts.find(({ id }) => id === action.id);
        if (!valve || !isValve(valve)) return { code: "noValve", at: action.id };
        const { setting } = action;
        if (setting.kind === "position") {
          const isThere =
            valve.kind !== "bank" && positionsOf(valve).some(({ id }) => id === setting.position);
          if (!isThere) return { code: "noValve", at: `${action.id} ${setting.position}` };
        }
        this.lineUp = { ...this.lineUp, valves: { ...this.lineUp.valves, [action.id]: setting } };
        this.model.lineUp(this.lineUp, this.conditions);
        break;
      }
      case "pour": {
        const cell = mesh.vesselOf.get(action.id);
        const jug = mesh.jugOf.get(action.id);
        if (cell === undefined || jug === undefined) return { code: "noVessel", at: action.id };
        if (this.open.get(lidKey(action.id))?.m2 !== openingM2.lid) return { code: "lidShut", at: action.id };
        this.pour(action.id, cell, jug, action.m3);
        break;
      }
      case "draw": {
        if (!network.engines.some(({ part }) => part.id === action.id))
          return { code: "noConsumer", at: action.id };
        if (action.load > 0) this.drawing.set(action.id, action.load);
        else this.drawing.delete(action.id);
        break;
      }
      case "take": {
        const hole = this.opening(`${action.id}.feed`);
        const isThere = network.engines.some(({ part }) => part.id === action.id);
        if (!hole || !isThere) return { code: "noConsumer", at: action.id };
        this.taking.delete(action.id);
        if (action.on) {
          this.taking.set(action.id, { face: hole.face, m2: openingM2.screw });
          this.took.set(action.id, { fuelM3: 0, airM3: 0, drawnM3: 0, solidS: 0 });
        }
        break;
      }
      case "lift":
        if (!network.job.tanks.some(({ id }) => id === action.id)) return { code: "noTank", at: action.id };
        if (action.m > 0) this.lifted.set(action.id, action.m);
        else this.lifted.delete(action.id);
        break;
      case "wait":
        this.apply();
        this.run(action.seconds);
        return null;
    }
    this.apply();
    return null;
  }

  /** What of a part a hand works, and how fast; null where there is nothing. */
  private handMover(id: Id): { key: string; strokesS: number } | null {
    const part = this.model.network.plan.parts.find((one) => one.id === id);
    if (part?.kind === "bulb") return { key: id, strokesS: handStrokesS.bulb };
    return part?.kind === "liftPump" ? { key: leverOf(id), strokesS: handStrokesS.lever } : null;
  }

  /** Poured in until so much has gone, or it stands at the brim. */
  private pour(id: Id, cell: number, jug: number, m3: number): void {
    const { model } = this;
    const { volumeM3 } = model.mesh.cells;
    let poured = 0;
    this.pouring.add(id);
    this.apply();
    const longestS = POUR_BEGINS_S + m3 / SLOW_POUR_M3_S;
    const brim = BRIM * (volumeM3[cell] as number);
    const before = model.atS;
    if ((model.fuelM3[cell] as number) < brim)
      model.run(longestS, (dt) => {
        poured += (model.flow[jug] as number) * dt;
        return poured >= m3 || (model.fuelM3[cell] as number) >= brim || model.atS - before > longestS;
      });
    this.pouring.delete(id);
    this.poured.set(id, (this.poured.get(id) ?? 0) + poured);
  }

  save(): SavedSession {
    return {
      air: this.model.save(),
      lineUp: this.lineUp,
      open: new Map(this.open),
      taking: new Map(this.taking),
      took: new Map([...this.took].map(([key, came]) => [key, { ...came }])),
      running: new Set(this.running),
      drawing: new Map(this.drawing),
      lifted: new Map(this.lifted),
      came: new Map([...this.came].map(([key, came]) => [key, { ...came }])),
      dryS: new Map(this.dryS),
      poured: new Map(this.poured),
    };
  }

  load(saved: SavedSession): void {
    this.model.load(saved.air);
    const put = <K, V>(into: Map<K, V>, from: ReadonlyMap<K, V>) => {
      into.clear();
      for (const [key, value] of from) into.set(key, value);
    };
    put(this.open, saved.open);
    put(this.taking, saved.taking);
    put(this.took, new Map([...saved.took].map(([key, came]) => [key, { ...came }])));
    put(this.drawing, saved.drawing);
    put(this.lifted, saved.lifted);
    put(this.came, new Map([...saved.came].map(([key, came]) => [key, { ...came }])));
    put(this.dryS, saved.dryS);
    put(this.poured, saved.poured);
    this.running.clear();
    for (const id of saved.running) this.running.add(id);
    this.lineUp = saved.lineUp;
    this.model.lineUp(this.lineUp, this.conditions);
    this.apply();
  }
}

export interface SavedSession {
  readonly air: AirSnapshot;
  readonly lineUp: LineUp;
  readonly open: ReadonlyMap<JointKey, { face: number; m2: number }>;
  readonly taking: ReadonlyMap<Id, { face: number; m2: number }>;
  readonly took: ReadonlyMap<Id, Came>;
  readonly running: ReadonlySet<Id>;
  readonly drawing: ReadonlyMap<Id, number>;
  readonly lifted: ReadonlyMap<Id, number>;
  readonly came: ReadonlyMap<JointKey, Came>;
  readonly dryS: ReadonlyMap<Id, number>;
  readonly poured: ReadonlyMap<Id, number>;
}
