/**
 * Curve of a lift pump: pressure rise over flow through two or more points, straight between them,
 * the last straight carried on past free flow (there the pump holds the flow back), held to the relief's setting.
 * Flow ascending, rise descending. Source: definition; the points are the maker's or the user's.
 */
export interface PumpPoint {
  readonly flowM3S: number;
  readonly risePa: number;
}

/** With the relief open the rise still falls a little with flow: this keeps the law invertible. Fraction of relief over free flow. */
const RELIEF_DROOP = 0.02;

/** Points of the curve with the relief applied, flow ascending from 0. */
export function effectiveCurve(points: readonly PumpPoint[], reliefPa?: number): PumpPoint[] {
  const sorted = [...points].sort((a, b) => a.flowM3S - b.flowM3S);
  const first = sorted[0];
  const last = sorted[sorted.length - 1];
  if (!first || !last || sorted.length < 2) throw new Error("a pump curve needs two points");
  const curve = first.flowM3S > 0 ? [{ flowM3S: 0, risePa: riseAt(sorted, 0) }, ...sorted] : sorted;
  if (reliefPa === undefined || (curve[0]?.risePa ?? 0) <= reliefPa) return curve;
  const opens = flowAt(curve, reliefPa);
  const droop = Math.min(1, opens / last.flowM3S) * RELIEF_DROOP * reliefPa;
  const beyond = curve.filter((point) => point.flowM3S > opens * (1 + 1e-9));
  return [{ flowM3S: 0, risePa: reliefPa + droop }, { flowM3S: opens, risePa: reliefPa }, ...beyond];
}

function segment(curve: readonly PumpPoint[], at: (point: PumpPoint) => boolean): [PumpPoint, PumpPoint] {
  const index = curve.findIndex((point, i) => i > 0 && at(point));
  const end = index < 0 ? curve.length - 1 : index;
  return [curve[end - 1] as PumpPoint, curve[end] as PumpPoint];
}

/** Rise at a flow, Pa. */
export function riseAt(curve: readonly PumpPoint[], flowM3S: number): number {
  const [a, b] = segment(curve, (point) => point.flowM3S >= flowM3S);
  return a.risePa + ((b.risePa - a.risePa) * (flowM3S - a.flowM3S)) / (b.flowM3S - a.flowM3S);
}

/** Flow at a rise, m3/s. */
export function flowAt(curve: readonly PumpPoint[], risePa: number): number {
  const [a, b] = segment(curve, (point) => point.risePa <= risePa);
  return a.flowM3S + ((b.flowM3S - a.flowM3S) * (risePa - a.risePa)) / (b.risePa - a.risePa);
}

/** The curve with one more point to be filled in, halfway on its last straight: until it is, the pump gives what it gave. */
export function withPoint(curve: readonly PumpPoint[]): PumpPoint[] {
  const [a, b] = curve.slice(-2) as [PumpPoint, PumpPoint];
  const middle = { flowM3S: (a.flowM3S + b.flowM3S) / 2, risePa: (a.risePa + b.risePa) / 2 };
  return [...curve.slice(0, -1), middle, b];
}
