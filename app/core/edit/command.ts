/** Every change to a job, as a small typed command, and what a family of them is written as. */
import type { End } from "../ends/ends";
import type { Engine, PlanPart } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import type { NewPartKind } from "../plan/blank";
import type {
  Board,
  ChosenChain,
  Conditions,
  Job,
  LineUp,
  Mounted,
  Plan,
  PortRef,
  QuarterTurn,
  Run,
  Tank,
  TankLine,
  ValveSetting,
} from "../plan/types";
import type { Change } from "./merge";

/** A change of a record's fields, and these as they were shown when it was made; without them it holds as it is. */
export interface Edit<C> {
  change: C;
  shown?: C | undefined;
}

export type Command =
  | { name: "rename"; jobName: string }
  | ({ name: "editJob" } & Edit<
      Change<
        Pick<
          Job,
          | "kind"
          | "note"
          | "units"
          | "schools"
          | "site"
          | "fuel"
          | "prices"
          | "panM3"
          | "outline"
          | "service"
          | "handOver"
        >
      >
    >)
  | { name: "addTank"; id: Id; tankName: string; position: Position }
  | ({ name: "editTank"; id: Id } & Edit<Change<Omit<Tank, "id">>>)
  | { name: "removeTank"; id: Id }
  | { name: "addEngine"; id: Id; engineName: string; position: Position; kind?: Engine["kind"] }
  | ({ name: "editEngine"; id: Id } & Edit<Change<Omit<Engine, "id" | "kind">>>)
  | { name: "removeEngine"; id: Id }
  | { name: "addPart"; id: Id; kind: NewPartKind; position: Position }
  | { name: "insertPart"; id: Id; kind: NewPartKind; runId: Id; newRunId: Id; at?: number }
  | { name: "replacePart"; id: Id; newId: Id; kind: NewPartKind }
  | ({ name: "editPart"; id: Id } & Edit<Record<string, unknown>>)
  /** A clean element in the place of the one that is in: what loaded the old one is out with it. `fittedOn` is an ISO day. */
  | { name: "changeElement"; id: Id; fittedOn: string }
  /** Figures and ends of a part that the shop keeps, put on one of its kind. */
  | { name: "takeFigures"; id: Id; part: PlanPart; ends: Record<Id, End> }
  | { name: "removePart"; id: Id }
  | { name: "turnPart"; id: Id }
  | { name: "connect"; id: Id; from: PortRef; to: PortRef }
  | { name: "join"; id: Id; from: PortRef; to: PortRef }
  | ({ name: "editRun"; id: Id } & Edit<Change<Omit<Run, "id" | "from" | "to">>>)
  | { name: "disconnect"; id: Id }
  | { name: "setValve"; lineUpId: Id; valveId: Id; setting: ValveSetting }
  | { name: "setBranch"; lineUpId: Id; valveId: Id; branch: Id; isOpen: boolean }
  | { name: "setPump"; lineUpId: Id; pumpId: Id; state: "on" | "off" }
  | { name: "setConsumer"; lineUpId: Id; consumerId: Id; state: "running" | "stopped" }
  | { name: "addLineUp"; id: Id; lineUpName: string }
  | { name: "duplicateLineUp"; id: Id; from: Id; lineUpName: string }
  | ({ name: "editLineUp"; id: Id } & Edit<Change<Pick<LineUp, "name" | "purpose" | "intendedTransfer">>>)
  | { name: "removeLineUp"; id: Id }
  | { name: "setConditions"; change: Change<Conditions> }
  | ({ name: "editPlan" } & Edit<
      Change<
        Pick<
          Plan,
          | "name"
          | "limits"
          | "serviceAllowanceM"
          | "duty"
          | "passages"
          | "awaited"
          | "deliveries"
          | "jointLooks"
          | "chains"
          | "tanksDown"
          | "covers"
        >
      >
    >)
  /** A copy of the current plan beside it, made current; the copy knows what it came from. */
  | { name: "forkPlan"; id: Id; planName: string }
  /** A whole plan beside the others, made current; tanks gain the ports it needs. */
  | { name: "addPlan"; plan: Plan; tanks: Tank[] }
  | { name: "choosePlan"; id: Id }
  | { name: "removePlan"; id: Id }
  /** What a port or a hose ends in; null where it is not known any more. */
  | { name: "setEnd"; id: Id; port: Id; end: End | null }
  /** Adapters for a joint, from the plan's port on; null takes the choice back. */
  | { name: "chooseChain"; key: string; chain: ChosenChain | null }
  | { name: "addTankLine"; line: TankLine }
  | ({ name: "editTankLine"; id: Id } & Edit<Change<Omit<TankLine, "id" | "tank" | "use">>>)
  | { name: "removeTankLine"; id: Id }
  | { name: "addBoard"; board: Board }
  | ({ name: "editBoard"; id: Id } & Edit<Change<Omit<Board, "id">>>)
  | { name: "removeBoard"; id: Id }
  /** Hangs parts on a board, or elsewhere on it: the middle of each body, and its turn. */
  | { name: "hang"; boardId: Id; at: { id: Id; position: Position; turn: QuarterTurn }[] }
  | { name: "pin"; id: Id; isPinned: boolean }
  | { name: "setHandle"; id: Id; handle: Mounted["handle"] | null }
  | { name: "takeDown"; id: Id }
  /** Stands something elsewhere on the drawing, cells. */
  | { name: "put"; id: Id; x: number; y: number }
  /** The drawing laid out anew. */
  | { name: "tidy"; places: NonNullable<Plan["places"]>; sides: NonNullable<Plan["sides"]> }
  /** One step of several, each on what the one before it left; all of them or none. */
  | { name: "several"; commands: Command[] }
  /** The whole job as a file has it. */
  | { name: "replaceJob"; job: Job };

/** What a command could not keep, for the user to see. */
export type Note =
  | {
      code: "endsNoLongerMeet" | "boresDiffer" | "portsLeftOpen" | "aboardLowered" | "measuredLost";
      ids: Id[];
    }
  /** What a part carried besides fuel, and nothing carries now. */
  | { code: "carriedLost"; ids: Id[]; lost: Carried[] };
export type Carried = "circuit" | "waterSensor" | "finest" | "ownReturn";

export class CommandRefused extends Error {
  constructor(
    readonly code: "noSuch" | "portTaken" | "samePort" | "lastPlan" | "badId" | "notAtTank" | "otherKind",
    readonly id: string,
  ) {
    super(`${code}: ${id}`);
  }
}

export type CommandOf<N extends Command["name"]> = Extract<Command, { name: N }>;

export interface Handler<C extends Command> {
  /** Changes the draft of the job; tells what it could not keep. */
  run(job: Job, plan: Plan, command: C): Note[] | undefined | void;
  /** The record that an edit changes, so that two edits of it can be merged. */
  record?(job: Job, plan: Plan, command: C): object;
}

/** A family of commands: one that is named and not written does not compile. */
export type Handlers<N extends Command["name"]> = { [K in N]: Handler<CommandOf<K>> };
