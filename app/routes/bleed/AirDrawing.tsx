/** The way at its true heights with what it holds: fuel solid, air as open circles, foam as circles in fuel. */
import { Wrench } from "lucide-react";
import styled from "styled-components";
import type { AirFlow } from "~/core/air/flow";
import type { BleedJoint } from "~/core/air/joints";
import { type AirPicture, jointPlace, type PictureVessel } from "~/core/air/picture";
import type { JointKey } from "~/core/air/session";
import { jointName } from "~/messages/bleeding";
import { useTrade } from "~/state/job";
import { useWidth } from "~/ui/useWidth";

const Frame = styled.div`
  margin: 0 16px 8px; background: var(--raised); border: 1px solid var(--hairline); overflow-x: auto;
  &:focus-visible { outline: 2px solid var(--act); outline-offset: -2px; }
`;
const Room = styled.div`
  position: relative;
  svg { display: block; }
  text { font-size: 12px; fill: var(--ink); font-stretch: 84%; }
  .small { fill: var(--soft); font-size: 11.5px; }
`;
const Ring = styled.button`
  position: absolute; transform: translate(-50%, -50%); width: 28px; height: 28px; border-radius: 50%; border: 1.5px solid var(--act); background: var(--raised); color: var(--act); display: grid; place-items: center; padding: 0; cursor: pointer;
  &::after { content: ""; position: absolute; inset: -8px; }
  &[aria-pressed="true"] { background: var(--act); color: var(--raised); }
  &[data-open="true"] { border-width: 4px; border-color: var(--danger); }
  &:focus-visible { outline: 2px solid var(--act); outline-offset: 3px; }
`;

const HIGH_PX = 236;
const FOOT_PX = 26;
const HEAD_PX = 30;
const LEAST_PX = 720;
const FULL = 0.98;
const DRY = 0.02;
/** Under the pressure of the air by more than this it is shown as drawn, Pa. */
const DRAWN_PA = 200;
const CHAR_PX = 6.2;

interface Props {
  picture: AirPicture;
  model: AirFlow;
  joints: readonly BleedJoint[];
  chosen: JointKey | null;
  onChoose: (key: JointKey) => void;
  isOpen: (key: JointKey) => boolean;
  /** Drawn anew when it changes: the model is the same all along. */
  tick: number;
}

/** Names that find room: of what is worked on first, then of the rest. */
function roomy(stations: readonly { x: number; name: string; kind: string }[]): Set<number> {
  const first = new Set(["tank", "filter", "pump", "engine"]);
  const order = [...stations.keys()].sort(
    (a, b) =>
      Number(first.has(stations[b]?.kind ?? "")) - Number(first.has(stations[a]?.kind ?? "")) || a - b,
  );
  const taken: [number, number][] = [];
  return new Set(
    order.filter((i) => {
      const { x, name } = stations[i] as { x: number; name: string };
      const half = (name.length * CHAR_PX) / 2 + 4;
      if (taken.some(([left, right]) => x + half > left && x - half < right)) return false;
      taken.push([x - half, x + half]);
      return true;
    }),
  );
}

export function AirDrawing({ picture, model, joints, chosen, onChoose, isOpen, tick }: Props) {
  const { pan, length } = useTrade();
  const [ref, wide] = useWidth(LEAST_PX);
  const width = Math.max(LEAST_PX, wide);
  const { cells } = model.mesh;
  const X = (xM: number) => 34 + (xM / picture.wideM) * (width - 44);
  const spanM = picture.highM - picture.lowM || 1;
  const Y = (zM: number) => HEAD_PX + (1 - (zM - picture.lowM) / spanM) * (HIGH_PX - HEAD_PX - FOOT_PX - 14);
  const fullOf = (cell: number) =>
    Math.max(0, Math.min(1, (model.fuelM3[cell] as number) / (cells.volumeM3[cell] as number)));
  const inkOf = (cell: number) =>
    (model.pressurePa[cell] as number) < model.atmospherePa - DRAWN_PA ? "var(--vacuum)" : "var(--pressure)";
  const { lines, vessels, stations, tank, surfaceM } = picture;
  const outline = lines.map(({ x0, z0, x1, z1 }) => `M${X(x0)} ${Y(z0)}L${X(x1)} ${Y(z1)}`).join("");
  const names = stations.map(({ x, name, kind }) => ({ x: X(x), name, kind }));
  const shown = roomy(names);
  const air = lines.reduce((sum, { cell }) => sum + model.airM3(cell), 0);
  return (
    <Frame
      role="region"
      aria-label={`The way at its heights: ${pan(air)} of air in its hoses`}
      tabIndex={wide < LEAST_PX ? 0 : undefined}
      data-tick={tick}
    >
      <Room ref={ref} style={{ minWidth: LEAST_PX }}>
        <svg width={width} height={HIGH_PX} aria-hidden>
          <defs>
            <pattern id="air-rings" width="12" height="12" patternUnits="userSpaceOnUse">
              <circle cx="4" cy="4" r="2.4" fill="none" stroke="var(--idle)" strokeWidth="1" />
              <circle cx="10" cy="10" r="1.6" fill="none" stroke="var(--idle)" strokeWidth="1" />
            </pattern>
          </defs>
          <line
            x1={30}
            x2={width}
            y1={Y(surfaceM)}
            y2={Y(surfaceM)}
            stroke="var(--ink)"
            strokeDasharray="2 4"
          />
          <text className="small" x={width - 6} y={Y(surfaceM) - 5} textAnchor="end">
            level of the fuel
          </text>
          {tank && (
            <g>
              <rect
                x={X(tank.x0)}
                y={Y(surfaceM)}
                width={X(tank.x1) - X(tank.x0)}
                height={HIGH_PX - FOOT_PX - Y(surfaceM)}
                fill="var(--atRest)"
              />
              <path
                d={`M${X(tank.x0)} ${HEAD_PX}V${HIGH_PX - FOOT_PX}H${X(tank.x1)}V${HEAD_PX}`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={1.5}
              />
            </g>
          )}
          <path d={outline} fill="none" stroke="var(--ink)" strokeWidth={11} strokeLinecap="round" />
          <path d={outline} fill="none" stroke="var(--raised)" strokeWidth={8} strokeLinecap="round" />
          {lines.map((line) => {
            const full = fullOf(line.cell);
            const d = `M${X(line.x0)} ${Y(line.z0)}L${X(line.x1)} ${Y(line.z1)}`;
            return (
              <g key={line.cell}>
                {full > DRY && (
                  <path
                    d={d}
                    stroke={inkOf(line.cell)}
                    strokeWidth={8}
                    strokeOpacity={full > FULL ? 1 : 0.35 + 0.5 * full}
                  />
                )}
                {full <= FULL && (
                  <path
                    d={d}
                    stroke={full > DRY ? "var(--raised)" : "var(--idle)"}
                    strokeWidth={full > DRY ? 3.4 : 2.6}
                    strokeLinecap="round"
                    strokeDasharray="0.1 6"
                  />
                )}
              </g>
            );
          })}
          {vessels.map(({ cell, x1, isAside }) => {
            // Past a spare the way goes on behind it.
            const next = isAside ? undefined : lines.find(({ x0 }) => x0 >= x1 - 1e-9);
            return next && X(next.x0) - X(x1) > 4 ? (
              <path
                key={`${cell}on`}
                d={`M${X(x1) - 4} ${Y(next.z0)}H${X(next.x0)}`}
                stroke="var(--ink)"
                strokeWidth={2}
                strokeDasharray="5 3"
              />
            ) : null;
          })}
          {vessels.map((vessel) => (
            <Vessel key={vessel.cell} vessel={vessel} full={fullOf(vessel.cell)} at={{ X, Y }} />
          ))}
          {stations.map(({ id, kind, x, zM }, i) =>
            kind === "filter" || kind === "tank" ? null : (
              <g key={`${id}${i}`}>
                <rect
                  x={X(x) - 7}
                  y={Y(zM) - 7}
                  width={14}
                  height={14}
                  fill="var(--raised)"
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                />
                {kind === "pump" && (
                  <path d={`M${X(x) - 4} ${Y(zM)}h7m-3 -3l3 3l-3 3`} fill="none" stroke="var(--ink)" />
                )}
              </g>
            ),
          )}
          {vessels.map(({ cell, x0, x1, floorM, tallM, name }) => {
            const m3 = model.airM3(cell);
            return m3 > 0.5e-6 ? (
              <text
                key={`${cell}air`}
                x={(X(x0) + X(x1)) / 2}
                y={Y(floorM + tallM / 2)}
                textAnchor="middle"
                paintOrder="stroke"
                stroke="var(--raised)"
                strokeWidth={4}
              >
                <title>{name}</title>
                {pan(m3)}
              </text>
            ) : null;
          })}
          {names.map(({ x, name }, i) =>
            shown.has(i) ? (
              <text key={`${name}${x}`} x={Math.max(30, x)} y={HIGH_PX - 8} textAnchor="middle">
                {name}
              </text>
            ) : null,
          )}
          {[picture.lowM, picture.highM].map((zM) => (
            <text key={zM} className="small" x={2} y={Y(zM) + 4}>
              {length(zM - surfaceM)}
            </text>
          ))}
        </svg>
        {joints.map((joint) => {
          const place = jointPlace(picture, joint);
          if (!place) return null;
          const state = isOpen(joint.key) ? "open" : "shut";
          return (
            <Ring
              key={joint.key}
              type="button"
              aria-label={`${jointName(joint)}: ${state}`}
              aria-pressed={chosen === joint.key}
              data-open={isOpen(joint.key)}
              style={{ left: X(place.x), top: Math.max(16, Y(place.zM) - 20) }}
              onClick={() => onChoose(joint.key)}
            >
              <Wrench size={15} aria-hidden />
            </Ring>
          );
        })}
      </Room>
    </Frame>
  );
}

function Vessel({
  vessel: { x0, x1, floorM, tallM, isAside },
  full,
  at: { X, Y },
}: {
  vessel: PictureVessel;
  full: number;
  at: { X: (m: number) => number; Y: (m: number) => number };
}) {
  const [left, right, top, foot] = [X(x0) + 4, X(x1) - 4, Y(floorM + tallM), Y(floorM)];
  const level = foot - full * (foot - top);
  return (
    <g>
      <rect x={left} y={top} width={right - left} height={foot - top} fill="var(--raised)" />
      <rect x={left} y={top} width={right - left} height={foot - top} fill="url(#air-rings)" />
      <rect x={left} y={level} width={right - left} height={foot - level} fill="var(--atRest)" />
      <rect
        x={left}
        y={top}
        width={right - left}
        height={foot - top}
        rx={4}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.5}
        strokeDasharray={isAside ? "4 3" : undefined}
      />
      <rect
        x={left - 3}
        y={top - 3}
        width={right - left + 6}
        height={6}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
    </g>
  );
}
