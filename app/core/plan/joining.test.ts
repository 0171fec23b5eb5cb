/** What a free port is offered: no port that is taken, none of its own part, what fits first, the nearest of that first. */
import { describe, expect, test } from "@jest/globals";
import type { Command } from "../edit/command";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import { freePorts, joinables } from "./joining";
import { currentPlan, distanceM, portKey } from "./ports";

const commands: Command[] = [
  { name: "addTank", id: "near", tankName: "Near", position: { xM: 1, yM: 0, zM: 0 } },
  { name: "addTank", id: "far", tankName: "Far", position: { xM: 4, yM: 0, zM: 0 } },
  { name: "addPart", id: "filter", kind: "filter", position: { xM: 0.5, yM: 0, zM: 0.5 } },
  { name: "addPart", id: "tee", kind: "tee", position: { xM: 0.4, yM: 0, zM: 0.5 } },
  { name: "addEngine", id: "engine", engineName: "Engine", position: { xM: 0, yM: 0, zM: 0.5 } },
];
const job = commands.reduce((now, command) => applyCommand(now, command).job, startJob("j", "J", "nothing"));
const plan = currentPlan(job);
const told = (part: string, port: string) =>
  joinables(job, plan, { part, port }).map(({ port: { ref }, rank }) => `${portKey(ref)} ${rank}`);

describe("from a free port", () => {
  test("a tank's outlet is offered inlets and the engine's feed before what goes either way, and its like last", () => {
    const offers = told("near", "supply");
    expect(offers.slice(0, 2)).toEqual(["filter.in 0", "engine.feed 0"]);
    expect(offers.findIndex((one) => one.startsWith("tee."))).toBeLessThan(
      offers.findIndex((one) => one.startsWith("filter.out")),
    );
    expect(offers.at(-1)).toMatch(/ 2$/);
    expect(offers.some((one) => one.startsWith("near."))).toBe(false);
  });

  test("the engine's return is offered the tanks' returns, the near one first", () => {
    expect(told("engine", "return").slice(0, 2)).toEqual(["near.return 0", "far.return 0"]);
  });

  test("what feeds is told apart from what returns, also from a port that goes either way", () => {
    const ways = (part: string, port: string) =>
      Object.fromEntries(
        joinables(job, plan, { part, port }).map(({ port: { ref }, rank, way }) => [
          portKey(ref),
          rank === 2 ? "not" : way,
        ]),
      );
    expect(ways("tee", "c")).toMatchObject({
      "near.supply": "feed",
      "near.return": "return",
      "filter.in": "feed",
      "filter.out": "feed",
      "engine.feed": "feed",
      "engine.return": "return",
    });
    expect(ways("engine", "return")).toMatchObject({
      "near.return": "return",
      "tee.a": "return",
      "near.supply": "not",
    });
    expect(ways("near", "supply")).toMatchObject({
      "engine.feed": "feed",
      "tee.b": "feed",
      "far.return": "not",
    });
    const two = applyCommand(job, {
      name: "addPart",
      id: "valve",
      kind: "twoWay",
      position: { xM: 0, yM: 0, zM: 0 },
    }).job;
    const between = joinables(two, currentPlan(two), { part: "tee", port: "c" });
    expect(between.find(({ port }) => port.ref.part === "valve")?.way).toBe("either");
  });

  test("within a rank they stand by their distance, and what is joined is offered no more", () => {
    const joined = applyCommand(job, {
      name: "connect",
      id: "r",
      from: { part: "near", port: "supply" },
      to: { part: "filter", port: "in" },
    }).job;
    const free = freePorts(joined, currentPlan(joined)).map(({ ref }) => portKey(ref));
    expect(free).not.toContain("filter.in");
    expect(joinables(joined, currentPlan(joined), { part: "near", port: "supply" })).toEqual([]);
    const from = { part: "far", port: "supply" };
    const own = freePorts(joined, currentPlan(joined)).find(({ ref }) => portKey(ref) === "far.supply")!;
    const offers = joinables(joined, currentPlan(joined), from);
    for (const [i, { port, rank }] of offers.entries()) {
      const before = offers[i - 1];
      if (!before || before.rank !== rank) continue;
      expect(distanceM(own.position, before.port.position)).toBeLessThanOrEqual(
        distanceM(own.position, port.position),
      );
    }
  });
});
