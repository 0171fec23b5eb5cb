/** The act that cost most, by hand. */
import { expect, test } from "@jest/globals";
import { dearestOf, type Mark } from "./practice";

const mark = (label: string, atS: number, airM3: number, panM3: number, dryS: number): Mark => ({
  label,
  atS,
  airM3,
  panM3,
  dryS,
});
const scale = { roomM3: 1e-3, limitS: 15, bestPanM3: 1e-4 };

test("air let in, seconds dry and fuel spilled are held against each other; the dearest is told with its act", () => {
  const marks = [
    mark("key, Lift pump", 0, 3e-4, 0, 0),
    // Six of fifteen seconds dry: 0.4.
    mark("lid of the separator 4/4 turn open", 20, 2e-4, 0, 6),
    // 0.5 of the room in air.
    mark("lid shut", 30, 7e-4, 5e-5, 6),
    mark("", 40, 6.9e-4, 5e-5, 6),
  ];
  expect(dearestOf(marks, scale)).toEqual({
    code: "letAirIn",
    label: "lid of the separator 4/4 turn open",
    atS: 20,
    airM3: expect.closeTo(5e-4, 12),
  });
  expect(dearestOf(marks.slice(0, 2), scale)).toMatchObject({ code: "ranDry", seconds: 6 });
  expect(dearestOf([mark("joint", 0, 0, 0, 0), mark("", 9, 0, 3e-4, 0)], scale)).toMatchObject({
    code: "spilled",
    panM3: 3e-4,
  });
});

test("a bleed without a mistake has none", () => {
  expect(dearestOf([mark("joint", 0, 1e-4, 0, 0), mark("", 9, 0, 1.1e-4, 1)], scale)).toBeNull();
  expect(dearestOf([], scale)).toBeNull();
});
