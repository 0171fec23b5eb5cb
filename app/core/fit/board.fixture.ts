/** A made-up board of 0.46 m behind an opening of 0.40 m: two separators, two pumps, two selectors, gauge and tee; mm in, m out. */
import type { ArrangedPart, BoardHose, BoardTask, HoseAt } from "./arrange";
import type { BoardPort } from "./laying";
import type { Hung, Service, Solid } from "./panel";

const MM = 1e-3;
type Six = readonly [x: number, z: number, w: number, h: number, y0: number, y1: number];
const solid = ([x, z, w, h, y0, y1]: Six): Solid => ({
  x: x * MM,
  z: z * MM,
  w: w * MM,
  h: h * MM,
  y0: y0 * MM,
  y1: y1 * MM,
});
const room = (kind: string, six: Six): Service => ({ kind, ...solid(six) });
const port = (x: number, z: number, dir: number, y: number): BoardPort => ({
  x: x * MM,
  z: z * MM,
  dir,
  y: y * MM,
});

const anyTurn = [0, 1, 2, 3];
const separator = (id: string): ArrangedPart => ({
  id,
  w: 0.095,
  h: 0.225,
  turns: [0],
  serviced: true,
  bodies: [solid([0, 0, 95, 225, 0, 110])],
  service: [room("drop", [5, -75, 85, 75, 0, 110]), room("driver", [40, 195, 15, 15, 110, 250])],
  ports: { in: port(0, 195, 2, 45), out: port(95, 195, 0, 45) },
});
const pump = (id: string): ArrangedPart => ({
  id,
  w: 0.07,
  h: 0.125,
  turns: anyTurn,
  bodies: [solid([0, 0, 70, 125, 0, 70])],
  ports: { in: port(35, 0, 3, 35), out: port(35, 125, 1, 35) },
});
const selector = (id: string): ArrangedPart => ({
  id,
  w: 0.08,
  h: 0.08,
  turns: anyTurn,
  serviced: true,
  bodies: [solid([0, 0, 80, 80, 0, 55])],
  service: [room("swing", [-15, -15, 110, 110, 55, 95])],
  ports: { c: port(40, 0, 3, 28), w1: port(0, 40, 2, 28), w2: port(80, 40, 0, 28) },
});

const parts: ArrangedPart[] = [
  separator("sep1"),
  separator("sep2"),
  pump("prime"),
  pump("lift"),
  selector("selT"),
  selector("selF"),
  {
    id: "vac",
    w: 0.06,
    h: 0.085,
    turns: anyTurn,
    bodies: [solid([0, 0, 60, 30, 0, 34]), solid([13, 30, 34, 55, 0, 34])],
    ports: { a: port(0, 15, 2, 17), b: port(60, 15, 0, 17) },
  },
  {
    id: "teeJ",
    w: 0.06,
    h: 0.045,
    turns: anyTurn,
    bodies: [solid([0, 0, 60, 45, 0, 30])],
    ports: { a: port(0, 15, 2, 15), b: port(60, 15, 0, 15), c: port(30, 45, 1, 15) },
  },
];

const end = (text: string): HoseAt => {
  const [id, name = ""] = text.split(".");
  return { part: parts.findIndex((one) => one.id === id), port: name };
};
const edges: Record<string, HoseAt> = {
  tank1: { edge: port(-80, 100, 0, 30) },
  tank2: { edge: port(-80, 180, 0, 30) },
  engine: { edge: port(540, 300, 2, 30) },
};
const ways = [
  ["tank1", "selT.w1"],
  ["tank2", "selT.w2"],
  ["selT.c", "selF.c"],
  ["selF.w1", "sep1.in"],
  ["selF.w2", "sep2.in"],
  ["sep1.out", "teeJ.a"],
  ["sep2.out", "teeJ.c"],
  ["teeJ.b", "vac.a"],
  ["vac.b", "prime.in"],
  ["prime.out", "lift.in"],
  ["lift.out", "engine"],
] as const;

/** With hose of 9.5 mm bore, R 76; of 12.7 mm, R 150 say, there is no room. */
export const exampleBoard = (radiusM = 0.076, outerM = 0.0175): BoardTask => ({
  board: { x: 0, z: 0, w: 0.46, h: 0.46 },
  opening: { x: 0.03, z: 0.03, w: 0.4, h: 0.4 },
  hoseArea: { x: -0.08, z: -0.08, w: 0.62, h: 0.62 },
  parts,
  hoses: ways.map(
    ([from, to], i): BoardHose => ({
      id: `hose${i + 1}`,
      from: edges[from] ?? end(from),
      to: edges[to] ?? end(to),
      radiusM,
      outerM,
    }),
  ),
  lanes: [0.084],
  elbows: true,
  gapM: 0.006,
});

/** All in one corner, as a newcomer has them. */
export const inACorner = (task: BoardTask): Hung[] => task.parts.map(() => ({ x: 0, z: 0, t: 0 }));
