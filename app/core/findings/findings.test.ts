import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { Book, JarLook, SetAside } from "../book/entries";
import type { Command } from "../edit/command";
import { applyCommand } from "../edit/commands";
import type { Change } from "../edit/merge";
import { startJob } from "../edit/starters";
import { Bench } from "../hydraulics/bench.fixture";
import { LineUpSolver } from "../hydraulics/solve";
import { worstOfLineUp } from "../hydraulics/worst";
import type { Engine } from "../kinds/index";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job, Tank } from "../plan/types";
import { heldRun } from "../running/run";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { findingsOf, isStopOf } from "./findings";
import type { Finding, FindingOf, RuleId } from "./index";
import { heatingOf } from "./tanks/returnHot";

const book = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { book: Book }).book;
const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const twoTanks = () => startJob("s", "Start", "twoTanksTwoSelectors");
const change = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);
/** Hoses age: the demo job is judged on one day. */
const TODAY = new Date("2026-06-01T00:00:00Z");
const allOf = (job: Job, book: Book = []) => findingsOf(job, book, undefined, undefined, TODAY);
const of = <K extends RuleId>(job: Job, rule: K, book: Book = []): FindingOf<K> | undefined =>
  allOf(job, book).find((finding) => finding.rule === rule) as FindingOf<K> | undefined;
const partNamed = (job: Job, name: string) =>
  currentPlan(job).parts.find((part) => part.name === name)?.id ?? "";
const lineUp = (job: Job, i = 0) => currentPlan(job).lineUps[i]?.id ?? "";
const shut = (lineUpId: string, valveId: string): Command => ({
  name: "setValve",
  lineUpId,
  valveId,
  setting: { kind: "position", position: "shut" },
});

describe("each rule on a plan that fails it and on one that passes", () => {
  test("1 return to another tank: hours by hand", () => {
    const finding = of(marram(), "returnElsewhere");
    expect(finding).toMatchObject({ grade: "stop", lineUpIds: ["runStbd"], ids: ["portWing", "stbdWing"] });
    // 168 L/h into 339.87 - 212 L.
    expect(finding?.values.fullHours).toBeCloseTo((339.872 - 212) / 168, 3);
    expect(of(twoTanks(), "returnElsewhere")).toBeUndefined();
    const meant = change(marram(), { name: "editLineUp", id: "runStbd", change: { intendedTransfer: true } });
    expect(of(meant, "returnElsewhere")).toBeUndefined();
  });

  test("2 return shut as set is a Stop, one handle away a Watch, a selector without off neither", () => {
    expect(of(marram(), "returnCanClose")).toMatchObject({ grade: "watch", ids: ["returns"] });
    const closed = change(marram(), {
      name: "setValve",
      lineUpId: "runPort",
      valveId: "returns",
      setting: { kind: "branches", open: [] },
    });
    expect(of(closed, "returnCanClose")).toMatchObject({ grade: "stop", lineUpIds: ["runPort"] });
    expect(of(twoTanks(), "returnCanClose")).toBeUndefined();
  });

  test("3 no way, a dead head without relief, an arrow against the flow", () => {
    const cut = change(marram(), shut("runPort", "valveP"));
    expect(of(cut, "noOpenPath")).toMatchObject({ grade: "stop", lineUpIds: ["runPort"] });
    expect(of(marram(), "noOpenPath")).toBeUndefined();
    const back = twoTanks();
    const turned = change(back, { name: "turnPart", id: partNamed(back, "Lift pump") });
    expect(of(turned, "againstArrow")).toMatchObject({ grade: "stop", ids: [partNamed(back, "Lift pump")] });
    expect(of(back, "againstArrow")).toBeUndefined();
    const engine = back.consumers[0] as Engine;
    const stopped = change(back, {
      name: "setConsumer",
      lineUpId: lineUp(back),
      consumerId: engine.id,
      state: "stopped",
    });
    expect(of(stopped, "deadHead")).toMatchObject({ grade: "stop" });
    const relieved = change(stopped, {
      name: "editPart",
      id: partNamed(back, "Lift pump"),
      change: { reliefPa: 40000 },
    });
    expect(of(relieved, "deadHead")).toBeUndefined();
  });

  test("3 a draw that cannot be fed says how much can", () => {
    const job = twoTanks();
    const engine = job.consumers[0] as Engine;
    const greedy = change(job, {
      name: "editEngine",
      id: engine.id,
      change: { loads: [{ load: 1, feedM3S: 3000 * LITRE_PER_HOUR_M3_S, burnM3S: 1e-5 }] },
    });
    const finding = of(greedy, "starved");
    expect(finding?.grade).toBe("stop");
    expect(Number(finding?.values.mostM3S)).toBeGreaterThan(0);
    expect(Number(finding?.values.mostM3S)).toBeLessThan(3000 * LITRE_PER_HOUR_M3_S);
    expect(of(job, "starved")).toBeUndefined();
  });

  test("5 a low outlet without shut-off: litres by hand; a top pickup whose line stays high loses none", () => {
    // 550 x 500 mm of floor, 88 L aboard, mouth 25 mm up: 88 - 0.55 * 0.5 * 25 = 81.125 L.
    const finding = of(marram(), "noShutOff");
    expect(finding).toMatchObject({ ids: ["dayTank"], grade: "mend", school: "abycH33" });
    expect(finding?.values.lostM3).toBeCloseTo(0.081125, 9);
    // By road no school of boats is named.
    expect(of({ ...marram(), kind: "truck" }, "noShutOff")).not.toHaveProperty("school");
    expect(of(startJob("s", "S", "oneTank"), "noShutOff")).toBeUndefined();
  });

  test("7 rated flow against the feed that passes", () => {
    expect(of(marram(), "filterTooSmall")).toMatchObject({
      basis: "maker",
      lineUpIds: ["polishDay", "fillPort", "fillStbd"],
    });
    expect(of(twoTanks(), "filterTooSmall")).toBeUndefined();
  });

  test("8 suction: common practice, then the maker's own limit", () => {
    const loaded = change(marram(), { name: "setConditions", change: { loading: { elSep1: 8 } } });
    expect(of(loaded, "suctionOverLimit")).toMatchObject({ basis: "common", ids: ["lift"] });
    expect(of(marram(), "suctionOverLimit")).toBeUndefined();
    const strict = change(marram(), { name: "editPart", id: "lift", change: { suctionLimitPa: 5000 } });
    expect(of(strict, "suctionOverLimit")).toMatchObject({ basis: "maker" });
  });

  test("8 air out of the fuel is told where it harms, whatever vacuum the maker allows; not where it is only seen", () => {
    // Clean and within its limits it gives off over 1 %, which is seen: no finding.
    expect(of(marram(), "freeAir")).toBeUndefined();
    expect(of(twoTanks(), "freeAir")).toBeUndefined();
    const loaded = change(marram(), { name: "setConditions", change: { loading: { elSep1: 8 } } });
    const allowed = change(loaded, { name: "editPart", id: "lift", change: { suctionLimitPa: 90000 } });
    expect(of(allowed, "suctionOverLimit")).toBeUndefined();
    expect(of(allowed, "freeAir")).toMatchObject({ grade: "watch", ids: ["lift"] });
  });

  test("8 with two engines each is judged: the second one's pump is found too", () => {
    const job = startJob("s", "S", "twinEngine");
    const pumps = currentPlan(job).parts.filter(({ kind }) => kind === "liftPump");
    for (const { id } of pumps) {
      const strict = change(job, { name: "editPart", id, change: { suctionLimitPa: 100 } });
      expect(
        allOf(strict)
          .filter(({ rule }) => rule === "suctionOverLimit")
          .map(({ ids }) => ids),
      ).toEqual([[id]]);
    }
    const both = change(
      job,
      ...pumps.map(({ id }): Command => ({ name: "editPart", id, change: { suctionLimitPa: 100 } })),
    );
    expect(allOf(both).filter(({ rule }) => rule === "suctionOverLimit")).toHaveLength(2);
  });

  test("10 return mouth near the pickup", () => {
    const job = marram();
    const tank = job.tanks[1]!;
    const ports = tank.ports.map((port) =>
      port.role === "return" ? { ...port, mouth: { ...port.mouth, xM: 0.1, zM: 0.1 } } : port,
    );
    const moved = change(job, { name: "editTank", id: tank.id, change: { ports } });
    expect(of(moved, "returnNearPickup")).toMatchObject({ ids: ["dayTank"] });
    expect(of(job, "returnNearPickup")).toBeUndefined();
  });

  test("14 two feeds open to one another", () => {
    const both = change(
      marram(),
      { name: "setBranch", lineUpId: "runDay", valveId: "supply", branch: "port", isOpen: true },
      {
        name: "setValve",
        lineUpId: "runDay",
        valveId: "valveP",
        setting: { kind: "position", position: "open" },
      },
    );
    expect(of(both, "feedsJoined")).toMatchObject({ lineUpIds: ["runDay"] });
    expect(of(marram(), "feedsJoined")).toBeUndefined();
  });
});

describe("rules of what was found on board: each fires on its change to the demo job, and not before", () => {
  const tank = (id: string) => {
    const found = marram().tanks.find((one) => one.id === id);
    if (!found) throw new Error(id);
    return found;
  };
  const [day, port] = [tank("dayTank"), tank("portWing")];
  const opening = day.opening!;
  const filling = port.filling!;
  const cases: [RuleId, string, string, Change<Tank>, Partial<Finding>][] = [
    ["tankCapacity", "a plate far from the shape", "portWing", { plateM3: 0.28 }, { grade: "mend" }],
    [
      "returnHot",
      "11 no cooler on the hottest day",
      "dayTank",
      { cooler: undefined },
      { grade: "watch", basis: "standard" },
    ],
    [
      "plateHole",
      "19 a hole larger than its flange",
      "dayTank",
      { opening: { ...opening, holes: opening.holes.map((hole) => ({ ...hole, diameterM: 0.06 })) } },
      { grade: "mend" },
    ],
    [
      "plateHole",
      "19 a sump's hole larger than its flange",
      "dayTank",
      { sump: { xM: 0.2, yM: 0.2, diameterM: 0.1, depthM: 0.08, holeM: 0.11, mostHoleM: 0.1 } },
      { basis: "maker" },
    ],
    [
      "noRoomAbove",
      "55 no room over the plate",
      "dayTank",
      { opening: { ...opening, roomAboveM: 0.2 } },
      { grade: "watch" },
    ],
    [
      "noWayOut",
      "55 a hatch narrower than the tank",
      "dayTank",
      { wayOut: { widthM: 0.2, heightM: 0.3 } },
      { grade: "watch" },
    ],
    [
      "pickupClearance",
      "20 a square mouth too near",
      "dayTank",
      { pickupFit: { ...day.pickupFit!, mouth: "square", clearanceM: 0, sagM: 0.001 } },
      { grade: "mend" },
    ],
    [
      "sumpHangs",
      "21 a sump near the ground",
      "dayTank",
      { sump: { xM: 0.2, yM: 0.2, diameterM: 0.1, depthM: 0.08, holeM: 0.1, floorOverGroundM: 0.3 } },
      { grade: "watch" },
    ],
    ["tankHeavy", "23 too heavy for two people", "portWing", { droppedBy: "twoPeople" }, { grade: "watch" }],
    [
      "ventLow",
      "24 the vent under the fill's lip",
      "dayTank",
      { filling: { ...filling, ventTop: { ...filling.ventTop, zM: 1 } } },
      { basis: "standard" },
    ],
    [
      "ventLow",
      "24 a dip in the vent",
      "dayTank",
      { filling: { ...filling, hasDip: true } },
      { basis: "common" },
    ],
    ["ventLow", "24 a narrow fill", "portWing", { filling: { ...filling, fillBoreM: 0.025 } }, {}],
    [
      "ventLow",
      "24 a rating under the head at the brim",
      "portWing",
      { filling: { ...filling, ratedPa: 9000 } },
      {},
    ],
    [
      "standingWater",
      "26 water under it",
      "portWing",
      { condition: { ...port.condition!, drains: "holdsWater" } },
      {},
    ],
    [
      "standingWater",
      "26 open foam under metal",
      "portWing",
      { condition: { ...port.condition!, drains: "foam" } },
      {},
    ],
    [
      "cleaningTaken",
      "59 the cleaning opening taken",
      "dayTank",
      { opening: { ...opening, cleaningTaken: true } },
      {},
    ],
    ["warningGone", "57 nothing warns", "dayTank", { opening: { ...opening, warnedBy: "nothing" } }, {}],
    [
      "gaugeEmpty",
      "60 litres at E before it is dipped",
      "stbdWing",
      { sender: port.sender },
      { grade: "watch" },
    ],
  ];
  test.each(cases)("%s: %s", (rule, _what, id, change_, wanted) => {
    expect(of(marram(), rule, book)).toBeUndefined();
    const changed = change(marram(), { name: "editTank", id, change: change_ });
    expect(of(changed, rule, book)).toMatchObject({ rule, ...wanted });
  });

  test("23 litres to drain by hand", () => {
    const heavy = change(marram(), {
      name: "editTank",
      id: "portWing",
      change: { droppedBy: "cradleAndJack" },
    });
    const finding = of(heavy, "tankHeavy");
    const density = 835;
    // 212 L and 21 kg of tank against 150 kg.
    expect(finding?.values.drainM3).toBeCloseTo((0.212 * density + 21 - 150) / density, 4);
  });

  test("27 the hose found goes when it is renewed, and a ten-year-old one comes", () => {
    expect(of(marram(), "hoseFound")).toMatchObject({ grade: "mend", ids: ["run7"], basis: "standard" });
    const survey = { printed: "ISO 7840 A1 2024-03", place: "engineRoom", feel: "sound" } as const;
    const renewed = change(marram(), { name: "editRun", id: "run7", change: { survey } });
    expect(of(renewed, "hoseFound")).toBeUndefined();
    const old = change(renewed, {
      name: "editRun",
      id: "run7",
      change: { survey: { ...survey, printed: "ISO 7840 A1 2017-03" } },
    });
    expect(of(old, "hoseFound")).toMatchObject({ grade: "watch", basis: "common" });
  });

  test("10 pickup and return in one box of baffles; one single baffle makes no box", () => {
    const baffles = (...at: number[]) =>
      change(marram(), {
        name: "editTank",
        id: "portWing",
        change: { baffles: at.map((atM, i) => ({ id: `b${i}`, across: "x" as const, atM })) },
      });
    // Mouths at 0.05 and 0.89 m of 1 m.
    expect(of(baffles(0.95), "returnNearPickup")).toBeUndefined();
    expect(of(baffles(0.02, 0.95), "returnNearPickup")).toMatchObject({ ids: ["portWing"] });
    expect(of(baffles(0.02, 0.5, 0.95), "returnNearPickup")).toBeUndefined();
  });

  test("10 a return over the fuel falls: straight over the pickup it is near, whatever its height", () => {
    const over = (xM: number) => {
      const job = marram();
      const tank = job.tanks.find(({ id }) => id === "portWing")!;
      const ports = tank.ports.map((port) =>
        port.role === "return" ? { ...port, mouth: { xM, yM: 0.37, zM: 0.5 } } : port,
      );
      return change(job, { name: "editTank", id: "portWing", change: { ports, baffles: [] } });
    };
    // 0.47 m over the pickup's mouth, in plan 0.1 m beside it.
    expect(of(over(0.15), "returnNearPickup")?.values.apartM).toBeCloseTo(0.1, 6);
    expect(of(over(0.4), "returnNearPickup")).toBeUndefined();
  });

  test("11 two engines that return to one tank warm it together: the balance of heat by hand", () => {
    // 60 L/h at 90 degC with 40 L/h at 60 degC meet at 78; 100 L/h come back in all.
    const made = new Bench()
      .tank("t", 0, 0.2)
      .part("tee", "out", 0)
      .part("tee", "back", 0)
      .engine("a", 0, 70, 10)
      .engine("b", 0, 45, 5)
      .run("t.supply", "out.a")
      .run("out.b", "a.feed")
      .run("out.c", "b.feed")
      .run("a.return", "back.a")
      .run("b.return", "back.b")
      .run("back.c", "t.return");
    made.job.consumers[0]!.returnC = 90;
    made.job.consumers[1]!.returnC = 60;
    const heating = heatingOf(buildNetwork(made.job), made.job.tanks[0]!, 0.1, 30)!;
    expect(heating.returnM3S * 3.6e6).toBeCloseTo(100, 9);
    expect(heating.engine.tempC).toBeCloseTo(78, 9);
    // Engines on tanks of their own warm their own.
    const twin = startJob("s", "S", "twinEngine");
    const { feedM3S, burnM3S } = twin.consumers[0]!.loads.at(-1)!;
    const own = heatingOf(buildNetwork(twin), twin.tanks[0]!, 0.1, 30)!;
    expect(own.returnM3S).toBeCloseTo(feedM3S - burnM3S, 12);
  });

  test("3 air at a clear mouth that is joined under suction: a finding of its own, and shut it is gone", () => {
    const bench = (feedLH: number) => {
      const made = new Bench()
        .tank("A", 0, 0.1)
        .tank("B", 2, 0.15)
        .part("tee", "tee", 0, { boreM: 0.025 })
        .engine("e", 0, feedLH, feedLH / 2)
        .run("A.supply", "tee.a", 10, 0.006)
        .run("B.supply", "tee.c")
        .run("tee.b", "e.feed")
        .run("e.return", "A.return");
      made.plan.conditions.aboardM3.B = 0.001;
      return made.job;
    };
    expect(of(bench(150), "drawsAir")).toMatchObject({ grade: "stop", ids: ["e", "B"] });
    expect(of(bench(1.5), "drawsAir")).toBeUndefined();
  });
});

test("a finding set aside keeps its reason, and comes back when its figure is worse", () => {
  const entry: SetAside = {
    kind: "setAside",
    id: "x",
    at: "2026-01-01T00:00:00Z",
    planId: "planA",
    planHash: "",
    rule: "noShutOff",
    ids: ["dayTank"],
    lineUpId: null,
    reason: "valve on order",
    figure: 0.081,
  };
  expect(of(marram(), "noShutOff", [entry])?.setAside?.reason).toBe("valve on order");
  const fuller = change(marram(), { name: "setConditions", change: { aboardM3: { dayTank: 0.105 } } });
  expect(of(fuller, "noShutOff", [entry])?.setAside).toBeUndefined();
});

describe("a sample of what a line-up feeds from", () => {
  const sample = (look: Partial<JarLook>): Book => [
    {
      kind: "sample",
      id: "s1",
      at: "2026-05-01T08:00:00Z",
      planId: "planA",
      planHash: "0",
      tankId: "portWing",
      drainedM3: 0.001,
      looks: [{ afterH: 0, water: "none", haze: "clear", growth: "none", colour: "bright", ...look }],
    },
  ];
  const found = (look: Partial<JarLook>) => of(marram(), "fuelFouled", sample(look));

  test("growth and emulsion are a Stop on every line-up that feeds from the tank, haze a Watch, clear none", () => {
    expect(found({ growth: "specks" })).toMatchObject({ grade: "stop", ids: ["portWing"] });
    expect(found({ growth: "specks" })?.lineUpIds).toContain("runPort");
    expect(found({ growth: "specks" })?.lineUpIds).not.toContain("runDay");
    expect(found({ haze: "opaque", afterH: 30 })).toMatchObject({
      grade: "stop",
      values: { sign: "emulsion" },
    });
    expect(found({ haze: "hazy" })).toMatchObject({ grade: "watch" });
    expect(found({})).toBeUndefined();
  });

  test("the last sample counts", () => {
    const [first] = sample({ growth: "mat" });
    const [later] = sample({});
    expect(of(marram(), "fuelFouled", [first!, { ...later!, id: "s2" }])).toBeUndefined();
  });
});

test("a limit that is passed only at the worst of the site is a Watch, with what costs most", () => {
  const job = marram();
  const watch = of(job, "worstLimit")!;
  const worst = worstOfLineUp(
    new LineUpSolver(buildNetwork(job)),
    currentPlan(job).lineUps.find(({ id }) => id === watch.lineUpIds[0])!,
  );
  expect(watch).toMatchObject({ grade: "watch", values: { cause: worst.causes[0]!.cause } });
  expect(worst.verdict.suction!.marginPa).toBeLessThan(0);
  const warm = { ...job, site: { ...job.site, ambientLowC: 20, envelope: { pitchDeg: 0, rollDeg: 0 } } };
  const clean = (one: Job) => ({
    ...one,
    plans: one.plans.map((plan) => ({
      ...plan,
      parts: plan.parts.map((part) => ("changeLoading" in part ? { ...part, changeLoading: 1 } : part)),
    })),
  });
  expect(of(clean(warm), "worstLimit")).toBeUndefined();
});

describe("returns and what else fills a tank", () => {
  /** An engine on A that returns to A; B stands lower and is joined to A by an open line. */
  const joined = (surfaceM: number, aboardM3 = 0.2) => {
    const made = new Bench()
      .tank("A", 0, 1)
      .tank("B", 2, surfaceM)
      .part("tee", "tee", 0.8, { boreM: 0.025 })
      .engine("e", 0.8, 20, 5)
      .run("A.supply", "tee.a")
      .run("tee.b", "e.feed")
      .run("tee.c", "B.return", 5, 0.012)
      .run("e.return", "A.return");
    made.plan.conditions.aboardM3.B = aboardM3;
    return made.job;
  };

  test("an open way to a lower tank is titled by its height, with the hours of the plan's own run", () => {
    // B holds 300 of 400 L, and A can give it 150.
    const job = joined(0.4, 0.3);
    const found = of(job, "returnElsewhere")!;
    expect(found).toMatchObject({ grade: "stop", ids: ["B", "A"], values: { cause: "gravity" } });
    const network = buildNetwork(job);
    const [lineUp] = network.plan.lineUps;
    const { events } = heldRun(network, lineUp!, network.plan.conditions, { ambientC: 15 }, 48, () => false);
    const full = events.find((event) => event.kind === "overfilled" && event.tankId === "B");
    expect(found.values.fullHours).toBeCloseTo(full!.atS / 3600, 6);
  });

  test("tanks whose levels settle are a Watch, without hours that do not come", () => {
    const found = of(joined(0.95), "returnElsewhere")!;
    expect(found).toMatchObject({ grade: "watch", values: { cause: "gravity", fullHours: null } });
  });
});

test("a joint that was wet is a Stop until it is looked at again and dry", () => {
  const job = marram();
  const look = (id: string, result: "dry" | "wet") => ({
    id,
    at: "2026-05-02T10:00:00Z",
    planId: currentPlan(job).id,
    planHash: "",
    kind: "leakCheck" as const,
    lineUpId: "runPort",
    joint: { part: "sep1", port: "out" },
    result,
  });
  expect(of(job, "jointWet", [look("1", "wet")])).toMatchObject({ grade: "stop", ids: ["sep1"] });
  expect(of(job, "jointWet", [look("1", "wet"), look("2", "dry")])).toBeUndefined();
  expect(of(job, "jointWet", [look("1", "dry")])).toBeUndefined();
});

test("the demo job carries what it is meant to and nothing else", () => {
  expect(allOf(marram(), book).map(({ rule, grade }) => `${grade} ${rule}`)).toEqual([
    "stop returnElsewhere",
    "mend noShutOff",
    "mend filterTooSmall",
    "mend suctionClean",
    "mend tankLine",
    "mend fuelFouled",
    "mend hoseFound",
    "mend boardClash",
    "mend boardClash",
    "watch returnCanClose",
    "watch worstLimit",
    "watch transferOverfills",
    "watch spareOpen",
  ]);
});

test("a Stop is one against its line-ups, and against whichever where that is asked; set aside it is none", () => {
  const stop = { grade: "stop", lineUpIds: ["run"] } as const;
  const one = (of: object) => ({ ...stop, lineUpIds: [...stop.lineUpIds], ...of });
  expect([isStopOf(one({}), "run"), isStopOf(one({}), "fill"), isStopOf(one({}), undefined)]).toEqual([
    true,
    false,
    false,
  ]);
  const any = one({ lineUpIds: [] });
  expect([isStopOf(any, "run"), isStopOf(any, "run", true), isStopOf(any, undefined, true)]).toEqual([
    false,
    true,
    true,
  ]);
  expect(isStopOf({ ...one({}), grade: "mend" }, "run", true)).toBe(false);
  const setAside = { kind: "setAside", reason: "valve on order" } as NonNullable<Finding["setAside"]>;
  expect(isStopOf({ ...one({}), setAside }, "run", true)).toBe(false);
});
