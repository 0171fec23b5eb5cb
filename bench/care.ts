/**
 * Diagnosis on cases drawn by the priors, a quarter of them healthy, read from a truth that is worse than the method takes
 * for granted; the same with a plan that is wrong; and its speed beside one solve of the same line-up.
 */
import { readFileSync } from "node:fs";
import { Diagnoser } from "~/core/care/diagnose";
import { drawnFault, SimulatedSystem, trial } from "~/core/care/simulate";
import { visitsOf } from "~/core/care/visits";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";

const CASES = 200;
const VISITS = 5;
const FIRST_SEED = Number(process.env.SEED ?? 500_000);
const percent = (part: number, of: number) => (of === 0 ? "none" : `${((100 * part) / of).toFixed(0)} %`);

/** Hoses as somebody wrote them down wrongly: every third a quarter longer. */
const wrongly = (job: Job): Job => ({
  ...job,
  plans: job.plans.map((plan) => ({
    ...plan,
    runs: plan.runs.map((run, i) =>
      run.route.kind === "measured" && i % 3 === 0
        ? { ...run, route: { ...run.route, lengthM: run.route.lengthM * 1.25 } }
        : run,
    ),
  })),
});

for (const [name, lineUpId] of [
  ["marram", "runPort"],
  ["unit-12", "run"],
  ["reading-van", "warm"],
] as const) {
  const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
  for (const [what, thought] of [
    ["the plan", job],
    ["a wrong plan", wrongly(job)],
  ] as const) {
    const made = (from: Job) => {
      const plan = currentPlan(from);
      const lineUp = plan.lineUps.find(({ id }) => id === lineUpId);
      if (!lineUp) throw new Error(lineUpId);
      return new Diagnoser(buildNetwork(from), lineUp, plan.conditions);
    };
    const began = performance.now();
    const method = made(thought);
    const builtMs = performance.now() - began;
    const truthOf = thought === job ? method : made(job);
    const visits = visitsOf(method);
    const counts = {
      faulty: 0,
      three: 0,
      five: 0,
      sure: 0,
      sureRight: 0,
      healthy: 0,
      well: 0,
      bad: 0,
      all: 0,
    };
    for (let seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
      const truth = drawnFault(truthOf, seed);
      const { after } = trial(
        method,
        visits,
        truth,
        seed + 1e6,
        VISITS,
        new SimulatedSystem(truthOf, truth, seed + 1e6),
      );
      counts.all += after.length;
      counts.bad += after.filter(({ outcome }) => outcome === "badReading").length;
      if (!truth) {
        counts.healthy++;
        if (after[2]?.outcome === "nothingShows") counts.well++;
        continue;
      }
      counts.faulty++;
      const isNear = (i: number) => after[i]?.groups.slice(0, 2).includes(truth.fault.group);
      if (isNear(2)) counts.three++;
      if (isNear(4)) counts.five++;
      const said = after.filter(({ outcome }) => outcome === "found");
      counts.sure += said.length;
      counts.sureRight += said.filter(({ groups }) => groups[0] === truth.fault.group).length;
    }
    const { faulty, three, five, sure, sureRight, healthy, well, bad, all } = counts;
    console.log(
      `${name}, ${what}: first or second after 3 visits ${percent(three, faulty)}, after 5 ${percent(five, faulty)}; right when sure ${percent(sureRight, sure)} of ${sure}; healthy said so ${percent(well, healthy)}; bad readings named ${percent(bad, all)}`,
    );
    if (thought !== job) continue;
    const solver = new LineUpSolver(method.network);
    const readings = new SimulatedSystem(method, drawnFault(method, 3), 3).visit(
      visits[0] ?? { id: "", kind: "look", minutes: 1 },
    );
    const solveBegan = performance.now();
    for (let i = 0; i < 200; i++) solver.solve(method.lineUp, method.conditions);
    const solveMs = (performance.now() - solveBegan) / 200;
    const readBegan = performance.now();
    method.diagnose(readings);
    method.next(readings, visits);
    const readMs = performance.now() - readBegan;
    console.log(
      `  ${method.faults.length} faults laid in ${builtMs.toFixed(0)} ms (${(builtMs / solveMs).toFixed(0)} solves), a reading with its proposal ${readMs.toFixed(0)} ms (${(readMs / solveMs).toFixed(0)} solves)`,
    );
  }
}
