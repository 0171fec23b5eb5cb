/** A board, what stands round it, and what hangs on it. */
import type { Id, Position, Recorded } from "../kinds/record";

/** Something on a board, or before it, that is no part of the plan; seen from the front, from its low left corner. */
export interface BoardObstacle {
  id: Id;
  name: string;
  xM: number;
  zM: number;
  widthM: number;
  heightM: number;
  /** From the board out. */
  fromM: number;
  toM: number;
}

export type Facing = "forward" | "aft" | "port" | "starboard";

/** A board that parts hang on. Seen from the front: x to the right, z up, from its low left corner. */
export interface Board extends Recorded {
  /** Its low left corner in the vehicle, and which way its front looks. */
  corner: Position;
  facing: Facing;
  widthM: number;
  heightM: number;
  /** The hole that hands reach through, and how far out its lid is when it is shut. */
  opening: { xM: number; zM: number; widthM: number; heightM: number; lidM: number };
  /** How far hoses may run beyond its edge, behind the frame. */
  beyondM: number;
  obstacles: BoardObstacle[];
}

/** Quarter turns, anticlockwise seen from the front. */
export type QuarterTurn = 0 | 1 | 2 | 3;

export interface Mounted {
  boardId: Id;
  turn: QuarterTurn;
  pinned?: boolean;
  /** Where a valve's handle stands out farthest: the position it is set to, and how far from the board. */
  handle?: { position: Id; standsOutM: number };
}
