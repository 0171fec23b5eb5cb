import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { BookEntry } from "../book/entries";
import type { Command } from "../edit/command";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import type { Engine, PlanPart } from "../kinds/index";
import { currentPlan } from "../plan/ports";
import type { Job, Run, Tank } from "../plan/types";
import { newTankLine } from "../tanks/tankLine";
import { findingsOf } from "./findings";
import type { Finding, FindingOf, RuleId } from "./index";
import { ruleIds } from "./index";
import type { BleedOutcome } from "./rule";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const truck = () => read("unit-12");
const van = () => read("reading-van");
const boat = () => read("marram");
const TODAY = new Date("2026-06-01T00:00:00Z");
const allOf = (job: Job) => findingsOf(job, [], undefined, undefined, TODAY);
const of = <K extends RuleId>(job: Job, rule: K): FindingOf<K> | undefined =>
  allOf(job).find((finding) => finding.rule === rule) as FindingOf<K> | undefined;
const change = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);
const part = (id: string, edit: object): Command => ({
  name: "editPart",
  id,
  change: edit as Record<string, unknown>,
});
const run = (id: string, edit: Partial<Run>): Command => ({ name: "editRun", id, change: edit });
const consumer = (job: Job, edit: (one: Engine) => void): Job => {
  const copy: Job = JSON.parse(JSON.stringify(job));
  for (const one of copy.consumers) edit(one);
  return copy;
};
const petrolJob = (): Job => {
  const job = truck();
  return { ...job, fuel: { ...job.fuel, grade: "petrol" } };
};
/** The hose from the frame tank to its first part. */
const firstSupply = (job: Job): Run =>
  currentPlan(job).runs.find(({ from, to }) => from.part === "frame" || to.part === "frame")!;
/** The bed tank with one outlet more in its side, so high over its floor. */
const spareOutlet = (job: Job, zM: number): Job => {
  const { ports } = job.tanks.find(({ id }) => id === "bed")!;
  const mouth = { ...ports[0]!.mouth, zM };
  const low: Tank["ports"][number] = { ...ports[0]!, id: "low", name: "low", mouth, outside: mouth };
  return change(job, { name: "editTank", id: "bed", change: { ports: [...ports, low] } });
};
const placed = (kind: PlanPart["kind"], id: string, runId: string, edit: object = {}): Command[] => [
  { name: "insertPart", id, kind, runId, newRunId: `${id}x` },
  part(id, edit),
];

/** The van's own tank hung over its heater, so that fuel runs there by itself. */
const liftedTank = (id: string): Command => ({
  name: "editTank",
  id,
  change: { origin: { xM: -1, yM: 0, zM: 2 } },
});

/** A hose of 1.2 m with a crest in its middle. */
const crest = (zM: number): Run["route"] => ({
  kind: "measured",
  lengthM: 1.2,
  bends: [],
  extremes: [{ atM: 0.6, zM: zM + 1 }],
});

/** In the starboard wing's plane, by how far forward and how high. */
const at = (xM: number, zM: number) => ({ xM, yM: -1.35, zM });

/** A plan that fails a rule, what is found, and a plan near it that passes. */
type Case = [what: string, rule: RuleId, fails: () => Job, found: Partial<Finding>, passes: () => Job];

const straightVent: Command = {
  name: "editTankLine",
  id: "ventStbd",
  change: { points: [at(3.6, 0.94), at(3.6, 1.3), at(3.8, 1.62)] },
};

const cases: Case[] = [
  [
    "24 a vent with a sag",
    "tankLine",
    boat,
    { grade: "mend", about: "holds", basis: "standard", ids: ["ventStbd", "stbdWing"] },
    () => change(boat(), straightVent),
  ],
  [
    "24 a fill that falls away from its tank",
    "tankLine",
    () =>
      change(boat(), straightVent, {
        name: "editTankLine",
        id: "fillPort",
        change: { points: [at(3.8, 0.94), at(3.8, 0.8)] },
      }),
    { grade: "mend", about: "wrongWay", ids: ["fillPort", "portWing"] },
    () => change(boat(), straightVent),
  ],
  [
    "24 a vent that lies nearly level",
    "tankLine",
    () =>
      change(boat(), {
        name: "editTankLine",
        id: "ventStbd",
        change: { points: [at(3.6, 0.94), at(4.6, 0.95), at(4.6, 1.62)] },
      }),
    { grade: "watch", about: "flat" },
    () => change(boat(), straightVent),
  ],
  [
    "34 one clamp at the end of a fill hose",
    "tankLine",
    () =>
      change(boat(), straightVent, {
        name: "editTankLine",
        id: "fillPort",
        change: { isDoubleClamped: false },
      }),
    { grade: "mend", about: "oneClamp" },
    () => change(boat(), straightVent),
  ],
  [
    "24 a drain on a petrol tank",
    "tankLine",
    () => {
      const job = petrolJob();
      const tank = job.tanks[0]!;
      return change(job, { name: "addTankLine", line: newTankLine("d", tank, "drain", "truck") });
    },
    { grade: "mend", about: "petrolDrain" },
    () => {
      const job = truck();
      return change(job, { name: "addTankLine", line: newTankLine("d", job.tanks[0]!, "drain", "truck") });
    },
  ],
  [
    "28 a fill hose bent tighter than it bears",
    "bendTight",
    () => change(boat(), { name: "editTankLine", id: "fillPort", change: { radiusM: 0.06 } }),
    { grade: "mend", ids: ["fillPort"] },
    boat,
  ],
  [
    "29 a vent clipped too far apart",
    "supportWide",
    () => change(boat(), { name: "editTankLine", id: "ventPort", change: { supportEveryM: 0.9 } }),
    { ids: ["ventPort"] },
    boat,
  ],
  [
    "30 a fill hose that rubs",
    "nearDanger",
    () =>
      change(boat(), {
        name: "editTankLine",
        id: "fillPort",
        change: {
          neighbours: [{ id: "e", kind: "hot", name: "exhaust", atM: 0.2, apartM: 0.03, guarded: false }],
        },
      }),
    { ids: ["fillPort", "e"] },
    boat,
  ],
  [
    "7 a second medium rated for less than passes it",
    "filterTooSmall",
    () =>
      change(truck(), part("fine", { second: { micron: 1, ratedFlowM3S: 100 / 3.6e6, ratedDropPa: 500 } })),
    { grade: "mend", ids: ["fine"] },
    () =>
      change(truck(), part("fine", { second: { micron: 1, ratedFlowM3S: 900 / 3.6e6, ratedDropPa: 500 } })),
  ],
  [
    "17 a second medium finer than what stands behind its housing",
    "filterStaging",
    () =>
      change(truck(), part("fine", { second: { micron: 0.5, ratedFlowM3S: 900 / 3.6e6, ratedDropPa: 500 } })),
    { grade: "watch", ids: ["factory"] },
    truck,
  ],
  [
    "48 a part that hangs loose is told, and not that it pumps against a shut way",
    "notJoined",
    () =>
      change(truck(), { name: "addPart", id: "loose", kind: "liftPump", position: { xM: 0, yM: 0, zM: 0 } }),
    { grade: "watch", ids: ["loose"] },
    truck,
  ],
  [
    "a filter that no line-up sends fuel through",
    "neverUsed",
    () =>
      ["run", "both"].reduce(
        (job, lineUpId) =>
          change(job, { name: "setConsumer", lineUpId, consumerId: "engine", state: "stopped" }),
        truck(),
      ),
    { grade: "watch" },
    truck,
  ],
  [
    "38 a heater fed by gravity over no dosing pump",
    "heaterUnmetered",
    () => change(van(), { name: "removePart", id: "dose" }, liftedTank("own")),
    { grade: "stop", ids: ["heater"] },
    van,
  ],
  [
    "38 and not where it meters for itself",
    "heaterUnmetered",
    () => change(van(), { name: "removePart", id: "dose" }, liftedTank("own")),
    { grade: "stop" },
    () =>
      change(van(), { name: "removePart", id: "dose" }, liftedTank("own"), {
        name: "editEngine",
        id: "heater",
        change: { metersItself: true },
      }),
  ],
  [
    "4 an element missing under power",
    "elementMissing",
    () => change(truck(), part("fine", { element: null })),
    { grade: "stop", ids: ["fine"] },
    truck,
  ],
  [
    "6 a vacuum gauge after the pump",
    "gaugePlace",
    () => change(truck(), part("press", { measures: "vacuum" })),
    { grade: "mend", ids: ["press"], values: { part: "Pressure gauge", code: "afterPump" } },
    truck,
  ],
  [
    "6 a pressure gauge before the last filter",
    "gaugePlace",
    () => change(truck(), ...placed("gauge", "g2", "r6", { measures: "pressure" })),
    { ids: ["g2"], values: { part: "Vacuum gauge 2", code: "beforeLastFilter" } },
    truck,
  ],
  [
    "9 a pump over the filter it draws through",
    "pumpAboveFilters",
    () => change(truck(), part("lift", { position: { xM: -0.9, yM: -0.42, zM: 0.95 } })),
    { grade: "watch", ids: ["lift"] },
    truck,
  ],
  [
    "12 fuel-lubricated, and too little for the attitude",
    "lubricatedLow",
    () =>
      change(
        consumer(boat(), (one) => {
          one.fuelLubricated = true;
        }),
        { name: "setConditions", change: { aboardM3: { portWing: 0.008 } } },
      ),
    { grade: "watch", ids: ["engine", "portWing"] },
    () => change(boat(), { name: "setConditions", change: { aboardM3: { portWing: 0.008 } } }),
  ],
  [
    "13 a bed tank that runs down by gravity",
    "gravityOverfills",
    () => {
      const job = change(
        truck(),
        part("trans", { off: { kind: "free", dropPa: 2000 } }),
        { name: "setPump", lineUpId: "transfer", pumpId: "trans", state: "off" },
        { name: "setPump", lineUpId: "transfer", pumpId: "lift", state: "off" },
      );
      const low: Tank = {
        ...job.tanks[1]!,
        ports: job.tanks[1]!.ports.map((p) =>
          p.id === "out" ? { ...p, outside: { ...p.outside, zM: 0.02 } } : p,
        ),
      };
      return { ...job, tanks: [job.tanks[0]!, low] };
    },
    { grade: "mend", ids: ["frame"], lineUpIds: ["transfer"] },
    truck,
  ],
  [
    "15 a petrol bulb on diesel",
    "bulbPlace",
    () => change(truck(), ...placed("bulb", "b", "r2")),
    { grade: "watch", values: { part: "Primer bulb", code: "notForDiesel" } },
    () => change(truck(), ...placed("bulb", "b", "r2", { forDiesel: true })),
  ],
  [
    "15 a bulb after the filter",
    "bulbPlace",
    () => change(truck(), ...placed("bulb", "b", "r5", { forDiesel: true })),
    { values: { part: "Primer bulb", code: "afterFilter" } },
    () => change(truck(), ...placed("bulb", "b", "r2", { forDiesel: true })),
  ],
  [
    "16 a priming pump that blocks when off",
    "primingBlocks",
    () =>
      change(truck(), ...placed("primingPump", "p", "r2", { off: { kind: "blocked" } }), {
        name: "setPump",
        lineUpId: "run",
        pumpId: "p",
        state: "off",
      }),
    { grade: "mend", ids: ["p"] },
    () =>
      change(truck(), ...placed("primingPump", "p", "r2"), {
        name: "setPump",
        lineUpId: "run",
        pumpId: "p",
        state: "off",
      }),
  ],
  [
    "17 coarse after fine",
    "filterStaging",
    () => change(truck(), part("factory", { micron: 10 })),
    { grade: "watch", ids: ["factory"], school: "finest:afterPump" },
    truck,
  ],
  [
    "17 the finest before the pump, against the school; with the other school it passes",
    "filterStaging",
    () => change(truck(), part("sep", { micron: 2 })),
    { ids: ["sep"] },
    () =>
      change(
        { ...truck(), schools: { shutOff: "abycH33", finest: "beforePump" } },
        part("sep", { micron: 2 }),
      ),
  ],
  [
    "18 spare ports open",
    "sparePorts",
    () => change(truck(), part("sep", { sparePorts: { count: 2, plugged: false } })),
    { grade: "watch", ids: ["sep"] },
    () => change(truck(), part("sep", { sparePorts: { count: 2, plugged: true } })),
  ],
  [
    "18 a pump unit's own return that leads nowhere, under what its pump gives",
    "openPorts",
    () => change(truck(), ...placed("pumpFilterUnit", "unit", firstSupply(truck()).id)),
    { grade: "watch", ids: ["unit"], values: { part: "Pump and filter unit", port: "own return", count: 1 } },
    () => change(truck(), ...placed("twoWay", "unit", firstSupply(truck()).id)),
  ],
  [
    "18 an outlet low in a tank that no hose is on, with the fuel over it",
    "openPorts",
    () => spareOutlet(truck(), 0.02),
    { grade: "watch", ids: ["bed"], values: { part: "Bed tank", port: "low", count: 1, vacuumPa: 0 } },
    // High in it, over the fuel, it is a spare fitting.
    () => spareOutlet(truck(), 0.5),
  ],
  [
    "18 a spare pickup in the top of a tank with no cap on it",
    "openPorts",
    () => {
      const { ports } = truck().tanks.find(({ id }) => id === "bed")!;
      const spare: Tank["ports"][number] = {
        ...ports[0]!,
        id: "spr",
        name: "spare pickup",
        mouth: { ...ports[0]!.mouth, zM: 0.05 },
        outside: { ...ports[0]!.mouth, zM: 0.6 },
      };
      return change(truck(), { name: "editTank", id: "bed", change: { ports: [...ports, spare] } });
    },
    { grade: "watch", ids: ["bed"], values: { part: "Bed tank", port: "spare pickup", count: 1 } },
    truck,
  ],
  [
    "18 a head with two of each port, one of each in use",
    "sparePorts",
    () => change(truck(), part("sep", { isTwin: true })),
    { grade: "watch", ids: ["sep"] },
    () => change(truck(), part("sep", { isTwin: true, sparePorts: { count: 0, plugged: true } })),
  ],
  [
    "a pump in the tank where the school is on the frame, chosen",
    "otherSchool",
    () =>
      change(truck(), { name: "editJob", change: { schools: { shutOff: "abycH33", liftPump: "inTank" } } }),
    { grade: "watch", school: "liftPump:inTank", ids: ["lift"] },
    // The same plan by the default, or by a school that was chosen and kept to.
    () =>
      change(truck(), { name: "editJob", change: { schools: { shutOff: "abycH33", liftPump: "frame" } } }),
  ],
  [
    "no bulb where the school primes by one",
    "otherSchool",
    () => change(truck(), { name: "editJob", change: { schools: { shutOff: "abycH33", primer: "bulb" } } }),
    { grade: "watch", school: "primer:bulb" },
    truck,
  ],
  [
    "the factory filter's place taken by a block, where the school keeps it",
    "otherSchool",
    () => {
      const job = change(truck(), { name: "replacePart", id: "sep", newId: "plate", kind: "block" });
      return change(job, {
        name: "editJob",
        change: { schools: { shutOff: "abycH33", factoryFilter: "kept" } },
      });
    },
    { grade: "watch", school: "factoryFilter:kept", ids: ["plate"] },
    () =>
      change(truck(), {
        name: "editJob",
        change: { schools: { shutOff: "abycH33", factoryFilter: "kept" } },
      }),
  ],
  [
    "a push-to-connect end where the school is flare and barb",
    "otherSchool",
    () => {
      const end = { family: "qc", size: "9.49", form: "f" } as const;
      const job = change(truck(), { name: "setEnd", id: "sep", port: "in", end });
      return change(job, {
        name: "editJob",
        change: { schools: { shutOff: "abycH33", joints: "flareAndBarb" } },
      });
    },
    { grade: "watch", school: "joints:flareAndBarb", ids: ["sep"] },
    () =>
      change(truck(), {
        name: "editJob",
        change: { schools: { shutOff: "abycH33", joints: "flareAndBarb" } },
      }),
  ],
  [
    "a site colder than the fuel's cloud point",
    "fuelWaxes",
    () => {
      const job = truck();
      return change(job, {
        name: "editJob",
        change: { site: { ...job.site, ambientLowC: -15 }, fuel: { ...job.fuel, cloudPointC: -5 } },
      });
    },
    { grade: "mend", values: { coldestC: -15, cloudC: -5 }, figure: 10 },
    () => {
      const job = truck();
      return change(job, {
        name: "editJob",
        change: { site: { ...job.site, ambientLowC: -15 }, fuel: { ...job.fuel, cloudPointC: -15 } },
      });
    },
  ],
  [
    "a gauge in the room that a separator's bowl drops into",
    "boardClash",
    () => {
      const plan = currentPlan(boat());
      const [gauge, sep] = ["vacuum", "sep2"].map((id) => plan.parts.find((one) => one.id === id)!);
      // Under the bowl, a hand's width down.
      const position = { ...sep!.position, zM: sep!.position.zM - 0.14 - 0.05 };
      return change(
        { ...boat(), plans: boat().plans.map((one) => ({ ...one, mounted: { sep2: plan.mounted!.sep2! } })) },
        { name: "hang", boardId: "hatch", at: [{ id: gauge!.id, position, turn: 0 }] },
      );
    },
    {
      grade: "mend",
      values: {
        board: "Filter board",
        code: "serviceBlocked",
        part: "Separator 2",
        other: "Vacuum gauge",
        byM: expect.closeTo(0.085, 3) as never,
      },
    },
    () => ({ ...boat(), plans: boat().plans.map(({ mounted: _, ...one }) => one) }),
  ],
  [
    "a lid over which another part hangs, on a filter of two litres, takes too long to change",
    "changeSlow",
    () => change(boat(), part("sep1", { housing: "lid", volumeM3: 0.004 })),
    { grade: "watch", ids: ["sep1"] },
    () => change(boat(), part("sep1", { volumeM3: 0.0003 })),
  ],
  [
    "9 a dosing pump two metres over its fuel, which lifts one and a fifth on air",
    "cannotLiftDry",
    () => change(van(), part("dose", { position: { xM: 0, yM: 0, zM: 3 } })),
    { grade: "mend", ids: ["dose"] },
    van,
  ],
  [
    "9 a bleed screw on the suction over the fuel, and not behind the pump",
    "screwDrawsAir",
    () =>
      change(
        truck(),
        ...placed("bleedScrew", "high", "r4"),
        part("high", { position: { xM: 0, yM: 0, zM: 3 } }),
      ),
    { grade: "watch", ids: ["high"] },
    truck,
  ],
  [
    "9 a separator valved off with its outlet open to the suction, and not with both in use",
    "spareOpen",
    boat,
    { grade: "watch", ids: ["sep2"] },
    () =>
      change(
        boat(),
        ...["runPort", "runStbd", "runDay"].map(
          (lineUpId): Command => ({
            name: "setValve",
            lineUpId,
            valveId: "valve2",
            setting: { kind: "position", position: "open" },
          }),
        ),
      ),
  ],
  [
    "9 a hose of the feed over a crest of its own, wide enough that its flow sweeps no air",
    "crestHoldsAir",
    () => change(truck(), run("r5", { boreM: 0.025, route: crest(0.3) })),
    { grade: "watch", ids: ["r5"] },
    // The same crest in a bore whose flow clears it: 0.7 m/s against 0.3.
    () => change(truck(), run("r5", { boreM: 0.0095, route: crest(0.3) })),
  ],
  [
    "19 a hole that nobody has looked behind",
    "passageWrong",
    () =>
      change(boat(), {
        name: "editPlan",
        change: {
          passages: [{ id: "h", name: "Hole", through: "floor", made: "wood", wallM: 0.02, runs: ["run1"] }],
        },
      }),
    { grade: "mend", ids: ["h"], values: expect.objectContaining({ code: "notLooked" }) as never },
    () =>
      change(boat(), {
        name: "editPlan",
        change: {
          passages: [
            {
              id: "h",
              name: "Hole",
              through: "floor",
              made: "wood",
              wallM: 0.02,
              runs: ["run1"],
              behind: "free",
            },
          ],
        },
      }),
  ],
  [
    "28 a hose that the plan has shorter than its board needs",
    "boardHose",
    () => change(boat(), run("run7", { route: { kind: "measured", lengthM: 0.3, bends: [], extremes: [] } })),
    { grade: "mend", ids: ["run7"] },
    boat,
  ],
  [
    "31 a 37 degree nut on a 45 degree flare",
    "jointUnsealed",
    truck,
    { grade: "mend", ids: ["engine"], basis: "standard" },
    () =>
      change(truck(), {
        name: "setEnd",
        id: "r9",
        port: "to",
        end: { family: "sae45", size: "1/2", form: "fs" },
      }),
  ],
  [
    "34 a clamp that was looked at and does not hold",
    "jointMade",
    () => change(truck(), { name: "editPlan", change: { jointLooks: { "sep.in": { clampPlaced: false } } } }),
    { grade: "watch", ids: ["sep"], basis: "standard" },
    // Nobody has looked yet, or it was right.
    () => change(truck(), { name: "editPlan", change: { jointLooks: { "sep.in": { clampPlaced: true } } } }),
  ],
  [
    "52 a taper thread that comes tight where a hose cannot go",
    "jointMade",
    () => change(truck(), { name: "editPlan", change: { jointLooks: { "sep.in": { clocked: false } } } }),
    { grade: "mend", ids: ["sep"] },
    truck,
  ],
  [
    "a mouth outside its tank",
    "mouthOutside",
    () => {
      const job = truck();
      const bed = job.tanks.find(({ id }) => id === "bed")!;
      const ports = bed.ports.map((one, i) => (i === 0 ? { ...one, mouth: { ...one.mouth, xM: 1.2 } } : one));
      return change(job, { name: "editTank", id: "bed", change: { ports } });
    },
    // The bed tank is a box of one metre.
    { grade: "stop", ids: ["bed"] },
    truck,
  ],
  [
    "22 nothing strips a surveyed tank",
    "noStripping",
    () => {
      const job = boat();
      const day = job.tanks.find(({ id }) => id === "dayTank")!;
      return change(job, {
        name: "editTank",
        id: "dayTank",
        change: {
          opening: { ...day.opening!, holes: day.opening!.holes.filter(({ use }) => use !== "sampling") },
        },
      });
    },
    { grade: "watch", ids: ["dayTank"] },
    boat,
  ],
  [
    "25 a long tank without baffles",
    "sloshing",
    () => change(truck(), { name: "editTank", id: "bed", change: { baffles: [] } }),
    { grade: "watch", ids: ["bed"], values: { tank: "Bed tank", longM: 1, across: 0 } },
    truck,
  ],
  [
    "28 a traced run bent tighter than its hose",
    "bendTight",
    () =>
      change(
        truck(),
        run("r11", { route: { kind: "traced", points: [{ xM: -1, yM: -0.3, zM: 1.2 }], radiusM: 0.02 } }),
      ),
    { grade: "mend", ids: ["r11"], basis: "maker" },
    () =>
      change(
        truck(),
        run("r11", { route: { kind: "traced", points: [{ xM: -1, yM: -0.3, zM: 1.2 }], radiusM: 0.2 } }),
      ),
  ],
  [
    "28 legs that have no room for the radius they say",
    "bendTight",
    () =>
      change(
        truck(),
        run("r11", {
          route: {
            kind: "traced",
            points: [
              { xM: -1, yM: -0.3, zM: 1.2 },
              { xM: -1, yM: -0.3, zM: 1.25 },
            ],
            radiusM: 0.2,
          },
        }),
      ),
    { grade: "mend", ids: ["r11"] },
    () =>
      change(
        truck(),
        run("r11", { route: { kind: "traced", points: [{ xM: -1, yM: -0.3, zM: 1.2 }], radiusM: 0.2 } }),
      ),
  ],
  [
    "29 supports of 18 in as published are none too far",
    "supportWide",
    () => change(truck(), run("r11", { supportEveryM: 0.4573 })),
    { grade: "mend" },
    () => change(truck(), run("r11", { supportEveryM: 0.4572 })),
  ],
  [
    "29 supports too far apart; the wide school bears them",
    "supportWide",
    () => change(truck(), run("r11", { supportEveryM: 0.6 })),
    { grade: "mend", ids: ["r11"], school: "support:close" },
    () =>
      change(
        { ...truck(), schools: { shutOff: "abycH33", support: "wide" } },
        run("r11", { supportEveryM: 0.6 }),
      ),
  ],
  [
    "30 near what is hot",
    "nearDanger",
    truck,
    { grade: "mend", ids: ["r11", "nExh"] },
    () => {
      const near = currentPlan(truck()).runs.find(({ id }) => id === "r11")!.neighbours!;
      return change(truck(), run("r11", { neighbours: near.map((one) => ({ ...one, guarded: true })) }));
    },
  ],
  [
    "35 no hose to spare",
    "allowanceShort",
    () => change(truck(), { name: "editPlan", change: { serviceAllowanceM: 0.05 } }),
    { grade: "watch" },
    truck,
  ],
  [
    "36 some lines marked, others not",
    "linesUnmarked",
    () => change(truck(), run("r1", { mark: "frame tank to separator" })),
    { grade: "watch", figure: 14 },
    truck,
  ],
  [
    "38 a dosing pump that lies too flat",
    "dosingFit",
    van,
    { grade: "mend", ids: ["dose", "tilt"], basis: "common" },
    () => change(van(), part("dose", { tiltDeg: 20 })),
  ],
  [
    "38 more line after it than its maker allows; without the figure it is not judged",
    "dosingFit",
    () => change(van(), part("dose", { tiltDeg: 20, mostAfterM: 0.5 })),
    { ids: ["dose", "after"], basis: "maker" },
    () => change(van(), part("dose", { tiltDeg: 20, mostAfterM: undefined })),
  ],
  [
    "39 an exhaust with too many bends",
    "heaterExhaust",
    () =>
      consumer(van(), (one) => {
        Object.assign(one.heater!, { exhaustBendDeg: 290, drainAtLowest: false });
      }),
    { grade: "mend", values: { part: "Air heater", codes: "bends drain", bendDeg: 290 } },
    van,
  ],
  [
    "40 no carbon monoxide alarm",
    "noCoAlarm",
    () =>
      consumer(van(), (one) => {
        one.heater!.hasCoAlarm = false;
      }),
    { grade: "stop", ids: ["heater"] },
    () =>
      consumer(van(), (one) => {
        one.heater!.hasCoAlarm = true;
      }),
  ],
  [
    "what nobody has looked at at a heater",
    "notLookedAt",
    () =>
      consumer(van(), (one) => {
        delete one.heater!.exhaustFalls;
        delete one.heater!.outletClear;
      }),
    {
      grade: "mend",
      ids: ["heater"],
      values: { part: "Air heater", of: "heater", looks: "heater.exhaustFalls heater.outletClear", count: 2 },
    },
    // Looked at and wrong is another finding's.
    () => consumer(van(), (one) => Object.assign(one.heater!, { exhaustFalls: false, outletClear: false })),
  ],
  [
    "a tank whose seams were not looked at",
    "notLookedAt",
    () => {
      const job = boat();
      const day = job.tanks.find(({ id }) => id === "dayTank")!;
      return change(job, {
        name: "editTank",
        id: "dayTank",
        change: {
          condition: {
            ...day.condition!,
            seams: "unseen",
            feet: "sound",
            fittings: "sound",
            drains: "unseen",
          },
        },
      });
    },
    { grade: "mend", ids: ["dayTank"] },
    boat,
  ],
  [
    "41 a regulator under the peak",
    "heaterSupply",
    van,
    { grade: "mend", ids: ["heater", "regulator"] },
    () => ({ ...van(), site: { ...van().site, supply: { volts: 12.4 } } }),
  ],
  [
    "41 volts under the window at glow current",
    "heaterSupply",
    () => ({ ...van(), site: { ...van().site, supply: { volts: 11.6 } } }),
    { ids: ["heater", "low"] },
    () => ({ ...van(), site: { ...van().site, supply: { volts: 12.4 } } }),
  ],
  [
    "42 no room round it",
    "heaterClear",
    () =>
      consumer(van(), (one) => {
        one.heater!.clearanceM = 0.04;
      }),
    { grade: "watch" },
    van,
  ],
  [
    "43 a heater on the vehicle's tank, against the school",
    "heaterOnVehicle",
    () => ({ ...van(), currentPlanId: "planVeh" }),
    { grade: "watch", ids: ["heater", "veh"], school: "heaterFuel:ownTank" },
    () => ({
      ...van(),
      currentPlanId: "planVeh",
      schools: { shutOff: "abycH33", heaterFuel: "vehicleAboveReserve" },
    }),
  ],
  [
    "43 vegetable fuel rules it out in any school",
    "heaterOnVehicle",
    () => ({
      ...van(),
      currentPlanId: "planVeh",
      schools: { shutOff: "abycH33", heaterFuel: "vehicleAll" },
      fuel: { ...van().fuel, biodieselShare: 0.2 },
    }),
    { ids: ["heater", "veh"] },
    () => ({ ...van(), currentPlanId: "planVeh", schools: { shutOff: "abycH33", heaterFuel: "vehicleAll" } }),
  ],
  [
    "45 a pump on a circuit for less",
    "triggerOverloaded",
    truck,
    { grade: "mend", ids: ["lift"], figure: 2.5 },
    () => change(truck(), part("lift", { circuit: { ...circuitOf(truck(), "lift"), hasRelay: true } })),
  ],
  [
    "46 a fuse over its wire",
    "wireWrong",
    () => change(truck(), part("lift", { circuit: { ...circuitOf(truck(), "lift"), fuseA: 30 } })),
    { ids: ["lift", "fuseOverWire"], basis: "standard" },
    truck,
  ],
  [
    "46 a drop over 10 %",
    "wireWrong",
    () => change(truck(), part("lift", { circuit: { ...circuitOf(truck(), "lift"), wireLengthM: 60 } })),
    { ids: ["lift", "drop"] },
    truck,
  ],
  [
    "47 fed under the maker's window",
    "feedPressure",
    () =>
      consumer(truck(), (one) => {
        one.leastFeedPa = 40000;
      }),
    { grade: "mend", ids: ["engine", "low"], basis: "maker" },
    truck,
  ],
  [
    "47 fed over it at idle",
    "feedPressure",
    () =>
      consumer(truck(), (one) => {
        one.mostFeedPa = 30000;
      }),
    { ids: ["engine", "high"] },
    () =>
      consumer(truck(), (one) => {
        delete one.mostFeedPa;
        delete one.leastFeedPa;
      }),
  ],
  [
    "47 a regulator in the way of a return, that has to let all of it through",
    "cannotHold",
    () => change(truck(), ...placed("regulator", "hold", "r10", { holds: "after", setPa: 0, droopPa: 0 })),
    { grade: "mend", ids: ["hold"], lineUpIds: ["run", "both"] },
    () => change(truck(), ...placed("regulator", "hold", "r5", { holds: "after", setPa: 20000, droopPa: 0 })),
  ],
  [
    "48 a provisional part",
    "provisional",
    () => change(truck(), part("fine", { provisional: true })),
    { grade: "mend", ids: ["fine"] },
    truck,
  ],
  [
    "48 a provisional hose",
    "provisional",
    () => change(truck(), run("r3", { provisional: true })),
    { ids: ["r3"] },
    truck,
  ],
  [
    "50 the sensor in a later bowl; kept at the factory filter by school",
    "sensorLate",
    () =>
      change(truck(), part("sep", { sensorHeldM3: undefined }), part("factory", { sensorHeldM3: 0.0001 })),
    { grade: "watch", ids: ["factory"] },
    () =>
      change(
        { ...truck(), schools: { shutOff: "abycH33", waterSensor: "factoryFilter" } },
        part("sep", { sensorHeldM3: undefined }),
        part("factory", { sensorHeldM3: 0.0001 }),
      ),
  ],
  [
    "51 a direction that was guessed",
    "flowGuessed",
    () => change(truck(), part("fine", { flowBasis: "guess" })),
    { grade: "watch", ids: ["fine"] },
    () => change(truck(), part("fine", { flowBasis: "maker" })),
  ],
  [
    "53 a switch that cuts the run-down",
    "runDownCut",
    () =>
      consumer(van(), (one) => {
        one.heater!.switchCutsRunDown = true;
      }),
    { grade: "mend" },
    van,
  ],
  [
    "54 a fitting shorter than its floor",
    "bulkheadReach",
    () => change(van(), part("wall", { reachM: 0.012 })),
    { grade: "watch", ids: ["wall"] },
    van,
  ],
  [
    "56 made in the shop, untested",
    "shopMade",
    () => change(truck(), part("fine", { shopMade: { tested: false } })),
    { grade: "watch" },
    () => change(truck(), part("fine", { shopMade: { tested: true } })),
  ],
];

function circuitOf(job: Job, id: string) {
  const found = currentPlan(job).parts.find((one) => one.id === id);
  if (!found || !("circuit" in found) || !found.circuit) throw new Error(`no circuit ${id}`);
  return found.circuit;
}

describe("rules of parts, heaters and circuits: each on a plan that fails it and on one near it that passes", () => {
  test.each(cases)("%s", (_what, rule, fails, found, passes) => {
    const finding = allOf(fails()).find(
      (one) => one.rule === rule && (!found.ids || one.ids.join() === found.ids.join()),
    );
    expect(finding).toMatchObject({ rule, ...found });
    expect(
      allOf(passes()).filter(
        (one) => one.rule === rule && (!found.ids || one.ids.join() === found.ids.join()),
      ),
    ).toEqual([]);
  });

  const petrolCodes = (job: Job) =>
    allOf(job).flatMap((finding) => (finding.rule === "petrol" ? [finding.values.code] : []));

  test("37 petrol: a low opening, a pump far off and no anti-siphon valve; diesel is asked none of it", () => {
    const job = petrolJob();
    const codes = petrolCodes(job);
    expect(codes).toEqual(expect.arrayContaining(["openingNotAtTop", "pumpFarFromEngine", "noAntiSiphon"]));
    expect(of(truck(), "petrol")).toBeUndefined();
    // A pump at the engine or in the tank primes itself at the key or by cranking: no bulb is asked for.
    expect(new Set(codes)).toEqual(new Set(["openingNotAtTop", "pumpFarFromEngine", "noAntiSiphon"]));
    const near = change(
      job,
      ...placed("antiSiphon", "as", "r2"),
      part("lift", { position: { xM: 0.3, yM: -0.1, zM: 0.85 } }),
    );
    const left = petrolCodes(near);
    expect(left).not.toContain("noAntiSiphon");
    expect(left).not.toContain("pumpFarFromEngine");
    const off = change(job, { name: "setConsumer", lineUpId: "run", consumerId: "engine", state: "stopped" });
    expect(petrolCodes(off)).toContain("pumpWithoutEngine");
  });
});

test("a hose whose outside is no wider than its bore is told, any other is not", () => {
  const [one] = currentPlan(boat()).runs;
  const thin = change(
    boat(),
    run(one!.id, { boreM: 0.02, product: { ...one!.product, outerDiameterM: 0.019 } }),
  );
  expect(of(thin, "hoseThin")).toMatchObject({ grade: "mend", ids: [one!.id], figure: 0.02 });
  expect(of(boat(), "hoseThin")).toBeUndefined();
});

describe("filters and their gauge", () => {
  const marram = () => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
  const vacuumEntry = (vacuumPa: number, at: string): BookEntry => ({
    kind: "vacuum",
    id: `v${at}`,
    at: `${at}T09:00:00Z`,
    planId: currentPlan(marram()).id,
    planHash: "0",
    gaugeId: "vacuum",
    lineUpId: "runPort",
    vacuumPa,
    note: "",
    conditions: currentPlan(marram()).conditions,
  });
  const over = (job: Job, ...book: BookEntry[]) =>
    findingsOf(job, book).find(({ rule }) => rule === "gaugeOverLimit");

  test("a last reading over the limit is a Mend at the filter; under it, of an older element, or under the user's own it is none", () => {
    const fitted = part("sep1", { element: { id: "elSep1", fittedOn: "2026-03-01" } });
    const job = change(marram(), fitted);
    expect(over(job, vacuumEntry(27_500, "2026-08-01"))).toMatchObject({
      grade: "mend",
      ids: ["sep1", "vacuum"],
      values: { readPa: 27_500, limitPa: 20_000 },
    });
    expect(over(job, vacuumEntry(27_500, "2026-08-01"), vacuumEntry(9000, "2026-08-02"))).toBeUndefined();
    expect(over(job, vacuumEntry(27_500, "2026-02-01"))).toBeUndefined();
    const own = change(job, part("vacuum", { changeAtPa: 30_000 }));
    expect(over(own, vacuumEntry(27_500, "2026-08-01"))).toBeUndefined();
    expect(over(own, vacuumEntry(30_000, "2026-08-01"))).toBeDefined();
  });

  test("a sensor that warns when most of its bowl is water is told, one low in it is not", () => {
    const high = change(marram(), part("sep1", { volumeM3: 0.0011, sensorHeldM3: 0.0009 }));
    expect(of(high, "waterSensorHigh")).toMatchObject({ grade: "watch", ids: ["sep1"], figure: 0.0009 });
    expect(of(change(high, part("sep1", { sensorHeldM3: 0.0002 })), "waterSensorHigh")).toBeUndefined();
  });

  test("a pump that draws from a sump with nothing before it is told; a tube from the top, or a filter before it, is none", () => {
    const bare = startJob("s", "S", "oneTank");
    const [tank] = bare.tanks;
    const filter = currentPlan(bare).parts.find(({ kind }) => kind === "filter")!;
    const made = (fitting: "sump" | "tube") =>
      change(bare, {
        name: "editTank",
        id: tank!.id,
        change: { ports: tank!.ports.map((port) => (port.role === "outlet" ? { ...port, fitting } : port)) },
      });
    const without = (job: Job) => change(job, { name: "removePart", id: filter.id });
    expect(of(without(made("sump")), "pumpUnscreened")).toMatchObject({ grade: "mend" });
    expect(of(made("sump"), "pumpUnscreened")).toBeUndefined();
    expect(of(without(made("tube")), "pumpUnscreened")).toBeUndefined();
  });
});

describe("figures behind them, by hand", () => {
  test("46 the drop is I r L / A of warm copper over the supply", () => {
    const job = change(
      truck(),
      part("lift", { circuit: { ...circuitOf(truck(), "lift"), wireLengthM: 60 } }),
    );
    const volts = (7.5 * 1.724e-8 * (1 + 0.00393 * 20) * 60) / 2.5e-6;
    expect(of(job, "wireWrong")?.values.dropShare).toBeCloseTo(volts / 24, 9);
  });

  test("43 litres under the standpipe's mouth: 700 x 500 mm by 60 mm", () => {
    const found = of({ ...van(), currentPlanId: "planVeh" }, "heaterOnVehicle");
    expect(found?.values.reserveM3).toBeCloseTo(0.7 * 0.5 * 0.06, 9);
  });

  test("30 ninety-nine millimetres of a hundred", () => {
    expect(of(truck(), "nearDanger")?.figure).toBeCloseTo(0.03, 9);
  });
});

describe("findings of one part that are mended apart", () => {
  const crowded = () => {
    const plan = currentPlan(boat());
    const sep = plan.parts.find(({ id }) => id === "sep2")!;
    // Under the bowl of a separator whose cup is out of reach already.
    const position = { ...sep.position, zM: sep.position.zM - 0.19 };
    return change(boat(), { name: "hang", boardId: "hatch", at: [{ id: "vacuum", position, turn: 0 }] });
  };
  const codes = (job: Job, book: BookEntry[] = []) =>
    findingsOf(job, book, undefined, undefined, TODAY).flatMap((one) =>
      one.rule === "boardClash" && one.ids[0] === "sep2" && !one.setAside ? [one.values.code] : [],
    );
  test("are told one by one, and one set aside leaves the others", () => {
    const job = crowded();
    expect(codes(job)).toEqual(expect.arrayContaining(["outOfReach", "serviceBlocked"]));
    const found = allOf(job).find(
      (one) => one.rule === "boardClash" && one.values.code === "outOfReach" && one.ids[0] === "sep2",
    )!;
    const aside: BookEntry = {
      kind: "setAside",
      id: "a",
      at: "2026-05-01T00:00:00Z",
      planId: job.currentPlanId,
      planHash: "",
      rule: found.rule,
      ids: found.ids,
      about: found.about!,
      lineUpId: null,
      reason: "a pan instead",
      figure: found.figure,
    };
    expect(codes(job, [aside])).toEqual(codes(job).filter((code) => code !== "outOfReach"));
  });
  test("a hose from a tank's side has the name of what it comes from", () => {
    const tight = { marking: "x", outerDiameterM: 0.02, leastRadiusM: 2 };
    const hose = of(change(boat(), run("run4", { product: tight })), "boardHose")!;
    expect(hose.values).toMatchObject({ code: "blocked", from: "Supply manifold", to: "Separator tee in" });
  });
});

describe("the demo jobs carry what they are meant to and nothing else", () => {
  const said = (job: Job) => allOf(job).map(({ rule, grade }) => `${grade} ${rule}`);
  test("Unit 12", () => {
    expect(said(truck())).toEqual([
      "mend nearDanger",
      "mend jointUnsealed",
      "mend triggerOverloaded",
      "mend feedPressure",
      "watch worstLimit",
      "watch tankHeavy",
      "watch transferOverfills",
    ]);
  });
  test("The reading van, and its alternative", () => {
    expect(said(van())).toEqual([
      "stop noCoAlarm",
      "mend passageWrong",
      "mend passageWrong",
      "mend dosingFit",
      "mend heaterSupply",
    ]);
    expect(said({ ...van(), currentPlanId: "planVeh" })).toEqual([
      "stop noCoAlarm",
      "mend heaterSupply",
      "watch heaterOnVehicle",
    ]);
  });
});

const bledFound = (...bleeds: BleedOutcome[]) =>
  findingsOf(boat(), [], undefined, undefined, undefined, bleeds).filter(
    ({ rule }) => rule === "bleedLeavesAir",
  );
const stays: BleedOutcome = {
  lineUpId: "runPort",
  left: 0.031,
  airM3: 4e-5,
  isBled: false,
  whyNot: [{ code: "headHolds", at: "sep1", airM3: 4e-5 }],
};

test("a line-up that cannot be bled is a thing to mend, at the part where the air stays", () => {
  const [finding, ...more] = bledFound(stays);
  expect(more).toEqual([]);
  expect(finding).toMatchObject({ grade: "mend", ids: ["sep1"], lineUpIds: ["runPort"], figure: 0.031 });
  expect(finding?.values).toMatchObject({ code: "headHolds", airM3: 4e-5, lineUp: expect.any(String) });
});

test("one that ends under a thousandth is none, nor one of a line-up that is gone, nor one that nobody tried", () => {
  expect(bledFound({ ...stays, left: 0.0009, isBled: true })).toEqual([]);
  expect(bledFound({ ...stays, lineUpId: "gone" })).toEqual([]);
  expect(bledFound()).toEqual([]);
});

test("every rule is held by a test of this folder", () => {
  const texts = ["findings.test.ts", "planRules.test.ts", "flow/jetDraws.test.ts"]
    .map((name) => readFileSync(`app/core/findings/${name}`, "utf8"))
    .join("");
  const words = new Set(texts.split(/\W+/));
  expect(ruleIds.filter((id) => !words.has(id))).toEqual([]);
});

test("what stands at an open outlet is the fuel over it, by its height and a diesel's density (EN 590: 820 to 845 at 15 °C)", () => {
  const job = spareOutlet(truck(), 0.02);
  const bed = job.tanks.find(({ id }) => id === "bed")!;
  expect(bed.shape.kind).toBe("box");
  if (bed.shape.kind !== "box") return;
  const { lengthM, widthM } = bed.shape;
  const overM = currentPlan(job).conditions.aboardM3.bed! / (lengthM * widthM) - 0.02;
  const { pressurePa } = of(job, "openPorts")!.values;
  // At the truck's fuel temperature a little less or more dense than at 15 °C.
  expect(pressurePa / (9.80665 * overM)).toBeGreaterThan(800);
  expect(pressurePa / (9.80665 * overM)).toBeLessThan(870);
});
