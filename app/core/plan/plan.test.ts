import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { LONGEST_ID, newId } from "../kinds/ids";
import type { Position } from "../kinds/record";
import type { SelectorValve } from "../kinds/selector";
import { newPart, newRun, newTank } from "./blank";
import { currentPlan, fromTank, placedPorts, portKey, portsNamed, portsOf } from "./ports";
import { fittingRadiusM, isTooShort, runGeometry, runVolumeM3 } from "./route";
import type { Job, ValveSetting } from "./types";
import { firstSetting, isOpen, neighbourSettings, positionsOf, waysThrough } from "./valves";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);

const port = (position: Position) => ({
  ref: { part: "p", port: "a" },
  name: "a",
  ownerName: "P",
  role: "either" as const,
  position,
  boreM: 0.01,
});
const at = (xM: number, yM: number, zM: number): Position => ({ xM, yM, zM });

describe("runs", () => {
  const run = newRun("r", { part: "p", port: "a" }, { part: "q", port: "a" }, 2);

  test("rise is the difference of the ports, whatever is written of the run", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        (a, b) => {
          expect(runGeometry(run, port(at(0, 0, a)), port(at(1, 0, b))).riseM).toBeCloseTo(b - a, 12);
        },
      ),
    );
  });

  test("a measured run keeps its length and its high and low points in order", () => {
    const humped = {
      ...run,
      route: {
        kind: "measured" as const,
        lengthM: 2,
        bends: [
          { deg: 90 as const, count: 2 },
          { deg: 45 as const, count: 1 },
        ],
        extremes: [
          { atM: 1.5, zM: 0.1 },
          { atM: 0.5, zM: 0.9 },
        ],
      },
    };
    const geometry = runGeometry(humped, port(at(0, 0, 0.5)), port(at(1, 0, 0.3)));
    expect(geometry).toMatchObject({ lengthM: 2, bends90: 2, bends45: 1 });
    expect(geometry.profile.map(({ atM }) => atM)).toEqual([0, 0.5, 1.5, 2]);
    expect(geometry.profile.map(({ zM }) => zM)).toEqual([0.5, 0.9, 0.1, 0.3]);
  });

  test("two right angles of 4 in radius to the centre line shorten a traced run by 87 mm", () => {
    const route = { kind: "traced" as const, points: [at(1, 0, 0), at(1, 1, 0)], radiusM: 0.1016 };
    const geometry = runGeometry({ ...run, route }, port(at(0, 0, 0)), port(at(2, 1, 0)));
    expect((3 - geometry.lengthM) * 1000).toBeCloseTo(87.2, 1);
    // The arc's own length between its points of touch: legs of 1 m less R at each end, and a quarter round.
    expect(geometry.lengthM).toBeCloseTo(3 - 4 * 0.1016 + 2 * (Math.PI / 2) * 0.1016, 12);
  });

  test("a corner whose legs have no room for the radius is rounded as far as they have", () => {
    const points = [at(0, 0, 0), at(1, 0, 0), at(1, 0.1, 0), at(2, 0.1, 0)];
    expect(fittingRadiusM(points)).toBeCloseTo(0.05, 12);
    const wide = { kind: "traced" as const, points: points.slice(1, 3), radiusM: 0.2 };
    const geometry = runGeometry({ ...run, route: wide }, port(points[0]!), port(points[3]!));
    expect(geometry.lengthM).toBeCloseTo(0.95 + 0.95 + Math.PI * 0.05, 12);
    expect(fittingRadiusM([at(0, 0, 0), at(1, 0, 0), at(2, 0, 0)])).toBe(Number.POSITIVE_INFINITY);
  });

  test("a traced run is as long as its rounded legs, and its bends are counted at its points", () => {
    const traced = {
      ...run,
      route: { kind: "traced" as const, points: [at(1, 0, 0), at(1, 1, 0), at(2, 2, 0)], radiusM: 0.1 },
    };
    const geometry = runGeometry(traced, port(at(0, 0, 0)), port(at(2, 2, 1)));
    const saved = (rad: number) => 0.1 * (2 * Math.tan(rad / 2) - rad);
    const bends = [Math.PI / 2, Math.PI / 4, Math.PI / 2];
    const sharp = 1 + 1 + Math.SQRT2 + 1;
    expect(geometry.lengthM).toBeCloseTo(sharp - bends.reduce((sum, rad) => sum + saved(rad), 0), 12);
    expect(geometry).toMatchObject({ bends90: 2, bends45: 1 });
  });

  test("a hose shorter than its way is seen, one laid straight is not", () => {
    const from = port(at(0, 0, 0));
    expect(isTooShort(runGeometry(run, from, port(at(2, 0, 0))))).toBe(false);
    expect(isTooShort(runGeometry(run, from, port(at(2, 0, 0.5))))).toBe(true);
  });

  test("half-inch hose holds 127 mL a metre (pi/4 of the bore squared, by hand)", () => {
    expect(runVolumeM3(0.0127, 1) * 1e6).toBeCloseTo(126.68, 2);
  });
});

describe("places", () => {
  test("a tank turned by a quarter turns its ports round its own origin", () => {
    const tank = { ...newTank("t", "T", at(2, 1, 0.5)), yawDeg: 90 };
    const turned = fromTank(tank, at(1, 0, 0.2));
    expect(turned.xM).toBeCloseTo(2, 12);
    expect(turned.yM).toBeCloseTo(2, 12);
    expect(turned.zM).toBeCloseTo(0.7, 12);
  });

  test("every port a hose of the demo names is there, under a name the outside engine can take", () => {
    const ports = placedPorts(job, plan);
    for (const { from, to } of plan.runs) {
      expect(ports.has(portKey(from))).toBe(true);
      expect(ports.has(portKey(to))).toBe(true);
    }
    for (const key of ports.keys()) expect(key.length).toBeLessThanOrEqual(31);
  });

  test("ids are short, and ten thousand of them all differ", () => {
    const ids = Array.from({ length: 10_000 }, () => newId());
    expect(new Set(ids).size).toBe(ids.length);
    for (const id of ids) expect(id).toMatch(new RegExp(`^[a-z0-9]{1,${LONGEST_ID}}$`));
  });
});

describe("valves", () => {
  const selector = newPart("selector", "s", at(0, 0, 0)) as SelectorValve;
  const withBoth: SelectorValve = {
    ...selector,
    positions: [
      ...selector.positions,
      { id: "both", name: "both", joins: [["c", "w1", "w2"]] },
      { id: "off", name: "off", joins: [] },
    ],
  };
  const set = (position: string): ValveSetting => ({ kind: "position", position });

  test("a selector is one link for every pair that some position joins", () => {
    expect(waysThrough(withBoth).map(({ id }) => id)).toEqual(["s.c-w1", "s.c-w2"]);
  });

  test("each position opens its own pairs, off none, unset none", () => {
    const open = (position: ValveSetting) =>
      waysThrough(withBoth).map(({ ports }) => isOpen(withBoth, ports, position));
    expect(open(set("one"))).toEqual([true, false]);
    expect(open(set("two"))).toEqual([false, true]);
    expect(open(set("both"))).toEqual([true, true]);
    expect(open(set("off"))).toEqual([false, false]);
    expect(open({ kind: "unset" })).toEqual([false, false]);
  });

  test("neighbours are one movement of the handle away, and going back is one too", () => {
    for (const { id } of positionsOf(withBoth)) {
      for (const next of neighbourSettings(withBoth, set(id))) {
        expect(neighbourSettings(withBoth, next)).toContainEqual(set(id));
      }
    }
    expect(neighbourSettings(withBoth, set("one"))).toEqual([set("two")]);
    const bank = plan.parts.find(({ id }) => id === "returns");
    if (bank?.kind !== "bank") throw new Error("no bank");
    expect(neighbourSettings(bank, { kind: "branches", open: ["port"] })).toContainEqual({
      kind: "branches",
      open: [],
    });
  });

  test("a new valve never stands unset", () => {
    for (const kind of ["twoWay", "selector", "bank"] as const) {
      const valve = newPart(kind, "v", at(0, 0, 0));
      if (valve.kind !== kind) throw new Error(kind);
      expect(firstSetting(valve as never).kind).not.toBe("unset");
    }
  });
});

describe("what a port is called", () => {
  const part = newPart("filter", "f", { xM: 0, yM: 0, zM: 0 });

  test("is what its kind says until somebody names it, and again when it is called so", () => {
    const named = { ...part, ports: portsNamed(part, "out", " to the engine ") };
    expect(portsOf(named).find(({ id }) => id === "out")?.name).toBe("to the engine");
    expect(portsOf(named).find(({ id }) => id === "in")?.name).toBe("in");
    const usual = { ...named, ports: portsNamed(named, "out", "out") };
    expect(portsOf(usual)).toEqual(portsOf(part));
  });

  test("keeps the port's own place and bore", () => {
    const own = { out: { boreM: 0.012, offset: { xM: 0.1, yM: 0, zM: 0 } } };
    expect(portsNamed({ ...part, ports: own }, "out", "spill")).toEqual({
      out: { ...own.out, name: "spill" },
    });
  });
});
