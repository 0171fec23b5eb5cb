import type { Id } from "../kinds/record";
import type { ChosenChain, Job, Plan } from "../plan/types";
import { CommandRefused, type Handlers, type Note } from "./command";
import { found } from "./find";
import { editRecord } from "./record";

/** The last plan stays; what was based on a plan that goes is based on what that was based on. */
function removePlan(job: Job, id: Id): Note[] {
  const gone = found(
    job.plans.find((one) => one.id === id),
    id,
  );
  if (job.plans.length === 1) throw new CommandRefused("lastPlan", id);
  job.plans = job.plans.filter((one) => one.id !== id);
  for (const plan of job.plans) {
    if (plan.basedOn !== id) continue;
    if (gone.basedOn === undefined) delete plan.basedOn;
    else plan.basedOn = gone.basedOn;
  }
  if (job.currentPlanId === id) {
    const next = job.plans.find((one) => one.id === gone.basedOn) ?? job.plans[0];
    if (next) job.currentPlanId = next.id;
  }
  return [];
}

function chooseChain(plan: Plan, key: string, chain: ChosenChain | null): void {
  const { [key]: _, ...others } = plan.chains ?? {};
  const chains = chain ? { ...others, [key]: { ...chain, parts: [...chain.parts] } } : others;
  if (Object.keys(chains).length > 0) plan.chains = chains;
  else delete plan.chains;
}

export const planCommands: Handlers<
  | "editPlan"
  | "forkPlan"
  | "addPlan"
  | "choosePlan"
  | "removePlan"
  | "put"
  | "tidy"
  | "setEnd"
  | "chooseChain"
> = {
  editPlan: { record: (_, plan) => plan, run: (_, plan, command) => editRecord(plan, command) },
  forkPlan: {
    run: (job, plan, { id, planName }) => {
      const copy = JSON.parse(JSON.stringify(plan)) as Plan;
      job.plans.push({ ...copy, id, name: planName, basedOn: plan.id });
      job.currentPlanId = id;
    },
  },
  addPlan: {
    run: (job, _, { plan, tanks }) => {
      job.tanks = tanks;
      job.plans.push(plan);
      job.currentPlanId = plan.id;
    },
  },
  choosePlan: {
    run: (job, _, { id }) => {
      job.currentPlanId = found(
        job.plans.find((plan) => plan.id === id),
        id,
      ).id;
    },
  },
  removePlan: { run: (job, _, { id }) => removePlan(job, id) },
  chooseChain: { run: (_, plan, { key, chain }) => chooseChain(plan, key, chain) },
  setEnd: {
    run: (job, plan, { id, port, end }) => {
      const owner = [...job.tanks, ...job.consumers, ...plan.parts, ...plan.runs].find(
        (one) => one.id === id,
      );
      found(owner, id);
      const of = { ...plan.ends?.[id] };
      if (end) of[port] = end;
      else delete of[port];
      plan.ends = { ...plan.ends, [id]: of };
      if (Object.keys(of).length === 0) delete plan.ends[id];
    },
  },
  tidy: {
    run: (_, plan, { places, sides }) => {
      plan.places = places;
      plan.sides = sides;
    },
  },
  put: {
    run: (job, plan, { id, x, y }) => {
      found(
        [...job.tanks, ...job.consumers, ...plan.parts].find((one) => one.id === id),
        id,
      );
      plan.places = { ...plan.places, [id]: { x, y, byHand: true } };
    },
  },
};
