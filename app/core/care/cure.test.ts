/** Jars and what they ask for, by hand; hours from the volume that goes through the filter. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { BookEntry, JarLook } from "../book/entries";
import type { Job, Tank } from "../plan/types";
import { cureOf } from "./cure";
import { jarSigns } from "./jar";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const tank = job.tanks.find(({ id }) => id === "portWing")!;
const look = (more: Partial<JarLook>): JarLook => ({
  afterH: 0.2,
  water: "none",
  haze: "clear",
  growth: "none",
  colour: "bright",
  ...more,
});
const jar = (...looks: JarLook[]): BookEntry => ({
  kind: "sample",
  id: "s",
  at: "2026-06-01T08:00:00Z",
  planId: "p",
  planHash: "0",
  tankId: "portWing",
  drainedM3: 0.001,
  looks,
});
const FLOW = 42e-3 / 3600;
const cured = (looks: JarLook[], more: Partial<Tank> = {}, schools: Partial<Job["schools"]> = {}) =>
  cureOf({ ...job, schools: { ...job.schools, ...schools } }, [jar(...looks)], { ...tank, ...more }, FLOW)!;
const open = { opening: tank.opening ?? ({ at: { xM: 0, yM: 0 }, holes: [] } as never) };
const closed = (() => {
  const { opening: _, ...rest } = tank;
  return rest as Tank;
})();

describe("what a jar shows", () => {
  test.each<[string, JarLook[], string[]]>([
    ["clear", [look({})], []],
    ["a few drops and no haze", [look({ water: "drops" })], []],
    [
      "a layer under clear fuel a day later",
      [look({ water: "drops", haze: "hazy" }), look({ afterH: 24, water: "layer" })],
      ["water"],
    ],
    [
      "a layer under haze after four hours",
      [look({ afterH: 4, water: "layer", haze: "hazy" })],
      ["water", "haze"],
    ],
    ["haze that stays a day", [look({ afterH: 24, water: "layer", haze: "opaque" })], ["emulsion"]],
    [
      "growth in an emulsion",
      [look({ growth: "specks" }), look({ afterH: 30, haze: "opaque" })],
      ["growth", "emulsion"],
    ],
  ])("%s", (_, looks, signs) => {
    expect(jarSigns({ looks })).toEqual(signs);
  });
});

describe("a cure", () => {
  const water = [look({ afterH: 24, water: "layer" })];
  const emulsion = [look({ afterH: 24, haze: "opaque" })];
  test("of free water is to strip it; of an emulsion a trial, or the school's discarding; of growth to wipe where it can be opened", () => {
    expect(cured(water).recommended).toBe("strip");
    expect(cured(emulsion).recommended).toBe("trial");
    expect(cured(emulsion, {}, { dirtyTank: "discard" }).recommended).toBe("discard");
    expect(cured([look({ growth: "mat" })], open).recommended).toBe("wipe");
    expect(cureOf(job, [jar(look({ growth: "mat" }))], closed, FLOW)?.recommended).toBe("biocide");
    expect(cured([look({})]).recommended).toBeNull();
  });

  test("by polishing takes ln 20 / 0.9 = 3.3 passes to a twentieth, where the filter holds back 90 % in one: by hand", () => {
    const { ways } = cured(water);
    const polish = ways.find(({ way }) => way === "polish")!;
    expect(polish.passes).toBeCloseTo(Math.log(20) / 0.9, 2);
    expect(polish.hours).toBeCloseTo(((Math.log(20) / 0.9) * polish.volumeM3) / FLOW / 3600, 2);
  });

  test("is not done until two jars are clear: the next within two weeks", () => {
    expect(cured(water).nextSampleDays).toBeGreaterThanOrEqual(7);
    expect(cured(water).nextSampleDays).toBeLessThanOrEqual(14);
    expect(cured([look({})]).nextSampleDays).toBeGreaterThan(90);
    const after = cureOf(job, [jar(...water), { ...jar(look({})), id: "t" }], tank, FLOW);
    expect(after?.nextSampleDays).toBeLessThanOrEqual(14);
  });
});
