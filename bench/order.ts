/** Work orders from nothing: derived, ordered, and planned for one and for two people. */
import { readFileSync } from "node:fs";
import { derive } from "~/core/order/derive";
import { ordered } from "~/core/order/facts";
import { bodiesAt } from "~/core/order/minutes";
import { schedule } from "~/core/order/schedule";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { show } from "./measure";

const TURNS = 9;
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1] as number;

for (const name of ["marram", "unit-12", "reading-van"]) {
  const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
  const [order, plans]: [number[], number[]] = [[], []];
  let count = 0;
  for (let turn = 0; turn < TURNS; turn++) {
    const began = performance.now();
    const { steps, found } = derive(job, null, currentPlan(job));
    const list = ordered(steps, found);
    const had = performance.now();
    if (list.outcome !== "order") throw new Error(list.outcome);
    for (const people of [1, 2]) schedule(list.steps, people, bodiesAt);
    order.push(had - began);
    plans.push((performance.now() - had) / 2);
    count = list.steps.length;
  }
  show(
    `${name}: a work order of ${count} steps`,
    `${median(order).toFixed(1)} ms, and ${median(plans).toFixed(1)} ms a crew for its hours`,
  );
}
