/** The plumbing drawn by itself: parts, hoses by what the fuel in them does, flow marks that move with its speed. */
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { toCells } from "~/core/drawing/nodes";
import type { Placed } from "~/core/drawing/placed";
import { type Passing, passingParts } from "~/core/hydraulics/derive";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { isValve } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import type { Id } from "~/core/kinds/record";
import type { Network } from "~/core/network/network";
import type { Difference } from "~/core/plan/compare";
import { partsOf, portKey } from "~/core/plan/ports";
import type { Run, Tank } from "~/core/plan/types";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { settingText } from "~/messages/settingText";
import { GradeGlyph } from "~/ui/glyphs";
import { useDrag } from "~/ui/useDrag";
import { type DrawnEdge, drawnEdges, type LineKind, type Point } from "./edges";
import { PartNode, TankNode } from "./nodes";
import { useWalk } from "./useWalk";
import { stepFrom } from "./walk";

export interface PlumbingProps {
  network: Network;
  placed: Placed;
  verdict: LineUpVerdict | null;
  units: UnitChoice;
  selectedId: Id | null;
  glowIds: readonly Id[];
  onSelect: (id: Id) => void;
  onOperate?: (id: Id) => void;
  /** Moved by hand, by cells of the drawing. */
  onMove?: (id: Id, dx: number, dy: number) => void;
  /** Screen px of a drawing unit: names keep their size on the screen however small the drawing is. */
  scale: number;
  /** Ticks to draw at ports: joints done. */
  doneKeys?: ReadonlySet<string>;
  /** Behind something that is closed: hatched. */
  hiddenIds?: ReadonlySet<Id>;
  /** What another plan has not, or has otherwise. */
  differences?: ReadonlyMap<Id, Difference>;
  /** What a Stop stands against: it carries the Stop's sign. */
  stopIds?: ReadonlySet<Id>;
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

const STOPPED = ", a Stop";

/** The Stop's octagon round a point, over what it stands against. */
function StopSign({ x, y, size }: Point & { size: number }) {
  return (
    <g transform={`translate(${x - size / 2} ${y - size / 2})`}>
      <GradeGlyph grade="stop" size={size} />
    </g>
  );
}

const Hit = styled.g`
  cursor: pointer; outline: none;
  @media (prefers-reduced-motion: no-preference) { transition: transform 220ms ease-out; }
  &:focus-visible .ring { stroke: var(--act); stroke-width: 2.5; }
  .ring { fill: none; stroke: transparent; }
  text { font-stretch: 80%; }
`;

export const lineStyle: Record<LineKind, { stroke: string; strokeWidth: number; strokeDasharray?: string }> =
  {
    idle: { stroke: "var(--idle)", strokeWidth: 1.6 },
    vacuum: { stroke: "var(--vacuum)", strokeWidth: 4 },
    pressure: { stroke: "var(--pressure)", strokeWidth: 4 },
    return: { stroke: "var(--back)", strokeWidth: 3, strokeDasharray: "8 5" },
  };

/** How far a press may wander and still choose, screen px. */
const TAP_PX = 6;
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
    onMove,
    scale,
    doneKeys,
    hiddenIds,
    differences,
    stopIds,
  } = props;
  const text = Math.max(1, 1 / scale);
  const { job, plan } = network;
  const [drag, setDrag] = useState<{ id: Id; dx: number; dy: number } | null>(null);
  const shift = (id: Id): Point => {
    return drag?.id === id ? { x: drag.dx, y: drag.dy } : { x: 0, y: 0 };
  };
  const grip = useDrag<Id>(
    {
      // A finger pans the drawing.
      press: (_, { pointerType }) => onMove !== undefined && pointerType !== "touch",
      move: (id, { x, y }) => setDrag({ id, dx: x, dy: y }),
      drop: (id, { x, y }) => {
        onMove?.(id, toCells(x), toCells(y));
        setDrag(null);
      },
    },
    TAP_PX,
  );
  const result = verdict?.result.outcome === "solved" ? verdict.result : null;
  const passing = useMemo(() => (result ? passingParts(result) : nothing), [result]);
  const parts = new Map(partsOf(job, plan).map((part) => [part.id, part]));
  const tanks = new Map(job.tanks.map((tank) => [tank.id, tank]));
  const choose = useLatest(onSelect);
  const group = useRef<SVGGElement>(null);
  const walk = useWalk(
    group,
    {
      has: (id) => placed.nodes.has(id) || placed.edges.has(id),
      first: job.tanks.find(({ id }) => placed.nodes.has(id))?.id ?? [...placed.nodes.keys()][0] ?? null,
      step: (id, arrow) => stepFrom(plan, placed, id, arrow),
    },
    selectedId,
  );

  return (
    <g ref={group} onFocus={walk.onFocus} onBlur={walk.onBlur} onKeyDown={walk.onKeyDown}>
      {hiddenIds && hiddenIds.size > 0 && (
        <pattern
          id="hatched"
          width={7}
          height={7}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width={7} height={7} fill="var(--raised)" opacity={0.55} />
          <path d="M0 0v7" stroke="var(--ink)" strokeWidth={1.6} opacity={0.7} />
        </pattern>
      )}
      {drawnEdges(network, placed, verdict, shift).map((edge) => (
        <Edge
          key={edge.id}
          {...edge}
          middleX={edge.middle?.x}
          middleY={edge.middle?.y}
          middle={undefined}
          isSelected={selectedId === edge.id}
          glows={glowIds.includes(edge.id)}
          isHidden={hiddenIds?.has(edge.id) ?? false}
          difference={differences?.get(edge.id)}
          hasStop={stopIds?.has(edge.id) ?? false}
          label={edge.run && edgeLabel(network, edge.run, edge.kind, units)}
          isStop={walk.stop === edge.id}
          onSelect={choose}
        />
      ))}
      {[...placed.nodes].map(([id, box]) => {
        const part = parts.get(id);
        const tank = tanks.get(id);
        if (!part && !tank) return null;
        const at = shift(id);
        return (
          <Hit
            key={id}
            data-id={id}
            role="button"
            tabIndex={walk.stop === id ? 0 : -1}
            aria-label={`${nodeLabel(part, tank, verdict, passing.get(id), units)}${hiddenIds?.has(id) ? ", behind a cover" : ""}${stopIds?.has(id) ? STOPPED : ""}`}
            aria-pressed={selectedId === id}
            // What moves by an edit is seen to move; what the hand holds goes with it at once.
            style={{
              transform: `translate(${box.x + at.x}px, ${box.y + at.y}px)`,
              ...(drag?.id === id && { transition: "none" }),
            }}
            onClick={() => onSelect(id)}
            onDoubleClick={() => onOperate?.(id)}
            onKeyDown={(event) => {
              const step = {
                ArrowLeft: [-1, 0],
                ArrowRight: [1, 0],
                ArrowUp: [0, -1],
                ArrowDown: [0, 1],
              }[event.key];
              if (event.key === "Enter" || event.key === " ") {
                event.preventDefault();
                if (selectedId === id && onOperate) onOperate(id);
                else onSelect(id);
              } else if (event.altKey && step && onMove) {
                event.preventDefault();
                event.stopPropagation();
                onMove(id, step[0] as number, step[1] as number);
              }
            }}
            {...grip(id)}
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
            {hiddenIds?.has(id) && (
              <rect
                x={-6}
                y={-6}
                width={box.width + 12}
                height={box.height + 12}
                fill="url(#hatched)"
                stroke="var(--ink)"
                strokeWidth={0.8}
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
            {stopIds?.has(id) && <StopSign x={0} y={0} size={17 * text} />}
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

const kindWords: Record<LineKind, string> = {
  idle: "idle",
  vacuum: "under vacuum",
  pressure: "under pressure",
  return: "return",
};
const edgeLabel = (network: Network, item: Run, kind: LineKind, units: UnitChoice) =>
  `Hose from ${network.ports.get(portKey(item.from))?.ownerName} to ${network.ports.get(portKey(item.to))?.ownerName}, ${tradeIn(units).bore(item.boreM)}, ${kindWords[kind]}`;

interface EdgeProps extends DrawnEdge {
  middleX: number | undefined;
  middleY: number | undefined;
  isSelected: boolean;
  glows: boolean;
  isHidden: boolean;
  difference: Difference | undefined;
  hasStop: boolean;
  label: string | undefined;
  /** The one stop of the whole drawing for the Tab key. */
  isStop: boolean;
  onSelect: (id: Id) => void;
}

/** One hose; drawn again only when something of it changes. */
const Edge = memo(function Edge({
  id,
  d,
  kind,
  isSelected,
  glows,
  isHidden,
  difference,
  hasStop,
  middleX,
  middleY,
  label,
  isStop,
  onSelect,
}: EdgeProps) {
  const choose = () => onSelect(id);
  return (
    <Hit
      data-id={id}
      role={label ? "button" : undefined}
      tabIndex={label ? (isStop ? 0 : -1) : undefined}
      aria-label={label && `${label}${hasStop ? STOPPED : ""}`}
      aria-pressed={label ? isSelected : undefined}
      onClick={label ? choose : undefined}
      onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && label && choose()}
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
      <path d={d} fill="none" {...lineStyle[kind]} strokeLinejoin="round" />
      {isHidden && <path d={d} fill="none" stroke="url(#hatched)" strokeWidth={14} />}
      {difference && middleX !== undefined && middleY !== undefined && (
        <DifferenceSign x={middleX} y={middleY} r={6} difference={difference} />
      )}
      {hasStop && middleX !== undefined && middleY !== undefined && (
        <StopSign x={middleX} y={middleY} size={15} />
      )}
    </Hit>
  );
});

/** A handler that stays the same while what it does changes: what is memoised need not be drawn for it. */
function useLatest<A extends unknown[]>(handler: (...args: A) => void): (...args: A) => void {
  const latest = useRef(handler);
  useEffect(() => {
    latest.current = handler;
  });
  return useCallback((...args: A) => latest.current(...args), []);
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
  return flowM3S === undefined ? part.name : `${part.name}, ${tradeIn(units).flow(flowM3S)}`;
}
