/** What to buy as scripts read it: lines with their ids, and what cannot be counted with its reason. */
import { planJoints } from "~/core/joints/joints";
import type { Id } from "~/core/kinds/record";
import { type BuyLine, type BuyWhat, buyLines } from "~/core/parts/buying";
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
  count: number;
  unit: "each" | "m" | "L";
  forIds: Id[];
  kind: Kind;
}

/** What the plan joins and the plan that it is made from does not: all of it where there is none before. */
function newHere(job: Job): (id: Id) => boolean {
  const after = currentPlan(job);
  const before = job.plans.find(({ id }) => id === after.basedOn);
  const joined = (plan: typeof after, id: Id) =>
    [...plan.runs, ...plan.joints].some(({ from, to }) => from.part === id || to.part === id);
  return (id) => joined(after, id) && !(before && joined(before, id));
}

/** @returns counted lines, and joints that nobody can count for: each with its reason and its ids */
export function partsReport(job: Job) {
  const plan = currentPlan(job);
  const joints = planJoints(job, plan);
  const isRigid = new Set(plan.runs.flatMap(({ id, make }) => (make === "rigid" ? [id] : [])));
  const isNew = newHere(job);
  const line = (one: BuyLine): ListedPart => ({
    what: lineTitle(one, job.units),
    count: one.lengthM ?? one.count,
    unit: one.lengthM === null ? "each" : "m",
    forIds: one.for,
    kind: one.what.kind === "hose" && one.for.every((id) => isRigid.has(id)) ? "tube" : kinds[one.what.kind],
  });
  const heaters = job.consumers.filter(({ id, kind }) => kind === "heater" && isNew(id));
  const tanks = job.tanks.filter(({ id }) => isNew(id));
  const each = (what: string, kind: Kind, ids: Id[]): ListedPart => ({
    what,
    count: 1,
    unit: "each",
    forIds: ids,
    kind,
  });
  const own: ListedPart[] = [
    ...tanks.map(({ id, name }) => each(name, "tank", [id])),
    ...tanks.flatMap(({ id, name }): ListedPart[] => {
      const aboardM3 = plan.conditions.aboardM3[id] ?? 0;
      if (aboardM3 === 0) return [];
      const what = `Fuel to fill ${name}`;
      return [{ what, count: aboardM3 / LITRE_M3, unit: "L", forIds: [id], kind: "fuel" }];
    }),
    ...heaters.map(({ id, name }) => each(name, "consumer", [id])),
    // No heater without one: practice 38.
    ...(heaters.length > 0
      ? [
          each(
            "Carbon monoxide alarm",
            "alarm",
            heaters.map(({ id }) => id),
          ),
        ]
      : []),
  ];
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
  return { parts: [...own, ...buyLines(job, plan, joints).map(line)], notCounted };
}
