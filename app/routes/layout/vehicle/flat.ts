/** The vehicle laid flat: where a place stands in each view, what a body looks like there, which names have room. */
import type { Id, Position } from "~/core/kinds/record";
import { placeAlong } from "~/core/plan/along";
import type { Face } from "~/core/tanks/faces";
import type { Body, LaidRun } from "./scene";

export type Axis = "xM" | "yM" | "zM";
const axes: readonly Axis[] = ["xM", "yM", "zM"];

export interface Aspect {
  id: "side" | "stern" | "plan";
  across: Axis;
  up: Axis;
  /** +1 where the axis points up on the screen. */
  sign: 1 | -1;
  /** Which way the eye looks: what lies farther along it is drawn first. */
  towards: (place: Position) => number;
}

/** Side and plan look with forward to the left, one over the other; beside the side stands the view from behind. */
export const aspects: Readonly<Record<Aspect["id"], Aspect>> = {
  side: { id: "side", across: "xM", up: "zM", sign: 1, towards: ({ yM }) => -yM },
  stern: { id: "stern", across: "yM", up: "zM", sign: 1, towards: ({ xM }) => xM },
  plan: { id: "plan", across: "xM", up: "yM", sign: -1, towards: ({ zM }) => -zM },
};

/** What the views share: the same place has the same height or width in each. */
export interface Frame {
  pxPerM: number;
  middle: Record<Axis, number>;
  size: Record<Axis, number>;
}

/** Of two views over one another, and what is left free round what is shown. */
export const HEIGHT_PX = 500;
export const PAD_PX = 30;
/** A flat plan is drawn as if it were this high. */
const LEAST_EXTENT_M = 0.3;
/** Middle and extent of everything, and the scale at which all views of it hold, side by side or stacked. */
export function framed(all: readonly Position[], widthPx: number, isNarrow: boolean): Frame {
  const low: Record<Axis, number> = { xM: Infinity, yM: Infinity, zM: Infinity };
  const high: Record<Axis, number> = { xM: -Infinity, yM: -Infinity, zM: -Infinity };
  for (const point of all)
    for (const axis of axes) {
      low[axis] = Math.min(low[axis], point[axis]);
      high[axis] = Math.max(high[axis], point[axis]);
    }
  const by = (of: (axis: Axis) => number) =>
    ({ xM: of("xM"), yM: of("yM"), zM: of("zM") }) satisfies Record<Axis, number>;
  const size = by((axis) => (all.length > 0 ? Math.max(LEAST_EXTENT_M, high[axis] - low[axis]) : 1));
  const middle = by((axis) => (all.length > 0 ? (low[axis] + high[axis]) / 2 : 0));
  const across = isNarrow ? Math.max(size.xM, size.yM) : size.xM + size.yM;
  const pads = isNarrow ? 2 : 4;
  return {
    size,
    middle,
    pxPerM: Math.min((widthPx - pads * PAD_PX) / across, (HEIGHT_PX - 4 * PAD_PX) / (size.yM + size.zM)),
  };
}

export type Place = (point: Position) => readonly [number, number];

/** Where places stand in a view of a size, px from its upper left corner. */
export const placer =
  ({ across, up, sign }: Aspect, { pxPerM, middle }: Frame, widthPx: number, heightPx: number): Place =>
  (point) => [
    widthPx / 2 + (middle[across] - point[across]) * pxPerM,
    heightPx / 2 + sign * (middle[up] - point[up]) * pxPerM,
  ];

/** A face that shows less is seen from its edge. */
const EDGE_ON_PX2 = 0.02;

/** All faces of a body as one way, each the same way round, so that together they fill its silhouette. */
export function silhouette(faces: readonly Face[], place: Place): string {
  let way = "";
  for (const face of faces) {
    const points = face.map(([xM, yM, zM]) => place({ xM, yM, zM }));
    const area = points.reduce((sum, [x, y], i) => {
      const [x2, y2] = points[(i + 1) % points.length] as readonly [number, number];
      return sum + x * y2 - x2 * y;
    }, 0);
    if (Math.abs(area) < EDGE_ON_PX2) continue;
    const turned = area < 0 ? points.toReversed() : points;
    way += `M${turned.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`;
  }
  return way;
}

/** A body as one view shows it. */
export interface SeenBody {
  body: Body;
  d: string;
  /** How far along the look its middle lies, m. */
  depthM: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

function seenBody(body: Body, aspect: Aspect, place: Place): SeenBody {
  const seen: SeenBody = {
    body,
    d: silhouette(body.faces, place),
    depthM: 0,
    left: Infinity,
    right: -Infinity,
    top: Infinity,
    bottom: -Infinity,
  };
  let corners = 0;
  for (const face of body.faces)
    for (const [xM, yM, zM] of face) {
      const [x, y] = place({ xM, yM, zM });
      seen.left = Math.min(seen.left, x);
      seen.right = Math.max(seen.right, x);
      seen.top = Math.min(seen.top, y);
      seen.bottom = Math.max(seen.bottom, y);
      seen.depthM += aspect.towards({ xM, yM, zM });
      corners += 1;
    }
  seen.depthM /= Math.max(1, corners);
  return seen;
}

/** The vehicle's own outline, and what stands in it, the farthest first. */
export function seenBodies(
  bodies: readonly Body[],
  aspect: Aspect,
  place: Place,
): { outline: SeenBody[]; solids: SeenBody[] } {
  const isOutline = ({ is }: Body) => is === "shell" || is === "frame" || is === "wheel";
  const seen = (own: readonly Body[]) => own.map((body) => seenBody(body, aspect, place));
  return {
    outline: seen(bodies.filter(isOutline)),
    solids: seen(bodies.filter((body) => !isOutline(body))).sort((a, b) => b.depthM - a.depthM),
  };
}

/** A line of text by its middle. */
export interface Text {
  name: string;
  x: number;
  y: number;
}
/** Of the names' type, 12 px high: measured. */
export const LETTER_PX = 6.4;
const LINE_PX = 13;
/** A name stands so far over what it names, or its foot so far under it. */
const [OVER_PX, UNDER_PX] = [5, 14];
/** Under what the view itself is called. */
const FIRST_LINE_PX = 34;

/** Names over what they name, or under it, where no nearer one stands; the farther ones go without. */
export function named(wanted: readonly SeenBody[], taken: readonly Text[]): (Text & { id: Id })[] {
  const put: (Text & { id: Id })[] = [];
  for (const { body, left, right, top, bottom } of wanted.toReversed()) {
    const { id, name } = body;
    if (id === undefined || name === undefined) continue;
    const x = (left + right) / 2;
    const isFree = (y: number) =>
      y >= FIRST_LINE_PX &&
      [...taken, ...put].every(
        (other) =>
          Math.abs(other.y - y) > LINE_PX ||
          Math.abs(other.x - x) > ((other.name.length + name.length) / 2) * LETTER_PX,
      );
    const y = [top - OVER_PX, bottom + UNDER_PX].find(isFree);
    if (y !== undefined) put.push({ id, name, x, y });
  }
  return put;
}

/** By what something is gone to by keys: bodies by their middle, lines by the middle of their way, px. */
export function middlesOf(
  solids: readonly SeenBody[],
  lines: readonly LaidRun[],
  place: Place,
): Map<Id, { x: number; y: number }> {
  const middles = new Map<Id, { x: number; y: number }>();
  for (const { body, left, right, top, bottom } of solids)
    if (body.id !== undefined) middles.set(body.id, { x: (left + right) / 2, y: (top + bottom) / 2 });
  for (const { run, points } of lines) {
    const [x, y] = place(placeAlong(points, 0.5));
    middles.set(run.id, { x, y });
  }
  return middles;
}
