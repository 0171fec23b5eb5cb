/** Commands on what was surveyed: the job's own fields, tanks and consumers. */
import { current } from "immer";
import { newEngine, newTank } from "../plan/blank";
import type { Job, Plan } from "../plan/types";
import { checkTank } from "../tanks/check";
import { capacityM3 } from "../tanks/tank";
import type { CommandOf, Handlers, Note } from "./command";
import { consumerOf, tankOf } from "./find";
import { fitHoses } from "./hoses";
import { editRecord } from "./record";
import { removeSurveyed } from "./standing";

/** A tank that holds less than is aboard is then full, and that is told: a shape is drawn with fuel in it. */
function editTank(job: Job, plan: Plan, command: CommandOf<"editTank">): Note[] {
  const { id } = command;
  const tank = tankOf(job, id);
  editRecord(tank, command);
  fitHoses(job, plan, id, { evenMeasured: false });
  const now = current(tank);
  if (checkTank(now).length > 0) return [];
  const most = capacityM3(now);
  const overfull = job.plans.filter(({ conditions }) => (conditions.aboardM3[id] ?? 0) > most);
  for (const { conditions } of overfull) conditions.aboardM3[id] = most;
  return overfull.length > 0 ? [{ code: "aboardLowered", ids: [id] }] : [];
}

/** What a new tank is taken to hold, m3. */
const FIRST_ABOARD_M3 = 0.1;

export const surveyCommands: Handlers<
  | "rename"
  | "editJob"
  | "replaceJob"
  | "addTank"
  | "editTank"
  | "removeTank"
  | "addEngine"
  | "editEngine"
  | "removeEngine"
> = {
  rename: {
    run: (job, _, { jobName }) => {
      job.name = jobName;
    },
  },
  editJob: { record: (job) => job, run: (job, _, command) => editRecord(job, command) },
  replaceJob: {
    run: (job, _, command) => {
      Object.assign(job, command.job, { id: job.id });
    },
  },
  addTank: {
    run: (job, _, { id, tankName, position }) => {
      job.tanks.push(newTank(id, tankName, position));
      for (const { conditions } of job.plans) conditions.aboardM3[id] = FIRST_ABOARD_M3;
    },
  },
  editTank: { record: (job, _, { id }) => tankOf(job, id), run: editTank },
  removeTank: {
    run: (job, _, { id }) => {
      job.tanks = job.tanks.filter((tank) => tank.id !== id);
      return removeSurveyed(job, id);
    },
  },
  addEngine: {
    run: (job, _, { id, engineName, position, kind }) => {
      job.consumers.push(newEngine(id, engineName, position, kind));
      for (const { lineUps } of job.plans) for (const lineUp of lineUps) lineUp.consumers[id] = "running";
    },
  },
  editEngine: {
    record: (job, _, { id }) => consumerOf(job, id),
    run: (job, plan, command) => {
      editRecord(consumerOf(job, command.id), command);
      fitHoses(job, plan, command.id, { evenMeasured: false });
    },
  },
  removeEngine: {
    run: (job, _, { id }) => {
      job.consumers = job.consumers.filter((consumer) => consumer.id !== id);
      return removeSurveyed(job, id);
    },
  },
};
