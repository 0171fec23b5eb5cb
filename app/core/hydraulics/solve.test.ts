import { describe, expect, test } from "@jest/globals";
import { atmospherePa, fuelAt, headPa } from "../fuel/fuel";
import { isPushing } from "../kinds/families";
import type { Position } from "../kinds/record";
import { filterCoefficients } from "../laws/filterDrop";
import { lineDrop } from "../laws/line";
import { effectiveCurve, riseAt } from "../laws/pumpCurve";
import type { NetworkLink } from "../network/links/link";
import { buildNetwork } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { newConditions, newEngine, newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job, Tank } from "../plan/types";
import { Way } from "../solver/newton";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { LineUpSolver, type SolvedLineUp, solveLineUp } from "./solve";
import { NO_FLOW_M3S } from "./starving";

const at = (xM: number, zM: number): Position => ({ xM, yM: 0, zM });

/** A tank with a low outlet at x, its fuel surface at `surfaceM`. */
function lowTank(id: string, xM: number, surfaceM: number): Tank {
  const tank = newTank(id, id, { xM, yM: 0, zM: surfaceM - 0.2 });
  tank.ports = [{ id: "out", name: "out", role: "outlet", mouth: at(0, 0), outside: at(0, 0), boreM: 0.05 }];
  return tank;
}

function jobWith(tanks: Tank[]): Job {
  const job = newJob("j", "test");
  job.tanks = tanks;
  const plan = currentPlan(job);
  plan.conditions = { ...newConditions(), aboardM3: Object.fromEntries(tanks.map(({ id }) => [id, 0.1])) };
  plan.lineUps = [newLineUp("l", "as set")];
  return job;
}

function solved(job: Job): SolvedLineUp {
  const plan = currentPlan(job);
  const result = solveLineUp(buildNetwork(job), plan.lineUps[0] as never, plan.conditions);
  if (result.outcome !== "solved") throw new Error(JSON.stringify(result));
  return result;
}

const flowOf = (result: SolvedLineUp, id: string) =>
  result.flow[result.network.linkOf.get(id) ?? -1] ?? Number.NaN;

describe("cases that can be done by hand", () => {
  test("two reservoirs, one laminar line: Hagen-Poiseuille gives the flow", () => {
    const job = jobWith([lowTank("hi", 0, 1), lowTank("lo", 1, 0.9)]);
    const plan = currentPlan(job);
    plan.conditions.fuelC = -5;
    const run = newRun("r", { part: "hi", port: "out" }, { part: "lo", port: "out" }, 20, 0.006);
    plan.runs.push(run);
    const fuel = fuelAt(job.fuel, -5);
    if (!fuel) throw new Error("no fuel");
    // Tube ends add 160/Re + 0.5 twice in a 50 mm bore: under 0.01 % here.
    const expected = (Math.PI * 0.006 ** 4 * headPa(fuel.densityKgM3, 0.1)) / (128 * fuel.dynamicPaS * 20);
    expect(flowOf(solved(job), "r") / expected).toBeCloseTo(1, 3);
  });

  test("three reservoirs meet at a tee: heights and lengths chosen so that the answer is simple", () => {
    // Laminar and equal lines, surfaces at 2, 1, 0 m: the tee floats at 1 m and the middle tank neither fills nor empties.
    const job = jobWith([lowTank("A", 0, 2), lowTank("B", 1, 1), lowTank("C", 2, 0)]);
    const plan = currentPlan(job);
    plan.conditions.fuelC = -5;
    const tee = newPart("tee", "t", at(1, 0));
    tee.boreM = 0.05;
    plan.parts.push(tee);
    for (const [tank, port] of [
      ["A", "a"],
      ["B", "b"],
      ["C", "c"],
    ] as const) {
      plan.runs.push(newRun(`r${tank}`, { part: tank, port: "out" }, { part: "t", port }, 30, 0.006));
    }
    const result = solved(job);
    const q = flowOf(result, "rA");
    expect(Math.abs(flowOf(result, "rB")) / q).toBeLessThan(2e-3);
    expect(flowOf(result, "rC") / q).toBeCloseTo(-1, 2);
  });

  test("nothing flows between equal levels, nor through a shut valve, and that is exactly none", () => {
    const job = jobWith([lowTank("A", 0, 1), lowTank("B", 1, 1)]);
    const plan = currentPlan(job);
    plan.runs.push(newRun("r", { part: "A", port: "out" }, { part: "B", port: "out" }, 3));
    expect(flowOf(solved(job), "r")).toBe(0);
  });

  test("a draw that no suction can give ends as starved, with the most that can be fed", () => {
    const job = jobWith([lowTank("A", 0, 0.3)]);
    const plan = currentPlan(job);
    const engine = newEngine("e", "Engine", at(3, 0.2));
    engine.loads = [{ load: 1, feedM3S: 3000 * LITRE_PER_HOUR_M3_S, burnM3S: 40 * LITRE_PER_HOUR_M3_S }];
    job.consumers.push(engine);
    job.tanks[0]?.ports.push({
      id: "ret",
      name: "return",
      role: "return",
      mouth: at(0.5, 0.3),
      outside: at(0.5, 0.4),
      boreM: 0.02,
    });
    plan.lineUps[0]!.consumers.e = "running";
    plan.runs.push(newRun("s", { part: "A", port: "out" }, { part: "e", port: "feed" }, 5, 0.008));
    plan.runs.push(newRun("r", { part: "e", port: "return" }, { part: "A", port: "ret" }, 5, 0.02));
    const result = solved(job);
    const outcome = result.consumers.get("e");
    if (outcome?.outcome !== "starved") throw new Error("expected starved");
    const fuel = fuelAt(job.fuel, plan.conditions.fuelC);
    if (!fuel) throw new Error("no fuel");
    // By hand: what is fed must pull the inlet down to vapour pressure over the same line.
    const drop = lineDrop({
      boreM: 0.008,
      lengthM: 5,
      roughnessM: 1.5e-6,
      flowM3S: outcome.mostM3S,
      densityKgM3: fuel.densityKgM3,
      kinematicM2S: fuel.kinematicM2S,
      fittings: [],
    });
    const all = drop.frictionPa + headPa(fuel.densityKgM3, 0.3 - 0.3);
    expect(all / (atmospherePa(0) - fuel.vapourPa)).toBeCloseTo(1, 1.9);
    expect(outcome.cause).toBe("vapour");
  });

  test("no way from a tank, or none back, is noPath by side", () => {
    const job = jobWith([lowTank("A", 0, 0.3)]);
    const plan = currentPlan(job);
    job.consumers.push(newEngine("e", "Engine", at(3, 0)));
    plan.lineUps[0]!.consumers.e = "running";
    expect(solved(job).consumers.get("e")).toEqual({ outcome: "noPath", side: "feed" });
    plan.runs.push(newRun("s", { part: "A", port: "out" }, { part: "e", port: "feed" }, 5));
    expect(solved(job).consumers.get("e")).toEqual({ outcome: "noPath", side: "return" });
  });

  test("a check valve against the flow stops it; a pump against a higher tank stalls", () => {
    const job = jobWith([lowTank("lo", 0, 0), lowTank("hi", 1, 9)]);
    const plan = currentPlan(job);
    const pump = newPart("liftPump", "p", at(0.5, 0));
    plan.parts.push(pump);
    plan.lineUps[0]!.pumps.p = "on";
    plan.runs.push(newRun("a", { part: "lo", port: "out" }, { part: "p", port: "in" }, 2));
    plan.runs.push(newRun("b", { part: "p", port: "out" }, { part: "hi", port: "out" }, 12));
    expect(flowOf(solved(job), "p")).toBe(0);
    job.tanks[1]!.origin.zM = 2;
    expect(flowOf(solved(job), "p")).toBeGreaterThan(0);
  });
});

/** Fuel driven backward through a throat: the square of what comes back holds it, drawn and mixed together. */
const backwardThroat = (drawn: number, mixed: number, v1: number, v3: number, densityKgM3: number): number =>
  (densityKgM3 / 2) * (drawn * (v3 - v1) ** 2 - drawn * (v1 * v1 - 2 * v1 * v3) + (drawn - mixed) * v3 * v3);

/** Drop of a link worked out again from the laws, one link at a time, apart from the solver's arrays. */
function dropByHand(result: SolvedLineUp, link: NetworkLink, q: number): number {
  const { fuel, conditions, lineUp, surfaceM } = result.settings;
  const line = (
    boreM: number,
    lengthM: number,
    roughnessM: number,
    fittings: Parameters<typeof lineDrop>[0]["fittings"],
  ) => {
    const { frictionPa, fittingsPa } = lineDrop({
      boreM,
      lengthM,
      roughnessM,
      flowM3S: q,
      densityKgM3: fuel.densityKgM3,
      kinematicM2S: fuel.kinematicM2S,
      fittings,
    });
    return Math.sign(q) * Math.abs(frictionPa) + Math.sign(q) * Math.abs(fittingsPa);
  };
  const ratedDrop = ({ ratedDropPa, ratedFlowM3S }: { ratedDropPa: number; ratedFlowM3S: number }) =>
    (ratedDropPa * (fuel.densityKgM3 / 830) * q * Math.abs(q)) / ratedFlowM3S ** 2;
  switch (link.kind) {
    case "run":
      return line(link.run.boreM, link.geometry.lengthM, link.run.roughnessM, []);
    case "tankPort": {
      const { mouth, outside, boreM, role } = link.port;
      const mouthM = link.tank.origin.zM + mouth.zM;
      const over = Math.max(0, mouthM - (surfaceM.get(link.tank.id) ?? 0));
      const lengthM = Math.abs(mouth.zM - outside.zM);
      return (
        headPa(fuel.densityKgM3, over) +
        line(boreM, lengthM, 0, [{ kind: role === "outlet" ? "entrance" : "exit", count: 1 }])
      );
    }
    case "valve":
      return line(link.valve.boreM, 0, 0, [{ kind: "ballValve", count: 1 }]);
    case "tee":
      // From its middle: half a tee run through to either end, the rest of a tee used as an elbow to the branch.
      return line(
        link.part.boreM,
        0,
        0,
        link.id.endsWith(".c")
          ? [
              { kind: "teeBranch", count: 1 },
              { kind: "teeRun", count: -0.5 },
            ]
          : [{ kind: "teeRun", count: 0.5 }],
      );
    case "check":
      return (
        link.opensPa +
        link.perFlowPa * q +
        (isPushing(link.part) ? 0 : line(link.part.boreM, 0, 0, [{ kind: "checkSwing", count: 1 }])) +
        (link.part.kind === "bulb" ? ratedDrop(link.part) : 0)
      );
    case "rated":
      return ratedDrop(link.part);
    case "throttle": {
      // Held at its setting less the droop, or wide open where the pressure does not reach it.
      const { setPa, droopPa, ratedFlowM3S } = link.part;
      const droop = (droopPa / ratedFlowM3S) * q;
      const after = result.gaugePa[link.to] as number;
      const head = (node: number) =>
        (result.gaugePa[node] as number) + headPa(fuel.densityKgM3, result.network.nodes[node]!.zM);
      if (after < setPa - droop - 0.1) return droop;
      if (result.forcedIds.includes(link.id)) return head(link.from) - head(link.to);
      expect(Math.abs(after + droop - setPa)).toBeLessThan(0.1);
      return head(link.from) - head(link.to);
    }
    case "jet": {
      if (link.way === "draw") return 0;
      const area = (Math.PI / 4) * link.part.nozzleM ** 2;
      const flow = (id: string) => result.flow[result.network.linkOf.get(`${link.part.id}.${id}`)!]!;
      const jet = (v: number) => (fuel.densityKgM3 * v * Math.abs(v)) / 2;
      if (link.way === "nozzle") return 1.05 * jet(q / area);
      // Cunningham's rise written out again, with the drive as it is found.
      const b = (link.part.nozzleM / link.part.throatM) ** 2;
      const driven = Math.max(0, flow("n"));
      const drawn = (2 * b * b) / (1 - b) - (1.05 * b * b) / (1 - b) ** 2;
      const v1 = driven / area;
      const v2 = (q - driven) / area;
      const mixed = 1.2 * b * b;
      const rise = (fuel.densityKgM3 / 2) * (2 * b * v1 * v1 + drawn * v2 * v2);
      const v3 = q / area;
      return (
        -rise +
        (q < 0
          ? backwardThroat(drawn, mixed, v1, v3, fuel.densityKgM3)
          : (fuel.densityKgM3 / 2) * mixed * v3 * v3)
      );
    }
    case "dosing":
      throw new Error("random plans dose nothing");
    case "filter": {
      const { part } = link;
      const rating = {
        flowM3S: part.ratedFlowM3S,
        dropPa: part.ratedDropPa,
        dynamicPaS: part.ratedDynamicPaS,
        densityKgM3: part.ratedDensityKgM3,
        viscousShare: part.viscousShare,
      };
      const { linear, square } = filterCoefficients(
        rating,
        fuel.dynamicPaS,
        fuel.densityKgM3,
        conditions.loading[part.element?.id ?? ""] ?? 1,
      );
      return linear * q + square * q * Math.abs(q);
    }
    case "pump": {
      const { part } = link;
      const relief = part.kind === "pumpFilterUnit" ? undefined : part.reliefPa;
      if (lineUp.pumps[part.id] === "on") return -riseAt(effectiveCurve(part.curve, relief), q);
      const free = Math.max(...part.curve.map(({ flowM3S }) => flowM3S));
      return part.off.kind === "free" ? (part.off.dropPa / free) * q : 0;
    }
  }
}

describe("1,000 random networks", () => {
  const seen = { loops: 0, shutChecks: 0, stalledPumps: 0, twoOpenTanks: 0, starved: 0, solved: 0, boils: 0 };

  function balance(result: SolvedLineUp): void {
    const { network, flow, settings, gaugePa } = result;
    const sum = new Float64Array(network.nodes.length);
    const through = new Float64Array(network.nodes.length);
    network.links.forEach((link, i) => {
      const q = flow[i] as number;
      sum[link.from]! -= q;
      sum[link.to]! += q;
      through[link.from]! += Math.abs(q);
      through[link.to]! += Math.abs(q);
    });
    for (let node = 0; node < network.topology.unknowns; node++) {
      const off = Math.abs(sum[node]! - settings.demand[node]!);
      // Flows under NO_FLOW are written as none: that rounding is allowed for, three links a node at most.
      expect(off).toBeLessThanOrEqual(Math.max(1e-6 * through[node]!, 4 * NO_FLOW_M3S));
    }
    const head = (node: number) =>
      node >= network.topology.unknowns
        ? settings.fixed[node - network.topology.unknowns]!
        : gaugePa[node]! + headPa(settings.fuel.densityKgM3, network.nodes[node]!.zM);
    network.links.forEach((link, i) => {
      const q = flow[i] as number;
      if (settings.laws.way[i] === Way.shut || q === 0) return;
      if (settings.laws.way[i] === Way.oneWay) expect(q).toBeGreaterThan(0);
      // A loop round a pump that joins no tank turns at a pressure that nothing fixes.
      if (Number.isNaN(head(link.from)) && Number.isNaN(head(link.to))) return;
      const off = Math.abs(head(link.from) - head(link.to) - dropByHand(result, link, q));
      expect(off).toBeLessThanOrEqual(0.1);
    });
  }

  function count(result: SolvedLineUp): void {
    const { network, flow, settings } = result;
    const open = network.links.filter(
      (link, i) => link.from !== link.to && settings.laws.way[i] !== Way.shut && flow[i] !== 0,
    );
    const nodes = new Set(open.flatMap(({ from, to }) => [from, to]));
    if (open.length > nodes.size) seen.loops++;
    if (network.links.some((link, i) => link.kind === "check" && flow[i] === 0)) seen.shutChecks++;
    if (
      network.links.some(
        (l, i) => l.kind === "pump" && settings.lineUp.pumps[l.part.id] === "on" && flow[i] === 0,
      )
    )
      seen.stalledPumps++;
    const drawn = new Set(
      network.links.flatMap((link, i) => (link.kind === "tankPort" && flow[i] !== 0 ? [link.tank.id] : [])),
    );
    if (drawn.size > 1) seen.twoOpenTanks++;
    const short = new Set(["starved", "air"]);
    if ([...result.consumers.values()].some(({ outcome }) => short.has(outcome))) seen.starved++;
    seen.solved++;
  }

  test("mass and energy balance in every one that solves, and every one ends", () => {
    for (let seed = 0; seed < 1000; seed++) {
      const job = randomJob(seed);
      const plan = currentPlan(job);
      const result = new LineUpSolver(buildNetwork(job)).solve(plan.lineUps[0] as never, plan.conditions);
      if (result.outcome === "boils") {
        seen.boils++;
        continue;
      }
      if (result.outcome !== "solved") throw new Error(`seed ${seed}: ${JSON.stringify(result)}`);
      try {
        balance(result);
      } catch (error) {
        throw new Error(`seed ${seed}: ${String(error)}`);
      }
      count(result);
    }
    console.info("random networks:", JSON.stringify(seen));
    for (const kind of ["loops", "shutChecks", "stalledPumps", "twoOpenTanks", "starved"] as const) {
      expect(seen[kind]).toBeGreaterThanOrEqual(100);
    }
    expect(seen.solved).toBeGreaterThanOrEqual(900);
  });

  test("and in 300 with regulators, reliefs, units with their own return, jet pumps and pots", () => {
    const kinds = new Map<string, number>();
    let solved = 0;
    for (let seed = 0; seed < 300; seed++) {
      const job = randomJob(seed, { every: true });
      const plan = currentPlan(job);
      const result = new LineUpSolver(buildNetwork(job)).solve(plan.lineUps[0] as never, plan.conditions);
      if (result.outcome === "boils") continue;
      if (result.outcome !== "solved") throw new Error(`seed ${seed}: ${JSON.stringify(result)}`);
      try {
        balance(result);
      } catch (error) {
        throw new Error(`seed ${seed}: ${String(error)}`);
      }
      solved++;
      result.network.links.forEach(({ kind }, i) => {
        if (result.flow[i] !== 0) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
      });
    }
    // The others boil, or draw air at a mouth that is clear: there are no flows to check.
    expect(solved).toBeGreaterThanOrEqual(230);
    for (const kind of ["throttle", "jet", "rated", "filter", "pump", "check"])
      expect(kinds.get(kind) ?? 0).toBeGreaterThanOrEqual(10);
  });
});
