/**
 * The drawing held against what must be true of any such drawing, asked of its corners and boxes alone: nothing lies
 * on anything else, everything has a way. Counts of crossings and bends are those of a layered layout engine of
 * general purpose (elkjs 0.12.1, network simplex, orthogonal routing), measured on the same plans on 2026-11-27.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { CommandRefused } from "../edit/command";
import { applyCommand, playPatches } from "../edit/commands";
import { type StarterId, starterIds, startJob } from "../edit/starters";
import { buildNetwork } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { seeded } from "../random/seeded";
import { carryOut } from "./carryOut";
import { type Faults, faultsOf } from "./checked.fixture";
import { goldenOf } from "./golden.fixture";
import { placedOf } from "./placed";
import { randomEdit } from "./randomEdit.fixture";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const marram = read("marram");
/** A starter whose ids are the same at each run: what is tied is told apart by them. */
function start(id: StarterId): Job {
  const known = new Map<string, string>();
  const named = JSON.stringify(startJob("s", "S", id)).replace(
    /"id":"([a-z0-9]{10})"/g,
    (whole, made: string) => {
      known.set(made, `id${known.size}`);
      return whole;
    },
  );
  const stable = [...known].reduce((text, [made, said]) => text.replaceAll(`"${made}"`, `"${said}"`), named);
  return JSON.parse(stable) as Job;
}
/** Every plan of the demo jobs and of the starters, laid out from nothing. */
const real: [string, Job][] = [
  ...["marram", "unit-12", "reading-van"].flatMap((name): [string, Job][] => {
    const job = read(name);
    return job.plans.map(({ id }) => [`${name} ${id}`, { ...job, currentPlanId: id }]);
  }),
  ...starterIds.map((id): [string, Job] => [id, start(id)]),
];
const unplaced = (job: Job): Job => ({
  ...job,
  plans: job.plans.map(({ places: _, sides: __, ...plan }) => plan),
});
const drawnFaults = (job: Job): Faults => {
  const network = buildNetwork(job);
  return faultsOf(network, placedOf(network));
};
const clean = { overPx: 0, throughBodies: [], overNames: [], noWay: [], bodiesMeet: [], slanted: 0 };
const total = (all: readonly Faults[], of: "crossings" | "bends") =>
  all.reduce((sum, one) => sum + one[of], 0);

/** Written anew by `GOLDEN=write npx jest placing`, and looked at before they are kept. */
describe("golden drawings", () => {
  test.each(real)("%s is drawn from nothing as it was when it was last looked at", (name, job) => {
    const file = `app/core/drawing/golden/${name.replaceAll(/[^A-Za-z0-9]+/g, "-")}.svg`;
    const svg = goldenOf(buildNetwork(unplaced(job)));
    if (process.env.GOLDEN === "write") writeFileSync(file, svg);
    expect(svg).toBe(readFileSync(file, "utf8"));
  });
});

describe("a plan laid out from nothing", () => {
  test("the demo jobs' and the starters' are clean, with fewer crossings and bends than a layout engine", () => {
    const all = real.map(([, job]) => drawnFaults(unplaced(job)));
    all.forEach((one, i) => expect([real[i]?.[0], one]).toEqual([real[i]?.[0], { ...one, ...clean }]));
    // The engine: 26 crossings and 126 bends.
    expect(total(all, "crossings")).toBeLessThanOrEqual(26);
    expect(total(all, "bends")).toBeLessThanOrEqual(0.8 * 126);
  });

  test("forty plans joined at random as well", () => {
    const all = Array.from({ length: 40 }, (_, seed) => drawnFaults(randomJob(seed)));
    all.forEach((one, seed) => expect([seed, one]).toEqual([seed, { ...one, ...clean }]));
    // The engine: 182 crossings and 1,072 bends.
    expect(total(all, "crossings")).toBeLessThanOrEqual(182);
    expect(total(all, "bends")).toBeLessThanOrEqual(0.8 * 1072);
  });

  test("and it is the same each time", () => {
    const once = placedOf(buildNetwork(unplaced(marram)));
    expect(placedOf(buildNetwork(structuredClone(unplaced(marram))))).toEqual(once);
  });

  test("tanks stand on the left, consumers on the right; supply comes in over the return", () => {
    const { nodes, ports } = placedOf(buildNetwork(unplaced(marram)));
    const x = (id: string) => nodes.get(id)?.x ?? Number.NaN;
    for (const { id } of marram.tanks)
      for (const part of currentPlan(marram).parts) expect(x(id)).toBeLessThan(x(part.id));
    for (const { id } of marram.consumers)
      for (const part of currentPlan(marram).parts) expect(x(id)).toBeGreaterThan(x(part.id));
    expect(ports.get("engine.feed")?.y).toBeLessThan(ports.get("engine.return")?.y ?? 0);
    // Supply with its flow from left to right, return against it.
    const side = (key: string) => ports.get(key)?.side;
    expect([side("lift.in"), side("lift.out")]).toEqual(["WEST", "EAST"]);
    expect(side("teeRet.a")).toBe("EAST");
  });

  test("a part with one way through has its two ports on two sides, however it is joined", () => {
    for (let seed = 0; seed < 40; seed++) {
      const job = randomJob(seed);
      const { ports } = placedOf(buildNetwork(job));
      for (const { id, kind } of currentPlan(job).parts) {
        if (!["twoWay", "filter", "liftPump", "check", "gauge"].includes(kind)) continue;
        const sides = [...ports].flatMap(([key, { side }]) => (key.startsWith(`${id}.`) ? [side] : []));
        expect(sides.sort()).toEqual(["EAST", "WEST"]);
      }
    }
  });

  test("hoses from tank to tank, both ways and in a ring", () => {
    let job = start("threeTanks");
    const ids = job.tanks.map(({ id }) => id);
    for (const tank of job.tanks) {
      const spare = (id: string, role: "outlet" | "return") => ({ ...tank.ports[0]!, id, name: id, role });
      const ports = [...tank.ports, spare("x", "outlet"), spare("y", "return")];
      job = applyCommand(job, { name: "editTank", id: tank.id, change: { ports } }).job;
    }
    ids.forEach((id, i) => {
      const to = { part: ids[(i + 1) % ids.length] as string, port: "y" };
      job = applyCommand(job, { name: "connect", id: `ring${i}`, from: { part: id, port: "x" }, to }).job;
    });
    const faults = drawnFaults(unplaced(job));
    expect(faults).toEqual({ ...faults, ...clean });
  });

  test("what stands loose stands in a tray under the rest", () => {
    const at = { xM: 0, yM: 0, zM: 0 };
    const job = applyCommand(unplaced(marram), {
      name: "addPart",
      id: "loose",
      kind: "filter",
      position: at,
    }).job;
    const { nodes } = placedOf(buildNetwork(job));
    const loose = nodes.get("loose")!;
    for (const [id, { y, height }] of nodes) if (id !== "loose") expect(y + height).toBeLessThan(loose.y);
  });
});

describe("an edit", () => {
  const plans: [string, Job][] = [
    ["marram", marram],
    ["unit-12", read("unit-12")],
    ["reading-van", read("reading-van")],
    ...(["twoTanksTwoSelectors", "threeTanks", "twinEngine", "truck", "nothing"] as const).map(
      (id): [string, Job] => [id, start(id)],
    ),
  ];
  /** What fifty edits at random moved, px by part that stood, and the state after each. */
  const edited = (name: string, first: Job) => {
    const random = seeded(name.length * 31 + 7);
    const moves: { by: string; px: number[] }[] = [];
    const states: Job[] = [];
    let job = first;
    for (let turn = 0; turn < 50; turn++) {
      const command = randomEdit(job, random, turn);
      if (!command) continue;
      try {
        const applied = carryOut(job, command);
        expect(playPatches(applied.job, applied.inverse)).toEqual(job);
        const [before, after] = [job, applied.job].map((one) => currentPlan(one).places ?? {});
        const px = Object.entries(before!).flatMap(([id, { x, y }]) => {
          const now = after![id];
          return now ? [12 * Math.hypot(now.x - x, now.y - y)] : [];
        });
        moves.push({ by: command.name, px });
        job = applied.job;
        states.push(job);
      } catch (error) {
        if (!(error instanceof CommandRefused)) throw error;
      }
    }
    return { moves, states };
  };

  test("moves what it must and nothing else, in 400 of them; undo brings every place back", () => {
    const all = plans.map(([name, job]) => edited(name, job));
    const px = all.flatMap(({ moves }) => moves.flatMap((one) => one.px)).sort((a, b) => a - b);
    expect(px.length).toBeGreaterThan(5000);
    expect(px.reduce((sum, one) => sum + one, 0) / px.length).toBeLessThan(8);
    expect(px[Math.floor(0.95 * px.length)]).toBeLessThanOrEqual(36);
    expect(px.filter((one) => one === 0).length / px.length).toBeGreaterThan(0.93);
    // These move something only where a hose would find no clean way, or a larger part stands where a small one did.
    const still = ["removePart", "disconnect", "replacePart", "addPart", "addTank", "addEngine"];
    const calm = all.flatMap(({ moves }) => moves.filter(({ by }) => still.includes(by)));
    const moved = all.flatMap(({ moves }) =>
      moves.filter(({ by, px: own }) => still.includes(by) && own.some((one) => one > 0)),
    );
    expect(calm.length).toBeGreaterThan(100);
    expect(moved.length).toBeLessThanOrEqual(0.03 * calm.length);
    // Every third state on the way, and the last.
    for (const { states } of all)
      for (const job of states.filter((_, i) => i % 3 === 0 || i === states.length - 1)) {
        const faults = drawnFaults(job);
        expect(faults).toEqual({ ...faults, ...clean });
      }
  });

  /** The hose with the longest level stretch. */
  const longest = (job: Job, edges: ReadonlyMap<string, readonly { x: number; y: number }[]>) => {
    const level = (id: string) => {
      const points = edges.get(id) ?? [];
      return points.length === 2 ? Math.abs(points[1]!.x - points[0]!.x) : 0;
    };
    return [...currentPlan(job).runs].sort((a, b) => level(b.id) - level(a.id))[0]!;
  };

  test("lets a part in where its hose lies, and leaves the rest", () => {
    const job = start("oneTank");
    const { cells: before, edges } = placedOf(buildNetwork(job));
    const run = longest(job, edges);
    const after = carryOut(job, {
      name: "insertPart",
      id: "n",
      kind: "twoWay",
      runId: run.id,
      newRunId: "nr",
    }).job;
    const placed = placedOf(buildNetwork(after));
    const first = Math.max(...edges.get(run.id)!.map(({ x }) => x));
    for (const [id, { x, y }] of before) {
      const now = placed.cells.get(id)!;
      expect([id, now.y]).toEqual([id, y]);
      if (x * 12 < first - 24) expect([id, now.x]).toEqual([id, x]);
    }
    expect(placed.edges.get("nr")?.length).toBe(2);
  });

  test("a loose part goes to where it is joined", () => {
    const at = { xM: 0, yM: 0, zM: 0 };
    const hung = carryOut(start("oneTank"), { name: "addPart", id: "n", kind: "filter", position: at }).job;
    const run = longest(hung, placedOf(buildNetwork(hung)).edges);
    const cut = carryOut(hung, { name: "disconnect", id: run.id }).job;
    const was = placedOf(buildNetwork(cut)).cells.get("n")!;
    const joined = carryOut(cut, {
      name: "connect",
      id: "c",
      from: run.from,
      to: { part: "n", port: "in" },
    }).job;
    const { cells, edges } = placedOf(buildNetwork(joined));
    expect(cells.get("n")).not.toEqual(was);
    expect(edges.get("c")).toHaveLength(2);
  });

  test("what is put by hand stands there, or at the nearest room there is", () => {
    const put = (x: number, y: number) => carryOut(marram, { name: "put", id: "lift", x, y }).job;
    const { cells } = placedOf(buildNetwork(put(4, 70)));
    expect(cells.get("lift")).toMatchObject({ x: 4, y: 70 });
    const over = placedOf(buildNetwork(marram)).cells.get("engine")!;
    const beside = drawnFaults(put(over.x, over.y));
    expect(beside.bodiesMeet).toEqual([]);
    expect(placedOf(buildNetwork(put(over.x, over.y))).cells.get("engine")).toEqual(over);
  });

  test("a slider or a name moves nothing", () => {
    const { job } = carryOut(marram, { name: "setConditions", change: { fuelC: -4 } });
    expect(placedOf(buildNetwork(job)).cells).toEqual(placedOf(buildNetwork(marram)).cells);
    expect(currentPlan(job).places).toEqual(currentPlan(marram).places);
  });
});
