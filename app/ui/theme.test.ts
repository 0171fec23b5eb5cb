import { describe, expect, test } from "@jest/globals";
import {
  type Color,
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  parse,
  wcagContrast,
} from "culori";
import { day, night, type Scheme } from "./theme";

const schemes: [string, Scheme][] = [
  ["day", day],
  ["night", night],
];
const grounds = ["ground", "panel", "raised"] as const;
/** Text at 4.5:1, parts of graphics at 3:1: WCAG 2.2, 1.4.3 and 1.4.11. */
const texts = ["ink", "soft", "pressure", "vacuum", "back", "danger", "act"] as const;
const graphics = ["idle", "water"] as const;
const meanings = ["pressure", "vacuum", "back", "water", "danger"] as const;

describe.each(schemes)("%s scheme", (_, scheme) => {
  test.each(texts)("%s reads as text on every ground", (name) => {
    for (const ground of grounds)
      expect(wcagContrast(scheme[name], scheme[ground])).toBeGreaterThanOrEqual(4.5);
  });

  test.each(graphics)("%s is seen as a line on every ground", (name) => {
    for (const ground of grounds)
      expect(wcagContrast(scheme[name], scheme[ground])).toBeGreaterThanOrEqual(3);
  });

  test("no two meanings look alike, to any eye (CIEDE2000 of 13 or more)", () => {
    const apart = differenceCiede2000();
    const eyes: ((colour: string) => Color)[] = [
      (colour) => parse(colour) as Color,
      filterDeficiencyProt(1) as never,
      filterDeficiencyDeuter(1) as never,
      filterDeficiencyTrit(1) as never,
    ];
    for (const eye of eyes) {
      for (const a of meanings) {
        for (const b of meanings) {
          if (a < b) expect(apart(eye(scheme[a]), eye(scheme[b]))).toBeGreaterThanOrEqual(13);
        }
      }
    }
  });
});
