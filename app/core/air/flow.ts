/**
 * Fuel and air in the cells of a plan, in time: a pressure for each cell from Boyle's law and the balance of volumes in one
 * equation, fuel and air carried over the faces between them, bubbles that climb. Both are conserved to round-off: what
 * leaves one cell enters another, a tank, or the pan.
 *
 * What passes a face is taken from its donor with an eye on what lies beyond (C. W. Hirt, B. D. Nichols, J. Comput. Phys. 39,
 * 1981, p. 201): air goes first where air lies ahead of fuel, fuel where fuel lies ahead. Air climbs against fuel at the
 * velocity over which a pocket would be carried down, see laws/bubbles.ts. Gas keeps the temperature of the fuel.
 *
 * Not modelled: air dissolved in the fuel, inertia, plugs that stick in 2 mm lines, the bubble point of wet elements, what
 * boils.
 */
import { headPa } from "../fuel/fuel";
import type { Id } from "../kinds/record";
import { AIR_KG_M3, AIR_PA_S, clearingMS, FUEL_TENSION_N_M, isStuck } from "../laws/bubbles";
import { churchill, type FrictionValue, LAMINAR_BELOW_RE } from "../laws/friction";
import { tabulated } from "../laws/tabulated";
import type { Network } from "../network/network";
import { makeSettings, type Settings, type SettingsFault } from "../network/settings";
import type { Conditions, LineUp } from "../plan/types";
import { analyse, factorAndSolveGeneral, type SymbolicFactor } from "../solver/factor";
import { Way } from "../solver/newton";
import { areaM2 } from "../units/bore";
import { type AirMesh, airMesh } from "./cells";
import { type Hands, IDLE_HANDS, type Mover, moverOf } from "./movers";

const ORIFICE = 0.62;
/** Of its flow on fuel a pump moves so much air. Common practice, no source. */
const ON_AIR = 0.7;
/** How fast a can or a jug is poured. Common practice, no source. */
const POUR_M3_S = 50e-6;
/** It falls from no higher than this. */
const POUR_PA = 500;
/** A line that stands at so little gives a consumer nothing, at twice that all it asks: where fuel boils it is not fed. */
const UNFED_PA = 20_000;

/** Give of a cell and what is in it: keeps blind ends solvable. */
const GIVE_M3_PA = 2e-14;
const SHUT_PA_S_M3 = 1e17;
const LEAST_SLOPE = 1e5;
const LEAST_PA = 1500;
const MOST_STEP_S = 0.15;
const LEAST_STEP_S = 1e-5;
/** No face passes more than this share of the smaller of its cells in a step. */
const COURANT = 0.6;
/** What a face will pass is worked out on so much more than what it passed. */
const AHEAD = 1.3;
/** No trial of a step takes more than so many times the smaller cell over a face. */
const MOST_TRIED = 2;
const MOST_ITERATIONS = 20;
const SETTLED = 1e-6;
/** Share of a cell that may be taken beyond what it holds; it is owed, and kept. */
const OVERDRAWN = 1e-6;
/** A line flatter than this lets nothing climb. */
const LEAST_SINE = 0.01;
/**
 * A front is a front from so much of a difference on. Air that flows before fuel is let go at once, or a line would never
 * fill; fuel before air only where it is nearly all fuel, or the pocket that a flow carries down a slope would stay for ever:
 * with these a pocket is carried from 0.9 to 1.05 times the flow of the law on (flow.test.ts).
 */
const UNLIKE = { fuelBehind: 0.02, airBehind: 0.5 } as const;
const STILL_M3_S = 1e-10;

/** Taken once: in the tests' own world each look at a global costs as much as a face. */
const { abs, max, min } = Math;
const { isFinite } = Number;

const friction = tabulated(churchill);

/** Where fuel and air went that left the plan, m3 of fuel and J (pressure times volume) of air. */
export interface Beyond {
  readonly fuelM3: Float64Array;
  readonly airJ: Float64Array;
}

export interface AirSnapshot {
  readonly atS: number;
  readonly fuelM3: Float64Array;
  readonly airJ: Float64Array;
  readonly pressurePa: Float64Array;
  readonly flow: Float64Array;
  readonly fills: Float64Array;
  readonly beyondFuel: Float64Array;
  readonly beyondAir: Float64Array;
  readonly carried: Float64Array;
}

/** Sums of a step that callers ask after. */
export class AirFlow {
  readonly mesh: AirMesh;
  readonly atmospherePa: number;
  readonly densityKgM3: number;
  /** Fuel in a cell, m3, air as pressure times volume, J, and pressure, absolute Pa. */
  readonly fuelM3: Float64Array;
  readonly airJ: Float64Array;
  readonly pressurePa: Float64Array;
  /** Through each face along its direction at the last step, m3/s, and the share of it that was fuel. */
  readonly flow: Float64Array;
  readonly share: Float64Array;
  /** By tank, then the open air: what went there, less what came. */
  readonly beyond: Beyond;
  /** Drawn by consumers: fuel and air that left the plan there. */
  readonly burned = { fuelM3: 0, airJ: 0 };
  atS = 0;
  /** What pumps give of their curves. */
  pumpShare = 1;
  /** Steps that were given up and tried shorter. */
  retries = 0;
  steps = 0;

  private settings: Settings;
  private hands: Hands = IDLE_HANDS;
  private readonly shut: Uint8Array;
  private readonly oneWay: Uint8Array;
  private readonly constant: Float64Array;
  private readonly linear: Float64Array;
  private readonly square: Float64Array;
  private readonly frict: Float64Array;
  private readonly reynolds: Float64Array;
  private readonly rough: Float64Array;
  private readonly mover: (Mover | null)[];
  private readonly climb: Float64Array;
  private readonly area: Float64Array;
  private readonly headFrom: Float64Array;
  private readonly headTo: Float64Array;
  private readonly wetFrom: Float64Array;
  private readonly wetTo: Float64Array;
  private readonly forward: Float64Array;
  private readonly backward: Float64Array;
  private readonly trial: Float64Array;
  private readonly guess: Float64Array;
  private readonly conduct: Float64Array;
  private readonly lastShareIn: Float64Array;
  private readonly inFlow: Float64Array;
  private readonly leaves: Float64Array;
  private readonly fills: Float64Array;
  private readonly swing: Float64Array;
  private readonly middle: Float64Array;
  private readonly pressure: Float64Array;
  private readonly residual: Float64Array;
  private readonly newFuel: Float64Array;
  private readonly newAir: Float64Array;
  private readonly extra: Float64Array;
  private readonly diagonalOf: Float64Array;
  private readonly tankPa: Float64Array;
  private readonly liftM: Float64Array;
  private readonly value: FrictionValue = { factor: 0, logSlope: 0 };
  /** Cells that take part, faces that stand open among them, and the matrix of them. */
  private active: Int32Array = new Int32Array(0);
  private open: Int32Array = new Int32Array(0);
  private local: Int32Array;
  private factor: SymbolicFactor = analyse(0, []);
  private slot: Int32Array;
  private swapped: Uint8Array;
  private diagonal = new Float64Array(0);
  private lower = new Float64Array(0);
  private upper = new Float64Array(0);
  private x = new Float64Array(0);
  private draws: { feed: number; back: number | null; feedM3S: number; burnM3S: number }[] = [];

  constructor(
    readonly network: Network,
    settings: Settings,
  ) {
    this.settings = settings;
    this.mesh = airMesh(network, settings.posture);
    const { cells, faces } = this.mesh;
    this.atmospherePa = settings.atmospherePa;
    this.densityKgM3 = settings.fuel.densityKgM3;
    const ofCells = () => new Float64Array(cells.count);
    const ofFaces = () => new Float64Array(faces.count);
    this.fuelM3 = ofCells();
    this.airJ = ofCells();
    this.pressurePa = ofCells().fill(this.atmospherePa);
    this.flow = ofFaces();
    this.share = ofFaces();
    const ends = network.topology.nodes - network.topology.unknowns + 1;
    this.beyond = { fuelM3: new Float64Array(ends), airJ: new Float64Array(ends) };
    this.shut = new Uint8Array(faces.count);
    this.oneWay = new Uint8Array(faces.count);
    this.constant = ofFaces();
    this.linear = ofFaces();
    this.square = ofFaces();
    this.frict = ofFaces();
    this.reynolds = ofFaces().fill(1);
    this.rough = ofFaces();
    this.mover = Array.from({ length: faces.count }, () => null);
    this.climb = ofFaces();
    this.area = faces.boreM.map(areaM2);
    this.headFrom = ofFaces();
    this.headTo = ofFaces();
    this.wetFrom = ofFaces();
    this.wetTo = ofFaces();
    this.forward = ofFaces();
    this.backward = ofFaces();
    this.trial = ofFaces();
    this.guess = ofFaces();
    this.conduct = ofFaces();
    this.lastShareIn = ofCells().fill(-1);
    this.inFlow = ofCells();
    this.leaves = ofCells();
    this.fills = ofCells();
    this.swing = ofFaces();
    this.middle = ofCells();
    this.pressure = ofCells();
    this.residual = ofCells();
    this.newFuel = ofCells();
    this.newAir = ofCells();
    this.extra = ofCells();
    this.diagonalOf = ofCells();
    this.tankPa = new Float64Array(ends);
    this.liftM = new Float64Array(ends);
    this.local = new Int32Array(cells.count).fill(-1);
    this.slot = new Int32Array(faces.count).fill(-1);
    this.swapped = new Uint8Array(faces.count);
    for (let f = 0; f < faces.count; f++) {
      const bore = faces.boreM[f] as number;
      const sine = abs(faces.sine[f] as number);
      const climbs = sine > LEAST_SINE && !isStuck(bore, this.densityKgM3, FUEL_TENSION_N_M);
      this.climb[f] = climbs
        ? clearingMS(bore, Math.asin(sine), this.densityKgM3, FUEL_TENSION_N_M) * areaM2(bore)
        : 0;
    }
    this.empty();
    this.apply();
  }

  /** All cells full of air at the pressure of the open air. */
  empty(): void {
    const { volumeM3 } = this.mesh.cells;
    this.fuelM3.fill(0);
    this.pressurePa.fill(this.atmospherePa);
    for (let c = 0; c < volumeM3.length; c++) this.airJ[c] = this.atmospherePa * (volumeM3[c] as number);
    this.flow.fill(0);
    this.fills.fill(0);
  }

  /** Puts fuel into a cell, as a share of it; the rest is air at the pressure of the open air. */
  fill(cell: number, share: number): void {
    const volume = this.mesh.cells.volumeM3[cell] as number;
    this.fuelM3[cell] = share * volume;
    this.airJ[cell] = this.atmospherePa * (1 - share) * volume;
    this.pressurePa[cell] = this.atmospherePa;
  }

  save(): AirSnapshot {
    return {
      atS: this.atS,
      fuelM3: this.fuelM3.slice(),
      airJ: this.airJ.slice(),
      pressurePa: this.pressurePa.slice(),
      flow: this.flow.slice(),
      fills: this.fills.slice(),
      beyondFuel: Float64Array.of(...this.beyond.fuelM3, this.burned.fuelM3),
      beyondAir: Float64Array.of(...this.beyond.airJ, this.burned.airJ),
      carried: this.lastShareIn.slice(),
    };
  }

  load(from: AirSnapshot): void {
    this.atS = from.atS;
    this.fuelM3.set(from.fuelM3);
    this.airJ.set(from.airJ);
    this.pressurePa.set(from.pressurePa);
    this.flow.set(from.flow);
    this.fills.set(from.fills);
    this.lastShareIn.set(from.carried);
    const ends = this.beyond.fuelM3.length;
    this.beyond.fuelM3.set(from.beyondFuel.subarray(0, ends));
    this.beyond.airJ.set(from.beyondAir.subarray(0, ends));
    this.burned.fuelM3 = from.beyondFuel[ends] as number;
    this.burned.airJ = from.beyondAir[ends] as number;
  }

  /** Does a valve or a pump at rest hold this face shut? */
  isShut(face: number): boolean {
    return this.shut[face] === 1;
  }

  /** Air in a cell, m3 at its own pressure. */
  airM3(cell: number): number {
    return (this.airJ[cell] as number) / (this.pressurePa[cell] as number);
  }

  /** What the hands do from now on. */
  set(hands: Hands): void {
    this.hands = hands;
    this.apply();
  }

  /** Valves, pumps and fuel as another line-up and other conditions have them; false where there is no such fuel. */
  lineUp(lineUp: LineUp, conditions: Conditions): boolean {
    const settings = makeSettings(this.network, lineUp, conditions);
    if ("code" in settings) return false;
    this.settings = settings;
    this.apply();
    return true;
  }

  private apply(): void {
    const { settings, hands } = this;
    const { faces, cells } = this.mesh;
    const { laws, lineUp } = settings;
    this.shut.fill(1);
    this.oneWay.fill(0);
    this.mover.fill(null);
    this.network.links.forEach((link, i) => {
      const mover = moverOf(this.network, i, lineUp, hands, this.pumpShare);
      const way = laws.way[i] as Way;
      for (const f of this.mesh.facesOf[i] as readonly number[]) {
        const share = faces.share[f] as number;
        // A mouth that stands clear of fuel lets fuel one way; air passes it both ways.
        const isMouth = link.kind === "tankPort";
        this.shut[f] = way === Way.shut && !mover ? 1 : 0;
        this.oneWay[f] = (way === Way.oneWay && !isMouth) || mover ? 1 : 0;
        this.constant[f] = isMouth || mover || !faces.isFirst[f] ? 0 : (laws.constant[i] as number);
        this.linear[f] = (laws.linear[i] as number) * share;
        this.square[f] = (laws.square[i] as number) * share;
        this.frict[f] = (laws.friction[i] as number) * share;
        this.reynolds[f] = laws.reynoldsPerFlow[i] as number;
        this.rough[f] = laws.relativeRoughness[i] as number;
        this.mover[f] = mover;
      }
    });
    for (const { into, over, opensPa } of this.mesh.galleries)
      for (const f of [into, over]) {
        this.shut[f] = 0;
        this.square[f] = 1 / (2 * (ORIFICE * (this.area[f] as number)) ** 2);
        this.oneWay[f] = f === over ? 1 : 0;
        this.constant[f] = f === over ? opensPa : 0;
      }
    const air = cells.count + this.tankPa.length - 1;
    for (const [f, m2] of hands.open) {
      this.shut[f] = 0;
      this.frict[f] = 0;
      this.linear[f] = 0;
      this.square[f] = 1 / (2 * (ORIFICE * m2) ** 2);
    }
    for (const id of hands.pouring) {
      const f = this.mesh.jugOf.get(id);
      if (f === undefined) continue;
      this.shut[f] = 0;
      this.oneWay[f] = 1;
      this.mover[f] = {
        curve: { flow: new Float64Array([0, POUR_M3_S]), drop: new Float64Array([-POUR_PA, 0]) },
        freeM3S: POUR_M3_S,
        clearance: 1,
      };
    }
    this.tankPa.fill(this.atmospherePa);
    this.network.job.tanks.forEach(({ id }, k) => {
      this.liftM[k] = hands.lifted?.get(id) ?? 0;
      this.tankPa[k] = this.atmospherePa - (this.network.ventVacuumPa[k] as number);
    });
    this.draws = this.network.engines.flatMap(({ part, feed, back }) => {
      const load = hands.drawing.get(part.id);
      if (load === undefined) return [];
      const feedM3S = part.loads.at(-1)?.feedM3S ?? 0;
      const burnM3S = part.loads.at(-1)?.burnM3S ?? 0;
      const isBack = back !== null;
      return [
        {
          feed: this.mesh.cellOfNode[feed] as number,
          back: back === null ? null : (this.mesh.cellOfNode[back] as number),
          feedM3S: load * (isBack ? feedM3S : burnM3S),
          burnM3S: load * burnM3S,
        },
      ];
    });
    this.activate(air);
  }

  /** All that an open way joins to what moves or is open takes part; what valves shut off keeps what it holds. */
  private activate(air: number): void {
    const { faces, cells } = this.mesh;
    const at: number[][] = Array.from({ length: cells.count }, () => []);
    const open: number[] = [];
    for (let f = 0; f < faces.count; f++) {
      if (this.shut[f]) continue;
      open.push(f);
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      if (a < cells.count) at[a]?.push(f);
      if (b < cells.count) at[b]?.push(f);
    }
    const seen = new Uint8Array(cells.count);
    const list: number[] = [];
    const start = (cell: number) => {
      if (cell >= cells.count || cell < 0 || seen[cell]) return;
      seen[cell] = 1;
      list.push(cell);
    };
    for (const f of open) {
      if (!this.mover[f] && faces.to[f] !== air && faces.from[f] !== air) continue;
      start(faces.from[f] as number);
      start(faces.to[f] as number);
    }
    for (const { feed, back } of this.draws) {
      start(feed);
      if (back !== null) start(back);
    }
    for (let k = 0; k < list.length; k++) {
      for (const f of at[list[k] as number] as number[]) {
        start(faces.from[f] as number);
        start(faces.to[f] as number);
      }
    }
    list.sort((a, b) => a - b);
    const same = list.length === this.active.length && list.every((cell, k) => this.active[k] === cell);
    const faceList = open.filter(
      (f) => seen[faces.from[f] as number] === 1 || seen[faces.to[f] as number] === 1,
    );
    const sameFaces =
      same && faceList.length === this.open.length && faceList.every((f, k) => this.open[k] === f);
    // What stands still does not flow.
    for (let f = 0; f < faces.count; f++) if (this.shut[f]) this.flow[f] = 0;
    if (sameFaces) return;
    this.active = Int32Array.from(list);
    this.open = Int32Array.from(faceList);
    this.local.fill(-1);
    list.forEach((cell, k) => {
      this.local[cell] = k;
    });
    const pairs: [number, number][] = [];
    const pairOf = new Map<number, number>();
    const facePair = new Int32Array(faces.count).fill(-1);
    for (const f of faceList) {
      const a = this.localOf(faces.from[f] as number);
      const b = this.localOf(faces.to[f] as number);
      if (a < 0 || b < 0 || a === b) continue;
      const key = min(a, b) * list.length + max(a, b);
      let pair = pairOf.get(key);
      if (pair === undefined) {
        pair = pairs.length;
        pairOf.set(key, pair);
        pairs.push([a, b]);
      }
      facePair[f] = pair;
    }
    this.factor = analyse(list.length, pairs);
    this.slot.fill(-1);
    for (const f of faceList) {
      const pair = facePair[f] as number;
      if (pair < 0) continue;
      this.slot[f] = this.factor.slotOfPair[pair] as number;
      const a = this.factor.position[this.localOf(faces.from[f] as number)] as number;
      const b = this.factor.position[this.localOf(faces.to[f] as number)] as number;
      // The slot's row is the later of the two: is that the end it runs to?
      this.swapped[f] = b > a ? 0 : 1;
    }
    this.diagonal = new Float64Array(list.length);
    this.lower = new Float64Array(this.factor.row.length);
    this.upper = new Float64Array(this.factor.row.length);
    this.x = new Float64Array(list.length);
  }

  private localOf(end: number): number {
    return end < this.mesh.cells.count ? (this.local[end] as number) : -1;
  }

  /** Height of the fuel in a tank; it stays while a line is bled. */
  surfaceOf(tankId: Id): number {
    return this.settings.surfaceM.get(tankId) ?? 0;
  }
  private surfaceM(tank: number): number {
    return this.surfaceOf(this.network.job.tanks[tank]?.id ?? "");
  }

  /** How full the end of a face is at the face itself: 1 fuel, 0 air. */
  private wetAt(end: number, f: number): number {
    const { cells, faces } = this.mesh;
    const z = faces.zM[f] as number;
    if (end >= cells.count) {
      const tank = end - cells.count;
      if (tank === this.tankPa.length - 1) return faces.link[f] === -1 && faces.from[f] === end ? 1 : 0;
      return z < this.surfaceM(tank) ? 1 : 0;
    }
    const full = (this.fuelM3[end] as number) / (cells.volumeM3[end] as number);
    if (!cells.isVessel[end]) return full;
    const level = (cells.zM[end] as number) + full * (cells.tallM[end] as number);
    const bore = faces.boreM[f] as number;
    return min(1, max(0, (level - (z - bore / 2)) / bore));
  }

  /** Pressure that the fuel in a cell adds at a face, over the pressure of the cell, Pa, and how wet that half is. */
  private headAt(end: number, f: number, wet: Float64Array): number {
    const { cells, faces } = this.mesh;
    const z = faces.zM[f] as number;
    if (end >= cells.count) {
      wet[f] = this.wetAt(end, f);
      const tank = end - cells.count;
      if (tank === this.tankPa.length - 1) return 0;
      const depthM = this.surfaceM(tank) - z;
      // Lifted, a mouth that stands in fuel still does.
      return depthM > 0 ? headPa(this.densityKgM3, depthM + (this.liftM[tank] as number)) : 0;
    }
    const full = this.middle[end] as number;
    const middle = cells.zM[end] as number;
    if (cells.isVessel[end]) {
      wet[f] = this.wetAt(end, f);
      return headPa(this.densityKgM3, max(0, middle + full * (cells.tallM[end] as number) - z));
    }
    // Fuel lies at the foot of its cell.
    const share = z < middle ? min(1, 2 * full) : z > middle ? max(0, 2 * full - 1) : full;
    wet[f] = share;
    return headPa(this.densityKgM3, share * (middle - z));
  }

  /** Share of fuel in what leaves an end over a face, kept within what the end holds. */
  private donated(end: number, other: number, f: number, q: number, dt: number): number {
    const { cells } = this.mesh;
    const wet = this.wetAt(end, f);
    if (end >= cells.count) return wet;
    const passes = AHEAD * q * dt;
    const fuel = this.fuelM3[end] as number;
    const gas = (this.airJ[end] as number) / (this.pressurePa[end] as number);
    if (gas <= 0) return 1;
    if (fuel <= 0) return 0;
    let share = wet;
    if (!cells.isVessel[end]) {
      const behind = this.lastShareIn[end] as number;
      const ahead = this.wetAt(other, f);
      const came = behind < 0 ? wet : behind;
      // A front lies in the cell where what it holds stands between what came and what lies ahead; else it is foam.
      if (came - ahead > UNLIKE.fuelBehind && wet <= came && wet >= ahead) share = 0;
      else if (ahead - came > UNLIKE.airBehind && wet >= came && wet <= ahead) share = 1;
    }
    if (passes > 0) share = max(1 - gas / passes, min(fuel / passes, share));
    return share < 0 ? 0 : share > 1 ? 1 : share;
  }

  /** Drop over a face at a flow, Pa, and its slope, into `out`. */
  private drop(f: number, q: number, out: { drop: number; slope: number }): void {
    const mover = this.mover[f] as Mover | null;
    if (this.oneWay[f] && q < 0) {
      out.slope = SHUT_PA_S_M3;
      out.drop = SHUT_PA_S_M3 * q + (mover ? this.atRest(f, mover) : (this.constant[f] as number));
      return;
    }
    const wet = (this.wetFrom[f] as number) * 0.5 + (this.wetTo[f] as number) * 0.5;
    if (mover) {
      this.moved(f, mover, q, out);
      return;
    }
    const { dynamicPaS } = this.settings.fuel;
    const size = q < 0 ? -q : q;
    const thin = wet + (1 - wet) * (AIR_PA_S / dynamicPaS);
    if ((this.frict[f] as number) === 0 && (this.mesh.faces.link[f] as number) < 0) {
      const share = q >= 0 ? (this.forward[f] as number) : (this.backward[f] as number);
      const square = (this.square[f] as number) * (share * this.densityKgM3 + (1 - share) * AIR_KG_M3) * size;
      out.drop = (this.constant[f] as number) + square * q;
      out.slope = 2 * square;
      return;
    }
    const light = wet + (1 - wet) * (AIR_KG_M3 / this.densityKgM3);
    let perFlow = (this.linear[f] as number) * thin;
    let slope = perFlow;
    const square = (this.square[f] as number) * light * size + this.freeSurface(f, q);
    perFlow += square;
    slope += 2 * square;
    const frict = this.frict[f] as number;
    if (frict > 0) {
      const perRe = this.reynolds[f] as number;
      const re = perRe * size;
      if (re < LAMINAR_BELOW_RE) {
        const laminar = ((64 * frict) / perRe) * thin;
        perFlow += laminar;
        slope += laminar;
      } else {
        friction.evaluate(re, this.rough[f] as number, this.value);
        const turbulent = frict * this.value.factor * size * wet + ((64 * frict) / perRe) * (thin - wet);
        perFlow += turbulent;
        slope += turbulent * (2 + this.value.logSlope);
      }
    }
    out.drop = (this.constant[f] as number) + perFlow * q;
    out.slope = slope;
  }

  /** One velocity head where fuel runs out into air: it gives Torricelli's flow without inertia. Per flow. */
  private freeSurface(f: number, q: number): number {
    const [donor, other] = q >= 0 ? [this.wetFrom[f], this.wetTo[f]] : [this.wetTo[f], this.wetFrom[f]];
    const front = max(0, (donor as number) - (other as number));
    const area = this.area[f] as number;
    return ((front * this.densityKgM3) / (2 * area * area)) * abs(q);
  }

  /** Absolute pressure before a face, for a pump on air. */
  private before(f: number): number {
    const end = this.mesh.faces.from[f] as number;
    return end < this.mesh.cells.count
      ? max(LEAST_PA, this.pressure[end] as number)
      : (this.tankPa[end - this.mesh.cells.count] as number);
  }

  private atRest(f: number, mover: Mover): number {
    const share = this.forward[f] as number;
    return share * (mover.curve.drop[0] as number) - ((1 - share) * this.before(f)) / mover.clearance;
  }

  private moved(
    f: number,
    { curve, freeM3S, clearance }: Mover,
    q: number,
    out: { drop: number; slope: number },
  ) {
    const { flow, drop } = curve;
    const share = this.forward[f] as number;
    let i = 1;
    const last = flow.length - 1;
    while (i < last && (flow[i] as number) < q) i++;
    const steep =
      ((drop[i] as number) - (drop[i - 1] as number)) / ((flow[i] as number) - (flow[i - 1] as number));
    const onFuel = (drop[i - 1] as number) + steep * (q - (flow[i - 1] as number));
    const perFlow = this.before(f) / (ON_AIR * freeM3S * clearance);
    const onAir = -this.before(f) / clearance + perFlow * q;
    out.drop = share * onFuel + (1 - share) * onAir;
    out.slope = max(LEAST_SLOPE, share * steep + (1 - share) * perFlow);
  }

  /** A step of at most `most` seconds; gives what it took. */
  private step(most: number): number {
    let dt = min(most, MOST_STEP_S, this.courant());
    this.guess.set(this.flow);
    this.prepareHeads(dt);
    for (let attempt = 0; attempt < 12; attempt++) {
      this.prepareShares(dt);
      this.prepareSwing(dt);
      if (attempt === 0) this.fromRest(dt);
      const isSolved = this.solve(dt);
      if (isSolved && this.take(dt)) {
        this.climbing(dt);
        this.atS += dt;
        this.steps += 1;
        return dt;
      }
      this.retries += 1;
      // What it would have passed is what the next try reckons with.
      for (let k = 0; k < this.open.length; k++) {
        const f = this.open[k] as number;
        const tried = this.trial[f] as number;
        this.guess[f] = isFinite(tried) ? tried : 0;
      }
      // Once the same step again with better flows, then shorter.
      if (!isSolved || attempt > 0) dt = max(LEAST_STEP_S, dt / 3);
    }
    throw new AirFault(this.atS);
  }

  private courant(): number {
    const { faces, cells } = this.mesh;
    let least = MOST_STEP_S;
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      const q = abs(this.flow[f] as number);
      if (q < STILL_M3_S) continue;
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      const va = a < cells.count ? (cells.volumeM3[a] as number) : Number.POSITIVE_INFINITY;
      const vb = b < cells.count ? (cells.volumeM3[b] as number) : Number.POSITIVE_INFINITY;
      const t = (COURANT * min(va, vb)) / q;
      if (t < least) least = t;
    }
    return max(LEAST_STEP_S, least);
  }

  /** Heads and wet shares as they will be in the middle of the step, by how cells filled in the last. */
  private prepareHeads(dt: number): void {
    const { faces, cells } = this.mesh;
    for (let k = 0; k < this.active.length; k++) {
      const c = this.active[k] as number;
      const full =
        ((this.fuelM3[c] as number) + 0.5 * dt * (this.fills[c] as number)) / (cells.volumeM3[c] as number);
      this.middle[c] = full < 0 ? 0 : full > 1 ? 1 : full;
    }
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      this.headFrom[f] = this.headAt(faces.from[f] as number, f, this.wetFrom);
      this.headTo[f] = this.headAt(faces.to[f] as number, f, this.wetTo);
    }
  }

  /**
   * Fuel that enters the foot of a line's cell raises what it enters against: worked out from the level before a step
   * alone, levels would swing from step to step. Pa per flow, against a change of flow.
   */
  private prepareSwing(dt: number): void {
    const { faces } = this.mesh;
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      this.swing[f] =
        headPa(this.densityKgM3, dt) *
        (this.rises(faces.from[f] as number, f) + this.rises(faces.to[f] as number, f));
    }
  }

  /** How far the level at a face rises in a cell by the fuel that enters, m per m3. */
  private rises(end: number, f: number): number {
    const { cells, faces } = this.mesh;
    if (end >= cells.count) return 0;
    const volume = cells.volumeM3[end] as number;
    const full = this.middle[end] as number;
    const z = faces.zM[f] as number;
    const middle = cells.zM[end] as number;
    if (cells.isVessel[end])
      return middle + full * (cells.tallM[end] as number) > z ? (cells.tallM[end] as number) / volume : 0;
    return z < middle && full < 0.5 ? (2 * (middle - z)) / volume : 0;
  }

  private prepareShares(dt: number): void {
    const { faces, cells } = this.mesh;
    const { leaves, guess } = this;
    leaves.fill(0);
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      const q = guess[f] as number;
      const donor = (q >= 0 ? faces.from[f] : faces.to[f]) as number;
      if (donor < cells.count) leaves[donor] = (leaves[donor] as number) + abs(q);
    }
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      const q = abs(guess[f] as number);
      // Of several ways out each is reckoned with what all of them take.
      this.forward[f] = this.donated(a, b, f, max(q, a < cells.count ? (leaves[a] as number) : 0), dt);
      this.backward[f] = this.donated(b, a, f, max(q, b < cells.count ? (leaves[b] as number) : 0), dt);
    }
  }

  /** Volume of the smaller of two cells, m3. */
  private smaller(a: number, b: number): number {
    const { count, volumeM3 } = this.mesh.cells;
    return min(a < count ? (volumeM3[a] as number) : 1, b < count ? (volumeM3[b] as number) : 1);
  }

  /** Where nothing flowed, what the pressures would drive through: Newton from rest leaps too far. */
  private fromRest(dt: number): void {
    const { faces } = this.mesh;
    const { guess, out } = this;
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      if (abs(guess[f] as number) > STILL_M3_S) continue;
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      const over =
        this.startPa(a) + (this.headFrom[f] as number) - this.startPa(b) - (this.headTo[f] as number);
      // A law of flow and its square, read off at a trial flow: what meets the pressure by it.
      const area = this.area[f] as number;
      const sign = over < 0 ? -1 : 1;
      const q = sign * area;
      this.drop(f, q, out);
      const perSquare = max(0, (out.slope * area - abs(out.drop)) / (area * area));
      const perFlow = max(0, out.slope - 2 * perSquare * area);
      const size = abs(over);
      const root = Math.sqrt(perFlow * perFlow + 4 * perSquare * size);
      const met = root + perFlow > 0 ? (2 * size) / (perFlow + root) : 0;
      guess[f] = sign * min(met, (COURANT * this.smaller(a, b)) / dt);
    }
  }

  private startPa(end: number): number {
    const { count } = this.mesh.cells;
    return end < count ? (this.pressurePa[end] as number) : (this.tankPa[end - count] as number);
  }

  private endPa(end: number): number {
    const { count } = this.mesh.cells;
    return end < count ? (this.pressure[end] as number) : (this.tankPa[end - count] as number);
  }

  private readonly out = { drop: 0, slope: 0 };

  /** Newton on the pressures of the cells; true where it settled. Flows in `trial`. */
  private solve(dt: number): boolean {
    const { faces, cells } = this.mesh;
    const { trial, guess, conduct, pressure, residual, out } = this;
    pressure.set(this.pressurePa);
    trial.set(guess);
    for (let iteration = 0; iteration < MOST_ITERATIONS; iteration++) {
      let moved = 0;
      for (let k = 0; k < this.active.length; k++) {
        const c = this.active[k] as number;
        this.newFuel[c] = this.fuelM3[c] as number;
        this.newAir[c] = this.airJ[c] as number;
        this.extra[c] = 0;
      }
      this.drawInto(dt, this.newFuel, this.newAir);
      this.lower.fill(0);
      this.upper.fill(0);
      this.diagonalOf.fill(0);
      for (let k = 0; k < this.open.length; k++) {
        const f = this.open[k] as number;
        const [a, b] = [faces.from[f] as number, faces.to[f] as number];
        const [pa, pb] = [this.endPa(a), this.endPa(b)];
        this.drop(f, trial[f] as number, out);
        const swing = this.swing[f] as number;
        const slope = (out.slope > LEAST_SLOPE ? out.slope : LEAST_SLOPE) + swing;
        const g = 1 / slope;
        conduct[f] = g;
        const over = pa + (this.headFrom[f] as number) - pb - (this.headTo[f] as number);
        const small = this.smaller(a, b);
        const most = (MOST_TRIED * small) / dt;
        const q = max(
          -most,
          min(
            most,
            (trial[f] as number) -
              g * (out.drop + swing * ((trial[f] as number) - (this.flow[f] as number)) - over),
          ),
        );
        const change = (abs(q - (trial[f] as number)) * dt) / small;
        if (!(change <= moved)) moved = change;
        trial[f] = q;
        const share = q >= 0 ? (this.forward[f] as number) : (this.backward[f] as number);
        const gas = 1 - share;
        const up = q >= 0 ? pa : pb;
        const inA = a < cells.count;
        const inB = b < cells.count;
        const fuel = dt * share * q;
        const air = dt * gas * q * up;
        if (inA) {
          this.newFuel[a] = (this.newFuel[a] as number) - fuel;
          this.newAir[a] = (this.newAir[a] as number) - air;
        }
        if (inB) {
          this.newFuel[b] = (this.newFuel[b] as number) + fuel;
          this.newAir[b] = (this.newAir[b] as number) + air;
        }
        const ca = dt * (share + (gas * up) / pa);
        const cb = dt * (share + (gas * up) / pb);
        const moves = dt * gas * q;
        let aa = ca * g;
        let ab = -ca * g;
        let ba = -cb * g;
        let bb = cb * g;
        if (q >= 0) {
          aa += moves / pa;
          ba -= moves / pb;
        } else {
          ab += moves / pa;
          bb -= moves / pb;
        }
        if (inA) this.diagonalOf[a] = (this.diagonalOf[a] as number) + aa;
        if (inB) this.diagonalOf[b] = (this.diagonalOf[b] as number) + bb;
        const slot = this.slot[f] as number;
        if (slot < 0) continue;
        // Row of the slot is the later of the two ends.
        if (this.swapped[f]) {
          this.lower[slot] = (this.lower[slot] as number) + ab;
          this.upper[slot] = (this.upper[slot] as number) + ba;
        } else {
          this.lower[slot] = (this.lower[slot] as number) + ba;
          this.upper[slot] = (this.upper[slot] as number) + ab;
        }
      }
      let worst = 0;
      for (let k = 0; k < this.active.length; k++) {
        const c = this.active[k] as number;
        const p = pressure[c] as number;
        const air = this.newAir[c] as number;
        const volume = cells.volumeM3[c] as number;
        const miss = volume + GIVE_M3_PA * (p - this.atmospherePa) - (this.newFuel[c] as number) - air / p;
        residual[c] = miss;
        const at = this.factor.position[k] as number;
        this.x[at] = -miss;
        this.diagonal[at] = (this.diagonalOf[c] as number) + GIVE_M3_PA + max(0, air) / (p * p);
        const size = abs(miss) / volume;
        if (!(size <= worst)) worst = size;
      }
      if (!isFinite(worst) || !isFinite(moved)) return false;
      if (iteration > 0 && worst < SETTLED && moved < SETTLED) return true;
      factorAndSolveGeneral(this.factor, this.diagonal, this.lower, this.upper, this.x);
      // Pressures stay over nothing; flows follow along their slopes.
      for (let k = 0; k < this.active.length; k++) {
        const c = this.active[k] as number;
        const p = pressure[c] as number;
        const next = p + (this.x[this.factor.position[k] as number] as number);
        pressure[c] = next > LEAST_PA ? next : max(LEAST_PA, 0.5 * p);
        this.extra[c] = (pressure[c] as number) - p;
      }
      for (let k = 0; k < this.open.length; k++) {
        const f = this.open[k] as number;
        const [a, b] = [faces.from[f] as number, faces.to[f] as number];
        const rise =
          (a < cells.count ? (this.extra[a] as number) : 0) -
          (b < cells.count ? (this.extra[b] as number) : 0);
        trial[f] = (trial[f] as number) + (conduct[f] as number) * rise;
      }
    }
    return false;
  }

  /** What consumers draw and send back: a mixture as it stands at their feed; less where the line gives no more. */
  private drawInto(dt: number, fuel: Float64Array, air: Float64Array, isTaken = false): void {
    for (const { feed, back, feedM3S, burnM3S } of this.draws) {
      const p = this.pressurePa[feed] as number;
      const share = min(1, (this.fuelM3[feed] as number) / (this.mesh.cells.volumeM3[feed] as number));
      const q = feedM3S * min(1, max(0, (p - UNFED_PA) / UNFED_PA));
      const wet = q * dt * share;
      const gas = q * dt * (1 - share) * p;
      fuel[feed] = (fuel[feed] as number) - wet;
      air[feed] = (air[feed] as number) - gas;
      const burned = back === null ? 1 : burnM3S / (feedM3S || 1);
      if (back !== null) {
        fuel[back] = (fuel[back] as number) + (1 - burned) * wet;
        air[back] = (air[back] as number) + (1 - burned) * gas;
      }
      if (!isTaken) continue;
      this.burned.fuelM3 += burned * wet;
      this.burned.airJ += burned * gas;
    }
  }

  /** Takes the step that was solved over; false where a cell would hold less than nothing. */
  private take(dt: number): boolean {
    const { faces, cells } = this.mesh;
    for (let k = 0; k < this.active.length; k++) {
      const c = this.active[k] as number;
      const volume = cells.volumeM3[c] as number;
      if ((this.newFuel[c] as number) < -OVERDRAWN * volume) return false;
      if ((this.newAir[c] as number) < -OVERDRAWN * volume * this.atmospherePa) return false;
    }
    this.inFlow.fill(0);
    this.lastShareIn.fill(0);
    // Anew with the flows as they are now, so that what leaves one end enters the other to the last bit.
    for (let k = 0; k < this.active.length; k++) {
      const c = this.active[k] as number;
      this.newFuel[c] = this.fuelM3[c] as number;
      this.newAir[c] = this.airJ[c] as number;
    }
    this.drawInto(dt, this.newFuel, this.newAir, true);
    const { count } = cells;
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      const q = this.trial[f] as number;
      const [a, b] = [faces.from[f] as number, faces.to[f] as number];
      const share = q >= 0 ? (this.forward[f] as number) : (this.backward[f] as number);
      const fuel = dt * share * q;
      const air = dt * (1 - share) * q * (q >= 0 ? this.endPa(a) : this.endPa(b));
      this.flow[f] = q;
      this.share[f] = share;
      if (a < count) {
        this.newFuel[a] = (this.newFuel[a] as number) - fuel;
        this.newAir[a] = (this.newAir[a] as number) - air;
      } else this.away(a - count, -fuel, -air);
      if (b < count) {
        this.newFuel[b] = (this.newFuel[b] as number) + fuel;
        this.newAir[b] = (this.newAir[b] as number) + air;
      } else this.away(b - count, fuel, air);
      const into = q >= 0 ? b : a;
      if (into < count) {
        const size = abs(q);
        this.inFlow[into] = (this.inFlow[into] as number) + size;
        this.lastShareIn[into] = (this.lastShareIn[into] as number) + size * share;
      }
    }
    for (let k = 0; k < this.active.length; k++) {
      const c = this.active[k] as number;
      this.fills[c] = ((this.newFuel[c] as number) - (this.fuelM3[c] as number)) / dt;
      this.fuelM3[c] = this.newFuel[c] as number;
      this.airJ[c] = this.newAir[c] as number;
      this.pressurePa[c] = this.pressure[c] as number;
    }
    for (let c = 0; c < count; c++) {
      const into = this.inFlow[c] as number;
      this.lastShareIn[c] = into > STILL_M3_S ? (this.lastShareIn[c] as number) / into : -1;
    }
    return true;
  }

  private away(end: number, fuel: number, air: number): void {
    const { fuelM3, airJ } = this.beyond;
    fuelM3[end] = (fuelM3[end] as number) + fuel;
    airJ[end] = (airJ[end] as number) + air;
  }

  /** Fuel over air on a slope changes places with it. */
  private climbing(dt: number): void {
    const { faces, cells } = this.mesh;
    for (let k = 0; k < this.open.length; k++) {
      const f = this.open[k] as number;
      const rate = this.climb[f] as number;
      if (rate === 0 || this.mover[f] || this.oneWay[f]) continue;
      const rises = (faces.sine[f] as number) > 0;
      const low = (rises ? faces.from[f] : faces.to[f]) as number;
      const high = (rises ? faces.to[f] : faces.from[f]) as number;
      if (low >= cells.count || high >= cells.count) continue;
      const gasBelow = 1 - min(1, this.wetAt(low, f));
      const wetAbove = this.wetAt(high, f);
      const gas = max(0, (this.airJ[low] as number) / (this.pressurePa[low] as number));
      const volume = min(rate * min(gasBelow, wetAbove) * dt, 0.5 * gas, 0.5 * (this.fuelM3[high] as number));
      if (!(volume > 0)) continue;
      const air = volume * (this.pressurePa[low] as number);
      this.fuelM3[high] = (this.fuelM3[high] as number) - volume;
      this.fuelM3[low] = (this.fuelM3[low] as number) + volume;
      this.airJ[low] = (this.airJ[low] as number) - air;
      this.airJ[high] = (this.airJ[high] as number) + air;
    }
  }

  /** Runs on for so many seconds, asking after each step whether to stop; gives the seconds that passed. */
  run(seconds: number, after?: (dt: number) => boolean | undefined): number {
    let done = 0;
    while (done < seconds - 1e-9) {
      const dt = this.step(seconds - done);
      done += dt;
      if (after?.(dt)) break;
    }
    return done;
  }
}

/** No step of any length was found: told with its moment. */
export class AirFault extends Error {
  constructor(readonly atS: number) {
    super(`no step at ${atS} s`);
  }
}

/** The model of a line-up at its conditions, dry; or why there is none. */
export function airFlow(network: Network, lineUp: LineUp, conditions: Conditions): AirFlow | SettingsFault {
  const settings = makeSettings(network, lineUp, conditions);
  return "code" in settings ? settings : new AirFlow(network, settings);
}
