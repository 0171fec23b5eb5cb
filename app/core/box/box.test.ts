import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { readBoxFile, writeBoxFile } from "~/schemas/box";
import { applyCommand } from "../edit/commands";
import { adapterWith, shapeOf } from "../ends/adapters";
import type { End } from "../ends/ends";
import { planJoints } from "../joints/joints";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import {
  adaptersIn,
  afterCut,
  type BoxItem,
  cutsFromBox,
  KEEP_M,
  KERF_M,
  likeInHand,
  namedIn,
  putIn,
  takeOut,
} from "./box";
import { isKept, keptItem } from "./keptPart";

const hose = (id: string, lengthM: number, form: "offcut" | "coil" = "offcut"): BoxItem => ({
  kind: "hose",
  id,
  marking: "A1",
  boreM: 0.0095,
  lengthM,
  form,
});
const metres = (items: readonly BoxItem[]) =>
  items.reduce((sum, one) => sum + (one.kind === "hose" ? one.lengthM : 0), 0);

describe("hose from the box", () => {
  test("offcuts first, then the coil; what no stock gives is bought, longest first", () => {
    const items = [
      hose("a", 0.5),
      hose("b", 1.2),
      hose("c", 10, "coil"),
      { ...hose("x", 9), marking: "B2" } as BoxItem,
    ];
    const cuts = cutsFromBox(items, { marking: "a1 ", boreM: 0.0095, lengthsM: [0.45, 1.1, 2, 12] });
    expect(cuts.toBuyM).toBeCloseTo(12 + KERF_M, 9);
    expect(cuts.list.offcuts).toEqual([[0.45], [1.1]]);
    expect(cuts.list.coil.flat()).toEqual([2]);
  });

  test("an empty box buys all of it, and an unlike bore or marking is not touched", () => {
    const cuts = cutsFromBox([hose("a", 5)], { marking: "A1", boreM: 0.0127, lengthsM: [1, 2] });
    expect(cuts.toBuyM).toBeCloseTo(3 + 2 * KERF_M, 9);
    expect(cuts.list.touched).toBe(0);
  });

  test("no hose is made or lost: what was there is cut, wasted as kerf, kept or too short to keep", () => {
    const lengths = fc.array(fc.integer({ min: 2, max: 300 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(lengths, lengths, fc.integer({ min: 0, max: 900 }), (stocks, wanted, coil) => {
        const items = [
          ...stocks.map((cm, i) => hose(`s${i}`, cm / 100)),
          ...(coil > 0 ? [hose("coil", coil / 100, "coil")] : []),
        ];
        const lengthsM = wanted.map((cm) => cm / 100);
        const cuts = cutsFromBox(items, { marking: "A1", boreM: 0.0095, lengthsM });
        const cut = [...cuts.list.offcuts, ...cuts.list.coil].flat();
        const bought = lengthsM.length - cut.length;
        expect(cut.reduce((sum, one) => sum + one, 0) + cuts.toBuyM - bought * KERF_M).toBeCloseTo(
          lengthsM.reduce((sum, one) => sum + one, 0),
          6,
        );
        const after = afterCut(items, cuts);
        const gone = metres(items) - metres(after) - cut.reduce((sum, one) => sum + one + KERF_M, 0);
        // Only remnants under what is kept go, one a stock at most; the last cut of a stock may need no kerf.
        expect(gone).toBeGreaterThanOrEqual(-KERF_M * items.length - 1e-9);
        expect(gone).toBeLessThanOrEqual(items.length * KEEP_M + 1e-9);
        for (const one of after) if (one.kind === "hose") expect(one.lengthM).toBeGreaterThan(0);
      }),
      { numRuns: 150 },
    );
  });
});

describe("what is counted", () => {
  test("one more of the same is counted up whatever its letters, hose never; the last one out takes its line with it", () => {
    const seal: BoxItem = { kind: "thing", id: "s1", name: "Bowl seal", count: 2 };
    const more = putIn([seal], { kind: "thing", id: "s2", name: " bowl SEAL", count: 3 });
    expect(more).toEqual([{ ...seal, count: 5 }]);
    expect(putIn([hose("a", 1)], hose("b", 1))).toHaveLength(2);
    expect(takeOut(takeOut([seal], "s1"), "s1")).toEqual([]);
    expect(takeOut([hose("a", 1)], "a")).toEqual([]);
    expect(namedIn(more, "BOWL seal")?.count).toBe(5);
    expect(namedIn([{ ...seal, count: 0 }, hose("a", 1)], "bowl seal")).toBeUndefined();
  });
});

const jic8m: End = { family: "jic37", size: "-8", form: "m" };
const npt: End = { family: "npt", size: "1/2", form: "f" };

describe("adapters of the box", () => {
  const shape = adapterWith(jic8m, npt);
  const item: BoxItem = { kind: "adapter", id: "one", shape: shape?.id ?? "", count: 1 };

  test("an adapter is known by its two ends, whichever way round; one that nobody makes is none", () => {
    expect(shape).not.toBeNull();
    expect(adapterWith(npt, jic8m)?.id).toBe(shape?.id);
    expect(shapeOf("g:nothing")).toBeUndefined();
    expect(adaptersIn([{ ...item, shape: "g:nothing" } as BoxItem])).toEqual([]);
  });

  test("it is found by what a caliper and a thread gauge say of one of its ends", () => {
    // 3/4-16: 19.05 mm over the thread, 1.5875 mm a thread (from memory of SAE J514, -8).
    expect(likeInHand([item, hose("a", 1)], 0.01905, 0.0015875)).toEqual([item]);
    expect(likeInHand([item], 0.012, 0.00125)).toEqual([]);
  });

  test("what the box has is taken before what is bought, and no joint takes what another has", () => {
    const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
    const plan = currentPlan(job);
    const bare = planJoints(job, plan);
    const needing = bare.filter(({ chain }) => chain && chain.parts.length === 1);
    const [wanted] = needing[0]?.chain?.parts ?? [];
    expect(wanted).toBeDefined();
    const stocked = planJoints(
      job,
      plan,
      adaptersIn([{ kind: "adapter", id: "b", shape: wanted ?? "", count: 1 }]),
    );
    const fromBox = stocked.filter(({ chain }) => chain?.from === "box");
    expect(fromBox).toHaveLength(1);
    expect(fromBox[0]?.chain?.parts).toEqual([wanted]);
    // The others are as they were.
    expect(stocked.map(({ state }) => state)).toEqual(bare.map(({ state }) => state));
  });
});

describe("a part that the shop keeps", () => {
  const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
  const plan = currentPlan(job);
  const sep = plan.parts.find(({ id }) => id === "sep")!;

  test("carries its figures and ends into another of its kind, which stays itself", () => {
    const item = keptItem(plan, { ...sep, sheet: "folder 3, page 4" }, "kept1", "2026-11-26");
    expect(item.ends).toEqual(plan.ends?.sep);
    const other = applyCommand(job, {
      name: "addPart",
      id: "new",
      kind: "filter",
      position: { xM: 1, yM: 2, zM: 3 },
    }).job;
    const taken = applyCommand(other, {
      name: "takeFigures",
      id: "new",
      part: item.part,
      ends: item.ends,
    }).job;
    const part = currentPlan(taken).parts.find(({ id }) => id === "new")!;
    const before = currentPlan(other).parts.find(({ id }) => id === "new")!;
    expect(part).toMatchObject({ id: "new", name: before.name, position: { xM: 1, yM: 2, zM: 3 } });
    const figures = (one: object) => {
      const own = new Set(["id", "name", "position", "element", "provisional"]);
      return Object.fromEntries(Object.entries(one).filter(([key]) => !own.has(key)));
    };
    expect(figures(part)).toEqual({ ...figures(sep), sheet: "folder 3, page 4" });
    expect(currentPlan(taken).ends?.new).toEqual(plan.ends?.sep);
    // Its element keeps its own id: loading is kept by it.
    expect("element" in part && part.element?.id).toBe("element" in before && before.element?.id);
    expect(() => applyCommand(other, { name: "takeFigures", id: "lift", part: item.part, ends: {} })).toThrow(
      "otherKind",
    );
  });

  test("goes out in the box's file and comes back; a valve is not kept", () => {
    const item = keptItem(plan, sep, "kept1", "2026-11-26");
    const read = readBoxFile(writeBoxFile([item, { kind: "saw", id: "s", diameterM: 0.03 }]));
    expect(read).toEqual({ ok: true, items: [item, { kind: "saw", id: "s", diameterM: 0.03 }] });
    const valve = plan.parts.find(({ kind }) => kind === "selector" || kind === "bank");
    if (valve) expect(isKept(valve)).toBe(false);
    expect(isKept(sep)).toBe(true);
  });
});
