import { describe, expect, test } from "@jest/globals";
import type { TankShape } from "../plan/types";
import { boxFaces, type Corner, type Face, facesOf, laidAlong, roundFaces } from "./faces";
import { hull, STEP_M, vee } from "./shapes.fixture";
import { capacityM3 } from "./tank";

/** Volume inside closed faces by the divergence theorem, each cut into triangles from its first corner. */
function volumeOf(faces: readonly Face[]): number {
  const triple = ([a, b, c]: readonly [Corner, Corner, Corner]) =>
    a[0] * (b[1] * c[2] - b[2] * c[1]) -
    a[1] * (b[0] * c[2] - b[2] * c[0]) +
    a[2] * (b[0] * c[1] - b[1] * c[0]);
  return faces
    .flatMap((face) =>
      face.slice(2).map((corner, i) => triple([face[0] as Corner, face[i + 1] as Corner, corner]) / 6),
    )
    .reduce((sum, part) => sum + part, 0);
}

/** Every edge of a closed body is run once each way. */
function isClosed(faces: readonly Face[]): boolean {
  const edges = new Map<string, number>();
  const at = (corner: Corner) =>
    corner.map((value) => value.toFixed(9).replace("-0.000000000", "0.000000000")).join();
  for (const face of faces)
    face.forEach((corner, i) => {
      const [a, b] = [at(corner), at(face[(i + 1) % face.length] as Corner)];
      if (a === b) return;
      const key = a < b ? `${a}|${b}` : `${b}|${a}`;
      edges.set(key, (edges.get(key) ?? 0) + (a < b ? 1 : -1));
    });
  return [...edges.values()].every((sum) => sum === 0);
}

const flat: [string, TankShape][] = [
  ["box", { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 }],
  ["V section", { kind: "prism", section: vee, lengthM: 1.04 }],
  [
    "step",
    {
      kind: "prism",
      lengthM: 0.505,
      section: STEP_M,
    },
  ],
  ["hull", hull],
];
const round = (["x", "y", "z"] as const).flatMap((axis): [string, TankShape, number][] => [
  [`drum along ${axis}`, { kind: "cylinder", axis, diameterM: 0.6, lengthM: 1.2 }, 0.02],
  [`dished along ${axis}`, { kind: "cylinder", axis, diameterM: 0.6, lengthM: 1.2, endDepthM: 0.15 }, 0.03],
]);

describe("faces of a tank", () => {
  // What they enclose is worked out elsewhere by exact integrals: the two ways know nothing of one another.
  test.each(flat)("%s: closed, outwards, and of its own volume", (_, shape) => {
    const { shell } = facesOf({ shape });
    expect(isClosed(shell)).toBe(true);
    if (shape.kind === "loft") expect(volumeOf(shell)).toBeCloseTo(capacityM3({ shape }), 3);
    else expect(volumeOf(shell)).toBeCloseTo(capacityM3({ shape }), 12);
  });

  test.each(round)(
    "%s: closed, and short of its volume by what a circle of 24 corners lacks",
    (_, shape, lacks) => {
      const { shell } = facesOf({ shape });
      expect(isClosed(shell)).toBe(true);
      const [drawn, exact] = [volumeOf(shell), capacityM3({ shape })];
      expect(drawn).toBeLessThan(exact);
      expect(drawn).toBeGreaterThan(exact * (1 - lacks));
    },
  );

  test("a drum with flat ends holds what a prism of 24 corners does: n/2 r² sin(2 pi/n) a metre", () => {
    expect(volumeOf(roundFaces(0.3, 2))).toBeCloseTo(12 * 0.09 * Math.sin((2 * Math.PI) / 24) * 2, 12);
  });

  test("a sump hangs from the floor over it", () => {
    const { sump } = facesOf({
      shape: { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 },
      sump: { xM: 0.3, yM: 0.2, diameterM: 0.1, depthM: 0.08, holeM: 0.06 },
    });
    const heights = sump.flat().map(([, , z]) => z);
    expect([Math.min(...heights), Math.max(...heights)]).toEqual([
      expect.closeTo(-0.08, 12),
      expect.closeTo(0, 12),
    ]);
    expect(volumeOf(sump)).toBeGreaterThan(0);
  });

  test("laid along another axis nothing is mirrored", () => {
    const box = boxFaces([0, 0, 0], [3, 2, 1]);
    for (const axis of ["x", "y", "z"] as const) expect(volumeOf(laidAlong(box, axis))).toBeCloseTo(6, 12);
  });
});
