import { describe, expect, test } from "@jest/globals";
import { buildNetwork } from "../network/network";
import { freePorts } from "../plan/joining";
import { currentPlan, portKey } from "../plan/ports";
import type { Job, PortRef } from "../plan/types";
import { adding, fitsSpot, nextAtHand, nextSpot, type Spot, spotOf, type Thing } from "./adding";
import { applyCommand } from "./commands";
import { startJob } from "./starters";

const job = startJob("a", "A", "oneTank");
const plan = currentPlan(job);
const run = plan.runs[0]!;
const onHose: Spot = { kind: "hose", runId: run.id };
const add = (thing: Thing, spot: Spot, to: Job = job) => {
  const { command, id } = adding(to, currentPlan(to), thing, spot);
  const { job: after, notes } = applyCommand(to, command);
  return { after, id, notes, now: currentPlan(after) };
};
/** Ports of a part that nothing meets. */
const open = (of: Job, id: string) =>
  freePorts(of, currentPlan(of)).flatMap(({ ref }) => (ref.part === id ? [ref.port] : []));

describe("added where the hand points", () => {
  test("a part is let into the hose that is chosen", () => {
    const { now, id } = add({ kind: "part", part: "check" }, onHose);
    expect(now.runs).toHaveLength(plan.runs.length + 1);
    expect(now.runs.find((one) => one.id === run.id)).toMatchObject({
      from: run.from,
      to: { part: id, port: "in" },
    });
  });

  test("at a port that gives it is joined by what takes, at one that takes by what gives", () => {
    const bare = applyCommand(job, { name: "disconnect", id: run.id }).job;
    const before = add({ kind: "part", part: "filter" }, { kind: "port", ref: run.from }, bare);
    expect(before.now.runs.at(-1)).toMatchObject({ from: run.from, to: { part: before.id, port: "in" } });
    const engine = job.consumers[0]!.id;
    const feed = plan.runs.find(({ to }) => to.part === engine && to.port === "feed")!;
    const unfed = applyCommand(job, { name: "disconnect", id: feed.id }).job;
    const at: Spot = { kind: "port", ref: feed.to };
    const behind = add({ kind: "part", part: "filter" }, at, unfed);
    expect(behind.now.runs.at(-1)).toMatchObject({ from: { part: behind.id, port: "out" }, to: feed.to });
  });

  test("at an engine's return what is put there takes from it", () => {
    const engine = job.consumers[0]!.id;
    const back = plan.runs.find(({ from }) => from.part === engine && from.port === "return")!;
    const bare = applyCommand(job, { name: "disconnect", id: back.id }).job;
    const now = currentPlan(bare);
    const spot = spotOf(bare, now, engine, freePorts(bare, now));
    expect(spot).toEqual({ kind: "port", ref: back.from });
    const { id, now: after } = add({ kind: "part", part: "cooler" }, spot, bare);
    expect(after.runs.at(-1)).toMatchObject({ from: back.from, to: { part: id, port: "in" } });
  });

  test("a consumer is fed from where it was put, a tank stands by itself", () => {
    const bare = applyCommand(job, { name: "disconnect", id: run.id }).job;
    const { after, id, now } = add(
      { kind: "consumer", consumer: "heater" },
      { kind: "port", ref: run.from },
      bare,
    );
    expect(now.runs.at(-1)).toMatchObject({ from: run.from, to: { part: id, port: "feed" } });
    expect(after.consumers.at(-1)?.kind).toBe("heater");
    expect(fitsSpot({ kind: "tank", name: "T" }, onHose)).toBe(false);
    expect(add({ kind: "tank", name: "Day tank" }, onHose).after.tanks.at(-1)?.name).toBe("Day tank");
  });

  test("a breather is joined to a tank and never let into a hose", () => {
    expect(fitsSpot({ kind: "part", part: "breatherValve" }, onHose)).toBe(false);
    expect(add({ kind: "part", part: "breatherValve" }, onHose).now.runs).toHaveLength(plan.runs.length);
  });

  test.each(["duplex", "pumpWithBypass", "teeWithTap", "twinPort"] as const)(
    "%s is one thing: joined through, one command",
    (group) => {
      const { after, now, notes } = add({ kind: "group", group }, onHose);
      expect(notes.filter(({ code }) => code === "endsNoLongerMeet")).toEqual([]);
      // All that came is joined to the rest, and the way through is whole.
      const came = now.parts.filter(({ id }) => !plan.parts.some((one) => one.id === id));
      const ends = came.flatMap(({ id }) => open(after, id));
      expect(ends).toEqual(
        { duplex: [], pumpWithBypass: [], teeWithTap: ["b"], twinPort: ["in2", "out2"] }[group],
      );
      const { links, nodeOf } = buildNetwork(after);
      const reached = new Set([nodeOf.get(portKey(run.from))]);
      for (let i = 0; i < links.length; i++)
        for (const { from, to } of links) {
          if (reached.has(from)) reached.add(to);
          if (reached.has(to)) reached.add(from);
        }
      expect(reached.has(nodeOf.get(portKey(run.to)))).toBe(true);
      const count = { duplex: 6, pumpWithBypass: 4, teeWithTap: 2, twinPort: 1 }[group];
      expect(came).toHaveLength(count);
    },
  );

  test("a duplex pair at a tank's outlet, and loose", () => {
    const bare = applyCommand(job, { name: "disconnect", id: run.id }).job;
    const at = add({ kind: "group", group: "duplex" }, { kind: "port", ref: run.from }, bare);
    expect(at.now.runs.some(({ from, to }) => from.part === run.from.part && to.port === "a")).toBe(true);
    const loose = add({ kind: "group", group: "duplex" }, { kind: "loose" });
    const came = loose.now.parts.filter(({ id }) => !plan.parts.some((one) => one.id === id));
    expect(came.flatMap(({ id }) => open(loose.after, id))).toHaveLength(2);
  });
});

test("it goes to the chosen hose, to the free end of a chosen part, to a chosen tank's outlet, else it is loose", () => {
  const bare = applyCommand(job, { name: "disconnect", id: run.id }).job;
  const spot = (of: Job, id: string | null) => {
    const now = currentPlan(of);
    return spotOf(of, now, id, freePorts(of, now));
  };
  expect(spot(job, run.id)).toEqual(onHose);
  expect(spot(bare, run.from.part)).toEqual({ kind: "port", ref: run.from });
  expect(spot(job, null)).toEqual({ kind: "loose" });
  const { after, id } = add({ kind: "part", part: "filter" }, { kind: "port", ref: run.from }, bare);
  expect(spot(after, id)).toEqual({ kind: "port", ref: { part: id, port: "out" } });
});

test("joined from, it stays at hand while it has more to give; else what it was joined to is", () => {
  const bare = applyCommand(job, { name: "disconnect", id: run.id }).job;
  const now = currentPlan(bare);
  const next = (from: PortRef, to: PortRef) => nextAtHand(bare, freePorts(bare, now), from, to);
  // A tank with one outlet gives no more; given a second, it stays.
  expect(next(run.from, run.to)).toBe(run.to.part);
  const tank = bare.tanks.find(({ id }) => id === run.from.part)!;
  const outlet = tank.ports.find(({ role }) => role === "outlet")!;
  const two = { ...bare, tanks: [{ ...tank, ports: [...tank.ports, { ...outlet, id: "second" }] }] };
  expect(nextAtHand(two, freePorts(two, now), run.from, run.to)).toBe(run.from.part);
});

test("the next of a row goes to the free end of what came, and behind it into the hose that it was let into", () => {
  const bare = applyCommand(job, { name: "disconnect", id: run.id }).job;
  const hung = add({ kind: "part", part: "filter" }, { kind: "port", ref: run.from }, bare);
  expect(nextSpot(hung.after, hung.now, hung.id)).toEqual({
    kind: "port",
    ref: { part: hung.id, port: "out" },
  });
  // Let in one after the other they stand in the order in which they came.
  let of = job;
  let spot: Spot = onHose;
  const came: string[] = [];
  for (const part of ["twoWay", "filter", "liftPump"] as const) {
    const { after, now, id } = add({ kind: "part", part }, spot, of);
    came.push(id);
    [of, spot] = [after, nextSpot(after, now, id)];
    expect(spot.kind).toBe("hose");
  }
  const { runs } = currentPlan(of);
  const line = [run.from.part];
  for (;;) {
    const ends = runs.filter(({ from, to }) => from.part === line.at(-1) && came.includes(to.part));
    const [next] = ends;
    if (!next || line.includes(next.to.part)) break;
    line.push(next.to.part);
  }
  expect(line).toEqual([run.from.part, ...came]);
  expect(nextSpot(job, plan, null)).toEqual({ kind: "loose" });
});
