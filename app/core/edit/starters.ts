/** Plans to start from: a job with a tank and an engine connected, or two tanks on two selectors. */
import { newJob } from "../plan/blank";
import { newId } from "../plan/ids";
import { currentPlan } from "../plan/ports";
import type { Id, Job, PortRef } from "../plan/types";
import { applyCommand, type Command } from "./commands";

export type StarterId = "nothing" | "oneTank" | "twoTanksTwoSelectors";
export const starterIds: readonly StarterId[] = ["nothing", "oneTank", "twoTanksTwoSelectors"];

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });
const ref = (part: Id, port: Id): PortRef => ({ part, port });

function build(job: Job, commands: readonly Command[]): Job {
  return commands.reduce((built, command) => applyCommand(built, command).job, job);
}

const connect = (from: PortRef, to: PortRef): Command => ({ name: "connect", id: newId(), from, to });

/** A separator, a gauge and a lift pump between `from` and the engine, in that order. */
function suctionSide(from: PortRef, engine: Id): Command[] {
  const [filter, gauge, pump] = [newId(), newId(), newId()];
  return [
    { name: "addPart", id: filter, kind: "filter", position: at(1.2, 0.3, 0.6) },
    { name: "addPart", id: gauge, kind: "gauge", position: at(1, 0.3, 0.6) },
    { name: "addPart", id: pump, kind: "liftPump", position: at(0.7, 0.2, 0.5) },
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
  }
}
