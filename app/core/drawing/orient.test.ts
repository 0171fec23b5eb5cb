import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { gaugeAtPort, returnLinks } from "../hydraulics/derive";
import { solveLineUp } from "../hydraulics/solve";
import { isConsumer } from "../kinds/families";
import { buildNetwork, type Network } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { currentPlan, partsOf, portKey, portsOf } from "../plan/ports";
import type { Job } from "../plan/types";
import { orient, sidesFor } from "./orient";

const demo = (name: string): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job;
const jobs = ["marram", "unit-12", "reading-van"].map(demo);
const all: [string, Job][] = [
  ...jobs.flatMap((job) =>
    job.plans.map(({ id, name }): [string, Job] => [`${job.name}, ${name}`, { ...job, currentPlanId: id }]),
  ),
  ...[3, 14, 15, 92].map((seed): [string, Job] => [`drawn at random by ${seed}`, randomJob(seed)]),
];

/** Joins by their ends, whatever they are. */
const joinsOf = ({ plan }: Network) => [...plan.runs, ...plan.joints];

describe("which way a hose is drawn", () => {
  test.each(all)("%s: away from a tank and towards a consumer, whatever flows", (_, job) => {
    const network = buildNetwork(job);
    const { forward } = orient(network);
    const tanks = new Set(job.tanks.map(({ id }) => id));
    const consumers = new Set(job.consumers.map(({ id }) => id));
    for (const { id, from, to } of joinsOf(network)) {
      if (tanks.has(from.part) && !tanks.has(to.part)) expect([id, forward.get(id)]).toEqual([id, true]);
      if (tanks.has(to.part) && !tanks.has(from.part)) expect([id, forward.get(id)]).toEqual([id, false]);
      if (consumers.has(to.part) && !tanks.has(from.part)) expect([id, forward.get(id)]).toEqual([id, true]);
      if (consumers.has(from.part)) expect([id, forward.get(id)]).toEqual([id, false]);
    }
  });

  test.each(all)(
    "%s: every hose and joint has a way, and it does not hang on how it is written",
    (_, job) => {
      const network = buildNetwork(job);
      const { forward } = orient(network);
      expect([...forward.keys()].toSorted()).toEqual(
        joinsOf(network)
          .map(({ id }) => id)
          .toSorted(),
      );
      const { plans, currentPlanId } = job;
      // Hoses alone: of a joint that nothing flows through there is no first end.
      const turned = plans.map((plan) =>
        plan.id === currentPlanId
          ? { ...plan, runs: plan.runs.map((run) => ({ ...run, from: run.to, to: run.from })) }
          : plan,
      );
      const other = orient(buildNetwork({ ...job, plans: turned }));
      const byTanks = new Set(job.tanks.map(({ id }) => id));
      const flowing = new Set(
        currentPlan(job).lineUps.flatMap((lineUp) => {
          const result = solveLineUp(network, lineUp, network.plan.conditions);
          if (result.outcome !== "solved") return [];
          return network.plan.runs.flatMap(({ id }) => {
            const index = network.linkOf.get(id);
            return index !== undefined && Math.abs(result.flow[index] as number) > 1e-9 ? [id] : [];
          });
        }),
      );
      for (const { id, from, to } of network.plan.runs) {
        const isBetweenTanks = byTanks.has(from.part) && byTanks.has(to.part);
        if (!isBetweenTanks && flowing.has(id))
          expect([id, other.forward.get(id)]).toEqual([id, !forward.get(id)]);
      }
    },
  );

  test("supply goes with its flow, return against it, in the one line-up that a plan has", () => {
    for (const job of jobs) {
      const plan = currentPlan(job);
      const [first] = plan.lineUps;
      const only: Job = {
        ...job,
        plans: job.plans.map((one) => (one.id === plan.id ? { ...one, lineUps: [first!] } : one)),
      };
      const network = buildNetwork(only);
      const result = solveLineUp(network, first!, network.plan.conditions);
      if (result.outcome !== "solved") throw new Error(`${job.name} does not solve`);
      const returns = returnLinks(result);
      const { forward } = orient(network);
      const ends = new Set([...job.tanks, ...job.consumers].map(({ id }) => id));
      let told = 0;
      for (const { id, from, to } of network.plan.runs) {
        const index = network.linkOf.get(id)!;
        const q = result.flow[index] as number;
        if (q === 0 || ends.has(from.part) || ends.has(to.part)) continue;
        expect([job.name, id, forward.get(id)]).toEqual([job.name, id, q > 0 !== (returns[index] === 1)]);
        told += 1;
      }
      expect(told).toBeGreaterThan(1);
      // Nothing here hangs on the pressure: it is there at either end.
      expect(Number.isFinite(gaugeAtPort(result, portKey(network.plan.runs[0]!.from)))).toBe(true);
    }
  });
});

describe("what only return passes", () => {
  test("in Marram its manifold and the tee before it, never what feeds", () => {
    const marram = jobs[0] as Job;
    const { returnOnly } = orient(buildNetwork(marram));
    const names = currentPlan(marram)
      .parts.filter(({ id }) => returnOnly.has(id))
      .map(({ name }) => name);
    expect(names).toContain("Return manifold");
    for (const name of ["Supply manifold", "Separator 1", "Lift pump", "Secondary"])
      expect(names).not.toContain(name);
  });
  test("in Unit 12 its cooler", () => {
    const unit = jobs[1] as Job;
    const { returnOnly } = orient(buildNetwork(unit));
    const names = currentPlan(unit).parts.flatMap(({ id, name }) => (returnOnly.has(id) ? [name] : []));
    expect(names).toEqual(["Return cooler"]);
  });
  test("in a heater's line without a return nothing", () => {
    expect(orient(buildNetwork(jobs[2] as Job)).returnOnly.size).toBe(0);
  });
});

describe("the sides of ports", () => {
  test.each(all)(
    "%s: each port of a part is on one side, and what has two ports has one on each",
    (_, job) => {
      const network = buildNetwork(job);
      const sides = sidesFor(network, orient(network), {});
      for (const part of partsOf(job, network.plan)) {
        const own = sides[part.id];
        if (isConsumer(part)) {
          expect(own).toBeUndefined();
          continue;
        }
        const ids = portsOf(part).map(({ id }) => id);
        expect([...own!.west, ...own!.east].toSorted()).toEqual(ids.toSorted());
        if (ids.length === 2 && part.kind !== "gauge")
          expect([own!.west.length, own!.east.length]).toEqual([1, 1]);
      }
    },
  );

  test.each(all)("%s: what a part was drawn with once it is drawn with again", (_, job) => {
    const network = buildNetwork(job);
    const oriented = orient(network);
    const once = sidesFor(network, oriented, {});
    expect(sidesFor(network, oriented, once)).toEqual(once);
    // Turned by hand, it stays turned.
    const part = network.plan.parts.find((one) => portsOf(one).length === 2);
    if (!part) return;
    const { west, east } = once[part.id]!;
    const turned = { ...once, [part.id]: { west: east, east: west } };
    expect(sidesFor(network, oriented, turned)[part.id]).toEqual({ west: east, east: west });
  });
});
