/** Shapes that cannot be a tank: each fault with its place under the tank. */
import type { SectionPoint, Tank, TankShape } from "../plan/types";
import { crossesItself, insetPolygon, polygonArea, signedArea } from "./polygon";
import { boundsOf } from "./shape";
import type { TankForm } from "./tank";

export interface ShapeFault {
  path: string;
  code:
    | "crossingSection"
    | "emptySection"
    | "sectionsOutOfOrder"
    | "cornersDiffer"
    | "sensesDiffer"
    | "unitSlip"
    | "wallTooThick"
    | "outsideTank"
    | "lowOverHigh";
  values?: Record<string, string | number>;
}

/** No fuel tank of a truck, boat or heater is longer: beyond it millimetres were typed as metres. */
export const LONGEST_TANK_M = 20;

function polygonFaults(points: readonly SectionPoint[], path: string): ShapeFault[] {
  if (crossesItself(points)) return [{ path, code: "crossingSection" }];
  if (!(polygonArea(points) > 0)) return [{ path, code: "emptySection" }];
  return [];
}

export function shapeFaults(shape: TankShape, path = "shape"): ShapeFault[] {
  const faults: ShapeFault[] = [];
  if (shape.kind === "prism") faults.push(...polygonFaults(shape.section, `${path}.section`));
  if (shape.kind === "loft") {
    const corners = shape.sections[0]?.polygon.length ?? 0;
    shape.sections.forEach(({ xM, polygon }, i) => {
      const at = `${path}.sections[${i}]`;
      const before = shape.sections[i - 1];
      faults.push(...polygonFaults(polygon, `${at}.polygon`));
      if (polygon.length !== corners)
        faults.push({
          path: `${at}.polygon`,
          code: "cornersDiffer",
          values: { corners: polygon.length, wanted: corners },
        });
      if (before && !(xM > before.xM)) faults.push({ path: `${at}.xM`, code: "sectionsOutOfOrder" });
      if (before && signedArea(before.polygon) * signedArea(polygon) < 0)
        faults.push({ path: `${at}.polygon`, code: "sensesDiffer" });
    });
  }
  for (const [low, high] of Object.values(boundsOf(shape)) as [number, number][]) {
    if (high - low > LONGEST_TANK_M)
      faults.push({ path, code: "unitSlip", values: { sizeM: high - low, mostM: LONGEST_TANK_M } });
  }
  return faults;
}

function wallFaults({ shape, wallM = 0 }: TankForm): ShapeFault[] {
  if (wallM === 0) return [];
  const fault: ShapeFault[] = [{ path: "wallM", code: "wallTooThick", values: { wallM } }];
  for (const [low, high] of Object.values(boundsOf(shape)) as [number, number][])
    if (!(high - low > 2 * wallM)) return fault;
  const sections =
    shape.kind === "prism"
      ? [shape.section]
      : shape.kind === "loft"
        ? shape.sections.map((s) => s.polygon)
        : [];
  const isBad = sections.some((points) => {
    const inside = insetPolygon(points, wallM);
    return signedArea(inside) * signedArea(points) <= 0 || crossesItself(inside);
  });
  return isBad ? fault : [];
}

/** Everything about one tank that cannot be: its shape, its wall, and what stands in it. */
export function checkTank(tank: Tank): ShapeFault[] {
  const faults = shapeFaults(tank.shape);
  if (faults.length > 0) return faults;
  faults.push(...wallFaults(tank));
  const { x, y, z } = boundsOf(tank.shape);
  const within = (at: { xM: number; yM: number }) =>
    at.xM >= x[0] && at.xM <= x[1] && at.yM >= y[0] && at.yM <= y[1];
  const boxes = [
    ...(tank.internals ?? []).map((box, i) => ({ box, path: `internals[${i}]` })),
    ...(tank.well ? [{ box: tank.well, path: "well" }] : []),
  ];
  for (const { box, path } of boxes) {
    const { low, high } = box;
    if (!(high.xM > low.xM && high.yM > low.yM && high.zM > low.zM))
      faults.push({ path, code: "lowOverHigh" });
    else if (!within(low) || !within(high) || low.zM < z[0] || high.zM > z[1])
      faults.push({ path, code: "outsideTank" });
  }
  if (tank.sump && !within(tank.sump)) faults.push({ path: "sump", code: "outsideTank" });
  if (tank.sounding && !within(tank.sounding)) faults.push({ path: "sounding", code: "outsideTank" });
  if (tank.sender && !(tank.sender.highM > tank.sender.lowM))
    faults.push({ path: "sender", code: "lowOverHigh" });
  return faults;
}
