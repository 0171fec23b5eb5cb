import { describe, expect, test } from "@jest/globals";
import { jobSchema } from "~/schemas/job";
import { checkJob } from "../check/job";
import { applyCommand, throughPorts } from "../edit/commands";
import { startJob } from "../edit/starters";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { partLines } from "../parts/partsList";
import { assumedFigures } from "./assumed";
import { type NewPartKind, newPart } from "./blank";
import { isFiltering, isPlainThrough, isPowered, isPushing, isRated } from "../kinds/families";
import { currentPlan, hasArrow, portsOf } from "./ports";
import { pumpKinds } from "./types";

const kinds: NewPartKind[] = [
  "twoWay",
  "selector",
  "bank",
  "tee",
  "check",
  "antiSiphon",
  "filter",
  "pumpFilterUnit",
  "waterSensor",
  ...pumpKinds,
  "dosingPump",
  "bulb",
  "jetPump",
  "swirlPot",
  "regulator",
  "relief",
  "cooler",
  "fuelHeater",
  "flowMeter",
  "gauge",
  "samplingTap",
  "bleedScrew",
  "bulkhead",
];
const at = { xM: 1, yM: 0, zM: 0.5 };

describe("every kind of part", () => {
  test.each(kinds)(
    "%s: its figures are what the schema takes, its ports are its own, its way through is among them",
    (kind) => {
      const part = newPart(kind, "x", at);
      const ids = portsOf(part).map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      const through = throughPorts(part);
      expect(through?.every((id) => ids.includes(id))).toBe(true);
      const job = startJob("j", "J", "oneTank");
      const added = applyCommand(job, { name: "addPart", id: "x", kind, position: at }).job;
      expect(jobSchema.safeParse(added).error?.issues ?? []).toEqual([]);
      expect(checkJob(added)).toEqual([]);
      expect(partLines(currentPlan(added)).reduce((sum, { count }) => sum + count, 0)).toBe(
        currentPlan(added).parts.length,
      );
    },
  );

  test.each(kinds)(
    "%s: let into a hose it splits it, the plan still solves, and taken out the hose is whole again",
    (kind) => {
      const job = startJob("j", "J", "oneTank");
      const [run] = currentPlan(job).runs;
      const length = (one: typeof job) =>
        currentPlan(one).runs.reduce(
          (sum, { route }) => sum + (route.kind === "measured" ? route.lengthM : 0),
          0,
        );
      const inserted = applyCommand(job, {
        name: "insertPart",
        id: "x",
        kind,
        runId: run!.id,
        newRunId: "y",
      }).job;
      expect(currentPlan(inserted).runs).toHaveLength(currentPlan(job).runs.length + 1);
      expect(checkJob(inserted)).toEqual([]);
      const network = buildNetwork(inserted);
      const result = new LineUpSolver(network).solve(network.plan.lineUps[0]!, network.plan.conditions);
      expect(["solved", "boils"]).toContain(result.outcome);
      const taken = applyCommand(inserted, { name: "removePart", id: "x" }).job;
      expect(currentPlan(taken).parts.map(({ id }) => id)).toEqual(
        currentPlan(job).parts.map(({ id }) => id),
      );
      expect(currentPlan(taken).runs).toHaveLength(currentPlan(job).runs.length);
      expect(length(taken)).toBeGreaterThanOrEqual(length(job) - 1e-9);
      expect(currentPlan(taken).lineUps).toEqual(currentPlan(job).lineUps);
    },
  );

  test.each(kinds)("%s: turned end for end twice it is as it was", (kind) => {
    const job = startJob("j", "J", "oneTank");
    const [run] = currentPlan(job).runs;
    const inserted = applyCommand(job, {
      name: "insertPart",
      id: "x",
      kind,
      runId: run!.id,
      newRunId: "y",
    }).job;
    const once = applyCommand(inserted, { name: "turnPart", id: "x" }).job;
    expect(currentPlan(once).runs).not.toEqual(currentPlan(inserted).runs);
    const twice = applyCommand(once, { name: "turnPart", id: "x" }).job;
    const ends = (one: typeof job) => currentPlan(one).runs.map(({ from, to }) => [from, to]);
    expect(ends(twice)).toEqual(ends(inserted));
  });

  test("a part joined to the plan tells what of it is assumed, and no longer once it is the maker's", () => {
    for (const kind of kinds) {
      const job = startJob("j", "J", "oneTank");
      const [run] = currentPlan(job).runs;
      const inserted = applyCommand(job, {
        name: "insertPart",
        id: "x",
        kind,
        runId: run!.id,
        newRunId: "y",
      }).job;
      const fields = assumedFigures(inserted, currentPlan(inserted)).filter(({ id }) => id === "x");
      expect(fields.map(({ field }) => field)).toContain("position");
      const given = Object.fromEntries(fields.map(({ field }) => [field, { basis: "maker" as const }]));
      const known = applyCommand(inserted, { name: "editPart", id: "x", change: { given } }).job;
      expect(assumedFigures(known, currentPlan(known)).filter(({ id }) => id === "x")).toEqual([]);
    }
  });

  test("families: what is switched, what loads, what pushes, what has an arrow", () => {
    const of = (test_: (part: ReturnType<typeof newPart>) => boolean) =>
      kinds.filter((kind) => test_(newPart(kind, "x", at)));
    expect(of(isPowered)).toEqual(["pumpFilterUnit", ...pumpKinds, "dosingPump"]);
    expect(of(isPushing)).toEqual(["pumpFilterUnit", ...pumpKinds]);
    expect(of(isFiltering)).toEqual(["filter", "pumpFilterUnit"]);
    expect(of(isRated)).toEqual(["cooler", "fuelHeater", "flowMeter"]);
    expect(of(isPlainThrough)).toEqual(["waterSensor", "gauge", "samplingTap", "bleedScrew", "bulkhead"]);
    expect(of(hasArrow)).not.toContain("cooler");
    expect(of(hasArrow)).toContain("antiSiphon");
  });
});
