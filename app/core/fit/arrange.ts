/**
 * A board arranged by search: simulated annealing (S. Kirkpatrick and others, Science 220, 1983, p. 671) over places and
 * turns, the same for the same seed. The judge of a board is {@link panelClashes} and {@link layHose}; this is only a
 * convenience that uses them.
 */

import { seeded } from "../random/seeded";
import {
  type BoardPort,
  type HoseToLay,
  type Laid,
  layHose,
  leastWorthM,
  type Obstacle,
  worthM,
} from "./laying";
import {
  type Box,
  type Clash,
  type Hung,
  type PanelPart,
  panelClashes,
  placedIn,
  type Solid,
  tooNear,
  turned,
} from "./panel";

export interface ArrangedPart extends PanelPart {
  /** Quarters it may be turned by. */
  turns: readonly number[];
  ports: Readonly<Record<string, BoardPort>>;
  isPinned?: boolean;
}

export type HoseAt = { part: number; port: string } | { edge: BoardPort };

export interface BoardHose {
  id: string;
  from: HoseAt;
  to: HoseAt;
  radiusM: number;
  outerM: number;
}

/** Two ports that are screwed together, or by a nipple. */
export interface Screwed {
  id: string;
  a: { part: number; port: string };
  b: { part: number; port: string };
}

export interface BoardTask {
  board: Box;
  opening: Box;
  /** Where hoses may run, beyond the board's edge. */
  hoseArea: Box;
  parts: readonly ArrangedPart[];
  hoses: readonly BoardHose[];
  screwed?: readonly Screwed[];
  lanes: readonly number[];
  elbows: boolean;
  gapM: number;
  /** What stands in the way and is no part of the plan. */
  obstacles?: readonly Solid[];
}

export interface Arranged {
  at: readonly Hung[];
  hoses: readonly Laid[];
  clashes: readonly Clash[];
  /** Screwed joints whose ports stand apart, m. */
  apart: readonly { id: string; a: string; b: string; byM: number }[];
  hoseM: number;
  elbows: number;
  /** All rules kept and no hose through anything. */
  isLegal: boolean;
}

/** A port of a part that hangs there. */
export function portAt(part: ArrangedPart, { x, z, t }: Hung, name: string): BoardPort {
  const port = part.ports[name] as BoardPort;
  const spot = turned({ x: port.x, z: port.z, w: 0, h: 0 }, part, t);
  return { x: x + spot.x, z: z + spot.z, dir: (port.dir + t) % 4, y: port.y };
}

/** What a screwed joint may measure on a board: the ports meet, or a nipple is between. Common practice, no source. */
export const MOST_NIPPLE_M = 0.15;

/** How far the ports of a screwed joint stand from each other, m. */
function apartM(task: BoardTask, at: readonly Hung[], { a, b }: Screwed): number {
  const [one, other] = [a, b].map(({ part, port }) =>
    portAt(task.parts[part] as ArrangedPart, at[part] as Hung, port),
  ) as [BoardPort, BoardPort];
  return Math.hypot(one.x - other.x, one.z - other.z);
}

const NOBODY = -2;

/** Everything that a hose may not pass, by part. */
function boxesOf(part: ArrangedPart, at: Hung, of: number): Obstacle[] {
  return [...part.bodies, ...(part.service ?? [])].map((box) => ({ ...placedIn(box, part, at), of }));
}

/** The same by turn, so that a search turns each box once. */
function turnedBoxes(part: ArrangedPart, of: number): Obstacle[][] {
  return [0, 1, 2, 3].map((t) => boxesOf(part, { x: 0, z: 0, t }, of));
}

const shifted = (boxes: readonly Obstacle[], { x, z }: Hung): Obstacle[] =>
  boxes.map((box) => ({
    x: box.x + x,
    z: box.z + z,
    w: box.w,
    h: box.h,
    y0: box.y0,
    y1: box.y1,
    of: box.of,
  }));

function hoseToLay(task: BoardTask, at: readonly Hung[], hose: BoardHose): HoseToLay {
  const end = (one: HoseAt): [BoardPort, number | null] =>
    "edge" in one
      ? [one.edge, null]
      : [portAt(task.parts[one.part] as ArrangedPart, at[one.part] as Hung, one.port), one.part];
  const [from, fromPart] = end(hose.from);
  const [to, toPart] = end(hose.to);
  return { from, to, fromPart, toPart, radiusM: hose.radiusM, outerM: hose.outerM };
}

/** What hangs on the board, judged as it hangs. */
export function judgeBoard(task: BoardTask, at: readonly Hung[]): Arranged {
  const obstacles = [
    ...task.parts.flatMap((part, i) => boxesOf(part, at[i] as Hung, i)),
    ...(task.obstacles ?? []).map((box) => ({ ...box, of: NOBODY })),
  ];
  const hoses = task.hoses.map((hose) =>
    layHose(hoseToLay(task, at, hose), obstacles, task.hoseArea, task.lanes, task.elbows),
  );
  const apart = (task.screwed ?? []).flatMap((joint) => {
    const byM = apartM(task, at, joint);
    const name = (i: number) => (task.parts[i] as ArrangedPart).id;
    return byM > MOST_NIPPLE_M ? [{ id: joint.id, a: name(joint.a.part), b: name(joint.b.part), byM }] : [];
  });
  const clashes = panelClashes({ ...task, at, gap: task.gapM, fixed: task.obstacles });
  return {
    at,
    hoses,
    clashes,
    apart,
    hoseM: hoses.reduce((sum, { lengthM }) => sum + lengthM, 0),
    elbows: hoses.reduce((sum, { elbows: [a, b] }) => sum + Math.abs(a) + Math.abs(b), 0),
    isLegal: clashes.length === 0 && apart.length === 0 && hoses.every(({ through }) => through.length === 0),
  };
}

interface Legal {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** Where a part's corner may be: its bodies on the board, its service rooms within the opening; null where nowhere. */
function legalFor(part: ArrangedPart, t: number, board: Box, opening: Box): Legal | null {
  const legal = { x0: -Infinity, x1: Infinity, z0: -Infinity, z1: Infinity };
  const within = (box: Box, frame: Box) => {
    legal.x0 = Math.max(legal.x0, frame.x - box.x);
    legal.z0 = Math.max(legal.z0, frame.z - box.z);
    legal.x1 = Math.min(legal.x1, frame.x + frame.w - box.x - box.w);
    legal.z1 = Math.min(legal.z1, frame.z + frame.h - box.z - box.h);
  };
  for (const body of part.bodies) within(turned(body, part, t), board);
  if (part.serviced) for (const room of part.service ?? []) within(turned(room, part, t), opening);
  return legal.x1 >= legal.x0 && legal.z1 >= legal.z0 ? legal : null;
}

/** Places are whole steps of this. */
const GRID_M = 0.005;
/** What a millimetre of clash and a hose through something cost, in hose. Chosen so that neither pays. */
const CLASH_WORTH = 12;
const CLASH_ONCE_M = 0.15;
/** Two things have no one place, whatever else is given up: so many times a room that is taken. */
const BODY_WORTH = 20;
const THROUGH_ONCE_M = 0.6;
/** A nipple costs this much more than hose of its length. A choice. */
const SCREWED_WORTH = 2;
const HOT_M = 0.25;
const WARM_M = 0.12;
const COLD_M = 0.015;

/** A round that gains less than a fiftieth is stale; after so many of them in a row the search ends. */
const BETTER = 0.98;
const MOST_STALE = 2;

export interface Search {
  seed: number;
  /** Moves of one cooling, and how often it is cooled from hot. */
  moves: number;
  rounds: number;
}

/** What a proposal is searched with. A choice. */
export const SEARCH = { moves: 4000, rounds: 10 } as const;

export interface Progress {
  done: number;
  of: number;
  best: Arranged;
}

/** The thing that is searched over: what a move touches is judged, nothing else. */
class Arrangement {
  readonly at: Hung[];
  private readonly boxes: Obstacle[][];
  private readonly byTurn: Obstacle[][][];
  private readonly laid: Laid[];
  private readonly costOfHose: number[];
  private pairCost: number[][];
  private readonly fixed: Obstacle[];
  private readonly hosesOf: number[][];
  cost = 0;

  constructor(
    readonly task: BoardTask,
    start: readonly Hung[],
  ) {
    const { parts, hoses } = task;
    this.at = start.map((one) => ({ ...one }));
    this.fixed = (task.obstacles ?? []).map((box) => ({ ...box, of: NOBODY }));
    this.byTurn = parts.map(turnedBoxes);
    this.boxes = parts.map((_, i) => this.boxesAt(i, this.at[i] as Hung));
    this.hosesOf = parts.map((_, i) =>
      hoses.flatMap((hose, h) =>
        [hose.from, hose.to].some((end) => "part" in end && end.part === i) ? [h] : [],
      ),
    );
    this.pairCost = parts.map(() => parts.map(() => 0));
    parts.forEach((_, i) => {
      for (let j = 0; j <= i; j++) this.setPair(i, j);
    });
    this.laid = [];
    this.costOfHose = hoses.map((_, h) => {
      this.laid[h] = this.lay(h);
      return this.worth(h);
    });
    this.cost = this.total();
  }

  private boxesAt(i: number, at: Hung): Obstacle[] {
    return shifted((this.byTurn[i] as Obstacle[][])[at.t] as Obstacle[], at);
  }

  private total(): number {
    return this.costOfHose.reduce((sum, one) => sum + one, this.pairs());
  }

  private worth(h: number): number {
    const one = this.laid[h] as Laid;
    return worthM(one) + one.through.length * THROUGH_ONCE_M;
  }

  private lay(h: number): Laid {
    const { task } = this;
    return layHose(
      hoseToLay(task, this.at, task.hoses[h] as BoardHose),
      [...this.boxes.flat(), ...this.fixed],
      task.hoseArea,
      task.lanes,
      task.elbows,
    );
  }

  /** Cost of two parts that are too near; of one with itself: of what stands in its way. */
  private setPair(i: number, j: number): void {
    const { parts, gapM } = this.task;
    const [a, b] = [this.boxes[i] as Obstacle[], this.boxes[j] as Obstacle[]];
    const [inA, inB] = [(parts[i] as ArrangedPart).bodies.length, (parts[j] as ArrangedPart).bodies.length];
    let by = 0;
    if (i === j) {
      for (const [k, box] of a.entries())
        for (const other of this.fixed) by += tooNear(box, other, k < inA ? gapM : 0);
    } else {
      for (const [k, box] of a.entries()) {
        for (const [l, other] of b.entries()) {
          if (k >= inA && l >= inB) continue;
          const near = tooNear(box, other, k < inA && l < inB ? gapM : 0);
          const isBody = k < inA && l < inB;
          if (near > 1e-9) by += (isBody ? BODY_WORTH : 1) * (near + CLASH_ONCE_M / CLASH_WORTH);
        }
      }
    }
    (this.pairCost[Math.max(i, j)] as number[])[Math.min(i, j)] = by * CLASH_WORTH;
  }

  /** Puts parts to new places if that costs no more than `mostM`; else all stays as it is. */
  tryMove(changes: readonly { i: number; to: Hung }[], mostM: number): boolean {
    const { task } = this;
    const before = changes.map(({ i }) => ({
      i,
      at: this.at[i] as Hung,
      boxes: this.boxes[i] as Obstacle[],
    }));
    const pairs = this.pairCost.map((row) => [...row]);
    const hosesBefore: { h: number; laid: Laid; cost: number }[] = [];
    const undo = () => {
      for (const { i, at, boxes } of before) {
        this.at[i] = at;
        this.boxes[i] = boxes;
      }
      this.pairCost = pairs;
      for (const { h, laid, cost } of hosesBefore) {
        this.laid[h] = laid;
        this.costOfHose[h] = cost;
      }
      return false;
    };
    const touched = new Set<number>();
    const swept: Obstacle[] = [];
    for (const { i, to } of changes) {
      this.at[i] = to;
      const after = this.boxesAt(i, to);
      swept.push(...(this.boxes[i] as Obstacle[]), ...after);
      this.boxes[i] = after;
      for (const h of this.hosesOf[i] as number[]) touched.add(h);
    }
    for (const { i } of changes) for (let j = 0; j < this.at.length; j++) this.setPair(i, j);
    let bound = this.pairs();
    if (bound > mostM) return undo();
    this.laid.forEach((one, h) => {
      // A hose that another part blocked may be free now, and one that lay clear may be crossed.
      const half = (task.hoses[h] as BoardHose).outerM / 2;
      if (!touched.has(h) && (!one.isShortest || swept.some((box) => crosses(one, box, half))))
        touched.add(h);
      if (!touched.has(h)) bound += this.costOfHose[h] as number;
    });
    const waiting = [...touched].map((h) => {
      const hose = hoseToLay(task, this.at, task.hoses[h] as BoardHose);
      const least = leastWorthM(hose, task.elbows);
      bound += least;
      return { h, hose, least };
    });
    if (bound > mostM) return undo();
    const boxes = [...this.boxes.flat(), ...this.fixed];
    for (const { h, hose, least } of waiting) {
      hosesBefore.push({ h, laid: this.laid[h] as Laid, cost: this.costOfHose[h] as number });
      this.laid[h] = layHose(hose, boxes, task.hoseArea, task.lanes, task.elbows, least + THROUGH_ONCE_M);
      this.costOfHose[h] = this.worth(h);
      bound += (this.costOfHose[h] as number) - least;
      if (bound > mostM) return undo();
    }
    this.cost = bound;
    return true;
  }

  private pairs(): number {
    let sum = 0;
    for (const joint of this.task.screwed ?? []) {
      const byM = apartM(this.task, this.at, joint);
      sum += SCREWED_WORTH * byM + (byM > MOST_NIPPLE_M ? CLASH_ONCE_M : 0);
    }
    for (const row of this.pairCost) for (const one of row) sum += one;
    return sum;
  }

  get isLegal(): boolean {
    return (
      this.pairCost.every((row) => row.every((one) => one === 0)) &&
      (this.task.screwed ?? []).every((joint) => apartM(this.task, this.at, joint) <= MOST_NIPPLE_M) &&
      this.laid.every(({ through }) => through.length === 0)
    );
  }
}

function crosses({ fromM: [dx, dz], xzM }: Laid, box: Box, half: number): boolean {
  const [left, right] = [box.x - half - dx, box.x + box.w + half - dx];
  const [foot, top] = [box.z - half - dz, box.z + box.h + half - dz];
  for (let i = 0; i < xzM.length; i += 2) {
    const [x, z] = [xzM[i] as number, xzM[i + 1] as number];
    if (x > left && x < right && z > foot && z < top) return true;
  }
  return false;
}

type Proposal = { i: number; to: Hung }[];

/**
 * @returns the best found, and progress as it goes: each time something better is found, and a hundred times a search
 */
export function* arrange(
  task: BoardTask,
  start: readonly Hung[],
  { seed, moves, rounds }: Search,
): Generator<Progress, Arranged> {
  const random = seeded(seed);
  const legal = task.parts.map((part, i) => {
    if (part.isPinned) return new Map([[(start[i] as Hung).t, null]]);
    const ways = (one: ArrangedPart) =>
      new Map(part.turns.map((t) => [t, legalFor(one, t, task.board, task.opening)]));
    const own = ways(part);
    // What can be served nowhere still hangs somewhere, and not on another.
    return [...own.values()].some((one) => one !== null) ? own : ways({ ...part, serviced: false });
  });
  const free = task.parts.flatMap((part, i) =>
    !part.isPinned && [...(legal[i] as Map<number, Legal | null>).values()].some((one) => one !== null)
      ? [i]
      : [],
  );
  let best = judgeBoard(task, start);
  const of = moves * rounds;
  let bestM = Number.POSITIVE_INFINITY;
  let stale = 0;
  if (free.length === 0) return best;
  const turnsOf = (i: number) =>
    [...(legal[i] as Map<number, Legal | null>)].flatMap(([t, one]) => (one ? [t] : []));
  const onGrid = (v: number, low: number, high: number) =>
    Math.min(high, Math.max(low, low + Math.round((v - low) / GRID_M) * GRID_M));
  const inside = (i: number, { x, z, t }: Hung): Hung | null => {
    const one = (legal[i] as Map<number, Legal | null>).get(t);
    return one ? { x: onGrid(x, one.x0, one.x1), z: onGrid(z, one.z0, one.z1), t } : null;
  };
  const any = (i: number): Hung => {
    const turns = turnsOf(i);
    const t = turns[Math.floor(random() * turns.length)] as number;
    const one = (legal[i] as Map<number, Legal | null>).get(t) as Legal;
    return inside(i, {
      x: one.x0 + random() * (one.x1 - one.x0),
      z: one.z0 + random() * (one.z1 - one.z0),
      t,
    }) as Hung;
  };
  const pick = () => free[Math.floor(random() * free.length)] as number;
  const jog = (reach: number) => (random() * 2 - 1) * reach;
  const proposal = (now: Arrangement, reach: number): Proposal => {
    const i = pick();
    const mine = now.at[i] as Hung;
    const kind = random();
    if (kind < 0.45) {
      const to = inside(i, { x: mine.x + jog(reach), z: mine.z + jog(reach), t: mine.t });
      return to ? [{ i, to }] : [];
    }
    if (kind < 0.6) {
      const turns = turnsOf(i);
      const to = inside(i, { ...mine, t: turns[Math.floor(random() * turns.length)] as number });
      return to ? [{ i, to }] : [];
    }
    if (kind < 0.7) return [{ i, to: any(i) }];
    const j = pick();
    if (i === j) return [{ i, to: any(i) }];
    const other = now.at[j] as Hung;
    if (kind < 0.85) {
      const [dx, dz] = [jog(reach), jog(reach)];
      const to = inside(i, { ...mine, x: mine.x + dx, z: mine.z + dz });
      const and = inside(j, { ...other, x: other.x + dx, z: other.z + dz });
      return to && and
        ? [
            { i, to },
            { i: j, to: and },
          ]
        : [];
    }
    const to = inside(i, { ...mine, x: other.x, z: other.z });
    const and = inside(j, { ...other, x: mine.x, z: mine.z });
    return to && and
      ? [
          { i, to },
          { i: j, to: and },
        ]
      : [];
  };
  for (let round = 0; round < rounds; round++) {
    // Until something is found each round begins anywhere; then from the best, less hot.
    const hotM = best.isLegal ? WARM_M : HOT_M;
    const now = new Arrangement(
      task,
      best.isLegal ? best.at : start.map((one, i) => (free.includes(i) ? any(i) : one)),
    );
    let bestCost = Infinity;
    for (let k = 0; k < moves; k++) {
      const share = k / moves;
      const heat = hotM * (COLD_M / hotM) ** share;
      const reach = 0.2 * (1 - share) + 0.012;
      const changes = proposal(now, reach);
      if (changes.length > 0) {
        // Metropolis' rule, drawn before the judging: what costs more than this is not gone on with.
        const isTaken = now.tryMove(changes, now.cost - heat * Math.log(1 - random()));
        if (isTaken && now.cost < bestCost && now.isLegal) {
          bestCost = now.cost;
          const judged = judgeBoard(
            task,
            now.at.map((one) => ({ ...one })),
          );
          if (judged.isLegal && (!best.isLegal || scoreM(judged) < scoreM(best) - 1e-9)) {
            best = judged;
            yield { done: round * moves + k, of, best };
          }
        }
      }
      if (k % Math.ceil(of / 100) === 0) yield { done: round * moves + k, of, best };
    }
    if (best.isLegal) {
      const isBetter = scoreM(best) < BETTER * bestM;
      bestM = scoreM(best);
      stale = isBetter ? 0 : stale + 1;
      if (stale === MOST_STALE) break;
    }
    if (!best.isLegal) {
      const judged = judgeBoard(task, now.at);
      const less = bodiesOver(judged) - bodiesOver(best);
      if (less < 0 || (less === 0 && faults(judged) < faults(best))) best = judged;
    }
  }
  return best;
}

const scoreM = ({ hoses }: Arranged) => hoses.reduce((sum, one) => sum + worthM(one), 0);
const bodiesOver = ({ clashes }: Arranged) => clashes.filter(({ code }) => code === "bodies").length;
const faults = ({ clashes, apart, hoses }: Arranged) =>
  clashes.length + apart.length + hoses.filter(({ through }) => through.length > 0).length;

/** What would let a board be arranged that could not be as it is. */
export type Instead = "smallerHose" | "largerBoard";

export interface Proposed {
  best: Arranged;
  instead: Instead | null;
}

/** A hose one size down bends this much tighter; a board this much larger each way is the next one to buy. Choices. */
const SMALLER = 0.75;
const LARGER = 1.25;
/** Rounds of a search that only asks whether it could be. */
const ASKING_ROUNDS = 3;

const easier: Readonly<Record<Instead, (task: BoardTask) => BoardTask>> = {
  smallerHose: (task) => ({
    ...task,
    hoses: task.hoses.map((hose) => ({
      ...hose,
      radiusM: hose.radiusM * SMALLER,
      outerM: hose.outerM * SMALLER,
    })),
  }),
  largerBoard: (task) => {
    const grown = (box: Box): Box => ({ ...box, w: box.w * LARGER, h: box.h * LARGER });
    return {
      ...task,
      board: grown(task.board),
      opening: grown(task.opening),
      hoseArea: grown(task.hoseArea),
    };
  },
};

function run(search: Generator<Progress, Arranged>, onBest: (progress: Progress) => void): Arranged {
  for (let step = search.next(); ; step = search.next()) {
    if (step.done) return step.value;
    onBest(step.value);
  }
}

/** A board arranged; where nothing is found that keeps all rules, what would be if one thing were easier. */
export function propose(
  task: BoardTask,
  start: readonly Hung[],
  search: Search,
  onBest: (progress: Progress) => void,
): Proposed {
  const best = run(arrange(task, start, search), onBest);
  if (best.isLegal) return { best, instead: null };
  const instead = (Object.keys(easier) as Instead[]).find(
    (one) =>
      run(arrange(easier[one](task), start, { ...search, rounds: ASKING_ROUNDS }), () => undefined).isLegal,
  );
  return { best, instead: instead ?? null };
}
