import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand, type Command } from "../edit/commands";
import { startJob } from "../edit/starters";
import { currentPlan } from "../plan/ports";
import type { Engine, Job, SetAside } from "../plan/types";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { findingsOf } from "./findings";
import type { Finding, RuleId } from "./types";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const twoTanks = () => startJob("s", "Start", "twoTanksTwoSelectors");
const change = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);
const of = (job: Job, rule: RuleId): Finding | undefined =>
  findingsOf(job).find((finding) => finding.rule === rule);
const partNamed = (job: Job, name: string) =>
  currentPlan(job).parts.find((part) => part.name === name)?.id ?? "";
const lineUp = (job: Job, i = 0) => currentPlan(job).lineUps[i]?.id ?? "";
const shut = (lineUpId: string, valveId: string): Command => ({
  name: "setValve",
  lineUpId,
  valveId,
  setting: { kind: "position", position: "shut" },
});

describe("each rule on a plan that fails it and on one that passes", () => {
  test("1 return to another tank: hours by hand", () => {
    const finding = of(marram(), "returnElsewhere");
    expect(finding).toMatchObject({ grade: "stop", lineUpIds: ["runStbd"], ids: ["portWing", "stbdWing"] });
    // 168 L/h into 339.87 - 212 L.
    expect(finding?.values.fullHours).toBeCloseTo((339.872 - 212) / 168, 3);
    expect(of(twoTanks(), "returnElsewhere")).toBeUndefined();
    const meant = change(marram(), { name: "editLineUp", id: "runStbd", change: { intendedTransfer: true } });
    expect(of(meant, "returnElsewhere")).toBeUndefined();
  });

  test("2 return shut as set is a Stop, one handle away a Watch, a selector without off neither", () => {
    expect(of(marram(), "returnCanClose")).toMatchObject({ grade: "watch", ids: ["returns"] });
    const closed = change(marram(), {
      name: "setValve",
      lineUpId: "runPort",
      valveId: "returns",
      setting: { kind: "branches", open: [] },
    });
    expect(of(closed, "returnCanClose")).toMatchObject({ grade: "stop", lineUpIds: ["runPort"] });
    expect(of(twoTanks(), "returnCanClose")).toBeUndefined();
  });

  test("3 no way, a dead head without relief, an arrow against the flow", () => {
    const cut = change(marram(), shut("runPort", "valveP"));
    expect(of(cut, "noOpenPath")).toMatchObject({ grade: "stop", lineUpIds: ["runPort"] });
    expect(of(marram(), "noOpenPath")).toBeUndefined();
    const back = twoTanks();
    const turned = change(back, { name: "turnPart", id: partNamed(back, "Lift pump") });
    expect(of(turned, "againstArrow")).toMatchObject({ grade: "stop", ids: [partNamed(back, "Lift pump")] });
    expect(of(back, "againstArrow")).toBeUndefined();
    const engine = back.consumers[0] as Engine;
    const stopped = change(back, {
      name: "setConsumer",
      lineUpId: lineUp(back),
      consumerId: engine.id,
      state: "stopped",
    });
    expect(of(stopped, "deadHead")).toMatchObject({ grade: "stop" });
    const relieved = change(stopped, {
      name: "editPart",
      id: partNamed(back, "Lift pump"),
      change: { reliefPa: 40000 },
    });
    expect(of(relieved, "deadHead")).toBeUndefined();
  });

  test("3 a draw that cannot be fed says how much can", () => {
    const job = twoTanks();
    const engine = job.consumers[0] as Engine;
    const greedy = change(job, {
      name: "editEngine",
      id: engine.id,
      change: { loads: [{ load: 1, feedM3S: 3000 * LITRE_PER_HOUR_M3_S, burnM3S: 1e-5 }] },
    });
    const finding = of(greedy, "starved");
    expect(finding?.grade).toBe("stop");
    expect(Number(finding?.values.mostM3S)).toBeGreaterThan(0);
    expect(Number(finding?.values.mostM3S)).toBeLessThan(3000 * LITRE_PER_HOUR_M3_S);
    expect(of(job, "starved")).toBeUndefined();
  });

  test("5 a low outlet without shut-off: litres by hand; a top pickup whose line stays high loses none", () => {
    // 550 x 500 mm of floor, 88 L aboard, mouth 25 mm up: 88 - 0.55 * 0.5 * 25 = 81.125 L.
    const finding = of(marram(), "noShutOff");
    expect(finding).toMatchObject({ ids: ["dayTank"], grade: "mend", school: "abycH33" });
    expect(finding?.values.lostM3).toBeCloseTo(0.081125, 9);
    expect(of(startJob("s", "S", "oneTank"), "noShutOff")).toBeUndefined();
  });

  test("7 rated flow against the feed that passes", () => {
    expect(of(marram(), "filterTooSmall")).toMatchObject({
      basis: "maker",
      lineUpIds: ["polishDay", "fillPort", "fillStbd"],
    });
    expect(of(twoTanks(), "filterTooSmall")).toBeUndefined();
  });

  test("8 suction: common practice, then the maker's own limit", () => {
    const loaded = change(marram(), { name: "setConditions", change: { loading: { elSep1: 8 } } });
    expect(of(loaded, "suctionOverLimit")).toMatchObject({ basis: "common", ids: ["lift"] });
    expect(of(marram(), "suctionOverLimit")).toBeUndefined();
    const strict = change(marram(), { name: "editPart", id: "lift", change: { suctionLimitPa: 5000 } });
    expect(of(strict, "suctionOverLimit")).toMatchObject({ basis: "maker" });
    expect(of(marram(), "freeAir")).toMatchObject({ grade: "watch" });
    expect(of(twoTanks(), "freeAir")).toBeUndefined();
  });

  test("10 return mouth near the pickup", () => {
    const job = marram();
    const tank = job.tanks[1]!;
    const ports = tank.ports.map((port) =>
      port.role === "return" ? { ...port, mouth: { ...port.mouth, xM: 0.1, zM: 0.1 } } : port,
    );
    const moved = change(job, { name: "editTank", id: tank.id, change: { ports } });
    expect(of(moved, "returnNearPickup")).toMatchObject({ ids: ["dayTank"] });
    expect(of(job, "returnNearPickup")).toBeUndefined();
  });

  test("14 two feeds open to one another", () => {
    const both = change(
      marram(),
      { name: "setBranch", lineUpId: "runDay", valveId: "supply", branch: "port", isOpen: true },
      {
        name: "setValve",
        lineUpId: "runDay",
        valveId: "valveP",
        setting: { kind: "position", position: "open" },
      },
    );
    expect(of(both, "feedsJoined")).toMatchObject({ lineUpIds: ["runDay"] });
    expect(of(marram(), "feedsJoined")).toBeUndefined();
  });
});

test("a finding set aside keeps its reason, and comes back when its figure is worse", () => {
  const entry: SetAside = {
    kind: "setAside",
    id: "x",
    at: "2026-01-01T00:00:00Z",
    planId: "planA",
    revision: 0,
    rule: "noShutOff",
    ids: ["dayTank"],
    lineUpId: null,
    reason: "valve on order",
    figure: 0.081,
  };
  const aside = change(marram(), { name: "enterInBook", entry });
  expect(of(aside, "noShutOff")?.setAside?.reason).toBe("valve on order");
  const fuller = change(aside, { name: "setConditions", change: { aboardM3: { dayTank: 0.105 } } });
  expect(of(fuller, "noShutOff")?.setAside).toBeUndefined();
});

test("the demo job carries what it is meant to and nothing else", () => {
  expect(findingsOf(marram()).map(({ rule, grade }) => `${grade} ${rule}`)).toEqual([
    "stop returnElsewhere",
    "mend noShutOff",
    "mend filterTooSmall",
    "mend suctionClean",
    "watch returnCanClose",
    "watch freeAir",
  ]);
});
