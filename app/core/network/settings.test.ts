/**
 * What a line-up is solved with, held against figures worked out by hand: pressures of columns by their heights, demands by
 * the engine's own sheet.
 */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { fuelAt } from "../fuel/fuel";
import type { Engine } from "../kinds/index";
import { newEngine } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Conditions, Job } from "../plan/types";
import { levelOfVolumeM } from "../tanks/tank";
import { buildNetwork } from "./network";
import { engineFlows, makeSettings, type Settings } from "./settings";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const marram = read("marram");
/** m/s2, by definition (CGPM 1901). */
const G = 9.80665;

function settingsOf(
  job: Job,
  change: Partial<Conditions> = {},
  lineUp = currentPlan(job).lineUps[0]!,
): Settings {
  const network = buildNetwork(job);
  const made = makeSettings(network, lineUp, { ...currentPlan(job).conditions, ...change });
  if ("code" in made) throw new Error(made.code);
  return made;
}

describe("an engine's flows by its load", () => {
  const engine = (loads: Engine["loads"], more: Partial<Engine> = {}): Engine => ({
    ...newEngine("e", "Engine", { xM: 0, yM: 0, zM: 0 }),
    loads,
    ...more,
  });
  const sheet = [
    { load: 0.25, feedM3S: 100e-6, burnM3S: 2e-6 },
    { load: 0.75, feedM3S: 120e-6, burnM3S: 8e-6 },
    { load: 1, feedM3S: 125e-6, burnM3S: 12e-6 },
  ];

  test("at a point of its sheet they are the sheet's", () => {
    for (const { load, feedM3S, burnM3S } of sheet)
      expect(engineFlows(engine(sheet), load)).toEqual({ feedM3S, burnM3S });
  });

  test("between two points they lie straight between them", () => {
    const half = engineFlows(engine(sheet), 0.5);
    expect(half.feedM3S).toBeCloseTo(110e-6, 12);
    expect(half.burnM3S).toBeCloseTo(5e-6, 12);
    const high = engineFlows(engine(sheet), 0.8);
    expect(high.burnM3S).toBeCloseTo(8e-6 + (0.05 / 0.25) * 4e-6, 12);
  });

  test("below the first point and over the last they are held", () => {
    expect(engineFlows(engine(sheet), 0)).toEqual(engineFlows(engine(sheet), 0.25));
    expect(engineFlows(engine(sheet), 1.5)).toEqual(engineFlows(engine(sheet), 1));
  });

  test("one without a return burns all that it is fed; one without a sheet takes nothing", () => {
    const { feedM3S, burnM3S } = engineFlows(engine(sheet, { noReturn: true }), 0.5);
    expect([feedM3S, burnM3S]).toEqual([burnM3S, engineFlows(engine(sheet), 0.5).burnM3S]);
    expect(engineFlows(engine([]), 1)).toEqual({ feedM3S: 0, burnM3S: 0 });
  });
});

describe("the settings of a line-up", () => {
  test("each tank presses with the height of its surface, at the fuel's density", () => {
    const { fixed, surfaceM, fuel } = settingsOf(marram);
    marram.tanks.forEach((tank, i) => {
      const aboard = currentPlan(marram).conditions.aboardM3[tank.id]!;
      const heightM = tank.origin.zM + levelOfVolumeM(tank, aboard);
      expect(surfaceM.get(tank.id)).toBeCloseTo(heightM, 9);
      // What its vent holds back at the flows of a day is little.
      const pressed = fuel.densityKgM3 * G * heightM;
      expect(Math.abs(fixed[i]! - pressed)).toBeLessThan(100);
    });
  });

  test("a litre more presses as much more as its level rises", () => {
    const [tank] = marram.tanks;
    const aboard = currentPlan(marram).conditions.aboardM3;
    const more = { ...aboard, [tank!.id]: aboard[tank!.id]! - 0.02 };
    const [full, less] = [settingsOf(marram), settingsOf(marram, { aboardM3: more })];
    const fallM = levelOfVolumeM(tank!, aboard[tank!.id]!) - levelOfVolumeM(tank!, more[tank!.id]!);
    expect(fallM).toBeGreaterThan(0);
    expect(full.fixed[0]! - less.fixed[0]!).toBeCloseTo(full.fuel.densityKgM3 * G * fallM, 6);
  });

  test("what runs takes its feed and gives back what it does not burn; what is stopped takes nothing", () => {
    const plan = currentPlan(marram);
    const network = buildNetwork(marram);
    for (const lineUp of plan.lineUps) {
      const { demand } = settingsOf(marram, {}, lineUp);
      let burnM3S = 0;
      for (const engine of marram.consumers) {
        const feed = network.nodeOf.get(`${engine.id}.feed`)!;
        const back = network.nodeOf.get(`${engine.id}.return`);
        if (lineUp.consumers[engine.id] !== "running") {
          expect(demand[feed]).toBe(0);
          continue;
        }
        const flows = engineFlows(engine, plan.conditions.load[engine.id] ?? 1);
        expect(demand[feed]).toBeCloseTo(flows.feedM3S, 12);
        if (back !== undefined) expect(demand[back]).toBeCloseTo(flows.burnM3S - flows.feedM3S, 12);
        burnM3S += flows.burnM3S;
      }
      // All that leaves the system is what is burnt.
      expect(demand.reduce((sum, one) => sum + one, 0)).toBeCloseTo(burnM3S, 12);
    }
  });

  test("warmer fuel is thinner: a Reynolds number goes with its viscosity, friction with its density", () => {
    const [cold, warm] = [settingsOf(marram, { fuelC: 0 }), settingsOf(marram, { fuelC: 40 })];
    const [thick, thin] = [fuelAt(marram.fuel, 0)!, fuelAt(marram.fuel, 40)!];
    let hoses = 0;
    buildNetwork(marram).links.forEach((link, i) => {
      if (link.kind !== "run") return;
      hoses += 1;
      expect(cold.laws.reynoldsPerFlow[i]! / warm.laws.reynoldsPerFlow[i]!).toBeCloseTo(
        thin.kinematicM2S / thick.kinematicM2S,
        9,
      );
      expect(cold.laws.friction[i]! / warm.laws.friction[i]!).toBeCloseTo(
        thick.densityKgM3 / thin.densityKgM3,
        9,
      );
    });
    expect(hoses).toBeGreaterThan(10);
  });

  test("a hose in laminar flow loses what Hagen and Poiseuille say: 128 mu L / (pi d^4)", () => {
    const { laws, fuel } = settingsOf(marram);
    const network = buildNetwork(marram);
    let held = 0;
    network.links.forEach((link, i) => {
      if (link.kind !== "run") return;
      const { boreM } = currentPlan(marram).runs.find(({ id }) => id === link.id)!;
      const { lengthM } = link.geometry;
      // Darcy and Weisbach with f = 64 / Re: the flow squared goes out against the flow in Re.
      const perFlow = (64 * laws.friction[i]!) / laws.reynoldsPerFlow[i]!;
      expect(perFlow / ((128 * fuel.dynamicPaS * lengthM) / (Math.PI * boreM ** 4))).toBeCloseTo(1, 9);
      held += 1;
    });
    expect(held).toBeGreaterThan(5);
  });

  test("fuel colder than any law of its thickness is a fault, told by its temperature", () => {
    const network = buildNetwork(marram);
    const { lineUps, conditions } = currentPlan(marram);
    expect(makeSettings(network, lineUps[0]!, { ...conditions, fuelC: -400 })).toEqual({
      code: "viscosityOutOfRange",
      tempC: -400,
    });
  });

  test("written into arrays that were used before, they are as if made anew", () => {
    const plan = currentPlan(marram);
    const network = buildNetwork(marram);
    const [first, second] = plan.lineUps;
    const conditions = { ...plan.conditions, fuelC: 3 };
    const used = makeSettings(network, first!, plan.conditions) as Settings;
    const again = makeSettings(network, second!, conditions, used) as Settings;
    const anew = makeSettings(buildNetwork(marram), second!, conditions) as Settings;
    expect(again.laws).toBe(used.laws);
    expect(again.demand).toEqual(anew.demand);
    expect(again.fixed).toEqual(anew.fixed);
    expect(again.laws).toEqual(anew.laws);
  });

  test("higher up the air presses less: 89.9 kPa at 1,000 m (ISO 2533), 101.325 at the sea", () => {
    const at = (altitudeM: number) =>
      settingsOf(
        applyCommand(marram, { name: "editJob", change: { site: { ...marram.site, altitudeM } } }).job,
      ).atmospherePa;
    expect(at(0)).toBeCloseTo(101325, 6);
    expect(at(1000) / 1000).toBeCloseTo(89.87, 1);
  });
});
