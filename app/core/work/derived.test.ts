/** Lists derived from the demo plan, each against a sum done another way. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { LeakCheck } from "../book/entries";
import { loadingFromReading } from "../care/loadingFromReading";
import { toCsv } from "../export/csv";
import { gaugeAtPort } from "../hydraulics/derive";
import { fuelWay, stubsOf } from "../hydraulics/route";
import { LineUpSolver, solveLineUp } from "../hydraulics/solve";
import { pumpAndSystem } from "../hydraulics/systemCurve";
import { defaultSweep, judgeAll, sweepAll, worstConditions } from "../hydraulics/worst";
import { isPowered } from "../kinds/families";
import { buildNetwork } from "../network/network";
import { allowanceM, hoseLines, partLines, runSheet } from "../parts/partsList";
import { tubeEnds } from "../parts/tubeEnds";
import { assumedFigures } from "../plan/assumed";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { type LeakState, leakStates } from "./leakStates";
import { firstState, leakTest } from "./leakTest";
import { runSides } from "./runSides";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const network = buildNetwork(job);
const lineUp = plan.lineUps.find(({ id }) => id === "runPort") as LineUp;
const solved = solveLineUp(network, lineUp, plan.conditions);
if (solved.outcome !== "solved") throw new Error("not solved");
const way = fuelWay(solved);
if (!way) throw new Error("no way");

describe("the way of the fuel", () => {
  test("goes from the tank over the larger flow to the engine and back", () => {
    expect(way.stations.map(({ id }) => id)).toEqual([
      "portWing",
      "valveP",
      "supply",
      "teeIn",
      "valve1",
      "sep1",
      "teeOut",
      "vacuum",
      "lift",
      "teePol",
      "second",
      "engine",
      "teeRet",
      "returns",
      "portWing",
    ]);
    expect(way.firstPumpId).toBe("lift");
  });

  test("suction losses and heights add up to the vacuum at the pump", () => {
    const losses = way.suctionLosses.reduce((sum, { lossPa }) => sum + lossPa, 0);
    const column = solved.settings.fuel.densityKgM3 * 9.80665;
    const surface = solved.settings.surfaceM.get("portWing") ?? 0;
    const atPump = column * (surface - 0.62) - losses;
    expect(gaugeAtPort(solved, "lift.in")).toBeCloseTo(atPump, 0);
    expect(way.suctionLosses.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(way.suctionLosses[0]?.id).toBe("sep1");
  });

  test("branches that leave it can be chosen", () => {
    expect(stubsOf(plan, way).map(({ runId }) => runId)).toEqual(
      expect.arrayContaining(["run2", "run5", "run15"]),
    );
  });
});

test("a run's side is that of the solved way, whatever its ports are called: from the return tee to the manifold it returns", () => {
  const sides = runSides(new LineUpSolver(network), plan, plan.conditions);
  const between = (from: string, to: string) =>
    plan.runs.find(
      (run) => [run.from.part, run.to.part].includes(from) && [run.from.part, run.to.part].includes(to),
    )!;
  expect(sides.get(between("teeRet", "returns").id)).toBe("return");
  expect(sides.get(between("lift", "teePol").id)).toBe("feed");
});

describe("lists", () => {
  test("parts: every one is counted once, every run has its hose and its allowance at both ends", () => {
    expect(partLines(plan).reduce((sum, { count }) => sum + count, 0)).toBe(plan.parts.length);
    const hoses = hoseLines(job, plan);
    const sheet = runSheet(job, plan);
    expect(hoses.reduce((sum, { runs }) => sum + runs, 0)).toBe(
      plan.runs.length + (plan.tankLines?.length ?? 0),
    );
    const cut = sheet.reduce((sum, { cutM }) => sum + cutM, 0);
    expect(hoses.reduce((sum, { totalM }) => sum + totalM, 0)).toBeCloseTo(cut, 9);
    expect(sheet.filter(({ isAssumed }) => isAssumed).map(({ id }) => id)).toEqual(["run16"]);
  });

  test("only ends that are cut free have an allowance: none for rigid lines, one for a hose with one made end", () => {
    const [run] = plan.runs;
    const rigid = { ...run!, make: "rigid" as const };
    const made = {
      ...plan,
      ends: { [run!.id]: { to: { family: "jic37", size: "-8", form: "fs" } as const } },
    };
    expect(allowanceM(plan, run!)).toBeCloseTo(2 * plan.serviceAllowanceM, 12);
    expect(allowanceM(made, run!)).toBeCloseTo(plan.serviceAllowanceM, 12);
    expect(allowanceM(plan, rigid)).toBe(0);
    // Room for a flow meter to come is kept in the hose.
    const kept = { ...run!, slack: { name: "flow meter", lengthM: 0.25 } };
    expect(allowanceM(plan, kept) - allowanceM(plan, run!)).toBeCloseTo(0.25, 12);
  });

  test("a flared tube is cut longer by what its flares take: the wall turned out over half their angle", () => {
    const [run] = plan.runs;
    const rigid = { ...run!, make: "rigid" as const };
    // 3/8 in tube, flare 0.487 in (SAE J533, from memory): 0.056 in turned over 18.5 and 22.5 degrees.
    const flared = {
      ...plan,
      ends: {
        [run!.id]: { to: { family: "jic37", size: "-6", form: "fs" } as const },
        [run!.from.part]: { [run!.from.port]: { family: "sae45", size: "3/8", form: "m" } as const },
      },
    };
    const [inch, tan] = [0.0254, (deg: number) => Math.tan((deg * Math.PI) / 180)];
    const wanted = 0.056 * inch * (tan(18.5) + tan(22.5));
    expect(allowanceM(flared, rigid) / wanted).toBeCloseTo(1, 2);
    expect(tubeEnds(flared, rigid).map(({ side, end }) => [side, end.family])).toEqual([
      ["from", "sae45"],
      ["to", "jic37"],
    ]);
    // A barb or a pipe thread is not flared, and a hose has no flare whatever it ends in.
    expect(tubeEnds(flared, run!)).toEqual([]);
    const pipe = { ...plan, ends: { [run!.id]: { to: { family: "npt", size: "1/4", form: "m" } as const } } };
    expect(allowanceM(pipe, rigid)).toBe(0);
  });

  test.each(leakStates)(
    "leak test, %s: every joint that is wetted in it once, the way of the fuel first",
    (state) => {
      const { wetted, shutIn } = leakTest(network, lineUp, plan.conditions, state, [], way);
      // Both ends of each hose, and each screwed joint: counted from the plan itself.
      expect(wetted.length + shutIn.length).toBe(2 * plan.runs.length + plan.joints.length);
      expect(new Set([...wetted, ...shutIn].map(({ key }) => key)).size).toBe(wetted.length + shutIn.length);
      expect(wetted[0]?.partId).toBe("portWing");
      expect(wetted.every(({ nowPa }) => nowPa !== null)).toBe(true);
    },
  );

  test("vacuum and pressure are told apart while it runs", () => {
    const { wetted } = leakTest(network, lineUp, plan.conditions, "running", [], way);
    expect(wetted.find(({ key }) => key === "sep1.out")?.now).toBe("vacuum");
    expect(wetted.find(({ key }) => key === "lift.out")?.now).toBe("pressure");
  });

  test("a unit's own return is among the joints: Unit 12 has none that is left out", () => {
    const truck = (JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job }).job;
    const own = currentPlan(truck);
    const verdict = judgeAll(buildNetwork(truck), own.conditions)[0]!;
    const { wetted, shutIn } = leakTest(
      buildNetwork(truck),
      verdict.lineUp,
      own.conditions,
      "running",
      [],
      verdict.way,
    );
    expect(wetted.length + shutIn.length).toBe(2 * own.runs.length + own.joints.length);
    expect(wetted.filter(({ joint }) => /return/i.test(joint.port)).length).toBeGreaterThan(0);
  });

  test("a look counts in its state; wet at the last look of any state stays wet until dry", () => {
    const base = { planId: plan.id, planHash: "", lineUpId: lineUp.id, joint: { part: "sep1", port: "out" } };
    const look = (id: string, state: LeakState | undefined, result: "dry" | "wet"): LeakCheck =>
      ({
        ...base,
        id,
        at: `2026-05-0${id}T10:00:00Z`,
        kind: "leakCheck",
        ...(state && { state }),
        result,
      }) as LeakCheck;
    const of = (book: LeakCheck[], state: LeakState) =>
      leakTest(network, lineUp, plan.conditions, state, book, way).wetted.find(
        ({ key }) => key === "sep1.out",
      );
    const book = [look("1", "running", "dry"), look("2", "pumpOnly", "wet")];
    expect(of(book, "running")).toMatchObject({ check: { result: "dry" }, isWet: true });
    expect(of(book, "overnight")?.check ?? null).toBeNull();
    expect(of([...book, look("3", "running", "dry")], "running")).toMatchObject({ isWet: false });
    expect(of([look("1", undefined, "dry")], "overnight")?.check?.result).toBe("dry");
  });

  test("a pump of its own tests with the engine off, an engine's own pump only as it runs", () => {
    const powered = plan.parts.find(isPowered)!.id;
    expect(firstState(plan, { ...lineUp, pumps: { [powered]: "on" } })).toBe("pumpOnly");
    expect(firstState(plan, { ...lineUp, pumps: { [powered]: "off" } })).toBe("running");
  });

  test("what is assumed is listed, never what was measured or is the maker's", () => {
    const assumed = assumedFigures(job, plan).map(({ id, field }) => `${id}.${field}`);
    expect(assumed).toContain("run16.lengthM");
    expect(assumed).not.toContain("run1.lengthM");
    expect(assumed).not.toContain("lift.curve");
  });

  test("figures of a tank's joined ports each stand among what is to be measured until they are", () => {
    const of = (one: Job) =>
      assumedFigures(one, currentPlan(one))
        .filter(({ id, portId }) => id === "portWing" && portId === "out")
        .map(({ field }) => field);
    expect(of(job)).toEqual(["mouth", "outside", "boreM"]);
    const measured = (paths: string[]): Job => ({
      ...job,
      tanks: job.tanks.map((tank) =>
        tank.id === "portWing"
          ? {
              ...tank,
              given: {
                ...tank.given,
                ...Object.fromEntries(
                  paths.map((path) => [`ports.out.${path}`, { basis: "measured" as const }]),
                ),
              },
            }
          : tank,
      ),
    });
    // One figure typed says nothing of the others; a mouth is known when all three of its places are.
    expect(of(measured(["boreM"]))).toEqual(["mouth", "outside"]);
    expect(of(measured(["mouth.xM", "mouth.yM"]))).toContain("mouth");
    expect(of(measured(["mouth.xM", "mouth.yM", "mouth.zM", "outside.zM", "boreM"]))).toEqual([]);
  });

  test("CSV quotes by RFC 4180 and disarms formulas", () => {
    expect(toCsv([{ a: 'say "x", y', b: "=1+1" }])).toBe(`a,b\r\n"say ""x"", y","'=1+1"\r\n`);
  });
});

describe("readings and worst cases", () => {
  test("a reading the plan itself gives at a loading implies that loading", () => {
    const at = { ...plan.conditions, loading: { ...plan.conditions.loading, elSep1: 3.3 } };
    const truth = solveLineUp(network, lineUp, at);
    if (truth.outcome !== "solved") throw new Error("not solved");
    const implied = loadingFromReading(
      network,
      lineUp,
      plan.conditions,
      "vacuum",
      -gaugeAtPort(truth, "vacuum.a"),
    );
    expect(implied).toMatchObject({ outcome: "loading", elementId: "elSep1" });
    expect(implied.outcome === "loading" && implied.loading).toBeCloseTo(3.3, 2);
    expect(loadingFromReading(network, lineUp, plan.conditions, "vacuum", 100).outcome).toBe("belowClean");
  });

  test("no case of the sweep is worse than the stated worst", () => {
    const worst = judgeAll(network, worstConditions(job, plan));
    const cases = sweepAll(network, plan.conditions, defaultSweep(job));
    expect(cases).toHaveLength(plan.lineUps.length * 125);
    for (const { lineUp, suction } of worst) {
      const most = Math.max(
        ...cases.filter(({ lineUpId }) => lineUpId === lineUp.id).map(({ vacuumPa }) => vacuumPa ?? 0),
      );
      expect(most).toBeLessThanOrEqual((suction?.vacuumPa ?? 0) * 1.001);
    }
  });

  test("the pump's curve and the system's meet where the pump runs", () => {
    const pump = plan.parts.find(({ id }) => id === "lift");
    if (pump?.kind !== "liftPump") throw new Error("no pump");
    const polish = plan.lineUps.find(({ id }) => id === "polishDay") as LineUp;
    const curves = pumpAndSystem(network, polish, plan.conditions, pump, null);
    if (!curves) throw new Error("no curves");
    const near = curves.system.reduce((best, p) =>
      Math.abs(p.flowM3S - curves.running.flowM3S) < Math.abs(best.flowM3S - curves.running.flowM3S)
        ? p
        : best,
    );
    expect(Math.abs(near.risePa / curves.running.risePa - 1)).toBeLessThan(0.15);
  });
});
