/** Parts as they look: lever handles that lie along the pipe when open, bowls, a needle that stands at its reading. */
import type { Part, SectionPoint, Tank, ValveSetting } from "~/core/plan/types";
import { polygonBelow } from "~/core/tanks/polygon";
import { sectionOf } from "~/core/tanks/shape";
import { heightsOf } from "~/core/tanks/tank";

export interface GlyphBox {
  width: number;
  height: number;
}

const body = { fill: "var(--raised)", stroke: "var(--ink)", strokeWidth: 1.8 } as const;

/** A section drawn into a box, its bounding corners given back for the caller's labels. */
export function sectionPath(
  section: readonly SectionPoint[],
  place: (point: SectionPoint) => [number, number],
): string {
  return `${section
    .map(
      (point, i) =>
        `${i === 0 ? "M" : "L"}${place(point)
          .map((v) => v.toFixed(1))
          .join(" ")}`,
    )
    .join("")}Z`;
}

export function TankGlyph({ tank, levelM, width, height }: GlyphBox & { tank: Tank; levelM: number }) {
  const section = sectionOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  const ys = section.map(([y]) => y);
  const [left, right] = [Math.min(...ys), Math.max(...ys)];
  const place = ([y, z]: SectionPoint): [number, number] => [
    ((right - y) / (right - left)) * width,
    ((highM - z) / (highM - lowM)) * height,
  ];
  const surface = place([0, levelM])[1];
  const wet = polygonBelow(section, levelM);
  const [a, b] = wet.length
    ? [
        Math.min(...wet.filter(([, z]) => z >= levelM - 1e-6).map((p) => place(p)[0])),
        Math.max(...wet.filter(([, z]) => z >= levelM - 1e-6).map((p) => place(p)[0])),
      ]
    : [0, 0];
  return (
    <g>
      <path d={sectionPath(section, place)} {...body} />
      {wet.length > 2 && <path d={sectionPath(wet, place)} fill="var(--atRest)" />}
      {Number.isFinite(a) && (
        <line x1={a} x2={b} y1={surface} y2={surface} stroke="var(--ink)" strokeWidth={1.4} />
      )}
      <path d={sectionPath(section, place)} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
    </g>
  );
}

/** Lever along the pipe: open. Across it: shut. */
export function Lever({ cx, cy, isOpen, r = 9 }: { cx: number; cy: number; isOpen: boolean; r?: number }) {
  return (
    <g>
      <circle cx={cx} cy={cy} r={r} {...body} strokeWidth={1.5} />
      <rect
        x={cx - r - 4}
        y={cy - 2.6}
        width={2 * r + 8}
        height={5.2}
        rx={2}
        fill="var(--ink)"
        transform={isOpen ? undefined : `rotate(90 ${cx} ${cy})`}
      />
    </g>
  );
}

export function FilterGlyph({
  cx,
  loading,
  hasElement,
  isSecondary,
}: {
  cx: number;
  loading: number;
  hasElement: boolean;
  isSecondary: boolean;
}) {
  const pleats = Math.min(0.75, 0.12 * loading);
  return (
    <g>
      <rect x={cx - 28} y={6} width={56} height={18} {...body} />
      {isSecondary ? (
        <g>
          <path d={`M${cx - 22} 24h44v40a5 5 0 0 1 -5 5h-34a5 5 0 0 1 -5 -5z`} {...body} />
          {[-13, -6.5, 0, 6.5, 13].map((dx) => (
            <line
              key={dx}
              x1={cx + dx}
              x2={cx + dx}
              y1={32}
              y2={62}
              stroke="var(--ink)"
              opacity={0.35 + pleats * 0.6}
            />
          ))}
        </g>
      ) : (
        <g>
          <path d={`M${cx - 22} 24h44v38a14 14 0 0 1 -14 14h-16a14 14 0 0 1 -14 -14z`} {...body} />
          <path d={`M${cx - 19} 50h38v11a12 12 0 0 1 -12 12h-14a12 12 0 0 1 -12 -12z`} fill="var(--atRest)" />
          <path
            d={`M${cx - 18} 64q4.5 -3 9 0t9 0t9 0t9 0a11 11 0 0 1 -11 9h-14a11 11 0 0 1 -11 -9z`}
            fill="var(--water)"
          />
          {[30, 35, 40, 45].map((y) => (
            <line
              key={y}
              x1={cx - 13}
              x2={cx + 13}
              y1={y}
              y2={y}
              stroke="var(--ink)"
              opacity={0.3 + pleats * 0.6}
              strokeWidth={1.4}
            />
          ))}
          <path
            d={`M${cx - 22} 24h44v38a14 14 0 0 1 -14 14h-16a14 14 0 0 1 -14 -14z`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.8}
          />
        </g>
      )}
      {!hasElement && (
        <path d={`M${cx - 18} 28l36 34M${cx + 18} 28l-36 34`} stroke="var(--danger)" strokeWidth={2} />
      )}
    </g>
  );
}

export function PumpGlyph({ cx, isOn, toLeft }: { cx: number; isOn: boolean; toLeft: boolean }) {
  return (
    <g>
      <rect x={cx - 30} y={2} width={60} height={40} rx={7} {...body} />
      <path
        d={toLeft ? `M${cx + 13} 22h-26m7 -7l-7 7l7 7` : `M${cx - 13} 22h26m-7 -7l7 7l-7 7`}
        fill="none"
        stroke={isOn ? "var(--ink)" : "var(--idle)"}
        strokeWidth={2.6}
      />
      {!isOn && (
        <text x={cx} y={38} fontSize={12} textAnchor="middle" fill="var(--soft)">
          off
        </text>
      )}
    </g>
  );
}

export function CheckGlyph({ cx, toLeft }: { cx: number; toLeft: boolean }) {
  return (
    <g transform={toLeft ? `translate(${2 * cx} 0) scale(-1 1)` : undefined}>
      <rect x={cx - 18} y={4} width={36} height={24} rx={3} {...body} strokeWidth={1.5} />
      <path
        d={`M${cx - 10} 9l14 7l-14 7zM${cx + 6} 8v16`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.8}
      />
    </g>
  );
}

/** A full circle of the dial is 100 kPa. */
export function GaugeGlyph({ cx, vacuumPa }: { cx: number; vacuumPa: number | null }) {
  const angle = vacuumPa === null ? 0 : Math.max(-2.2, Math.min(2.2, -2.2 + (vacuumPa / 50000) * 4.4));
  return (
    <g>
      <line x1={cx} x2={cx} y1={56} y2={74} stroke="var(--ink)" strokeWidth={1.6} />
      <circle cx={cx} cy={38} r={18} {...body} />
      {[-2.2, -1.1, 0, 1.1, 2.2].map((a) => (
        <line
          key={a}
          x1={cx + 13 * Math.sin(a)}
          y1={38 - 13 * Math.cos(a)}
          x2={cx + 16.5 * Math.sin(a)}
          y2={38 - 16.5 * Math.cos(a)}
          stroke="var(--ink)"
        />
      ))}
      {vacuumPa !== null && (
        <line
          x1={cx}
          y1={38}
          x2={cx + 12 * Math.sin(angle)}
          y2={38 - 12 * Math.cos(angle)}
          stroke="var(--vacuum)"
          strokeWidth={2}
        />
      )}
    </g>
  );
}

export function EngineGlyph({ width, height }: GlyphBox) {
  return (
    <g>
      <rect width={width} height={height} rx={2} {...body} />
      {[0, 1, 2, 3].map((i) => (
        <rect
          key={i}
          x={14 + i * 27}
          y={12}
          width={22}
          height={30}
          rx={2}
          fill="none"
          stroke="var(--idle)"
          strokeWidth={1.3}
        />
      ))}
    </g>
  );
}

export function isValveOpen(part: Part, setting: ValveSetting | undefined): boolean {
  return part.kind === "twoWay" && setting?.kind === "position" && setting.position === "open";
}
