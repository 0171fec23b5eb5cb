/** What to buy as scripts read it: lines with their ids, and what cannot be counted with its reason. */
import { planJoints } from "~/core/joints/joints";
import type { Id } from "~/core/kinds/record";
import { type BuyLine, type BuyWhat, buyLines, staysOf } from "~/core/parts/buying";
import { currentPlan, partsOf } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { LITRE_M3 } from "~/core/units/factors";
import { lineTitle } from "~/messages/buying";

type Kind =
  | "part"
  | "tank"
  | "consumer"
  | "hose"
  | "tube"
  | "fitting"
  | "clamp"
  | "washer"
  | "seal"
  | "clip"
  | "grommet"
  | "fuse"
  | "wire"
  | "relay"
  | "filterElement"
  | "alarm"
  | "fuel"
  | "plug"
  | "other";

const kinds: Record<BuyWhat["kind"], Kind> = {
  part: "part",
  element: "filterElement",
  seal: "seal",
  hose: "hose",
  adapter: "fitting",
  washer: "washer",
  tail: "fitting",
  nipple: "fitting",
  plug: "plug",
  reducer: "fitting",
  nut: "fitting",
  makerFuse: "fuse",
  tank: "tank",
  consumer: "consumer",
  alarm: "alarm",
  fuel: "fuel",
  dipTube: "tube",
  gasket: "seal",
  fixing: "other",
  clamp: "clamp",
  clip: "clip",
  grommet: "grommet",
  threadSealant: "other",
  antiSeize: "other",
  epoxy: "other",
  edgePaint: "other",
  sleeve: "other",
  wire: "wire",
  fuse: "fuse",
  fuseHolder: "other",
  relay: "relay",
  crimp: "other",
  holeSaw: "other",
  flareTool: "other",
  bender: "other",
  torqueSpanner: "other",
  filterSpanner: "other",
  crimpTool: "other",
};

export interface ListedPart {
  what: string;
  /** Pieces that the plan holds, metres, or litres. */
  count: number;
  /** More of it for the reserve. */
  spare?: number;
  unit: "each" | "m" | "L";
  forIds: Id[];
  kind: Kind;
}

/** @returns counted lines, and joints that nobody can count for: each with its reason and its ids */
export function partsReport(job: Job) {
  const plan = currentPlan(job);
  const joints = planJoints(job, plan);
  const isRigid = new Set(plan.runs.flatMap(({ id, make }) => (make === "rigid" ? [id] : [])));
  const line = (one: BuyLine): ListedPart => {
    const { what, count, spare, lengthM, for: forIds } = one;
    const isTube = what.kind === "hose" && forIds.every((id) => isRigid.has(id));
    return {
      what: lineTitle(one, job.units),
      count:
        what.kind === "fuel"
          ? what.volumeM3 / LITRE_M3
          : (lengthM ?? (count > spare ? count - spare : count)),
      ...(count > spare && spare > 0 && { spare }),
      unit: what.kind === "fuel" ? "L" : lengthM === null ? "each" : "m",
      forIds,
      kind: isTube ? "tube" : kinds[what.kind],
    };
  };
  const names = new Map([...job.tanks, ...partsOf(job, plan)].map(({ id, name }) => [id, name] as const));
  const notCounted = joints.flatMap(({ key, a, b, state }) => {
    const isTube = state === "unknown" && isRigid.has(b.id);
    if (!isTube && state !== "none") return [];
    const at = `${names.get(a.id) ?? a.id} to ${names.get(b.id) ?? `hose ${b.id}`}`;
    const why =
      state === "none"
        ? "no adapters of the usual kinds join these two ends"
        : "what it ends in is not entered, so fitting, clamp and seal are not known";
    return [{ what: `Joint ${at}`, why, forIds: [key, a.id, b.id] }];
  });
  const stays = staysOf(job, plan);
  return {
    parts: buyLines(job, plan, joints).map(line),
    notCounted,
    /** Taken over from the plan that this one is made from: neither bought nor cut. */
    stays: [...stays.parts, ...stays.runs],
  };
}
