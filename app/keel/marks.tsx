/** What is drawn on the Keel: strokes of a pump, levels of tanks, readings and ticks. */

import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import type { KeelScale } from "./scale";

export interface KeelMark {
  /** Station or run that carries the mark. */
  id: string;
  sign: "done" | "open" | "reading";
  text?: string;
  gaugePa?: number;
}

const LEAST_STROKE_PA = 200;
/** Of "while it draws". */
const WORDS_PX = 84;

/** A pump that draws by strokes: from the mean at its inlet down to what it draws at while it does. */
export function Stroke({
  scale,
  id,
  hardestPa,
  height,
}: {
  scale: KeelScale;
  id: string;
  hardestPa: number;
  height: number;
}) {
  const at = scale.stations.find(({ station }) => station.id === id && station.side === "feed");
  if (!at || !(at.station.beforePa - hardestPa > LEAST_STROKE_PA)) return null;
  const [top, foot] = [scale.y(at.station.beforePa), Math.min(height, scale.y(hardestPa))];
  // Beside the scale of pressures it stands to the right.
  const isFirst = at.x - (scale.stations[0]?.x ?? 0) < WORDS_PX;
  return (
    <g>
      <path
        d={`M${at.x} ${top}V${foot}M${at.x - 6} ${foot}h12`}
        stroke="var(--vacuum)"
        strokeWidth={2.5}
        fill="none"
      />
      <text
        x={isFirst ? at.x - 6 : at.x + 6}
        y={foot + 14}
        textAnchor={isFirst ? "start" : "end"}
        fontSize={12}
        fill="var(--vacuum)"
        fontWeight={600}
        style={{ fontStretch: "80%" }}
      >
        while it draws
      </text>
    </g>
  );
}

/** The fuel surface of each tank on the way, at its station. */
export function TankLevels({ scale, verdict }: { scale: KeelScale; verdict: LineUpVerdict }) {
  if (verdict.result.outcome !== "solved") return null;
  const { surfaceM } = verdict.result.settings;
  return (
    <g>
      {scale.stations.map(({ station, x }, i) => {
        const surface = surfaceM.get(station.id);
        if (station.kind !== "tank" || surface === undefined) return null;
        const y = Math.max(scale.plotBottom - 4, scale.elevation(surface));
        return (
          <g key={i} stroke="var(--ink)" strokeWidth={1.2}>
            <line x1={x - 14} x2={x + 14} y1={y} y2={y} />
            <path d={`M${x - 4} ${y - 6}h8l-4 5z`} fill="var(--ink)" stroke="none" />
          </g>
        );
      })}
    </g>
  );
}

export function Marks({
  scale,
  marks,
  height,
  units,
}: {
  scale: KeelScale;
  marks: readonly KeelMark[];
  height: number;
  units: UnitChoice;
}) {
  return (
    <g>
      {marks.map((mark, i) => {
        const x = scale.stations.find(({ station }) => station.id === mark.id)?.x;
        if (x === undefined) return null;
        const y = mark.gaugePa === undefined ? height - 8 : scale.y(mark.gaugePa);
        if (mark.sign === "done")
          return (
            <path
              key={i}
              d={`M${x - 5} ${y - 3}l4 5 7 -9`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={2.4}
            />
          );
        if (mark.sign === "open")
          return (
            <circle key={i} cx={x} cy={y} r={4} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.5} />
          );
        return (
          <g key={i}>
            <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} stroke="var(--ink)" strokeWidth={2} />
            <text x={x + 9} y={y + 4} fontSize={12} fill="var(--ink)">
              {mark.text ?? tradeIn(units).gauge(mark.gaugePa ?? 0)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
