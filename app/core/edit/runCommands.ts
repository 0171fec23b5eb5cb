import type { Id } from "../kinds/record";
import { newRun } from "../plan/blank";
import { type PlacedPort, portKey, samePort } from "../plan/ports";
import type { Job, Plan, PortRef, Run, TankLine } from "../plan/types";
import { type CommandOf, CommandRefused, type Handlers } from "./command";
import { found, runOf, tankOf } from "./find";
import { drop, portAt, refuseTaken, straightHose } from "./hoses";
import { editRecord } from "./record";

/** What a port does with fuel by its role: gives it, takes it, or either. */
const senses: Readonly<Record<PlacedPort["role"], "gives" | "takes" | "either">> = {
  in: "takes",
  out: "gives",
  either: "either",
  branch: "either",
  feed: "takes",
  return: "gives",
  outlet: "gives",
};

/** A hose goes by the flow, from whichever end it was joined. A tank's return takes what an engine's gives. */
function byTheFlow(job: Job, plan: Plan, { from, to }: { from: PortRef; to: PortRef }) {
  const isTank = ({ part }: PortRef) => job.tanks.some(({ id }) => id === part);
  const sense = (ref: PortRef) => {
    const { role } = portAt(job, plan, ref);
    return isTank(ref) && role === "return" ? "takes" : senses[role];
  };
  const [a, b] = [sense(from), sense(to)];
  const isBackward = (a === "takes" && b !== "takes") || (b === "gives" && a !== "gives");
  return isBackward ? { from: to, to: from } : { from, to };
}

function connect(job: Job, plan: Plan, command: CommandOf<"connect" | "join">): void {
  const { id } = command;
  const { from, to } = command.name === "connect" ? byTheFlow(job, plan, command) : command;
  if (samePort(from, to)) throw new CommandRefused("samePort", portKey(from));
  refuseTaken(plan, from);
  refuseTaken(plan, to);
  if (command.name === "join") {
    portAt(job, plan, from);
    portAt(job, plan, to);
    plan.joints.push({ id, from, to });
    return;
  }
  const bore = Math.min(portAt(job, plan, from).boreM, portAt(job, plan, to).boreM);
  plan.runs.push(newRun(id, from, to, straightHose(job, plan, from, to), bore, job.kind));
}

/** A hose of another bore has the wall that it had: its outside follows where nobody said it. */
function editHose(hose: Run | TankLine, command: CommandOf<"editRun" | "editTankLine">): void {
  const wallM = hose.product.outerDiameterM - hose.boreM;
  editRecord<object>(hose, command);
  const { boreM, product } = command.change as Partial<Run>;
  if (boreM !== undefined && product === undefined && wallM > 0)
    hose.product.outerDiameterM = hose.boreM + wallM;
}

const tankLineOf = (plan: Plan, id: Id): TankLine =>
  found(
    plan.tankLines?.find((one) => one.id === id),
    id,
  );

export const runCommands: Handlers<
  "connect" | "join" | "editRun" | "disconnect" | "addTankLine" | "editTankLine" | "removeTankLine"
> = {
  addTankLine: {
    run: (job, plan, { line }) => {
      tankOf(job, line.tank);
      plan.tankLines = [...(plan.tankLines ?? []), line];
    },
  },
  editTankLine: {
    record: (_, plan, { id }) => tankLineOf(plan, id),
    run: (_, plan, command) => editHose(tankLineOf(plan, command.id), command),
  },
  removeTankLine: {
    run: (_, plan, { id }) => {
      tankLineOf(plan, id);
      plan.tankLines = plan.tankLines?.filter((one) => one.id !== id) ?? [];
    },
  },
  connect: { run: connect },
  join: { run: connect },
  editRun: {
    record: (_, plan, { id }) => runOf(plan, id),
    run: (_, plan, command) => editHose(runOf(plan, command.id), command),
  },
  disconnect: { run: (_, plan, { id }) => drop(plan, id) },
};
