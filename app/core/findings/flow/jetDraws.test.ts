/** A jet in the return, a transfer, an engine's burn: each told where it is wrong and by its own figures, and quiet elsewhere. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { startJob } from "../../edit/starters";
import type { JetPump } from "../../kinds/jetPump";
import { newPart, newRun } from "../../plan/blank";
import { currentPlan } from "../../plan/ports";
import type { Job, Tank } from "../../plan/types";
import { findingsOf } from "../findings";
import type { FindingOf, RuleId } from "../index";

const TODAY = new Date("2026-06-01T00:00:00Z");
const all = <K extends RuleId>(job: Job, rule: K) =>
  findingsOf(job, [], undefined, undefined, TODAY).filter(
    (one) => one.rule === rule,
  ) as unknown as FindingOf<K>[];
const demo = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

interface Jet {
  /** Height of the jet; the fuel stands at 0.4 m. */
  zM?: number;
  drawBoreM?: number;
  drawM?: number;
  outBoreM?: number;
  outM?: number;
  burnM3S?: number;
}

/** One tank with a well round its supply; the return drives a jet that fills the well. 80 L/h are fed. */
function withJet({
  zM = 0.38,
  drawBoreM = 0.0127,
  drawM = 0.5,
  outBoreM = 0.0127,
  outM = 0.3,
  burnM3S,
}: Jet): Job {
  const job = startJob("j", "One", "oneTank");
  const plan = currentPlan(job);
  const [engine] = job.consumers;
  const [tank] = job.tanks as [Tank];
  const [supply] = tank.ports;
  const well = {
    low: { xM: 0, yM: 0.1, zM: 0 },
    high: { xM: 0.2, yM: 0.4, zM: 0.3 },
    holeBoreM: 0.003,
    holes: 0,
  };
  const at = (x: number, z: number) => ({
    mouth: { xM: x, yM: 0.25, zM: z },
    outside: { xM: x, yM: 0.25, zM: 0.43 },
  });
  const ports: Tank["ports"] = [
    supply!,
    { id: "fills", name: "fills", role: "return", ...at(0.15, 0.1), boreM: outBoreM },
    { id: "draw", name: "draw", role: "outlet", ...at(0.4, 0.005), boreM: drawBoreM },
  ];
  const jet = {
    ...newPart("jetPump", "jet", { xM: 2.3, yM: 0, zM }),
    boreM: 0.0095,
    nozzleM: 0.0022,
    throatM: 0.0045,
  } as JetPump;
  const back = plan.runs.find(({ from }) => from.port === "return")!;
  const ref = (part: string, port: string) => ({ part, port });
  const runs = [
    ...plan.runs.filter((run) => run !== back),
    { ...back, to: ref("jet", "drive") },
    newRun("out", ref("jet", "out"), ref(tank.id, "fills"), outM, outBoreM),
    newRun("in", ref(tank.id, "draw"), ref("jet", "draw"), drawM, drawBoreM),
  ];
  const loads = engine!.kind === "engine" ? engine!.loads : [];
  const consumer = {
    ...engine!,
    loads: loads.map((one) => ({ ...one, burnM3S: one.load === 1 ? (burnM3S ?? one.burnM3S) : one.burnM3S })),
  } as Job["consumers"][number];
  return {
    ...job,
    tanks: [{ ...tank, ports, well }],
    consumers: [consumer],
    plans: [{ ...plan, parts: [...plan.parts, jet], runs }],
  };
}

describe("a jet in the return", () => {
  test("that draws more than is burned, at the fuel, is no finding", () => {
    expect(all(withJet({}), "jetDraws")).toEqual([]);
  });

  test("with a long narrow outlet pushes fuel back out of its draw", () => {
    const [found] = all(withJet({ outBoreM: 0.003, outM: 4 }), "jetDraws");
    expect(found).toMatchObject({ grade: "mend", values: { code: "pushesBack" } });
    expect(found!.values.drawM3S).toBeLessThan(0);
    expect(found!.ids[0]).toBe("jet");
  });

  test("with a narrow draw brings less than is burned: both are told, and until when the well lasts", () => {
    const [found] = all(withJet({ drawBoreM: 0.002, drawM: 6, burnM3S: 1.2e-5 }), "jetDraws");
    expect(found).toMatchObject({ grade: "mend", values: { code: "lessThanBurn" } });
    const { drawM3S, burnM3S, dryHours } = found!.values;
    expect(burnM3S).toBeCloseTo(1.2e-5, 9);
    // By hand: 0.2 by 0.3 m of well, 0.3 m high, its mouth 25 mm up.
    expect(dryHours).toBeCloseTo((0.2 * 0.3 * (0.3 - 0.025)) / (burnM3S - drawM3S) / 3600, 6);
  });

  test("over the fuel is told with how far, as a watch: it runs once its hose is full", () => {
    const [found] = all(withJet({ zM: 0.9 }), "jetDraws");
    expect(found).toMatchObject({ grade: "watch", values: { code: "onAir" } });
    expect(found!.values.liftM).toBeCloseTo(0.9 - 0.4, 6);
  });
});

test("a transfer says when its tank is full: its room over what comes in", () => {
  const [found] = all(demo("marram"), "transferOverfills");
  const { fullHours, roomM3, gainM3S } = found!.values;
  expect(fullHours).toBeCloseTo(roomM3 / gainM3S / 3600, 9);
  // The day tank is 400 mm high: 110 L.
  expect(roomM3).toBeCloseTo(
    0.55 * 0.5 * 0.4 - (currentPlan(demo("marram")).conditions.aboardM3.dayTank ?? 0),
    6,
  );
  expect(all(startJob("j", "One", "oneTank"), "transferOverfills")).toEqual([]);
});

describe("what an engine burns against its power", () => {
  const engine = (job: Job, burnLH: number): Job => ({
    ...job,
    consumers: job.consumers.map((one) =>
      one.kind === "engine" ? { ...one, loads: [{ load: 1, feedM3S: 1e-3, burnM3S: burnLH / 3.6e6 }] } : one,
    ),
  });
  const starter = startJob("j", "One", "oneTank");
  const petrol: Job = { ...starter, fuel: { ...starter.fuel, grade: "petrol" } };
  test.each([
    // 60 kW. Diesel 195 to 290 g/kWh at 0.84: 13.9 to 20.7 L/h; petrol 280 to 380 at 0.745: 22.6 to 30.6. By hand.
    ["diesel", starter, 16, false],
    ["diesel", starter, 8, true],
    ["diesel", starter, 40, true],
    ["petrol", petrol, 27, false],
    ["petrol", petrol, 14, true],
  ])("%s of 60 kW", (_, job, burnLH, isTold) => {
    const found = all(engine(job, burnLH), "burnUnlikely");
    expect([burnLH, found.length]).toEqual([burnLH, isTold ? 1 : 0]);
    if (found[0]) expect(found[0].values.burnLH).toBeCloseTo(burnLH, 6);
  });
});
