/** What Prove and Lay out ask for at once: a day over time, every valve position, a sweep of sizes, each beside the slow way. */
import { readFileSync } from "node:fs";
import { tankFlows } from "~/core/hydraulics/derive";
import { boresM } from "~/core/hydraulics/sizing";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { judgeLineUp, worstConditions } from "~/core/hydraulics/worst";
import { judgePositions } from "~/core/manifold/positions";
import { proposeManifold } from "~/core/manifold/propose";
import { buildNetwork } from "~/core/network/network";
import { tryBore } from "~/core/network/shape";
import { newEngine, newJob, newTank } from "~/core/plan/blank";
import { currentPlan } from "~/core/plan/ports";
import type { DutyStep, Job } from "~/core/plan/types";
import { runOverTime } from "~/core/running/run";
import { capacityM3 } from "~/core/tanks/tank";
import { median, ms, show } from "./measure";

const marram = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;

/** A day: out and back on each tank, the day tank filled between, at sea and at the quay. */
const day: DutyStep[] = [
  { id: "a", hours: 3, lineUpId: "runPort", load: 0.3, pitchDeg: 0, rollDeg: 0 },
  { id: "b", hours: 2, lineUpId: "runPort", load: 0.7, pitchDeg: 3, rollDeg: 5 },
  { id: "c", hours: 0.1, lineUpId: "fillStbd", load: 0, pitchDeg: 0, rollDeg: 0 },
  { id: "d", hours: 4, lineUpId: "runDay", load: 0.4, pitchDeg: 0, rollDeg: -4 },
  { id: "e", hours: 0.15, lineUpId: "fillStbd", load: 0, pitchDeg: 0, rollDeg: 0 },
  { id: "f", hours: 6, lineUpId: "runDay", load: 0.3, pitchDeg: -2, rollDeg: 0 },
  { id: "g", hours: 8.75, lineUpId: "runPort", load: 0.1, pitchDeg: 0, rollDeg: 0 },
];

/** Temperatures held, so that the two differ in their steps alone. */
const held: Job = JSON.parse(JSON.stringify(marram));
for (const engine of held.consumers) engine.returnC = 15;
for (const tank of held.tanks) delete tank.cooler;
for (const plan of held.plans) plan.conditions.fuelC = 15;

function bruteForce(): Record<string, number> {
  const network = buildNetwork(held);
  const solver = new LineUpSolver(network);
  const aboard = { ...network.plan.conditions.aboardM3 };
  const most = Object.fromEntries(held.tanks.map((tank) => [tank.id, capacityM3(tank)]));
  for (const step of day) {
    const lineUp = network.plan.lineUps.find(({ id }) => id === step.lineUpId);
    if (!lineUp) throw new Error(step.lineUpId);
    const trim = { pitchDeg: step.pitchDeg, rollDeg: step.rollDeg };
    for (let s = 0; s < step.hours * 3600; s++) {
      const result = solver.solveInPlace(lineUp, {
        ...network.plan.conditions,
        aboardM3: aboard,
        load: { engine: step.load },
        trim,
      });
      if (result.outcome !== "solved") throw new Error(result.outcome);
      // What a full tank cannot hold runs over.
      for (const [id, out] of tankFlows(result))
        aboard[id] = Math.min(most[id] ?? 0, (aboard[id] ?? 0) - out);
    }
  }
  return aboard;
}

const network = buildNetwork(held);
const run = () => runOverTime(network, network.plan.conditions, day, { ambientC: 15 });
const times = Array.from({ length: 7 }, () => ms(run));
let aboard: Record<string, number> = {};
const slow = ms(() => {
  aboard = bruteForce();
});
const last = run().points.at(-1);
const off = Math.max(
  ...held.tanks.map(
    (tank) => Math.abs((last?.aboardM3[tank.id] ?? 0) - (aboard[tank.id] ?? 0)) / capacityM3(tank),
  ),
);
show(
  "Marram: a day with events to the second",
  `first ${(times[0] ?? 0).toFixed(0)} ms, then ${median(times.slice(1)).toFixed(0)} ms; one-second steps ${(slow / 1000).toFixed(1)} s: ${(slow / median(times.slice(1))).toFixed(0)} times faster, levels ${(off * 100).toFixed(3)} % of a tank apart`,
);

function fourByThree(): Job {
  const job = newJob("j", "J");
  for (let i = 0; i < 4; i++)
    job.tanks.push(newTank(`t${i}`, `Tank ${i + 1}`, { xM: 2.2, yM: i * 0.8, zM: 0.4 }));
  for (let i = 0; i < 3; i++)
    job.consumers.push(newEngine(`e${i}`, `Engine ${i + 1}`, { xM: 0, yM: i * 0.8, zM: 0.5 }));
  for (const plan of job.plans) for (const { id } of job.tanks) plan.conditions.aboardM3[id] = 0.12;
  const tankIds = job.tanks.map(({ id }) => id);
  const feeds = job.consumers.map(({ id }) => ({ consumerId: id, tankIds }));
  const { plan, tanks } = proposeManifold(job, { feeds, transfers: [], polishIds: [] }, "m");
  return { ...job, tanks, plans: [plan], currentPlanId: "m" };
}

const manifold = buildNetwork(fourByThree());
const every = Array.from({ length: 5 }, () => ms(() => judgePositions(manifold, manifold.plan.conditions)));
const found = judgePositions(manifold, manifold.plan.conditions);
const [anyLineUp] = manifold.plan.lineUps;
const anew = ms(() => {
  for (let i = 0; i < 200; i++)
    if (anyLineUp)
      judgeLineUp(new LineUpSolver(buildNetwork(manifold.job)), anyLineUp, manifold.plan.conditions);
});
show(
  `4 tanks, 3 engines: ${found?.count} valve positions solved and judged`,
  `first ${(every[0] ?? 0).toFixed(0)} ms, then ${median(every.slice(1)).toFixed(0)} ms; each built anew ${((anew / 200) * (found?.count ?? 0)).toFixed(0)} ms: ${(((anew / 200) * (found?.count ?? 0)) / median(every.slice(1))).toFixed(0)} times faster`,
);

const plan = currentPlan(marram);
const sizedNetwork = buildNetwork(marram);
const sizer = new LineUpSolver(sizedNetwork);
const worst = worstConditions(marram, plan);
const [first] = plan.lineUps;
const runs = plan.runs.slice(0, 8);
function sweep(count: number): void {
  for (let i = 0; i < count; i++) {
    const line = runs[i % runs.length];
    const index = sizedNetwork.linkOf.get(line?.id ?? "") ?? -1;
    tryBore(sizedNetwork, index, boresM[4 + (Math.floor(i / runs.length) % 6)] as number);
    if (first) sizer.solveInPlace(first, worst);
    tryBore(sizedNetwork, index, line?.boreM ?? 0.01);
  }
}
const sweeps = Array.from({ length: 5 }, () => ms(() => sweep(1000)));
const rebuilt = ms(() => {
  for (let i = 0; i < 200; i++) if (first) new LineUpSolver(buildNetwork(marram)).solve(first, worst);
});
show(
  "Marram: 1,000 sizes tried in place",
  `first ${(sweeps[0] ?? 0).toFixed(0)} ms, then ${median(sweeps.slice(1)).toFixed(0)} ms; each built anew ${(rebuilt * 5).toFixed(0)} ms: ${((rebuilt * 5) / median(sweeps.slice(1))).toFixed(1)} times faster`,
);
