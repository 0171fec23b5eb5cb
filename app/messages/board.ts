/** Words for boards: rooms, clashes, what a search found. */
import { type BoardJudged, type LidHeld, stuckOf, wrongsOf } from "~/core/boards/board";
import type { Instead } from "~/core/fit/arrange";
import type { Laid } from "~/core/fit/laying";
import type { ClashCode } from "~/core/fit/panel";
import type { ServiceRoom } from "~/core/kinds/kind";
import type { Facing } from "~/core/plan/types";
import { counted } from "./counted";

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

const insteadTexts: Record<Instead, string> = {
  smallerHose: "with hose one size smaller, which bends tighter, it can be",
  largerBoard: "on a board and opening a quarter larger it can be",
};

/** How a search stands, or what it found and why no more. */
export function searchText(
  status: "working" | "done" | "stopped" | "failed",
  best: BoardJudged,
  instead: Instead | null,
  length: (m: number) => string,
): string {
  const found = best.isLegal
    ? `all rules kept, ${length(best.hoseM)} of hose, ${counted(best.elbows, "elbow")}`
    : `${counted(wrongsOf(best), "thing")} still wrong`;
  if (status === "working") return `Searching. Best so far: ${found}.`;
  if (best.isLegal) return `Found: ${found}.`;
  const stuck = stuckOf(best);
  if (stuck.length > 0)
    return `${stuck.join(", ")} is pinned where it cannot be. Best with it there: ${found}.`;
  if (status === "stopped") return `Stopped. Best: ${found}.`;
  if (status === "failed") return `The search broke off. Best until then: ${found}.`;
  return `Nothing better was found: ${found}. ${instead ? `But ${insteadTexts[instead]}.` : "Not with smaller hose, nor on a larger board: hang fewer parts on it."}`;
}

/** A board in a line: what clashes, which hoses find no way, how much hose. */
export function boardSummary(judged: BoardJudged, length: (m: number) => string): string {
  const { clashes, hoses, hoseM, elbows, layout } = judged;
  if (layout.parts.length === 0) return "Nothing hangs on it yet.";
  const blocked = hoses.filter(({ through }) => through.length > 0).length;
  const first =
    clashes.length === 0
      ? "Nothing clashes"
      : `${clashes.length} ${clashes.length === 1 ? "clash" : "clashes"}`;
  const second = blocked === 0 ? "every hose finds its way" : `${counted(blocked, "hose")} without a way`;
  return `${first}; ${second}. ${length(hoseM)} of hose, ${counted(elbows, "elbow")}.`;
}

/** How a hose leaves its ports, or what it runs into. */
export function hoseWayText(laid: Laid, blockedBy: readonly string[], leavesRoom: boolean): string {
  if (laid.through.length > 0) {
    const what = [...blockedBy, ...(leavesRoom ? ["the edge of where hoses may run"] : [])].join(", ");
    return `blocked by ${what || "what stands there"}`;
  }
  if (laid.isNipple) return "a nipple, or screwed together";
  const elbows = laid.elbows.filter((one) => one !== 0).length;
  return elbows > 0 ? counted(elbows, "elbow") : "straight out of both ports";
}

/** Whether a handle keeps the lid open where it is set so, and which line-ups leave it there. */
export function lidHeldText(
  { valve, position, byM, lineUps }: LidHeld,
  length: (m: number) => string,
): string {
  if (byM <= 0) return `${valve} at '${position}': the lid clears its handle by ${length(-byM)}.`;
  const left =
    lineUps.length === 0
      ? "No line-up leaves it so."
      : `So left by ${lineUps.join(", ")}: the lid stays open there.`;
  return `${valve} at '${position}': its handle stands ${length(byM)} over the shut lid, which does not close. ${left}`;
}
