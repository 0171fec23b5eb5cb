/** Faults between the records of a job: each made in a demo job that has none, and told with its place. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { Job, Plan } from "../plan/types";
import { newTankLine } from "../tanks/tankLine";
import { checkJob } from "./job";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const boat = () => read("marram");
const truck = () => read("unit-12");
const van = () => read("reading-van");
/** A job with its first plan changed. */
const planned = (job: Job, change: (plan: Plan, job: Job) => void): Job => {
  change(job.plans[0] as Plan, job);
  return job;
};
const told = (job: Job) => checkJob(job).map(({ path, code }) => `${code} ${path}`);

test.each([
  ["marram", boat],
  ["unit-12", truck],
  ["reading-van", van],
] as const)("%s has none", (_, job) => expect(told(job())).toEqual([]));

const at = { xM: 0, yM: 0, zM: 0 };
const cases: [what: string, job: () => Job, wanted: string | RegExp][] = [
  [
    "two plans of one id",
    () => {
      const job = boat();
      job.plans.push({ ...(job.plans[1] as Plan) });
      return job;
    },
    "duplicateId plans[2].id",
  ],
  [
    "a part and a tank of one id",
    () => planned(boat(), (plan) => plan.parts.push({ ...plan.parts[0]!, id: "portWing" })),
    /^duplicateId plans\[0\] and tanks/,
  ],
  [
    "a fill of the id of a hose: whoever looks it up would find the first",
    () => planned(boat(), (plan) => (plan.tankLines![0]!.id = plan.runs[0]!.id)),
    /^duplicateId plans\[0\] and tanks/,
  ],
  [
    "a strap of the id of a tank",
    () => {
      const job = van();
      job.tanks.find(({ id }) => id === "veh")!.attachments![0]!.id = "veh";
      return job;
    },
    /^duplicateId plans\[0\] and tanks/,
  ],
  [
    "a hose to a port that is not there",
    () => planned(boat(), (plan) => (plan.runs[0]!.to = { part: "lift", port: "nix" })),
    "missingPort plans[0].runs[0].to",
  ],
  [
    "two hoses on one port",
    () => planned(boat(), (plan) => (plan.runs[1]!.to = { ...plan.runs[0]!.to })),
    "portTaken plans[0].runs[1].to",
  ],
  [
    "a hose shorter than the way",
    () =>
      planned(boat(), (plan) => {
        plan.runs[0]!.route = { kind: "measured", lengthM: 0.01, bends: [], extremes: [] };
      }),
    "tooShort plans[0].runs[0].route",
  ],
  [
    "a vent without length",
    () =>
      planned(boat(), (plan) => {
        plan.tankLines![1]!.points = [at, { ...at }];
      }),
    "noLength plans[0].tankLines[1].points",
  ],
  [
    "what a fill passes twice",
    () =>
      planned(boat(), (plan) => {
        const near = { id: "n", kind: "hot", name: "exhaust", atM: 0, apartM: 1, guarded: true } as const;
        plan.tankLines![0]!.neighbours = [near, { ...near }];
      }),
    "duplicateId plans[0].tankLines[0].neighbours[1].id",
  ],
  [
    "a line of a tank that is gone",
    () =>
      planned(boat(), (plan, job) =>
        plan.tankLines!.push({ ...newTankLine("x", job.tanks[0]!, "vent", "boat"), tank: "nix" }),
      ),
    "missingPart plans[0].tankLines[4]",
  ],
  [
    "a tank that comes down and is gone, and one twice",
    () => planned(van(), (plan) => (plan.tanksDown = ["nix"])),
    "missingPart plans[0].tanksDown[0]",
  ],
  [
    "a tank that comes down twice",
    () => planned(van(), (plan) => (plan.tanksDown = ["veh", "veh"])),
    "duplicateId plans[0].tanksDown[1].id",
  ],
  [
    "a handle at a position that its valve has not",
    () =>
      planned(boat(), (plan) => {
        plan.mounted!.valve2!.handle = { position: "nix", standsOutM: 0.1 };
      }),
    "missingPart plans[0].mounted.valve2.handle",
  ],
  [
    "a handle on a part that has none",
    () =>
      planned(boat(), (plan) => {
        plan.mounted!.sep2!.handle = { position: "shut", standsOutM: 0.1 };
      }),
    "missingPart plans[0].mounted.sep2.handle",
  ],
  [
    "a hole that a hose passes that is gone",
    () => planned(van(), (plan) => plan.passages![0]!.runs.push("nix")),
    /^missingPart plans\[0\]\.passages\[0\]\.runs\[\d+\]$/,
  ],
  [
    "loading of an element that is gone",
    () => planned(boat(), (plan) => (plan.conditions.loading.nix = 2)),
    "missingPart plans[0].conditions.loading.nix",
  ],
  [
    "more aboard than the tank holds",
    () => planned(boat(), (plan) => (plan.conditions.aboardM3.portWing = 5)),
    "overfull plans[0].conditions.aboardM3.portWing",
  ],
  [
    "a valve that is set and is none",
    () => planned(boat(), (plan) => (plan.lineUps[0]!.valves.lift = { kind: "position", position: "open" })),
    "missingValve plans[0].lineUps[0].valves.lift",
  ],
  [
    "a position that the valve has not",
    () => planned(boat(), (plan) => (plan.lineUps[0]!.valves.valve2 = { kind: "position", position: "nix" })),
    "missingPosition plans[0].lineUps[0].valves.valve2",
  ],
  [
    "a pump that is set and has no power",
    () => planned(boat(), (plan) => (plan.lineUps[0]!.pumps.sep1 = "on")),
    "missingPart plans[0].lineUps[0].pumps.sep1",
  ],
  [
    "a consumer that runs and is not there",
    () => planned(boat(), (plan) => (plan.lineUps[0]!.consumers.nix = "running")),
    "missingPart plans[0].lineUps[0].consumers.nix",
  ],
  [
    "a duty in a line-up that is gone",
    () =>
      planned(
        boat(),
        (plan) => (plan.duty = [{ id: "d", hours: 1, lineUpId: "nix", load: 1, pitchDeg: 0, rollDeg: 0 }]),
      ),
    "missingLineUp plans[0].duty[0].lineUpId",
  ],
  [
    "a plan based on one that is gone",
    () => planned(boat(), (plan) => (plan.basedOn = "nix")),
    "missingPlan plans[0].basedOn",
  ],
  [
    "plans based on each other",
    () => {
      const job = boat();
      job.plans[0]!.basedOn = job.plans[1]!.id;
      job.plans[1]!.basedOn = job.plans[0]!.id;
      return job;
    },
    "basedRound plans[0].basedOn",
  ],
  [
    "no plan of the id that is worked on",
    () => ({ ...boat(), currentPlanId: "nix" }),
    "noCurrentPlan currentPlanId",
  ],
];

describe("one change makes the one fault", () => {
  test.each(cases)("%s", (_, job, wanted) => {
    const found = told(job());
    if (typeof wanted === "string") expect(found).toContain(wanted);
    else expect(found.some((one) => wanted.test(one))).toBe(true);
    // And nothing far from it: one record, named from one or two sides.
    expect(found.length).toBeLessThanOrEqual(3);
  });
});
