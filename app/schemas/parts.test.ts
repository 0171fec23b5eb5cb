import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { type FileFault, readJobFile, writeJobFile } from "./file";

type Loose = Record<string, unknown>;
interface LooseJob extends Loose {
  tanks: Loose[];
  consumers: (Loose & { heater: Loose; circuit: Loose })[];
  plans: (Loose & { parts: (Loose & { id: string })[]; runs: Loose[]; duty: Loose[]; conditions: Loose })[];
  schools: Loose;
  site: Loose;
}

const textOf = (name: string) => readFileSync(`demo/${name}.keel.json`, "utf8");

/** The file of a demo job with one thing done to it, and what is said of it. */
function faults(name: string, spoil: (job: LooseJob) => void): FileFault[] {
  const file = JSON.parse(textOf(name)) as { job: LooseJob };
  spoil(file.job);
  const read = readJobFile(JSON.stringify(file));
  return read.ok ? [] : read.faults;
}

const part = (job: LooseJob, id: string) => job.plans[0]!.parts.find((one) => one.id === id)!;
const at = (job: LooseJob, id: string) =>
  `job.plans[0].parts[${job.plans[0]!.parts.findIndex((one) => one.id === id)}]`;

describe("demo jobs go out and in without loss", () => {
  test.each(["marram", "unit-12", "reading-van"])("%s", (name) => {
    const read = readJobFile(textOf(name));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(writeJobFile(read)).toBe(textOf(name));
  });

  test("a job written before any of the new keys is read as it was", () => {
    const file = JSON.parse(textOf("marram")) as { job: LooseJob };
    for (const plan of file.job.plans) delete (plan as Loose).duty;
    delete file.job.site.supply;
    file.job.schools = { shutOff: "iso10088" };
    const read = readJobFile(JSON.stringify(file));
    expect(read.ok && read.job.schools).toEqual({ shutOff: "iso10088" });
  });
});

type Case = [what: string, name: string, spoil: (job: LooseJob) => void, path: RegExp];
const cases: Case[] = [
  ["a dosing pump that never draws", "reading-van", (job) => (part(job, "dose").strokeS = 0), /strokeS/],
  ["a stroke of litres", "reading-van", (job) => (part(job, "dose").strokeM3 = 0.02), /strokeM3/],
  ["a slope past upright", "reading-van", (job) => (part(job, "dose").tiltDeg = 120), /tiltDeg/],
  ["a wall of less than zero", "reading-van", (job) => (part(job, "wall").wallM = -0.01), /wallM/],
  [
    "an exhaust bent backwards",
    "reading-van",
    (job) => (job.consumers[0]!.heater.exhaustBendDeg = -90),
    /exhaustBendDeg/,
  ],
  [
    "an alarm that is 'maybe'",
    "reading-van",
    (job) => (job.consumers[0]!.heater.hasCoAlarm = "maybe"),
    /hasCoAlarm/,
  ],
  [
    "a word the heater's record does not know",
    "reading-van",
    (job) => (job.consumers[0]!.heater.colour = "red"),
    /heater/,
  ],
  ["a kind of consumer that is none", "reading-van", (job) => (job.consumers[0]!.kind = "boiler"), /kind/],
  [
    "a wire without copper",
    "unit-12",
    (job) => ((part(job, "lift").circuit as Loose).wireAreaM2 = 0),
    /circuit\.wireAreaM2/,
  ],
  [
    "a fuse as text",
    "unit-12",
    (job) => ((part(job, "lift").circuit as Loose).fuseA = "15 A"),
    /circuit\.fuseA/,
  ],
  [
    "a cooler better than perfect",
    "unit-12",
    (job) => (part(job, "cool").effectiveness = 1.2),
    /effectiveness/,
  ],
  [
    "a pump that rises with flow",
    "unit-12",
    (job) =>
      (part(job, "trans").curve = [
        { flowM3S: 0, risePa: 1 },
        { flowM3S: 1, risePa: 2 },
      ]),
    /curve/,
  ],
  [
    "an unpowered pump that does something else",
    "unit-12",
    (job) => (part(job, "lift").off = { kind: "sings" }),
    /off/,
  ],
  ["a kind of part that is none", "unit-12", (job) => (part(job, "bleed").kind = "whistle"), /kind/],
  [
    "a neighbour of no kind",
    "unit-12",
    (job) =>
      (job.plans[0]!.runs[10]!.neighbours = [
        { id: "n", kind: "loud", name: "horn", atM: 0, apartM: 0, guarded: false },
      ]),
    /neighbours\[0\]\.kind/,
  ],
  ["a step of no hours", "unit-12", (job) => (job.plans[0]!.duty[0]!.hours = 0), /duty\[0\]\.hours/],
  ["a load over full", "unit-12", (job) => (job.plans[0]!.duty[1]!.load = 1.5), /duty\[1\]\.load/],
  [
    "a step on a line-up that is gone",
    "unit-12",
    (job) => (job.plans[0]!.duty[2]!.lineUpId = "gone"),
    /duty\[2\]\.lineUpId/,
  ],
  [
    "a trim on its side",
    "unit-12",
    (job) => (job.plans[0]!.conditions.trim = { pitchDeg: 80, rollDeg: 0 }),
    /trim\.pitchDeg/,
  ],
  ["a school that is none", "unit-12", (job) => (job.schools.finest = "nowhere"), /schools\.finest/],
  ["a supply without volts", "unit-12", (job) => (job.site.supply = { volts: 0 }), /supply\.volts/],
  [
    "a number that is not finite, as null",
    "unit-12",
    (job) => (part(job, "meter").ratedDropPa = null),
    /ratedDropPa/,
  ],
];

describe("what cannot be is refused with its place", () => {
  test.each(cases)("%s", (_what, name, spoil, path) => {
    const found = faults(name, spoil);
    expect(found.length).toBeGreaterThan(0);
    expect(found.some((fault) => path.test(fault.path))).toBe(true);
  });

  test("several faults are told together, each with its own place", () => {
    const found = faults("unit-12", (job) => {
      part(job, "sep").micron = 0;
      part(job, "lift").reliefPa = -1;
      job.plans[0]!.duty[0]!.rollDeg = "steep";
    });
    const file = (JSON.parse(textOf("unit-12")) as { job: LooseJob }).job;
    expect(found.map(({ path }) => path)).toEqual(
      expect.arrayContaining([
        `${at(file, "sep")}.micron`,
        `${at(file, "lift")}.reliefPa`,
        "job.plans[0].duty[0].rollDeg",
      ]),
    );
  });

  test("a jet pump whose nozzle does not go into its throat", () => {
    const found = faults("unit-12", (job) => {
      job.plans[0]!.parts.push({
        id: "jet",
        name: "Jet",
        position: { xM: 0, yM: 0, zM: 0 },
        boreM: 0.01,
        kind: "jetPump",
        nozzleM: 0.005,
        throatM: 0.004,
      });
    });
    expect(found.map(({ code }) => code)).toContain("nozzleTooWide");
  });
});
