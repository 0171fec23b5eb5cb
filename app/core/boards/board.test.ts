import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Command } from "../edit/command";
import { applyCommand, playPatches } from "../edit/commands";
import { type Arranged, arrange, type BoardTask, judgeBoard, portAt, propose } from "../fit/arrange";
import { exampleBoard, inACorner } from "../fit/board.fixture";
import { type Laid, layHose } from "../fit/laying";
import { type Hung, type PanelPart, panelClashes, placedIn, type Solid } from "../fit/panel";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { newBoard } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Facing, Job } from "../plan/types";
import { boardJudged, boardLayout, cornerOf, fromBoard, lidsHeld, ontoBoard, positionAt } from "./board";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;

/** Whole cells that a box fills, as text: the slow truth about what shares room. */
function cells({ x, z, w, h, y0, y1 }: Solid): Set<string> {
  const all = new Set<string>();
  for (let i = x; i < x + w; i++)
    for (let k = z; k < z + h; k++) for (let j = y0; j < y1; j++) all.add(`${i},${k},${j}`);
  return all;
}
const share = (as: readonly Solid[], bs: readonly Solid[]): boolean => {
  const filled = new Set(as.flatMap((a) => [...cells(a)]));
  return bs.some((b) => [...cells(b)].some((cell) => filled.has(cell)));
};

describe("clashes of a board", () => {
  const size = fc.integer({ min: 1, max: 5 });
  const place = fc.integer({ min: -2, max: 8 });
  const solid = fc.record({
    x: fc.constant(0),
    z: fc.constant(0),
    w: size,
    h: size,
    y0: fc.integer({ min: 0, max: 2 }),
    y1: fc.integer({ min: 3, max: 5 }),
  });
  const part = fc.record({
    body: solid,
    room: solid,
    at: fc.record({ x: place, z: place, t: fc.integer({ min: 0, max: 3 }) }),
    serviced: fc.boolean(),
  });

  test("are those that whole cells show, for bodies, rooms, reach and edge", () => {
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 3 }), (drawn) => {
        const parts: PanelPart[] = drawn.map(({ body, room, serviced }, i) => ({
          id: `p${i}`,
          w: body.w,
          h: body.h,
          serviced,
          bodies: [body],
          service: [{ kind: "lidLift", ...room, z: body.h }],
        }));
        const at = drawn.map((one) => one.at);
        const board = { x: 0, z: 0, w: 9, h: 9 };
        const opening = { x: 1, z: 1, w: 6, h: 6 };
        const found = panelClashes({ board, opening, parts, at, gap: 0 });
        const has = (code: string, a: string, b?: string) =>
          found.some((one) => one.code === code && one.a === a && (b === undefined || one.b === b));
        const placed = parts.map((one, i) => ({
          bodies: one.bodies.map((box) => placedIn(box, one, at[i] as Hung)),
          rooms: (one.service ?? []).map((box) => placedIn(box, one, at[i] as Hung)),
        }));
        const within = ({ x, z, w, h }: Solid, frame: typeof board) =>
          x >= frame.x && z >= frame.z && x + w <= frame.x + frame.w && z + h <= frame.z + frame.h;
        placed.forEach((one, i) => {
          expect(has("offBoard", `p${i}`)).toBe(!one.bodies.every((box) => within(box, board)));
          expect(has("outOfReach", `p${i}`)).toBe(
            (parts[i]?.serviced ?? false) && !one.rooms.every((box) => within(box, opening)),
          );
          placed.forEach((other, j) => {
            if (j > i) expect(has("bodies", `p${i}`, `p${j}`)).toBe(share(one.bodies, other.bodies));
            if (j !== i) expect(has("serviceBlocked", `p${i}`, `p${j}`)).toBe(share(one.rooms, other.bodies));
          });
        });
      }),
      { numRuns: 120 },
    );
  });

  test("what they both want is told with the clash", () => {
    const body = { x: 0, z: 0, w: 4, h: 4, y0: 0, y1: 4 };
    const parts = ["a", "b"].map((id): PanelPart => ({ id, w: 4, h: 4, bodies: [body] }));
    const board = { x: 0, z: 0, w: 20, h: 20 };
    const at = [
      { x: 0, z: 0, t: 0 },
      { x: 3, z: 1, t: 0 },
    ];
    expect(panelClashes({ board, opening: board, parts, at, gap: 0 })).toEqual([
      { code: "bodies", a: "a", b: "b", by: 1, where: { x: 3, z: 1, w: 1, h: 3 }, rooms: [] },
    ]);
  });
});

const TWO_MM = 0.002;
/** Points of a hose as it lies, every two millimetres. */
function along({ fromM: [x0, z0], xzM }: Laid): [number, number][] {
  const points: [number, number][] = [];
  for (let i = 0; i + 3 < xzM.length; i += 2) {
    const [ax, az, bx, bz] = [0, 1, 2, 3].map((k) => xzM[i + k] as number) as [
      number,
      number,
      number,
      number,
    ];
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, bz - az) / TWO_MM));
    for (let s = 0; s < steps; s++)
      points.push([x0 + ax + ((bx - ax) * s) / steps, z0 + az + ((bz - az) * s) / steps]);
  }
  return points;
}

/** The slow judge of hoses: walked in steps of two millimetres through every box at the lane's depth. */
function hosesThrough(task: BoardTask, { at, hoses }: Arranged): string[] {
  const boxes = task.parts.flatMap((part, i) =>
    [...part.bodies, ...(part.service ?? [])].map((box) => ({
      id: part.id,
      ...placedIn(box, part, at[i] as Hung),
    })),
  );
  return hoses.flatMap((laid, h) => {
    const hose = task.hoses[h] as BoardTask["hoses"][number];
    const ends = [hose.from, hose.to].flatMap((end) => ("part" in end ? [task.parts[end.part]?.id] : []));
    const points = along(laid);
    return boxes.flatMap((box) => {
      if (ends.includes(box.id) || box.y0 >= laid.laneM || box.y1 <= laid.laneM) return [];
      return points.some(([x, z]) => x > box.x && x < box.x + box.w && z > box.z && z < box.z + box.h)
        ? [`${hose.id} through ${box.id}`]
        : [];
    });
  });
}

describe("a board arranged", () => {
  // With hose of a quarter inch, so that a short search finds something; the bench has the tighter one.
  const RADIUS_M = 0.05;
  const task = exampleBoard(RADIUS_M, 0.0125);
  const known = new Map<number, Arranged>();
  const search = (seed: number): Arranged => {
    const had = known.get(seed);
    if (had) return had;
    const found = searched(seed);
    known.set(seed, found);
    return found;
  };
  const searched = (seed: number, rounds = 2): Arranged => {
    const steps = arrange(task, inACorner(task), { seed, moves: rounds === 1 ? 400 : 2500, rounds });
    for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
  };

  test("what is called legal is so by a slow walk, and hose goes from port to port", () => {
    const legal = [2, 4, 6].map((seed) => search(seed)).filter(({ isLegal }) => isLegal);
    expect(legal.length).toBeGreaterThan(0);
    for (const one of legal) {
      expect(hosesThrough(task, one)).toEqual([]);
      expect(panelClashes({ ...task, at: one.at, gap: task.gapM })).toEqual([]);
      one.hoses.forEach((laid, h) => {
        const { from, to } = task.hoses[h] as BoardTask["hoses"][number];
        const port = (end: typeof from) =>
          "edge" in end ? end.edge : portAt(task.parts[end.part]!, one.at[end.part] as Hung, end.port);
        const [a, b] = [port(from), port(to)];
        const reach = laid.elbows.map((elbow) => (elbow === 0 ? 1e-6 : 0.0251));
        const [x0, z0] = laid.fromM;
        const n = laid.xzM.length;
        expect(
          Math.hypot(x0 + (laid.xzM[0] as number) - a.x, z0 + (laid.xzM[1] as number) - a.z),
        ).toBeLessThan(reach[0] as number);
        expect(
          Math.hypot(x0 + (laid.xzM[n - 2] as number) - b.x, z0 + (laid.xzM[n - 1] as number) - b.z),
        ).toBeLessThan(reach[1] as number);
      });
    }
  });

  test("no hose bends tighter than it may: the circle through any three points near each other is as large", () => {
    for (const laid of search(2).hoses) {
      if (laid.isNipple) continue;
      const points = along(laid);
      for (let i = 0; i + 20 < points.length; i += 5) {
        const [a, b, c] = [points[i], points[i + 10], points[i + 20]] as [number, number][] as [
          [number, number],
          [number, number],
          [number, number],
        ];
        const area = Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2;
        const sides = [
          Math.hypot(b[0] - a[0], b[1] - a[1]),
          Math.hypot(c[0] - b[0], c[1] - b[1]),
          Math.hypot(a[0] - c[0], a[1] - c[1]),
        ];
        const radius = area < 1e-9 ? Infinity : (sides[0]! * sides[1]! * sides[2]!) / (4 * area);
        // Three points of a chain of chords see a little tighter a circle than the arc they stand for.
        expect(radius).toBeGreaterThan(RADIUS_M * 0.9);
      }
    }
  });

  test("is the same for the same seed, and another for another", () => {
    const [a, b, c] = [searched(5, 1), searched(5, 1), searched(6, 1)];
    expect(b.at).toEqual(a.at);
    expect(c.at).not.toEqual(a.at);
  });

  test("leaves what is pinned where it is, and says nothing can be done where all is", () => {
    const at = inACorner(task).map((one, i) => ({ ...one, x: 0.05 * i, z: 0.1 }));
    const pinned = { ...task, parts: task.parts.map((part, i) => ({ ...part, isPinned: i < 3 })) };
    const found = propose(pinned, at, { seed: 1, moves: 300, rounds: 1 }, () => undefined);
    expect(found.best.at.slice(0, 3)).toEqual(at.slice(0, 3));
    const all = { ...task, parts: task.parts.map((part) => ({ ...part, isPinned: true })) };
    expect([...arrange(all, at, { seed: 1, moves: 300, rounds: 1 })]).toEqual([]);
  });

  test("with hose that bends three times as wide nothing is found, and that is said with what would do", () => {
    const stiff = { ...exampleBoard(0.23, 0.03), hoses: exampleBoard(0.23, 0.03).hoses.slice(0, 4) };
    const found = propose(stiff, inACorner(stiff), { seed: 1, moves: 300, rounds: 1 }, () => undefined);
    expect(found.best.isLegal).toBe(false);
    const easy = { ...exampleBoard(0.02, 0.006), hoses: exampleBoard(0.02, 0.006).hoses.slice(2, 3) };
    expect(
      propose(easy, inACorner(easy), { seed: 1, moves: 1500, rounds: 2 }, () => undefined),
    ).toMatchObject({ best: { isLegal: true }, instead: null });
  });

  test("an empty board is in order", () => {
    const bare: BoardTask = { ...task, parts: [], hoses: [] };
    expect(judgeBoard(bare, [])).toMatchObject({ isLegal: true, hoseM: 0 });
    expect(propose(bare, [], { seed: 1, moves: 10, rounds: 1 }, () => undefined).instead).toBeNull();
  });
});

describe("a hose between two ports", () => {
  const area = { x: -1, z: -1, w: 3, h: 3 };
  const port = (x: number, z: number, dir: number, y = 0.03) => ({ x, z, dir, y });
  const hose = (from: ReturnType<typeof port>, to: ReturnType<typeof port>) => ({
    from,
    to,
    fromPart: 0,
    toPart: 1,
    radiusM: 0.08,
    outerM: 0.016,
  });

  test("straight across is as long as it is far, with no elbow; ports near each other take a nipple", () => {
    expect(layHose(hose(port(0, 0, 0), port(0.5, 0, 2)), [], area, [], true)).toMatchObject({
      lengthM: expect.closeTo(0.5, 9),
      elbows: [0, 0],
      isNipple: false,
      through: [],
    });
    expect(layHose(hose(port(0, 0, 0), port(0.04, 0, 2)), [], area, [], true)).toMatchObject({
      lengthM: 0.04,
      isNipple: true,
    });
  });

  test("takes the second lane over a low part, and goes round a deep one", () => {
    const low = { of: 7, x: 0.2, z: -0.4, w: 0.1, h: 0.8, y0: 0, y1: 0.06 };
    const over = layHose(hose(port(0, 0, 0), port(0.5, 0, 2)), [low], area, [0.084], false);
    expect(over.through).toEqual([]);
    expect(over.laneM).toBe(0.084);
    expect(over.lengthM).toBeCloseTo(0.5 + 2 * 0.054, 9);
    const deep = { ...low, y1: 0.2 };
    const blocked = layHose(hose(port(0, 0, 0), port(0.5, 0, 2)), [deep], area, [0.084], false);
    expect(blocked.through).toEqual([7]);
  });
});

describe("a board in the vehicle", () => {
  const facings: Facing[] = ["forward", "aft", "port", "starboard"];
  test("a place goes to the vehicle and back, whichever way the board looks", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...facings),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (facing, x, z, y) => {
          const board = { ...newBoard("b", "B"), facing };
          const back = ontoBoard(board, fromBoard(board, x, z, y));
          expect(back.xM).toBeCloseTo(x, 9);
          expect(back.zM).toBeCloseTo(z, 9);
          expect(back.outM).toBeCloseTo(y, 9);
        },
      ),
    );
  });

  test("to whoever looks forward, starboard is to the right; out of the board is towards them", () => {
    const board = { ...newBoard("b", "B"), corner: { xM: 0, yM: 0, zM: 0 } };
    const at = (facing: Facing, x: number, out: number) => fromBoard({ ...board, facing }, x, 0, out);
    expect(at("aft", 1, 0).yM).toBeCloseTo(-1, 12);
    expect(at("aft", 0, 1).xM).toBeCloseTo(-1, 12);
    // Looking to port, forward is to the right: the board's front looks to starboard.
    expect(at("starboard", 1, 0).xM).toBeCloseTo(1, 12);
    expect(at("starboard", 0, 1).yM).toBeCloseTo(-1, 12);
    expect(at("port", 1, 0).xM).toBeCloseTo(-1, 12);
    expect(at("forward", 1, 0).yM).toBeCloseTo(1, 12);
  });

  test("a part lifted on the board is lifted in the plan, and the pressure at it falls by its height of fuel", () => {
    const job = marram();
    const plan = currentPlan(job);
    const layout = boardLayout(job, plan, "hatch")!;
    const i = layout.parts.findIndex(({ id }) => id === "vacuum");
    const part = layout.parts[i]!;
    const at = layout.at[i]!;
    const lifted = applyCommand(job, {
      name: "hang",
      boardId: "hatch",
      at: [
        { id: "vacuum", position: positionAt(layout.board, part, { ...at, z: at.z + 0.1 }), turn: at.t as 0 },
      ],
    }).job;
    const before = (of: Job) => {
      const network = buildNetwork(of);
      const own = currentPlan(of);
      const { way } = judgeLineUp(new LineUpSolver(network), own.lineUps[0]!, own.conditions);
      return way!.stations.find(({ id }) => id === "vacuum")!.beforePa;
    };
    // A tenth of a metre of diesel of 815 to 845 kg/m3.
    const fellPa = before(job) - before(lifted);
    expect(fellPa).toBeGreaterThan(815 * 9.80665 * 0.1 * 0.99);
    expect(fellPa).toBeLessThan(845 * 9.80665 * 0.1 * 1.01);
  });

  test("what hangs on a board goes where it goes, and all of it comes back with undo", () => {
    const job = marram();
    const board = currentPlan(job).boards![0]!;
    const command: Command = {
      name: "editBoard",
      id: "hatch",
      change: { corner: { ...board.corner, zM: board.corner.zM + 0.2 } },
    };
    const applied = applyCommand(job, command);
    const z = (of: Job) => currentPlan(of).parts.find(({ id }) => id === "sep1")!.position.zM;
    expect(z(applied.job)).toBeCloseTo(z(job) + 0.2, 9);
    const [a, b] = [job, applied.job].map((of) => boardLayout(of, currentPlan(of), "hatch")!.at);
    b!.forEach((one, i) => {
      expect(one.x).toBeCloseTo(a![i]!.x, 9);
      expect(one.z).toBeCloseTo(a![i]!.z, 9);
    });
    expect(playPatches(applied.job, applied.inverse)).toEqual(job);
  });

  test("a hose that no longer reaches as it was measured is told by name; one that was worked out is not", () => {
    const job = marram();
    const plan = currentPlan(job);
    const layout = boardLayout(job, plan, "hatch")!;
    const i = layout.parts.findIndex(({ id }) => id === "vacuum");
    const far = { ...layout.at[i]!, z: layout.at[i]!.z + 1.5 };
    const position = positionAt(layout.board, layout.parts[i]!, far);
    const command: Command = { name: "hang", boardId: "hatch", at: [{ id: "vacuum", position, turn: 0 }] };
    const measured = (basis: "measured" | "assumed") =>
      applyCommand(
        {
          ...job,
          plans: job.plans.map((one) => ({
            ...one,
            runs: one.runs.map((run) => ({ ...run, given: { lengthM: { basis } } })),
          })),
        },
        command,
      );
    expect(measured("measured").notes).toEqual([
      { code: "measuredLost", ids: expect.arrayContaining(["run8", "run9"]) },
    ]);
    expect(measured("assumed").notes).toEqual([]);
  });

  test("a board that goes leaves its parts where they are, on no board; a part that goes leaves the board", () => {
    const job = marram();
    const gone = applyCommand(job, { name: "removeBoard", id: "hatch" }).job;
    expect(currentPlan(gone).mounted).toEqual({});
    expect(currentPlan(gone).parts).toEqual(currentPlan(job).parts);
    const without = applyCommand(job, { name: "removePart", id: "vacuum" }).job;
    expect(currentPlan(without).mounted?.vacuum).toBeUndefined();
    expect(boardLayout(without, currentPlan(without), "hatch")!.parts.map(({ id }) => id)).not.toContain(
      "vacuum",
    );
    expect(boardLayout(job, currentPlan(job), "nowhere")).toBeNull();
  });

  test("pins, turns and takes down; a thing that is not there is refused by name", () => {
    const job = marram();
    const apply = (command: Command) => applyCommand(job, command).job;
    expect(currentPlan(apply({ name: "pin", id: "sep2", isPinned: true })).mounted?.sep2?.pinned).toBe(true);
    expect(
      currentPlan(apply({ name: "pin", id: "sep1", isPinned: false })).mounted?.sep1?.pinned,
    ).toBeUndefined();
    expect(currentPlan(apply({ name: "takeDown", id: "sep1" })).mounted?.sep1).toBeUndefined();
    expect(() => apply({ name: "takeDown", id: "lift" })).toThrow("noSuch");
    expect(() => apply({ name: "hang", boardId: "none", at: [] })).toThrow("noSuch");
    const added = apply({ name: "addBoard", board: newBoard("second", "Second") });
    expect(currentPlan(added).boards?.map(({ id }) => id)).toEqual(["hatch", "second"]);
  });

  test("a handle that keeps the lid open says by how much and which line-ups leave it so; hung again it stays", () => {
    const job = marram();
    const plan = currentPlan(job);
    const handle = { position: "shut", standsOutM: 0.3 };
    const set = applyCommand(job, { name: "setHandle", id: "valve2", handle }).job;
    const layout = (one: Job) => boardLayout(one, currentPlan(one), "hatch")!;
    const { lidM } = plan.boards!.find(({ id }) => id === "hatch")!.opening;
    const [held, ...others] = lidsHeld(layout(set), currentPlan(set));
    expect(others).toEqual([]);
    expect(held?.byM).toBeCloseTo(0.3 - lidM, 12);
    const shutIn = plan.lineUps.filter(({ valves }) => {
      const setting = valves.valve2;
      return setting?.kind === "position" && setting.position === "shut";
    });
    expect(held?.lineUps).toEqual(shutIn.map(({ name }) => name));
    expect(shutIn.length).toBeGreaterThan(0);
    const at = {
      id: "valve2",
      position: plan.parts.find(({ id }) => id === "valve2")!.position,
      turn: 1,
    } as const;
    const hung = applyCommand(set, { name: "hang", boardId: "hatch", at: [at] }).job;
    expect(currentPlan(hung).mounted?.valve2?.handle).toEqual(handle);
    const none = applyCommand(set, { name: "setHandle", id: "valve2", handle: null }).job;
    expect(lidsHeld(layout(none), currentPlan(none))).toEqual([]);
  });

  test("a turned body keeps its middle", () => {
    const job = marram();
    const layout = boardLayout(job, currentPlan(job), "hatch")!;
    const part = layout.parts.find(({ id }) => id === "valve2")!;
    const [a, b] = [0, 1].map((turn) => cornerOf(layout.board, part, turn as 0 | 1));
    expect(positionAt(layout.board, part, a!)).toEqual(
      expect.objectContaining({ zM: expect.closeTo(part.position.zM, 9) }),
    );
    expect(positionAt(layout.board, part, b!).yM).toBeCloseTo(part.position.yM, 9);
  });

  test("a body deeper than the lid is told by how much, and parts screwed together that hang apart", () => {
    const job = marram();
    const shallow = applyCommand(job, {
      name: "editBoard",
      id: "hatch",
      change: { opening: { ...currentPlan(job).boards![0]!.opening, lidM: 0.12 } },
    }).job;
    const judged = boardJudged(boardLayout(shallow, currentPlan(shallow), "hatch")!);
    // A separator stands 130 mm out.
    expect(judged.tooDeep.map(({ id, byM }) => [id, Math.round(byM * 1000)])).toEqual([
      ["sep1", 10],
      ["sep2", 10],
    ]);
    const layout = boardLayout(job, currentPlan(job), "hatch")!;
    const i = layout.parts.findIndex(({ id }) => id === "valve1");
    const far = boardJudged(
      layout,
      layout.at.map((one, k) => (k === i ? { ...one, x: one.x + 0.4 } : one)),
    );
    expect(far.apart.map(({ a, b }) => [a, b].sort())).toContainEqual(["sep1", "valve1"]);
  });
});
