/** Plans of a wanted size for the bench: tanks on a manifold, banks of parallel filters, checks, a pump, an engine. */

import type { PlanPart } from "~/core/kinds/index";
import { newEngine, newJob, newLineUp, newPart, newRun, newTank } from "~/core/plan/blank";
import { currentPlan } from "~/core/plan/ports";
import type { Job, PortRef } from "~/core/plan/types";
import { LITRE_PER_HOUR_M3_S } from "~/core/units/factors";

/** About `size` parts. `checks` puts a check valve in every other ladder step; `feedLH` sets laminar or mixed flow. */
export function bigJob(
  size: number,
  { checks, feedLH, boreM }: { checks: boolean; feedLH: number; boreM: number },
): Job {
  const job = newJob("big", `Ladder of ${size}`);
  const plan = currentPlan(job);
  const lineUp = newLineUp("l1", "run");
  plan.lineUps.push(lineUp);
  let count = 0;
  const add = (kind: PlanPart["kind"]): PlanPart => {
    const part = newPart(kind, `p${count++}`, {
      xM: 1 + (count % 40) * 0.1,
      yM: 0,
      zM: 0.3 + 0.02 * (count % 7),
    });
    part.boreM = boreM;
    plan.parts.push(part);
    if (part.kind === "twoWay") lineUp.valves[part.id] = { kind: "position", position: "open" };
    if (part.kind === "liftPump") {
      lineUp.pumps[part.id] = "on";
      part.curve = [
        { flowM3S: 0, risePa: 60000 },
        { flowM3S: feedLH * 3 * LITRE_PER_HOUR_M3_S, risePa: 0 },
      ];
    }
    return part;
  };
  const join = (from: PortRef, to: PortRef) =>
    plan.runs.push(newRun(`r${plan.runs.length}`, from, to, 6, boreM));
  const at = (part: PlanPart, port: string): PortRef => ({ part: part.id, port });
  const bank = add("bank");
  if (bank.kind !== "bank") throw new Error("bank");
  bank.branches = [0, 1, 2].map((i) => ({ id: `b${i}`, name: String(i) }));
  for (let i = 0; i < 3; i++) {
    const tank = newTank(`t${i}`, `Tank ${i}`, { xM: 6, yM: i, zM: 0.4 });
    job.tanks.push(tank);
    plan.conditions.aboardM3[tank.id] = 0.12;
    join({ part: tank.id, port: "supply" }, at(bank, `b${i}`));
  }
  lineUp.valves[bank.id] = { kind: "branches", open: ["b0"] };
  let from = at(bank, "c");
  for (let step = 0; plan.parts.length < size - 4; step++) {
    const [split, merge, left, right] = [
      add("tee"),
      add("tee"),
      add("filter"),
      add(checks && step % 2 ? "check" : "twoWay"),
    ];
    if (right.kind === "check") right.crackingPa = 200;
    if (left.kind === "filter") {
      left.ratedFlowM3S = feedLH * LITRE_PER_HOUR_M3_S;
      left.ratedDropPa = 300;
    }
    const [a, b] = right.kind === "check" ? ["in", "out"] : ["a", "b"];
    join(from, at(split, "a"));
    join(at(split, "b"), at(left, "in"));
    join(at(left, "out"), at(merge, "a"));
    join(at(split, "c"), at(right, a as string));
    join(at(right, b as string), at(merge, "c"));
    from = at(merge, "b");
  }
  const pump = add("liftPump");
  join(from, at(pump, "in"));
  const engine = newEngine("eng", "Engine", { xM: 0, yM: 0, zM: 0.4 });
  engine.loads = [
    { load: 1, feedM3S: feedLH * LITRE_PER_HOUR_M3_S, burnM3S: 0.2 * feedLH * LITRE_PER_HOUR_M3_S },
  ];
  job.consumers.push(engine);
  lineUp.consumers[engine.id] = "running";
  join(at(pump, "out"), { part: engine.id, port: "feed" });
  const back = newRun("back", { part: engine.id, port: "return" }, { part: "t0", port: "return" }, 9, boreM);
  plan.runs.push(back);
  return job;
}
