/** Hoses and joints as they are drawn: their way, and what the fuel in them does. */

import type { Placed } from "~/core/drawing/placed";
import { gaugeAtPort, type Passing, passingParts, returnLinks } from "~/core/hydraulics/derive";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Id } from "~/core/kinds/record";
import type { Network } from "~/core/network/network";
import { portKey } from "~/core/plan/ports";
import type { Joint, Run } from "~/core/plan/types";
import { areaM2 } from "~/core/units/bore";

export interface Point {
  x: number;
  y: number;
}

export type LineKind = "idle" | "vacuum" | "pressure" | "return";

export interface DrawnEdge {
  id: Id;
  /** A hose or tube; absent for a joint. */
  run: Run | undefined;
  d: string;
  kind: LineKind;
  /** Along the drawn direction (+1), against it (-1), or none. */
  sense: number;
  velocityMS: number;
  middle: Point | undefined;
}

/** Orthogonal way with rounded corners; where an end is held elsewhere, its first or last corner goes with it. */
export function edgePath(points: readonly Point[], start: Point, end: Point): string {
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last) return "";
  const from = { x: first.x + start.x, y: first.y + start.y };
  const to = { x: last.x + end.x, y: last.y + end.y };
  let middle = points.slice(1, -1).map((p) => ({ ...p }));
  if (middle.length === 0 && Math.abs(from.y - to.y) > 0.5) {
    const x = (from.x + to.x) / 2;
    middle = [
      { x, y: from.y },
      { x, y: to.y },
    ];
  } else if (middle.length > 0) {
    const follow = (corner: Point, was: Point, end: Point) => {
      // Level or upright as it comes in.
      if (Math.abs(corner.x - was.x) < Math.abs(corner.y - was.y)) corner.x = end.x;
      else corner.y = end.y;
    };
    follow(middle[0] as Point, first, from);
    follow(middle.at(-1) as Point, last, to);
  }
  const way = [from, ...middle, to];
  let d = `M${way[0]?.x} ${way[0]?.y}`;
  for (let i = 1; i < way.length - 1; i++) {
    const [a, b, c] = [way[i - 1], way[i], way[i + 1]] as [Point, Point, Point];
    const r = Math.min(7, Math.hypot(b.x - a.x, b.y - a.y) / 2, Math.hypot(c.x - b.x, c.y - b.y) / 2);
    const towards = (p: Point) => {
      const length = Math.hypot(p.x - b.x, p.y - b.y) || 1;
      return `${(b.x + ((p.x - b.x) / length) * r).toFixed(1)} ${(b.y + ((p.y - b.y) / length) * r).toFixed(1)}`;
    };
    d += `L${towards(a)}Q${b.x} ${b.y} ${towards(c)}`;
  }
  return `${d}L${to.x} ${to.y}`;
}

/** Middle of the longest stretch of a drawn way. */
function middleOf(points: readonly Point[]): Point | undefined {
  let best: Point | undefined;
  let most = -1;
  points.forEach((b, i) => {
    const a = points[i - 1];
    const length = a ? Math.hypot(b.x - a.x, b.y - a.y) : -1;
    if (!a || length <= most) return;
    most = length;
    best = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  });
  return best;
}

/** Which of a connection's two ports its drawn way starts from. */
function nearestPort(placed: Placed, start: Point | undefined, a: string, b: string): string {
  const off = (key: string) => {
    const port = placed.ports.get(key);
    return port && start ? Math.hypot(port.x - start.x, port.y - start.y) : Infinity;
  };
  return off(a) <= off(b) ? a : b;
}

const isRun = (item: Run | Joint): item is Run => "boreM" in item;

type EdgeState = Pick<DrawnEdge, "kind" | "sense" | "velocityMS">;
const AT_REST: EdgeState = { kind: "idle", sense: 0, velocityMS: 0 };

type Solved = Extract<LineUpVerdict["result"], { outcome: "solved" }>;

/** What is known of a solved line-up once, for all its hoses. */
interface Flowing {
  result: Solved;
  returns: Uint8Array;
  passing: ReadonlyMap<Id, Passing>;
  partIds: ReadonlySet<Id>;
}

function flowingOf(verdict: LineUpVerdict | null): Flowing | null {
  if (verdict?.result.outcome !== "solved") return null;
  const { result } = verdict;
  return {
    result,
    returns: returnLinks(result),
    passing: passingParts(result),
    partIds: new Set(result.network.plan.parts.map(({ id }) => id)),
  };
}

/** A joint carries what passes both its parts, or the one that is screwed to a tank or a consumer. */
function jointFlow(ends: readonly Id[], passing: Flowing["passing"]): number {
  return ends.length > 0 ? Math.min(...ends.map((id) => passing.get(id)?.flowM3S ?? 0)) : 0;
}

function stateOf(item: Run | Joint, sourceKey: string, flowing: Flowing | null): EdgeState {
  if (!flowing) return AT_REST;
  const { result, returns, passing, partIds } = flowing;
  const index = result.network.linkOf.get(item.id);
  const ends = [item.from.part, item.to.part].filter((id) => partIds.has(id));
  const q = index === undefined ? jointFlow(ends, passing) : (result.flow[index] as number);
  if (q === 0) return AT_REST;
  const gauge = (gaugeAtPort(result, portKey(item.from)) + gaugeAtPort(result, portKey(item.to))) / 2;
  const isReturn = index === undefined ? ends.every((id) => passing.get(id)?.isReturn) : returns[index] === 1;
  const velocityMS = isRun(item) ? Math.abs(q) / areaM2(item.boreM) : 0;
  return {
    kind: isReturn ? "return" : gauge < 0 ? "vacuum" : "pressure",
    sense: index === undefined ? 0 : (portKey(item.from) === sourceKey ? 1 : -1) * Math.sign(q),
    velocityMS,
  };
}

/** What the fuel in each hose does, by its id: for a drawing that has ways of its own. */
export function lineKinds({ plan }: Network, verdict: LineUpVerdict | null): Map<Id, LineKind> {
  const flowing = flowingOf(verdict);
  return new Map(plan.runs.map((run) => [run.id, stateOf(run, portKey(run.from), flowing).kind]));
}

/** Every hose and joint that has a way on the drawing; `shift` is how far the hand holds a part from where it stands. */
export function drawnEdges(
  { plan }: Network,
  placed: Placed,
  verdict: LineUpVerdict | null,
  shift: (id: Id) => Point = () => ({ x: 0, y: 0 }),
): DrawnEdge[] {
  const flowing = flowingOf(verdict);
  return [...plan.runs, ...plan.joints].flatMap((item): DrawnEdge[] => {
    const points = placed.edges.get(item.id);
    if (!points) return [];
    const source = nearestPort(placed, points[0], portKey(item.from), portKey(item.to));
    const [a, b] =
      source === portKey(item.from) ? [item.from.part, item.to.part] : [item.to.part, item.from.part];
    return [
      {
        id: item.id,
        run: isRun(item) ? item : undefined,
        d: edgePath(points, shift(a), shift(b)),
        ...stateOf(item, source, flowing),
        middle: middleOf(points),
      },
    ];
  });
}

/** A way along which marks move, in drawing units a second. */
export interface FlowMark {
  d: string;
  speed: number;
  box: { left: number; top: number; right: number; bottom: number };
}

/** A mark a period: 24 units, passed in 0.9 s at 1 m/s, and in 6 s however slowly the fuel goes. */
export const MARK_UNITS = 24;
const PERIOD_AT_1_M_S = 0.9;
const LONGEST_PERIOD_S = 6;

/** The marks of a line-up: on every hose that fuel moves in, and on no other. */
export function flowMarks(network: Network, placed: Placed, verdict: LineUpVerdict | null): FlowMark[] {
  return drawnEdges(network, placed, verdict)
    .filter(({ sense }) => sense !== 0)
    .map(({ id, d, sense, velocityMS }) => {
      const numbers = [...d.matchAll(/-?[\d.]+/g)].map(Number);
      const xs = numbers.filter((_, i) => i % 2 === 0);
      const ys = numbers.filter((_, i) => i % 2 === 1);
      if (xs.length === 0) throw new Error(`edge ${id} has no way`);
      const periodS = Math.min(LONGEST_PERIOD_S, PERIOD_AT_1_M_S / Math.max(0.05, velocityMS));
      return {
        d,
        speed: (sense * MARK_UNITS) / periodS,
        box: { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) },
      };
    });
}
