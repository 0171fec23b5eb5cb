/** Ends, adapters and hose of a joint on one axis, to scale: upper half in section, lower half from outside. */
import { useId } from "react";
import { type End, familyOf, isMale, sizeOf } from "~/core/ends/ends";

/** One piece on the axis: what it shows to the left, to the right, and whether a body stands between. */
export interface Piece {
  left: End | null;
  right: End | null;
  /** What stands in the list beside the drawing. */
  number: number;
}

const W = 560;
const H = 190;
const AXIS = 92;
const GAP_MM = 7;
const BODY_MM = 9;
const BROKEN_MM = 10;
/** Walls as they are drawn: of a body round a thread, and of a hose. Not to measure. */
const WALL = 1.36;
const HOSE_WALL_MM = 4;

const outsideMm = (end: End): number => {
  const { majorMm, boreMm, nominalMm } = sizeOf(end) ?? { majorMm: 10, boreMm: 6, nominalMm: 10 };
  if (end.family === "hose") return boreMm + 2 * HOSE_WALL_MM;
  return majorMm ?? nominalMm + 2;
};
const lengthMm = (end: End): number => (end.family === "hose" ? 24 : Math.max(8, 0.75 * outsideMm(end)));
const widthMm = ({ left, right }: Piece): number => {
  const ends = [left, right].filter((one) => one !== null);
  const body = left && right ? BODY_MM : BROKEN_MM;
  return ends.reduce((sum, end) => sum + lengthMm(end), 0) + body;
};
const heightOf = (end: End): number => outsideMm(end) * (isMale(end) || end.family === "hose" ? 1 : WALL);

/** Half of the narrowest bore on the way: what the fuel has. */
const boreMm = (pieces: readonly Piece[]): number =>
  Math.min(
    ...pieces.flatMap(({ left, right }) =>
      [left, right].flatMap((end) => (end && sizeOf(end)?.boreMm) ?? []),
    ),
  ) / 2;

export function JointDrawing({
  pieces,
  bad,
  label,
}: {
  pieces: readonly Piece[];
  bad: boolean;
  label: string;
}) {
  const hatch = useId();
  const tallest = Math.max(
    ...pieces.flatMap(({ left, right }) => [left, right].flatMap((end) => (end ? [heightOf(end)] : []))),
  );
  const all = pieces.reduce((sum, piece) => sum + widthMm(piece), 0) + GAP_MM * (pieces.length - 1);
  const scale = Math.min((W - 20) / all, 116 / tallest, 8);
  const placed = pieces.map((piece, i) => {
    const before = pieces.slice(0, i).reduce((sum, one) => sum + widthMm(one) + GAP_MM, 0);
    return { piece, x: (W - all * scale) / 2 + before * scale };
  });
  return (
    <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={label} style={{ width: "100%", maxWidth: 760 }}>
      <defs>
        <pattern id={hatch} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--soft)" strokeWidth="1.2" />
        </pattern>
      </defs>
      <rect
        x={placed[0]?.x ?? 0}
        y={AXIS - boreMm(pieces) * scale}
        width={all * scale}
        height={boreMm(pieces) * scale}
        fill="var(--atRest)"
      />
      <line x1={6} x2={W - 6} y1={AXIS} y2={AXIS} stroke="var(--soft)" strokeDasharray="14 3 3 3" />
      {placed.map(({ piece, x }) => (
        <PieceShape key={piece.number} piece={piece} x={x} scale={scale} hatch={`url(#${hatch})`} />
      ))}
      {placed.slice(1).map(({ piece, x }) => (
        <g key={piece.number} transform={`translate(${x - (GAP_MM * scale) / 2} 14)`}>
          {bad && pieces.length === 2 ? (
            <path d="M-6 -6L6 6M6 -6L-6 6" stroke="var(--danger)" strokeWidth={3} />
          ) : (
            <path d="M-7 0L-2 5L7 -6" fill="none" stroke="var(--ink)" strokeWidth={2.6} />
          )}
          <line
            y1={12}
            y2={148}
            stroke={bad && pieces.length === 2 ? "var(--danger)" : "var(--idle)"}
            strokeDasharray="2 3"
          />
        </g>
      ))}
    </svg>
  );
}

interface Drawn {
  x: number;
  scale: number;
  hatch: string;
}

function PieceShape({ piece, x, scale, hatch }: Drawn & { piece: Piece }) {
  const { left, right, number } = piece;
  const leftPx = left ? lengthMm(left) * scale : 0;
  const width = widthMm(piece) * scale;
  const rightPx = right ? lengthMm(right) * scale : 0;
  const body = width - leftPx - rightPx;
  const ends = [left, right].filter((one) => one !== null);
  const isHose = ends.every(({ family }) => family === "hose");
  const half = (Math.max(...ends.map(heightOf)) / 2) * (isHose ? 1 : 1.08) * scale;
  const bore = (Math.min(...ends.map((end) => sizeOf(end)?.boreMm ?? 4)) / 2) * scale;
  const middle = x + leftPx + body / 2;
  return (
    <g stroke="var(--ink)" strokeWidth={1.6} fill="var(--raised)">
      <rect x={x + leftPx} y={AXIS - half} width={body} height={half - bore} fill={hatch} />
      <rect x={x + leftPx} y={AXIS} width={body} height={half} />
      {!isHose && (
        <path d={`M${x + leftPx} ${AXIS + half * 0.55}h${body}`} stroke="var(--idle)" strokeWidth={1} />
      )}
      {left && <EndShape end={left} x={x + leftPx} way={-1} {...{ scale, hatch }} />}
      {right && <EndShape end={right} x={x + leftPx + body} way={1} {...{ scale, hatch }} />}
      <g transform={`translate(${middle} ${H - 14})`}>
        <line y1={-(H - 14 - AXIS) + half + 2} y2={-11} stroke="var(--soft)" strokeWidth={1} />
        <circle r={10} fill="var(--raised)" stroke="var(--ink)" strokeWidth={1.4} />
        <text textAnchor="middle" y={4.5} fontSize={12} fontWeight={650} fill="var(--ink)" stroke="none">
          {number}
        </text>
      </g>
    </g>
  );
}

/** An end that begins at `x` and reaches to the right or the left. */
function EndShape({ end, x, way, scale, hatch }: Drawn & { end: End; way: 1 | -1 }) {
  const size = sizeOf(end);
  const long = lengthMm(end) * scale;
  const half = (outsideMm(end) / 2) * scale;
  const bore = ((size?.boreMm ?? 4) / 2) * scale;
  const { seal, flankDeg } = familyOf(end);
  const to = (px: number) => x + way * px;
  const box = (y: number, height: number, fill: string) => (
    <rect x={Math.min(x, to(long))} y={y} width={long} height={height} fill={fill} />
  );
  if (end.family === "hose")
    return (
      <>
        {box(AXIS - half, half - bore, hatch)}
        {box(AXIS, half, "var(--raised)")}
      </>
    );
  if (!isMale(end)) {
    const wall = half * WALL;
    const depth = long * 0.86;
    return (
      <>
        {box(AXIS - wall, wall - half, hatch)}
        {box(AXIS, wall, "var(--raised)")}
        <path d={`M${to(long)} ${AXIS - half}H${to(long - depth)}V${AXIS - bore}`} fill="none" />
        <path
          d={`M${to(long)} ${AXIS + half}H${to(long - depth)}V${AXIS + bore}`}
          fill="none"
          strokeDasharray="4 3"
          strokeWidth={1}
        />
        {flankDeg !== null && (
          <Thread {...{ end, from: to(long - depth), to: to(long), y: AXIS - half, scale }} />
        )}
      </>
    );
  }
  if (seal === "barb") {
    const teeth = 3;
    const each = long / teeth;
    const upper = Array.from({ length: teeth }, (_, i) => {
      const [a, b] = [to(long - i * each), to(long - (i + 1) * each)];
      return `L${a} ${AXIS - half * 0.86}L${b} ${AXIS - half}`;
    }).join("");
    const lower = Array.from({ length: teeth }, (_, i) => {
      const [a, b] = [to(i * each), to((i + 1) * each)];
      return `L${a} ${AXIS + half}L${b} ${AXIS + half * 0.86}`;
    }).join("");
    return (
      <>
        <path d={`M${to(long)} ${AXIS - bore}${upper}L${x} ${AXIS - bore}Z`} fill={hatch} />
        <path d={`M${x} ${AXIS}${lower}L${to(long)} ${AXIS}Z`} />
      </>
    );
  }
  const cone = seal === "cone" || seal === "ring" ? long * 0.24 : 0;
  const thread = long - cone;
  const core = half - ((sizeOf(end)?.pitchMm ?? 0) * 0.6 * scale || 0);
  return (
    <>
      <path
        d={`M${x} ${AXIS - half}H${to(thread)}L${to(long)} ${AXIS - bore - 1}V${AXIS - bore}H${x}Z`}
        fill={hatch}
      />
      <path d={`M${x} ${AXIS}V${AXIS + half}H${to(thread)}L${to(long)} ${AXIS + bore + 1}V${AXIS}Z`} />
      {flankDeg !== null && (
        <>
          <Thread {...{ end, from: x, to: to(thread), y: AXIS - half, scale }} />
          <path
            d={turnsAlong(end, thread, scale)
              .map((share) => `M${to(share * thread)} ${AXIS + 1}L${to(share * thread) + 2} ${AXIS + half}`)
              .join("")}
            stroke="var(--idle)"
            strokeWidth={1}
          />
        </>
      )}
      <line x1={x} x2={to(thread)} y1={AXIS + core} y2={AXIS + core} stroke="var(--idle)" strokeWidth={1} />
    </>
  );
}

/** Places of a thread's turns as shares of its length. */
function turnsAlong(end: End, px: number, scale: number): number[] {
  const turns = Math.max(2, Math.floor(px / Math.max(3, (sizeOf(end)?.pitchMm ?? 2) * scale)));
  return Array.from({ length: turns }, (_, i) => (i + 0.5) / turns);
}

/** Crests of a thread along its edge, at its own pitch. */
function Thread({
  end,
  from,
  to,
  y,
  scale,
}: {
  end: End;
  from: number;
  to: number;
  y: number;
  scale: number;
}) {
  const pitch = Math.max(2.2, (sizeOf(end)?.pitchMm ?? 1.5) * scale);
  const turns = Math.max(2, Math.floor(Math.abs(to - from) / pitch));
  const step = (to - from) / turns;
  const depth = Math.min(5, pitch * 0.6);
  const crests = Array.from(
    { length: turns },
    (_, i) => `L${from + (i + 0.5) * step} ${y + depth}L${from + (i + 1) * step} ${y}`,
  ).join("");
  return <path d={`M${from} ${y}${crests}`} fill="none" strokeWidth={1.2} />;
}
