/** Commands on what was surveyed: the job's own fields, tanks and consumers. */
import { current } from "immer";
import { isPetrol } from "../fuel/grades";
import type { Engine } from "../kinds/index";
import type { Id } from "../kinds/record";
import { newEngine, newTank } from "../plan/blank";
import { portsOf } from "../plan/ports";
import type { Job, Plan, PortRef } from "../plan/types";
import { checkTank } from "../tanks/check";
import { followingSize } from "../tanks/follow";
import { alignedPlate } from "../tanks/plate";
import { capacityM3 } from "../tanks/tank";
import type { CommandOf, Handlers, Note } from "./command";
import { consumerOf, tankOf } from "./find";
import { drop, fitHoses } from "./hoses";
import { editRecord } from "./record";
import { removeSurveyed } from "./standing";

/** A tank that holds less than is aboard is then full, and that is told: a shape is drawn with fuel in it. */
function editTank(job: Job, plan: Plan, command: CommandOf<"editTank">): Note[] {
  const { id } = command;
  const tank = tankOf(job, id);
  const before = current(tank);
  editRecord(tank, command);
  if ("shape" in command.change && checkTank(current(tank)).every(({ path }) => !path.startsWith("shape")))
    editRecord(tank, { ...command, change: followingSize(before, current(tank)), shown: undefined } as never);
  Object.assign(tank, alignedPlate(before, current(tank)));
  // A hose whose end went with the tank's size was measured to where that end no longer is.
  const lost = fitHoses(job, plan, id, { evenMeasured: "shape" in command.change });
  const notes: Note[] = lost.length > 0 ? [{ code: "measuredLost", ids: lost }] : [];
  const now = current(tank);
  if (checkTank(now).length > 0) return notes;
  const most = capacityM3(now);
  const overfull = job.plans.filter(({ conditions }) => (conditions.aboardM3[id] ?? 0) > most);
  for (const { conditions } of overfull) conditions.aboardM3[id] = most;
  return overfull.length > 0 ? [...notes, { code: "aboardLowered", ids: [id] }] : notes;
}

/** What met a port that a consumer no longer has goes with it, in every plan; tells what it came from. */
function dropLostPorts(job: Job, consumer: Engine): Id[] {
  const ports = new Set(portsOf(consumer).map(({ id }) => id));
  const isLost = ({ part, port }: PortRef) => part === consumer.id && !ports.has(port);
  return job.plans.flatMap((plan) =>
    [...plan.runs, ...plan.joints].flatMap((item) => {
      if (!isLost(item.from) && !isLost(item.to)) return [];
      drop(plan, item.id);
      return [isLost(item.from) ? item.to.part : item.from.part];
    }),
  );
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
      const consumer = newEngine(id, engineName, position, kind);
      // Petrol engines burn all they are fed, but for those with a return of their own. Common practice.
      if (kind !== "heater" && isPetrol(job.fuel)) {
        consumer.noReturn = true;
        delete consumer.ports?.return;
      }
      job.consumers.push(consumer);
      for (const { lineUps } of job.plans) for (const lineUp of lineUps) lineUp.consumers[id] = "running";
    },
  },
  editEngine: {
    record: (job, _, { id }) => consumerOf(job, id),
    run: (job, plan, command) => {
      const consumer = consumerOf(job, command.id);
      editRecord(consumer, command);
      const lost = dropLostPorts(job, current(consumer));
      fitHoses(job, plan, command.id, { evenMeasured: false });
      return lost.length > 0 ? [{ code: "portsLeftOpen", ids: lost }] : [];
    },
  },
  removeEngine: {
    run: (job, _, { id }) => {
      job.consumers = job.consumers.filter((consumer) => consumer.id !== id);
      return removeSurveyed(job, id);
    },
  },
};
