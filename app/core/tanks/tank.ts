/** A tank as fuel sees it: the inside of its wall, its sump, less what stands in it; at any attitude. */
import type { Position } from "../kinds/record";
import type { Tank } from "../plan/types";
import { type Attitude, fittedAttitude, type Up, upOf } from "./attitude";
import { shellFloorUnder } from "./floor";
import { insetPolygon } from "./polygon";
import { RoundSolid } from "./round";
import { boxSolid, RuledSolid } from "./ruled";
import { boundsOf, isPlainPrism, levelOfPrismM } from "./shape";
import { type Below, nothingBelow, type Solid, type Tilted, type VolumeBelow } from "./solid";

/** What of a tank its volume hangs on. */
export type TankForm = Pick<Tank, "shape" | "wallM" | "internals" | "sump" | "installed">;

interface Piece {
  solid: Solid;
  sign: 1 | -1;
}

function shellOf({ shape, wallM: w = 0 }: TankForm): Solid {
  switch (shape.kind) {
    case "box":
      return boxSolid(w, w, w, shape.lengthM - 2 * w, shape.widthM - 2 * w, shape.heightM - 2 * w);
    case "prism": {
      const polygon = w > 0 ? insetPolygon(shape.section, w) : shape.section;
      return new RuledSolid([
        { xM: w, polygon },
        { xM: shape.lengthM - w, polygon },
      ]);
    }
    case "loft": {
      const last = shape.sections.length - 1;
      return new RuledSolid(
        shape.sections.map(({ xM, polygon }, i) => ({
          xM: xM + (i === 0 ? w : i === last ? -w : 0),
          polygon: w > 0 ? insetPolygon(polygon, w) : polygon,
        })),
      );
    }
    case "cylinder": {
      const { axis, diameterM, lengthM, endDepthM = 0 } = shape;
      const r = diameterM / 2;
      const start = endDepthM > 0 ? 0 : w;
      const at = (name: typeof axis) => (name === axis ? start : r);
      return new RoundSolid({
        axis,
        radiusM: r - w,
        lengthM: lengthM - 2 * start,
        endDepthM: Math.max(0, endDepthM - (endDepthM > 0 ? w : 0)),
        centre: [at("x"), at("y"), at("z")],
      });
    }
  }
}

function piecesOf(form: TankForm): Piece[] {
  const pieces: Piece[] = [{ solid: shellOf(form), sign: 1 }];
  if (form.sump) {
    const { xM, yM, diameterM, depthM } = form.sump;
    const floor = shellFloorUnder(form, xM, yM);
    pieces.push({
      sign: 1,
      solid: new RoundSolid({
        axis: "z",
        radiusM: diameterM / 2,
        lengthM: depthM,
        endDepthM: 0,
        centre: [xM, yM, floor - depthM],
      }),
    });
  }
  for (const { low, high } of form.internals ?? [])
    pieces.push({
      sign: -1,
      solid: boxSolid(low.xM, low.yM, low.zM, high.xM - low.xM, high.yM - low.yM, high.zM - low.zM),
    });
  return pieces;
}

/** A root is held when it stands this near, m: a hundredth of a micron. */
const LEVEL_TOLERANCE_M = 1e-9;
const MOST_STEPS = 100;

/** A tank held at one attitude. Offsets are heights along the true vertical over the tank's origin. */
export class TiltedTank {
  readonly up: Up;
  readonly low: number;
  readonly high: number;
  private readonly pieces: { tilted: Tilted; sign: 1 | -1 }[];
  private readonly sum: Below = nothingBelow();
  private capacity = Number.NaN;

  constructor(form: TankForm, attitude: Attitude) {
    this.up = upOf(attitude);
    this.pieces = piecesOf(form).map(({ solid, sign }) => ({ tilted: solid.tilt(this.up), sign }));
    const solid = this.pieces.filter(({ sign }) => sign > 0);
    this.low = Math.min(...solid.map(({ tilted }) => tilted.low));
    this.high = Math.max(...solid.map(({ tilted }) => tilted.high));
  }

  get capacityM3(): number {
    if (Number.isNaN(this.capacity)) this.capacity = this.volumeM3(this.high);
    return this.capacity;
  }

  below(offset: number): Below {
    const sum = nothingBelow();
    for (const { tilted, sign } of this.pieces) tilted.addBelow(offset, sign, sum);
    return sum;
  }

  volumeM3(offset: number): number {
    return this.volumeBelow(offset).volumeM3;
  }

  /** Volume and surface alone; the same record at each call. */
  private volumeBelow(offset: number): VolumeBelow {
    const { sum } = this;
    sum.volumeM3 = 0;
    sum.surfaceM2 = 0;
    for (const { tilted, sign } of this.pieces) {
      if (tilted.addVolume) tilted.addVolume(offset, sign, sum);
      else tilted.addBelow(offset, sign, sum);
    }
    return sum;
  }

  /** Offset of the surface that stands at a level along the tank's own z over a place in x and y. */
  offsetAt(xM: number, yM: number, levelM: number): number {
    return this.up[0] * xM + this.up[1] * yM + this.up[2] * levelM;
  }

  levelAt(xM: number, yM: number, offset: number): number {
    return (offset - this.up[0] * xM - this.up[1] * yM) / this.up[2];
  }

  /** Offset of the surface over a volume: Newton held between bounds that close in. Empty gives the lowest point, overfull the highest. */
  offsetOfVolume(volumeM3: number): number {
    if (!(volumeM3 > 0)) return this.low;
    if (!(volumeM3 < this.capacityM3)) return this.high;
    let [low, high] = [this.low, this.high];
    let offset = low + ((high - low) * volumeM3) / this.capacityM3;
    for (let step = 0; step < MOST_STEPS; step++) {
      const { volumeM3: here, surfaceM2 } = this.volumeBelow(offset);
      const miss = here - volumeM3;
      if (miss === 0) return offset;
      if (miss > 0) high = offset;
      else low = offset;
      const newton = offset - miss / surfaceM2;
      const next = newton > low && newton < high ? newton : (low + high) / 2;
      if (Math.abs(next - offset) < LEVEL_TOLERANCE_M) return next;
      offset = next;
    }
    return offset;
  }
}

const levelTanks = new WeakMap<TankForm["shape"], { form: TankForm; tilted: TiltedTank }>();

/** The tank as it is fitted in a vehicle that stands level; kept while its form is the same. */
export function standingLevel(tank: TankForm): TiltedTank {
  const known = levelTanks.get(tank.shape);
  if (
    known &&
    known.form.wallM === tank.wallM &&
    known.form.internals === tank.internals &&
    known.form.sump === tank.sump &&
    known.form.installed === tank.installed
  )
    return known.tilted;
  const tilted = new TiltedTank(tank, fittedAttitude(tank));
  levelTanks.set(tank.shape, { form: tank, tilted });
  return tilted;
}

export const capacityM3 = (tank: TankForm): number => standingLevel(tank).capacityM3;

/** Volume up to a height, tank frame, standing level. */
export const volumeAtLevelM3 = (tank: TankForm, levelM: number): number =>
  standingLevel(tank).volumeM3(levelM);

/** Level of a volume, tank frame, standing level: empty gives the lowest point, overfull the top. */
export const levelOfVolumeM = (tank: Tank, volumeM3: number): number =>
  isPlainPrism(tank) ? levelOfPrismM(tank.shape, volumeM3) : standingLevel(tank).offsetOfVolume(volumeM3);

export interface Heights {
  lowM: number;
  highM: number;
}

/** Lowest and highest point inside, tank frame, sump included. */
export const heightsOf = (tank: TankForm): Heights => {
  const { low, high } = standingLevel(tank);
  return { lowM: low, highM: high };
};

/** What stands under the lowest mouth of a tank that is drawn from, m3: no outlet reaches it; nothing where it has none. */
export function underMouthsM3(tank: Tank): number {
  const mouths = tank.ports.flatMap(({ role, mouth }) => (role === "outlet" ? [mouth.zM] : []));
  return mouths.length === 0 ? 0 : volumeAtLevelM3(tank, Math.max(heightsOf(tank).lowM, Math.min(...mouths)));
}

/** Where a tank is sounded: at its sounding point, or in the middle. */
export function soundingOf(tank: Pick<Tank, "shape" | "sounding">): { xM: number; yM: number } {
  if (tank.sounding) return tank.sounding;
  const { x, y } = boundsOf(tank.shape);
  return { xM: (x[0] + x[1]) / 2, yM: (y[0] + y[1]) / 2 };
}

/** Is a place under the surface that stands at an offset? */
export const isWet = (up: Up, at: Position, offset: number): boolean =>
  up[0] * at.xM + up[1] * at.yM + up[2] * at.zM < offset;
