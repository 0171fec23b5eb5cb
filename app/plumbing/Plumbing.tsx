/** The plumbing drawn by itself: parts, hoses by what the fuel in them does, flow marks that move with its speed. */
import { memo, type PointerEvent as ReactPointerEvent, useRef, useState } from "react";
import styled, { keyframes } from "styled-components";
import { gaugeAtPort, type Passing, passingParts, returnLinks } from "~/core/hydraulics/derive";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Network } from "~/core/network/network";
import type { Difference } from "~/core/plan/compare";
import { partsOf, portKey } from "~/core/plan/ports";
import type { Id, Part, Run, Tank } from "~/core/plan/types";
import { isValve } from "~/core/plan/valves";
import { formatQuantity, type UnitChoice } from "~/core/units/format";
import type { Placed } from "./layout.client";
import { PartNode, TankNode } from "./nodes";
import { settingText } from "./settingText";

interface Point {
  x: number;
  y: number;
}

export interface PlumbingProps {
  network: Network;
  placed: Placed;
  verdict: LineUpVerdict | null;
  units: UnitChoice;
  selectedId: Id | null;
  glowIds: readonly Id[];
  onSelect: (id: Id) => void;
  onOperate?: (id: Id) => void;
  onNudge?: (id: Id, dx: number, dy: number) => void;
  isMoving: boolean;
  /** Screen px of a drawing unit: names keep their size on the screen however small the drawing is. */
  scale: number;
  /** Ticks to draw at ports: joints done. */
  doneKeys?: ReadonlySet<string>;
  /** What another plan has not, or has otherwise. */
  differences?: ReadonlyMap<Id, Difference>;
}

const differenceSigns: Record<Difference, string> = { added: "+", removed: "−", changed: "≠" };
const differenceWords: Record<Difference, string> = {
  added: "only in this plan",
  removed: "not in this plan",
  changed: "otherwise in the other plan",
};

/** A sign in a ring: what differs between two plans, told without colour. */
function DifferenceSign({ x, y, r = 9, difference }: Point & { r?: number; difference: Difference }) {
  return (
    <g transform={`translate(${x} ${y}) scale(${r / 9})`} role="img" aria-label={differenceWords[difference]}>
      <circle r={9} fill="var(--ink)" />
      <text y={4.5} fontSize={14} fontWeight={700} textAnchor="middle" fill="var(--raised)">
        {differenceSigns[difference]}
      </text>
    </g>
  );
}

const run = keyframes`to { stroke-dashoffset: -24; }`;
const Live = styled.path`
  animation: ${run} linear infinite; pointer-events: none;
  @media (prefers-reduced-motion: reduce) { animation: none; }
`;
const Hit = styled.g`
  cursor: pointer; outline: none;
  &:focus-visible .ring { stroke: var(--act); stroke-width: 2.5; }
  .ring { fill: none; stroke: transparent; }
  text { font-stretch: 80%; }
`;

/** Orthogonal way with rounded corners; where an end was nudged, its first or last corner goes with it. */
export function edgePath(points: readonly Point[], start: Point, end: Point): string {
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last) return "";
  const from = { x: first.x + start.x, y: first.y + start.y };
  const to = { x: last.x + end.x, y: last.y + end.y };
  let middle = points.slice(1, -1).map((p) => ({ ...p }));
  if (middle.length === 0 && Math.abs(from.y - to.y) > 0.5) {
    const x = (from.x + to.x) / 2;
    middle = [
      { x, y: from.y },
      { x, y: to.y },
    ];
  } else if (middle.length > 0) {
    (middle[0] as Point).y = from.y;
    (middle.at(-1) as Point).y = to.y;
  }
  const way = [from, ...middle, to];
  let d = `M${way[0]?.x} ${way[0]?.y}`;
  for (let i = 1; i < way.length - 1; i++) {
    const [a, b, c] = [way[i - 1], way[i], way[i + 1]] as [Point, Point, Point];
    const r = Math.min(7, Math.hypot(b.x - a.x, b.y - a.y) / 2, Math.hypot(c.x - b.x, c.y - b.y) / 2);
    const towards = (p: Point) => {
      const length = Math.hypot(p.x - b.x, p.y - b.y) || 1;
      return `${(b.x + ((p.x - b.x) / length) * r).toFixed(1)} ${(b.y + ((p.y - b.y) / length) * r).toFixed(1)}`;
    };
    d += `L${towards(a)}Q${b.x} ${b.y} ${towards(c)}`;
  }
  return `${d}L${to.x} ${to.y}`;
}

type LineKind = "idle" | "vacuum" | "pressure" | "return";
const lineStyle: Record<LineKind, { stroke: string; strokeWidth: number; strokeDasharray?: string }> = {
  idle: { stroke: "var(--idle)", strokeWidth: 1.6 },
  vacuum: { stroke: "var(--vacuum)", strokeWidth: 4 },
  pressure: { stroke: "var(--pressure)", strokeWidth: 4 },
  return: { stroke: "var(--back)", strokeWidth: 3, strokeDasharray: "8 5" },
};

interface EdgeState {
  kind: LineKind;
  /** Along the drawn direction (+1), against it (-1), or none. */
  sense: number;
  velocityMS: number;
}

function edgeState(
  verdict: LineUpVerdict | null,
  item: { id: Id; from: Run["from"]; to: Run["to"]; boreM?: number },
  sourceKey: string,
  returns: Uint8Array | null,
  passing: ReadonlyMap<Id, Passing>,
): EdgeState {
  const none: EdgeState = { kind: "idle", sense: 0, velocityMS: 0 };
  const result = verdict?.result;
  if (result?.outcome !== "solved") return none;
  const index = result.network.linkOf.get(item.id);
  let q = index === undefined ? 0 : (result.flow[index] as number);
  // A joint carries what passes both its parts, or the one that is screwed to a tank or a consumer.
  const { plan } = result.network;
  const ends = [item.from.part, item.to.part].filter((id) => plan.parts.some((part) => part.id === id));
  if (index === undefined)
    q = ends.length > 0 ? Math.min(...ends.map((id) => passing.get(id)?.flowM3S ?? 0)) : 0;
  if (q === 0) return none;
  const gauge = (gaugeAtPort(result, portKey(item.from)) + gaugeAtPort(result, portKey(item.to))) / 2;
  const isReturn =
    index === undefined ? ends.every((id) => passing.get(id)?.isReturn) : returns?.[index] === 1;
  const kind = isReturn ? "return" : gauge < 0 ? "vacuum" : "pressure";
  const sense = (portKey(item.from) === sourceKey ? 1 : -1) * Math.sign(q);
  const velocityMS = item.boreM ? Math.abs(q) / ((Math.PI / 4) * item.boreM ** 2) : 0;
  return { kind, sense: index === undefined ? 0 : sense, velocityMS };
}

const nothing: ReadonlyMap<Id, Passing> = new Map();

export const Plumbing = memo(function Plumbing(props: PlumbingProps) {
  const {
    network,
    placed,
    verdict,
    units,
    selectedId,
    glowIds,
    onSelect,
    onOperate,
    onNudge,
    isMoving,
    scale,
    doneKeys,
    differences,
  } = props;
  const text = Math.max(1, 1 / scale);
  const { job, plan } = network;
  const [drag, setDrag] = useState<{ id: Id; dx: number; dy: number } | null>(null);
  const grip = useRef<{ id: Id; x: number; y: number; scale: number; moved: boolean } | null>(null);
  const shift = (id: Id): Point => {
    const nudge = plan.nudges[id] ?? { dx: 0, dy: 0 };
    const held = drag?.id === id ? drag : { dx: 0, dy: 0 };
    return { x: nudge.dx + held.dx, y: nudge.dy + held.dy };
  };
  const press = (id: Id) => (event: ReactPointerEvent<SVGGElement>) => {
    if (!onNudge || event.pointerType === "touch") return;
    const matrix = (event.currentTarget.ownerSVGElement as SVGSVGElement).getScreenCTM();
    grip.current = { id, x: event.clientX, y: event.clientY, scale: matrix?.a ?? 1, moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: ReactPointerEvent<SVGGElement>) => {
    const held = grip.current;
    if (!held) return;
    const [dx, dy] = [(event.clientX - held.x) / held.scale, (event.clientY - held.y) / held.scale];
    if (!held.moved && Math.hypot(dx, dy) < 6) return;
    held.moved = true;
    setDrag({ id: held.id, dx, dy });
  };
  const release = () => {
    const held = grip.current;
    grip.current = null;
    if (held?.moved && drag) onNudge?.(held.id, Math.round(drag.dx), Math.round(drag.dy));
    setDrag(null);
  };
  const result = verdict?.result.outcome === "solved" ? verdict.result : null;
  const returns = result && returnLinks(result);
  const passing = result ? passingParts(result) : nothing;
  const parts = new Map(partsOf(job, plan).map((part) => [part.id, part]));
  const tanks = new Map(job.tanks.map((tank) => [tank.id, tank]));
  const connections = [...plan.runs, ...plan.joints.map((joint) => ({ ...joint, boreM: undefined }))];
  const runs = new Map(plan.runs.map((item) => [item.id, item]));

  return (
    <g>
      {connections.map((item) => {
        const points = placed.edges.get(item.id);
        if (!points) return null;
        const source = nearestPort(placed, points[0], portKey(item.from), portKey(item.to));
        const [a, b] =
          source === portKey(item.from) ? [item.from.part, item.to.part] : [item.to.part, item.from.part];
        const d = edgePath(points, shift(a), shift(b));
        const state = edgeState(verdict, item, source, returns, passing);
        return (
          <Edge
            key={item.id}
            d={d}
            state={state}
            isSelected={selectedId === item.id}
            glows={glowIds.includes(item.id)}
            isMoving={isMoving}
            difference={differences?.get(item.id)}
            middle={middleOf(points)}
            label={runs.has(item.id) ? edgeLabel(network, runs.get(item.id) as Run, units) : undefined}
            onSelect={() => onSelect(item.id)}
          />
        );
      })}
      {[...placed.nodes].map(([id, box]) => {
        const part = parts.get(id);
        const tank = tanks.get(id);
        if (!part && !tank) return null;
        const at = shift(id);
        return (
          <Hit
            key={id}
            role="button"
            tabIndex={0}
            aria-label={nodeLabel(part, tank, verdict, passing.get(id), units)}
            aria-pressed={selectedId === id}
            transform={`translate(${box.x + at.x} ${box.y + at.y})`}
            onClick={() => onSelect(id)}
            onDoubleClick={() => onOperate?.(id)}
            onKeyDown={(event) => {
              const step = {
                ArrowLeft: [-10, 0],
                ArrowRight: [10, 0],
                ArrowUp: [0, -10],
                ArrowDown: [0, 10],
              }[event.key];
              if (event.key === "Enter" || event.key === " ") {
                event.preventDefault();
                if (selectedId === id && onOperate) onOperate(id);
                else onSelect(id);
              } else if (event.altKey && step && onNudge) {
                event.preventDefault();
                onNudge(id, step[0] as number, step[1] as number);
              }
            }}
            onPointerDown={press(id)}
            onPointerMove={move}
            onPointerUp={release}
            onPointerCancel={release}
          >
            <rect className="ring" x={-6} y={-6} width={box.width + 12} height={box.height + 12} rx={3} />
            <rect
              x={0}
              y={0}
              width={Math.max(24, box.width)}
              height={Math.max(24, box.height)}
              fill="transparent"
            />
            {(selectedId === id || glowIds.includes(id)) && (
              <rect
                x={-5}
                y={-5}
                width={box.width + 10}
                height={box.height + 10}
                rx={3}
                fill={glowIds.includes(id) ? "var(--danger)" : "none"}
                fillOpacity={0.12}
                stroke={glowIds.includes(id) ? "var(--danger)" : "var(--act)"}
                strokeDasharray="3 3"
                strokeWidth={1.6}
              />
            )}
            {part && (
              <PartNode
                part={part}
                placed={placed}
                box={box}
                verdict={verdict}
                passing={passing.get(id)}
                units={units}
                text={text}
              />
            )}
            {differences?.has(id) && (
              <DifferenceSign x={box.width - 2} y={0} difference={differences.get(id) as Difference} />
            )}
            {tank && (
              <TankNode
                tank={tank}
                box={box}
                placed={placed}
                units={units}
                text={text}
                aboardM3={
                  (verdict?.result.outcome === "solved"
                    ? verdict.result.settings.conditions
                    : plan.conditions
                  ).aboardM3[id] ?? 0
                }
              />
            )}
          </Hit>
        );
      })}
      {doneKeys &&
        [...doneKeys].map((key) => {
          const port = placed.ports.get(key);
          if (!port) return null;
          const at = shift(key.split(".")[0] as Id);
          return (
            <path
              key={key}
              d={`M${port.x + at.x - 5} ${port.y + at.y - 3}l4 5 8 -10`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={3}
            />
          );
        })}
    </g>
  );
});

/** Middle of the longest stretch of a drawn way. */
function middleOf(points: readonly Point[]): Point | undefined {
  let best: Point | undefined;
  let most = -1;
  points.forEach((b, i) => {
    const a = points[i - 1];
    const length = a ? Math.hypot(b.x - a.x, b.y - a.y) : -1;
    if (!a || length <= most) return;
    most = length;
    best = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  });
  return best;
}

/** Which of a connection's two ports its drawn way starts from. */
function nearestPort(placed: Placed, start: Point | undefined, a: string, b: string): string {
  const off = (key: string) => {
    const port = placed.ports.get(key);
    return port && start ? Math.hypot(port.x - start.x, port.y - start.y) : Infinity;
  };
  return off(a) <= off(b) ? a : b;
}

const edgeLabel = (network: Network, item: Run, units: UnitChoice) =>
  `Hose from ${network.ports.get(portKey(item.from))?.ownerName} to ${network.ports.get(portKey(item.to))?.ownerName}, ${formatQuantity("length", item.boreM, units.bore)}`;

function Edge({
  d,
  state,
  isSelected,
  glows,
  isMoving,
  difference,
  middle,
  label,
  onSelect,
}: {
  d: string;
  state: EdgeState;
  isSelected: boolean;
  glows: boolean;
  isMoving: boolean;
  difference: Difference | undefined;
  middle: Point | undefined;
  label: string | undefined;
  onSelect: () => void;
}) {
  const style = lineStyle[state.kind];
  return (
    <Hit
      role={label ? "button" : undefined}
      tabIndex={label ? 0 : undefined}
      aria-label={label}
      aria-pressed={label ? isSelected : undefined}
      onClick={label ? onSelect : undefined}
      onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && label && onSelect()}
    >
      <path className="ring" d={d} />
      <path d={d} fill="none" stroke="transparent" strokeWidth={16} />
      {(isSelected || glows) && (
        <path
          d={d}
          fill="none"
          stroke={glows ? "var(--danger)" : "var(--act)"}
          strokeWidth={10}
          opacity={0.28}
        />
      )}
      <path d={d} fill="none" {...style} strokeLinejoin="round" />
      {difference && middle && <DifferenceSign x={middle.x} y={middle.y} r={6} difference={difference} />}
      {state.sense !== 0 && isMoving && (
        <Live
          d={d}
          fill="none"
          stroke="var(--raised)"
          strokeWidth={1.8}
          strokeDasharray="5 19"
          style={{
            animationDuration: `${Math.min(6, 0.9 / Math.max(0.05, state.velocityMS)).toFixed(2)}s`,
            animationDirection: state.sense > 0 ? "normal" : "reverse",
          }}
        />
      )}
    </Hit>
  );
}

function nodeLabel(
  part: Part | undefined,
  tank: Tank | undefined,
  verdict: LineUpVerdict | null,
  passing: Passing | undefined,
  units: UnitChoice,
): string {
  if (tank) return `Tank ${tank.name}`;
  if (!part) return "";
  const setting = verdict?.lineUp.valves[part.id];
  if (isValve(part)) return `${part.name}, ${settingText(part, setting)}`;
  const outcome = verdict?.result.outcome === "solved" ? verdict.result.consumers.get(part.id) : undefined;
  const flowM3S = outcome?.outcome === "fed" ? outcome.feedM3S : passing?.flowM3S;
  return flowM3S === undefined ? part.name : `${part.name}, ${formatQuantity("flow", flowM3S, units.flow)}`;
}
