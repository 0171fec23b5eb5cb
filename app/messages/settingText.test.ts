import { expect, test } from "@jest/globals";
import { startJob } from "~/core/edit/starters";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import { settingText, settingWithTanks } from "./settingText";

test("a selector's way is said with the tank that it opens to", () => {
  const job = startJob("s", "S", "twoTanksTwoSelectors");
  const network = buildNetwork(job);
  const selectors = currentPlan(job).parts.filter(({ kind }) => kind === "selector");
  expect(selectors).toHaveLength(2);
  for (const selector of selectors) {
    const lines = currentPlan(job).lineUps.map((lineUp) =>
      settingWithTanks(network, selector, lineUp.valves[selector.id]),
    );
    // Two line-ups, one tank each: each says its own tank's name and not the other's.
    expect(new Set(lines).size).toBe(2);
    lines.forEach((line, i) => {
      const [own, other] = i === 0 ? [job.tanks[0]!, job.tanks[1]!] : [job.tanks[1]!, job.tanks[0]!];
      expect(line.toLowerCase()).toContain(own.name.toLowerCase());
      expect(line.toLowerCase()).not.toContain(other.name.toLowerCase());
    });
  }
});

test("what is not set, and a plain shut-off, is said as it was", () => {
  const job = startJob("s", "S", "oneTank");
  const network = buildNetwork(job);
  const valve = currentPlan(job).parts.find(({ kind }) => kind === "twoWay")!;
  for (const setting of [undefined, { kind: "position", position: "shut" } as const])
    expect(settingWithTanks(network, valve, setting)).toBe(settingText(valve, setting));
});
