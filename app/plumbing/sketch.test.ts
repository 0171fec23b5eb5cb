/** The small picture holds every body and hose of the drawing, inside its card, tanks left of what they feed. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { plumbingGraph } from "./graph";
import type { Placed } from "./layout.client";
import { sketchOf } from "./sketch";

test("every body and hose, within the card, in its place", () => {
  const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
  const graph = plumbingGraph(job, currentPlan(job), buildNetwork(job));
  // Laid in a row by hand: the layouter itself is not asked here.
  const nodes = new Map(
    graph.nodes.map(({ id, width, height }, i) => [id, { x: 150 * i, y: 40, width, height: height + 30 }]),
  );
  const width = 150 * graph.nodes.length;
  const edges = new Map(
    graph.edges.map(({ id }, i) => [
      id,
      [
        { x: 10 * i, y: 0 },
        { x: width, y: 400 },
      ],
    ]),
  );
  const placed: Placed = { width, height: 400, nodes, ports: new Map(), edges };
  const sketch = sketchOf(graph, placed);
  expect(sketch.bodies).toHaveLength(graph.nodes.length);
  expect(sketch.hoses).toHaveLength(graph.edges.length);
  expect([sketch.width, sketch.height]).toEqual([168, Math.round((168 / width) * 400)]);
  for (const { x, y, width: w, height: h } of sketch.bodies) {
    expect(x + w).toBeLessThanOrEqual(168 + 3);
    expect(y + h).toBeLessThanOrEqual(72);
    expect(Math.min(w, h)).toBeGreaterThanOrEqual(3);
  }
  expect(sketch.bodies.filter(({ is }) => is === "tank")).toHaveLength(3);
  expect(sketch.bodies.filter(({ is }) => is === "consumer").length).toBe(job.consumers.length);
});
