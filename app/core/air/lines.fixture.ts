/** Feed lines at random, as they are built: a tank, a valve, filters alone or in a pair, what moves fuel, and a consumer. */
import type { PlanPart } from "../kinds/index";
import type { Position } from "../kinds/record";
import { newEngine, newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job, PortRef } from "../plan/types";
import { seeded } from "../random/seeded";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";

export function randomLine(seed: number): Job {
  const random = seeded(seed * 6151 + 29);
  const between = (low: number, high: number) => low + random() * (high - low);
  const chance = (share: number) => random() < share;
  const job = newJob(`line${seed}`, `Line ${seed}`);
  const plan = currentPlan(job);
  const lineUp = newLineUp("l1", "Run");
  plan.lineUps.push(lineUp);
  plan.conditions.fuelC = between(0, 30);
  const isHeater = chance(0.2);
  const boreM = isHeater ? between(0.002, 0.004) : between(0.006, 0.014);
  const tank = newTank("t", "Tank", { xM: 0, yM: 0, zM: between(-0.6, 0.6) });
  for (const port of tank.ports) port.boreM = boreM;
  if (chance(0.3)) {
    const supply = tank.ports[0];
    if (supply)
      Object.assign(supply, {
        mouth: { xM: 0.99, yM: 0.25, zM: 0.05 },
        outside: { xM: 1.02, yM: 0.25, zM: 0.05 },
      });
  }
  job.tanks.push(tank);
  plan.conditions.aboardM3.t = between(0.05, 0.19);

  let at: PortRef = { part: "t", port: "supply" };
  let place: Position = { xM: 1.1, yM: 0.25, zM: tank.origin.zM + (tank.ports[0]?.outside.zM ?? 0) };
  let count = 0;
  const distance = (a: Position, b: Position) => Math.hypot(a.xM - b.xM, a.yM - b.yM, a.zM - b.zM);
  const hose = (from: PortRef, a: Position, to: PortRef, b: Position) => {
    count += 1;
    const straightM = distance(a, b);
    const lengthM = Math.max(0.12, straightM * between(1.02, 1.5));
    const run = newRun(`r${count}`, from, to, lengthM, boreM);
    if (chance(0.3) && run.route.kind === "measured") {
      const zM = Math.max(a.zM, b.zM) + between(-0.2, 0.3);
      if (lengthM > straightM + 2 * Math.abs(zM - Math.max(a.zM, b.zM)))
        run.route.extremes.push({ atM: lengthM * between(0.3, 0.7), zM });
    }
    plan.runs.push(run);
  };
  const next = (): Position => ({
    xM: place.xM + between(0.15, 0.8),
    yM: place.yM + between(-0.2, 0.2),
    zM: Math.max(-0.5, Math.min(1.3, place.zM + between(-0.35, 0.35))),
  });
  const add = (kind: PlanPart["kind"], more: object = {}): PlanPart => {
    const position = next();
    const part = { ...newPart(kind, `${kind.slice(0, 6)}${count}`, position), boreM, ...more } as PlanPart;
    plan.parts.push(part);
    return part;
  };
  const inLine = (kind: PlanPart["kind"], ports: readonly [string, string], more: object = {}): PlanPart => {
    const part = add(kind, more);
    hose(at, place, { part: part.id, port: ports[0] }, part.position);
    at = { part: part.id, port: ports[1] };
    place = part.position;
    return part;
  };
  const open = { kind: "position", position: "open" } as const;
  const shut = { kind: "position", position: "shut" } as const;
  const small = isHeater ? { volumeM3: between(1e-5, 4e-5) } : { volumeM3: between(3e-4, 1.2e-3) };

  if (chance(0.6)) lineUp.valves[inLine("twoWay", ["a", "b"]).id] = open;
  if (chance(0.2)) inLine("bulb", ["in", "out"]);
  if (!isHeater && chance(0.3)) {
    // A pair, one of them valved off.
    const tee = inLine("tee", ["a", "b"]);
    const out = add("tee");
    for (const port of ["b", "c"]) {
      const from = { part: tee.id, port };
      const valve = add("twoWay");
      const filter = add("filter", small);
      lineUp.valves[valve.id] = port === "b" || chance(0.3) ? open : shut;
      hose(from, tee.position, { part: valve.id, port: "a" }, valve.position);
      hose({ part: valve.id, port: "b" }, valve.position, { part: filter.id, port: "in" }, filter.position);
      const joint = { part: out.id, port: port === "b" ? "a" : "c" };
      hose({ part: filter.id, port: "out" }, filter.position, joint, out.position);
    }
    at = { part: out.id, port: "b" };
    place = out.position;
  } else if (chance(0.8)) inLine("filter", ["in", "out"], small);
  if (!isHeater && chance(0.2)) inLine("primingPump", ["in", "out"]);
  if (isHeater) lineUp.pumps[inLine("dosingPump", ["in", "out"]).id] = "on";
  else if (chance(0.85)) lineUp.pumps[inLine("liftPump", ["in", "out"]).id] = "on";
  if (!isHeater && chance(0.7)) inLine("filter", ["in", "out"], { ...small, medium: "secondary" });
  if (chance(0.3)) inLine("bleedScrew", ["a", "b"]);
  const engine = newEngine("eng", "Consumer", next(), isHeater ? "heater" : "engine");
  if (!isHeater) {
    const feedM3S = between(60, 220) * LITRE_PER_HOUR_M3_S;
    engine.loads = [{ load: 1, feedM3S, burnM3S: feedM3S * between(0.1, 0.4) }];
  }
  job.consumers.push(engine);
  lineUp.consumers.eng = "running";
  hose(at, place, { part: "eng", port: "feed" }, engine.position);
  if (!isHeater)
    hose(
      { part: "eng", port: "return" },
      engine.position,
      { part: "t", port: "return" },
      { xM: 0.8, yM: 0.25, zM: tank.origin.zM + 0.43 },
    );
  return job;
}
