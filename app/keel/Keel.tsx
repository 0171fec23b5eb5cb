/** The Keel: the fuel way of the chosen line-up laid straight, its elevation and the pressure along it. */

import styled from "styled-components";
import { airOutPa } from "~/core/fuel/fuel";
import type { Leg, Stub } from "~/core/hydraulics/route";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Limits } from "~/core/plan/types";
import { formatNumber, type UnitChoice } from "~/core/units/format";
import { gaugeUnit, tradeIn, vacuumUnit } from "~/core/units/trade";
import { hoseLines, keelSummary, limitLabel, stationLines } from "~/messages/keel";
import type { DrawnSuspect } from "~/state/job";
import { useWidth } from "~/ui/useWidth";
import { Bands, pieces, strokes } from "./lines";
import { type KeelMark, Marks, Stroke, TankLevels } from "./marks";
import { NAME_CHAR_PX, Names } from "./Names";
import { axisMarks, fitNames, type KeelScale, keelScale, type PlacedLeg } from "./scale";

interface Props {
  verdict: LineUpVerdict;
  /** The same line-up at the stored conditions, while others are explored. */
  before: LineUpVerdict | null;
  limits: Limits;
  units: UnitChoice;
  height: number;
  selectedId: string | null;
  onSelect: (id: string) => void;
  nameOf: (id: string) => string;
  marks?: KeelMark[];
  /** Branches that leave the way. */
  stubs?: readonly Stub[];
  suspects?: readonly DrawnSuspect[];
  /** Height of the ground, or of the hull's foot, over the datum: heights are told over it. */
  groundM?: number;
}
const NO_SUSPECTS: readonly DrawnSuspect[] = [];

const Frame = styled.div`
  position: relative; width: 100%; background: var(--panel);
  svg { display: block; width: 100%; }
`;
const Tip = styled.div`
  position: absolute; background: var(--ink); color: var(--raised); padding: 5px 9px; border-radius: 2px; font-size: 13px; font-stretch: 84%;
  pointer-events: none; white-space: nowrap; z-index: 2; line-height: 1.35;
`;

/** What the words of both bands take from the right, and what is told beside them, px: measured. */
const BAND_WORDS_PX = 630;

export function Keel(props: Props) {
  const {
    verdict,
    before,
    limits,
    units,
    height,
    selectedId,
    onSelect,
    nameOf,
    marks = [],
    stubs = [],
    suspects = NO_SUSPECTS,
    groundM = 0,
  } = props;
  const [frame, width] = useWidth();
  const { result, way, suction } = verdict;
  if (result.outcome !== "solved" || !way || way.legs.length === 0) return null;
  const limitPa = suction?.limitPa ?? limits.suctionChangePa;
  const tall = height >= 240;
  const box = { width, height, left: 72, right: 24, top: 10, ribbon: tall ? 56 : 38, names: 26 };
  const others = [...(before?.way?.legs ?? []), ...suspects.flatMap(({ legs }) => legs)];
  const surfacesM = way.stations.flatMap(({ id }) => result.settings.surfaceM.get(id) ?? []);
  const scale = keelScale(way, box, limitPa, others, surfacesM);
  const right = width - box.right;
  const limitY = scale.y(-limitPa);
  const airPa = airOutPa(result.settings.fuel, result.settings.atmospherePa, limits.freeAirFraction);
  const airY = scale.y(airPa);
  const old = before?.way && before !== verdict ? keelScale(before.way, box, limitPa) : null;
  const shown = fitNames(scale.stations, NAME_CHAR_PX, selectedId);
  const chosen = scale.stations.find(({ station }) => station.id === selectedId);
  const chosenRun = scale.legs.find(({ leg }) => leg.id === selectedId && leg.kind === "run");
  // The bands' own words stand at the right, under zero: what is told there stands to their left.
  const tipX = (x: number, pa: number) => (pa < 0 ? x : Math.min(x, Math.max(0, right - BAND_WORDS_PX)));
  // On the side of zero where the line is not.
  const tipY = (pa: number) => (pa < 0 ? scale.zeroY - 52 : scale.zeroY + 8);
  const axis = axisMarks(scale, units, tall ? 5 : 3);
  const below = vacuumUnit(units);
  const consumerX = scale.stations.find(({ station }) => station.kind === "engine")?.x;
  return (
    <Frame ref={frame} style={{ height }}>
      <svg
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={keelSummary(verdict, units)}
      >
        <defs>
          <pattern
            id="limitHatch"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line x1="0" y1="0" x2="0" y2="6" stroke="var(--danger)" strokeWidth="1.6" opacity="0.55" />
          </pattern>
        </defs>
        <Bands scale={scale} left={box.left} right={right} limitY={limitY} airY={airY} />
        {axis.map(({ pa, value }) => (
          <g key={pa}>
            <line
              x1={box.left}
              x2={right}
              y1={scale.y(pa)}
              y2={scale.y(pa)}
              stroke="var(--hairline)"
              strokeWidth={0.6}
            />
            <text x={box.left - 8} y={scale.y(pa) + 4} textAnchor="end" fontSize={12} fill="var(--soft)">
              {formatNumber(value)}
            </text>
          </g>
        ))}
        {scale.heights.map((zM) => (
          <text key={zM} x={8} y={scale.elevation(zM) + 4} fontSize={12} fill="var(--soft)">
            <title>Highest and lowest of the line, over the ground or the hull's foot</title>
            {tradeIn(units).run(zM - groundM)}
          </text>
        ))}
        <line
          x1={box.left}
          x2={right}
          y1={scale.zeroY}
          y2={scale.zeroY}
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
        <text x={box.left - 8} y={scale.zeroY + 4} textAnchor="end" fontSize={12} fill="var(--ink)">
          0
        </text>
        <path
          d={`M${box.left - 4} ${scale.zeroY - 4}l8 -5M${box.left - 4} ${scale.zeroY - 8}l8 -5`}
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
        <text x={10} y={20} fontSize={12} fill="var(--soft)">
          {gaugeUnit(units, 1)}
        </text>
        {below !== gaugeUnit(units, 1) && (
          <text x={10} y={scale.zeroY + 16} fontSize={12} fill="var(--soft)">
            {below}
          </text>
        )}
        <g fontSize={12} textAnchor="end" fontWeight={600} style={{ fontStretch: "80%" }}>
          <text x={right - 4} y={22} fill="var(--pressure)">
            pump pushes
          </text>
          <text x={right - 4} y={scale.zeroY - 5} fill="var(--soft)" fontWeight={400}>
            scale changes here
          </text>
          {airY < scale.plotBottom - 14 && (
            <text x={right - 4 - (limitY - airY < 30 ? 330 : 0)} y={airY + 13} fill="var(--vacuum)">
              air begins to come out
            </text>
          )}
          {limitY < scale.plotBottom && (
            <text x={right - 4} y={limitY - 4} fill="var(--danger)">
              {limitLabel(nameOf(suction?.id ?? ""), limitPa, suction?.basis, units)}
            </text>
          )}
        </g>
        {scale.stations.map(({ station, x }) => (
          <line
            key={`${station.id}${station.side}`}
            x1={x}
            x2={x}
            y1={box.top}
            y2={height - box.names}
            stroke="var(--hairline)"
            strokeWidth={0.8}
          />
        ))}
        {(chosen || chosenRun) && (
          <ChosenMark
            x1={chosen?.x ?? chosenRun?.points[0]?.x ?? 0}
            x2={chosen?.x ?? chosenRun?.points.at(-1)?.x ?? 0}
            top={box.top}
            bottom={height - box.names}
          />
        )}
        {old?.legs.map(({ leg, points }) => (
          <polyline
            key={leg.id}
            points={points.map((p) => `${p.x},${old ? scale.y(p.gaugePa) : 0}`).join(" ")}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.4}
            strokeDasharray="1.5 4"
          />
        ))}
        {consumerX !== undefined && (
          <line
            x1={consumerX}
            x2={consumerX}
            y1={scale.zeroY - 60}
            y2={scale.zeroY}
            stroke="var(--hairline)"
            strokeDasharray="2 3"
          />
        )}
        <g fill="none" strokeLinecap="round">
          {pieces(scale).map(({ key, d, kind }) => (
            <path key={key} d={d} {...strokes[kind]} />
          ))}
        </g>
        <Suspects scale={scale} suspects={suspects} right={right} />
        {suction && <Stroke scale={scale} id={suction.id} hardestPa={-suction.vacuumPa} height={height} />}
        <Elevation scale={scale} />
        <TankLevels scale={scale} verdict={verdict} />
        {scale.legs.map(({ leg, points }) =>
          leg.kind === "run" ? (
            <rect
              key={leg.id}
              x={points[0]?.x}
              y={box.top}
              width={Math.max(1, (points.at(-1)?.x ?? 0) - (points[0]?.x ?? 0))}
              height={height - box.names - box.top}
              fill="transparent"
              onClick={() => onSelect(leg.id)}
              style={{ cursor: "pointer" }}
            />
          ) : null,
        )}
        <Marks scale={scale} marks={marks} height={height - box.names} units={units} />
      </svg>
      {chosen && (
        <StationTip
          x={tipX(chosen.x, chosen.station.beforePa)}
          y={tipY(chosen.station.beforePa)}
          width={width}
          lines={stationLines(chosen.station, way, units)}
        />
      )}
      {!chosen && chosenRun && (
        <StationTip
          x={tipX(chosenRun.points.at(-1)?.x ?? 0, chosenRun.points[0]?.gaugePa ?? 0)}
          y={tipY(chosenRun.points[0]?.gaugePa ?? 0)}
          width={width}
          lines={hoseLines(chosenRun.leg, units)}
        />
      )}
      <Names
        signature={[
          width,
          height,
          selectedId,
          ...scale.stations.map(({ station, x }) => station.id + station.name + Math.round(x)),
          ...stubs.map(({ runId }) => runId),
        ].join()}
        stations={scale.stations}
        shown={shown}
        stubs={stubs}
        stubY={scale.zeroY - 12}
        width={width}
        selectedId={selectedId}
        onSelect={onSelect}
        nameOf={nameOf}
      />
    </Frame>
  );
}

/** Lines of what may be wrong, each named where it lies farthest from the plan's; the likeliest is drawn full. */
function Suspects({
  scale,
  suspects,
  right,
}: {
  scale: KeelScale;
  suspects: readonly DrawnSuspect[];
  right: number;
}) {
  const named: { x: number; y: number; width: number }[] = [];
  return (
    <g>
      {suspects.map(({ name, legs, is }) => {
        const isFirst = is === "likeliest";
        const points = overLegs(scale, legs);
        const [far] = points.toSorted((p, q) => q.offPa - p.offPa);
        if (!far) return null;
        const colour = isFirst ? "var(--danger)" : is === "healthy" ? "var(--soft)" : "var(--ink)";
        // Under its line, and under the names that stand there already.
        let y = Math.min(scale.plotBottom - 4, scale.y(far.gaugePa) + 14);
        const isLate = far.x > right / 2;
        const width = name.length * NAME_CHAR_PX;
        const x = isLate ? far.x - 6 - width : far.x + 6;
        const lies = (other: { x: number; y: number; width: number }) =>
          Math.abs(other.y - y) < 14 && other.x < x + width && x < other.x + other.width;
        while (named.some(lies)) y -= 14;
        named.push({ x, y, width });
        const line = points.map(({ x, gaugePa }) => `${x.toFixed(1)},${scale.y(gaugePa).toFixed(1)}`);
        return (
          <g key={name}>
            <polyline
              points={line.join(" ")}
              fill="none"
              stroke={colour}
              strokeWidth={isFirst ? 2.2 : 1.4}
              strokeDasharray={suspectDashes[is]}
            />
            <text
              x={far.x + (isLate ? -6 : 6)}
              y={y}
              textAnchor={isLate ? "end" : "start"}
              fontSize={12}
              fontWeight={isFirst ? 650 : 400}
              fill={colour}
              stroke="var(--panel)"
              strokeWidth={3}
              paintOrder="stroke"
            >
              {name}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Another line over the legs that the plan's has too. */
const overLegs = (scale: KeelScale, legs: readonly Leg[]) =>
  legs.flatMap((leg) => {
    const own = scale.legs.find(({ leg: { id, side } }) => id === leg.id && side === leg.side);
    return leg.points.flatMap(({ gaugePa }, i) => {
      const at = own?.points[i];
      return at && Number.isFinite(gaugePa)
        ? [{ x: at.x, gaugePa, offPa: Math.abs(gaugePa - at.gaugePa) }]
        : [];
    });
  });
const suspectDashes = { likeliest: undefined, possible: "8 4", healthy: "2 3" } as const;

/** The lie of the line: ink outside, what the fuel does inside. */
function Elevation({ scale: { legs, elevation } }: { scale: KeelScale }) {
  const path = (points: PlacedLeg["points"]) =>
    points
      .map(({ x, zM }, i) => `${i === 0 ? "M" : "L"}${x.toFixed(1)} ${elevation(zM).toFixed(1)}`)
      .join("");
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={path(legs.flatMap(({ points }) => points))} stroke="var(--ink)" strokeWidth={7} />
      {legs.map(({ leg, points }) => {
        const mean = points.reduce((sum, { gaugePa }) => sum + gaugePa, 0);
        const kind = leg.side === "return" ? "return" : mean < 0 ? "vacuum" : "pressure";
        return <path key={leg.id} d={path(points)} {...strokes[kind]} strokeWidth={3} />;
      })}
    </g>
  );
}

function ChosenMark({ x1, x2, top, bottom }: { x1: number; x2: number; top: number; bottom: number }) {
  if (x2 - x1 < 2) return <line x1={x1} x2={x1} y1={top} y2={bottom} stroke="var(--act)" strokeWidth={2} />;
  return <rect x={x1} y={top} width={x2 - x1} height={bottom - top} fill="var(--act)" opacity={0.1} />;
}

function StationTip({ x, y, width, lines }: { x: number; y: number; width: number; lines: string[] }) {
  const onRight = x < width - 220;
  return (
    <Tip
      style={{
        left: onRight ? x + 10 : undefined,
        right: onRight ? undefined : width - x + 10,
        top: Math.max(2, y),
      }}
    >
      {lines.map((line) => (
        <div key={line}>{line}</div>
      ))}
    </Tip>
  );
}
