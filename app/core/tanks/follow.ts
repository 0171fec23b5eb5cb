/** What stands in a tank by nobody's tape goes with its size: mouths, hose ends and the depth that a tube is cut by. */
import type { Position } from "../kinds/record";
import { isKnown } from "../plan/assumed";
import type { Tank, TankPort } from "../plan/types";
import { type Bounds, boundsOf } from "./shape";

type Range = readonly [number, number];
const spanOf = ([low, high]: Range) => high - low;

const scaled = (at: number, was: Range, is: Range): number =>
  is[0] + ((at - was[0]) / (spanOf(was) || 1)) * spanOf(is);

/** Nearer to which of its ends it stands, as far from there as it stood; where that is more than half way, by scale. */
function fromItsEnd(at: number, was: Range, is: Range): number {
  const [low, high] = [at - was[0], was[1] - at];
  const nearest = Math.min(low, high);
  if (nearest > spanOf(is) / 2) return scaled(at, was, is);
  return low <= high ? is[0] + low : is[1] - high;
}

function followed({ id, mouth, outside, ...rest }: TankPort, tank: Tank, was: Bounds, is: Bounds): TankPort {
  const place = (at: Position, which: "mouth" | "outside"): Position => {
    const stays = (axis: "xM" | "yM" | "zM") =>
      isKnown(tank.given, `ports.${id}`) || isKnown(tank.given, `ports.${id}.${which}.${axis}`);
    return {
      xM: stays("xM") ? at.xM : scaled(at.xM, was.x, is.x),
      yM: stays("yM") ? at.yM : scaled(at.yM, was.y, is.y),
      zM: stays("zM") ? at.zM : fromItsEnd(at.zM, was.z, is.z),
    };
  };
  return { ...rest, id, mouth: place(mouth, "mouth"), outside: place(outside, "outside") };
}

/**
 * Ports and the pickup's fit of a tank whose shape was changed. What was measured, or was changed with it, stays.
 * @param before the tank as it was
 * @param after as it is, with what it was changed to
 */
export function followingSize(before: Tank, after: Tank): Pick<Tank, "ports" | "pickupFit"> {
  const [was, is] = [boundsOf(before.shape), boundsOf(after.shape)];
  const then = new Map(before.ports.map((port) => [port.id, port]));
  const isMoved = (port: TankPort) => JSON.stringify(then.get(port.id)) !== JSON.stringify(port);
  const ports = after.ports.map((port) => (isMoved(port) ? port : followed(port, after, was, is)));
  const fit = after.pickupFit;
  if (!fit || isKnown(after.given, "pickupFit.depthM")) return { ports, ...(fit && { pickupFit: fit }) };
  const zOf = (list: readonly TankPort[]) => list.find(({ id }) => id === fit.portId)?.outside.zM ?? 0;
  const depthM = fit.depthM + zOf(ports) - zOf(after.ports);
  return { ports, pickupFit: { ...fit, depthM: depthM > 0 ? depthM : fit.depthM } };
}
