import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { findingsOf } from "~/core/findings/findings";
import type { Finding, RuleId } from "~/core/findings/types";
import type { Job } from "~/core/plan/types";
import { type SchoolMatter, schoolChoices } from "~/core/plan/types";
import type { RunEvent } from "~/core/running/run";
import { metricUnits, usUnits } from "~/core/units/format";
import { faultText } from "./faults";
import { findingText } from "./findings";
import { nameOf } from "./notes";
import { clockText, eventText, hoursText, isGrave } from "./running";
import { schoolTexts } from "./schools";

const broken = /undefined|NaN|null|\[object|Infinity|  /;
const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

/** Every way in which one rule can be said. */
const codes: Partial<Record<RuleId, string[]>> = {
  gaugePlace: ["afterPump", "beforeFilter", "beforePump", "beforeLastFilter"],
  bulbPlace: ["notForDiesel", "afterFilter"],
  filterStaging: ["coarseAfterFine", "fineBeforePump", "fineAfterPump", "anyBeforePump"],
  petrol: ["openingNotAtTop", "pumpFarFromEngine", "pumpWithoutEngine", "noAntiSiphon"],
  dosingFit: ["tilt", "rubber", "before", "after", "lift"],
  heaterSupply: ["low", "high", "regulator"],
  heaterOnVehicle: ["vegetable", "notOwn", "noReserve"],
  wireWrong: ["fuseOverWire", "fuseUnderLoad", "drop"],
  feedPressure: ["low", "high"],
};
const figures = {
  part: "Frame pump",
  tank: "Frame tank",
  lineUp: "Run",
  other: "Separator",
  near: "exhaust",
  kind: "hot",
  codes: "bends drain",
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
  intoM3S: 1e-5,
  wallM: 0.018,
  reachM: 0.012,
};

describe("findings of parts, heaters and circuits in words", () => {
  test.each(Object.entries(codes).flatMap(([rule, list]) => list.map((code) => [rule, code] as const)))(
    "%s, %s: title, why and mend read whole in both systems of units",
    (rule, code) => {
      const finding: Finding = {
        rule: rule as RuleId,
        grade: "mend",
        ids: ["lift"],
        lineUpIds: [],
        basis: "common",
        values: { ...figures, code },
        figure: 1,
      };
      for (const units of [metricUnits, usUnits]) {
        const { title, detail, why, mend } = findingText(finding, units, (id) => id);
        expect(title.length).toBeGreaterThan(8);
        for (const line of [title, detail, why, mend]) expect(line).not.toMatch(broken);
        expect(`${why}${mend}`).toMatch(/\.$/);
      }
    },
  );

  test("the ways of saying a rule differ", () => {
    for (const [rule, list] of Object.entries(codes)) {
      const titles = (list ?? []).map(
        (code) =>
          findingText(
            {
              rule: rule as RuleId,
              grade: "mend",
              ids: [],
              lineUpIds: [],
              basis: "common",
              values: { ...figures, code },
              figure: 1,
            },
            metricUnits,
            (id) => id,
          ).title + code,
      );
      expect(new Set(titles).size).toBe(titles.length);
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
    { ...base, kind: "failed", why: "badConditions" },
  ];

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
