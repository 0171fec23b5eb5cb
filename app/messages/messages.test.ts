import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { readDipCsv } from "~/core/export/dipCsv";
import { findingsOf } from "~/core/findings/findings";
import type { Finding } from "~/core/findings/index";
import { judgeAll, worstConditions } from "~/core/hydraulics/worst";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { metricUnits, usUnits } from "~/core/units/format";
import { parseQuantity } from "~/core/units/parse";
import {
  type Explanation,
  explainFilter,
  explainFreeAir,
  explainPump,
  explainRun,
  explainTank,
  explainVacuum,
} from "./explain";
import { dipFaultText, faultText, quantityFaultText } from "./faults";
import { findingText } from "./findings";
import { systems } from "./foreign.fixture";
import { hoseLines, keelSummary, limitLabel, stationLines } from "./keel";
import { nameOf, noteText } from "./notes";
import { outcomeText } from "./outcomes";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const name = (id: string) => nameOf(job, id);
/** What shows that a sentence was put together wrongly. */
const broken = /undefined|NaN|null|\[object|Infinity/;

describe("sentences", () => {
  test("dips that cannot be read are told with their line", () => {
    const read = readDipCsv("depth,volume,at\n100 mm,20 L,2026-05-01\nshallow,,\n-5 mm,,never", {
      length: "mm",
      volume: "L",
    });
    if (read.ok) throw new Error("read");
    const said = read.faults.map((fault) => dipFaultText(fault));
    expect(said).toHaveLength(3);
    expect(said[0]).toMatch(/^line 3: .*shallow/);
    expect(said[1]).toBe("line 4: the date was not understood");
    expect(said[2]).toBe("line 4: must not be less than zero");
    expect(readDipCsv("litres\n5", { length: "mm", volume: "L" })).toMatchObject({
      ok: false,
      faults: [{ code: "noDepthColumn" }],
    });
    expect(readDipCsv("Depth\n4 in", { length: "mm", volume: "L" })).toEqual({
      ok: true,
      rows: [{ at: null, depthM: expect.closeTo(0.1016, 9), volumeM3: null }],
    });
  });

  test.each([metricUnits, usUnits])("every finding of the demo reads whole in %o", (units) => {
    for (const finding of findingsOf(job, [])) {
      const text = findingText(finding, units, name);
      for (const line of Object.values(text)) {
        expect(line.length).toBeGreaterThan(3);
        expect(line).not.toMatch(broken);
      }
    }
  });

  test("a finding names its number, its basis and its school", () => {
    const drains = findingsOf(job, []).find(({ rule }) => rule === "noShutOff") as Finding;
    expect(findingText(drains, metricUnits, name)).toMatchObject({
      title: "Day tank drains 81.1 L if its line is cut",
      basis: "common practice, ABYC H-33 school",
    });
    expect(findingText(drains, usUnits, name).title).toBe("Day tank drains 21.4 gal if its line is cut");
  });

  test("line-ups say what they do", () => {
    const texts = judgeAll(buildNetwork(job), worstConditions(job, plan)).map((verdict) =>
      outcomeText(verdict, metricUnits),
    );
    expect(texts[0]).toBe("fed 210 L/h");
    expect(texts[4]).toBe("flows");
  });

  test("and what they do not", () => {
    const said = (change: (job: Job) => void, at = 0) => {
      const copy: Job = JSON.parse(JSON.stringify(job));
      change(copy);
      const verdict = judgeAll(buildNetwork(copy), currentPlan(copy).conditions)[at];
      return verdict && outcomeText(verdict, metricUnits);
    };
    const lineUp = (one: Job, at = 0) => currentPlan(one).lineUps[at]!;
    const shut = { kind: "branches", open: [] } as const;
    expect(said((one) => void (lineUp(one).valves.supply = { ...shut, open: [] }))).toBe(
      "no way from a tank",
    );
    expect(said((one) => void (lineUp(one).valves.returns = { ...shut, open: [] }))).toBe("return shut");
    expect(said((one) => void (lineUp(one).consumers.engine = "stopped"))).toBe("nothing runs");
    expect(said((one) => void (lineUp(one, 4).pumps.lift = "off"), 4)).toBe("nothing flows");
    expect(said((one) => void (currentPlan(one).conditions.loading.elSep1 = 60))).toMatch(
      /^starved: at most [\d.]+ L\/h$/,
    );
    expect(said((one) => void (currentPlan(one).conditions.fuelC = 600))).toBe(
      "outside the fuel's known range",
    );
  });

  test("faults are sentences, with the figure and the word not understood", () => {
    expect(faultText({ code: "tooShort", values: { lengthM: 0.1, distanceM: 0.5 } })).toBe(
      "is 100 mm long, but its ports are 500 mm apart",
    );
    expect(faultText({ code: "newerVersion", values: { version: 9, known: 1 } })).toContain("version 9");
    const parsed = parseQuantity("5 furlongs", "length", "mm");
    expect(!parsed.ok && quantityFaultText(parsed.fault)).toBe("'furlongs' is not a unit known here.");
    expect(noteText({ code: "endsNoLongerMeet", ids: ["lift", "sep1"] }, job)).toBe(
      "These ends no longer meet anything: Lift pump, Separator 1.",
    );
  });
});

/** Codes as the schemas and checks write them, and with what figures. */
const faultCodes: Record<string, Record<string, string | number>> = {
  notJson: { reason: "unexpected end" },
  notAJobFile: {},
  notABox: {},
  noSuchShape: {},
  badVersion: {},
  newerVersion: { version: 9, known: 1 },
  notMigrated: { version: 1 },
  notAZip: {},
  zipEntries: { most: 9 },
  zipEntryLarge: { mostMiB: 64 },
  zipLarge: { mostMiB: 512 },
  zipRatio: { ratio: 200 },
  tooDeep: { most: 60 },
  controlCharacter: {},
  notAllFile: {},
  badHash: {},
  hashDiffers: {},
  missingSnapshot: {},
  otherPlan: { id: "planB" },
  missingEntry: { id: "x" },
  strikesRound: {},
  missingPlan: { id: "planB" },
  basedRound: {},
  portTwice: { id: "w1" },
  brokenRow: { name: "Marram" },
  newerRow: { name: "Marram" },
  olderRow: { name: "Marram" },
  changedSince: {},
  unknownKey: {},
  missing: {},
  wrongType: { wanted: "text" },
  tooSmall: { least: 0.001 },
  tooLarge: { most: 10 },
  badId: {},
  badFormat: {},
  notAllowed: {},
  flowsNotRising: {},
  risesNotFalling: {},
  loadsNotRising: {},
  burnsMoreThanFed: {},
  sameTemperature: {},
  duplicateId: { id: "sep1" },
  noCurrentPlan: {},
  crossingSection: {},
  emptySection: {},
  sectionsOutOfOrder: {},
  cornersDiffer: { corners: 5, wanted: 4 },
  sensesDiffer: {},
  unitSlip: { sizeM: 340, mostM: 50 },
  wallTooThick: {},
  outsideTank: {},
  lowOverHigh: {},
  sameReading: {},
  overCapacity: {},
  notColder: {},
  onePlace: {},
  waterFloats: {},
  countsOutOfScale: {},
  countsNotFalling: {},
  overfull: { aboardM3: 0.4, capacityM3: 0.34 },
  missingPort: { port: "sep1.in" },
  portTaken: { port: "sep1.in", by: "run2" },
  samePort: {},
  tooShort: { lengthM: 0.1, distanceM: 0.5 },
  noLength: {},
  missingValve: { id: "v" },
  missingPosition: { id: "v" },
  missingWay: { port: "w3" },
  nozzleTooWide: {},
  missingLineUp: { id: "l" },
  lastPlan: {},
  otherKind: {},
  notAtTank: {},
  missingPart: { id: "p" },
  noSuch: { id: "p" },
  viscosityOutOfRange: {},
  boils: {},
};

describe("faults in words", () => {
  test.each(Object.entries(faultCodes))("%s is a sentence with its figures", (code, values) => {
    const text = faultText({ code, values });
    expect(text).not.toBe(code);
    expect(text).not.toMatch(broken);
    expect(text.split(" ").length).toBeGreaterThan(1);
  });

  test("no code that the schemas or the plan's checks write is left without a sentence", () => {
    const written = new Set<string>();
    for (const folder of [
      "app/schemas",
      "app/core/plan",
      "app/core/check",
      "app/core/edit",
      "app/core/book",
      "app/store",
    ])
      for (const file of readdirSync(folder)) {
        if (!file.endsWith(".ts") || file.includes(".test.")) continue;
        const source = readFileSync(`${folder}/${file}`, "utf8");
        for (const [, code] of source.matchAll(
          /(?:[^a-zA-Z]code: |CommandRefused\(|refused\()"([a-zA-Z]+)"/g,
        ))
          written.add(code as string);
      }
    expect(written.size).toBeGreaterThan(20);
    // Notes tell what a command could not keep; `custom` is the schema library's word for a code of ours.
    const notes = [
      "custom",
      "carriedLost",
      "endsNoLongerMeet",
      "boresDiffer",
      "portsLeftOpen",
      "measuredLost",
      "aboardLowered",
    ];
    const untold = [...written].filter((code) => !(code in faultCodes) && !notes.includes(code));
    expect(untold).toEqual([]);
  });

  test("what was typed is said back with what is wrong with it", () => {
    const cases: [text: string, said: string][] = [
      ["", "Nothing was typed."],
      ["wide", "'wide' is not a number."],
      ["1,500 mm", "'1,500': write 1500 or 1.5, the comma can mean either."],
      ["3/0 in", "'3/0' divides by nothing."],
      ["5 kPa", "'kPa' is a unit of pressure; a length is wanted."],
    ];
    for (const [text, said] of cases) {
      const parsed = parseQuantity(text, "length", "mm");
      expect(parsed.ok ? parsed.si : quantityFaultText(parsed.fault)).toBe(said);
    }
  });
});

test("every explanation has its formula, its inputs and its source", () => {
  const network = buildNetwork(job);
  const [verdict] = judgeAll(network, plan.conditions);
  if (verdict?.result.outcome !== "solved" || !verdict.way || !verdict.suction) throw new Error("not solved");
  const { result, way, suction } = verdict;
  const part = (id: string) => plan.parts.find((one) => one.id === id);
  const [sep, lift] = [part("sep1"), part("lift")];
  const leg = way.legs.find(({ id }) => id === "run1");
  const run = plan.runs.find(({ id }) => id === "run1");
  if (sep?.kind !== "filter" || lift?.kind !== "liftPump" || !leg || !run || !job.tanks[0])
    throw new Error("no part");
  const all = [
    explainVacuum(result, way, suction, metricUnits, name),
    explainRun(result, leg, run, metricUnits),
    explainFilter(sep, 2, usUnits),
    explainPump(lift, usUnits),
    explainTank(job.tanks[0], 0.2, metricUnits),
    explainFreeAir(result, -10000, metricUnits),
  ];
  for (const { title, formula, inputs, source } of all) {
    expect(inputs.length).toBeGreaterThanOrEqual(3);
    for (const line of [title, formula, source, ...inputs.flat()]) {
      expect(line.length).toBeGreaterThan(0);
      expect(line).not.toMatch(broken);
    }
  }
});

describe.each(["marram", "unit-12", "reading-van"])("every sentence of %s", (file) => {
  const one = (JSON.parse(readFileSync(`demo/${file}.keel.json`, "utf8")) as { job: Job }).job;
  const called = (id: string) => nameOf(one, id);

  test.each(systems)("holds no figure of the other system in %s units", (_, units, foreign) => {
    const said: string[] = [];
    const explained = ({ title, formula, inputs, source }: Explanation) =>
      said.push(title, formula, source, ...inputs.flat());
    for (const finding of findingsOf(one, []))
      said.push(...Object.values(findingText(finding, units, called)));
    for (const verdict of judgeAll(buildNetwork(one), worstConditions(one, currentPlan(one)))) {
      const { way, suction, result } = verdict;
      said.push(outcomeText(verdict, units), keelSummary(verdict, units));
      if (way) said.push(...way.stations.flatMap((station) => stationLines(station, way, units)));
      if (suction) said.push(limitLabel("pump", suction.limitPa, suction.basis, units));
      if (result.outcome !== "solved" || !way) continue;
      if (suction) explained(explainVacuum(result, way, suction, units, called));
      explained(explainFreeAir(result, -10000, units));
      for (const leg of way.legs) {
        said.push(...hoseLines(leg, units));
        const run = currentPlan(one).runs.find(({ id }) => id === leg.id);
        if (run) explained(explainRun(result, leg, run, units));
      }
    }
    for (const part of currentPlan(one).parts) {
      if (part.kind === "filter") explained(explainFilter(part, 2, units));
      if (part.kind === "liftPump") explained(explainPump(part, units));
    }
    for (const tank of one.tanks) explained(explainTank(tank, 0.01, units));
    expect(said.length).toBeGreaterThan(60);
    expect(said.filter((line) => foreign.test(line))).toEqual([]);
    expect(said.filter((line) => broken.test(line))).toEqual([]);
  });
});
