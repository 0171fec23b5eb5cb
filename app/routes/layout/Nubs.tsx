/*
 * Decides: which free port goes to which.
 * Seen in three seconds: every open port as a nub; once one is held, what can take it, lit.
 */
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { Placed } from "~/core/drawing/placed";
import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import { freePorts, type Joinable, joinables } from "~/core/plan/joining";
import { type PlacedPort, portKey } from "~/core/plan/ports";
import { useJob } from "~/state/job";
import { type By, useDrag } from "~/ui/useDrag";
import { focusDrawn } from "../job/focusDrawn";

const Nub = styled.g`
  cursor: crosshair; outline: none; touch-action: none;
  .dot { fill: var(--raised); stroke: var(--act); stroke-width: 2; }
  &:hover .dot, &[data-state="over"] .dot, &[data-state="from"] .dot { fill: var(--act); }
  &[data-state="fits"] .dot { fill: color-mix(in srgb, var(--act) 55%, var(--raised)); }
  &[data-state="no"] .dot { opacity: 0.35; }
  &:focus-visible .halo { stroke: var(--act); stroke-width: 2; }
`;
const Said = styled.p`
  position: absolute; right: 12px; bottom: 10px; z-index: 3; margin: 0; max-width: calc(100% - 250px); pointer-events: none;
  &[data-held="true"] { background: var(--ink); color: var(--raised); padding: 6px 10px; border-radius: 2px; }
`;
/** A hand lets go within this of a nub, screen px. */
const NEAR_PX = 24;
const RADIUS_PX = 6;
const FINGER_PX = 22;
/** How far a press may wander and still be a tap, screen px. */
const TAP_PX = 6;

interface Point {
  x: number;
  y: number;
}

/** What is being joined, for whoever stands outside of the drawing. */
export interface Joining {
  from: PlacedPort | null;
  begin: (from: PlacedPort | null) => void;
  /** Let go over empty ground: something may be put there. */
  onGround: (from: PlacedPort) => void;
}

export function Nubs({ placed, scale, joining }: { placed: Placed; scale: number; joining: Joining }) {
  const { job, plan, dispatch, select } = useJob();
  const { from, begin, onGround } = joining;
  const [hand, setHand] = useState<Point | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const press = useRef<{ wasHeld: boolean; wasDragged: boolean } | null>(null);
  const px = (screen: number) => screen / scale;
  const nubs = freePorts(job, plan).flatMap((port) => {
    const key = portKey(port.ref);
    const at = placed.ports.get(key);
    const out = at?.side === "WEST" ? -px(RADIUS_PX) : px(RADIUS_PX);
    return at ? [{ key, port, x: at.x + out, y: at.y }] : [];
  });
  const offers = new Map<string, Joinable["rank"]>(
    from ? joinables(job, plan, from.ref).map(({ port, rank }) => [portKey(port.ref), rank]) : [],
  );
  const fromKey = from && portKey(from.ref);
  const start = nubs.find(({ key }) => key === fromKey);
  const end = nubs.find(({ key }) => key === over);
  const leave = () => {
    begin(null);
    setHand(null);
    setOver(null);
  };
  const group = useRef<SVGGElement>(null);
  const laying = useRef<Id | null>(null);
  // The nub that was pressed is gone: whoever works by keys goes on from the hose that came of it.
  useEffect(() => {
    const id = laying.current;
    if (id === null || !placed.edges.has(id)) return;
    laying.current = null;
    const hose = group.current?.ownerSVGElement?.querySelector<SVGGElement>(`[data-id="${CSS.escape(id)}"]`);
    if (document.activeElement === document.body) hose?.focus();
  }, [placed]);
  const join = (to: PlacedPort) => {
    if (!from) return;
    const id = newId();
    laying.current = id;
    void dispatch({ name: "connect", id, from: from.ref, to: to.ref }).then(({ ok }) => ok && select(id));
    leave();
  };
  const nearest = ({ x, y }: Point) =>
    nubs
      .filter(({ key }) => offers.has(key))
      .map((nub) => ({ nub, away: Math.hypot(nub.x - x, nub.y - y) }))
      .filter(({ away }) => away <= px(NEAR_PX))
      .sort((a, b) => a.away - b.away)[0]?.nub;
  const inDrawing = (by: By): Point => {
    const matrix = group.current?.ownerSVGElement?.getScreenCTM();
    const { x, y } = new DOMPoint(by.clientX, by.clientY).matrixTransform(matrix?.inverse());
    return { x, y };
  };
  const grip = useDrag<PlacedPort>(
    {
      press: (port) => {
        press.current = { wasHeld: from !== null, wasDragged: false };
        if (!from) begin(port);
        return true;
      },
      move: (_, by) => {
        if (!press.current || press.current.wasHeld) return;
        press.current.wasDragged = true;
        const at = inDrawing(by);
        setHand(at);
        setOver(nearest(at)?.key ?? null);
      },
      drop: (port, by) => {
        if (press.current?.wasHeld) return leave();
        const to = nearest(inDrawing(by));
        if (to) return join(to.port);
        const under = document.elementFromPoint(by.clientX, by.clientY);
        const on = under?.closest("[data-drawing] [data-id]")?.getAttribute("data-id") ?? null;
        leave();
        if (plan.runs.some(({ id }) => id === on)) teeInto(on as Id, port);
        else if (on === null && under?.closest("[data-drawing], [data-ground]")) onGround(port);
      },
    },
    TAP_PX,
  );
  /** A second tap: on what can take it, or on what is held, which lets go of it. */
  const onTap = (port: PlacedPort) => {
    if (!press.current?.wasHeld || press.current.wasDragged) return;
    if (offers.has(portKey(port.ref))) join(port);
    else leave();
  };
  /** A tee in a hose, and its branch joined to what is held. */
  const teeInto = (runId: Id, port: PlacedPort) => {
    const [tee, hose] = [newId(), newId()];
    laying.current = hose;
    void dispatch({
      name: "several",
      commands: [
        { name: "insertPart", id: tee, kind: "tee", runId, newRunId: newId() },
        { name: "connect", id: hose, from: port.ref, to: { part: tee, port: "c" } },
      ],
    }).then(({ ok }) => ok && select(hose));
  };
  /** By keys the offers are gone through in their order, the fitting and near first. */
  const onKey = (port: PlacedPort) => (event: KeyboardEvent<SVGGElement>) => {
    const order = [...offers.keys()];
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (event.key === "Escape" && from) {
      leave();
      focusDrawn(port.ref.part);
    } else if (event.key.toLowerCase() === "j") beginFrom(port.ref.part, portKey(port.ref));
    else if (event.key === "Enter" || event.key === " ") {
      const to = nubs.find(({ key }) => key === over);
      if (from && to) join(to.port);
      else begin(port);
    } else if (step && from && order.length > 0) {
      const now = over === null ? -1 : order.indexOf(over);
      setOver(order[(now + step + order.length) % order.length] ?? null);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  /** The next free port of a part, held and with the focus. */
  const beginFrom = (id: Id, after?: string) => {
    const own = nubs.filter(({ port }) => port.ref.part === id);
    const next = own[(own.findIndex(({ key }) => key === after) + 1) % Math.max(1, own.length)];
    if (!next) return;
    begin(next.port);
    setOver(null);
    group.current?.querySelector<SVGGElement>(`[data-nub="${CSS.escape(next.key)}"]`)?.focus();
  };
  const stateOf = (key: string) => {
    if (!from) return "free";
    if (key === fromKey) return "from";
    if (key === over) return "over";
    const rank = offers.get(key);
    return rank === undefined ? "no" : rank < 2 ? "fits" : "no";
  };
  /** As large as a finger, but no nub lies over another one's half of the way. */
  const reach = (key: string, x: number, y: number) =>
    nubs.reduce(
      (r, other) => (other.key === key ? r : Math.min(r, Math.hypot(other.x - x, other.y - y) / 2)),
      px(FINGER_PX),
    );
  const tip = end ?? hand;
  return (
    <g ref={group}>
      {start && tip && (
        <line
          x1={start.x}
          y1={start.y}
          x2={tip.x}
          y2={tip.y}
          stroke="var(--act)"
          strokeWidth={px(3)}
          strokeDasharray={end ? undefined : `${px(6)} ${px(4)}`}
          pointerEvents="none"
        />
      )}
      {nubs.map(({ key, port, x, y }) => (
        <Nub
          key={key}
          role="button"
          tabIndex={-1}
          data-nub={key}
          aria-label={`${from && key !== fromKey ? "Join to" : "Join from"} ${port.ownerName}, ${port.name}`}
          aria-pressed={key === fromKey || key === over}
          data-state={stateOf(key)}
          transform={`translate(${x} ${y})`}
          {...grip(port)}
          onClick={() => onTap(port)}
          onKeyDown={onKey(port)}
        >
          <circle className="halo" r={px(11)} fill="none" stroke="transparent" />
          <circle r={reach(key, x, y)} fill="transparent" />
          <circle
            className="dot"
            r={px(stateOf(key) === "fits" || stateOf(key) === "over" ? 8 : RADIUS_PX)}
          />
        </Nub>
      ))}
    </g>
  );
}

/** What is held, said; and how it is let go. */
export function JoiningSays({ from }: Pick<Joining, "from">) {
  return (
    <Said role="status" data-held={from !== null}>
      {from && `${from.ownerName}, ${from.name}: choose where it goes. Escape or itself lets go.`}
    </Said>
  );
}
