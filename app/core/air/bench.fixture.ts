/** Small benches of pipe on which the laws of air in a line can be tried one by one. */

import { buildNetwork } from "../network/network";
import { newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp, Plan } from "../plan/types";
import { type AirFlow, airFlow } from "./flow";
import { type Hands, IDLE_HANDS } from "./movers";

export interface Bench {
  job: Job;
  plan: Plan;
  lineUp: LineUp;
}

/** A tall tank with a side outlet at nought height and fuel `headM` over it. */
export function benchTank(headM: number, boreM = 0.02): Bench {
  const job = newJob("bench", "Bench");
  const plan = currentPlan(job);
  const tank = newTank("t", "Tank", { xM: 0, yM: 0, zM: 0 });
  tank.shape = { kind: "box", lengthM: 1, widthM: 1, heightM: 4 };
  tank.ports = [
    {
      id: "supply",
      name: "supply",
      role: "outlet",
      mouth: { xM: 1, yM: 0.5, zM: 0.5 },
      outside: { xM: 1.02, yM: 0.5, zM: 0.5 },
      boreM,
    },
  ];
  tank.origin.zM = -0.5;
  job.tanks.push(tank);
  plan.conditions.aboardM3.t = 0.5 + headM;
  plan.conditions.fuelC = 15;
  const lineUp = newLineUp("l", "as set");
  plan.lineUps.push(lineUp);
  return { job, plan, lineUp };
}

/** A gauge at the end of a hose: a place where a line ends, or is opened. */
export function lineTo(
  { plan }: Bench,
  from: { part: string; port: string },
  id: string,
  { lengthM, boreM, riseM, fromZM }: { lengthM: number; boreM: number; riseM: number; fromZM: number },
): void {
  const acrossM = Math.sqrt(Math.max(0, lengthM ** 2 - riseM ** 2));
  const start = plan.parts.find((part) => part.id === from.part)?.position ?? { xM: 1.02, yM: 0.5, zM: 0 };
  const end = newPart("gauge", id, { xM: start.xM + acrossM, yM: start.yM, zM: fromZM + riseM });
  plan.parts.push({ ...end, boreM });
  plan.runs.push(newRun(`r${id}`, from, { part: id, port: "a" }, lengthM, boreM));
}

export function flowOf(bench: Bench): AirFlow {
  const model = airFlow(buildNetwork(bench.job), bench.lineUp, bench.plan.conditions);
  if ("code" in model) throw new Error(model.code);
  return model;
}

/** Everything idle but what is opened, at its hole's area. */
export function opened(model: AirFlow, key: string, m2: number, more: Partial<Hands> = {}): Hands {
  const node = model.network.nodeOf.get(key);
  if (node === undefined) throw new Error(`no port ${key}`);
  return { ...IDLE_HANDS, ...more, open: new Map([[model.mesh.openingOfNode[node] as number, m2]]) };
}

/** All fuel and all air there is, in the plan and beyond it. */
export function total(model: AirFlow): { fuelM3: number; airJ: number } {
  const sum = (list: Float64Array) => list.reduce((all, one) => all + one, 0);
  return {
    fuelM3: sum(model.fuelM3) + sum(model.beyond.fuelM3) + model.burned.fuelM3,
    airJ: sum(model.airJ) + sum(model.beyond.airJ) + model.burned.airJ,
  };
}
