import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { BufferGeometry } from "three";
import { currentPlan, partsOf } from "~/core/plan/ports";
import type { Job, TankShape } from "~/core/plan/types";
import { type Corner, type Face, facesOf, roundFaces } from "~/core/tanks/faces";
import { hull, STEP_M, vee } from "~/core/tanks/shapes.fixture";
import { capacityM3 } from "~/core/tanks/tank";
import { partSolid } from "~/core/vehicle/bodies";
import { geometryOf } from "./geometry";

/** Triangles of a geometry, as the card draws them. */
function trianglesOf(geometry: BufferGeometry): [Corner, Corner, Corner][] {
  const at = geometry.getAttribute("position");
  const corner = (i: number): Corner => [at.getX(i), at.getY(i), at.getZ(i)];
  return Array.from({ length: at.count / 3 }, (_, t) => [
    corner(3 * t),
    corner(3 * t + 1),
    corner(3 * t + 2),
  ]);
}
const minus = (a: Corner, b: Corner): Corner => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: Corner, b: Corner): Corner => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const dot = (a: Corner, b: Corner) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const areaM2 = (triangles: readonly [Corner, Corner, Corner][]) =>
  triangles.reduce((sum, [a, b, c]) => sum + Math.hypot(...cross(minus(b, a), minus(c, a))) / 2, 0);
const volumeM3 = (triangles: readonly [Corner, Corner, Corner][]) =>
  triangles.reduce((sum, [a, b, c]) => sum + dot(a, cross(b, c)) / 6, 0);

describe("faces as triangles", () => {
  test("a flat step, which is not convex, keeps its area: 0.62 by 0.56 less 0.25 by 0.2", () => {
    const face: Face = STEP_M.map(([y, z]): Corner => [1, y, z]);
    const triangles = trianglesOf(geometryOf([face]));
    expect(triangles).toHaveLength(4);
    expect(areaM2(triangles)).toBeCloseTo(0.62 * 0.56 - 0.25 * 0.2, 6);
  });

  test("it does so whichever way the step lies in space", () => {
    const turns: ((corner: [number, number]) => Corner)[] = [
      ([y, z]) => [y, z, 3],
      ([y, z]) => [z, 2, y],
      // Leaning: 3, 4 and 5 are the sides of a right angle.
      ([y, z]) => [0.6 * y, 0.8 * y, z],
    ];
    for (const turn of turns)
      expect(areaM2(trianglesOf(geometryOf([STEP_M.map(turn)])))).toBeCloseTo(0.62 * 0.56 - 0.25 * 0.2, 6);
  });

  test("a face whose first three corners lie in one line is taken for what it is", () => {
    const face: Face = [
      [0, 0, 0],
      [0, 1, 0],
      [0, 2, 0],
      [0, 2, 1],
      [0, 0, 1],
    ];
    expect(areaM2(trianglesOf(geometryOf([face])))).toBeCloseTo(2, 6);
  });

  test("nothing is drawn of no faces, and of a face without an edge", () => {
    expect(geometryOf([]).getAttribute("position").count).toBe(0);
    expect(geometryOf([[[0, 0, 0]]]).getAttribute("position").count).toBe(0);
  });

  test.each<[string, TankShape, number]>([
    ["box", { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 }, 1e-6],
    ["V section", { kind: "prism", section: vee, lengthM: 1.04 }, 1e-6],
    ["step", { kind: "prism", section: STEP_M, lengthM: 0.505 }, 1e-6],
    // Its sides are no planes: which way they are cut in two matters by a little.
    ["hull", hull, 5e-3],
    ["dished drum", { kind: "cylinder", axis: "x", diameterM: 0.6, lengthM: 1.2, endDepthM: 0.15 }, 3e-2],
  ])("a tank's %s encloses its own volume, outwards", (_, shape, share) => {
    const drawn = volumeM3(trianglesOf(geometryOf(facesOf({ shape }).shell)));
    const exact = capacityM3({ shape });
    expect(Math.abs(drawn - exact) / exact).toBeLessThan(share);
    expect(drawn).toBeGreaterThan(0);
  });

  test("normals look outwards, as the lamp needs them", () => {
    const geometry = geometryOf(roundFaces(0.3, 1));
    const [at, normal] = [geometry.getAttribute("position"), geometry.getAttribute("normal")];
    let sideways = 0;
    for (let i = 0; i < at.count; i++) {
      const length = Math.hypot(normal.getX(i), normal.getY(i), normal.getZ(i));
      expect(length).toBeCloseTo(1, 4);
      // Of the sides: away from the middle line.
      if (Math.abs(normal.getX(i)) > 0.5) continue;
      sideways += 1;
      expect(normal.getY(i) * at.getY(i) + normal.getZ(i) * at.getZ(i)).toBeGreaterThan(0);
    }
    expect(sideways).toBeGreaterThan(0);
  });
});

describe("parts of the demo jobs", () => {
  const jobs = ["marram", "unit-12", "reading-van"].map(
    (name): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job,
  );
  test.each(jobs.map((job) => [job.name, job] as const))(
    "%s: each is a body that holds something",
    (_, job) => {
      const plan = currentPlan(job);
      for (const part of partsOf(job, plan)) {
        const volume = volumeM3(trianglesOf(geometryOf(partSolid(part, plan))));
        expect([part.name, volume > 1e-6]).toEqual([part.name, true]);
        expect([part.name, volume < 1]).toEqual([part.name, true]);
      }
    },
  );
});
