/** A fitting of a tank: its mouth is in the tank, or in the sump that came with it, and nothing else of the tank changes. */
import { expect, test } from "@jest/globals";
import { checkJob } from "../check/job";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import type { Job, Tank } from "../plan/types";
import { fittingIds, fittingOn, fittingsFor } from "./fitting";
import { heightsOf } from "./tank";

const job = startJob("j", "J", "oneTank");
const tank = job.tanks[0]!;
const given = (to: Job, change: Partial<Tank>): Job =>
  applyCommand(to, { name: "editTank", id: tank.id, change }).job;

test.each(fittingIds)("%s: fits its tank, and is taken off by undo of nothing else", (fitting) => {
  const after = given(job, fittingOn(tank, fitting, "new", "port"));
  const now = after.tanks[0]!;
  expect(checkJob(after)).toEqual([]);
  expect(now.ports.slice(0, -1)).toEqual(tank.ports);
  const { mouth, role, boreM } = now.ports.at(-1)!;
  expect(role).toBe(fitting === "return" ? "return" : "outlet");
  expect(boreM).toBe(tank.ports.find((port) => port.role === "outlet")!.boreM);
  const { lowM, highM } = heightsOf(tank);
  // Over the floor, but in a sump under it; a return is let in near the top.
  if (fitting === "sump") {
    expect(mouth.zM).toBeLessThan(lowM);
    expect(mouth.zM).toBeGreaterThan(lowM - now.sump!.depthM);
  } else {
    expect(mouth.zM).toBeGreaterThan(lowM);
    expect(mouth.zM).toBeLessThan(highM);
    expect(now.sump).toEqual(tank.sump);
  }
  expect(mouth.zM > (lowM + highM) / 2).toBe(fitting === "return");
});

test("a stripping tube reaches lower than a pickup, a standpipe leaves a reserve under it", () => {
  const mouthOf = (fitting: (typeof fittingIds)[number]) =>
    given(job, fittingOn(tank, fitting, "new", "port")).tanks[0]!.ports.at(-1)!.mouth.zM;
  expect(mouthOf("stripping")).toBeLessThan(mouthOf("tube"));
  expect(mouthOf("standpipe")).toBeGreaterThan(mouthOf("tube"));
});

test("the second of a kind is called otherwise, and a tank has one sump", () => {
  const once = given(job, fittingOn(tank, "sump", "a", "drain")).tanks[0]!;
  expect(fittingsFor(tank)).toContain("sump");
  expect(fittingsFor(once)).not.toContain("sump");
  const twice = given({ ...job, tanks: [once] }, fittingOn(once, "tube", "b", "drain")).tanks[0]!;
  expect(twice.ports.slice(-2).map(({ name }) => name)).toEqual(["drain", "drain 2"]);
});
