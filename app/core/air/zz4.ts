import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import { bledWay } from "./bleed";
import { randomLine } from "./lines.fixture";
import { bleedProcedure, replay } from "./procedure";

(globalThis as any).MAP = process.env.MAP;
const [from, to] = [Number(process.argv[2]), Number(process.argv[3])];
let n = 0,
  good = 0,
  none = 0,
  worst = 0;
const codes: Record<string, number> = {};
const t00 = performance.now();
for (let seed = from; seed <= to; seed++) {
  const job = randomLine(seed);
  const plan = currentPlan(job);
  const network = buildNetwork(job);
  const solver = new LineUpSolver(network);
  const lineUp = plan.lineUps[0]!;
  const verdict = judgeLineUp(solver, lineUp, plan.conditions);
  let { from } = bledWay(solver, verdict, plan.conditions);
  if (!from?.way) {
    none++;
    if (process.env.V)
      console.log(
        seed,
        "no way",
        verdict.result.outcome,
        verdict.result.outcome === "solved"
          ? [...verdict.result.consumers.values()].map((c) => c.outcome)
          : "",
      );
    continue;
  }
  n++;
  const task = {
    network,
    lineUp,
    conditions: plan.conditions,
    way: from.way,
    content: { kind: "dry" } as const,
  };
  const t0 = performance.now();
  try {
    const p = bleedProcedure(task, job.schools)!;
    const ms = performance.now() - t0;
    if (ms > worst) worst = ms;
    if (p.left <= 0.001) good++;
    else {
      for (const c of new Set(p.whyNot.map((w) => w.code))) codes[c] = (codes[c] ?? 0) + 1;
      if (process.env.V) {
        console.log(
          `seed ${seed} left ${(100 * p.left).toFixed(2)} % of ${(1e6 * p.roomM3).toFixed(0)} mL ${ms.toFixed(0)} ms`,
          plan.parts.map((x) => x.kind + "@" + x.position.zM.toFixed(2)).join(" "),
          "eng",
          job.consumers[0]!.position.zM.toFixed(2),
          "bore",
          plan.runs[0]!.boreM.toFixed(4),
        );
        for (const s of p.steps)
          console.log(
            "   ",
            s.kind === "valves"
              ? `valves ${s.ids} ${s.isBack}`
              : s.kind === "runOn"
                ? `run on ${s.by.id} ${s.seconds.toFixed(1)} s fills ${(1e6 * s.fillsM3).toFixed(0)}`
                : s.kind === "fill"
                  ? `fill${s.isAgain ? " again" : ""} ${s.vessels.map((v) => `${v.name} ${(1e6 * v.pouredM3).toFixed(0)} shut ${v.shutIds} ${v.isToInlet ? "to inlet" : ""}`).join("; ")}`
                  : `${s.isAgain ? "again " : ""}${s.joint.kind} ${s.joint.key} by ${s.by.kind} ${s.by.id}: ${s.seconds.toFixed(1)} s fills ${(1e6 * s.fillsM3).toFixed(0)} pan ${(1e6 * s.panM3).toFixed(0)} solid ${s.isSolid} dry ${s.dryS.toFixed(1)} over ${s.joint.overFuelM.toFixed(2)}`,
          );
        console.log("   ", JSON.stringify(p.whyNot).slice(0, 400));
      }
      if (p.whyNot.length === 0) console.log("NO REASON", seed);
    }
    const again = replay(task, p.actions);
    if (Math.abs((again ?? 1) - p.left) > 1e-6) console.log("REPLAY", seed, again, p.left);
  } catch (e) {
    console.log("THREW", seed, String(e));
  }
}
console.log({ n, good, none, share: good / n, codes, worst, s: (performance.now() - t00) / 1000 });
