/** Bodies by cells: what stands on lines of the grid, far enough apart to be seen and touched. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { starterIds, startJob } from "../edit/starters";
import { buildNetwork } from "../network/network";
import { currentPlan, portKey, portsOf } from "../plan/ports";
import type { Job, Plan, Tank } from "../plan/types";
import { heightsOf } from "../tanks/tank";
import { CELL_PX, drawnHoses, drawnNodes, isLast, isTank, isTee, sidesOf, toCells } from "./nodes";

const jobs: Job[] = [
  ...["marram", "unit-12", "reading-van"].map(
    (name): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job,
  ),
  ...starterIds.map((id) => startJob("j", id, id)),
];

describe.each(jobs.map((job) => [job.name, job] as const))("%s", (_, job) => {
  const network = buildNetwork(job);
  const { plan } = network;
  const nodes = drawnNodes(network, plan.sides ?? {});

  /** A tank that another plan alone is led from is not drawn. */
  const usedBy = ({ runs, joints }: Plan) =>
    new Set([...runs, ...joints].flatMap(({ from, to }) => [from.part, to.part]));
  const tanks = job.tanks.filter(
    ({ id }) => usedBy(plan).has(id) || job.plans.every((one) => one === plan || !usedBy(one).has(id)),
  );

  test("draws each tank, part and consumer once, each port of it once", () => {
    expect(nodes.map(({ id }) => id).sort()).toEqual(
      [...tanks, ...plan.parts, ...job.consumers].map(({ id }) => id).sort(),
    );
    const keys = nodes.flatMap(({ ports }) => ports.map(({ key }) => key));
    expect(new Set(keys).size).toBe(keys.length);
    for (const part of plan.parts)
      for (const { id } of portsOf(part)) expect(keys).toContain(`${part.id}.${id}`);
  });

  test("its ports are on the body's own sides, no two of one side on a row", () => {
    for (const { ports, columns, above, below } of nodes) {
      for (const side of ["WEST", "EAST"] as const) {
        const rows = ports.filter((port) => port.side === side).map(({ row }) => row);
        if (columns > 0) expect(new Set(rows).size).toBe(rows.length);
      }
      for (const { row } of ports) {
        expect(Number.isInteger(row)).toBe(true);
        expect(row).toBeGreaterThanOrEqual(-above - 2);
        expect(row).toBeLessThanOrEqual(below + 2);
      }
    }
  });

  test("a tank's hoses leave it to the right, the higher ones higher, a finger apart", () => {
    for (const tank of tanks) {
      const { ports } = nodes.find(({ id }) => id === tank.id)!;
      const heightOf = (key: string) => tank.ports.find(({ id }) => key === `${tank.id}.${id}`)!.outside.zM;
      const down = ports.toSorted((a, b) => a.row - b.row);
      for (const [i, port] of down.entries()) {
        expect(port.side).toBe("EAST");
        const before = down[i - 1];
        if (!before) continue;
        expect((port.row - before.row) * CELL_PX).toBeGreaterThanOrEqual(24);
        expect(heightOf(before.key)).toBeGreaterThanOrEqual(heightOf(port.key) - 1e-9);
      }
    }
  });

  test("bodies and the room of their names are covered by their cells", () => {
    for (const { widthPx, heightPx, rowPx, columns, above, below, foot, overhang, label } of nodes) {
      expect(columns * CELL_PX).toBeGreaterThanOrEqual(widthPx);
      expect((columns - 1) * CELL_PX).toBeLessThan(Math.max(1, widthPx));
      expect(above * CELL_PX).toBeGreaterThanOrEqual(rowPx);
      expect((above + below) * CELL_PX).toBeGreaterThanOrEqual(heightPx);
      if (!label) continue;
      expect(foot * CELL_PX).toBeGreaterThanOrEqual(label.topPx + label.heightPx - rowPx);
      expect((columns + 2 * overhang) * CELL_PX).toBeGreaterThanOrEqual(label.widthPx);
    }
  });

  test("every hose goes between ports that are drawn", () => {
    const keys = new Set(nodes.flatMap(({ ports }) => ports.map(({ key }) => key)));
    const hoses = drawnHoses(network, nodes);
    expect(hoses).toHaveLength(plan.runs.length + plan.joints.length);
    for (const { from, to } of hoses) {
      expect(keys.has(from)).toBe(true);
      expect(keys.has(to)).toBe(true);
    }
    expect(new Set(hoses.map(({ id }) => id)).size).toBe(hoses.length);
  });

  test("tanks stand first, what burns fuel last, and a tee has no body", () => {
    expect(nodes.filter(isTank)).toHaveLength(tanks.length);
    expect(nodes.filter(isLast)).toHaveLength(job.consumers.length);
    for (const node of nodes) expect(isTee(node)).toBe(node.kind === "tee");
  });
});

describe("sides", () => {
  const job = jobs[0] as Job;
  const lift = currentPlan(job).parts.find(({ id }) => id === "lift")!;

  test("what has one way through has a port on each side; what is known stays", () => {
    expect(sidesOf(lift, undefined)).toEqual({ west: ["in"], east: ["out"] });
    expect(sidesOf(lift, { west: ["out"], east: [] })).toEqual({ west: ["out"], east: ["in"] });
  });
  test("a port told twice, or one that is not there, counts once or not at all", () => {
    expect(sidesOf(lift, { west: ["in", "in", "gone"], east: ["in", "out"] })).toEqual({
      west: ["in"],
      east: ["out"],
    });
  });
  test("a consumer's ports are all to the left", () => {
    for (const one of job.consumers)
      expect(sidesOf(one, undefined)).toEqual({ west: portsOf(one).map(({ id }) => id), east: [] });
  });
});

test("a tank with more hoses than its height holds is drawn higher, not closer", () => {
  const job = startJob("j", "J", "oneTank");
  const tank = job.tanks[0] as Tank;
  const { highM } = heightsOf(tank);
  const outside = { ...tank.ports[0]!.outside, zM: highM };
  const many = Array.from({ length: 9 }, (_, i) => ({
    ...tank.ports[0]!,
    id: `p${i}`,
    name: `p${i}`,
    outside,
  }));
  const crowded = { ...job, tanks: [{ ...tank, ports: [...tank.ports, ...many] }] };
  const heightOf = (of: Job) => drawnNodes(buildNetwork(of), {}).find(({ id }) => id === tank.id)!;
  expect(heightOf(crowded).heightPx).toBeGreaterThan(heightOf(job).heightPx);
  const rows = heightOf(crowded)
    .ports.map(({ row }) => row)
    .sort((a, b) => a - b);
  for (const [i, row] of rows.entries()) if (i > 0) expect(row - rows[i - 1]!).toBeGreaterThanOrEqual(2);
  expect(portKey({ part: tank.id, port: "p0" })).toBe(`${tank.id}.p0`);
  expect(toCells(CELL_PX * 3 + 1)).toBe(3);
});
