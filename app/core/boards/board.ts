/** A board of the plan: what hangs on it, where that is in the vehicle, and what it is judged by. */

import {
  type Arranged,
  type ArrangedPart,
  type BoardHose,
  type BoardTask,
  type HoseAt,
  judgeBoard,
  portAt,
} from "../fit/arrange";
import type { BoardPort, Laid } from "../fit/laying";
import type { Hung, Solid } from "../fit/panel";
import type { Part } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import { partsOf, placedPorts, portKey } from "../plan/ports";
import type { Board, BoardObstacle, Facing, Job, Plan, PortRef, QuarterTurn, Run } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { bodySizeOf, envelopeOnBoard } from "./envelope";

/** Parts on a board stand at least this far apart. Common practice, no source: 1/4 in. */
export const GAP_M = 0.006;
/** Hoses that come over the edge side by side. Common practice, no source. */
const BESIDE_M = 0.012;

interface Directions {
  /** To the right and out of the board, in the vehicle. */
  right: readonly [number, number];
  out: readonly [number, number];
}

/** Whoever stands before a board that looks aft looks forward: starboard is to the right. */
const directions: Readonly<Record<Facing, Directions>> = {
  aft: { right: [0, -1], out: [-1, 0] },
  forward: { right: [0, 1], out: [1, 0] },
  port: { right: [-1, 0], out: [0, 1] },
  starboard: { right: [1, 0], out: [0, -1] },
};

/** A place on the board, and how far out of it, in the vehicle. */
export function fromBoard({ corner, facing }: Board, xM: number, zM: number, outM: number): Position {
  const { right, out } = directions[facing];
  return {
    xM: corner.xM + right[0] * xM + out[0] * outM,
    yM: corner.yM + right[1] * xM + out[1] * outM,
    zM: corner.zM + zM,
  };
}

/** A place in the vehicle, as whoever stands before the board sees it. */
export function ontoBoard(
  { corner, facing }: Board,
  { xM, yM, zM }: Position,
): { xM: number; zM: number; outM: number } {
  const { right, out } = directions[facing];
  const [dx, dy] = [xM - corner.xM, yM - corner.yM];
  return { xM: dx * right[0] + dy * right[1], zM: zM - corner.zM, outM: dx * out[0] + dy * out[1] };
}

/** Width and height as it hangs. */
const across = (part: Part, turn: number): [number, number] => {
  const { widthM, heightM } = bodySizeOf(part);
  return turn % 2 === 0 ? [widthM, heightM] : [heightM, widthM];
};

/** Where the middle of a part's body is when it hangs with its low left corner there. */
export function positionAt(board: Board, part: Part, { x, z, t }: Hung): Position {
  const [w, h] = across(part, t);
  return fromBoard(board, x + w / 2, z + h / 2, bodySizeOf(part).depthM / 2);
}

/** The low left corner of a part that hangs. */
export function cornerOf(board: Board, part: Part, turn: QuarterTurn): Hung {
  const { xM, zM } = ontoBoard(board, part.position);
  const [w, h] = across(part, turn);
  return { x: xM - w / 2, z: zM - h / 2, t: turn };
}

const obstacleBox = ({ id, xM, zM, widthM, heightM, fromM, toM }: BoardObstacle): Solid & { id: Id } => ({
  id,
  x: xM,
  z: zM,
  w: widthM,
  h: heightM,
  y0: fromM,
  y1: toM,
});

export interface BoardLayout {
  board: Board;
  parts: readonly Part[];
  task: BoardTask;
  at: readonly Hung[];
}

/** Where a hose that leaves the board passes its edge: on the side that its other end lies beyond most. */
function edgeTowards(board: Board, far: Position, depthM: number): BoardPort {
  const { beyondM: m, widthM, heightM } = board;
  const { xM, zM } = ontoBoard(board, far);
  const past = [xM - widthM, zM - heightM, -xM, -zM];
  const dir = past.indexOf(Math.max(...past));
  const within = (value: number, most: number) => Math.min(most, Math.max(0, value));
  const y = depthM;
  switch (dir) {
    case 0:
      return { x: widthM + m, z: within(zM, heightM), dir: 2, y };
    case 1:
      return { x: within(xM, widthM), z: heightM + m, dir: 3, y };
    case 2:
      return { x: -m, z: within(zM, heightM), dir: 0, y };
    default:
      return { x: within(xM, widthM), z: -m, dir: 1, y };
  }
}

/** Hoses over one edge lie side by side, in the order that they come in. */
function sideBySide(edges: { port: BoardPort; outerM: number }[]): void {
  for (const dir of [0, 1, 2, 3]) {
    const along = dir % 2 === 0 ? ("z" as const) : ("x" as const);
    const here = edges.filter(({ port }) => port.dir === dir).sort((a, b) => a.port[along] - b.port[along]);
    here.forEach(({ port, outerM }, i) => {
      const before = here[i - 1];
      if (before)
        port[along] = Math.max(port[along], before.port[along] + (before.outerM + outerM) / 2 + BESIDE_M);
    });
  }
}

/** Least radius of a hose to its centre line: sheets give it to the inside. */
export const centreRadiusM = ({ product }: Run): number => product.leastRadiusM + product.outerDiameterM / 2;

/** A board with what hangs on it, as it hangs; null where there is no such board. */
export function boardLayout(job: Job, plan: Plan, boardId: Id): BoardLayout | null {
  const board = plan.boards?.find(({ id }) => id === boardId);
  if (!board) return null;
  const mounted = plan.mounted ?? {};
  const parts = partsOf(job, plan).filter(({ id }) => mounted[id]?.boardId === boardId);
  const number = new Map(parts.map(({ id }, i) => [id, i]));
  const at = parts.map((part) => cornerOf(board, part, mounted[part.id]?.turn ?? 0));
  const envelopes: ArrangedPart[] = parts.map((part) =>
    envelopeOnBoard(part, mounted[part.id]?.pinned ?? false),
  );
  const ports = placedPorts(job, plan);
  const edges: { port: BoardPort; outerM: number }[] = [];
  const endOf = (ref: PortRef): HoseAt | null => {
    const part = number.get(ref.part);
    return part === undefined ? null : { part, port: ref.port };
  };
  const hoses = plan.runs.flatMap((run): BoardHose[] => {
    const [from, to] = [endOf(run.from), endOf(run.to)];
    if (!from && !to) return [];
    const edge = (here: HoseAt, far: PortRef): HoseAt => {
      const outerM = run.product.outerDiameterM;
      const hung =
        "part" in here
          ? portAt(envelopes[here.part] as ArrangedPart, at[here.part] as Hung, here.port)
          : null;
      const position = ports.get(portKey(far))?.position ?? board.corner;
      const port = edgeTowards(board, position, hung?.y ?? outerM);
      edges.push({ port, outerM });
      return { edge: port };
    };
    return [
      {
        id: run.id,
        from: from ?? edge(to as HoseAt, run.from),
        to: to ?? edge(from as HoseAt, run.to),
        radiusM: centreRadiusM(run),
        outerM: run.product.outerDiameterM,
      },
    ];
  });
  sideBySide(edges);
  const low = Math.max(
    0,
    ...envelopes.flatMap(({ bodies }) => bodies.map(({ y1 }) => (y1 < LOW_PART_M ? y1 : 0))),
  );
  const widest = Math.max(0, ...hoses.map(({ outerM }) => outerM));
  return {
    board,
    parts,
    at,
    task: {
      board: { x: 0, z: 0, w: board.widthM, h: board.heightM },
      opening: {
        x: board.opening.xM,
        z: board.opening.zM,
        w: board.opening.widthM,
        h: board.opening.heightM,
      },
      hoseArea: {
        x: -board.beyondM,
        z: -board.beyondM,
        w: board.widthM + 2 * board.beyondM,
        h: board.heightM + 2 * board.beyondM,
      },
      parts: envelopes,
      hoses,
      screwed: plan.joints.flatMap(({ id, from, to }) => {
        const [a, b] = [number.get(from.part), number.get(to.part)];
        if (a === undefined || b === undefined) return [];
        return [{ id, a: { part: a, port: from.port }, b: { part: b, port: to.port } }];
      }),
      lanes: low > 0 ? [low + widest / 2 + GAP_M] : [],
      elbows: true,
      gapM: GAP_M,
      obstacles: board.obstacles.map(obstacleBox),
    },
  };
}

/** Parts lower than this a hose may pass in front of. Common practice, no source. */
const LOW_PART_M = 0.1;

export interface BoardJudged extends Arranged {
  layout: BoardLayout;
  /** Bodies that stand out farther than the lid is, m. */
  tooDeep: readonly { id: Id; byM: number }[];
}

/** A board judged as it hangs, or with its parts moved as a hand has them. */
export function boardJudged(layout: BoardLayout, at: readonly Hung[] = layout.at): BoardJudged {
  const { task, board } = layout;
  return {
    ...judgeBoard(task, at),
    layout,
    tooDeep: task.parts.flatMap(({ id, bodies }) => {
      const byM = Math.max(...bodies.map(({ y1 }) => y1)) - board.opening.lidM;
      return byM > 0 ? [{ id, byM }] : [];
    }),
  };
}

export interface LidHeld {
  valve: string;
  position: string;
  /** How far its handle stands over the shut lid; negative where the lid clears it. */
  byM: number;
  /** Line-ups that leave it so. */
  lineUps: readonly string[];
}

/** Valves whose handle was measured, against the lid: one that keeps it open cannot be forgotten so. */
export function lidsHeld({ board }: BoardLayout, plan: Plan): LidHeld[] {
  return plan.parts.flatMap((part): LidHeld[] => {
    const mounted = plan.mounted?.[part.id];
    if (mounted?.boardId !== board.id || !mounted.handle) return [];
    if (part.kind !== "selector" && part.kind !== "twoWay") return [];
    const { position: at, standsOutM } = mounted.handle;
    const position = positionsOf(part).find(({ id }) => id === at);
    if (!position) return [];
    const lineUps = plan.lineUps.flatMap(({ name, valves }) => {
      const setting = valves[part.id];
      return setting?.kind === "position" && setting.position === at ? [name] : [];
    });
    return [{ valve: part.name, position: position.name, byM: standsOutM - board.opening.lidM, lineUps }];
  });
}

/** Things that are wrong on a board, counted. */
export const wrongsOf = ({ clashes, hoses, apart, tooDeep }: BoardJudged): number =>
  clashes.length + hoses.filter(({ through }) => through.length > 0).length + apart.length + tooDeep.length;

/** Names of parts that are pinned where they cannot be, whatever hangs beside them. */
export const stuckOf = ({ clashes, layout: { task, parts } }: BoardJudged): string[] => {
  const wrong = new Set(
    clashes.flatMap(({ a, code }) => (code === "outOfReach" || code === "offBoard" ? [a] : [])),
  );
  return parts.filter(({ id }, i) => task.parts[i]?.isPinned && wrong.has(id)).map(({ name }) => name);
};

/** A hose of a board beside the run of the plan that it is. */
export interface BoardRun {
  run: Run;
  laid: Laid;
  /** Both its ends are on the board, so that its length there is its length. */
  isWhole: boolean;
  /** As the plan has it measured; null where it is traced. */
  planM: number | null;
  /** Whole, with a way, and other than the plan has it by more than a rule tells: what it would be, m. */
  otherM: number | null;
  blockedBy: string[];
  leavesRoom: boolean;
}

const RULE_M = 0.005;

/** Hoses of a board, one by one. */
export function boardRuns(plan: Plan, { hoses, layout: { task, parts } }: BoardJudged): BoardRun[] {
  return task.hoses.flatMap(({ id, from, to }, i): BoardRun[] => {
    const laid = hoses[i];
    const run = plan.runs.find((one) => one.id === id);
    if (!laid || !run) return [];
    const isWhole = "part" in from && "part" in to;
    const planM = run.route.kind === "measured" ? run.route.lengthM : null;
    const isOther =
      isWhole && laid.through.length === 0 && planM !== null && Math.abs(planM - laid.lengthM) > RULE_M;
    return [
      {
        run,
        laid,
        isWhole,
        planM,
        otherM: isOther ? laid.lengthM : null,
        blockedBy: laid.through.flatMap((n) => parts[n]?.name ?? []),
        leavesRoom: laid.through.includes(-1),
      },
    ];
  });
}

/** Every board of a plan, judged as it hangs. */
export const boardsJudged = (job: Job, plan: Plan): BoardJudged[] =>
  (plan.boards ?? []).flatMap(({ id }) => {
    const layout = boardLayout(job, plan, id);
    return layout ? [boardJudged(layout)] : [];
  });
