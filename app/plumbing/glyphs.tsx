/** Parts as they look: lever handles that lie along the pipe when open, bowls, a needle that stands at its reading. */
import type { Part } from "~/core/kinds/index";
import type { PumpKind, SectionPoint, Tank, ValveSetting } from "~/core/plan/types";
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

/** A transfer pump is drawn with two arrows, a priming pump with the way round it, an in-tank pump with its strainer, a dosing pump with its piston. */
export function PumpGlyph({
  cx,
  isOn,
  toLeft,
  kind = "liftPump",
  isSmall = false,
}: {
  cx: number;
  isOn: boolean;
  toLeft: boolean;
  kind?: PumpKind | "dosingPump";
  isSmall?: boolean;
}) {
  const ink = isOn ? "var(--ink)" : "var(--idle)";
  if (isSmall) {
    return (
      <g transform={`translate(${cx + 24} 14)`}>
        <circle r={11} {...body} strokeWidth={1.5} />
        <path d={toLeft ? "M5 -6L-6 0L5 6z" : "M-5 -6L6 0L-5 6z"} fill={ink} />
      </g>
    );
  }
  const arrow = (y: number) =>
    toLeft ? `M${cx + 13} ${y}h-26m7 -7l-7 7l7 7` : `M${cx - 13} ${y}h26m-7 -7l7 7l-7 7`;
  return (
    <g>
      {kind === "primingPump" && (
        <path d={`M${cx - 30} 22V-4H${cx + 30}V22`} fill="none" stroke="var(--idle)" strokeWidth={1.6} />
      )}
      <rect x={cx - 30} y={2} width={60} height={40} rx={kind === "dosingPump" ? 18 : 7} {...body} />
      {kind === "transferPump" ? (
        <path d={`${arrow(14)}${arrow(29)}`} fill="none" stroke={ink} strokeWidth={2.2} />
      ) : (
        <path d={arrow(22)} fill="none" stroke={ink} strokeWidth={2.6} />
      )}
      {kind === "inTankPump" && (
        <path
          d={`M${cx - 26} 36h52M${cx - 22} 32v8m8 -8v8m8 -8v8m8 -8v8m8 -8v8m8 -8v8`}
          stroke="var(--ink)"
          strokeWidth={1.1}
        />
      )}
      {kind === "dosingPump" && (
        <path d={`M${cx - 20} 9v26m4 -26v26`} stroke="var(--ink)" strokeWidth={1.5} fill="none" />
      )}
      {!isOn && (
        <text x={cx} y={38} fontSize={12} textAnchor="middle" fill="var(--soft)">
          off
        </text>
      )}
    </g>
  );
}

export type InlineKind =
  | "antiSiphon"
  | "bulb"
  | "relief"
  | "regulator"
  | "cooler"
  | "flowMeter"
  | "fuelHeater"
  | "bleedScrew"
  | "samplingTap"
  | "waterSensor"
  | "bulkhead";

const thin = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.5 } as const;

/** What sits in a line, drawn about the middle of it (0, 0), flow to the right. */
function inlineShape(kind: InlineKind) {
  switch (kind) {
    case "antiSiphon":
      return (
        <g>
          <rect x={-18} y={-12} width={36} height={24} rx={3} {...body} strokeWidth={1.5} />
          <path d="M-12 -7v14M-12 0l4 -4l4 8l4 -8l4 8l4 -8l4 4M12 -8v16" {...thin} />
        </g>
      );
    case "bulb":
      return (
        <g>
          <path d="M-22 0C-18 -13 18 -13 22 0C18 13 -18 13 -22 0z" {...body} />
          <path d="M-10 -8v16M-3 -9.5v19M4 -9.5v19M11 -8v16" {...thin} strokeWidth={1.1} />
        </g>
      );
    case "relief":
      return (
        <g>
          <path d="M-14 -9L0 0L-14 9zM14 -9L0 0L14 9z" {...body} strokeWidth={1.5} />
          <path d="M0 0V-6l4 -2l-8 -2l8 -2l-8 -2l4 -2" {...thin} />
        </g>
      );
    case "regulator":
      return (
        <g>
          <rect x={-16} y={-6} width={32} height={16} rx={2} {...body} strokeWidth={1.5} />
          <path d="M-13 -6C-13 -19 13 -19 13 -6z" {...body} strokeWidth={1.5} />
          <path d="M0 -16v-3M-4 -19h8" {...thin} />
        </g>
      );
    case "cooler":
      return (
        <g>
          <rect x={-23} y={-13} width={46} height={26} rx={2} {...body} strokeWidth={1.5} />
          <path d="M-23 0h6l4 -8l6 16l6 -16l6 16l6 -16l4 8h8" {...thin} />
        </g>
      );
    case "flowMeter":
      return (
        <g>
          <circle r={14} {...body} strokeWidth={1.5} />
          <path
            d="M0 0C4 -4 6 -9 2 -11M0 0C5 2 10 3 11 -2M0 0C0 6 -3 11 -7 9M0 0C-6 1 -10 -2 -10 -6"
            {...thin}
          />
        </g>
      );
    case "fuelHeater":
      return (
        <g>
          <rect x={-23} y={-12} width={46} height={24} rx={2} {...body} strokeWidth={1.5} />
          <path d="M-14 7c0 -5 5 -5 5 -10M-3 7c0 -5 5 -5 5 -10M8 7c0 -5 5 -5 5 -10" {...thin} />
        </g>
      );
    case "bleedScrew":
      return (
        <g>
          <rect x={-9} y={-6} width={18} height={12} rx={2} {...body} strokeWidth={1.5} />
          <path d="M-3 -6v-5h6v5M-6 -15h12v4h-12z" {...body} strokeWidth={1.4} />
        </g>
      );
    case "samplingTap":
      return (
        <g>
          <rect x={-9} y={-6} width={18} height={12} rx={2} {...body} strokeWidth={1.5} />
          <path d="M0 6v7M-6 13h12" {...thin} />
          <path d="M0 17c-3 4 -3 6 0 6s3 -2 0 -6z" fill="var(--ink)" />
        </g>
      );
    case "waterSensor":
      return (
        <g>
          <path d="M-11 -8h22v12a8 8 0 0 1 -8 8h-6a8 8 0 0 1 -8 -8z" {...body} strokeWidth={1.5} />
          <path d="M-9 5q3 -2.5 6 0t6 0t6 0a7 7 0 0 1 -6 5h-6a7 7 0 0 1 -6 -5z" fill="var(--water)" />
          <path d="M-3 -8v11M3 -8v11" {...thin} />
        </g>
      );
    case "bulkhead":
      return (
        <g>
          <path d="M-3 -20h6v40h-6z" fill="var(--hairline)" stroke="var(--ink)" strokeWidth={1.2} />
          <rect x={-12} y={-7} width={9} height={14} {...body} strokeWidth={1.5} />
          <rect x={3} y={-7} width={9} height={14} {...body} strokeWidth={1.5} />
        </g>
      );
  }
}

export function InlineGlyph({ kind, cx, toLeft }: { kind: InlineKind; cx: number; toLeft: boolean }) {
  return <g transform={`translate(${cx} 16)${toLeft ? " scale(-1 1)" : ""}`}>{inlineShape(kind)}</g>;
}

/** Nozzle, throat and diffuser. */
export function JetGlyph({ cx, toLeft }: { cx: number; toLeft: boolean }) {
  return (
    <g transform={`translate(${cx} 22)${toLeft ? " scale(-1 1)" : ""}`}>
      <path d="M-24 -16H-6L4 -6H10L24 -14V14L10 6H4L-6 16H-24z" {...body} />
      <path d="M-24 -6L-6 -2V2L-24 6" {...thin} />
      <path d="M-4 0H18m-5 -4l5 4l-5 4" {...thin} />
    </g>
  );
}

export function PotGlyph({ cx }: { cx: number }) {
  return (
    <g transform={`translate(${cx} 38)`}>
      <path d="M-20 -34h40v56a14 14 0 0 1 -14 14h-12a14 14 0 0 1 -14 -14z" {...body} />
      <path d="M-18 -14h36v36a12 12 0 0 1 -12 12h-12a12 12 0 0 1 -12 -12z" fill="var(--atRest)" />
      <path d="M13 -4a13 7 0 1 0 -13 7a9 5 0 1 0 -9 -5a5 3 0 1 1 5 3" {...thin} />
      <circle cx={-4} cy={-20} r={2.2} fill="var(--raised)" stroke="var(--ink)" />
      <circle cx={6} cy={-25} r={2.2} fill="var(--raised)" stroke="var(--ink)" />
    </g>
  );
}

/** A burner's tube with its fan. */
export function HeaterGlyph({ width, height }: GlyphBox) {
  return (
    <g>
      <rect width={width} height={height} rx={18} {...body} />
      <circle cx={26} cy={28} r={14} {...thin} />
      <path
        d="M26 28c2 -8 8 -10 10 -6M26 28c8 2 10 8 6 10M26 28c-2 8 -8 10 -10 6M26 28c-8 -2 -10 -8 -6 -10"
        {...thin}
      />
      <path
        d="M56 38c-4 -8 6 -10 2 -20c10 6 14 14 8 20M84 38c-4 -8 6 -10 2 -20c10 6 14 14 8 20"
        {...thin}
        stroke="var(--idle)"
      />
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

/** Half the sweep of a gauge's needle, rad. */
const SWEEP = 2.2;
/** What a gauge's dial reads at its end: more is pressed than is drawn. */
const FULL_VACUUM_PA = 50000;
const FULL_PRESSURE_PA = 100000;

/** How far the needle stands from upright, rad, clockwise: no vacuum at the left stop, on a pressure gauge no pressure. */
export function needleRad(gaugePa: number, measures: "vacuum" | "pressure"): number {
  const share = measures === "vacuum" ? -gaugePa / FULL_VACUUM_PA : gaugePa / FULL_PRESSURE_PA;
  return SWEEP * (2 * Math.min(1, Math.max(0, share)) - 1);
}

export function GaugeGlyph({
  cx,
  gaugePa,
  measures,
}: {
  cx: number;
  gaugePa: number | null;
  measures: "vacuum" | "pressure";
}) {
  const angle = gaugePa === null ? null : needleRad(gaugePa, measures);
  return (
    <g>
      <line x1={cx} x2={cx} y1={56} y2={74} stroke="var(--ink)" strokeWidth={1.6} />
      <circle cx={cx} cy={38} r={18} {...body} />
      {[-1, -0.5, 0, 0.5, 1].map((share) => (
        <line
          key={share}
          x1={cx + 13 * Math.sin(share * SWEEP)}
          y1={38 - 13 * Math.cos(share * SWEEP)}
          x2={cx + 16.5 * Math.sin(share * SWEEP)}
          y2={38 - 16.5 * Math.cos(share * SWEEP)}
          stroke="var(--ink)"
        />
      ))}
      {angle !== null && (
        <line
          x1={cx}
          y1={38}
          x2={cx + 12 * Math.sin(angle)}
          y2={38 - 12 * Math.cos(angle)}
          stroke={measures === "vacuum" ? "var(--vacuum)" : "var(--pressure)"}
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
