import { isPowered, isValve } from "../kinds/families";
import type { Id } from "../kinds/record";
import { newLineUp } from "../plan/blank";
import type { Conditions, Job, LineUp, Plan } from "../plan/types";
import { firstSetting } from "../plan/valves";
import type { Handlers } from "./command";
import { lineUpOf } from "./find";
import type { Change } from "./merge";
import { editRecord } from "./record";

/** By tank, element and consumer: what another tab set meanwhile for another one stands. */
function setConditions(
  conditions: Conditions,
  { fuelC, aboardM3, loading, load, trim }: Change<Conditions>,
): void {
  if (fuelC !== undefined) conditions.fuelC = fuelC;
  if (trim !== undefined) conditions.trim = trim;
  Object.assign(conditions.aboardM3, aboardM3);
  Object.assign(conditions.loading, loading);
  Object.assign(conditions.load, load);
}

function addLineUp(job: Job, plan: Plan, id: Id, name: string): void {
  const lineUp = newLineUp(id, name);
  for (const part of plan.parts) {
    if (isValve(part)) lineUp.valves[part.id] = firstSetting(part);
    if (isPowered(part)) lineUp.pumps[part.id] = "on";
  }
  for (const consumer of job.consumers) lineUp.consumers[consumer.id] = "running";
  plan.lineUps.push(lineUp);
}

export const lineUpCommands: Handlers<
  | "setValve"
  | "setBranch"
  | "setPump"
  | "setConsumer"
  | "addLineUp"
  | "duplicateLineUp"
  | "editLineUp"
  | "removeLineUp"
  | "setConditions"
> = {
  setValve: {
    run: (_, plan, { lineUpId, valveId, setting }) => {
      lineUpOf(plan, lineUpId).valves[valveId] = setting;
    },
  },
  setBranch: {
    run: (_, plan, { lineUpId, valveId, branch, isOpen }) => {
      const { valves } = lineUpOf(plan, lineUpId);
      const now = valves[valveId];
      const others = now?.kind === "branches" ? now.open.filter((id) => id !== branch) : [];
      valves[valveId] = { kind: "branches", open: isOpen ? [...others, branch] : others };
    },
  },
  setPump: {
    run: (_, plan, { lineUpId, pumpId, state }) => {
      lineUpOf(plan, lineUpId).pumps[pumpId] = state;
    },
  },
  setConsumer: {
    run: (_, plan, { lineUpId, consumerId, state }) => {
      lineUpOf(plan, lineUpId).consumers[consumerId] = state;
    },
  },
  addLineUp: { run: (job, plan, { id, lineUpName }) => addLineUp(job, plan, id, lineUpName) },
  duplicateLineUp: {
    run: (_, plan, { id, from, lineUpName }) => {
      const copy = JSON.parse(JSON.stringify(lineUpOf(plan, from))) as LineUp;
      plan.lineUps.push({ ...copy, id, name: lineUpName });
    },
  },
  editLineUp: {
    record: (_, plan, { id }) => lineUpOf(plan, id),
    run: (_, plan, command) => editRecord(lineUpOf(plan, command.id), command),
  },
  removeLineUp: {
    run: (_, plan, { id }) => {
      plan.lineUps = plan.lineUps.filter((lineUp) => lineUp.id !== id);
      if (plan.duty) plan.duty = plan.duty.filter(({ lineUpId }) => lineUpId !== id);
    },
  },
  setConditions: { run: (_, plan, { change }) => setConditions(plan.conditions, change) },
};
