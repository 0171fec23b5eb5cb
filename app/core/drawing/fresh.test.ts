/** A drawing from nothing by what it must be: clean, as large as its room lets it, folded only where that is worth it. */
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import { buildNetwork } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { faultsOf } from "./checked.fixture";
import { boxOf, routed } from "./grid";
import { drawnHoses, drawnNodes } from "./nodes";
import { drawn } from "./placed";
import { ROOM, wholeIn } from "./room";
import { fresh } from "./settle";

/** A tank, so many parts in one line, and its consumer. */
function line(parts: number, starter: "heater" | "truck" = "truck"): Job {
  let job = startJob("s", "S", starter);
  const { id } = job.consumers[0]!;
  const kinds = ["filter", "twoWay", "liftPump", "check", "flowMeter"] as const;
  for (let i = 0; i < parts; i++) {
    const run = currentPlan(job).runs.find(({ to }) => to.part === id)!;
    const kind = kinds[i % kinds.length]!;
    job = applyCommand(job, { name: "insertPart", id: `n${i}`, kind, runId: run.id, newRunId: `r${i}` }).job;
  }
  return { ...job, plans: job.plans.map(({ places: _, sides: __, ...plan }) => plan) };
}
const laid = (job: Job) => {
  const network = buildNetwork(job);
  const settled = fresh(network);
  const placed = drawn(network, settled);
  const rows = new Set(currentPlan(job).parts.map(({ id }) => settled.places[id]!.y));
  return { network, settled, placed, rows };
};

describe("a line of parts", () => {
  test("that is seen whole at its full size is not folded", () => {
    const { placed, rows } = laid(line(0));
    expect(rows.size).toBe(1);
    expect(wholeIn(ROOM, placed)).toBeGreaterThan(0.9);
  });

  test("that is too long for its room is folded, and is never smaller than half its size up to thirty parts", () => {
    for (const parts of [8, 14, 20, 25]) {
      const { network, placed } = laid(line(parts));
      const faults = faultsOf(network, placed);
      expect([parts, faults.overPx, faults.throughBodies, faults.overNames, faults.noWay]).toEqual([
        parts,
        0,
        [],
        [],
        [],
      ]);
      // In one row it would be as wide as its bodies and names at least, a column between each two.
      const inOne = [...placed.nodes.values()].reduce((sum, { width }) => sum + width + 24, 0);
      expect(placed.width).toBeLessThan(inOne);
      expect([parts, wholeIn(ROOM, placed) >= 0.5]).toEqual([parts, true]);
    }
  });

  test("goes on from band to band in its order: each part right of the one before it, or in the next band", () => {
    const job = line(16, "heater");
    const { settled } = laid(job);
    const plan = currentPlan(job);
    const heater = job.consumers[0]!.id;
    const order: string[] = [];
    for (let at = job.tanks[0]!.id; at !== heater; ) {
      const next: string = plan.runs.find(({ from }) => from.part === at)!.to.part;
      if (next !== heater) order.push(next);
      at = next;
    }
    expect(order).toHaveLength(plan.parts.length);
    let turns = 0;
    order.slice(1).forEach((id, i) => {
      const [here, before] = [settled.places[id]!, settled.places[order[i]!]!];
      if (here.x > before.x) expect(Math.abs(here.y - before.y)).toBeLessThanOrEqual(3);
      else {
        turns += 1;
        expect(here.y).toBeGreaterThan(before.y + 3);
      }
    });
    expect(turns).toBeGreaterThan(0);
    expect(turns).toBeLessThan(4);
  });

  test("the tank stands at the beginning of the first band, the consumer at the end of the last", () => {
    const job = line(16);
    const { settled, placed } = laid(job);
    const tank = placed.nodes.get(job.tanks[0]!.id)!;
    const engine = placed.nodes.get(job.consumers[0]!.id)!;
    for (const { id } of currentPlan(job).parts) {
      expect(settled.places[id]!.x).toBeGreaterThan(settled.places[job.tanks[0]!.id]!.x - 8);
      expect(placed.nodes.get(id)!.x).toBeLessThan(engine.x + engine.width);
    }
    expect(engine.y).toBeGreaterThan(tank.y);
  });
});

describe("any drawing from nothing", () => {
  test("has all that is drawn in it once, by whole cells, from the top down", () => {
    for (let seed = 0; seed < 20; seed++) {
      const network = buildNetwork(randomJob(seed));
      const { places, sides } = fresh(network);
      const nodes = drawnNodes(network, sides);
      expect(Object.keys(places).sort()).toEqual(nodes.map(({ id }) => id).sort());
      for (const { x, y } of Object.values(places)) expect([x % 1, y % 1].map(Math.abs)).toEqual([0, 0]);
      expect(Math.min(...nodes.map(({ id, above }) => places[id]!.y - above))).toBeGreaterThanOrEqual(0);
    }
  });

  test("is as its box says: nothing stands or runs beside it", () => {
    for (let seed = 0; seed < 10; seed++) {
      const network = buildNetwork(randomJob(seed));
      const settled = fresh(network);
      const nodes = drawnNodes(network, settled.sides);
      const at = new Map(Object.entries(settled.places));
      const { ways } = routed(nodes, at, drawnHoses(network, nodes));
      const { width, height, nodes: boxes, edges } = drawn(network, settled);
      expect(boxOf(nodes, at, ways)).toEqual({ width, height });
      for (const box of boxes.values()) {
        expect(box.x).toBeGreaterThanOrEqual(0);
        expect(box.y).toBeGreaterThanOrEqual(0);
        expect(box.x + box.width).toBeLessThanOrEqual(width);
        expect(box.y + box.height).toBeLessThanOrEqual(height);
      }
      for (const points of edges.values())
        for (const { x, y } of points)
          expect([x >= 0, y >= 0, x <= width, y <= height]).toEqual([true, true, true, true]);
    }
  });

  test("in a ring, loose, or without any tank is laid out all the same", () => {
    const at = { xM: 0, yM: 0, zM: 0 };
    const bare = startJob("s", "S", "nothing");
    const loose = (["filter", "liftPump", "twoWay"] as const).reduce(
      (job, kind, i) => applyCommand(job, { name: "addPart", id: `l${i}`, kind, position: at }).job,
      bare,
    );
    const led = (job: Job, from: string, to: string) =>
      applyCommand(job, {
        name: "connect",
        id: `${from}${to}`,
        from: { part: from, port: "out" },
        to: { part: to, port: "in" },
      }).job;
    const joined = led(loose, "l0", "l1");
    const ring = led(joined, "l1", "l0");
    for (const job of [bare, loose, joined, ring]) {
      const { network, placed } = laid(job);
      const { overPx, throughBodies, overNames, noWay, bodiesMeet } = faultsOf(network, placed);
      expect([overPx, throughBodies, overNames, noWay, bodiesMeet]).toEqual([0, [], [], [], []]);
      expect(placed.nodes.size).toBe(currentPlan(job).parts.length);
    }
  });
});
