/** The Keel: the fuel way of the chosen line-up laid straight, its elevation and the pressure along it. */
import { memo, useLayoutEffect, useRef, useState } from "react";
import styled, { css } from "styled-components";
import { airOutPa } from "~/core/fuel/fuel";
import type { FuelWay, Station, Stub } from "~/core/hydraulics/route";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Limits } from "~/core/plan/types";
import { fromSi } from "~/core/units/factors";
import { formatNumber, type UnitChoice } from "~/core/units/format";
import { fitNames, type KeelScale, keelScale, type PlacedLeg, ticks } from "./scale";

export interface KeelMark {
  /** Station or run that carries the mark. */
  id: string;
  sign: "done" | "open" | "reading";
  text?: string;
  gaugePa?: number;
}

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
}

const Frame = styled.div`
  position: relative; width: 100%; background: var(--panel);
  svg { display: block; width: 100%; }
`;
const NameButton = styled.button<{ $chosen: boolean }>`
  position: absolute; transform: translateX(-50%); bottom: 2px; border: 0; background: none; cursor: pointer;
  font-stretch: 80%; font-size: 13px; padding: 2px 4px; min-height: 24px; white-space: nowrap;
  ${({ $chosen }) => $chosen && css`font-weight: 700; text-decoration: underline; text-underline-offset: 3px;`}
  &[data-hidden="true"] { width: 24px; overflow: hidden; color: transparent; }
  &[data-hidden="true"]:focus-visible, &[data-hidden="true"]:hover { color: var(--ink); width: auto; background: var(--raised); z-index: 3; }
`;
const StubButton = styled.button`
  position: absolute; transform: translate(-50%, -50%); width: 24px; height: 24px; border: 0; padding: 0; background: none; cursor: pointer;
  &::after { content: ""; position: absolute; left: 7px; top: 2px; width: 2px; height: 14px; background: var(--idle); transform: rotate(30deg); }
  &:hover::after, &:focus-visible::after, &[aria-pressed="true"]::after { background: var(--act); width: 4px; }
`;
const Tip = styled.div`
  position: absolute; background: var(--ink); color: var(--raised); padding: 5px 9px; border-radius: 2px; font-size: 13px; font-stretch: 84%;
  pointer-events: none; white-space: nowrap; z-index: 2; line-height: 1.35;
`;

const isVacuum = (leg: PlacedLeg, i: number) =>
  (leg.points[i]?.gaugePa ?? 0) < 0 && (leg.points[i + 1]?.gaugePa ?? 0) <= 0;

/** Straight pieces of the pressure line by what the fuel does there. */
function pieces({
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

const strokes = {
  pressure: { stroke: "var(--pressure)", strokeWidth: 2.5 },
  vacuum: { stroke: "var(--vacuum)", strokeWidth: 2.5 },
  return: { stroke: "var(--back)", strokeWidth: 2.5, strokeDasharray: "7 4" },
} as const;

function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1200);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(300, entry.contentRect.width)),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}

function Bands({
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

const pressureText = (pa: number, units: UnitChoice, figures?: number) =>
  formatNumber(fromSi("pressure", pa, units.pressure), figures);

function tipText(station: Station, way: FuelWay, units: UnitChoice): string[] {
  const loss = way.suctionLosses.find(({ id }) => id === station.id);
  const unit = units.pressure;
  const lines: string[] = [];
  if (station.kind === "pump")
    lines.push(
      `lifts ${pressureText(station.afterPa - station.beforePa, units)} ${unit}`,
      `draws at ${pressureText(station.beforePa, units)}`,
    );
  else if (station.kind === "gauge") lines.push(`reads ${pressureText(station.beforePa, units)} ${unit}`);
  else if (station.kind === "engine") lines.push(`fed at ${pressureText(station.beforePa, units)} ${unit}`);
  else if (station.kind === "tank")
    lines.push(`${pressureText(station.afterPa, units)} ${unit} at the outside`);
  else lines.push(`drops ${pressureText(station.lossPa, units)} ${unit} here`);
  if (loss && loss.share >= 0.005) lines.push(`${Math.round(loss.share * 100)} % of all suction`);
  return lines;
}

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
  } = props;
  const [frame, width] = useWidth();
  const { result, way, suction } = verdict;
  if (result.outcome !== "solved" || !way || way.legs.length === 0) return null;
  const limitPa = suction?.limitPa ?? limits.suctionChangePa;
  const tall = height >= 240;
  const box = { width, height, left: 72, right: 24, top: 10, ribbon: tall ? 56 : 38, names: 26 };
  const scale = keelScale(way, box, limitPa, before?.way ?? null);
  const right = width - box.right;
  const limitY = scale.y(-limitPa);
  const airPa = airOutPa(result.settings.fuel, result.settings.atmospherePa, limits.freeAirFraction);
  const airY = scale.y(airPa);
  const old = before?.way && before !== verdict ? keelScale(before.way, box, limitPa) : null;
  const shown = fitNames(scale.stations, NAME_CHAR_PX, selectedId);
  const chosen = scale.stations.find(({ station }) => station.id === selectedId);
  const chosenRun = scale.legs.find(({ leg }) => leg.id === selectedId && leg.kind === "run");
  // On the side of zero where the line is not.
  const tipY = (pa: number) => (pa < 0 ? scale.zeroY - 52 : scale.zeroY + 8);
  const axis = [...ticks(scale.highestPa, 2), ...ticks(scale.lowestPa, tall ? 5 : 3)];
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
        {axis.map((pa) => (
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
              {pressureText(pa, units)}
            </text>
          </g>
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
          {units.pressure}
        </text>
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
              {`${nameOf(suction?.id ?? "")} limit, ${pressureText(limitPa, units)} ${units.pressure}${suction?.basis === "common" ? " (common practice)" : ""}`}
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
          x={chosen.x}
          y={tipY(chosen.station.beforePa)}
          width={width}
          lines={tipText(chosen.station, way, units)}
        />
      )}
      {!chosen && chosenRun && (
        <StationTip
          x={chosenRun.points.at(-1)?.x ?? 0}
          y={tipY(chosenRun.points[0]?.gaugePa ?? 0)}
          width={width}
          lines={runTip(chosenRun, units)}
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

interface NamesProps extends Pick<Props, "selectedId" | "onSelect" | "nameOf"> {
  /** All that the names depend on: while it holds they are not drawn again. */
  signature: string;
  stations: KeelScale["stations"];
  shown: ReadonlySet<number>;
  stubs: readonly Stub[];
  stubY: number;
  width: number;
}

/** Names of the stations and the branches between: they stay where they are while the pressure moves. */
const Names = memo(
  function Names({ stations, shown, stubs, stubY, width, selectedId, onSelect, nameOf }: NamesProps) {
    return (
      <>
        {stubs.map(({ stationId, runId, farId }, i) => {
          const at = stations.find(({ station }) => station.id === stationId);
          const before = stubs.slice(0, i).filter((stub) => stub.stationId === stationId).length;
          return at ? (
            <StubButton
              key={runId}
              type="button"
              title={`branch: ${nameOf(farId)}`}
              aria-label={`Branch at ${at.station.name} to ${nameOf(farId)}`}
              aria-pressed={selectedId === runId}
              style={{ left: at.x + 4 + before * 10, top: stubY }}
              onClick={() => onSelect(runId)}
            />
          ) : null;
        })}
        {stations.map(({ station, x }, i) => (
          <NameButton
            key={`${station.id}${station.side}${station.linkId ?? ""}`}
            type="button"
            style={{ left: nameAt(station.name, x, width) }}
            $chosen={station.id === selectedId}
            data-hidden={!shown.has(i)}
            onClick={() => onSelect(station.id)}
          >
            {station.name}
          </NameButton>
        ))}
      </>
    );
  },
  (before, now) => before.signature === now.signature,
);

/** Less than this between mean and stroke is not drawn, Pa. */
const LEAST_STROKE_PA = 200;

/** A pump that draws by strokes: from the mean at its inlet down to what it draws at while it does. */
function Stroke({
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
  return (
    <g>
      <path
        d={`M${at.x} ${top}V${foot}M${at.x - 6} ${foot}h12`}
        stroke="var(--vacuum)"
        strokeWidth={2.5}
        fill="none"
      />
      <text
        x={at.x + 9}
        y={foot + 4}
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

/** Room at the left for the buttons that fold the Keel. */
const FOLDS_PX = 50;
const NAME_CHAR_PX = 5.5;

/** A name stands under its station, but never over the folds or the edge. */
function nameAt(name: string, x: number, width: number): number {
  const half = (name.length * NAME_CHAR_PX) / 2;
  return Math.min(width - half - 6, Math.max(FOLDS_PX + half, x));
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

function runTip({ leg }: PlacedLeg, units: UnitChoice): string[] {
  const metres = formatNumber(leg.lengthM);
  const rise = Math.round(leg.riseM * 1000);
  const lines = [
    `${metres} m of ${formatNumber(fromSi("length", leg.boreM, units.bore))} ${units.bore}, ${rise >= 0 ? "rises" : "falls"} ${Math.abs(rise)} mm`,
    `drops ${pressureText(leg.lossPa, units)} ${units.pressure}`,
  ];
  if (leg.range)
    lines.push(
      `between laminar and turbulent: ${pressureText(leg.range.lowPa, units)} to ${pressureText(leg.range.highPa, units)}`,
    );
  return lines;
}

/** The fuel surface of each tank on the way, at its station. */
function TankLevels({ scale, verdict }: { scale: KeelScale; verdict: LineUpVerdict }) {
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

function Marks({
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
              {mark.text ?? pressureText(mark.gaugePa ?? 0, units)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** The picture in words, for those who do not see it. */
export function keelSummary({ lineUp, way, suction }: LineUpVerdict, units: UnitChoice): string {
  if (!way) return lineUp.name;
  const worst = way.suctionLosses[0];
  const vacuum = suction
    ? `Vacuum at the first pump ${pressureText(suction.vacuumPa, units)} ${units.pressure}, limit ${pressureText(suction.limitPa, units)}.`
    : "";
  const most = worst
    ? `Most is lost in ${way.stations.find(({ id }) => id === worst.id)?.name ?? "a hose"}.`
    : "";
  return `${lineUp.name}: ${way.stations.map(({ name }) => name).join(", ")}. ${vacuum} ${most}`;
}
