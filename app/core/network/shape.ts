/** Coefficients of links that do not change with a line-up: density and viscosity scale them. */
import type { Run } from "../plan/types";
import type { Curve } from "../solver/newton";
import { areaM2 } from "../units/bore";
import { linkKindOf } from "./links";
import type { Loss, NetworkLink } from "./links/link";
import { lossOfRun } from "./links/run";

export interface LinkShape {
  /** dp = mu * perViscosity * Q + rho * perDensity * Q|Q| + rho * perFriction * f Q|Q|; Re = reBore * |Q| / nu. */
  readonly perViscosity: Float64Array;
  readonly perDensity: Float64Array;
  readonly perFriction: Float64Array;
  readonly reBore: Float64Array;
  readonly relativeRoughness: Float64Array;
  readonly curve: Int16Array;
  readonly curves: readonly Curve[];
}

/** Writes what a line of one bore loses into a link's coefficients. */
function writeLoss(
  shape: LinkShape,
  i: number,
  { boreM, lengthM, roughnessM, overRe, constant }: Loss,
): void {
  const area = areaM2(boreM);
  const perVelocityHead = 1 / (2 * area * area);
  shape.perViscosity[i] = overRe / (2 * boreM * area);
  shape.perDensity[i] = (shape.perDensity[i] as number) + constant * perVelocityHead;
  shape.perFriction[i] = (lengthM / boreM) * perVelocityHead;
  shape.reBore[i] = boreM / area;
  shape.relativeRoughness[i] = roughnessM / boreM;
}

/**
 * Gives a run another bore in the network's own coefficients, its ends no wider than it, and back with its own: what a
 * sweep of sizes tries without building a network for each.
 */
export function tryBore(
  { links, shape }: { links: readonly NetworkLink[]; shape: LinkShape },
  index: number,
  boreM: number,
): void {
  const link = links[index];
  if (link?.kind !== "run") throw new Error(`link ${index} is no run`);
  const endBoreM = link.run.endBoreM?.map((end) =>
    boreM === link.run.boreM ? end : (end / link.run.boreM) * boreM,
  ) as Run["endBoreM"];
  shape.perDensity[index] = 0;
  writeLoss(
    shape,
    index,
    lossOfRun({ ...link, run: { ...link.run, boreM, ...(endBoreM ? { endBoreM } : {}) } }),
  );
}

export function shapeOf(links: readonly NetworkLink[]): LinkShape {
  const make = () => new Float64Array(links.length);
  const curve = new Int16Array(links.length).fill(-1);
  const curves: Curve[] = [];
  const shape: LinkShape = {
    perViscosity: make(),
    perDensity: make(),
    perFriction: make(),
    reBore: make().fill(1),
    relativeRoughness: make(),
    curve,
    curves,
  };
  links.forEach((link, i) => {
    const kind = linkKindOf(link);
    if (kind.curve) {
      curve[i] = curves.length;
      curves.push(kind.curve(link));
    }
    shape.perDensity[i] = kind.perDensity?.(link) ?? 0;
    const loss = kind.loss?.(link);
    if (loss) writeLoss(shape, i, loss);
  });
  return shape;
}
