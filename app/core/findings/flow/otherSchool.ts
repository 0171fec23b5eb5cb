/**
 * Where practice is divided and the job took a side by choice, the plan is held to it: what stands in the plan against
 * the school is to be known before it is bought. Common practice; what no plan shows (how a pump is primed, how a filter
 * is filled) is told in the places where it is done.
 */
import type { FamilyId } from "../../ends/families";
import type { PlanPart } from "../../kinds/index";
import { hasCrossover } from "../../plan/crossover";
import type { Job, Plan, SchoolMatter, Schools, TankPort } from "../../plan/types";
import { rule } from "../rule";

const isInTank = ({ kind }: PlanPart) => kind === "inTankPump";
const isOnFrame = ({ kind }: PlanPart) => kind === "liftPump" || kind === "pumpFilterUnit";
const isBlock = ({ kind }: PlanPart) => kind === "block";
const isJet = ({ kind }: PlanPart) => kind === "jetPump" || kind === "swirlPot";

interface Look {
  plan: Plan;
  outlets: { tankId: string; port: TankPort }[];
}
/** Ids of what goes against a choice; empty where all goes with it. */
type Against = (look: Look) => readonly string[];

const named = (parts: readonly { id: string }[]) => parts.map(({ id }) => id);
const outletsNot = (fittings: readonly TankPort["fitting"][]): Against => {
  const wanted = new Set(fittings);
  return ({ outlets }) =>
    outlets.filter(({ port }) => !wanted.has(port.fitting ?? "tube")).map(({ tankId }) => tankId);
};
/** Parts, tanks and hoses that end otherwise. */
const endsOf = (families: readonly FamilyId[]): Against => {
  const other = new Set(families);
  return ({ plan }) =>
    Object.entries(plan.ends ?? {}).flatMap(([id, ends]) =>
      Object.values(ends).some(({ family }) => other.has(family)) ? [id] : [],
    );
};
/** What must stand in the plan and does not: told at its first pump or filter. */
const lacks =
  (is: (part: PlanPart, plan: Plan) => boolean): Against =>
  ({ plan }) =>
    plan.parts.length === 0 || plan.parts.some((part) => is(part, plan)) ? [] : [plan.parts[0]?.id ?? ""];

const against: { [M in SchoolMatter]?: { [C in string]?: Against } } = {
  liftPump: {
    frame: ({ plan }) => named(plan.parts.filter(isInTank)),
    inTank: ({ plan }) => named(plan.parts.filter(isOnFrame)),
  },
  takeOff: {
    drawStraw: outletsNot(["tube"]),
    bottomWithShutOff: outletsNot(["sump", "side"]),
    inTankModule: lacks(isInTank),
  },
  primer: {
    bulb: lacks(({ kind }) => kind === "bulb"),
    // In the pump, or a valve beside it that is open in service.
    electricBypass: lacks(
      (part, plan) =>
        part.kind === "primingPump" && (part.off.kind === "bypass" || hasCrossover(plan, part.id, null)),
    ),
  },
  returnMouth: { jetOrSwirl: lacks(isJet) },
  factoryFilter: {
    kept: ({ plan }) => named(plan.parts.filter(isBlock)),
    removed: lacks(isBlock),
  },
  joints: {
    flareAndBarb: endsOf(["pushOn", "qc"]),
    pushOnBarb: endsOf(["qc"]),
    pushToConnect: endsOf(["barb", "pushOn"]),
  },
};

/** Matters that are judged on the plan. */
export const judgedMatters = Object.keys(against) as SchoolMatter[];

function found(job: Job, plan: Plan, schools: Schools) {
  const used = new Set(
    [...plan.runs, ...plan.joints]
      .flatMap(({ from, to }) => [from, to])
      .map(({ part, port }) => `${part}.${port}`),
  );
  const outlets = job.tanks.flatMap(({ id, ports }) =>
    ports
      .filter(({ role, id: port }) => role === "outlet" && used.has(`${id}.${port}`))
      .map((port) => ({ tankId: id, port })),
  );
  return judgedMatters.flatMap((matter) => {
    const choice = schools[matter];
    const ids =
      choice === undefined ? [] : [...new Set(against[matter]?.[choice]?.({ plan, outlets }) ?? [])];
    return choice === undefined || ids.length === 0 ? [] : [{ matter, choice, ids }];
  });
}

export const otherSchool = rule({
  id: "otherSchool",
  practice: [],
  place: "layout",
  judge: ({ job, plan }) =>
    found(job, plan, job.schools).map(({ matter, choice, ids }) => ({
      grade: "watch" as const,
      ids,
      lineUpIds: [],
      basis: "common" as const,
      school: `${matter}:${choice}`,
      values: { matter, choice: choice as string, count: ids.length },
      figure: ids.length,
    })),
});
