/** The pressure line in pieces by what the fuel does there, and the bands behind it. */
import type { KeelScale, PlacedLeg } from "./scale";

const isVacuum = (leg: PlacedLeg, i: number) =>
  (leg.points[i]?.gaugePa ?? 0) < 0 && (leg.points[i + 1]?.gaugePa ?? 0) <= 0;

/** Straight pieces of the pressure line by what the fuel does there. */
export function pieces({
  legs,
  y,
  zeroY,
}: KeelScale): { d: string; kind: "pressure" | "vacuum" | "return"; key: string }[] {
  return legs.flatMap((leg) =>
    leg.points.slice(0, -1).flatMap((a, i) => {
      const b = leg.points[i + 1];
      if (!b || !Number.isFinite(a.gaugePa) || !Number.isFinite(b.gaugePa)) return [];
      const key = `${leg.leg.id}-${i}`;
      const line = (x1: number, y1: number, x2: number, y2: number) =>
        `M${x1.toFixed(1)} ${y1.toFixed(1)}L${x2.toFixed(1)} ${y2.toFixed(1)}`;
      const kindOf = (pa: number) => (leg.leg.side === "return" ? "return" : pa < 0 ? "vacuum" : "pressure");
      if (a.gaugePa * b.gaugePa < 0) {
        const x0 = a.x + ((b.x - a.x) * a.gaugePa) / (a.gaugePa - b.gaugePa);
        return [
          { key: `${key}a`, d: line(a.x, y(a.gaugePa), x0, zeroY), kind: kindOf(a.gaugePa) },
          { key: `${key}b`, d: line(x0, zeroY, b.x, y(b.gaugePa)), kind: kindOf(b.gaugePa) },
        ];
      }
      return [
        {
          key,
          d: line(a.x, y(a.gaugePa), b.x, y(b.gaugePa)),
          kind: isVacuum(leg, i) && leg.leg.side === "feed" ? "vacuum" : kindOf(a.gaugePa),
        },
      ];
    }),
  );
}

export const strokes = {
  pressure: { stroke: "var(--pressure)", strokeWidth: 2.5 },
  vacuum: { stroke: "var(--vacuum)", strokeWidth: 2.5 },
  return: { stroke: "var(--back)", strokeWidth: 2.5, strokeDasharray: "7 4" },
} as const;

export function Bands({
  scale,
  left,
  right,
  limitY,
  airY,
}: {
  scale: KeelScale;
  left: number;
  right: number;
  limitY: number;
  airY: number;
}) {
  const { zeroY, plotBottom } = scale;
  const width = right - left;
  const clamp = (y: number) => Math.min(plotBottom, y);
  return (
    <g>
      <rect x={left} y={8} width={width} height={zeroY - 8} fill="var(--pressure)" opacity={0.06} />
      <rect x={left} y={zeroY} width={width} height={plotBottom - zeroY} fill="var(--ink)" opacity={0.04} />
      {airY < plotBottom && (
        <rect
          x={left}
          y={airY}
          width={width}
          height={clamp(limitY) - airY}
          fill="var(--vacuum)"
          opacity={0.13}
        />
      )}
      {limitY < plotBottom && (
        <rect
          x={left}
          y={limitY}
          width={width}
          height={Math.min(8, plotBottom - limitY)}
          fill="url(#limitHatch)"
        />
      )}
      {limitY < plotBottom && (
        <line x1={left} x2={right} y1={limitY} y2={limitY} stroke="var(--danger)" strokeWidth={1} />
      )}
    </g>
  );
}
