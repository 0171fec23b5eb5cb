/** The solver beside the EPANET engine, same network, same process, calls interleaved: ratios, never bare times. */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { LinkProperty, NodeProperty, Option, Project, Workspace } from "epanet-js";
import { exportInp } from "~/core/export/inp";
import { fuelAt } from "~/core/fuel/fuel";
import { LineUpSolver, type SolvedLineUp } from "~/core/hydraulics/solve";
import { defaultSweep, sweepAll } from "~/core/hydraulics/worst";
import { buildNetwork } from "~/core/network/network";
import { postureOf } from "~/core/network/posture";
import { currentPlan } from "~/core/plan/ports";
import type { Conditions, Job } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { bigJob } from "./bigPlan";
import { median, ms, show } from "./measure";

function solved(job: Job, conditions: Conditions, solver: LineUpSolver): SolvedLineUp {
  const lineUp = currentPlan(job).lineUps[0];
  if (!lineUp) throw new Error("no line-up");
  const result = solver.solveInPlace(lineUp, conditions);
  if (result.outcome !== "solved") throw new Error(JSON.stringify(result));
  return result;
}

/** Plan to result, against text to result. */
function fromPlan(ws: Workspace, name: string, job: Job): void {
  const plan = currentPlan(job);
  const text = exportInp(solved(job, plan.conditions, new LineUpSolver(buildNetwork(job))));
  const ours: number[] = [];
  const theirs: number[] = [];
  for (let i = 0; i < 800; i++) {
    ours.push(ms(() => solved(job, plan.conditions, new LineUpSolver(buildNetwork(job)))));
    theirs.push(
      ms(() => {
        const model = new Project(ws);
        ws.writeFile("b.inp", text);
        model.open("b.inp", "b.rpt", "b.out");
        model.solveH();
        model.close();
      }),
    );
  }
  const [a, b] = [median(ours.slice(400)), median(theirs.slice(400))];
  show(
    `${name}: plan to result`,
    `ours ${a.toFixed(3)} ms, EPANET from text ${b.toFixed(3)} ms: ${(b / a).toFixed(1)} times faster`,
  );
}

/** A kept topology with changed settings, against initH and runH; residuals are checked after each. */
function reSolve(ws: Workspace, job: Job) {
  const plan = currentPlan(job);
  const network = buildNetwork(job);
  const solver = new LineUpSolver(network);
  const first = solved(job, plan.conditions, solver);
  const model = new Project(ws);
  ws.writeFile("k.inp", exportInp(first));
  model.open("k.inp", "k.rpt", "k.out");
  model.setOption(Option.Accuracy, 1e-5);
  model.openH();
  const ours: number[] = [];
  const theirs: number[] = [];
  let worstEnergy = 0;
  let worstIterations = 0;
  const base = fuelAt(job.fuel, plan.conditions.fuelC);
  if (!base) throw new Error("no fuel");
  const tankNodes = job.tanks.map(({ id }) => model.getNodeIndex(id));
  const [firstRun] = plan.runs;
  const probe = model.getLinkIndex(firstRun?.id ?? "");
  for (let i = 0; i < 1500; i++) {
    const up = i % 2 === 0;
    const fuelC = up ? 10 + (i % 5) : 20 + (i % 5);
    const aboardM3 = Object.fromEntries(
      job.tanks.map((tank, k) => [tank.id, capacityM3(tank) * ((up ? 0.4 : 0.7) + 0.025 * ((i + k) % 4))]),
    );
    const conditions = { ...plan.conditions, fuelC, aboardM3 };
    const fuel = fuelAt(job.fuel, fuelC);
    if (!fuel) throw new Error("no fuel");
    let result: SolvedLineUp | null = null;
    ours.push(
      ms(() => {
        result = solved(job, conditions, solver);
      }),
    );
    const { energyPa, massM3S, iterations } = result as unknown as SolvedLineUp;
    if (!(energyPa <= 0.1) || !(massM3S <= 1e-10))
      throw new Error(`residual ${energyPa} Pa, ${massM3S} m3/s`);
    worstEnergy = Math.max(worstEnergy, energyPa);
    worstIterations = Math.max(worstIterations, iterations);
    theirs.push(
      ms(() => {
        job.tanks.forEach((tank, k) =>
          model.setNodeValue(
            tankNodes[k] as number,
            NodeProperty.Elevation,
            postureOf(network, undefined).surfaceM(tank, aboardM3[tank.id] ?? 0),
          ),
        );
        model.setOption(Option.SpViscos, fuel.kinematicM2S / (1.1e-5 * 0.3048 ** 2));
        model.initH(0);
        model.runH();
      }),
    );
    if (!Number.isFinite(model.getLinkValue(probe, LinkProperty.Flow))) throw new Error("no answer there");
  }
  model.closeH();
  model.close();
  const [a, b] = [median(ours.slice(300)), median(theirs.slice(300))];
  return {
    links: network.links.length,
    oursUs: a * 1000,
    theirsUs: b * 1000,
    ratio: a / b,
    worstEnergyPa: worstEnergy,
    iterations: worstIterations,
  };
}

/** The ratio moves with what ran before it in a process: each case in processes of its own, several times. */
const PROCESSES = 7;
function reSolved(name: string): void {
  const runs = Array.from({ length: PROCESSES }, () => {
    const printed = execFileSync("node", [process.argv[1] as string, name], { encoding: "utf8" });
    return JSON.parse(printed.trim().split("\n").at(-1) as string) as ReturnType<typeof reSolve>;
  });
  const of = (key: keyof (typeof runs)[number]) => runs.map((run) => run[key]);
  show(
    `${name}: ${runs[0]?.links} links re-solved`,
    `ours ${median(of("oursUs")).toFixed(0)} us, EPANET initH+runH ${median(of("theirsUs")).toFixed(0)} us: ${median(of("ratio")).toFixed(2)} of its time (${Math.min(...of("ratio")).toFixed(2)} to ${Math.max(...of("ratio")).toFixed(2)} over ${PROCESSES} processes); worst ${Math.max(...of("worstEnergyPa")).toFixed(3)} Pa, ${Math.max(...of("iterations"))} iterations`,
  );
}

const ws = new Workspace();
await ws.loadModule();
console.warn = () => undefined;

const demo = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const cases: Record<string, () => Job> = {
  Marram: () => demo("marram"),
  "Unit 12": () => demo("unit-12"),
  "The reading van": () => demo("reading-van"),
  "laminar ladder": () => bigJob(28, { checks: false, feedLH: 90, boreM: 0.0127 }),
  "mixed ladder with checks": () => bigJob(28, { checks: true, feedLH: 420, boreM: 0.0127 }),
};
const only = process.argv[2];
if (only !== undefined) {
  console.log(JSON.stringify(reSolve(ws, (cases[only] as () => Job)())));
  process.exit(0);
}
for (const [name, job] of Object.entries(cases)) fromPlan(ws, name, job());
for (const name of Object.keys(cases)) reSolved(name);
const marram = demo("marram");

const big = bigJob(200, { checks: true, feedLH: 60, boreM: 0.0254 });
const bigNetwork = buildNetwork(big);
const bigSolver = new LineUpSolver(bigNetwork);
const times = Array.from({ length: 60 }, (_, i) =>
  ms(() => solved(big, { ...currentPlan(big).conditions, fuelC: i % 2 ? 10 : 20 }, bigSolver)),
);
show(
  `${currentPlan(big).parts.length}-part plan (${bigNetwork.links.length} links)`,
  `solve ${median(times.slice(10)).toFixed(2)} ms`,
);

const network = buildNetwork(marram);
const sweep = defaultSweep(marram);
const sweeps = Array.from({ length: 8 }, () =>
  ms(() => sweepAll(network, currentPlan(marram).conditions, sweep)),
);
const count =
  network.plan.lineUps.length * sweep.temperaturesC.length * sweep.loadings.length * sweep.fills.length;
show(
  `Marram: ${count} cases (line-ups x temperatures x loadings x levels)`,
  `first ${(sweeps[0] ?? 0).toFixed(0)} ms, then ${median(sweeps.slice(1)).toFixed(0)} ms`,
);
