import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { clipLines } from "~/core/parts/clips";
import { lyingRuns } from "~/core/plan/lying";
import { currentPlan, distanceM } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { boxFaces, roundFaces } from "~/core/tanks/faces";
import { levelOfVolumeM } from "~/core/tanks/tank";
import { nearestThatWay } from "~/plumbing/walk";
import {
  aspects,
  type Frame,
  framed,
  middlesOf,
  named,
  placer,
  type SeenBody,
  seenBodies,
  silhouette,
} from "./flat";
import { type Body, cornersOf, laidRun, sceneOf } from "./scene";

const demo = (name: string): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job;
const jobs = ["marram", "unit-12", "reading-van"].map(demo);

const frame: Frame = { pxPerM: 100, middle: { xM: 0, yM: 0, zM: 0 }, size: { xM: 4, yM: 4, zM: 4 } };

/** Areas of the faces of a way, px2, each with the sign of its turn. */
const areasOf = (way: string): number[] =>
  way
    .split("Z")
    .filter(Boolean)
    .map((face) => {
      const points = face
        .slice(1)
        .split("L")
        .map((one) => one.split(" ").map(Number) as [number, number]);
      return (
        points.reduce((sum, [x, y], i) => {
          const [x2, y2] = points[(i + 1) % points.length]!;
          return sum + x * y2 - x2 * y;
        }, 0) / 2
      );
    });

describe("where a place stands", () => {
  const at = (id: keyof typeof aspects, xM: number, yM: number, zM: number) =>
    placer(aspects[id], frame, 400, 400)({ xM, yM, zM });

  test("forward is to the left, up is up; from above port is below; from behind port is to the left", () => {
    expect(at("side", 1, 9, 0.5)).toEqual([100, 150]);
    expect(at("plan", 1, 0.5, 9)).toEqual([100, 250]);
    expect(at("stern", 9, 1, 0.5)).toEqual([100, 150]);
  });

  test("a height is the same from the side and from behind, a length the same from the side and from above", () => {
    for (const [x, y, z] of [
      [0.3, -0.8, 1.1],
      [-1.7, 0.2, -0.4],
    ] as const) {
      expect(at("side", x, y, z)[1]).toBe(at("stern", x, y, z)[1]);
      expect(at("side", x, y, z)[0]).toBe(at("plan", x, y, z)[0]);
    }
  });
});

describe("the frame", () => {
  test.each(jobs.map((job) => [job.name, job] as const))("%s: all of it is in every view", (_, job) => {
    const { bodies } = sceneOf(job, currentPlan(job));
    for (const [width, isNarrow] of [
      [850, false],
      [390, true],
    ] as const) {
      const all = cornersOf(bodies);
      const { pxPerM, size } = framed(all, width, isNarrow);
      expect((isNarrow ? Math.max(size.xM, size.yM) : size.xM + size.yM) * pxPerM).toBeLessThan(width);
      expect((size.yM + size.zM) * pxPerM).toBeLessThan(500);
    }
  });
  test("of nothing, and of one place, is a frame too", () => {
    for (const all of [[], [{ xM: 2, yM: 1, zM: 0.5 }]])
      for (const value of [framed(all, 850, false)].flatMap(({ pxPerM, size }) => [
        pxPerM,
        ...Object.values(size),
      ])) {
        expect(Number.isFinite(value)).toBe(true);
        expect(value).toBeGreaterThan(0);
      }
  });
});

describe("a silhouette", () => {
  const faces = boxFaces([-0.5, -0.25, -0.1], [0.5, 0.25, 0.1]);

  test.each([
    ["side", 1 * 0.2],
    ["plan", 1 * 0.5],
    ["stern", 0.5 * 0.2],
  ] as const)("of a box from %s is its near and its far face, turned the same way", (id, areaM2) => {
    const areas = areasOf(silhouette(faces, placer(aspects[id], frame, 400, 400)));
    expect(areas).toHaveLength(2);
    for (const area of areas) expect(area).toBeCloseTo(areaM2 * 1e4, 6);
  });

  test("of a drum from its end is its circle twice, from its side its length by its width twice", () => {
    const drum = roundFaces(0.4, 1.5);
    const sum = (id: keyof typeof aspects) =>
      areasOf(silhouette(drum, placer(aspects[id], frame, 400, 400))).reduce(
        (total, area) => total + area,
        0,
      );
    // Of a polygon of 24 corners: n/2 r2 sin(2 pi/n).
    expect(sum("stern") / 1e4).toBeCloseTo(2 * 12 * 0.16 * Math.sin(Math.PI / 12), 2);
    expect(sum("side") / 1e4).toBeCloseTo(2 * 1.5 * 0.8, 2);
  });
});

describe("what stands before what", () => {
  const box = (key: string, x: number, y: number, z: number): Body => ({
    key,
    is: "part",
    id: key,
    name: key,
    faces: boxFaces([x, y, z], [x + 0.1, y + 0.1, z + 0.1]),
  });
  const bodies = [
    box("port", 0, 1, 0),
    box("starboard", 0, -1, 0),
    box("ahead", 1, 0, 0),
    box("over", 0, 0, 1),
  ];
  const order = (id: keyof typeof aspects) =>
    seenBodies(bodies, aspects[id], placer(aspects[id], frame, 400, 400)).solids.map(({ body }) => body.key);

  test("from port side starboard is drawn first and port last", () => {
    expect(order("side")[0]).toBe("starboard");
    expect(order("side").at(-1)).toBe("port");
  });
  test("from behind what is ahead is drawn first, from above what is over the others last", () => {
    expect(order("stern")[0]).toBe("ahead");
    expect(order("plan").at(-1)).toBe("over");
  });
  test("the vehicle's own outline is apart, whatever it is of", () => {
    const shells: Body[] = (["shell", "frame", "wheel"] as const).map((is) => ({ ...box(is, 0, 0, 0), is }));
    const place = placer(aspects.side, frame, 400, 400);
    const { outline, solids } = seenBodies([...bodies, ...shells], aspects.side, place);
    expect(outline.map(({ body }) => body.is)).toEqual(["shell", "frame", "wheel"]);
    expect(solids).toHaveLength(bodies.length);
  });
  test("a body's box is what it covers of the view", () => {
    const place = placer(aspects.side, frame, 400, 400);
    const [seen] = seenBodies([box("one", 0.5, 0, 0.2)], aspects.side, place).solids;
    expect(seen).toEqual(
      expect.objectContaining({
        left: expect.closeTo(140, 9),
        right: expect.closeTo(150, 9),
        top: expect.closeTo(170, 9),
        bottom: expect.closeTo(180, 9),
      }),
    );
  });
});

describe("names", () => {
  const seen = (name: string, x: number, top: number, bottom: number): SeenBody => ({
    body: { key: name, is: "tank", id: name, name, faces: [] },
    d: "",
    depthM: 0,
    left: x - 20,
    right: x + 20,
    top,
    bottom,
  });

  test("stand over what they name; the nearer one has the place, the farther one goes under", () => {
    expect(named([seen("far", 100, 100, 150), seen("near", 100, 100, 150)], [])).toEqual([
      { id: "near", name: "near", x: 100, y: 95 },
      { id: "far", name: "far", x: 100, y: 164 },
    ]);
  });
  test("a third one goes without, and so does what has no name", () => {
    const { name: _, ...nameless } = seen("x", 400, 100, 150).body;
    const all = ["a", "b", "c"].map((name) => seen(name, 100, 100, 150));
    expect(named([...all, { ...seen("x", 400, 100, 150), body: nameless }], [])).toHaveLength(2);
  });
  test("stand clear of what is told already, and under the view's own name", () => {
    expect(named([seen("tank", 100, 100, 150)], [{ name: "hot: pipe", x: 110, y: 96 }])[0]?.y).toBe(164);
    expect(named([seen("tank", 100, 20, 60)], [])[0]?.y).toBe(74);
  });

  test.each(jobs.map((job) => [job.name, job] as const))(
    "%s: no two of a view lie on one another",
    (_, job) => {
      const { bodies } = sceneOf(job, currentPlan(job));
      const own = framed(cornersOf(bodies), 850, false);
      for (const aspect of Object.values(aspects)) {
        const { solids } = seenBodies(bodies, aspect, placer(aspect, own, 600, 250));
        const names = named(solids, []);
        expect(names.length).toBeGreaterThan(0);
        names.forEach((a, i) => {
          for (const b of names.slice(0, i))
            expect(
              Math.abs(a.y - b.y) > 12 || Math.abs(a.x - b.x) > ((a.name.length + b.name.length) / 2) * 6,
            ).toBe(true);
        });
      }
    },
  );
});

describe("the scene", () => {
  test.each(jobs.map((job) => [job.name, job] as const))(
    "%s: every tank, part and consumer is a body by its id, tanks with their fuel's own level",
    (_, job) => {
      const plan = currentPlan(job);
      const { bodies, size, waterM } = sceneOf(job, plan);
      const ids = bodies.flatMap(({ id }) => (id === undefined ? [] : [id]));
      expect(new Set(ids).size).toBe(ids.length);
      expect(ids.toSorted()).toEqual(
        [...job.tanks, ...plan.parts, ...job.consumers].map(({ id }) => id).toSorted(),
      );
      expect(new Set(bodies.map(({ key }) => key)).size).toBe(bodies.length);
      for (const tank of job.tanks) {
        const body = bodies.find(({ id }) => id === tank.id);
        const level = tank.origin.zM + levelOfVolumeM(tank, plan.conditions.aboardM3[tank.id] ?? 0);
        expect(body?.surfaceM).toBeCloseTo(level, 9);
        const heights = cornersOf([body as Body]).map(({ zM }) => zM);
        expect(body?.surfaceM).toBeGreaterThanOrEqual(Math.min(...heights) - 1e-9);
        expect(body?.surfaceM).toBeLessThanOrEqual(Math.max(...heights) + 1e-9);
      }
      if (waterM !== null) expect(waterM).toBeGreaterThan(size.groundZM);
    },
  );

  test.each(jobs.map((job) => [job.name, job] as const))(
    "%s: clips lie on their line, as many as the parts list buys for it",
    (_, job) => {
      const plan = currentPlan(job);
      const lines = new Map(clipLines(job, plan).map((line) => [line.runId, line.clips]));
      for (const lying of lyingRuns(job, plan)) {
        const wanted = lines.get(lying.run.id) ?? [];
        const { points, clips } = laidRun(lying, wanted);
        expect(clips).toHaveLength(wanted.length);
        for (const clip of clips) {
          // On a stretch the way by the clip is as long as the stretch.
          const away = points.slice(1).map((b, i) => {
            const a = points[i]!;
            return distanceM(a, clip) + distanceM(clip, b) - distanceM(a, b);
          });
          expect(Math.min(...away)).toBeLessThan(1e-9);
        }
      }
    },
  );
});

describe("what is gone to by keys", () => {
  const aspect = aspects.side;
  test("bodies by the middle of what is seen, lines by halfway along", () => {
    const place = placer(
      aspect,
      { pxPerM: 100, middle: { xM: 0, yM: 0, zM: 0 }, size: { xM: 1, yM: 1, zM: 1 } },
      400,
      400,
    );
    const box = {
      key: "t",
      is: "tank" as const,
      id: "t",
      faces: [
        [
          [0, 0, 0],
          [1, 0, 0],
          [1, 0, 1],
          [0, 0, 1],
        ],
      ] as never,
    };
    const { solids } = seenBodies([box], aspect, place);
    const points = [
      { xM: -1, yM: 0, zM: 0 },
      { xM: -1, yM: 0, zM: 0.5 },
      { xM: -1, yM: 0, zM: 2 },
    ];
    const middles = middlesOf(solids, [{ run: { id: "r" } as never, points, clips: [] }], place);
    // Forward is to the left, up is up: 100 px to the metre from the middle of 400.
    expect(middles.get("t")).toEqual({ x: 150, y: 150 });
    expect(middles.get("r")).toEqual({ x: 300, y: 100 });
    expect(nearestThatWay(middles, "t", "ArrowRight")).toBe("r");
    expect(nearestThatWay(middles, "r", "ArrowLeft")).toBe("t");
    expect(nearestThatWay(middles, "t", "ArrowLeft")).toBeNull();
  });
});
