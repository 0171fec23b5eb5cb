/** Hose paths by sampling, boards by voxels, rigid lines by a polyline's own length. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { bentLine } from "./bend";
import { holeSawFor, nextSaw } from "./holeSaw";
import { hosePath, type Pose, pathXz } from "./hosePath";
import { type Hung, type PanelPart, panelClashes, type Solid, turned } from "./panel";

const cm = (least: number, most: number) => fc.integer({ min: least, max: most }).map((one) => one / 100);
const pose = fc.record({ xM: cm(-60, 60), zM: cm(-60, 60), headingDeg: fc.integer({ min: 0, max: 359 }) });
const RAD = Math.PI / 180;

describe("the shortest hose between two ports", () => {
  const lengthOf = (points: readonly { xM: number; zM: number }[]) =>
    points.slice(1).reduce((sum, { xM, zM }, i) => {
      const before = points[i] as (typeof points)[number];
      return sum + Math.hypot(xM - before.xM, zM - before.zM);
    }, 0);

  test("its points lead from port to port, are as long as it says, and end in the port's heading", () => {
    fc.assert(
      fc.property(pose, pose, (from, to) => {
        const [radius, straight] = [0.076, 0.025];
        const path = hosePath(from, to, radius, straight);
        const xz = pathXz(from, to, radius, straight, 0.001);
        const points = Array.from({ length: xz.length / 2 }, (_, i) => ({
          xM: xz[2 * i] as number,
          zM: xz[2 * i + 1] as number,
          headingDeg: 0,
        }));
        const last = points.at(-1) as Pose;
        expect(Math.hypot(last.xM - to.xM, last.zM - to.zM)).toBeLessThan(1e-6);
        expect(Math.abs(lengthOf(points) - path.lengthM)).toBeLessThan(2e-5);
        // The last straight comes into the port against its heading.
        const before = points.at(-2) as Pose;
        const heading = Math.atan2(before.zM - to.zM, before.xM - to.xM) / RAD;
        const off = Math.abs(((((heading - to.headingDeg) % 360) + 540) % 360) - 180);
        expect(off).toBeLessThan(0.5);
      }),
      { numRuns: 300 },
    );
  });

  /**
   * The truth by sampling: ways of three turns or straights of any length, at the least radius, drawn at random. None
   * that ends at the port may be shorter.
   */
  test("no sampled way of turns and straights that arrives is shorter", () => {
    let seed = 3;
    const random = () => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed / 2147483648;
    };
    const radius = 0.076;
    for (let trial = 0; trial < 3000; trial++) {
      let at: Pose = { xM: 0, zM: 0, headingDeg: 0 };
      const from = at;
      let length = 0;
      for (let part = 0; part < 3; part++) {
        const sense = Math.floor(random() * 3) - 1;
        const run = random() * (sense === 0 ? 0.4 : 2 * Math.PI * radius);
        const turnDeg = (sense * run) / radius / RAD;
        const chord = sense === 0 ? run : 2 * radius * Math.sin(Math.abs(turnDeg * RAD) / 2);
        const heading = (at.headingDeg + turnDeg / 2) * RAD;
        at = {
          xM: at.xM + chord * Math.cos(heading),
          zM: at.zM + chord * Math.sin(heading),
          headingDeg: at.headingDeg + turnDeg,
        };
        length += run;
      }
      const to = { ...at, headingDeg: at.headingDeg + 180 };
      expect(hosePath(from, to, radius, 0).lengthM).toBeLessThanOrEqual(length + 1e-9);
    }
  });

  test("one way round is as long as the other", () => {
    fc.assert(
      fc.property(pose, pose, (from, to) => {
        const there = hosePath(from, to, 0.05, 0.02).lengthM;
        expect(hosePath(to, from, 0.05, 0.02).lengthM).toBeCloseTo(there, 9);
      }),
      { numRuns: 300 },
    );
  });
});

describe("a rigid line", () => {
  test("its length is that of its own points, arcs stepped finely", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 15, max: 150 }), { minLength: 1, maxLength: 4 }), (bendsDeg) => {
        const legs = [0, ...bendsDeg].map(() => 0.6);
        const radius = 0.03;
        const { developedM, straightsM, arcsM } = bentLine(legs, bendsDeg, radius);
        // Walked: straight, then the arc by chords.
        let walked = 0;
        bendsDeg.forEach((deg, i) => {
          walked += straightsM[i] as number;
          const steps = 2000;
          walked += steps * 2 * radius * Math.sin((deg * RAD) / steps / 2);
          expect(arcsM[i]).toBeCloseTo(radius * deg * RAD, 12);
        });
        walked += straightsM.at(-1) as number;
        expect(developedM).toBeCloseTo(walked, 6);
      }),
    );
  });

  test("legs that cannot hold their bends are less than nothing straight", () => {
    expect(bentLine([0.02, 0.3], [90], 0.05).straightsM[0]).toBeCloseTo(-0.03, 12);
  });
});

test("saws: the next of the series, none under what is needed, none beyond it", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 10, max: 170 }),
      fc.constantFrom("inch" as const, "metric" as const),
      (mm, of) => {
        const saw = nextSaw(mm / 1000, of);
        if (mm > 152) expect(saw).toBeNull();
        else
          expect(saw && saw.diameterM >= mm / 1000 - 1e-9 && saw.diameterM < mm / 1000 + 0.0085).toBe(
            mm >= 14 || !!saw,
          );
      },
    ),
  );
  expect(holeSawFor(0.02, 0.003, "metric", 0.023).fits).toBe(false);
  expect(holeSawFor(0.02, 0.003, "metric", 0.024)).toMatchObject({ fits: true, saw: { name: "24 mm" } });
});

describe("a board", () => {
  const solid = fc.record({
    x: fc.integer({ min: 0, max: 6 }),
    z: fc.integer({ min: 0, max: 6 }),
    w: fc.integer({ min: 1, max: 6 }),
    h: fc.integer({ min: 1, max: 6 }),
    y0: fc.integer({ min: 0, max: 3 }),
    y1: fc.integer({ min: 4, max: 7 }),
  });
  const part = (id: string) =>
    fc.record({
      id: fc.constant(id),
      w: fc.constant(12),
      h: fc.constant(12),
      serviced: fc.boolean(),
      bodies: fc.array(solid, { minLength: 1, maxLength: 2 }),
      service: fc.array(
        solid.map((one) => ({ ...one, kind: "driver" })),
        { maxLength: 1 },
      ),
    });
  const hung = fc.record({
    x: fc.integer({ min: 0, max: 10 }),
    z: fc.integer({ min: 0, max: 10 }),
    t: fc.integer({ min: 0, max: 3 }),
  });

  /** Cells of a solid once its part hangs there, turned cell by cell about the part's corner. */
  function cells(one: Solid, { w, h }: PanelPart, { x, z, t }: Hung): Set<string> {
    const found = new Set<string>();
    for (let i = one.x; i < one.x + one.w; i++)
      for (let k = one.z; k < one.z + one.h; k++)
        for (let y = one.y0; y < one.y1; y++) {
          let [a, b, width, height] = [i, k, w, h];
          for (let turn = 0; turn < t; turn++) [a, b, width, height] = [height - 1 - b, a, height, width];
          found.add(`${a + x},${b + z},${y}`);
        }
    return found;
  }
  const meet = (a: Set<string>, b: Set<string>) => [...a].some((cell) => b.has(cell));

  test("bodies and service rooms that share room are found, and only those: by voxels", () => {
    const big = { x: -50, z: -50, w: 200, h: 200 };
    fc.assert(
      fc.property(part("a"), part("b"), hung, hung, (a, b, atA, atB) => {
        const clashes = panelClashes({ board: big, opening: big, parts: [a, b], at: [atA, atB], gap: 0 });
        const any = (as: readonly Solid[], bs: readonly Solid[]) =>
          as.some((one) => bs.some((other) => meet(cells(one, a, atA), cells(other, b, atB))));
        const has = (code: string, first: string) =>
          clashes.some((clash) => clash.code === code && clash.a === first);
        expect(has("bodies", "a")).toBe(any(a.bodies, b.bodies));
        expect(has("serviceBlocked", "a")).toBe(any(a.service, b.bodies));
        expect(has("serviceBlocked", "b")).toBe(any(a.bodies, b.service));
      }),
      { numRuns: 400 },
    );
  });

  test("moved by what it says, two bodies stand free", () => {
    fc.assert(
      fc.property(part("a"), part("b"), hung, hung, fc.integer({ min: 0, max: 6 }), (a, b, atA, atB, gap) => {
        const frame = { x: -500, z: -500, w: 2000, h: 2000 };
        const [one] = [a, b].map(({ bodies, ...rest }) => ({
          ...rest,
          bodies: bodies.slice(0, 1),
          service: [],
        }));
        const two = { ...b, bodies: b.bodies.slice(0, 1), service: [] };
        const clash = (at: Hung) =>
          panelClashes({
            board: frame,
            opening: frame,
            parts: [one as PanelPart, two],
            at: [atA, at],
            gap,
          }).find(({ code }) => code === "bodies");
        const by = clash(atB)?.by;
        if (by === undefined) return;
        const moves = [
          [by, 0],
          [-by, 0],
          [0, by],
          [0, -by],
        ];
        expect(moves.some(([x = 0, z = 0]) => !clash({ ...atB, x: atB.x + x, z: atB.z + z }))).toBe(true);
      }),
    );
  });

  test("four quarter turns are none", () => {
    const one = { x: 3, z: 5, w: 2, h: 7 };
    expect(turned(one, { w: 20, h: 30 }, 4)).toEqual(one);
    expect(turned(one, { w: 20, h: 30 }, 1)).toEqual({ x: 30 - 5 - 7, z: 3, w: 7, h: 2 });
  });

  test("reach: what is serviced must come through the opening, what is not may stand behind the frame", () => {
    const opening = { x: 10, z: 10, w: 50, h: 50 };
    const board = { x: 0, z: 0, w: 70, h: 70 };
    const one: PanelPart = {
      id: "sep",
      w: 10,
      h: 10,
      bodies: [{ x: 0, z: 0, w: 10, h: 10, y0: 0, y1: 5 }],
      service: [{ kind: "lidLift", x: 0, z: 0, w: 10, h: 10, y0: 5, y1: 20 }],
    };
    const at = [{ x: 4, z: 20, t: 0 }];
    expect(panelClashes({ board, opening, parts: [one], at, gap: 6 })).toEqual([]);
    expect(panelClashes({ board, opening, parts: [{ ...one, serviced: true }], at, gap: 6 })).toEqual([
      { code: "outOfReach", a: "sep", b: "lidLift", by: 6, where: null, rooms: ["lidLift"] },
    ]);
  });
});
