import { readFileSync } from "node:fs";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import { bledWay } from "./bleed";
import { bleedProcedure, replay } from "./procedure";

(globalThis as any).MAP = process.env.MAP;
for (const name of (process.argv[2] ?? "marram,unit-12,reading-van").split(",")) {
  const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8"));
  for (const planId of job.plans.map((p: any) => p.id)) {
    job.currentPlanId = planId;
    const plan = currentPlan(job);
    const network = buildNetwork(job);
    const solver = new LineUpSolver(network);
    for (const lineUp of plan.lineUps.filter((l) => !process.argv[3] || l.id === process.argv[3])) {
      const verdict = judgeLineUp(solver, lineUp, plan.conditions);
      const { from } = bledWay(solver, verdict, plan.conditions);
      if (!from?.way) {
        console.log(name, planId, lineUp.name, "no way");
        continue;
      }
      const task = {
        network,
        lineUp,
        conditions: plan.conditions,
        way: from.way,
        content: {
          kind: (process.argv[4] ?? "dry") as any,
          partId: process.argv[5],
          joint: process.argv[5],
        } as any,
      };
      const t0 = performance.now();
      try {
        const p = bleedProcedure(task, job.schools)!;
        const t1 = performance.now();
        console.log(
          `== ${name} ${planId} ${lineUp.name}: left ${(100 * p.left).toFixed(3)} % of ${(1e6 * p.roomM3).toFixed(0)} mL, pan ${(1e6 * p.panM3).toFixed(0)}, poured ${(1e6 * p.pouredM3).toFixed(0)}, ${p.seconds.toFixed(0)} s; ${(t1 - t0).toFixed(0)} ms; dry ${JSON.stringify(p.dry)}`,
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
        console.log(
          "   ",
          JSON.stringify(p.whyNot),
          JSON.stringify(p.where.slice(0, 4)),
          "replay",
          replay(task, p.actions),
        );
      } catch (e) {
        console.log(name, lineUp.name, e);
      }
    }
  }
}
