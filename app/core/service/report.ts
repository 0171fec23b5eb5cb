/** One change of an element as scripts read it. Field names are the contract, and those of the work order. */
import { boardsJudged } from "../boards/board";
import { LineUpSolver } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { LITRE_M3 } from "../units/factors";
import { type ServiceStepId, TURNS_AFTER_CONTACT } from "./elementChange";
import { type PlanChange, planChanges } from "./planChanges";

/** What a step is called, and what it is done to where that is not the filter. */
const verbs: Readonly<Record<ServiceStepId, string | [verb: string, of: "valve" | "consumer"]>> = {
  openHatch: "hatchOff",
  layOut: "pan",
  switchOver: "switchOver",
  stopConsumer: ["stop", "consumer"],
  shutValve: ["shutOff", "valve"],
  holdBack: "pinch",
  cupUnder: "cup",
  openVent: "ventOpen",
  drainBowl: "drainBowl",
  unplugSensor: "unplug",
  spinOff: "elementOff",
  liftLid: "lidOff",
  liftElement: "elementOut",
  cleanSeat: "cleanSeat",
  moveBowl: "moveBowl",
  newSeal: "seal",
  spinOn: "element",
  openValve: ["valveOpen", "valve"],
  handFill: "fill",
  setLid: "element",
  plugSensor: "plugIn",
  shutDrain: "drainTight",
  prime: "prime",
  shutVent: "ventTight",
  wipeLook: "look",
  idle: "idle",
  writeDown: "writeDown",
  closeHatch: "hatchOn",
};

export interface ServiceStep {
  id: string;
  step: ServiceStepId;
  verb: string;
  of: Id[];
  place: "line";
  /** The step before it. */
  needs: string[];
  holds: string[];
  people: 1;
  workMin: number;
  litres: number;
  /** Of a spin-on, from where its seal touches. */
  turns?: number;
}

/** The change that an element's id, or its filter's, stands for; null where the plan has none. */
export function changeOf(job: Job, asked: Id): PlanChange | null {
  const plan = currentPlan(job);
  const solver = new LineUpSolver(buildNetwork(job));
  const changes = planChanges(solver, plan.conditions, boardsJudged(job, plan), job.kind);
  return changes.find(({ part }) => part.id === asked || part.element?.id === asked) ?? null;
}

export function serviceSteps({ part, change, valveId, consumerId }: PlanChange): ServiceStep[] {
  const at = { valve: valveId, consumer: consumerId };
  let before: string | null = null;
  return change.steps.map(({ id: step, seconds, cupM3 }, i): ServiceStep => {
    const said = verbs[step];
    const [verb, of] = typeof said === "string" ? [said, part.id] : [said[0], at[said[1]] ?? part.id];
    const id = `${verb}:${of}:${i}`;
    const needs = before === null ? [] : [before];
    before = id;
    return {
      id,
      step,
      verb,
      of: [of],
      place: "line",
      needs,
      holds: [],
      people: 1,
      workMin: seconds / 60,
      litres: cupM3 / LITRE_M3,
      ...(step === "spinOn" && { turns: part.turns ?? TURNS_AFTER_CONTACT }),
    };
  });
}
