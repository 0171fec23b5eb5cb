/** What is known of a kind of part, in one place: see {@link Kind}. */
import type { FieldsOf, Own } from "./fields";
import type { PartLink } from "./links";
import type { BodySize, Id, PartBase } from "./record";

export type PortRole = "in" | "out" | "either" | "branch" | "feed" | "return";

export interface Port {
  id: Id;
  name: string;
  role: PortRole;
  /** The port that it is one place with: of a head with two of each. */
  sameAs?: Id;
}

export const port = (id: Id, name: string, role: PortRole): Port => ({ id, name, role });

/** Ports of what has an arrow, and of what lies in a line either way round. */
export const inOut: readonly Port[] = [port("in", "in", "in"), port("out", "out", "out")];
export const twoSides: readonly Port[] = [port("a", "one side", "either"), port("b", "other side", "either")];

/** What a part is to the rest of the application; a kind may be several. */
export type Family =
  /** Stands in a line-up at a position. */
  | "valve"
  /** Switched by a line-up. */
  | "powered"
  /** Pushes by a curve. */
  | "pushing"
  /** Holds an element that loads. */
  | "filtering"
  /** A drop rated at one flow. */
  | "rated"
  /** Through `a`-`b` without a loss worth counting: its ports are one place. */
  | "plain"
  /** Burns fuel: it belongs to the job, not to a plan. */
  | "consumer"
  /** Lets air in and out of a tank. */
  | "breather";

/** Room that work on a part needs beside its body: over it, under it, before it. */
export interface ServiceRoom {
  use: "lidLift" | "bowlDrop" | "drainCup" | "driver" | "swing";
  clearM: number;
}

export type Side = "left" | "right" | "top" | "foot";

/** Where a port comes out of the body, seen from the front: on which side, and how far along it from the left or the foot. */
export interface PortFace {
  side: Side;
  /** Share of the side. */
  at: number;
}

/** Generic size and weight of a kind: common practice, no source, assumed until measured. */
export interface Body extends BodySize {
  massKg: number;
  room: readonly ServiceRoom[];
  /** Works only as it is built to stand: a bowl hangs down. */
  isUpright?: boolean;
  /** Of ports that are not where most have them: in or one side on the left, out or other side on the right. */
  faces?: Readonly<Record<Id, PortFace>>;
}

/** What its ports are mostly made as. Common practice, no source; assumed until looked at. */
export type CommonEnd = "barb" | "pipeThread" | "machined" | "hose";

/** How the room inside fills: at once as fuel passes, from below to a head that holds air, or kept full by its overflow. */
export type Filling = "through" | "bowl" | "pot";

export interface Kind<P extends PartBase = PartBase> {
  /** Name of a blank part. */
  title: string;
  /** Code of what is wrong between its figures, each of them right by itself. */
  fault?(part: P): string | null;
  /** Ports of a blank part that differ from its own place and bore. */
  blankPorts?: PartBase["ports"];
  /** Bore of a blank part where it is not the common one. */
  boreM?: number;
  families: readonly Family[];
  /** Port that stands in the fuel where it is joined to a tank itself. */
  inTank?: Id;
  /** Flow through it has one right direction, cast on it. */
  hasArrow: boolean;
  fields: FieldsOf<Own<P>>;
  ports(part: P): readonly Port[];
  /** The two ports by which it is let into a hose; null where it cannot be. */
  through(part: P): readonly [Id, Id] | null;
  links(part: P): readonly PartLink[];
  /** Ports that are one place. */
  joined?: readonly Id[];
  /** Places inside it that no port shows. */
  inner?: readonly Id[];
  /** Fuel it holds, m3; null: what a line two bores long of its own bore holds. */
  volumeM3(part: P): number | null;
  filling: Filling;
  body: Body;
  end: CommonEnd;
}

/** Most parts in a line hold no more fuel than the line itself. */
export const heldInLine = { volumeM3: () => null, filling: "through" } as const;
export const inToOut = () => ["in", "out"] as const;
export const sideToSide = () => ["a", "b"] as const;
