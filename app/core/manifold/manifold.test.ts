import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { checkJob } from "../check/job";
import { findingsOf } from "../findings/findings";
import { judgeAll } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { newEngine, newJob, newTank } from "../plan/blank";
import type { Job } from "../plan/types";
import { countPositions, judgePositions, type Positions } from "./positions";
import { type Proposal, proposeManifold, type Wishes } from "./propose";

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });

function bare(tanks: number, consumers: number): Job {
  const job = newJob("j", "J");
  for (let i = 0; i < tanks; i++) job.tanks.push(newTank(`t${i}`, `Tank ${i + 1}`, at(2.2, i * 0.8, 0.4)));
  for (let i = 0; i < consumers; i++)
    job.consumers.push(newEngine(`e${i}`, `Engine ${i + 1}`, at(0, i * 0.8, 0.5)));
  for (const { conditions } of job.plans) for (const { id } of job.tanks) conditions.aboardM3[id] = 0.12;
  return job;
}

const all = (job: Job): Wishes => ({
  feeds: job.consumers.map(({ id }) => ({ consumerId: id, tankIds: job.tanks.map((tank) => tank.id) })),
  transfers: [],
  polishIds: [],
});

const withProposal = (job: Job, { plan, tanks }: Proposal): Job => ({
  ...job,
  tanks,
  plans: [...job.plans, plan],
  currentPlanId: plan.id,
});

function positionsOf(job: Job): Positions {
  const network = buildNetwork(job);
  const found = judgePositions(network, network.plan.conditions);
  if (!found) throw new Error("too many");
  return found;
}

describe("every position of a manifold", () => {
  test("two tanks, one engine on two selectors: of sixteen positions four feed and four return elsewhere, and the pairs are named", () => {
    const job = bare(2, 1);
    const proposal = proposeManifold(job, all(job), "m");
    const found = positionsOf(withProposal(job, proposal));
    expect(found.count).toBe(16);
    expect(found.safe).toBe(4);
    expect(found.dangerous).toEqual({ returnElsewhere: 4, returnClosed: 0, tanksJoined: 0 });
    const [supply, back] = proposal.coupled[0]!;
    expect(
      found.causes.map(({ settings }) => settings.map(({ valveId, position }) => `${valveId}=${position}`)),
    ).toEqual([
      [`${supply}=p1`, `${back}=p2`],
      [`${supply}=p2`, `${back}=p1`],
    ]);
  });

  test("a return selector with an 'off' is to blame alone", () => {
    const job = bare(2, 1);
    const proposal: Proposal = JSON.parse(JSON.stringify(proposeManifold(job, all(job), "m")));
    const back = proposal.coupled[0]![1];
    const part = proposal.plan.parts.find(({ id }) => id === back);
    if (part?.kind !== "selector") throw new Error("no selector");
    part.positions = [...part.positions, { id: "off", name: "off", joins: [] }];
    const found = positionsOf(withProposal(job, proposal));
    expect(found.dangerous.returnClosed).toBe(4);
    expect(
      found.causes.filter(({ danger }) => danger === "returnClosed").map(({ settings }) => settings),
    ).toEqual([[{ valveId: back, position: "off" }]]);
  });

  test("a bank that draws from two tanks at once joins them: the two levers are named", () => {
    const job = bare(2, 1);
    const proposal = proposeManifold(job, { ...all(job), transfers: [{ fromId: "t0", toId: "t1" }] }, "m");
    const found = positionsOf(withProposal(job, proposal));
    const draws = proposal.plan.parts.find(({ name }) => name === "Transfer draws");
    expect(
      found.causes
        .filter(({ danger, settings }) => danger === "tanksJoined" && settings[0]?.valveId === draws?.id)
        .map(({ settings }) => settings.map(({ branchId, position }) => `${branchId} ${position}`)),
    ).toContainEqual(["t1 open", "t2 open"]);
  });

  /** Counted by hand: a return goes elsewhere unless a consumer's two selectors stand alike, with its tank's shut-off open. */
  test.each([
    [3, 1],
    [2, 2],
    [3, 2],
  ])("%d tanks and %d engines: as many safe positions as pairs that stand alike", (tanks, engines) => {
    const job = bare(tanks, engines);
    const found = positionsOf(withProposal(job, proposeManifold(job, all(job), "m")));
    expect(found.count).toBe(2 ** tanks * tanks ** (2 * engines));
    let safe = 0;
    for (let digits = 0; digits < tanks ** engines; digits++) {
      const used = new Set(
        Array.from({ length: engines }, (_, k) => Math.floor(digits / tanks ** k) % tanks),
      );
      safe += 2 ** (tanks - used.size);
    }
    expect(found.safe).toBe(safe);
    expect(found.causes).toHaveLength(engines * tanks * (tanks - 1));
    expect(found.heldIds).toEqual([]);
  });

  test("too many with the shut-offs at the tanks: they are held open, and the same handles are to blame", () => {
    const job = bare(3, 2);
    const proposal = proposeManifold(
      job,
      {
        ...all(job),
        feeds: all(job).feeds.map((feed, k) => ({ ...feed, tankIds: k ? ["t0", "t2"] : feed.tankIds })),
      },
      "m",
    );
    const network = buildNetwork(withProposal(job, proposal));
    const whole = judgePositions(network, network.plan.conditions);
    const held = judgePositions(network, network.plan.conditions, undefined, 100);
    expect(whole?.count).toBe(8 * 9 * 4);
    expect(held?.count).toBe(9 * 4);
    expect(held?.safe).toBe(3 * 2);
    expect(
      held?.heldIds.map((id) => proposal.plan.parts.find((part) => part.id === id)?.name).sort(),
    ).toEqual(["Tank 1 shut-off", "Tank 2 shut-off", "Tank 3 shut-off"]);
    const blamed = (found: Positions | null) =>
      found?.causes.map(({ danger, settings }) => ({ danger, settings }));
    expect(new Set(blamed(held)?.map((cause) => JSON.stringify(cause)))).toEqual(
      new Set(blamed(whole)?.map((cause) => JSON.stringify(cause))),
    );
  });
});

describe("what is proposed", () => {
  test("for any wishes the plan has no fault, every line-up feeds what runs and none returns into the wrong tank", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { maxLength: 3 }),
        fc.array(fc.nat(3), { maxLength: 3 }),
        fc.array(fc.nat(14), { minLength: 3, maxLength: 3 }),
        (tanks, engines, transfers, polish, masks) => {
          const job = bare(tanks, engines);
          const id = (i: number) => `t${i % tanks}`;
          const wishes: Wishes = {
            feeds: job.consumers.map(({ id: consumerId }, k) => {
              const chosen = job.tanks.filter((_, i) => ((masks[k] ?? 0) >> i) & 1).map((tank) => tank.id);
              return { consumerId, tankIds: chosen.length > 0 ? chosen : ["t0"] };
            }),
            transfers: transfers
              .map(([a, b]) => ({ fromId: id(a), toId: id(b) }))
              .filter(({ fromId, toId }) => fromId !== toId),
            polishIds: [...new Set(polish.map(id))],
          };
          const whole = withProposal(job, proposeManifold(job, wishes, "m"));
          expect(checkJob(whole)).toEqual([]);
          const network = buildNetwork(whole);
          for (const { lineUp, result } of judgeAll(network, network.plan.conditions)) {
            if (result.outcome !== "solved") throw new Error(`${lineUp.name}: ${result.outcome}`);
            for (const outcome of result.consumers.values())
              expect(outcome.outcome).toBe(lineUp.purpose === "run" ? "fed" : "stopped");
            if (lineUp.purpose === "transfer" || lineUp.purpose === "polish")
              expect(result.flow.some((q) => q !== 0)).toBe(true);
          }
          const bad = findingsOf(whole, [], network).filter(
            ({ rule, grade }) => grade === "stop" || rule === "feedsJoined" || rule === "returnElsewhere",
          );
          expect(bad).toEqual([]);
        },
      ),
      { numRuns: 20 },
    );
  });

  test("a heater draws from a standpipe of its own through a dosing pump, and lets no return be asked for", () => {
    const job = bare(2, 1);
    // A heater of 1 L/h is more than the blank pump gives: the one proposed is large enough.
    const heater = newEngine("h", "Heater", at(0.5, 0.5, 0.6), "heater");
    heater.loads = [{ load: 1, feedM3S: 1e-3 / 3600, burnM3S: 1e-3 / 3600 }];
    job.consumers.push(heater);
    for (const tankIds of [["t1"], ["t0", "t1"]]) {
      const whole = withProposal(
        job,
        proposeManifold(
          job,
          { ...all(job), feeds: [...all(job).feeds.slice(0, 1), { consumerId: "h", tankIds }] },
          "m",
        ),
      );
      expect(checkJob(whole)).toEqual([]);
      const { plan } = buildNetwork(whole);
      const dosing = plan.parts.filter(({ kind }) => kind === "dosingPump");
      expect(dosing.map(({ name }) => name)).toEqual(["Heater dosing pump"]);
      expect(plan.lineUps.filter(({ name }) => name.includes("Heater"))).toEqual([]);
      for (const id of tankIds)
        expect(
          whole.tanks.find((tank) => tank.id === id)?.ports.filter(({ role }) => role === "outlet"),
        ).toHaveLength(2);
      for (const { result } of judgeAll(buildNetwork(whole), plan.conditions)) {
        if (result.outcome !== "solved") throw new Error(result.outcome);
        expect(result.consumers.get("h")?.outcome).toMatch(/fed|stopped/);
      }
    }
  });

  test("a tank needs one outlet and one return for all that runs, one more of each to be moved, shut-offs within reach", () => {
    const job = bare(3, 2);
    expect(proposeManifold(job, all(job), "m").tanks).toEqual(job.tanks);
    const wishes = { ...all(job), transfers: [{ fromId: "t0", toId: "t1" }] };
    const whole = withProposal(job, proposeManifold(job, wishes, "m"));
    const count = (role: string) =>
      whole.tanks.map(({ ports }) => ports.filter((port) => port.role === role).length);
    expect(count("outlet")).toEqual([2, 2, 1]);
    expect(count("return")).toEqual([2, 2, 1]);
    const rules = findingsOf(whole, [], buildNetwork(whole)).map(({ rule }) => rule);
    expect(rules).not.toContain("noShutOff");
    expect(rules).not.toContain("returnCanClose");
  });

  test("with transfers beside it no more than two handles are ever to blame for a return into another tank", () => {
    const job = bare(2, 1);
    const wishes = { ...all(job), transfers: [{ fromId: "t0", toId: "t1" }], polishIds: ["t1"] };
    const found = positionsOf(withProposal(job, proposeManifold(job, wishes, "m")));
    const elsewhere = found.causes.filter(({ danger }) => danger === "returnElsewhere");
    expect(elsewhere).toHaveLength(2);
    for (const { settings } of elsewhere) expect(settings).toHaveLength(2);
  });

  test("wishes that feed a consumer from nothing are refused, and so are more positions than can be gone through", () => {
    const job = bare(4, 4);
    expect(() => proposeManifold(job, { ...all(job), feeds: [{ consumerId: "e0", tankIds: [] }] })).toThrow(
      /nothing/,
    );
    const network = buildNetwork(withProposal(job, proposeManifold(job, all(job), "m")));
    expect(countPositions(network)).toBe(2 ** 4 * 4 ** 8);
    expect(judgePositions(network, network.plan.conditions)).toBeNull();
  });
});
