/** A head with two of each port: each pair is one place, whichever of it a hose is on. */
import { expect, test } from "@jest/globals";
import { bleedTask, provedBleed } from "../air/report";
import { faultsOf } from "../drawing/checked.fixture";
import { placedOf } from "../drawing/placed";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import { findingsOf } from "../findings/findings";
import { isJoined } from "../findings/flow/notJoined";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { derive } from "../order/derive";
import { ordered } from "../order/facts";
import { partLines } from "../parts/partsList";
import { currentPlan, joinedPorts } from "../plan/ports";
import type { Job, PortRef } from "../plan/types";

const twin = (job: Job): Job => {
  const { id } = currentPlan(job).parts.find(({ kind }) => kind === "filter")!;
  return applyCommand(job, { name: "editPart", id, change: { isTwin: true } }).job;
};
const job = startJob("j", "J", "oneTank");
const filter = currentPlan(job).parts.find(({ kind }) => kind === "filter")!;
const fed = (of: Job) => {
  const network = buildNetwork(of);
  const result = new LineUpSolver(network).solve(network.plan.lineUps[0]!, network.plan.conditions);
  return result.outcome === "solved" ? Math.max(...result.flow) : null;
};
/** Its hoses on other ports of its head. */
const moved = (of: Job, ports: Record<string, string>): Job => {
  const plan = currentPlan(of);
  const other = (ref: PortRef) =>
    ref.part === filter.id ? { ...ref, port: ports[ref.port] ?? ref.port } : ref;
  return {
    ...of,
    plans: of.plans.map((one) =>
      one === plan
        ? { ...one, runs: one.runs.map((run) => ({ ...run, from: other(run.from), to: other(run.to) })) }
        : one,
    ),
  };
};

test("by the second pair of ports passes what passes by the first", () => {
  const flow = fed(job)!;
  expect(flow).toBeGreaterThan(0);
  for (const ports of [{}, { in: "in2" }, { out: "out2" }, { in: "in2", out: "out2" }]) {
    const led = moved(twin(job), ports);
    expect(fed(led)).toBeCloseTo(flow, 12);
    expect(isJoined(filter, joinedPorts(currentPlan(led)))).toBe(Object.keys(ports).length === 0);
    const part = currentPlan(led).parts.find(({ id }) => id === filter.id)!;
    expect(isJoined(part, joinedPorts(currentPlan(led)))).toBe(true);
  }
});

test("turned, both pairs change ends; made plain again while a second port is in use, it is refused", () => {
  const led = moved(twin(job), { in: "in2" });
  const ends = (of: Job) =>
    currentPlan(of)
      .runs.flatMap(({ from, to }) => [from, to])
      .filter(({ part }) => part === filter.id)
      .map(({ port }) => port)
      .sort();
  expect(ends(led)).toEqual(["in2", "out"]);
  const turned = applyCommand(led, { name: "turnPart", id: filter.id }).job;
  expect(ends(turned)).toEqual(["in", "out2"]);
  expect(() => applyCommand(led, { name: "editPart", id: filter.id, change: { isTwin: false } })).toThrow();
});

test("in the parts list it is a line of its own", () => {
  const lines = partLines(currentPlan(twin(job))).filter(({ kind }) => kind === "filter");
  expect(lines.some(({ detail, ids }) => detail.isTwin === "yes" && ids.includes(filter.id))).toBe(true);
  expect(partLines(currentPlan(job)).every(({ detail }) => !("isTwin" in detail))).toBe(true);
});

test("drawn, each pair stands on one side, under one another, whichever is joined", () => {
  const { id } = filter;
  for (const of of [
    twin(job),
    moved(twin(job), { in: "in2" }),
    twin(applyCommand(job, { name: "turnPart", id }).job),
  ]) {
    const network = buildNetwork(of);
    const { ports } = placedOf(network);
    const at = (port: string) => ports.get(`${id}.${port}`)!;
    expect(at("in").side).toBe(at("in2").side);
    expect(at("out").side).toBe(at("out2").side);
    expect(at("in").side).not.toBe(at("out").side);
    expect(at("in2").y - at("in").y).toBe(24);
    const faults = faultsOf(network, placedOf(network));
    expect([faults.overPx, faults.throughBodies, faults.overNames, faults.noWay]).toEqual([0, [], [], []]);
  }
});

test("whichever of its ports are used: the same findings, the same work, bled as the plain head is", () => {
  const plugged = applyCommand(twin(job), {
    name: "editPart",
    id: filter.id,
    change: { sparePorts: { count: 0, plugged: true } },
  }).job;
  const told = (of: Job) =>
    findingsOf(of, [])
      .map(({ rule, grade, ids }) => `${rule} ${grade} ${ids.join(" ")}`)
      .sort();
  const worked = (of: Job) => {
    const { steps, found } = derive(of, null, currentPlan(of));
    const order = ordered(steps, found);
    return order.outcome === "order" ? order.steps.map(({ verb }) => verb).sort() : order.outcome;
  };
  const bled = (of: Job) => {
    const task = bleedTask(of, currentPlan(of).lineUps[0]!, { kind: "dry" });
    const found = task && provedBleed(of, task, of.schools);
    return found && [found.procedure.left, Math.round(found.procedure.airM3 * 1e9)];
  };
  for (const ports of [{ in: "in2" }, { in: "in2", out: "out2" }]) {
    const led = moved(plugged, ports);
    expect(told(led)).toEqual(told(job));
    expect(worked(led)).toEqual(worked(job));
    expect(bled(led)).toEqual(bled(job));
  }
}, 60_000);
