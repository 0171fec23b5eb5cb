import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Job } from "~/core/plan/types";
import { readJobFile, writeJobFile } from "./file";

const text = readFileSync("demo/marram.keel.json", "utf8");
type Loose = Record<string, unknown>;
const spoiled = (change: (tank: Loose, job: Loose) => void) => {
  const file = JSON.parse(text) as { job: Loose & { tanks: Loose[] } };
  change(file.job.tanks[0] as Loose, file.job);
  return readJobFile(JSON.stringify(file));
};
const placesOf = (read: ReturnType<typeof readJobFile>) =>
  read.ok ? [] : read.faults.map(({ path, code }) => `${path}: ${code}`);
const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });
const section = (x: number) => ({
  xM: x,
  polygon: [
    [0, 0],
    [0.5, 0],
    [0.5, 0.5],
    [0, 0.5],
  ],
});

describe("what a survey adds to a tank is read with its faults and their places", () => {
  test.each<[string, (tank: Loose, job: Loose) => void, string]>([
    [
      "a cylinder without a diameter",
      (t) => (t.shape = { kind: "cylinder", lengthM: 1, axis: "x" }),
      "job.tanks[0].shape.diameterM: missing",
    ],
    [
      "an axis that is none",
      (t) => (t.shape = { kind: "cylinder", diameterM: 1, lengthM: 1, axis: "w" }),
      "job.tanks[0].shape.axis: notAllowed",
    ],
    [
      "a loft of one section",
      (t) => (t.shape = { kind: "loft", sections: [section(0)] }),
      "job.tanks[0].shape.sections: tooSmall",
    ],
    [
      "sections out of order",
      (t) => (t.shape = { kind: "loft", sections: [section(1), section(0)] }),
      "job.tanks[0].shape.sections[1].xM: sectionsOutOfOrder",
    ],
    [
      "a shape of another world",
      (t) => (t.shape = { kind: "teapot" }),
      "job.tanks[0].shape.kind: notAllowed",
    ],
    [
      "millimetres as metres",
      (t) => (t.shape = { kind: "box", lengthM: 104, widthM: 1, heightM: 1 }),
      "job.tanks[0].shape: unitSlip",
    ],
    [
      "a wall that leaves nothing",
      (t) => {
        t.shape = { kind: "box", lengthM: 1, widthM: 0.19, heightM: 1 };
        t.wallM = 0.099;
      },
      "job.tanks[0].wallM: wallTooThick",
    ],
    ["a negative wall", (t) => (t.wallM = -0.001), "job.tanks[0].wallM: tooSmall"],
    [
      "a box beyond the tank",
      (t) => (t.internals = [{ id: "i", name: "Box", low: at(0, 0, 0), high: at(5, 0.1, 0.1) }]),
      "job.tanks[0].internals[0]: outsideTank",
    ],
    [
      "a box upside down",
      (t) => (t.internals = [{ id: "i", name: "Box", low: at(0.2, 0.2, 0.2), high: at(0.1, 0.3, 0.3) }]),
      "job.tanks[0].internals[0]: lowOverHigh",
    ],
    [
      "a sump beside the tank",
      (t) => (t.sump = { xM: 9, yM: 0, diameterM: 0.1, depthM: 0.1, holeM: 0.1 }),
      "job.tanks[0].sump: outsideTank",
    ],
    [
      "a sounding point beside it",
      (t) => (t.sounding = { xM: -3, yM: 0 }),
      "job.tanks[0].sounding: outsideTank",
    ],
    [
      "a sender that reads the same empty and full",
      (t) => (t.sender = { kind: "own", emptyReading: 5, fullReading: 5, lowM: 0, highM: 0.3 }),
      "job.tanks[0].sender: sameReading",
    ],
    [
      "a sender hung upside down",
      (t) => (t.sender = { kind: "own", emptyReading: 0, fullReading: 5, lowM: 0.3, highM: 0.1 }),
      "job.tanks[0].sender: lowOverHigh",
    ],
    [
      "a cooler better than perfect",
      (t) => (t.cooler = { effectiveness: 1.2, coolantC: 20 }),
      "job.tanks[0].cooler.effectiveness: tooLarge",
    ],
    ["a key no one knows", (t) => (t.colour = "red"), "job.tanks[0].colour: unknownKey"],
    ["null for a number", (t) => (t.plateM3 = null), "job.tanks[0].plateM3: wrongType"],
    [
      "an envelope that capsizes",
      (_t, job) => ((job.site as Loose).envelope = { pitchDeg: 5, rollDeg: 80 }),
      "job.site.envelope.rollDeg: tooLarge",
    ],
    [
      "more biodiesel than fuel",
      (_t, job) => ((job.fuel as Loose).biodieselShare = 1.5),
      "job.fuel.biodieselShare: tooLarge",
    ],
  ])("%s", (_name, change, place) => {
    expect(placesOf(spoiled(change))).toContain(place);
  });

  test("a tank of any shape and fittings goes out and in without loss", () => {
    const metres = (least: number, most: number) =>
      fc.double({ min: least, max: most, noNaN: true, noDefaultInfinity: true });
    const shape = fc.oneof(
      fc.record({
        kind: fc.constant("box"),
        lengthM: metres(0.8, 2),
        widthM: metres(0.8, 2),
        heightM: metres(0.8, 2),
      }),
      fc.record({
        kind: fc.constant("cylinder"),
        diameterM: metres(0.8, 2),
        lengthM: metres(0.8, 2),
        axis: fc.constantFrom("x", "y", "z"),
        endDepthM: metres(0, 0.3),
      }),
      metres(0.5, 2).map((x) => ({ kind: "loft", sections: [section(0), section(x)] })),
    );
    const fittings = fc.record(
      {
        wallM: metres(0, 0.01),
        carried: fc.constantFrom("fixed", "portable", "bladder"),
        sounding: fc.constant({ xM: 0.2, yM: 0.2 }),
        well: fc.constant({ low: at(0.1, 0.1, 0), high: at(0.3, 0.3, 0.2), holeBoreM: 0.006, holes: 3 }),
        cooler: fc.record({ effectiveness: metres(0, 1), coolantC: metres(-10, 60) }),
        installed: fc.record({ pitchDeg: metres(-45, 45), rollDeg: metres(-45, 45) }),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(shape, fittings, (one, more) => {
        const file = JSON.parse(text) as { job: Job & { tanks: Loose[] } };
        const [tank] = file.job.tanks as unknown as [Loose];
        for (const key of ["baffles", "filling", "sender", "plateM3"]) delete tank[key];
        Object.assign(tank, { shape: one }, more);
        file.job.plans.forEach(({ conditions }) => (conditions.aboardM3.portWing = 0.05));
        const read = readJobFile(JSON.stringify(file));
        if (!read.ok) throw new Error(JSON.stringify(read.faults));
        expect(readJobFile(writeJobFile(read))).toEqual(read);
      }),
      { numRuns: 25 },
    );
  });
});
