/** A board to scale from the front and from the side: what hangs on it, its hoses, the rooms of what is chosen, and what clashes. */
import { type KeyboardEvent, useId } from "react";
import styled from "styled-components";
import type { BoardJudged } from "~/core/boards/board";
import { type ArrangedPart, portAt } from "~/core/fit/arrange";
import type { BoardPort, Laid } from "~/core/fit/laying";
import { type Box, type Hung, placedIn, type Solid } from "~/core/fit/panel";
import { isValve } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import type { Id } from "~/core/kinds/record";
import { serviceTexts } from "~/messages/board";
import { useTrade } from "~/state/job";
import { type By, useDrag } from "~/ui/useDrag";

const Sheet = styled.svg`
  display: block; background: var(--panel); border: 1px solid var(--hairline); max-width: 100%; touch-action: pan-y;
  text { font-size: 12px; fill: var(--ink); font-stretch: 84%; paint-order: stroke; stroke: var(--panel); stroke-width: 3px; stroke-linejoin: round; }
  .part { cursor: grab; touch-action: none; outline: none; }
  .part:focus-visible .body { stroke: var(--act); stroke-width: 3.5; }
  .dim { fill: var(--act); font-weight: 650; }
  .bad { fill: var(--danger); font-weight: 650; }
`;

const STEP_M = 0.001;
const LONG_STEP_M = 0.01;
const MARGIN = 34;
const FINGER_PX = 44;
const GAP = 26;

interface Gripped {
  i: number;
  start: Hung;
}

interface Props {
  judged: BoardJudged;
  widthPx: number;
  mostHeightPx: number;
  chosenId: Id | null;
  choose: (id: Id) => void;
  /** A part is moved: held, or let go. */
  onMove: (number: number, to: Hung, isOver: boolean) => void;
  onTurn: (number: number) => void;
}

export function BoardDrawing(props: Props) {
  const { judged, widthPx, mostHeightPx, chosenId, choose, onMove, onTurn } = props;
  const { layout, at, hoses } = judged;
  const { board, task, parts } = layout;
  const trade = useTrade();
  const hatch = useId();
  const deepest = Math.max(
    board.opening.lidM,
    ...task.parts.flatMap(({ bodies }) => bodies.map(({ y1 }) => y1)),
  );
  const hasSide = widthPx > 620;
  const area = task.hoseArea;
  const sideM = hasSide ? deepest + 0.05 : 0;
  const k = Math.min(
    (widthPx - 2 * MARGIN - (hasSide ? GAP : 0)) / (area.w + sideM),
    (mostHeightPx - 2 * MARGIN) / area.h,
  );
  const height = area.h * k + 2 * MARGIN;
  const px = (x: number) => MARGIN + (x - area.x) * k;
  const py = (z: number) => MARGIN + (area.z + area.h - z) * k;
  const sideX = (y: number) => MARGIN + area.w * k + GAP + y * k;
  const rect = ({ x, z, w, h }: Box) => ({ x: px(x), y: py(z + h), width: w * k, height: h * k });
  const bad = new Set(judged.clashes.flatMap(({ a, b }) => [a, ...(b ? [b] : [])]));
  const chosen = task.parts.findIndex(({ id }) => id === chosenId);
  const movedBy = ({ start }: Gripped, { x, y }: By) =>
    tidy({ ...start, x: start.x + x / k, z: start.z - y / k });
  const grip = useDrag<Gripped>({
    press: ({ i }) => {
      choose((parts[i] as Part).id);
      return true;
    },
    move: (held, by) => onMove(held.i, movedBy(held, by), false),
    drop: (held, by) => onMove(held.i, movedBy(held, by), true),
  });
  const drag = (i: number) => ({
    ...grip({ i, start: at[i] as Hung }),
    onKeyDown: (event: KeyboardEvent<SVGGElement>) => {
      const by = event.shiftKey ? LONG_STEP_M : STEP_M;
      const one = at[i] as Hung;
      const moves: Record<string, Hung> = {
        ArrowLeft: { ...one, x: one.x - by },
        ArrowRight: { ...one, x: one.x + by },
        ArrowUp: { ...one, z: one.z + by },
        ArrowDown: { ...one, z: one.z - by },
      };
      const to = moves[event.key];
      if (event.key.toLowerCase() === "t" && !event.ctrlKey && !event.metaKey) {
        event.preventDefault();
        onTurn(i);
      } else if (to) {
        event.preventDefault();
        onMove(i, tidy(to), true);
      }
    },
  });
  return (
    <Sheet
      width={widthPx}
      height={height}
      role="group"
      aria-label={`${board.name}, seen from the front, to scale`}
    >
      <defs>
        <pattern id={hatch} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--idle)" strokeWidth="1.1" />
        </pattern>
        <pattern
          id={`${hatch}bad`}
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--danger)" strokeWidth="1.8" />
        </pattern>
      </defs>
      <rect {...rect(area)} fill="var(--ground)" />
      <rect {...rect(task.board)} fill="var(--raised)" stroke="var(--idle)" strokeDasharray="7 4" />
      <rect {...rect(task.opening)} rx={7} fill="none" stroke="var(--ink)" strokeWidth={2.4} />
      {board.obstacles.map(({ id, name, xM, zM, widthM, heightM }) => (
        <g key={id}>
          <rect
            {...rect({ x: xM, z: zM, w: widthM, h: heightM })}
            fill={`url(#${hatch})`}
            stroke="var(--idle)"
          />
          <text x={px(xM) + 3} y={py(zM) - 4}>
            {name}
          </text>
        </g>
      ))}
      {chosen >= 0 && (
        <Rooms part={task.parts[chosen] as ArrangedPart} at={at[chosen] as Hung} rect={rect} hatch={hatch} />
      )}
      {hoses.map((one, i) => (
        <HoseShape
          key={task.hoses[i]?.id}
          laid={one}
          outerPx={(task.hoses[i]?.outerM ?? 0.01) * k}
          px={px}
          py={py}
        />
      ))}
      {(task.screwed ?? []).map(({ id, a, b }) => {
        const [one, other] = [a, b].map(({ part, port }) =>
          portAt(task.parts[part] as ArrangedPart, at[part] as Hung, port),
        ) as [BoardPort, BoardPort];
        return (
          <path
            key={id}
            d={`M${px(one.x)} ${py(one.z)}L${px(other.x)} ${py(other.z)}`}
            stroke={judged.apart.some((joint) => joint.id === id) ? "var(--danger)" : "var(--ink)"}
            strokeWidth={5}
            strokeDasharray="3 2"
          />
        );
      })}
      {/* Small parts take a finger beside them too, but never before another part's own body. */}
      {task.parts.map((part, i) => {
        const box = rect(placedIn(part.bodies[0] as Solid, part, at[i] as Hung));
        const [w, h] = [Math.max(FINGER_PX, box.width), Math.max(FINGER_PX, box.height)];
        return (
          <rect
            key={part.id}
            className="part"
            x={box.x + (box.width - w) / 2}
            y={box.y + (box.height - h) / 2}
            width={w}
            height={h}
            fill="transparent"
            onPointerDown={drag(i).onPointerDown}
          />
        );
      })}
      {task.parts.map((part, i) => {
        const corner = at[i] as Hung;
        const own = parts[i] as Part;
        const isBad = bad.has(part.id);
        return (
          <g
            key={part.id}
            className="part"
            tabIndex={0}
            role="button"
            aria-pressed={chosenId === part.id}
            aria-label={`${own.name}: ${trade.length(corner.x)} from the left, ${trade.length(corner.z)} over the foot${isBad ? ", clashes" : ""}${part.isPinned ? ", pinned" : ""}; arrows move it, T turns it`}
            onFocus={() => choose(part.id)}
            {...drag(i)}
          >
            {part.bodies.map((body, n) => (
              <rect
                key={n}
                className="body"
                {...rect(placedIn(body, part, corner))}
                rx={3}
                fill="var(--panel)"
                stroke={isBad ? "var(--danger)" : chosenId === part.id ? "var(--act)" : "var(--ink)"}
                strokeWidth={isBad || chosenId === part.id ? 2.6 : 1.6}
              />
            ))}
            <Inside part={own} box={rect(placedIn(part.bodies[0] as Solid, part, corner))} turn={corner.t} />
          </g>
        );
      })}
      {namesOf(
        task.parts.map((part, i) => ({
          part: parts[i] as Part,
          box: rect(placedIn(part.bodies[0] as Solid, part, at[i] as Hung)),
        })),
      ).map((name, i) => (
        <Name
          key={name.part.id}
          {...name}
          isPinned={task.parts[i]?.isPinned ?? false}
          isTold={widthPx > 500 || chosenId === name.part.id}
        />
      ))}
      <Clashes judged={judged} rect={rect} hatch={`${hatch}bad`} />
      {chosen >= 0 && (
        <Dimensions
          from={task.parts[chosen] as ArrangedPart}
          at={at[chosen] as Hung}
          px={px}
          py={py}
          text={trade.length}
        />
      )}
      <text x={px(0)} y={height - 8}>
        {`board ${trade.length(board.widthM)} × ${trade.length(board.heightM)}, opening ${trade.length(board.opening.widthM)} × ${trade.length(board.opening.heightM)}`}
      </text>
      {hasSide && (
        <g>
          <text x={sideX(0)} y={MARGIN - 12}>
            from its right, depth
          </text>
          <rect
            x={sideX(-0.012)}
            y={py(board.heightM)}
            width={0.012 * k}
            height={board.heightM * k}
            fill={`url(#${hatch})`}
            stroke="var(--ink)"
          />
          {task.parts.map((part, i) =>
            part.bodies.map((body, n) => {
              const one = placedIn(body, part, at[i] as Hung);
              return (
                <rect
                  key={`${part.id}${n}`}
                  x={sideX(one.y0)}
                  y={py(one.z + one.h)}
                  width={(one.y1 - one.y0) * k}
                  height={one.h * k}
                  fill={i === chosen ? "var(--raised)" : "none"}
                  stroke={
                    i === chosen
                      ? "var(--act)"
                      : one.y1 > board.opening.lidM
                        ? "var(--danger)"
                        : "var(--idle)"
                  }
                  strokeWidth={i === chosen ? 2.4 : 1.2}
                />
              );
            }),
          )}
          <line
            x1={sideX(board.opening.lidM)}
            x2={sideX(board.opening.lidM)}
            y1={py(board.opening.zM + board.opening.heightM)}
            y2={py(board.opening.zM)}
            stroke="var(--ink)"
            strokeWidth={2.4}
          />
          <text x={sideX(board.opening.lidM)} y={height - 8} textAnchor="end">
            lid at {trade.length(board.opening.lidM)}
          </text>
        </g>
      )}
    </Sheet>
  );
}

const tidy = ({ x, z, t }: Hung): Hung => ({
  x: Math.round(x / STEP_M) * STEP_M,
  z: Math.round(z / STEP_M) * STEP_M,
  t,
});

type Rect = (box: Box) => { x: number; y: number; width: number; height: number };

function Rooms({ part, at, rect, hatch }: { part: ArrangedPart; at: Hung; rect: Rect; hatch: string }) {
  return (part.service ?? []).map((room) => {
    const box = rect(placedIn(room, part, at));
    return (
      <g key={room.kind} style={{ pointerEvents: "none" }}>
        <rect {...box} fill={`url(#${hatch})`} stroke="var(--act)" strokeDasharray="5 3" />
        <text x={box.x + box.width / 2} y={box.y + box.height / 2 + 4} textAnchor="middle">
          {serviceTexts[room.kind as keyof typeof serviceTexts]}
        </text>
      </g>
    );
  });
}

/** A hose as thick as it is; dashed red where nothing lets it through. */
function HoseShape({
  laid,
  outerPx,
  px,
  py,
}: {
  laid: Laid;
  outerPx: number;
  px: (x: number) => number;
  py: (z: number) => number;
}) {
  const [x0, z0] = laid.fromM;
  let d = "";
  for (let i = 0; i < laid.xzM.length; i += 2)
    d += `${i === 0 ? "M" : "L"}${px(x0 + (laid.xzM[i] as number)).toFixed(1)} ${py(z0 + (laid.xzM[i + 1] as number)).toFixed(1)}`;
  const isBad = laid.through.length > 0;
  return (
    <g style={{ pointerEvents: "none" }} fill="none" strokeLinejoin="round">
      <path
        d={d}
        stroke={isBad ? "var(--danger)" : "var(--ink)"}
        strokeWidth={outerPx}
        strokeDasharray={isBad ? "9 5" : undefined}
      />
      <path d={d} stroke="var(--atRest)" strokeWidth={Math.max(1, outerPx - 2.6)} />
    </g>
  );
}

/** What tells a body at a glance: a bowl, a handle, a dial; an arrow is drawn where fuel has one way. */
function Inside({ part, box, turn }: { part: Part; box: ReturnType<Rect>; turn: number }) {
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const style = { pointerEvents: "none" as const };
  if (isValve(part))
    return (
      <g style={style} transform={`rotate(${-90 * turn} ${cx} ${cy})`}>
        <circle
          cx={cx}
          cy={cy}
          r={Math.min(box.width, box.height) * 0.22}
          fill="var(--raised)"
          stroke="var(--ink)"
        />
        <path
          d={`M${cx} ${cy}V${cy - Math.min(box.width, box.height) * 0.42}`}
          stroke="var(--ink)"
          strokeWidth={5}
          strokeLinecap="round"
        />
      </g>
    );
  if (part.kind === "filter" || part.kind === "pumpFilterUnit")
    return (
      <g style={style} stroke="var(--ink)" fill="none">
        <path d={`M${box.x} ${box.y + box.height * 0.24}h${box.width}`} />
        <rect
          x={box.x + 1.5}
          y={box.y + box.height * 0.72}
          width={box.width - 3}
          height={box.height * 0.28 - 1.5}
          fill="var(--atRest)"
          stroke="none"
        />
        <path d={`M${box.x} ${box.y + box.height * 0.72}h${box.width}`} />
      </g>
    );
  if (part.kind === "gauge")
    return (
      <g style={style} stroke="var(--ink)" fill="var(--raised)">
        <circle cx={cx} cy={cy} r={Math.min(box.width, box.height) * 0.4} />
        <path d={`M${cx} ${cy}l${-box.width * 0.2} ${-box.height * 0.2}`} strokeWidth={2} />
      </g>
    );
  return null;
}

/** A name with the foot of its first line. */
interface Named {
  part: Part;
  box: ReturnType<Rect>;
  inside: boolean;
  lines: string[];
  footY: number;
}

/** Names in their bodies where there is room, else over or under them, clear of the names before them. */
function namesOf(parts: readonly { part: Part; box: ReturnType<Rect> }[]): Named[] {
  const taken: ReturnType<Rect>[] = parts.map(({ box }) => box);
  return parts.map(({ part, box }) => {
    const { inside, lines } = nameLines(part.name, box.width, box.height);
    if (inside) {
      const middle = box.y + box.height * (part.kind === "filter" ? 0.45 : 0.5);
      return { part, box, inside, lines, footY: middle - (lines.length - 1) * 7 + 4 };
    }
    const width = part.name.length * CHAR_PX;
    const at = (footY: number) => ({
      x: box.x + box.width / 2 - width / 2,
      y: footY - 11,
      width,
      height: 14,
    });
    const under = box.y + box.height;
    const spots = [box.y - 5, under + 13, box.y - 20, under + 28];
    const covered = (footY: number) =>
      taken.reduce((sum, other) => sum + (other === box ? 0 : sharedPx2(at(footY), other)), 0);
    const footY = spots.reduce((best, one) => (covered(one) < covered(best) - 1 ? one : best));
    taken.push(at(footY));
    return { part, box, inside, lines, footY };
  });
}

const sharedPx2 = (a: ReturnType<Rect>, b: ReturnType<Rect>): number =>
  Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y));

function Name({
  box,
  inside,
  lines,
  footY,
  isPinned,
  isTold,
}: Named & {
  isPinned: boolean;
  /** Told even where it has no room in its body. */
  isTold: boolean;
}) {
  return (
    <g style={{ pointerEvents: "none" }}>
      {(inside || isTold ? lines : []).map((line, i) => (
        <text key={line} x={box.x + box.width / 2} y={footY + i * 14} textAnchor="middle" fontWeight={600}>
          {line}
        </text>
      ))}
      {isPinned && (
        <path
          d={`M${box.x + 7} ${box.y + 4}v9M${box.x + 3} ${box.y + 7}h8`}
          stroke="var(--ink)"
          strokeWidth={2.4}
        />
      )}
    </g>
  );
}

const CHAR_PX = 6.2;
function nameLines(name: string, width: number, height: number): { inside: boolean; lines: string[] } {
  const fits = (line: string) => line.length * CHAR_PX <= width - 4;
  if (fits(name)) return { inside: true, lines: [name] };
  const lines = name.split(" ");
  return lines.every(fits) && lines.length * 14 < height * 0.6
    ? { inside: true, lines }
    : { inside: false, lines: [name] };
}

/** Where two things want the same room, and by how much. */
function Clashes({ judged, rect, hatch }: { judged: BoardJudged; rect: Rect; hatch: string }) {
  const { length } = useTrade();
  const { layout, at, clashes } = judged;
  return clashes.map(({ code, a, b, by, where }, i) => {
    const n = layout.task.parts.findIndex(({ id }) => id === a);
    const part = layout.task.parts[n];
    const body = part?.bodies[0];
    const spot = where ?? (part && body ? placedIn(body, part, at[n] as Hung) : null);
    if (!spot) return null;
    const box = rect(spot);
    return (
      <g key={`${code}${a}${b}`} style={{ pointerEvents: "none" }}>
        {where && <rect {...box} fill={`url(#${hatch})`} stroke="var(--danger)" strokeWidth={2} />}
        <text
          className="bad"
          x={box.x + box.width / 2}
          y={where ? box.y - 5 - (i % 2) * 13 : box.y + box.height + 14}
          textAnchor="middle"
        >
          {length(by)}
        </text>
      </g>
    );
  });
}

function Dimensions({
  from,
  at,
  px,
  py,
  text,
}: {
  from: ArrangedPart;
  at: Hung;
  px: (x: number) => number;
  py: (z: number) => number;
  text: (m: number) => string;
}) {
  const body = placedIn(from.bodies[0] as Solid, from, at);
  const [midX, midZ] = [body.x + body.w / 2, body.z + body.h / 2];
  return (
    <g style={{ pointerEvents: "none" }} stroke="var(--act)" strokeWidth={1.3} fill="none">
      <path
        d={`M${px(0)} ${py(midZ)}H${px(body.x)}M${px(midX)} ${py(0)}V${py(body.z)}`}
        strokeDasharray="4 3"
      />
      <text className="dim" x={(px(0) + px(body.x)) / 2} y={py(midZ) - 4} textAnchor="middle">
        {text(body.x)}
      </text>
      <text className="dim" x={px(midX) + 4} y={(py(0) + py(body.z)) / 2 + 4}>
        {text(body.z)}
      </text>
    </g>
  );
}
