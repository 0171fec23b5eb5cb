import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { positionAt } from "../boards/board";
import { bodySizeOf } from "../boards/envelope";
import { partKinds } from "../kinds/index";
import { type NewPartKind, newBoard, newPart } from "../plan/blank";
import { currentPlan, partsOf } from "../plan/ports";
import type { Job } from "../plan/types";
import type { Face } from "../tanks/faces";
import { facesOf } from "../tanks/faces";
import { boardSolid, partSolid } from "./bodies";
import { assumedOf, outlineBodies, outlineOf, sizesOfForm, waterZM } from "./outline";
import { tankSolids } from "./tanks";

const demo = (name: string): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job;
const jobs = ["marram", "unit-12", "reading-van"].map(demo);

function boundsOf(faces: readonly Face[]): [number, number][] {
  const corners = faces.flatMap((face) => [...face]);
  return ([0, 1, 2] as const).map((axis) => {
    const values = corners.map((corner) => corner[axis]);
    return [Math.min(...values), Math.max(...values)];
  });
}
const sizeOf = (faces: readonly Face[]) => boundsOf(faces).map(([low, high]) => high - low);

describe("the outline", () => {
  test.each(jobs.map((job) => [job.name, job] as const))(
    "%s: everything stands inside what is assumed round it",
    (_, job) => {
      const plan = currentPlan(job);
      const size = outlineOf(job, plan);
      expect(assumedOf(job, size.form)).toEqual(sizesOfForm[size.form]);
      const [x, y] = boundsOf(outlineBodies(size).flatMap(({ faces }) => faces)) as [
        [number, number],
        [number, number],
      ];
      const laid = [...job.tanks.map(tankSolids), ...partsOf(job, plan).map((part) => partSolid(part, plan))];
      const [inX, inY, inZ] = boundsOf(laid.flat()) as [[number, number], [number, number], [number, number]];
      expect(inX[0]).toBeGreaterThan(x[0]);
      expect(inX[1]).toBeLessThan(x[1]);
      expect(inY[0]).toBeGreaterThan(y[0]);
      expect(inY[1]).toBeLessThan(y[1]);
      expect(inZ[0]).toBeGreaterThanOrEqual(size.groundZM);
      expect(inZ[1]).toBeLessThan(size.groundZM + size.heightM);
    },
  );

  test("a plan of a thousand parts has its outline too", () => {
    const job = jobs[0] as Job;
    const parts = Array.from({ length: 1000 }, (_, i) =>
      newPart("filter", `f${i}`, { xM: (i % 40) * 0.2, yM: 0, zM: 0.4 + 0.1 * Math.floor(i / 40) }),
    );
    const size = outlineOf(job, { ...currentPlan(job), parts });
    // 39 steps of 0.2 m and the engine at 0.4 m aft: the hull is at least as long.
    expect(size.lengthM).toBeGreaterThan(7.8);
    expect(size.heightM).toBeGreaterThan(0.4 + 2.4);
  });

  test("where nothing has a place yet it stands round its own", () => {
    const empty: Job = { ...(jobs[0] as Job), tanks: [], consumers: [] };
    const size = outlineOf(empty, { ...currentPlan(empty), parts: [] });
    for (const value of Object.values(size))
      expect(typeof value === "string" || Number.isFinite(value)).toBe(true);
    expect(size.groundZM).toBe(0);
  });

  test("is a hull for a boat, a truck for a truck, a van for a heater's; only a hull floats", () => {
    const sized = jobs.map((job) => outlineOf(job, currentPlan(job)));
    expect(sized.map(({ form }) => form)).toEqual(["hull", "truck", "van"]);
    expect(sized.map((size) => waterZM(size) !== null)).toEqual([true, false, false]);
    const [hull, truck, van] = sized.map(
      (size) => outlineBodies(size).filter(({ is }) => is === "wheel").length,
    );
    expect([hull, truck, van]).toEqual([0, 4, 4]);
  });

  const typed = fc.record({
    form: fc.constantFrom("hull" as const, "truck" as const, "van" as const),
    lengthM: fc.double({ min: 3, max: 30, noNaN: true }),
    widthM: fc.double({ min: 1, max: 8, noNaN: true }),
    heightM: fc.double({ min: 0.8, max: 6, noNaN: true }),
    frontXM: fc.double({ min: -5, max: 20, noNaN: true }),
    groundZM: fc.double({ min: -3, max: 3, noNaN: true }),
  });
  test("is drawn by the sizes that were typed, whichever they are", () => {
    const job = jobs[0] as Job;
    fc.assert(
      fc.property(typed, (outline) => {
        const size = outlineOf({ ...job, outline }, currentPlan(job));
        const [x, y, z] = boundsOf(outlineBodies(size).flatMap(({ faces }) => faces)) as [
          [number, number],
          [number, number],
          [number, number],
        ];
        expect(x[1]).toBeCloseTo(outline.frontXM, 9);
        expect(x[1] - x[0]).toBeCloseTo(outline.lengthM, 9);
        expect(y[1] - y[0]).toBeCloseTo(outline.widthM, 1);
        expect(z[0]).toBeCloseTo(outline.groundZM, 9);
        expect(z[1]).toBeCloseTo(outline.groundZM + outline.heightM, 9);
      }),
      { numRuns: 60 },
    );
  });
});

describe("bodies", () => {
  test.each(partKinds.filter((kind) => kind !== "engine" && kind !== "generator" && kind !== "heater"))(
    "a %s keeps to its size about its place",
    (kind) => {
      const part = newPart(kind as NewPartKind, "p", { xM: 1, yM: 2, zM: 3 });
      const { widthM, heightM, depthM } = bodySizeOf(part);
      const faces = partSolid(part, {});
      const [w, d, h] = sizeOf(faces) as [number, number, number];
      expect(w).toBeLessThanOrEqual(widthM + 1e-9);
      expect(d).toBeLessThanOrEqual(depthM + 1e-9);
      expect(h).toBeLessThanOrEqual(heightM + 1e-9);
      expect(Math.max(w / widthM, d / depthM, h / heightM)).toBeCloseTo(1, 1);
      for (const [axis, [low, high]] of boundsOf(faces).entries()) {
        expect(low).toBeLessThan([1, 2, 3][axis] as number);
        expect(high).toBeGreaterThan([1, 2, 3][axis] as number);
      }
    },
  );

  test.each([
    ["aft", [0.02, 0.3, 0.1]],
    ["forward", [0.02, 0.3, 0.1]],
    ["port", [0.3, 0.02, 0.1]],
    ["starboard", [0.3, 0.02, 0.1]],
  ] as const)(
    "hung on a board that looks %s it lies flat on it, and a quarter turn stands it up",
    (facing, flat) => {
      const board = { ...newBoard("b", "Board"), facing };
      const part = {
        ...newPart("block", "p", { xM: 0, yM: 0, zM: 0 }),
        size: { widthM: 0.3, heightM: 0.1, depthM: 0.02 },
      };
      for (const turn of [0, 1] as const) {
        const position = positionAt(board, part, { x: 0.2, z: 0.3, t: turn });
        const faces = partSolid(
          { ...part, position },
          { boards: [board], mounted: { p: { boardId: "b", turn } } },
        );
        const size = sizeOf(faces);
        const [alongX, alongY, high] = flat;
        const wanted =
          turn === 0 ? flat : [alongX === 0.3 ? high : alongX, alongY === 0.3 ? high : alongY, 0.3];
        size.forEach((value, axis) => expect(value).toBeCloseTo(wanted[axis] as number, 9));
      }
    },
  );

  test("a lever's end turns anticlockwise, seen from the front", () => {
    const board = {
      ...newBoard("b", "Board"),
      facing: "starboard" as const,
      corner: { xM: 0, yM: 0, zM: 0 },
    };
    const part = newPart("twoWay", "p", { xM: 0, yM: 0, zM: 0 });
    // Seen from starboard the right hand is forward. Its lever lies to the right at the top: a quarter turn puts it on the left, up.
    const spanAt = (turn: 0 | 1) =>
      boundsOf(partSolid(part, { boards: [board], mounted: { p: { boardId: "b", turn } } }));
    const { widthM, heightM } = bodySizeOf(part);
    const [x0] = spanAt(0) as [[number, number]];
    expect(x0[1]).toBeCloseTo(widthM / 2, 9);
    const [x1] = spanAt(1) as [[number, number]];
    expect(x1[0]).toBeCloseTo(-heightM / 2, 9);
    expect(x1[1]).toBeLessThanOrEqual(heightM / 2 + 1e-9);
  });

  test("a tank is turned by its yaw about its origin", () => {
    const tank = { ...(jobs[1] as Job).tanks[0]!, yawDeg: 90 };
    const [x, y] = boundsOf(tankSolids(tank)) as [[number, number], [number, number]];
    const own = boundsOf(facesOf(tank).shell) as [[number, number], [number, number]];
    expect(x[1] - x[0]).toBeCloseTo(own[1][1] - own[1][0], 9);
    expect(y[1] - y[0]).toBeCloseTo(own[0][1] - own[0][0], 9);
    expect(x[1]).toBeCloseTo(tank.origin.xM - own[1][0], 9);
  });
});

describe("a board", () => {
  test.each(["aft", "forward", "port", "starboard"] as const)(
    "that looks %s is a sheet behind what hangs on it",
    (facing) => {
      const board = { ...newBoard("b", "Board"), facing, corner: { xM: 1, yM: 2, zM: 3 } };
      const part = newPart("block", "p", { xM: 0, yM: 0, zM: 0 });
      const hung = { ...part, position: positionAt(board, part, { x: 0.1, z: 0.1, t: 0 }) };
      const plan = { boards: [board], mounted: { p: { boardId: "b", turn: 0 as const } } };
      const [sheet, body] = [boundsOf(boardSolid(board)), boundsOf(partSolid(hung, plan))];
      const size = sizeOf(boardSolid(board));
      const through = facing === "aft" || facing === "forward" ? 0 : 1;
      expect(size[2]).toBeCloseTo(board.heightM, 9);
      expect(size[1 - through]).toBeCloseTo(board.widthM, 9);
      expect(size[through]).toBeLessThan(0.02);
      // Its front is where the body's back is, and the body lies on the side that it looks to.
      const [at, other] = [sheet[through]!, body[through]!];
      if (facing === "aft" || facing === "starboard") expect(other[1]).toBeCloseTo(at[0], 9);
      else expect(other[0]).toBeCloseTo(at[1], 9);
      // Within the sheet's own outline.
      expect(body[2]![0]).toBeCloseTo(3.1, 9);
      expect(body[1 - through]![0]).toBeGreaterThan(sheet[1 - through]![0]);
      expect(body[1 - through]![1]).toBeLessThan(sheet[1 - through]![1]);
    },
  );
});
