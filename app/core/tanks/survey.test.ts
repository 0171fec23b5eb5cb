import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Fill } from "../book/entries";
import { startJob } from "../edit/starters";
import { newTank } from "../plan/blank";
import type { Filling, Opening, PlateHole, Sender, Tank } from "../plan/types";
import { INCH_M } from "../units/factors";
import { LEVEL } from "./attitude";
import { judgeTank, testPressurePa } from "./condition";
import { depthOfReading, dipTable, fitFills, gaugeTable, volumeOfDip, worstGaugeErrorM3 } from "./dip";
import { floorUnder } from "./floor";
import { COMMON_ENGINE, type Heating, heatOverHours, hoursToLimit, specificHeatJKgK } from "./heat";
import { holeFaults, keepOuts, metalLeftM, mirrored, sawFor } from "./opening";
import {
  cutLengthM,
  deadFuelM3,
  deadFuelMap,
  installedTilt,
  leastClearanceM,
  pickupOptions,
  wellHoldsS,
  worstDeadFuel,
} from "./pickup";
import { capacityM3 } from "./tank";
import { brimPressurePa, fillRateM3S, growthM3, spillAtHeel } from "./vent";
import { allTanks, tankWeight } from "./weight";

const box = (more: Partial<Tank> = {}): Tank => ({
  ...newTank("t", "Tank", { xM: 0, yM: 0, zM: 0 }),
  shape: { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 },
  ...more,
});
const vee = (): Tank =>
  box({
    shape: {
      kind: "prism",
      lengthM: 1,
      section: [
        [-0.1, 0],
        [0.1, 0],
        [0.4, 0.4],
        [-0.4, 0.4],
      ],
    },
    sounding: { xM: 0.5, yM: 0 },
  });
const sender: Sender = { kind: "ohm240to33", emptyReading: 240, fullReading: 33, lowM: 0.04, highM: 0.38 };

describe("dip tables and gauges", () => {
  test("a box's table is a straight line, at a roll about its middle too", () => {
    const rows = dipTable(box(), LEVEL, 0.1);
    expect(rows.map(({ volumeM3 }) => volumeM3)).toEqual(
      [0, 0.05, 0.1, 0.15, 0.2].map((v) => expect.closeTo(v, 9)),
    );
    // Rolled, the surface through the middle of a box holds the same volume while it leaves floor and lid dry and wet.
    expect(volumeOfDip(box(), { pitchDeg: 0, rollDeg: 8 }, 0.2)).toBeCloseTo(0.1, 9);
  });

  test("the stick stands on the floor under it: a V's side, a lying cylinder's curve, a sump's bottom", () => {
    expect(floorUnder(vee(), 0.5, 0.25)).toBeCloseTo(0.2, 12);
    const round = { shape: { kind: "cylinder", diameterM: 0.5, lengthM: 1, axis: "x" } as const };
    expect(floorUnder(round, 0.5, 0.25 + 0.15)).toBeCloseTo(0.25 - 0.2, 12); // 3-4-5 triangle
    const sump = { xM: 0.2, yM: 0.2, diameterM: 0.1, depthM: 0.08, holeM: 0.1 };
    expect(floorUnder(box({ sump }), 0.21, 0.21)).toBeCloseTo(-0.08, 12);
  });

  test("a straight-line gauge tells a V's half too high, and is right for a box but for the ends of travel", () => {
    const off = gaugeTable(vee(), sender, LEVEL, 2);
    const [low, half, full] = off;
    expect(low?.straightM3).toBe(0);
    expect((half?.straightM3 ?? 0) - (half?.volumeM3 ?? 0)).toBeGreaterThan(0.02 * capacityM3(vee()));
    expect(full?.volumeM3).toBeLessThan(capacityM3(vee()));
    expect(worstGaugeErrorM3(off)).toBeCloseTo((half?.straightM3 ?? 0) - (half?.volumeM3 ?? 0), 12);
    expect(depthOfReading(sender, 33)).toBeCloseTo(0.38, 12);
    expect(depthOfReading(sender, (240 + 33) / 2)).toBeCloseTo(0.21, 12);
  });

  test("fills of known litres give the scale and start they were made with", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.9, max: 1.1, noNaN: true }),
        fc.double({ min: 0.01, max: 0.05, noNaN: true }),
        (scale, start) => {
          const tank = vee();
          let before = start;
          const fills = [0.06, 0.15, 0.24, 0.33].map((depth, i): Fill => {
            const volume = scale * volumeOfDip(tank, LEVEL, depth);
            const reading = 240 - ((depth - sender.lowM) / (sender.highM - sender.lowM)) * (240 - 33);
            const addedM3 = volume - before;
            before = volume;
            return {
              kind: "fill",
              id: `f${i}`,
              at: "",
              planId: "p",
              planHash: "",
              tankId: "t",
              addedM3,
              reading,
            };
          });
          const fit = fitFills(tank, sender, LEVEL, fills);
          expect(fit?.scale).toBeCloseTo(scale, 9);
          expect(fit?.startM3).toBeCloseTo(start, 9);
          for (const { missM3 } of fit?.points ?? []) expect(missM3).toBeCloseTo(0, 9);
        },
      ),
    );
    expect(fitFills(vee(), sender, LEVEL, [])).toBeNull();
  });
});

describe("pickups", () => {
  const mouth = { xM: 0.5, yM: 0.25, zM: 0.02 };

  test("dead fuel by hand: a slab when level, a wedge when pitched", () => {
    expect(deadFuelM3(box(), [mouth], LEVEL)).toBeCloseTo(0.02 * 0.5, 12);
    // Pitched up by 10 degrees: the surface through the mouth meets the floor 0.02/tan 10 ahead of it, fuel lies behind.
    const slope = Math.tan((10 * Math.PI) / 180);
    const back = 0.02 + 0.5 * slope;
    expect(deadFuelM3(box(), [mouth], { pitchDeg: 10, rollDeg: 0 })).toBeCloseTo(
      ((back * back) / slope / 2) * 0.5,
      9,
    );
  });

  test("of two mouths the last to come clear counts, and a map's middle is the level figure", () => {
    const other = { ...mouth, xM: 0.05 };
    const pitched = { pitchDeg: 10, rollDeg: 0 };
    expect(deadFuelM3(box(), [mouth, other], pitched)).toBeLessThan(deadFuelM3(box(), [mouth], pitched));
    const map = deadFuelMap(box(), [mouth], { pitchDeg: 10, rollDeg: 10 }, 5);
    expect(map.deadM3[12]).toBeCloseTo(0.01, 12);
    expect(worstDeadFuel(box(), [mouth], { pitchDeg: 10, rollDeg: 10 }).deadM3).toBeCloseTo(
      Math.max(...map.deadM3),
      12,
    );
  });

  test("a deeper mouth, a sump and a second pickup never leave more at the worst", () => {
    const port = {
      id: "o",
      name: "supply",
      role: "outlet" as const,
      mouth: { xM: 0.1, yM: 0.25, zM: 0.04 },
      outside: { xM: 0.1, yM: 0.25, zM: 0.43 },
      boreM: 0.0095,
    };
    const options = pickupOptions(box(), port, { pitchDeg: 8, rollDeg: 8 });
    expect(options.map(({ kind }) => kind)).toEqual(["asFound", "deeper", "sump", "second"]);
    for (const option of options.slice(1)) expect(option.worstM3).toBeLessThan(options[0]?.worstM3 ?? 0);
  });

  test("a well without holes feeds on for its volume over the feed (by hand)", () => {
    const well = {
      low: { xM: 0, yM: 0, zM: 0 },
      high: { xM: 0.1, yM: 0.1, zM: 0.12 },
      holeBoreM: 0.008,
      holes: 0,
    };
    expect(wellHoldsS(box({ well }), { xM: 0.05, yM: 0.05, zM: 0.02 }, 1e-5)).toBeCloseTo(
      (0.01 * 0.1) / 1e-5,
      6,
    );
    // Torricelli: with holes alone a tank of one section drains in 2 A (sqrt h1 - sqrt h0) / (Cd a sqrt 2g).
    const holed = { ...well, holes: 2 };
    const area = 2 * (Math.PI / 4) * 0.008 ** 2;
    const drains = (2 * 0.01 * (Math.sqrt(0.12) - Math.sqrt(0.02))) / (0.61 * area * Math.sqrt(2 * 9.80665));
    expect((wellHoldsS(box({ well: holed }), { xM: 0.05, yM: 0.05, zM: 0.02 }, 0) ?? 0) / drains).toBeCloseTo(
      1,
      3,
    );
    expect(wellHoldsS(box(), mouth, 1e-5)).toBeNull();
  });

  test("cut length and the clearance a mouth needs, by hand", () => {
    const fit = {
      portId: "o",
      mouth: "square" as const,
      depthM: 0.4,
      sagM: 0.006,
      carrierM: 0.01,
      clearanceM: 0.02,
    };
    // As fitted: 400 + 6 - 20. Taken on the free unit it is 10 mm shorter once its carrier is pressed.
    expect(cutLengthM({ ...fit, taken: "fitted" })).toBeCloseTo(0.386, 12);
    expect(cutLengthM({ ...fit, taken: "free" })).toBeCloseTo(0.376, 12);
    expect(cutLengthM(fit)).toBeCloseTo(0.376, 12);
    const trade = { ...fit, depthM: 0.31, sagM: 0, carrierM: 0.03, clearanceM: 0.025 };
    expect(cutLengthM(trade)).toBeCloseTo(0.255, 12);
    expect(cutLengthM({ ...trade, taken: "fitted" })).toBeCloseTo(0.285, 12);
    expect(leastClearanceM("square", 0.02)).toBeCloseTo(0.005, 12);
    expect(leastClearanceM("bevelled", 0.02)).toBe(0.003);
  });

  test("fitted at a tilt: a box filled to a lip in its middle loses a wedge, by hand", () => {
    const tank = box({ installed: { pitchDeg: 5, rollDeg: 0 } });
    const lost = installedTilt(tank, [], { xM: 0.5, yM: 0.25, zM: 0.4 }).capacityLostM3;
    // The front half stands over the lip: a triangle 0.5 long and 0.5 tan 5 high, as wide as the tank.
    expect(lost).toBeCloseTo(((0.5 * 0.5 * Math.tan((5 * Math.PI) / 180)) / 2) * 0.5, 9);
  });
});

describe("heat of the return", () => {
  const heating = (more: Partial<Heating> = {}): Heating => ({
    tank: box(),
    aboardM3: 0.15,
    densityKgM3: 830,
    startC: 20,
    ambientC: 20,
    feedM3S: 3e-5,
    returnM3S: 3e-5,
    engine: COMMON_ENGINE,
    cooler: null,
    hours: 10,
    leastM3: 1e-3,
    ...more,
  });

  test("without burn the temperature runs to where return and wall balance", () => {
    const points = heatOverHours(heating({ hours: 200 }));
    const end = points.at(-1)?.tempC ?? 0;
    // At the balance: rho c Q s (Te - T) = U A (T - Ta), A the wet wall: 0.3 deep in 1.0 by 0.5.
    const wet = 0.5 + 2 * (1 + 0.5) * 0.3;
    const flow = 830 * specificHeatJKgK(830, end) * 3e-5 * COMMON_ENGINE.share;
    const balance = (flow * COMMON_ENGINE.tempC + 10 * wet * 20) / (flow + 10 * wet);
    expect(end).toBeCloseTo(balance, 1);
    // And it goes there as 1 - exp(-t/tau), tau = m c / (flow + U A), within what c changes over the way.
    const tau = (0.15 * 830 * specificHeatJKgK(830, 45)) / (flow + 10 * wet) / 3600;
    const at2 = points.find(({ hours }) => hours === 2)?.tempC ?? 0;
    expect(Math.abs(at2 - 20 - (balance - 20) * (1 - Math.exp(-2 / tau)))).toBeLessThan(1);
  });

  test("a cooler at the coolant's 20 degC with effectiveness 1 keeps it there; a burn ends it at the pickup", () => {
    const cooled = heatOverHours(heating({ cooler: { effectiveness: 1, coolantC: 20 } }));
    expect(cooled.at(-1)?.tempC).toBeCloseTo(20, 9);
    const burning = heatOverHours(heating({ returnM3S: 1e-5, hours: 100, leastM3: 0.02 }));
    expect(burning.at(-1)?.hours).toBeCloseTo((0.15 - 0.02) / 2e-5 / 3600, 0);
    expect(hoursToLimit(burning, 1000)).toBeNull();
    expect(
      hoursToLimit(
        [
          { hours: 0, tempC: 50, returnC: 0, aboardM3: 1 },
          { hours: 1, tempC: 70, returnC: 0, aboardM3: 1 },
        ],
        60,
      ),
    ).toBeCloseTo(0.5, 12);
  });

  test("specific heat: Cragoe's 2.0 kJ/(kg K) for diesel at 40 degC (handbook)", () => {
    expect(specificHeatJKgK(840, 40)).toBeGreaterThan(1950);
    expect(specificHeatJKgK(840, 40)).toBeLessThan(2050);
  });
});

describe("fill and vent", () => {
  const filling: Filling = {
    fillBoreM: 0.038,
    fillHoseBoreM: 0.038,
    ventBoreM: 0.0127,
    ventLengthM: 1.5,
    ventTop: { xM: 0.5, yM: 0.25, zM: 0.9 },
    spill: { xM: 0.5, yM: 0.1, zM: 0.8 },
    hasDip: false,
    hasArrester: false,
    ratedPa: 20000,
  };
  test("without length the fill rate is the orifice's: sqrt(2 dp / (K rho)) times the bore", () => {
    const short = { ...filling, ventLengthM: 0 };
    const byHand = Math.sqrt((2 * 16000) / (2.3 * 1.225)) * (Math.PI / 4) * 0.0127 ** 2;
    expect(fillRateM3S(short) / byHand).toBeCloseTo(1, 6);
    expect(fillRateM3S(filling)).toBeLessThan(fillRateM3S(short));
  });
  test("growth, head at the brim, and heel by hand", () => {
    expect(growthM3(0.34, 850, 816)).toBeCloseTo(0.34 * (850 / 816 - 1), 12);
    expect(brimPressurePa(840, filling.spill, 0)).toBeCloseTo(840 * 9.80665 * 0.8, 6);
    // Rolled starboard down by 30: the vent, 0.15 m to port of the fill, rises by 0.15 sin 30 and keeps 0.1 cos 30.
    const spill = spillAtHeel({ filling }, { pitchDeg: 0, rollDeg: 30 });
    expect(spill?.ventOverFillM).toBeCloseTo(0.1 * Math.cos(Math.PI / 6) - 0.15 * 0.5, 9);
    expect(spill?.attitude.rollDeg).toBe(-30);
  });
});

describe("weights", () => {
  test("a box's centre is its middle, and two tanks balance about the point between them", () => {
    const one = tankWeight(box({ emptyKg: 10 }), 0.2, 850);
    expect(one.allKg).toBeCloseTo(180, 9);
    expect(one.centre.zM).toBeCloseTo(0.2, 9);
    const job = startJob("j", "J", "twoTanksTwoSelectors");
    const [a, b] = job.tanks as [Tank, Tank];
    const equal = { ...job, tanks: [{ ...a, shape: b.shape }, b] };
    const all = allTanks(equal, { [a.id]: 0.1, [b.id]: 0.1 }, 840);
    expect(all.listNm / 9.80665).toBeCloseTo(all.allKg * (all.centre?.yM ?? 0), 6);
  });
});

describe("the plate and its holes", () => {
  const hole = (more: Partial<PlateHole>): PlateHole => ({
    id: "h",
    use: "sender",
    aM: 0.1,
    bM: 0.1,
    diameterM: 0.054,
    mostM: 0.057,
    flangeM: 0.08,
    swingM: 0,
    partLengthM: 0.3,
    ...more,
  });
  const plate = (holes: PlateHole[], more: Partial<Opening> = {}, tank: Partial<Tank> = {}) =>
    box({
      ...tank,
      opening: {
        aM: 0.3,
        bM: 0.2,
        at: { xM: 0, yM: 0, zM: 0.4 },
        holes,
        roomAboveM: 0.4,
        cleaningTaken: false,
        warnedBy: "gauge",
        ...more,
      },
    });
  test("saws go by sixteenths; none where the flange leaves no room for one", () => {
    expect(sawFor({ diameterM: 0.054, mostM: 0.057 })).toBeCloseTo(
      2.125 * INCH_M + INCH_M / 16 - INCH_M / 16,
      3,
    );
    expect(sawFor({ diameterM: 0.0545, mostM: 0.0549 })).toBeNull();
  });
  test.each<[string, Tank, string]>([
    ["larger than its flange", plate([hole({ diameterM: 0.06 })]), "largerThanFlange"],
    ["no saw", plate([hole({ diameterM: 0.0545, mostM: 0.0549 })]), "noSaw"],
    ["too near the edge", plate([hole({ aM: 0.03 })]), "nearEdge"],
    ["too near the next", plate([hole({}), hole({ id: "k", aM: 0.17 })]), "nearHole"],
    [
      "over a baffle",
      plate([hole({})], {}, { baffles: [{ id: "b", across: "x", atM: 0.12 }] }),
      "nearBaffle",
    ],
    [
      "float against a baffle",
      plate([hole({ swingM: 0.12 })], {}, { baffles: [{ id: "b", across: "x", atM: 0.2 }] }),
      "swingFouls",
    ],
    [
      "float against what stands inside",
      plate(
        [hole({ swingM: 0.12 })],
        {},
        {
          internals: [
            { id: "i", name: "i", low: { xM: 0.2, yM: 0, zM: 0 }, high: { xM: 0.25, yM: 0.5, zM: 0.1 } },
          ],
        },
      ),
      "swingFouls",
    ],
    ["no room above", plate([hole({ partLengthM: 0.5 })]), "noRoomAbove"],
  ])("%s is told, a sound plate is not", (_name, tank, code) => {
    expect(holeFaults(tank).map((fault) => fault.code)).toContain(code);
    expect(holeFaults(plate([hole({})]))).toEqual([]);
  });
  test("metal left, and what lies behind the plate, by hand", () => {
    const tank = plate(
      [hole({}), hole({ id: "k", aM: 0.2, diameterM: 0.02 })],
      { at: { xM: 0.3, yM: 0.1, zM: 0.4 } },
      {
        baffles: [
          { id: "b", across: "x", atM: 0.5 },
          { id: "far", across: "x", atM: 0.9 },
        ],
        internals: [
          { id: "i", name: "i", low: { xM: 0.2, yM: 0.2, zM: 0 }, high: { xM: 0.4, yM: 0.6, zM: 0.1 } },
        ],
      },
    );
    if (!tank.opening?.holes[0]) throw new Error();
    expect(metalLeftM(tank.opening, tank.opening.holes[0])).toBeCloseTo(0.1 - (0.054 + 0.02) / 2, 12);
    expect(keepOuts(tank)).toEqual([
      { id: "b", aM: [expect.closeTo(0.197, 9), expect.closeTo(0.203, 9)], bM: [0, 0.2] },
      { id: "i", aM: [0, expect.closeTo(0.1, 9)], bM: [expect.closeTo(0.1, 9), 0.2] },
    ]);
  });
  test("from inside a hole is mirrored about the plate's middle, and back again", () => {
    const { opening } = plate([hole({ bM: 0.05 })]);
    if (!opening) throw new Error();
    const inside = mirrored(opening, hole({ bM: 0.05 }));
    expect(inside.bM).toBeCloseTo(0.15, 12);
    expect(mirrored(opening, hole({ ...inside })).bM).toBeCloseTo(0.05, 12);
  });
});

describe("keep, mend or replace", () => {
  const sound = {
    cleanedFirst: true,
    seams: "sound",
    feet: "sound",
    fittings: "sound",
    drains: "drains",
  } as const;
  const puddle = {
    kind: "puddle" as const,
    id: "p",
    at: "",
    planId: "p",
    planHash: "",
    tankId: "t",
    volumeM3: 1e-5,
    aboardM3: 0.1,
  };
  test("unseen is looked at first, bad seams go, a failed test with sound seams is mended, sound stays", () => {
    expect(judgeTank({}, []).verdict).toBe("lookFirst");
    expect(judgeTank({ condition: { ...sound, seams: "bad" } }, []).verdict).toBe("replace");
    expect(judgeTank({ condition: { ...sound, testHeld: false } }, []).verdict).toBe("mend");
    expect(judgeTank({ condition: sound }, [])).toEqual({ verdict: "keep", reasons: [] });
    expect(judgeTank({ condition: sound }, [{ ...puddle, engine: "stopped" }]).reasons).toEqual([
      "leaksStopped",
    ]);
    expect(judgeTank({ condition: sound }, [{ ...puddle, engine: "running" }]).reasons).toEqual([
      "leaksRunning",
    ]);
  });
  test("no test pressure for petrol or an unknown rating", () => {
    expect(testPressurePa(box(), false)).toBeNull();
    const filling = { ratedPa: 20000 } as Filling;
    expect(testPressurePa(box({ filling }), false)).toBe(20000);
    expect(testPressurePa(box({ filling }), true)).toBeNull();
  });
});
