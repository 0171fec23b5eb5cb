/** What is to buy, counted from the demo jobs by other sums. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { BoxItem } from "../box/box";
import { planJoints } from "../joints/joints";
import { FILTER_LIFE_H } from "../laws/elementLife";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { buyLines, costOf, elementCost1000h, planCost, riskSpares, shortOf } from "./buying";
import { clipLines } from "./clips";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const truck = read("unit-12");
const plan = currentPlan(truck);
const lines = buyLines(truck, plan, planJoints(truck, plan));
const of = (kind: string, among = lines) => among.filter(({ what }) => what.kind === kind);
const sum = (kind: string) => of(kind).reduce((all, { count }) => all + count, 0);

describe("what a plan is built from", () => {
  test("every part once, an element and a spare for each filter, a ring for each head that is opened", () => {
    expect(sum("part")).toBe(plan.parts.length);
    const filters = plan.parts.filter((part) => "element" in part && part.element);
    expect(sum("element")).toBe(2 * filters.length);
    expect(sum("seal")).toBe(filters.length);
    expect(new Set(lines.map(({ key }) => key)).size).toBe(lines.length);
  });

  test("wire by its area both ways, a fuse and one spare for each circuit, four crimps", () => {
    const circuits = plan.parts.flatMap((part) => ("circuit" in part && part.circuit ? [part.circuit] : []));
    expect(circuits.length).toBeGreaterThan(0);
    const metres = of("wire").reduce((all, { lengthM }) => all + (lengthM ?? 0), 0);
    expect(metres).toBeCloseTo(
      circuits.reduce((all, { wireLengthM }) => all + wireLengthM, 0),
      9,
    );
    expect([sum("fuse"), sum("fuseHolder"), sum("crimp")]).toEqual([
      2 * circuits.length,
      circuits.length,
      4 * circuits.length,
    ]);
    expect(sum("relay")).toBe(circuits.filter(({ hasRelay }) => hasRelay).length);
  });

  test("a clip for each place along the runs, and a reserve of two or one in twenty", () => {
    const clips = clipLines(truck, plan).reduce((all, one) => all + one.clips.length + one.besideBends, 0);
    const spare = of("clip").reduce((all, line) => all + line.spare, 0);
    expect(sum("clip") - spare).toBe(clips);
    for (const line of of("clip")) expect(line.spare).toBeGreaterThanOrEqual(2);
  });

  test("holes want a grommet, their edge's care once, and a saw that the box has not", () => {
    const hole = (id: string, made: "metal" | "wood") => ({
      id,
      name: id,
      through: "floor" as const,
      made,
      wallM: 0.002,
      runs: [plan.runs[0]!.id],
      grommetM: 0.002,
    });
    const holed = { ...plan, passages: [hole("a", "metal"), hole("b", "metal"), hole("c", "wood")] };
    const joints = planJoints(truck, holed);
    const all = buyLines(truck, holed, joints);
    expect(of("grommet", all).map(({ count }) => count)).toEqual([3]);
    expect([of("edgePaint", all), of("epoxy", all)].map((found) => found.map(({ count }) => count))).toEqual([
      [1],
      [1],
    ]);
    const [saw] = of("holeSaw", all);
    const diameterM = saw?.what.kind === "holeSaw" ? saw.what.diameterM : 0;
    const owned: BoxItem[] = [{ kind: "saw", id: "s", diameterM: diameterM + 0.001 }];
    expect(of("holeSaw", buyLines(truck, holed, joints, owned))).toEqual([]);
    // One far too large is no saw for it.
    const large: BoxItem[] = [{ kind: "saw", id: "s", diameterM: diameterM + 0.02 }];
    expect(of("holeSaw", buyLines(truck, holed, joints, large))).toHaveLength(1);
  });
});

describe("against the box", () => {
  test("a thing by the name it has in the list, an adapter by its shape, hose by what it is cut into", () => {
    const [fuse] = of("fuse");
    const box: BoxItem[] = [{ kind: "thing", id: "t", name: "Fuse 10 A", count: 1 }];
    expect(shortOf(fuse!, box, "fuse 10 A")).toEqual({ inBox: 1, toBuy: fuse!.count - 1 });
    expect(shortOf(fuse!, box, "fuse 15 A")).toEqual({ inBox: 0, toBuy: fuse!.count });
    const [adapter] = of("adapter");
    const shape = adapter?.what.kind === "adapter" ? adapter.what.shape : "";
    const stock: BoxItem[] = [{ kind: "adapter", id: "a", shape, count: 99 }];
    expect(shortOf(adapter!, stock, "")).toEqual({ inBox: 99, toBuy: 0 });
    const [hose] = of("hose");
    expect(shortOf(hose!, [], "", [hose!.lengthM ?? 0]).toBuy).toBeCloseTo(hose!.lengthM ?? 0, 1);
  });

  test("cost is price by what is short; what has none is counted; elements by the hours they last at the feed", () => {
    expect(
      costOf(
        [
          { key: "a:", toBuy: 3 },
          { key: "b:", toBuy: 2.5 },
          { key: "c:", toBuy: 0 },
          { key: "d:", toBuy: 1 },
        ],
        { "a:": 2, "b:": 4, "c:": 100 },
      ),
    ).toEqual({ first: 16, unpriced: 1 });
    const filter = plan.parts.find((part) => "element" in part && part.element);
    if (!filter || !("ratedFlowM3S" in filter)) throw new Error("no filter");
    const line = of("element").find((one) => one.for.includes(filter.id))!;
    const among = [{ ...line, for: [filter.id] }];
    // At twice its rated flow it lasts half as long: 1,000 h take 1000 / (500 / 2) of them.
    expect(elementCost1000h(among, plan, { [line.key]: 10 }, 2 * filter.ratedFlowM3S)).toBeCloseTo(
      (10 * 1000) / (FILTER_LIFE_H / 2),
      9,
    );
  });

  test("alternatives are held against each other at one list of prices, by other sums", () => {
    const block = truck.plans.find(({ id }) => id === "planB")!;
    expect(planCost(truck, plan)).toBeNull();
    const [factory] = of("part").filter((line) => line.for.includes("factory"));
    const [hose] = of("hose");
    const priced = { ...truck, prices: { [factory!.key]: 80, [hose!.key]: 12 } };
    const [a, b] = [planCost(priced, plan), planCost(priced, block)];
    expect(a!.first).toBeCloseTo(80 * factory!.count + 12 * hose!.lengthM!, 6);
    // The block has no factory filter: its price is gone, its hoses are the same.
    expect(a!.first - b!.first).toBeCloseTo(80, 6);
    expect(a!.elements1000h).toBe(0);
  });

  test("what tears as it is undone is in hand: a ring for each head", () => {
    expect(riskSpares(truck, plan).reduce((all, { count }) => all + count, 0)).toBe(sum("seal"));
  });

  test("a bracket that is undone has two screws in hand, one that stays has none", () => {
    const from = { ...plan, id: "before", parts: plan.parts.map((part) => ({ ...part })) };
    const moved = { ...plan, basedOn: "before", parts: plan.parts.slice(1) };
    const job = { ...truck, plans: [...truck.plans, from] };
    const fixings = (one: typeof plan) =>
      buyLines(job, one, planJoints(job, one)).find(({ what }) => what.kind === "fixing");
    expect(fixings(moved)).toMatchObject({ count: 2, spare: 2, for: [plan.parts[0]!.id] });
    expect(fixings({ ...plan, basedOn: "before" })).toBeUndefined();
  });
});
