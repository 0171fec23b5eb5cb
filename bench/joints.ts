/** Joints and cuts beside a yardstick of this machine in the same run: a re-solve of Marram. */
import { readFileSync } from "node:fs";
import { cutsFrom } from "~/core/cuts/cuts";
import { chainBetween } from "~/core/ends/chain";
import type { End } from "~/core/ends/ends";
import { type Family, type FamilyId, families, familyIds } from "~/core/ends/families";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { planJoints } from "~/core/joints/joints";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { median, ms, show } from "./measure";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const marram = read("marram");
const solver = new LineUpSolver(buildNetwork(marram));
const plan = currentPlan(marram);
const lineUp = plan.lineUps[0];
if (!lineUp) throw new Error("no line-up");
const yardstick = () =>
  median(Array.from({ length: 200 }, () => ms(() => solver.solveInPlace(lineUp, plan.conditions))));

const truck = read("unit-12");
const coldMs = ms(() => planJoints(truck, currentPlan(truck)));
show("Unit 12: all joints, cold, with the catalogue", `${coldMs.toFixed(0)} ms`);

let seed = 5;
const random = () => {
  seed = (seed * 1103515245 + 12345) % 2147483648;
  return seed / 2147483648;
};
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const anyEnd = (): End => {
  const family = pick(familyIds) as FamilyId;
  const { male, female, sizes } = families[family] as Family;
  return { family, size: pick(sizes)[0], form: pick([...male, ...female]) };
};
const one = yardstick();
const chains = Array.from({ length: 300 }, () => {
  const [from, to] = [anyEnd(), anyEnd()];
  return ms(() => chainBetween({ from, to }));
}).sort((a, b) => a - b);
show(
  "300 chains between any two ends",
  `median ${median(chains).toFixed(1)} ms (${(median(chains) / one).toFixed(0)} re-solves), worst ${(chains.at(-1) ?? 0).toFixed(0)} ms`,
);
const npt = (size: string, form: string): End => ({ family: "npt", size, form });
const tees = ["1/4", "3/8", "1/2", "3/4"].map((size) =>
  ms(() =>
    chainBetween({
      from: npt(size, "f"),
      to: { family: "hose", size: "12.7", form: "f" },
      branch: npt("1/8", "m"),
    }),
  ),
);
show("tees of three ends", `median ${median(tees).toFixed(0)} ms, worst ${Math.max(...tees).toFixed(0)} ms`);
const cuts = Array.from({ length: 8 }, () => {
  const lengths = Array.from({ length: 60 }, () => Math.round(200 + random() * 1300) / 1000);
  const stock = Array.from({ length: 18 }, () => Math.round(2000 + random() * 4000) / 1000);
  return ms(() => cutsFrom(stock, lengths, 0.002));
});
show(
  "60 pieces from 18 stocks",
  `median ${median(cuts).toFixed(0)} ms, worst ${Math.max(...cuts).toFixed(0)} ms`,
);
