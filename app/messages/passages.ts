/** Words for holes in floors and walls. */
import type { EdgeCare, PassageHole } from "~/core/boards/passages";
import type { Passage } from "~/core/plan/types";

export const throughTexts: Record<Passage["through"], string> = {
  floor: "floor",
  bulkhead: "bulkhead or wall",
  stringer: "stringer or frame",
  board: "board",
  body: "vehicle's body",
};
export const madeTexts: Record<Passage["made"], string> = {
  wood: "wood",
  cored: "cored panel",
  metal: "metal",
  plastic: "plastic or laminate",
};
export const behindTexts: Record<NonNullable<Passage["behind"]>, string> = {
  free: "nothing",
  chassis: "the chassis",
  stringer: "a stringer",
  tank: "a tank",
  wires: "wires or pipes",
};
export const edgeTexts: Record<EdgeCare, string> = {
  sealCore: "core dug back and filled with epoxy",
  sealGrain: "epoxy in the end grain",
  deburrPaint: "deburred both sides, painted",
  deburr: "deburred",
};
/** What is wrong, and what mends it. */
export const passageTexts: Record<PassageHole["faults"][number], readonly [string, string]> = {
  nothingPasses: ["nothing is said to pass it", "Choose the hoses that pass it, or take it out."],
  noSaw: ["no saw is so large", "Two holes side by side."],
  nearEdge: ["it is too near to an edge", "From an edge at the least as far again as its own radius."],
  notLooked: [
    "nobody has looked behind it",
    "Look from the other side, or drill a pilot hole and feel; a photograph is kept with it.",
  ],
  behind: ["something lies behind it", "Another place; over a tank never, and never without its maker."],
  bareMetal: ["a hose in bare metal", "A grommet or a sleeve."],
  sleeveShort: [
    "its sleeve is shorter than the wall wants",
    "A sleeve that stands out a little on both sides.",
  ],
  sleeveLong: ["its sleeve stands out far", "A shorter sleeve, or cut it."],
};
