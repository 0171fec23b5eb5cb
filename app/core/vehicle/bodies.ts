/** Parts as bodies in the vehicle: of their size, turned as they hang, in the rough form of their kind. */
import { fromBoard } from "../boards/board";
import { bodySizeOf } from "../boards/envelope";
import type { Part, PartKind } from "../kinds/index";
import type { Board, Plan } from "../plan/types";
import { boxFaces, type Corner, type Face, laidAlong, movedBy, roundFaces } from "../tanks/faces";

type Form = "box" | "bowl" | "barrel" | "dial" | "lever" | "motor" | "bulb";

const forms: Readonly<Partial<Record<PartKind, Form>>> = {
  filter: "bowl",
  pumpFilterUnit: "bowl",
  strainer: "bowl",
  swirlPot: "bowl",
  liftPump: "barrel",
  transferPump: "barrel",
  inTankPump: "barrel",
  dosingPump: "barrel",
  heater: "barrel",
  cooler: "barrel",
  fuelHeater: "barrel",
  gauge: "dial",
  thermometer: "dial",
  flowMeter: "dial",
  twoWay: "lever",
  selector: "lever",
  bulb: "bulb",
  engine: "motor",
  generator: "motor",
};

/** By eye, for the drawing alone: a body of a width (x), a height (z) and a depth (y) about its own middle, seen from the front. */
function formed(form: Form, w: number, h: number, d: number): Face[] {
  const box = (x0: number, x1: number, y: number, z0: number, z1: number) =>
    boxFaces([x0 * w, -y * d, z0 * h], [x1 * w, y * d, z1 * h]);
  switch (form) {
    case "box":
      return box(-0.5, 0.5, 0.5, -0.5, 0.5);
    case "bowl": {
      // A head that the lines meet, and a round bowl that hangs from it.
      const r = 0.42 * Math.min(w, d);
      return [
        ...box(-0.5, 0.5, 0.5, 0.2, 0.5),
        ...movedBy(laidAlong(roundFaces(r, 0.7 * h), "z"), [0, 0, -0.5 * h]),
      ];
    }
    case "barrel":
      return movedBy(laidAlong(roundFaces(0.5 * Math.min(h, d), w), "x"), [-0.5 * w, 0, 0]);
    case "bulb":
      return movedBy(laidAlong(roundFaces(0.5 * Math.min(h, d), 0.5 * w, 0.25 * w), "x"), [-0.25 * w, 0, 0]);
    case "dial":
      return movedBy(laidAlong(roundFaces(0.5 * Math.min(w, h), d), "y"), [0, -0.5 * d, 0]);
    case "lever":
      return [
        ...box(-0.5, 0.5, 0.35, -0.5, 0.1),
        ...box(-0.08, 0.08, 0.1, 0.1, 0.34),
        ...box(-0.08, 0.5, 0.1, 0.34, 0.5),
      ];
    case "motor": {
      // Block, pan under it, head over it, and the round housing of its flywheel at the back.
      const housing = laidAlong(roundFaces(0.42 * Math.min(h, d), 0.14 * w), "x");
      return [
        ...box(-0.36, 0.46, 0.4, -0.22, 0.24),
        ...box(-0.3, 0.4, 0.24, -0.5, -0.22),
        ...box(-0.32, 0.42, 0.28, 0.24, 0.5),
        ...movedBy(housing, [-0.5 * w, 0, 0]),
      ];
    }
  }
}

type Hanging = Pick<Plan, "mounted" | "boards">;

/** Where a place in the frame of a part's own body is in the vehicle. One that hangs on no board stands along it. */
function standing(part: Part, { mounted, boards }: Hanging): (corner: Corner) => Corner {
  const { xM, yM, zM } = part.position;
  const hung = mounted?.[part.id];
  const board = boards?.find(({ id }) => id === hung?.boardId);
  if (!hung || !board) return ([x, y, z]) => [xM + x, yM + y, zM + z];
  const quarter = (hung.turn * Math.PI) / 2;
  const [c, s] = [Math.round(Math.cos(quarter)), Math.round(Math.sin(quarter))];
  const on = onBoard({ ...board, corner: part.position });
  return ([x, y, z]) => on([c * x - s * z, y, s * x + c * z]);
}

/** Along a board, into it and up, in the vehicle: so that nothing is mirrored. */
const onBoard =
  (board: Board) =>
  ([along, inwards, up]: Corner): Corner => {
    const { xM, yM, zM } = fromBoard(board, along, up, -inwards);
    return [xM, yM, zM];
  };

/** Faces of a part's body, job frame. */
export function partSolid(part: Part, plan: Hanging): Face[] {
  const { widthM, heightM, depthM } = bodySizeOf(part);
  const at = standing(part, plan);
  return formed(forms[part.kind] ?? "box", widthM, heightM, depthM).map((face) => face.map(at));
}

/** The corners of the box round a part's body, job frame. */
export function bodyBox(part: Part, plan: Hanging): Corner[] {
  const { widthM, heightM, depthM } = bodySizeOf(part);
  const halves = [-0.5, 0.5];
  return halves
    .flatMap((x) => halves.flatMap((y) => halves.map((z): Corner => [x * widthM, y * depthM, z * heightM])))
    .map(standing(part, plan));
}

/** As thick as ply is: common practice, no source. */
const BOARD_M = 0.012;

/** A board as a thin sheet behind what hangs on it, job frame. */
export const boardSolid = (board: Board): Face[] =>
  boxFaces([0, 0, 0], [board.widthM, BOARD_M, board.heightM]).map((face) => face.map(onBoard(board)));
