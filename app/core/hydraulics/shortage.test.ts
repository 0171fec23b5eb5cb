/** What each consumer gets where not all can be given. Truths: Hagen-Poiseuille, rho g h, straight pump curves, by hand. */
import { describe, expect, test } from "@jest/globals";
import { headPa } from "../fuel/fuel";
import { buildNetwork } from "../network/network";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { Bench, flow, gauge } from "./bench.fixture";
import { returnLinks } from "./derive";
import type { ConsumerOutcome, SolvedLineUp } from "./solve";
import { LineUpSolver } from "./solve";
import { judgeLineUp } from "./worst";

const LH = LITRE_PER_HOUR_M3_S;
const curve = (freeLH: number, deadHeadPa: number) => [
  { flowM3S: 0, risePa: deadHeadPa },
  { flowM3S: freeLH * LH, risePa: 0 },
];
const verdictOf = (bench: Bench) =>
  judgeLineUp(new LineUpSolver(buildNetwork(bench.job)), bench.lineUp, bench.plan.conditions);
const mostOf = (solved: SolvedLineUp, id: string): number => {
  const outcome = solved.consumers.get(id) as Extract<ConsumerOutcome, { mostM3S: number }>;
  return outcome.mostM3S;
};
/** Pa s/m3 of a laminar line. */
const resistance = (bench: Bench, lengthM: number, boreM: number) =>
  (128 * bench.fuel.dynamicPaS * lengthM) / (Math.PI * boreM ** 4);

describe("suction is judged where it is worst", () => {
  /** An electric pump that lets fuel through, then the engine's lift pump, all at the height of the fuel. */
  const twoPumps = (state: "on" | "off") => {
    const bench = new Bench()
      .tank("t", 0, 0)
      .part("liftPump", "idle", 0, { curve: curve(400, 50000), off: { kind: "free", dropPa: 8000 } })
      .part("liftPump", "lift", 0, { curve: curve(400, 50000) })
      .engine("e", 0, 100, 20)
      .run("t.supply", "idle.in")
      .run("idle.out", "lift.in")
      .run("lift.out", "e.feed")
      .run("e.return", "t.return");
    bench.lineUp.pumps = { idle: state, lift: "on" };
    return bench;
  };

  test("an idle pump on the way is a resistance: the next one that works is judged", () => {
    const { suction, result } = verdictOf(twoPumps("off"));
    expect(suction?.id).toBe("lift");
    // 8 kPa at its free flow of 400 L/h, straight: 2 kPa at 100, beside what wide lines take.
    expect(suction?.vacuumPa).toBeGreaterThan(2000);
    expect(suction?.vacuumPa).toBeLessThan(2100);
    if (result.outcome !== "solved") throw new Error(result.outcome);
    expect(suction?.vacuumPa).toBeCloseTo(-gauge(result, "lift.in"), 6);
  });

  test("with both working the first is judged, the second stands under pressure", () => {
    expect(verdictOf(twoPumps("on")).suction?.id).toBe("idle");
  });

  test("a pump past the end of its curve holds back: the consumer's own inlet is judged", () => {
    const bench = new Bench()
      .tank("t", 0, 0)
      .part("liftPump", "lift", 0, { curve: curve(500, 200000) })
      .engine("e", 0, 600, 100)
      .run("t.supply", "lift.in")
      .run("lift.out", "e.feed")
      .run("e.return", "t.return");
    bench.lineUp.pumps = { lift: "on" };
    const { suction } = verdictOf(bench);
    // 200 kPa (1 - 600/500) = -40 kPa.
    expect(suction?.id).toBe("e");
    expect((suction?.vacuumPa ?? 0) / 40000).toBeCloseTo(1, 1);
  });
});

describe("air at a mouth that is clear of fuel", () => {
  /** Two pickups joined at a tee at height 0; A holds fuel 0.1 m over it, B none over its mouth. */
  const joined = (feedLH: number, dipM = 0) => {
    const bench = new Bench()
      .tank("A", 0, 0.1)
      // Its mouth stands at the join's height, its fuel under it.
      .tank("B", 2, 0.15)
      .part("tee", "tee", 0, { boreM: 0.025 })
      .engine("e", 0, feedLH, 10)
      .run("A.supply", "tee.a", 10, 0.006)
      .run("B.supply", "tee.c", 2)
      .run("tee.b", "e.feed")
      .run("e.return", "A.return");
    bench.plan.conditions.aboardM3.B = 0.001;
    const leg = bench.plan.runs[1]!;
    if (dipM > 0)
      leg.route = { kind: "measured", lengthM: 3, bends: [], extremes: [{ atM: 1.5, zM: -dipM }] };
    return bench;
  };
  /** A's fuel stands 0.1 m over the join; what the 6 mm line loses of that is what may flow. */
  const handM3S = (bench: Bench, sealM = 0) =>
    headPa(bench.fuel.densityKgM3, 0.1 + sealM) / resistance(bench, 10, 0.006);

  test("beyond the flow at which the join falls under the air's pressure the consumer draws air", () => {
    const bench = joined(150);
    const solved = bench.solve();
    expect(solved.consumers.get("e")).toMatchObject({ outcome: "air", at: "B.supply" });
    expect(mostOf(solved, "e") / handM3S(bench)).toBeCloseTo(1, 1);
  });

  test("below it the consumer is fed", () => {
    const bench = joined(150);
    const most = handM3S(bench) / LH;
    expect(
      joined(0.9 * most)
        .solve()
        .consumers.get("e"),
    ).toMatchObject({ outcome: "fed" });
  });

  test("a dip in the clear line is a seal: it holds until the pressure draws it down", () => {
    const bench = joined(150, 0.15);
    const solved = bench.solve();
    expect(mostOf(solved, "e") / handM3S(bench, 0.15)).toBeCloseTo(1, 1);
  });

  test("with the clear tank's way shut by a check valve no air comes", () => {
    const bench = joined(150);
    bench.plan.runs[1]!.to = { part: "chk", port: "in" };
    bench.part("check", "chk", 0, { crackingPa: 0 }).run("chk.out", "tee.c");
    // The check lets air by as it lets fuel: only a shut valve does not.
    expect(bench.solve().consumers.get("e")).toMatchObject({ outcome: "air" });
    const shut = joined(40);
    shut.plan.runs[1]!.to = { part: "v", port: "a" };
    shut.part("twoWay", "v", 0).run("v.b", "tee.c");
    shut.lineUp.valves = { v: { kind: "position", position: "shut" } };
    expect(shut.solve().consumers.get("e")).toMatchObject({ outcome: "fed" });
  });
});

describe("each consumer is lessened by itself", () => {
  /** An engine on a line that starves it; a generator on a tank and line of its own. */
  const apart = () =>
    new Bench()
      .tank("A", 0, 0)
      .tank("B", 2, 0)
      .engine("e", 0.3, 3000, 40)
      .engine("g", 0.3, 40, 4)
      .run("A.supply", "e.feed", 5, 0.008)
      .run("e.return", "A.return")
      .run("B.supply", "g.feed")
      .run("g.return", "B.return");

  test("what starves on its own line takes nothing from another's", () => {
    const solved = apart().solve();
    expect(solved.consumers.get("e")).toMatchObject({ outcome: "starved", cause: "vapour" });
    expect(solved.consumers.get("g")).toMatchObject({ outcome: "fed" });
    expect(flow(solved, "r2") / (40 * LH)).toBeCloseTo(1, 6);
    // And the engine has the same as if it stood alone.
    const alone = new Bench()
      .tank("A", 0, 0)
      .engine("e", 0.3, 3000, 40)
      .run("A.supply", "e.feed", 5, 0.008)
      .run("e.return", "A.return");
    expect(mostOf(solved, "e") / mostOf(alone.solve(), "e")).toBeCloseTo(1, 3);
  });

  test("on one line that cannot feed both, each has the same share of what it asks", () => {
    const solved = new Bench()
      .tank("A", 0, 0)
      .part("tee", "tee", 0.3, { boreM: 0.025 })
      .engine("e", 0.3, 3000, 40)
      .engine("g", 0.3, 1000, 40)
      .run("A.supply", "tee.a", 5, 0.008)
      .run("tee.b", "e.feed")
      .run("tee.c", "g.feed")
      .part("tee", "back", 0.3, { boreM: 0.025 })
      .run("e.return", "back.a")
      .run("g.return", "back.b")
      .run("back.c", "A.return")
      .solve();
    expect(mostOf(solved, "e") / mostOf(solved, "g")).toBeCloseTo(3, 2);
    expect(mostOf(solved, "e") + mostOf(solved, "g")).toBeCloseTo(flow(solved, "r0"), 9);
  });
});

describe("a dosing pump gives what it can", () => {
  const heater = (askedLH: number, heaterZM: number, change: object = {}) => {
    const bench = new Bench()
      .tank("t", 0, 0)
      .part("dosingPump", "d", 0, {
        boreM: 0.002,
        strokeM3: 0.022e-6,
        mostHz: 10,
        mostRisePa: 60000,
        ...change,
      })
      .engine("h", heaterZM, askedLH, askedLH, "heater")
      .run("t.supply", "d.in", 1, 0.002)
      .run("d.out", "h.feed", Math.max(1, heaterZM), 0.002);
    bench.lineUp.pumps = { d: "on" };
    return bench;
  };

  test("no more than a stroke times its most strokes a second", () => {
    const solved = heater(1.2, 0.2).solve();
    expect(solved.consumers.get("h")).toMatchObject({ outcome: "starved", cause: "pumpCapacity" });
    // 0.022 mL x 10 Hz = 0.792 L/h.
    expect(mostOf(solved, "h") / LH).toBeCloseTo(0.792, 3);
    expect(heater(0.7, 0.2).solve().consumers.get("h")).toMatchObject({ outcome: "fed" });
  });

  test("nothing where fuel stands higher than it can lift: 60 kPa is 7.3 m of diesel", () => {
    const solved = heater(0.3, 8.7).solve();
    expect(solved.consumers.get("h")).toMatchObject({ outcome: "starved", cause: "pumpRise" });
    expect(mostOf(solved, "h") / LH).toBeCloseTo(0, 3);
    expect(heater(0.3, 6).solve().consumers.get("h")).toMatchObject({ outcome: "fed" });
  });

  test("a line that slows its stroke has it last longer, and draws no harder than the pump can", () => {
    const bench = heater(0.3, 0.2, { strokeS: 0.025, mostSuctionPa: 20000 });
    bench.plan.runs[0]!.route = { kind: "measured", lengthM: 4, bends: [], extremes: [] };
    // While it draws 0.022 mL would pass in 25 ms: 3.2 L/h, and that would ask for more than the pump can draw.
    const inStroke = resistance(bench, 4, 0.002) * (0.022e-6 / 0.025);
    expect(inStroke).toBeGreaterThan(20000);
    expect(bench.solve().consumers.get("h")).toMatchObject({ outcome: "fed" });
    const { suction } = verdictOf(bench);
    expect(suction).toMatchObject({ vacuumPa: 20000, limitPa: 20000, basis: "maker", inStrokes: true });
  });

  test("it starves where strokes that last all their time would not bring it: its most suction at the mean flow", () => {
    const bench = heater(0.7, 0.2, { strokeS: 0.025, mostSuctionPa: 20000 });
    const at = (lengthM: number) => {
      bench.plan.runs[0]!.route = { kind: "measured", lengthM, bends: [], extremes: [] };
      return bench.solve().consumers.get("h");
    };
    // Hagen and Poiseuille: so many metres take the pump's whole suction at the mean flow, beside the head of the tank.
    const perM = resistance(bench, 1, 0.002) * 0.7 * LH;
    expect(at(Math.floor((20000 / perM) * 0.8))).toMatchObject({ outcome: "fed" });
    expect(at(Math.ceil((20000 / perM) * 1.6))).toMatchObject({ outcome: "starved", cause: "pumpSuction" });
  });

  /**
   * Kits as makers allow them, by hand: 128 mu L q / (pi d^4) at the mean flow stays far under what the pump draws, so
   * that each is fed; a stroke at its peak would ask for more in the cold ones, and lasts longer instead.
   */
  test.each<[string, number, number, number, number, number, number]>([
    // tempC, mean L/h, line before m, bore mm, tank over pump m, stroke ms
    ["own tank above, warm", 40, 0.28, 1.6, 2, 0.4, 40],
    ["own tank above, mild", 15, 0.28, 1.6, 2, 0.4, 40],
    ["own tank above, cold", -20, 0.28, 1.6, 2, 0.4, 34],
    ["tank beside, cold", -18, 0.22, 1.2, 2, 0, 34],
    ["vehicle's tank below, mild", 10, 0.35, 2, 2, -0.4, 36],
    ["vehicle's tank below, frost", -10, 0.35, 2, 2, -0.4, 36],
    ["larger heater, mild", 15, 0.65, 1.5, 2, 0, 38],
    ["larger heater, cold, wider line", -20, 0.65, 2, 2.5, 0, 38],
    ["small heater, hot", 38, 0.12, 1, 2, 0.2, 30],
    ["small heater, coldest", -40, 0.12, 1, 2, 0.2, 30],
  ])(
    "%s is fed, and no scale of an engine's gauge condemns it",
    (_what, fuelC, askedLH, lengthM, boreMm, overM, strokeMs) => {
      const bench = heater(askedLH, 0.2, { strokeS: strokeMs / 1000, mostSuctionPa: 25000 });
      bench.job.fuel = {
        ...bench.job.fuel,
        viscosityPoints: [
          { tempC: 40, mm2S: 1.6 },
          { tempC: 15, mm2S: 2.6 },
        ],
        cloudPointC: -45,
      } as never;
      bench.job.tanks[0]!.origin.zM += overM;
      bench.plan.runs[0]!.boreM = boreMm / 1000;
      bench.plan.runs[0]!.route = { kind: "measured", lengthM, bends: [], extremes: [] };
      bench.plan.conditions.fuelC = fuelC;
      expect(bench.solve().consumers.get("h")).toMatchObject({ outcome: "fed" });
      const { suction } = verdictOf(bench);
      expect(suction!.vacuumPa).toBeLessThanOrEqual(25000);
      expect(suction!.marginPa).toBeGreaterThanOrEqual(0);
    },
  );

  test("at half the rate its stroke draws as hard as at full rate", () => {
    const at = (askedLH: number) => verdictOf(heater(askedLH, 0.2, { strokeS: 0.025 })).suction!.vacuumPa;
    expect(at(0.35) / at(0.7)).toBeCloseTo(1, 2);
  });
});

test("a pump that pushes against a shut way with its relief stands at the relief", () => {
  const bench = new Bench()
    .tank("t", 0, 0.3)
    .part("liftPump", "p", 0, { curve: curve(400, 90000), reliefPa: 60000 })
    .part("twoWay", "v", 0)
    .tank("u", 4, 0.3)
    .run("t.supply", "p.in")
    .run("p.out", "v.a")
    .run("v.b", "u.return");
  bench.lineUp.pumps = { p: "on" };
  bench.lineUp.valves = { v: { kind: "position", position: "shut" } };
  const solved = bench.solve();
  // 60 kPa over what stands at its inlet: 0.3 m of fuel.
  expect(gauge(solved, "p.out") / (60000 + headPa(bench.fuel.densityKgM3, 0.3))).toBeCloseTo(1, 1);
});

test("a return that joins the feed before the pump ends there: what goes on is feed", () => {
  const bench = new Bench()
    .tank("t", 0, 0)
    .part("tee", "join", 0, { boreM: 0.025 })
    .part("liftPump", "p", 0, { curve: curve(400, 50000) })
    .engine("e", 0, 100, 20)
    .run("t.supply", "join.a")
    .run("join.b", "p.in")
    .run("p.out", "e.feed")
    .run("e.return", "join.c");
  bench.lineUp.pumps = { p: "on" };
  const solved = bench.solve();
  const returns = returnLinks(solved);
  const isReturn = (id: string) => returns[solved.network.linkOf.get(id) as number];
  expect(["r0", "r1", "p", "r2", "r3"].map(isReturn)).toEqual([0, 0, 0, 0, 1]);
});
