/** Plans to start from, by what stands there: boats with one to three tanks or two engines, a truck, a heater. */
import { HEATER_BORE_M } from "../kinds/dosingPump";
import { newId } from "../kinds/ids";
import type { Id } from "../kinds/record";
import { newJob } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job, PortRef } from "../plan/types";
import type { Command } from "./command";
import { applyCommand } from "./commands";

export const starterIds = [
  "nothing",
  "oneTank",
  "twoTanksTwoSelectors",
  "threeTanks",
  "twinEngine",
  "truck",
  "heater",
] as const;
export type StarterId = (typeof starterIds)[number];

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });
const ref = (part: Id, port: Id): PortRef => ({ part, port });

function build(job: Job, commands: readonly Command[]): Job {
  return commands.reduce((built, command) => applyCommand(built, command).job, job);
}

const connect = (from: PortRef, to: PortRef): Command => ({ name: "connect", id: newId(), from, to });

/** A separator, a gauge and a lift pump between `from` and the engine, in that order, named for its side if it has one. */
function suctionSide(from: PortRef, engine: Id, side = "", yM = 0.3): Command[] {
  const [filter, gauge, pump] = [newId(), newId(), newId()];
  const named = (id: Id, name: string): Command[] =>
    side ? [{ name: "editPart", id, change: { name: `${side} ${name}` } }] : [];
  return [
    { name: "addPart", id: filter, kind: "filter", position: at(1.2, yM, 0.6) },
    { name: "addPart", id: gauge, kind: "gauge", position: at(1, yM, 0.6) },
    { name: "addPart", id: pump, kind: "liftPump", position: at(0.7, yM - 0.1, 0.5) },
    ...named(filter, "separator"),
    ...named(gauge, "vacuum gauge"),
    ...named(pump, "lift pump"),
    connect(from, ref(filter, "in")),
    connect(ref(filter, "out"), ref(gauge, "a")),
    connect(ref(gauge, "b"), ref(pump, "in")),
    connect(ref(pump, "out"), ref(engine, "feed")),
  ];
}

function oneTank(job: Job): Job {
  const [tank, engine, valve] = [newId(), newId(), newId()];
  return build(job, [
    { name: "addTank", id: tank, tankName: "Tank", position: at(2.2, -0.25, 0.2) },
    { name: "addEngine", id: engine, engineName: "Engine", position: at(0, 0, 0.5) },
    { name: "addLineUp", id: newId(), lineUpName: "Run" },
    { name: "addPart", id: valve, kind: "twoWay", position: at(2.2, 0, 0.65) },
    connect(ref(tank, "supply"), ref(valve, "a")),
    ...suctionSide(ref(valve, "b"), engine),
    connect(ref(engine, "return"), ref(tank, "return")),
  ]);
}

function twoTanks(job: Job): Job {
  const [port, stbd, engine, supply, back] = [newId(), newId(), newId(), newId(), newId()];
  const [runPort, runStbd] = [newId(), newId()];
  const way = (lineUpId: Id, position: Id): Command[] =>
    [supply, back].map((valveId) => ({
      name: "setValve",
      lineUpId,
      valveId,
      setting: { kind: "position", position },
    }));
  return build(job, [
    { name: "addTank", id: port, tankName: "Port tank", position: at(2.2, 0.4, 0.2) },
    { name: "addTank", id: stbd, tankName: "Starboard tank", position: at(2.2, -0.9, 0.2) },
    { name: "addEngine", id: engine, engineName: "Engine", position: at(0, 0, 0.5) },
    { name: "addLineUp", id: runPort, lineUpName: "Run on port" },
    { name: "addLineUp", id: runStbd, lineUpName: "Run on starboard" },
    { name: "addPart", id: supply, kind: "selector", position: at(1.6, 0.2, 0.6) },
    { name: "addPart", id: back, kind: "selector", position: at(1.6, -0.2, 0.6) },
    { name: "editPart", id: supply, change: { name: "Supply selector" } },
    { name: "editPart", id: back, change: { name: "Return selector" } },
    connect(ref(port, "supply"), ref(supply, "w1")),
    connect(ref(stbd, "supply"), ref(supply, "w2")),
    ...suctionSide(ref(supply, "c"), engine),
    connect(ref(engine, "return"), ref(back, "c")),
    connect(ref(back, "w1"), ref(port, "return")),
    connect(ref(back, "w2"), ref(stbd, "return")),
    ...way(runPort, "one"),
    ...way(runStbd, "two"),
  ]);
}

const setBranches = (lineUpId: Id, valveId: Id, open: Id[]): Command => ({
  name: "setValve",
  lineUpId,
  valveId,
  setting: { kind: "branches", open },
});

/** Two wings and a day tank on a supply and a return manifold: a line-up a tank, nothing crossed. */
function threeTanks(job: Job): Job {
  const tanks = [
    { id: newId(), name: "Port tank", at: at(2.2, 0.5, 0.2) },
    { id: newId(), name: "Day tank", at: at(1.9, -0.25, 0.35) },
    { id: newId(), name: "Starboard tank", at: at(2.2, -1, 0.2) },
  ];
  const [engine, supply, back] = [newId(), newId(), newId()];
  const branches = tanks.map(({ name }, i) => ({ id: `b${i + 1}`, name: name.replace(" tank", "") }));
  const lineUps = tanks.map(() => newId());
  return build(job, [
    ...tanks.map(
      ({ id, name, at: position }): Command => ({ name: "addTank", id, tankName: name, position }),
    ),
    { name: "addEngine", id: engine, engineName: "Engine", position: at(0, 0, 0.5) },
    ...lineUps.map(
      (id, i): Command => ({
        name: "addLineUp",
        id,
        lineUpName: `Run on ${branches[i]?.name.toLowerCase() ?? ""}`,
      }),
    ),
    { name: "addPart", id: supply, kind: "bank", position: at(1.6, 0.2, 0.6) },
    { name: "addPart", id: back, kind: "bank", position: at(1.6, -0.2, 0.6) },
    { name: "editPart", id: supply, change: { name: "Supply manifold", branches } },
    { name: "editPart", id: back, change: { name: "Return manifold", branches } },
    ...tanks.flatMap(({ id }, i): Command[] => [
      connect(ref(id, "supply"), ref(supply, `b${i + 1}`)),
      connect(ref(back, `b${i + 1}`), ref(id, "return")),
    ]),
    ...suctionSide(ref(supply, "c"), engine),
    connect(ref(engine, "return"), ref(back, "c")),
    ...lineUps.flatMap((id, i) => [
      setBranches(id, supply, [`b${i + 1}`]),
      setBranches(id, back, [`b${i + 1}`]),
    ]),
  ]);
}

/** Each engine on its own side's tank, with its own valve, separator and pump. */
function twinEngine(job: Job): Job {
  const lineUp = newId();
  const sides = [
    { side: "Port", y: 0.6 },
    { side: "Starboard", y: -0.6 },
  ].map(({ side, y }) => ({ side, y, tank: newId(), engine: newId(), valve: newId() }));
  return build(job, [
    ...sides.flatMap(({ side, y, tank, engine }): Command[] => [
      { name: "addTank", id: tank, tankName: `${side} tank`, position: at(2.2, y - 0.25, 0.2) },
      { name: "addEngine", id: engine, engineName: `${side} engine`, position: at(0, y, 0.5) },
    ]),
    { name: "addLineUp", id: lineUp, lineUpName: "Run both" },
    ...sides.flatMap(({ side, y, tank, engine, valve }): Command[] => [
      { name: "addPart", id: valve, kind: "twoWay", position: at(2.2, y, 0.65) },
      { name: "editPart", id: valve, change: { name: `${side} valve` } },
      connect(ref(tank, "supply"), ref(valve, "a")),
      ...suctionSide(ref(valve, "b"), engine, side, y),
      connect(ref(engine, "return"), ref(tank, "return")),
      opened(lineUp, valve),
    ]),
  ]);
}

const opened = (lineUpId: Id, valveId: Id): Command => ({
  name: "setValve",
  lineUpId,
  valveId,
  setting: { kind: "position", position: "open" },
});

/** A frame tank, separator, frame pump and final filter. */
function truck(job: Job): Job {
  const [tank, engine, valve, sep, gauge, pump, fine, lineUp] = Array.from({ length: 8 }, () => newId()) as [
    Id,
    Id,
    Id,
    Id,
    Id,
    Id,
    Id,
    Id,
  ];
  return build({ ...job, kind: "truck" }, [
    { name: "addTank", id: tank, tankName: "Frame tank", position: at(-2.6, -1, 0.6) },
    { name: "addEngine", id: engine, engineName: "Engine", position: at(0.4, -0.1, 0.95) },
    { name: "addLineUp", id: lineUp, lineUpName: "Run" },
    { name: "addPart", id: valve, kind: "twoWay", position: at(-2.4, -0.75, 1.06) },
    { name: "addPart", id: sep, kind: "filter", position: at(-1.3, -0.4, 0.85) },
    { name: "addPart", id: gauge, kind: "gauge", position: at(-1.1, -0.4, 0.9) },
    { name: "addPart", id: pump, kind: "liftPump", position: at(-0.9, -0.4, 0.82) },
    { name: "addPart", id: fine, kind: "filter", position: at(-0.4, -0.4, 0.9) },
    { name: "editPart", id: pump, change: { name: "Frame pump" } },
    { name: "editPart", id: fine, change: { name: "Final filter", medium: "secondary", micron: 2 } },
    connect(ref(tank, "supply"), ref(valve, "a")),
    connect(ref(valve, "b"), ref(sep, "in")),
    connect(ref(sep, "out"), ref(gauge, "a")),
    connect(ref(gauge, "b"), ref(pump, "in")),
    connect(ref(pump, "out"), ref(fine, "in")),
    connect(ref(fine, "out"), ref(engine, "feed")),
    connect(ref(engine, "return"), ref(tank, "return")),
    opened(lineUp, valve),
  ]);
}

/** A small tank, a dosing pump and an air heater on a 2 mm line. */
function heater(job: Job): Job {
  const [tank, valve, burner, pump, lineUp] = [newId(), newId(), newId(), newId(), newId()];
  const outlet = {
    id: "supply",
    name: "standpipe",
    role: "outlet" as const,
    fitting: "standpipe" as const,
    mouth: at(0.05, 0.1, 0.025),
    outside: at(0.05, 0.1, 0.22),
    boreM: HEATER_BORE_M,
  };
  return build({ ...job, kind: "heater" }, [
    { name: "addTank", id: tank, tankName: "Heater tank", position: at(-2.9, 0.5, 0.75) },
    {
      name: "editTank",
      id: tank,
      change: { shape: { kind: "box", lengthM: 0.3, widthM: 0.2, heightM: 0.2 }, ports: [outlet] },
    },
    { name: "setConditions", change: { aboardM3: { [tank]: 0.009 } } },
    {
      name: "addEngine",
      id: burner,
      engineName: "Air heater",
      position: at(-3.2, 0.2, 0.62),
      kind: "heater",
    },
    { name: "addLineUp", id: lineUp, lineUpName: "Heat" },
    { name: "addPart", id: valve, kind: "twoWay", position: at(-2.88, 0.58, 0.96) },
    { name: "editPart", id: valve, change: { name: "Tank valve", boreM: HEATER_BORE_M } },
    { name: "addPart", id: pump, kind: "dosingPump", position: at(-3.1, 0.42, 0.55) },
    connect(ref(tank, "supply"), ref(valve, "a")),
    connect(ref(valve, "b"), ref(pump, "in")),
    connect(ref(pump, "out"), ref(burner, "feed")),
    opened(lineUp, valve),
  ]);
}

export function startJob(id: Id, name: string, starter: StarterId): Job {
  const job = newJob(id, name);
  switch (starter) {
    case "nothing":
      return job;
    case "oneTank": {
      const built = oneTank(job);
      const [lineUp] = currentPlan(built).lineUps;
      const valve = currentPlan(built).parts.find(({ kind }) => kind === "twoWay");
      if (!lineUp || !valve) return built;
      return build(built, [
        {
          name: "setValve",
          lineUpId: lineUp.id,
          valveId: valve.id,
          setting: { kind: "position", position: "open" },
        },
      ]);
    }
    case "twoTanksTwoSelectors":
      return twoTanks(job);
    case "threeTanks":
      return threeTanks(job);
    case "twinEngine":
      return twinEngine(job);
    case "truck":
      return truck(job);
    case "heater":
      return heater(job);
  }
}
