/** Random plans for tests and the bench: tees joined at random by runs, valves, checks, filters and pumps. */

import { throughPorts } from "../edit/standing";
import { isPowered } from "../kinds/families";
import type { Position } from "../kinds/record";
import { newEngine, newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan, portsOf } from "../plan/ports";
import type { Job, PortRef, Tank } from "../plan/types";
import { seeded } from "../random/seeded";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";

const allKinds = [
  "none",
  "none",
  "none",
  "twoWay",
  "check",
  "filter",
  "liftPump",
  "liftPump",
  "gauge",
] as const;
/** Whatever lies in a line. */
const everyKind = [
  "none",
  "none",
  "relief",
  "regulator",
  "cooler",
  "flowMeter",
  "fuelHeater",
  "bulb",
  "antiSiphon",
  "primingPump",
  "pumpFilterUnit",
  "jetPump",
  "swirlPot",
  "bleedScrew",
  "liftPump",
] as const;
type RandomKind = (typeof allKinds)[number] | (typeof everyKind)[number];

/** Nothing that lets fuel through one way only. */
const plainKinds = ["none", "none", "twoWay", "filter", "gauge"] as const;

/** With `plain` no part and no tank port is one-way. */
/** With `every` the kinds beyond the common ones stand in the lines. */
export function randomJob(seed: number, { plain = false, every = false } = {}): Job {
  const random = seeded(seed * 7919 + 17);
  const between = (low: number, high: number) => low + random() * (high - low);
  const pick = <T>(items: readonly T[]) => items[Math.floor(random() * items.length)] as T;
  const job = newJob(`rnd${seed}`, `Random ${seed}`);
  const plan = currentPlan(job);
  const lineUp = newLineUp("l1", "as set");
  plan.lineUps.push(lineUp);
  plan.conditions.fuelC = between(-5, 40);
  const place = (): Position => ({ xM: between(0, 4), yM: between(-1, 1), zM: between(-0.3, 0.6) });
  const free: PortRef[] = [];
  let count = 0;

  const tanks = 1 + Math.floor(random() * 3);
  for (let t = 0; t < tanks; t++) {
    const tank = newTank(`t${t}`, `Tank ${t}`, { xM: t, yM: 0, zM: between(-0.4, 0.8) });
    if (plain) for (const port of tank.ports) port.mouth.zM = 0.01;
    job.tanks.push(tank);
    plan.conditions.aboardM3[tank.id] = between(0.02, 0.19);
    free.push({ part: tank.id, port: "supply" }, { part: tank.id, port: "return" });
  }
  const tees = 2 + Math.floor(random() * 8);
  for (let t = 0; t < tees; t++) {
    const tee = newPart("tee", `j${t}`, place());
    plan.parts.push(tee);
    for (const port of ["a", "b", "c"]) free.push({ part: tee.id, port });
  }
  const engine = newEngine("eng", "Engine", place());
  const feed = between(20, 260) * LITRE_PER_HOUR_M3_S * (random() < 0.5 ? 40 : 1);
  engine.loads = [{ load: 1, feedM3S: feed, burnM3S: feed * between(0.1, 0.4) }];
  job.consumers.push(engine);
  lineUp.consumers[engine.id] = random() < 0.95 ? "running" : "stopped";
  free.push({ part: engine.id, port: "feed" }, { part: engine.id, port: "return" });

  for (let i = free.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [free[i], free[j]] = [free[j] as PortRef, free[i] as PortRef];
  }
  const run = (from: PortRef, to: PortRef) => {
    plan.runs.push(newRun(`r${count++}`, from, to, between(5, 12), pick([0.0064, 0.0079, 0.0095, 0.0127])));
  };
  for (let i = 0; i + 1 < free.length; i += 2) {
    const from = free[i] as PortRef;
    const to = free[i + 1] as PortRef;
    const kind = pick<RandomKind>(every ? everyKind : plain ? plainKinds : allKinds);
    if (kind === "none") {
      run(from, to);
      continue;
    }
    const part = newPart(kind, `p${i}`, place());
    if (part.kind === "check") part.crackingPa = pick([0, 500, 3000]);
    if (part.kind === "twoWay")
      lineUp.valves[part.id] = { kind: "position", position: random() < 0.75 ? "open" : "shut" };
    if (part.kind === "liftPump") {
      lineUp.pumps[part.id] = random() < 0.8 ? "on" : "off";
      if (random() < 0.3) part.reliefPa = between(10000, 40000);
      if (random() < 0.3) part.off = { kind: "blocked" };
    }
    if (part.kind === "filter" && part.element) plan.conditions.loading[part.element.id] = between(1, 5);
    if (isPowered(part) && part.kind !== "liftPump") lineUp.pumps[part.id] = random() < 0.7 ? "on" : "off";
    if (part.kind === "regulator")
      Object.assign(part, { holds: random() < 0.5 ? "before" : "after", setPa: between(2000, 30000) });
    if (part.kind === "relief") part.setPa = between(1000, 20000);
    plan.parts.push(part);
    const [a, b] = throughPorts(part) ?? ["a", "b"];
    for (const { id } of portsOf(part)) {
      if (id === a || id === b || part.kind === "tee" || random() < 0.3) continue;
      const tank = pick(job.tanks);
      const port = `x${i}${id}`;
      tank.ports.push({ ...(tank.ports[1] as Tank["ports"][number]), id: port, name: port });
      run({ part: part.id, port: id }, { part: tank.id, port });
    }
    run(from, { part: part.id, port: a as string });
    run({ part: part.id, port: b as string }, to);
  }
  return job;
}
