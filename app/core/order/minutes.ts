/** How long steps take, by how many, and how many work at once at a place. */
import type { Verb } from "./facts";

/** Minutes of hands, then of waiting, and people. Common practice, no source: the shop's own go first. */
export const minutes: Readonly<Record<Verb, readonly [work: number, wait: number, people: number]>> = {
  batteryOff: [5, 0, 1],
  extinguisher: [2, 0, 1],
  ventilate: [5, 0, 1],
  support: [15, 0, 1],
  eyes: [2, 0, 1],
  pan: [3, 0, 1],
  photograph: [3, 0, 1],
  swapPan: [5, 0, 1],
  openCover: [10, 0, 1],
  photographBehind: [3, 0, 1],
  closeCover: [10, 0, 1],
  engineOut: [240, 0, 2],
  engineIn: [240, 0, 2],
  shutOff: [1, 0, 1],
  unfasten: [5, 0, 1],
  handDown: [10, 0, 2],
  tankDown: [15, 0, 2],
  unitOpen: [18, 0, 1],
  unitShut: [10, 0, 1],
  handUp: [15, 0, 2],
  tankUp: [15, 0, 2],
  refasten: [5, 0, 1],
  drainTank: [8, 0, 1],
  drainBowl: [2, 3, 1],
  undo: [4, 0, 1],
  cap: [1, 0, 1],
  unplug: [2, 0, 1],
  tapeSpare: [3, 0, 1],
  blow: [6, 2, 1],
  hoseOut: [6, 0, 1],
  partOut: [12, 0, 1],
  tankFitting: [12, 60, 1],
  setTank: [30, 0, 2],
  cutHole: [21, 0, 1],
  careEdge: [5, 45, 1],
  checkIn: [3, 0, 1],
  fixPart: [12, 0, 1],
  boardPart: [10, 0, 1],
  boardUp: [20, 0, 2],
  element: [8, 0, 1],
  cutHose: [4, 0, 1],
  makeEnds: [4, 0, 1],
  lay: [6, 0, 1],
  clip: [6, 0, 1],
  join: [5, 0, 1],
  wire: [25, 0, 1],
  exhaust: [40, 0, 1],
  combustionAir: [15, 0, 1],
  alarm: [10, 0, 1],
  plugIn: [2, 0, 1],
  fill: [5, 0, 1],
  batteryOn: [4, 0, 1],
  setLineUp: [2, 0, 1],
  power: [2, 0, 1],
  bleed: [15, 0, 1],
  look: [1, 0, 1],
  baseline: [3, 0, 1],
  start: [3, 0, 1],
  idle: [4, 6, 1],
  load: [15, 0, 1],
  runDown: [4, 6, 1],
  lookAgain: [10, 0, 1],
  waste: [15, 0, 1],
};
/** What every step of a verb begins with, before anything is known of its body. */
export function bareStep(verb: Verb) {
  const [workMin, waitMin, people] = minutes[verb];
  return { verb, workMin, waitMin, people, notBeforeMin: 0, needs: [] as string[], litresM3: 0 };
}
/** Emptying a tank takes a minute more by these litres; filling one by those. Common practice, no source. */
export const DRAINS_L_MIN = 12;
export const FILLS_L_MIN = 15;
/** How many bodies work at once at a place. Common practice, no source. */
export const bodiesAt: Readonly<Record<string, number>> = {
  safe: 2,
  bench: 2,
  tanks: 1,
  line: 2,
  board: 1,
  engine: 1,
  test: 1,
};
