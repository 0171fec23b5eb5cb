import { describe, expect, test } from "@jest/globals";
import { jobSchema } from "~/schemas/job";
import { planPart } from "~/schemas/part";
import { checkJob } from "../check/job";
import { applyCommand } from "../edit/commands";
import { throughPorts } from "../edit/standing";
import { startJob } from "../edit/starters";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { partLines } from "../parts/partsList";
import { assumedFigures } from "../plan/assumed";
import { type NewPartKind, newPart } from "../plan/blank";
import { currentPlan, fromTank, hasArrow, portsOf } from "../plan/ports";
import type { Job } from "../plan/types";
import {
  isConsumerKind,
  isFiltering,
  isLetIn,
  isPlainThrough,
  isPowered,
  isPushing,
  isRated,
} from "./families";
import { partKinds } from "./index";
import { offOf } from "./pumping";

const kinds = partKinds.filter((kind): kind is NewPartKind => !isConsumerKind(kind));
const letIn = kinds.filter(isLetIn);
const pumpKinds = ["liftPump", "inTankPump", "primingPump", "transferPump"];
const at = { xM: 1, yM: 0, zM: 0.5 };

/** The part `x` let into the job's first hose. */
const letInto = (job: Job, kind: NewPartKind): Job => {
  const [run] = currentPlan(job).runs;
  return applyCommand(job, { name: "insertPart", id: "x", kind, runId: run!.id, newRunId: "y" }).job;
};

describe("every kind of part", () => {
  test.each(kinds)(
    "%s: its figures are what the schema takes, its ports are its own, its way through is among them",
    (kind) => {
      const part = newPart(kind, "x", at);
      const ids = portsOf(part).map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      const through = throughPorts(part);
      expect(through !== null).toBe(isLetIn(kind));
      expect((through ?? []).every((id) => ids.includes(id))).toBe(true);
      const job = startJob("j", "J", "oneTank");
      const added = applyCommand(job, { name: "addPart", id: "x", kind, position: at }).job;
      expect(jobSchema.safeParse(added).error?.issues ?? []).toEqual([]);
      expect(checkJob(added)).toEqual([]);
      expect(partLines(currentPlan(added)).reduce((sum, { count }) => sum + count, 0)).toBe(
        currentPlan(added).parts.length,
      );
    },
  );

  test.each(letIn)(
    "%s: let into a hose it splits it, the plan still solves, and taken out the hose is whole again",
    (kind) => {
      const job = startJob("j", "J", "oneTank");
      const length = (one: Job) =>
        currentPlan(one).runs.reduce(
          (sum, { route }) => sum + (route.kind === "measured" ? route.lengthM : 0),
          0,
        );
      const inserted = letInto(job, kind);
      // One that hangs in the tank is screwed to its outlet.
      const grown = kind === "inTankPump" ? [0, 1] : [1, 0];
      expect(currentPlan(inserted).runs).toHaveLength(currentPlan(job).runs.length + (grown[0] ?? 0));
      expect(currentPlan(inserted).joints).toHaveLength(currentPlan(job).joints.length + (grown[1] ?? 0));
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

  test("an in-tank pump stands at its tank's outlet, and into no other hose it is let", () => {
    const job = startJob("j", "J", "oneTank");
    const inserted = letInto(job, "inTankPump");
    const plan = currentPlan(inserted);
    const [tank] = inserted.tanks;
    const outlet = tank!.ports.find(({ role }) => role === "outlet")!;
    expect(plan.parts.find(({ id }) => id === "x")?.position).toEqual(fromTank(tank!, outlet.outside));
    expect(plan.joints.at(-1)).toMatchObject({
      from: { part: tank!.id, port: outlet.id },
      to: { part: "x", port: "in" },
    });
    const other = currentPlan(job).runs.find(({ from, to }) => ![from.part, to.part].includes(tank!.id))!;
    expect(() =>
      applyCommand(job, { name: "insertPart", id: "x", kind: "inTankPump", runId: other.id, newRunId: "y" }),
    ).toThrow("notAtTank");
  });

  test.each(letIn)("%s: turned end for end twice it is as it was", (kind) => {
    const job = startJob("j", "J", "oneTank");
    const inserted = letInto(job, kind);
    const once = applyCommand(inserted, { name: "turnPart", id: "x" }).job;
    expect(currentPlan(once).runs).not.toEqual(currentPlan(inserted).runs);
    const twice = applyCommand(once, { name: "turnPart", id: "x" }).job;
    const ends = (one: Job) => currentPlan(one).runs.map(({ from, to }) => [from, to]);
    expect(ends(twice)).toEqual(ends(inserted));
  });

  test("a part joined to the plan tells what of it is assumed, and no longer once it is the maker's", () => {
    for (const kind of letIn) {
      const job = startJob("j", "J", "oneTank");
      const inserted = letInto(job, kind);
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
    expect(of(isRated)).toEqual(["strainer", "cooler", "fuelHeater", "flowMeter"]);
    expect(of(isPlainThrough)).toEqual([
      "block",
      "waterSensor",
      "gauge",
      "samplingTap",
      "thermometer",
      "bleedScrew",
      "bulkhead",
    ]);
    expect(of(hasArrow)).not.toContain("cooler");
    expect(of(hasArrow)).toContain("antiSiphon");
  });
});

test("how a pump stands still can be changed there and back, keeping the drop that was known", () => {
  const known = { kind: "free", dropPa: 6500 } as const;
  expect(offOf("bypass", known)).toMatchObject({ kind: "bypass", dropPa: 6500 });
  expect(offOf("free", offOf("bypass", known))).toEqual(known);
  expect(offOf("blocked", known)).toEqual({ kind: "blocked" });
  for (const kind of ["free", "bypass"] as const) {
    const part = { ...newPart("liftPump", "x", at), off: offOf(kind, { kind: "blocked" }) };
    expect(planPart.safeParse(part).error?.issues ?? []).toEqual([]);
  }
});

/** Marram's like: one tank, one line, an engine; a part let into its first hose. */
function withPart(kind: NewPartKind, change: Record<string, unknown> = {}) {
  const job = startJob("j", "J", "oneTank");
  const inserted = letInto(job, kind);
  return applyCommand(inserted, { name: "editPart", id: "x", change }).job;
}

function solvedAt(job: Job) {
  const network = buildNetwork(job);
  const result = new LineUpSolver(network).solve(network.plan.lineUps[0]!, network.plan.conditions);
  if (result.outcome !== "solved") throw new Error(result.outcome);
  return result;
}
const lossAt = (job: Job) => {
  const solved = solvedAt(job);
  const index = solved.network.linkOf.get("x") as number;
  const { from, to } = solved.network.links[index]!;
  return (solved.gaugePa[from] as number) - (solved.gaugePa[to] as number);
};

describe("kinds that came later", () => {
  test("a strainer takes its rated drop at its rated flow, by the square of flow (definition of a rated point)", () => {
    const job = withPart("strainer", { ratedDropPa: 4000 });
    const solved = solvedAt(job);
    const flow = solved.flow[solved.network.linkOf.get("x") as number] as number;
    const strainer = currentPlan(job).parts.find(({ id }) => id === "x");
    if (strainer?.kind !== "strainer") throw new Error("no strainer");
    const wanted = 4000 * (flow / strainer.ratedFlowM3S) ** 2 * (solved.settings.fuel.densityKgM3 / 830);
    expect(lossAt(job)).toBeCloseTo(wanted, 3);
  });

  test("a second medium takes its own drop on top of the first's, each as if it stood alone", () => {
    const plain = lossAt(withPart("filter"));
    const second = { micron: 2, ratedFlowM3S: 5e-5, ratedDropPa: 9000 };
    const alone = lossAt(withPart("filter", { ratedFlowM3S: 5e-5, ratedDropPa: 9000 }));
    expect(lossAt(withPart("filter", { second }))).toBeCloseTo(plain + alone, 6);
  });

  test("a block takes nothing: its two ports are one place", () => {
    const { nodeOf } = solvedAt(withPart("block")).network;
    expect(nodeOf.get("x.a")).toBe(nodeOf.get("x.b"));
  });

  test("a breather valve lowers every pressure by the vacuum that it needs to let air in", () => {
    const job = startJob("j", "J", "oneTank");
    const [tank] = job.tanks;
    const spare = { ...tank!.ports[1]!, id: "spare", name: "spare" };
    const drilled = applyCommand(job, {
      name: "editTank",
      id: tank!.id,
      change: { ports: [...tank!.ports, spare] },
    }).job;
    const added = applyCommand(drilled, {
      name: "addPart",
      id: "x",
      kind: "breatherValve",
      position: at,
    }).job;
    const fitted = applyCommand(added, {
      name: "join",
      id: "jx",
      from: { part: tank!.id, port: "spare" },
      to: { part: "x", port: "tank" },
    }).job;
    const engine = job.consumers[0]!.id;
    const gaugeOf = (one: Job) => {
      const solved = solvedAt(one);
      return solved.gaugePa[solved.network.nodeOf.get(`${engine}.feed`) as number] as number;
    };
    expect(gaugeOf(job) - gaugeOf(fitted)).toBeCloseTo(700, 3);
    const harder = applyCommand(fitted, { name: "editPart", id: "x", change: { opensInPa: 2000 } }).job;
    expect(gaugeOf(job) - gaugeOf(harder)).toBeCloseTo(2000, 3);
  });
});
