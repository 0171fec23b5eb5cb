import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { findingsOf } from "~/core/findings/findings";
import { type Finding, placeOf, type RuleId, ruleIds, rules, type ValuesOf } from "~/core/findings/index";
import { places } from "~/core/findings/rule";
import type { Job } from "~/core/plan/types";
import { type SchoolMatter, schoolChoices } from "~/core/plan/types";
import type { RunEvent } from "~/core/running/run";
import { metricUnits, usUnits } from "~/core/units/format";
import { faultText } from "../faults";
import { systems } from "../foreign.fixture";
import { nameOf } from "../notes";
import { clockText, eventText, hoursText, isGrave } from "../running";
import { schoolText, schoolTexts } from "../schools";
import { findingText, holdsInText } from "./index";

const broken = /undefined|NaN|null|\[object|Infinity|  /;
const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

/** Rules that are said in several ways, by their codes: one that is left out does not compile. */
type Coded = { [K in RuleId]: ValuesOf<K> extends { code: infer C extends string } ? [K, C] : never }[RuleId];
type CodesOf<K> = Extract<Coded, [K, string]>[1];
const codes: { [K in Exclude<Coded[0], "noRoomAbove">]: { [C in CodesOf<K>]: true } } = {
  plateHole: {
    largerThanFlange: true,
    noSaw: true,
    nearEdge: true,
    nearHole: true,
    nearBaffle: true,
    swingFouls: true,
  },
  jointMade: { newWashers: true, antiSeize: true, clampPlaced: true, clocked: true },
  jointUnsealed: { nothing: true, screws: true },
  ventLow: {
    spillsFirst: true,
    dip: true,
    fillBore: true,
    fillHose: true,
    ventBore: true,
    brimPressure: true,
    noArrester: true,
  },
  tankLine: { holds: true, wrongWay: true, flat: true, oneClamp: true, petrolDrain: true },
  gaugePlace: { afterPump: true, beforeFilter: true, beforePump: true, beforeLastFilter: true },
  bulbPlace: { notForDiesel: true, afterFilter: true },
  filterStaging: { coarseAfterFine: true, fineBeforePump: true, fineAfterPump: true, anyBeforePump: true },
  petrol: {
    openingNotAtTop: true,
    pumpFarFromEngine: true,
    pumpWithoutEngine: true,
    noAntiSiphon: true,
  },
  bleedLeavesAir: {
    noPath: true,
    underVacuum: true,
    dryLift: true,
    notSwept: true,
    headHolds: true,
    runsBack: true,
    deadLeg: true,
    stays: true,
  },
  dosingFit: { tilt: true, rubber: true, before: true, after: true, lift: true },
  heaterSupply: { low: true, high: true, regulator: true },
  heaterOnVehicle: { vegetable: true, notOwn: true, noReserve: true },
  wireWrong: { fuseOverWire: true, fuseUnderLoad: true, drop: true },
  feedPressure: { low: true, high: true, lowAtWorst: true },
  jetDraws: { pushesBack: true, lessThanBurn: true, onAir: true },
  bendTight: { legs: true, radius: true },
  boardClash: {
    bodies: true,
    serviceBlocked: true,
    outOfReach: true,
    offBoard: true,
    apart: true,
    lid: true,
  },
  boardHose: { blocked: true, short: true },
  changeSlow: { spills: true, slow: true },
  passageWrong: {
    nothingPasses: true,
    noSaw: true,
    nearEdge: true,
    notLooked: true,
    behind: true,
    bareMetal: true,
    sleeveShort: true,
    sleeveLong: true,
  },
};
const ways: [RuleId, string][] = ruleIds.flatMap((rule) =>
  (Object.keys((codes as Partial<Record<RuleId, object>>)[rule] ?? { "": true }) as string[]).map(
    (code): [RuleId, string] => [rule, code],
  ),
);
/** A value for every figure that a sentence can take. */
const figures = {
  byM: 0.004,
  left: 0.02,
  at: "sep",
  airM3: 2e-5,
  overFuelM: 0.4,
  dryS: 22,
  limitS: 15,
  hadMS: 0.12,
  needsMS: 0.38,
  figure: 0.02,
  port: "supply",
  measuredM3: 0.12,
  plateM3: 0.1,
  hottestC: 63,
  limitC: 60,
  hours: 4.5,
  flash: 0,
  lostM3: 0.02,
  allKg: 120,
  mostKg: 50,
  drainM3: 0.07,
  means: "twoPeople",
  mouth: "square",
  drains: "foam",
  years: 11,
  feel: "stiff",
  printed: "",
  atEM3: 0.008,
  pitchDeg: 5,
  rollDeg: 10,
  boxed: 0,
  beyond: "side",
  on: "2026-05-01",
  looks: "",
  coldestC: -12,
  cloudC: -5,
  consumer: "Engine",
  mostM3S: 1e-5,
  feedM3S: 2e-5,
  cause: "vapour",
  pump: "Lift pump",
  deadHeadPa: 50000,
  oneMove: 1,
  valve: "Return selector",
  to: "Port wing",
  from: "Starboard wing",
  fullHours: 2,
  dryHours: 0.3,
  driveM3S: 7e-5,
  drawM3S: 3e-5,
  emptyHours: 3,
  flowM3S: 3e-5,
  tanks: "Port wing, Starboard wing",
  crossM3S: 1e-5,
  shutOffAtM: 1.5,
  vacuumPa: 21000,
  freeAir: 0.012,
  worstId: "sep",
  worstShare: 0.4,
  setPa: 30000,
  filter: "Separator",
  ratedFlowM3S: 2e-5,
  bendDeg: 300,
  use: "vent",
  fall: 0.01,
  part: "Frame pump",
  tank: "Frame tank",
  lineUp: "Run",
  board: "Filter board",
  passage: "Hole in the floor",
  behind: "tank",
  needM: 0.03,
  sleeveM: 0.02,
  by: "Separator",
  other: "Separator",
  near: "exhaust",
  kind: "hot",
  count: 2,
  of: 15,
  micron: 10,
  is: 0.5,
  limit: 1,
  fuseA: 30,
  peakA: 14,
  bearsA: 25,
  runA: 7,
  triggerA: 5,
  dropShare: 0.12,
  allowedShare: 0.1,
  leastAreaM2: 4e-6,
  atPeakV: 11.2,
  limitV: 11.5,
  peakW: 150,
  mostW: 130,
  aboardM3: 0.01,
  leastM3: 0.02,
  quarterM3: 0.04,
  reserveM3: 0.01,
  wantedM3: 0.02,
  heldM3: 0.0004,
  hiddenM3: 0.003,
  overM: 0.2,
  longM: 1.1,
  shortM: 0.04,
  across: 1,
  radiusM: 0.05,
  leastM: 0.1,
  everyM: 0.6,
  limitM: 0.45,
  apartM: 0.07,
  atM: 0.4,
  allowanceM: 0.05,
  clearM: 0.04,
  airWay: 1,
  feedPa: 4000,
  limitPa: 5000,
  readPa: 27_500,
  boreM: 0.0508,
  outsideM: 0.0501,
  gauge: "Vacuum gauge",
  intoM3S: 1e-5,
  wallM: 0.018,
  reachM: 0.012,
  needsM: 0.31,
  liftM: 1.2,
  hasM: 0.15,
  seconds: 1010,
  spilledM3: 5e-5,
  dearest: "spinOff",
  dearestS: 60,
};

const example = (rule: RuleId, code: string): Finding =>
  ({
    rule,
    grade: "mend",
    ids: ["lift", "sep"],
    lineUpIds: [],
    basis: "common",
    values: {
      ...figures,
      code,
      ...(rule === "returnElsewhere" ? { cause: "return" } : {}),
      ...(rule === "jointMade" ? { joint: "Separator, in", washers: 2, edgeM: 0.00635 } : {}),
      ...(rule === "jointUnsealed"
        ? {
            joint: "Separator, in",
            ends: "jic37 -8 m|sae45 1/2 fs",
            why: "seatAngle",
            parts: "g:npt1_2f+jic37-8fs g:npt1_2m+sae451_2m",
            count: 2,
          }
        : {}),
      ...(rule === "boardClash" && code === "outOfReach" ? { other: "bowlDrop" } : {}),
      ...(rule === "otherSchool" ? { matter: "primer", choice: "bulb" } : {}),
      ...(rule === "notLookedAt" ? { of: "heater", looks: "heater.exhaustFalls heater.hasCoAlarm" } : {}),
      ...(rule === "worstLimit" || rule === "feedPressure" ? { cause: "cold", second: "loaded" } : {}),
      sign: "growth",
      codes: rule === "hoseFound" ? "noMarking old feels" : "bends drain",
    },
    figure: 1,
  }) as unknown as Finding;

describe("findings in words", () => {
  test.each(ways)("%s %s: title, why and mend read whole in both systems of units", (rule, code) => {
    for (const [, units, foreign] of systems) {
      const { title, detail, why, mend } = findingText(example(rule, code), units, (id) => id);
      expect(title.length).toBeGreaterThan(8);
      for (const line of [title, detail, why, mend]) {
        expect(line).not.toMatch(broken);
        expect(line).not.toMatch(foreign);
      }
      expect(`${why}${mend}`).toMatch(/\.$/);
      for (const line of [why, mend]) expect(line.length).toBeGreaterThan(10);
    }
  });

  test("the first line tells where a finding holds, unless that is everywhere or said", () => {
    expect(holdsInText("Too much vacuum", ["Run", "Idle"], 2)).toBe("");
    expect(holdsInText("Too much vacuum", [], 4)).toBe("");
    expect(holdsInText("Too much vacuum", ["Run"], 4)).toBe("in Run");
    expect(holdsInText("Too much vacuum", ["Run", "Idle"], 4)).toBe("in Run and Idle");
    expect(holdsInText("Run returns elsewhere", ["Run"], 4)).toBe("");
    expect(holdsInText("Too much vacuum", ["Run", "Idle", "Polish"], 8)).toBe("in 3 of 8 line-ups");
  });

  test("the ways of saying a rule differ", () => {
    const said = ways.map(([rule, code]) => {
      const { title, detail } = findingText(example(rule, code), metricUnits, (id) => id);
      return `${rule} ${title} ${detail}`;
    });
    expect(new Set(said).size).toBe(said.length);
  });

  test("every rule has its place, and its numbers of practice are from 1 to 60", () => {
    for (const rule of ruleIds) {
      expect(places).toContain(placeOf({ rule }));
      for (const number of rules[rule].practice) expect(number >= 1 && number <= 60).toBe(true);
      expect(rules[rule].id).toBe(rule);
    }
  });

  test.each(["marram", "unit-12", "reading-van"])("%s: every finding of every plan reads whole", (name) => {
    const job = read(name);
    for (const { id } of job.plans) {
      const whole = { ...job, currentPlanId: id };
      for (const finding of findingsOf(whole, [])) {
        const text = findingText(finding, metricUnits, (one) => nameOf(whole, one));
        for (const line of Object.values(text)) expect(line).not.toMatch(broken);
        expect(text.basis).toMatch(/common practice|maker's figure|published standard/);
      }
    }
  });

  test("where practice is divided, the finding names the school in words", () => {
    const van = { ...read("reading-van"), currentPlanId: "planVeh" };
    const found = findingsOf(van, []).find(({ rule }) => rule === "heaterOnVehicle")!;
    expect(findingText(found, metricUnits, (id) => id).basis).toBe("common practice, school: its own tank");
  });

  test.each(Object.keys(schoolChoices) as SchoolMatter[])(
    "%s: every school has its words, the default its reason",
    (matter) => {
      const { name, reason, choices } = schoolTexts[matter];
      expect(Object.keys(choices)).toEqual([...schoolChoices[matter]]);
      for (const text of [name, reason, ...Object.values(choices)]) expect(text.length).toBeGreaterThan(5);
    },
  );
});

test("faults that came with new kinds are sentences", () => {
  for (const code of ["nozzleTooWide", "missingLineUp", "lastPlan"]) {
    const text = faultText({ code, values: { id: "run" } });
    expect(text).not.toBe(code);
    expect(text).not.toMatch(broken);
  }
});

describe("events of a run in words", () => {
  const base = { atS: 3723, stepId: "s", lineUpId: "run" };
  const events: RunEvent[] = [
    { ...base, kind: "step" },
    { ...base, kind: "uncovered", tankId: "frame", portId: "sump", leftM3: 0.0012 },
    { ...base, kind: "starved", consumerId: "engine" },
    { ...base, kind: "noPath", consumerId: "engine" },
    { ...base, kind: "overfilled", tankId: "frame" },
    { ...base, kind: "limit", atId: "lift", vacuumPa: 21000, limitPa: 20000 },
    { ...base, kind: "hot", tankId: "frame", tempC: 60 },
    { ...base, kind: "filterDue", partId: "sep" },
    { ...base, kind: "potDrains", partId: "pot" },
    { ...base, kind: "potEmpty", partId: "pot" },
    { ...base, kind: "failed", why: "badConditions" },
  ];

  test.each(systems)("no figure of the other system in %s units", (_, units, foreign) => {
    for (const event of events) expect(eventText(event, units, (id) => id)).not.toMatch(foreign);
  });

  test("each is a sentence of its own", () => {
    const texts = events.map((event) => eventText(event, metricUnits, (id) => id));
    expect(new Set(texts).size).toBe(texts.length);
    for (const text of texts) expect(text).not.toMatch(broken);
    expect(texts[1]).toBe("frame: mouth comes clear, 1.2 L left");
    expect(eventText(events[1]!, usUnits, (id) => id)).toBe("frame: mouth comes clear, 0.317 gal left");
  });

  test("what must be acted on is told apart from what is only noted", () => {
    expect(events.filter((event) => !isGrave(event)).map(({ kind }) => kind)).toEqual(["step", "filterDue"]);
  });

  test("clocks and spans", () => {
    expect(clockText(3723)).toBe("1:02");
    expect(clockText(59 * 60 + 31)).toBe("1:00");
    expect(hoursText(2.5)).toBe("2:30");
    expect(hoursText(60)).toBe("2.5 days");
  });
});

test("every school says what it touches, and the job's choice is told with it", () => {
  for (const matter of Object.keys(schoolTexts) as SchoolMatter[]) {
    const { touches, choices } = schoolTexts[matter];
    expect(touches).toMatch(/^[A-Z].{10,}\.$/);
    for (const choice of schoolChoices[matter])
      expect(schoolText({ shutOff: "abycH33", [matter]: choice }, matter)).toContain(choices[choice]);
  }
});
