/** An edit of a plan at random, for tests of what stands still. */
import type { Command } from "../edit/command";
import type { NewPartKind } from "../plan/blank";
import { freePorts } from "../plan/joining";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";

const kinds: NewPartKind[] = [
  "twoWay",
  "filter",
  "liftPump",
  "gauge",
  "check",
  "tee",
  "selector",
  "bulb",
  "strainer",
];
const letIn: NewPartKind[] = ["twoWay", "filter", "liftPump", "gauge", "check", "bulb", "strainer", "tee"];

/** Null where the plan has nothing that this edit could be made on. */
export function randomEdit(job: Job, random: () => number, turn: number): Command | null {
  const plan = currentPlan(job);
  const pick = <T>(items: readonly T[]): T | undefined => items[Math.floor(random() * items.length)];
  const at = { xM: 1, yM: 0, zM: 0.5 };
  const id = `e${turn}`;
  const chance = random();
  if (chance < 0.04) return { name: "addTank", id, tankName: `Tank ${turn}`, position: at };
  if (chance < 0.07) return { name: "addEngine", id, engineName: `Engine ${turn}`, position: at };
  if (chance < 0.4) {
    const run = pick(plan.runs);
    const kind = pick(letIn) as NewPartKind;
    return run ? { name: "insertPart", id, kind, runId: run.id, newRunId: `${id}r` } : null;
  }
  if (chance < 0.5) return { name: "addPart", id, kind: pick(kinds) as NewPartKind, position: at };
  if (chance < 0.75) {
    const free = freePorts(job, plan);
    const from = pick(free);
    const to = pick(free.filter(({ ref }) => ref.part !== from?.ref.part));
    return from && to ? { name: "connect", id, from: from.ref, to: to.ref } : null;
  }
  if (chance < 0.83) {
    const part = pick(plan.parts);
    return part ? { name: "removePart", id: part.id } : null;
  }
  if (chance < 0.9) {
    const run = pick(plan.runs);
    return run ? { name: "disconnect", id: run.id } : null;
  }
  const part = pick(plan.parts.filter(({ kind }) => letIn.some((one) => one === kind)));
  return part ? { name: "replacePart", id: part.id, newId: id, kind: pick(letIn) as NewPartKind } : null;
}
