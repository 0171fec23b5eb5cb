/** Hands at a plan and what they set in motion: holes they open, pumps, bulbs and levers. */
import { clearanceOf } from "../hydraulics/clearance";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { LineUp } from "../plan/types";
import type { Curve } from "../solver/newton";

/** A hole opened by hand, m2. Common practice, no source: a union half a turn loose, a bleed screw, a lid lifted off its seat. */
export const openingM2 = { joint: 12e-6, screw: 4e-6, lid: 200e-6 } as const;
/** What hands do now: what is open and how far, which pumps run, what is squeezed, where a jug is held. */
export interface Hands {
  /** Area of the hole at a face of the mesh, m2. */
  readonly open: ReadonlyMap<number, number>;
  /** Parts that run though the line-up has them off, or are worked by hand. */
  readonly running: ReadonlySet<Id>;
  /** Vessels that a jug is poured into. */
  readonly pouring: ReadonlySet<Id>;
  /** Tanks, or the can in their place, lifted so high, m. */
  readonly lifted?: ReadonlyMap<Id, number>;
  /** Consumers that draw, and how much of their full load. */
  readonly drawing: ReadonlyMap<Id, number>;
}
export const IDLE_HANDS: Hands = {
  open: new Map(),
  running: new Set(),
  pouring: new Set(),
  drawing: new Map(),
};

/** What moves fuel by strokes or by a curve, and what it does on air. */
export interface Mover {
  readonly curve: Curve;
  readonly freeM3S: number;
  readonly clearance: number;
}

/** The primer lever of a lift pump is a mover of its own. */
export const leverOf = (id: Id): Id => `${id}~lever`;

/** Strokes of a hand a second, and the most pressure it makes. Common practice, no source. */
export const handStrokesS = { bulb: 0.7, lever: 1 } as const;
const HAND_RISE_PA = 40_000;
/** What a primer lever on a lift pump moves. Common practice, no source. */
const LEVER_STROKE_M3 = 8e-6;

const handMover = (strokeM3: number, strokesS: number, clearance: number): Mover => ({
  curve: { flow: new Float64Array([0, strokeM3 * strokesS]), drop: new Float64Array([-HAND_RISE_PA, 0]) },
  freeM3S: strokeM3 * strokesS,
  clearance,
});

/** What moves fuel, by part, with its link: pumps, what doses, bulbs. */
export const moverLinks = ({ links }: Network): Map<Id, number> =>
  new Map(
    links.flatMap((link, i): [Id, number][] =>
      link.kind === "pump" || link.kind === "dosing" || (link.kind === "check" && link.part.kind === "bulb")
        ? [[link.part.id, i]]
        : [],
    ),
  );

/** What a pump still gives of flow and rise. */
function worn({ curve, freeM3S, clearance }: Mover, share: number): Mover {
  if (share === 1) return { curve, freeM3S, clearance };
  const scaled = { flow: curve.flow.map((q) => share * q), drop: curve.drop.map((pa) => share * pa) };
  return { curve: scaled, freeM3S: share * freeM3S, clearance };
}

/**
 * What moves over a link as the hands and the line-up have it; null where nothing does.
 * @param pumpShare what pumps give of their curves
 */
export function moverOf(
  { links, shape }: Network,
  i: number,
  lineUp: LineUp,
  { running }: Pick<Hands, "running">,
  pumpShare: number,
): Mover | null {
  const link = links[i];
  if (!link) return null;
  if (link.kind === "pump") {
    const { part } = link;
    if (part.kind === "liftPump" && running.has(leverOf(part.id)))
      return handMover(LEVER_STROKE_M3, handStrokesS.lever, clearanceOf(part));
    if (!running.has(part.id) && lineUp.pumps[part.id] !== "on") return null;
    const curve = shape.curves[shape.curve[i] as number];
    return curve
      ? worn({ curve, freeM3S: curve.flow.at(-1) ?? 0, clearance: clearanceOf(part) }, pumpShare)
      : null;
  }
  if (link.kind === "dosing") {
    const { part } = link;
    if (!running.has(part.id) && lineUp.pumps[part.id] !== "on") return null;
    const freeM3S = part.strokeM3 * part.mostHz;
    return {
      curve: { flow: new Float64Array([0, freeM3S]), drop: new Float64Array([-part.mostRisePa, 0]) },
      freeM3S,
      clearance: clearanceOf(part),
    };
  }
  if (link.kind === "check" && link.part.kind === "bulb" && running.has(link.part.id))
    return handMover(link.part.strokeM3, handStrokesS.bulb, clearanceOf(link.part));
  return null;
}
