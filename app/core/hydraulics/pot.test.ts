/** A pot whose filling has failed, by hand: what is drawn less what comes back, litres over litres an hour. */
import { describe, expect, test } from "@jest/globals";
import type { SwirlPot } from "../kinds/swirlPot";
import { LITRE_M3, LITRE_PER_HOUR_M3_S } from "../units/factors";
import { Bench } from "./bench.fixture";
import { portFlowM3S, potHolds } from "./pot";

const LH = LITRE_PER_HOUR_M3_S;

/** 60 L/h drawn from the pot, 40 L/h back into it or to the tank. */
const withPot = (returnTo: "pot" | "tank") =>
  new Bench()
    .tank("t", 0, 0.5)
    .part("swirlPot", "pot", 0, { volumeM3: 1.5 * LITRE_M3 })
    .engine("e", 0, 60, 20)
    .run("t.supply", "pot.fill")
    .run("pot.out", "e.feed")
    .run("e.return", returnTo === "pot" ? "pot.back" : "t.return");

const potOf = ({ plan }: Bench): SwirlPot => {
  const pot = plan.parts.find((part) => part.kind === "swirlPot");
  if (pot?.kind !== "swirlPot") throw new Error("no pot");
  return pot;
};

describe("a pot", () => {
  test("with the return led elsewhere empties at the whole feed: 1.5 L at 60 L/h are 90 s", () => {
    const bench = withPot("tank");
    const solved = bench.solve();
    const holds = potHolds(solved, potOf(bench));
    expect(holds.drawnM3S / (60 * LH)).toBeCloseTo(1, 6);
    expect(holds.backM3S).toBe(0);
    expect(holds.seconds).toBeCloseTo(90, 3);
    expect(holds.leftM3(45) / LITRE_M3).toBeCloseTo(0.75, 6);
    expect(holds.leftM3(200)).toBe(0);
  });

  test("with the return led into it only what is burned is lost: 1.5 L at 20 L/h are 270 s", () => {
    const bench = withPot("pot");
    const solved = bench.solve();
    expect(portFlowM3S(solved, "pot", "back") / (40 * LH)).toBeCloseTo(1, 6);
    expect(portFlowM3S(solved, "pot", "fill") / (20 * LH)).toBeCloseTo(1, 6);
    expect(potHolds(solved, potOf(bench)).seconds).toBeCloseTo(270, 3);
    expect(portFlowM3S(solved, "pot", "over")).toBe(0);
  });
});
