/** Words for boards: rooms, clashes, what a search found. */
import type { Instead } from "~/core/fit/arrange";
import type { ClashCode } from "~/core/fit/panel";
import type { ServiceRoom } from "~/core/kinds/kind";
import type { Facing } from "~/core/plan/types";

export const serviceTexts: Record<ServiceRoom["use"], string> = {
  lidLift: "lid lifts",
  bowlDrop: "bowl drops",
  drainCup: "drain cup",
  driver: "screwdriver",
  swing: "handle swings",
};

export const facingTexts: Record<Facing, string> = {
  forward: "forward",
  aft: "aft",
  port: "to port",
  starboard: "to starboard",
};
/** A vehicle with a front and a left has no port and no starboard. */
export const roadFacingTexts: Record<Facing, string> = {
  forward: "to the front",
  aft: "to the rear",
  port: "to the left",
  starboard: "to the right",
};

const kinds: Record<string, string> = serviceTexts;

/** One clash in a sentence; `mm` is how far it must move, in the job's units. */
export function clashText(code: ClashCode, a: string, b: string, by: string): string {
  switch (code) {
    case "bodies":
      return `${a} and ${b}: ${by} too near`;
    case "serviceBlocked":
      return `${b} stands ${by} in the room that work on ${a} needs`;
    case "outOfReach":
      return `${a}: ${by} of its room (${kinds[b] ?? b}) lies outside the opening`;
    case "offBoard":
      return `${a} hangs ${by} over the board's edge`;
  }
}

export const insteadTexts: Record<Instead, string> = {
  smallerHose: "with hose one size smaller, which bends tighter, it can be",
  largerBoard: "on a board and opening a quarter larger it can be",
};
