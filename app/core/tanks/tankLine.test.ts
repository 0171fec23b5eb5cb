/** Fill, vent and drain lines: what their sags hold against slow sampling, and what they say of a tank. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { applyCommand } from "../edit/commands";
import { findingsOf } from "../findings/findings";
import { planJoints } from "../joints/joints";
import type { Position } from "../kinds/record";
import { buyLines } from "../parts/buying";
import { clipLines } from "../parts/clips";
import { cutCard } from "../parts/cutCard";
import { runSheet } from "../parts/partsList";
import { assumedFigures } from "../plan/assumed";
import { lyingRuns } from "../plan/lying";
import { currentPlan, fromTank } from "../plan/ports";
import type { Job, TankLine } from "../plan/types";
import { areaM2 } from "../units/bore";
import { fillingOf, lineHeights, newTankLine, pocketsOf, tankLineFaults, toTankFrame } from "./tankLine";
import { fillRateM3S } from "./vent";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const at = (xM: number, zM: number): Position => ({ xM, yM: 0, zM });
const BORE_M = 0.0127;

/** Fuel left in a line open at both ends, by rain poured in everywhere and let run: levels of ten thousand cells. */
function leftBySampling(points: readonly Position[]): number {
  const cells: { z: number; length: number }[] = [];
  const each = 2000;
  points.slice(1).forEach((to, i) => {
    const from = points[i] as Position;
    const length = Math.hypot(to.xM - from.xM, to.zM - from.zM) / each;
    for (let k = 0; k < each; k++)
      cells.push({ z: from.zM + ((k + 0.5) / each) * (to.zM - from.zM), length });
  });
  const highest = (list: number[]) => list.reduce((most, z) => Math.max(most, z), Number.NEGATIVE_INFINITY);
  const [first, last] = [points[0]?.zM ?? 0, points.at(-1)?.zM ?? 0];
  let before = first;
  const fromLeft = cells.map(({ z }) => {
    before = highest([before, z]);
    return before;
  });
  let after = last;
  const fromRight = [...cells].reverse().map(({ z }) => {
    after = highest([after, z]);
    return after;
  });
  fromRight.reverse();
  return cells.reduce((sum, { z, length }, i) => {
    const level = Math.min(fromLeft[i] as number, fromRight[i] as number);
    return sum + (z < level - 1e-9 ? length : 0);
  }, 0);
}

const total = (points: readonly Position[]) =>
  pocketsOf(points, lineHeights(points), BORE_M).reduce((sum, { volumeM3 }) => sum + volumeM3, 0);

describe("what a sag holds", () => {
  test("of a V of 0.3 m legs at 45 degrees, to the lower of its sides: by hand", () => {
    // Down 0.2 m, up 0.1 m: the level is that of the lower side; both legs are wet 0.1 m of height, 0.1414 m of length.
    const points = [at(0, 0.2), at(0.2, 0), at(0.3, 0.1)];
    const [pocket] = pocketsOf(points, lineHeights(points), BORE_M);
    expect(pocket?.depthM).toBeCloseTo(0.1, 9);
    expect(pocket?.volumeM3).toBeCloseTo(2 * 0.1 * Math.SQRT2 * areaM2(BORE_M), 9);
    expect(pocket?.at).toBe(1);
  });
  test("agrees with ten thousand cells on any way", () => {
    // Steps of 5 cm: no sag is too shallow to count.
    const heights = fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 3, maxLength: 8 });
    fc.assert(
      fc.property(heights, (steps) => {
        const points = steps.map((step, i) => at(i * 0.3, step * 0.05));
        expect(Math.abs(total(points) / areaM2(BORE_M) - leftBySampling(points))).toBeLessThan(2e-3);
      }),
      { numRuns: 60, seed: 7 },
    );
  });
  test("two sags over one another's crest are told apart, and level falls hold nothing", () => {
    const points = [at(0, 1), at(0.3, 0.5), at(0.6, 0.9), at(0.9, 0.2), at(1.2, 0.8)];
    expect(pocketsOf(points, lineHeights(points), BORE_M).map(({ at: one }) => one)).toEqual([1, 3]);
    expect(total([at(0, 0), at(0.3, 0.2), at(0.6, 0.5)])).toBe(0);
  });
  test("what holds nothing level holds fuel where the vehicle stands nose down", () => {
    const points = [at(0, 0), at(0.5, 0.02), at(0.5, 0.6)];
    const line: TankLine = {
      id: "v",
      tank: "t",
      use: "vent",
      boreM: BORE_M,
      product: { marking: "", outerDiameterM: 0.02, leastRadiusM: 0.01 },
      points,
      radiusM: 0.05,
    };
    expect(tankLineFaults(line).map(({ code }) => code)).toEqual([]);
    expect(tankLineFaults(line, { pitchDeg: -5, rollDeg: 0 }).map(({ code }) => code)).toEqual(["holds"]);
  });
});

describe("a tank's lines in a job", () => {
  const boat = read("marram");
  const plan = currentPlan(boat);
  const tank = boat.tanks.find(({ id }) => id === "portWing")!;
  test("places go into the tank's frame and back", () => {
    const turned = { ...tank, yawDeg: 37, installed: { pitchDeg: 4, rollDeg: -9 } };
    const place = { xM: 0.3, yM: -0.2, zM: 0.7 };
    const back = toTankFrame(turned, fromTank(turned, place));
    for (const axis of ["xM", "yM", "zM"] as const) expect(back[axis]).toBeCloseTo(place[axis], 12);
  });
  test("a traced vent's bore and length say how fast it fills: half the bore lets through far less", () => {
    const wide = fillRateM3S(fillingOf(tank, plan)!);
    const narrowed = applyCommand(boat, {
      name: "editTankLine",
      id: "ventPort",
      change: { boreM: 0.006 },
    }).job;
    const slow = fillRateM3S(fillingOf(tank, currentPlan(narrowed))!);
    expect(slow).toBeLessThan(wide / 4);
  });
  test("it is clipped, cut and bought like a run: two clamps at each end of a fill hose", () => {
    const lines = buyLines(boat, plan, planJoints(boat, plan));
    const fill = plan.tankLines!.find(({ id }) => id === "fillPort")!;
    const clamps = lines.find(
      ({ what }) => what.kind === "clamp" && Math.abs(what.outsideM - fill.product.outerDiameterM) < 1e-6,
    );
    // Two fill hoses with two clamps at both ends, and two in reserve.
    expect(clamps && clamps.count - clamps.spare).toBe(8);
    expect(
      runSheet(boat, plan)
        .filter(({ use }) => use !== "feed")
        .map(({ id }) => id),
    ).toEqual(plan.tankLines!.map(({ id }) => id));
    expect(clipLines(boat, plan).find(({ runId }) => runId === "fillPort")?.clips.length).toBeGreaterThan(1);
    const cut = runSheet(boat, plan).find(({ id }) => id === "fillPort")!;
    expect(cut.cutM).toBeCloseTo(cut.lengthM + 2 * plan.serviceAllowanceM, 9);
  });
  test("it goes with its tank, and one of a tank that is not there is refused", () => {
    const gone = applyCommand(boat, { name: "removeTank", id: "portWing" }).job;
    expect(currentPlan(gone).tankLines?.map(({ tank: of }) => of)).toEqual(["stbdWing", "stbdWing"]);
    const line = newTankLine("x", tank, "drain", "boat");
    expect(() => applyCommand(boat, { name: "addTankLine", line: { ...line, tank: "nix" } })).toThrow();
    expect(tankLineFaults(line)).toEqual([]);
    const added = applyCommand(boat, { name: "addTankLine", line }).job;
    expect(applyCommand(added, { name: "removeTankLine", id: "x" }).job.plans[0]?.tankLines?.length).toBe(4);
  });

  test("a rigid vent has a cut card, its bends at their marks; its hose, read on board, is judged", () => {
    const rigid = applyCommand(boat, { name: "editTankLine", id: "ventPort", change: { make: "rigid" } }).job;
    const lying = lyingRuns(rigid, currentPlan(rigid)).find(({ run }) => run.id === "ventPort")!;
    const card = cutCard(currentPlan(rigid), lying)!;
    expect(card.steps?.filter(({ kind }) => kind === "bend")).toHaveLength(lying.line!.points.length - 2);
    expect(buyLines(rigid, currentPlan(rigid), []).some(({ what }) => what.kind === "bender")).toBe(true);
    const survey = { printed: "", place: "engineRoom", feel: "cracked" } as const;
    const read = applyCommand(boat, { name: "editTankLine", id: "fillPort", change: { survey } }).job;
    expect(
      findingsOf(read, [], undefined, undefined, new Date("2026-06-01T00:00:00Z")).some(
        ({ rule, ids }) => rule === "hoseFound" && ids.includes("fillPort"),
      ),
    ).toBe(true);
  });
  test("what nobody measured of it stands in what is to be measured, and no longer when it is", () => {
    const line = newTankLine("x", tank, "drain", "boat");
    const added = applyCommand(boat, { name: "addTankLine", line }).job;
    const open = (job: Job) =>
      assumedFigures(job, currentPlan(job)).flatMap(({ id, field }) => (id === "x" ? [field] : []));
    expect(open(added)).toEqual(["boreM", "points"]);
    const given = { boreM: { basis: "measured" }, points: { basis: "measured" } } as const;
    expect(open(applyCommand(added, { name: "editTankLine", id: "x", change: { given } }).job)).toEqual([]);
  });
});
