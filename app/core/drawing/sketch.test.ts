/** The small picture holds every body and hose of the drawing, inside its card, tanks left of what they feed. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { buildNetwork } from "../network/network";
import type { Job } from "../plan/types";
import { placedOf } from "./placed";
import { sketchOf } from "./sketch";

test("every body and hose, within the card, in its place", () => {
  const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
  const placed = placedOf(buildNetwork(job));
  const sketch = sketchOf(placed)!;
  expect(sketch.bodies).toHaveLength(placed.nodes.size);
  expect(sketch.hoses).toHaveLength(placed.edges.size);
  expect([sketch.width, sketch.height]).toEqual([
    Math.round(placed.width * Math.min(168 / placed.width, 72 / placed.height)),
    Math.round(placed.height * Math.min(168 / placed.width, 72 / placed.height)),
  ]);
  for (const { x, y, width: w, height: h } of sketch.bodies) {
    expect(x + w).toBeLessThanOrEqual(168 + 3);
    expect(y + h).toBeLessThanOrEqual(72 + 3);
    expect(Math.min(w, h)).toBeGreaterThanOrEqual(3);
  }
  expect(sketch.bodies.filter(({ is }) => is === "tank")).toHaveLength(3);
  expect(sketch.bodies.filter(({ is }) => is === "consumer").length).toBe(job.consumers.length);
});
