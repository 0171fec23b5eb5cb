/** A gauge: its needle stands at its reading. */

import { gaugeAtPort } from "~/core/hydraulics/derive";
import type { PartOf } from "~/core/kinds/index";
import { tradeIn } from "~/core/units/trade";
import { body, type Drawing, type Drawn, passingColour, solvedOf } from "./drawing";

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

function GaugeGlyph({
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

function GaugeNode({ of }: { of: Drawn<PartOf<"gauge">> }) {
  const { part, box, passing, text, units } = of;
  const cx = box.width / 2;
  const solved = solvedOf(of);
  const reading = solved ? gaugeAtPort(solved, `${part.id}.a`) : Number.NaN;
  const isKnown = Number.isFinite(reading);
  return (
    <g>
      <path
        d={`M0 74H${box.width}`}
        stroke={passingColour(passing && { ...passing, isReturn: false })}
        strokeWidth={passing ? 4 : 1.6}
      />
      <GaugeGlyph cx={cx} gaugePa={isKnown ? reading : null} measures={part.measures} />
      <text x={cx} y={14} fontSize={13 * text} fontWeight={600} textAnchor="middle" fill="var(--ink)">
        {isKnown ? tradeIn(units).gauge(reading) : "–"}
      </text>
    </g>
  );
}

export const gauge: Drawing<PartOf<"gauge">> = (of) => <GaugeNode of={of} />;
