/** Templates of boards, plates and holes: what is drawn at true size, m, x to the right and z up from the board's low left corner. */
import type { ArrangedPart } from "../fit/arrange";
import { type Box, type Hung, placedIn, type Solid } from "../fit/panel";
import type { Opening, PlateHole } from "../plan/types";
import type { BoardJudged } from "./board";
import type { PassageHole } from "./passages";

export const templateLayers = [
  "BOARD",
  "OPENING",
  "PARTS",
  "SERVICE",
  "HOLES",
  "CENTRES",
  "TEXT",
  "RULER",
] as const;
export type TemplateLayer = (typeof templateLayers)[number];

export type TemplateShape =
  | { layer: TemplateLayer; kind: "line"; from: readonly [number, number]; to: readonly [number, number] }
  | { layer: TemplateLayer; kind: "circle"; at: readonly [number, number]; diameterM: number }
  | { layer: TemplateLayer; kind: "text"; at: readonly [number, number]; text: string; heightM: number };

export interface Template {
  name: string;
  widthM: number;
  heightM: number;
  shapes: readonly TemplateShape[];
  /** Screw holes, for whoever marks them by tape. */
  holes: readonly { part: string; xM: number; zM: number; diameterM: number }[];
}

/** Two M6 screws by which a body hangs, a quarter in from each side. Generic, assumed until the part is in the hand. */
const SCREW_M = 0.0065;
const TEXT_M = 0.005;
const RULER_M = 0.1;
const CROSS_M = 0.006;

const rectangle = (layer: TemplateLayer, { x, z, w, h }: Box): TemplateShape[] =>
  (
    [
      [x, z, x + w, z],
      [x + w, z, x + w, z + h],
      [x + w, z + h, x, z + h],
      [x, z + h, x, z],
    ] as const
  ).map(([x0, z0, x1, z1]) => ({ layer, kind: "line", from: [x0, z0], to: [x1, z1] }));

function screwsOf(part: ArrangedPart, at: Hung): { xM: number; zM: number }[] {
  const body = placedIn(part.bodies[0] as Solid, part, at);
  const zM = body.z + body.h * (at.t % 2 === 0 ? 0.8 : 0.5);
  return [0.25, 0.75].map((share) => ({ xM: body.x + body.w * share, zM }));
}

/**
 * @param nameOf a part's name as it is written on the template
 */
export function boardTemplate(judged: BoardJudged, nameOf: (id: string) => string): Template {
  const { layout, at } = judged;
  const { task, board } = layout;
  const holes = task.parts.flatMap((part, i) =>
    screwsOf(part, at[i] as Hung).map((screw) => ({ part: nameOf(part.id), ...screw, diameterM: SCREW_M })),
  );
  const shapes: TemplateShape[] = [
    ...rectangle("BOARD", task.board),
    ...rectangle("OPENING", task.opening),
    ...task.parts.flatMap((part, i): TemplateShape[] => {
      const corner = at[i] as Hung;
      const body = placedIn(part.bodies[0] as Solid, part, corner);
      return [
        ...part.bodies.flatMap((one) => rectangle("PARTS", placedIn(one, part, corner))),
        ...(part.service ?? []).flatMap((one) => rectangle("SERVICE", placedIn(one, part, corner))),
        {
          layer: "TEXT",
          kind: "text",
          at: [body.x + 0.004, body.z + 0.004],
          text: nameOf(part.id),
          heightM: TEXT_M,
        },
      ];
    }),
    ...holes.flatMap(({ xM, zM, diameterM }) => cutHole(xM, zM, diameterM)),
    ...rulerAt(0, -0.02),
  ];
  return { name: board.name, widthM: board.widthM, heightM: board.heightM, shapes, holes };
}

/** A hole to be cut and the cross of its middle. */
const cutHole = (xM: number, zM: number, diameterM: number): TemplateShape[] => [
  { layer: "HOLES", kind: "circle", at: [xM, zM], diameterM },
  { layer: "CENTRES", kind: "line", from: [xM - CROSS_M, zM], to: [xM + CROSS_M, zM] },
  { layer: "CENTRES", kind: "line", from: [xM, zM - CROSS_M], to: [xM, zM + CROSS_M] },
];

const ofPart = (part: string, xM: number, zM: number, diameterM: number) => ({ part, xM, zM, diameterM });

/**
 * A tank's plate from outside: its edges, every hole, and the flange that covers it.
 * @param useOf what a hole is for, as it is written on the template
 */
export function plateTemplate(
  name: string,
  { aM, bM, holes }: Opening,
  useOf: (hole: PlateHole) => string,
): Template {
  const shapes = holes.flatMap((hole): TemplateShape[] => [
    ...cutHole(hole.aM, hole.bM, hole.diameterM),
    { layer: "PARTS", kind: "circle", at: [hole.aM, hole.bM], diameterM: hole.flangeM },
    {
      layer: "TEXT",
      kind: "text",
      at: [hole.aM + CROSS_M, hole.bM + CROSS_M],
      text: useOf(hole),
      heightM: TEXT_M,
    },
  ]);
  return {
    name,
    widthM: aM,
    heightM: bM,
    shapes: [...rectangle("BOARD", { x: 0, z: 0, w: aM, h: bM }), ...shapes, ...rulerAt(0, -0.02)],
    holes: holes.map((hole) => ofPart(useOf(hole), hole.aM, hole.bM, hole.diameterM)),
  };
}

/** Room round a hole on its template. */
const ROUND_M = 0.03;

/** A hole in a floor or wall from the two edges it is measured from; null where it is not told, or no saw cuts it. */
export function passageTemplate({ passage, saw, passM }: PassageHole): Template | null {
  const { fromEdgeM, name } = passage;
  if (!fromEdgeM || !saw.saw) return null;
  const [xM, zM] = fromEdgeM;
  const { diameterM } = saw.saw;
  const [widthM, heightM] = [xM + diameterM / 2 + ROUND_M, zM + diameterM / 2 + ROUND_M];
  return {
    name,
    widthM,
    heightM,
    shapes: [
      { layer: "BOARD", kind: "line", from: [0, 0], to: [widthM, 0] },
      { layer: "BOARD", kind: "line", from: [0, 0], to: [0, heightM] },
      ...cutHole(xM, zM, diameterM),
      { layer: "PARTS", kind: "circle", at: [xM, zM], diameterM: passM },
      {
        layer: "TEXT",
        kind: "text",
        at: [xM + CROSS_M, zM + CROSS_M],
        text: `${name}, ${saw.saw.name}`,
        heightM: TEXT_M,
      },
      ...rulerAt(0, -0.02),
    ],
    holes: [ofPart(name, xM, zM, diameterM)],
  };
}

/** A hundred millimetres with a tick each ten: measured on the print before anything is marked by it. */
export function rulerAt(x: number, z: number): TemplateShape[] {
  const ticks = Array.from({ length: 11 }, (_, i): TemplateShape => {
    const at = x + (i * RULER_M) / 10;
    return { layer: "RULER", kind: "line", from: [at, z], to: [at, z + (i % 5 === 0 ? 0.005 : 0.003)] };
  });
  return [
    { layer: "RULER", kind: "line", from: [x, z], to: [x + RULER_M, z] },
    ...ticks,
    { layer: "RULER", kind: "text", at: [x + RULER_M + 0.003, z], text: "100 mm", heightM: 0.004 },
  ];
}

export interface Tile {
  column: number;
  row: number;
  /** Low left corner of what it shows. */
  xM: number;
  zM: number;
}

export interface Tiling {
  tiles: readonly Tile[];
  columns: number;
  rows: number;
  /** What of a page prints, m. */
  widthM: number;
  heightM: number;
  /** Where tiles meet: crosses that lie on each other when they are glued. */
  crosses: readonly (readonly [number, number])[];
}

const MARGIN_M = 0.01;
const OVERLAP_M = 0.01;

/** Room round the board for the ruler and names. */
const AROUND_M = 0.03;

/** Pages that a template is printed on: each overlaps the next by ten millimetres. */
export function tilingOf(
  { widthM, heightM }: Pick<Template, "widthM" | "heightM">,
  pageM: readonly [number, number],
): Tiling {
  const [wide, high] = [pageM[0] - 2 * MARGIN_M, pageM[1] - 2 * MARGIN_M];
  const [stepX, stepZ] = [wide - OVERLAP_M, high - OVERLAP_M];
  const count = (all: number, step: number) =>
    Math.max(1, Math.ceil((all + 2 * AROUND_M - OVERLAP_M) / step));
  const [columns, rows] = [count(widthM, stepX), count(heightM, stepZ)];
  const tiles = Array.from({ length: columns * rows }, (_, i): Tile => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    return { column, row, xM: -AROUND_M + column * stepX, zM: -AROUND_M + row * stepZ };
  });
  const seams = (n: number, step: number) =>
    Array.from({ length: n - 1 }, (_, i) => -AROUND_M + (i + 1) * step + OVERLAP_M / 2);
  const middles = (n: number, step: number, all: number) =>
    Array.from({ length: n }, (_, i) => -AROUND_M + i * step + all / 2);
  const crosses = [
    ...seams(columns, stepX).flatMap((x) => middles(rows, stepZ, high).map((z) => [x, z] as const)),
    ...seams(rows, stepZ).flatMap((z) => middles(columns, stepX, wide).map((x) => [x, z] as const)),
  ];
  return { tiles, columns, rows, widthM: wide, heightM: high, crosses };
}
