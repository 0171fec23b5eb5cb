/*
 * Decides: whether the pickup is where it should be, or a sump, a deeper or a second one is worth its work.
 * Seen in three seconds: litres that stay behind over pitch and roll, with the job's envelope drawn on it.
 */

import { memo, useDeferredValue, useMemo } from "react";
import { engineFlows } from "~/core/network/settings";
import { envelopeOf } from "~/core/plan/envelope";
import type { PickupFit, TankPort } from "~/core/plan/types";
import {
  type AttitudeMap,
  cutLengthM,
  deadFuelM3,
  deadFuelMap,
  depthTaken,
  fittedDepthM,
  leastClearanceM,
  pickupOptions,
  wellHoldsS,
  worstDeadFuel,
} from "~/core/tanks/pickup";
import { formatNumber } from "~/core/units/format";
import { notNegative } from "~/fields/checks";
import { Term } from "~/fields/Term";
import { sideWords } from "~/messages/sides";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Table } from "~/ui/table";
import {
  Facts,
  Fields,
  LengthField,
  Lengths,
  Panel,
  Small,
  useEditTank,
  useTank,
  useUnits,
} from "./tankContext";

const COUNT = 41;
const CELL = 7;
const SIDE = COUNT * CELL;
const LEFT = 46;
/** The map reaches this much beyond the envelope, at least 10 degrees. */
const BEYOND = 1.5;

const optionNames = {
  asFound: "as found",
  deeper: "cut deeper",
  sump: "with a sump",
  second: "a second pickup, other end",
} as const;

export function PickupPanel() {
  const { job } = useJob();
  const { tank } = useTank();
  const outlet = tank.ports.find(({ role }) => role === "outlet");
  if (!outlet) return <Panel>This tank has no pickup yet: add its ports in Lay out.</Panel>;
  return (
    <>
      <DeadFuel port={outlet} key={outlet.id} />
      <Options port={outlet} />
      <CutLength port={outlet} />
      {job.consumers.length === 0 && (
        <Small>Add an engine, and the seconds a well feeds on are computed.</Small>
      )}
    </>
  );
}

function DeadFuel({ port }: { port: TankPort }) {
  const { job } = useJob();
  const sides = sideWords(job.kind);
  const { tank, attitude, setAttitude } = useTank();
  const { volume } = useUnits();
  const envelope = envelopeOf(job);
  const reach = useMemo(
    () => ({
      pitchDeg: Math.min(45, Math.max(10, BEYOND * envelope.pitchDeg)),
      rollDeg: Math.min(45, Math.max(10, BEYOND * envelope.rollDeg)),
    }),
    [envelope.pitchDeg, envelope.rollDeg],
  );
  const deferred = useDeferredValue(tank);
  const map = useMemo(() => deadFuelMap(deferred, [port.mouth], reach, COUNT), [deferred, port.mouth, reach]);
  const worst = worstDeadFuel(tank, [port.mouth], envelope);
  const most = Math.max(...map.deadM3);
  const x = (roll: number) => LEFT + ((roll + reach.rollDeg) / (2 * reach.rollDeg)) * SIDE;
  const y = (pitch: number) => 18 + ((reach.pitchDeg - pitch) / (2 * reach.pitchDeg)) * SIDE;
  const corners = [-1, 1].flatMap((p) =>
    [-1, 1].map((r) => ({ pitchDeg: p * envelope.pitchDeg, rollDeg: r * envelope.rollDeg })),
  );
  const fromEvent = (clientX: number, clientY: number, box: DOMRect) => {
    const scale = (LEFT + SIDE + 20) / box.width;
    const roll = (((clientX - box.left) * scale - LEFT) / SIDE) * 2 * reach.rollDeg - reach.rollDeg;
    const pitch = reach.pitchDeg - (((clientY - box.top) * scale - 18) / SIDE) * 2 * reach.pitchDeg;
    const tidy = (deg: number, most: number) => Math.round(2 * Math.max(-most, Math.min(most, deg))) / 2;
    setAttitude({ pitchDeg: tidy(pitch, reach.pitchDeg), rollDeg: tidy(roll, reach.rollDeg) });
  };
  return (
    <Panel>
      <h3>
        <Term of="dead fuel">Fuel left</Term> when the {port.name} comes clear
      </h3>
      <Facts>
        <dt>Standing level</dt>
        <dd>{volume(deadFuelM3(tank, [port.mouth], { pitchDeg: 0, rollDeg: 0 }))}</dd>
        <dt>As held on the drawing, {attitudeText(attitude)}</dt>
        <dd>{volume(deadFuelM3(tank, [port.mouth], attitude))}</dd>
        <dt>Worst of the envelope, {attitudeText(worst.attitude)}</dt>
        <dd>{volume(worst.deadM3)}</dd>
      </Facts>
      <svg
        viewBox={`0 0 ${LEFT + SIDE + 20} ${SIDE + 52}`}
        role="img"
        aria-label={`Dead fuel over pitch and roll: ${volume(worst.deadM3)} at the worst of the envelope`}
        style={{ width: "100%", maxWidth: 380, display: "block", cursor: "crosshair" }}
        onClick={(event) =>
          fromEvent(event.clientX, event.clientY, event.currentTarget.getBoundingClientRect())
        }
      >
        <Cells map={map} most={most} />
        <rect
          x={x(-envelope.rollDeg)}
          y={y(envelope.pitchDeg)}
          width={x(envelope.rollDeg) - x(-envelope.rollDeg)}
          height={y(-envelope.pitchDeg) - y(envelope.pitchDeg)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2}
          strokeDasharray="7 4"
        />
        {corners.map((corner) => (
          <text
            key={`${corner.pitchDeg} ${corner.rollDeg}`}
            x={x(corner.rollDeg) + (corner.rollDeg < 0 ? 4 : -4)}
            y={y(corner.pitchDeg) + (corner.pitchDeg > 0 ? 14 : -5)}
            textAnchor={corner.rollDeg < 0 ? "start" : "end"}
            {...label}
          >
            {volume(deadFuelM3(tank, [port.mouth], corner))}
          </text>
        ))}
        <circle
          cx={x(attitude.rollDeg)}
          cy={y(attitude.pitchDeg)}
          r={6}
          fill="var(--raised)"
          stroke="var(--act)"
          strokeWidth={3}
        />
        <rect x={LEFT} y={18} width={SIDE} height={SIDE} fill="none" stroke="var(--ink)" />
        <text x={LEFT} y={12} {...plain}>
          {sides.front} up {formatNumber(reach.pitchDeg)}°
        </text>
        <text x={LEFT} y={SIDE + 32} {...plain}>
          {sides.port} down {formatNumber(reach.rollDeg)}°
        </text>
        <text x={LEFT + SIDE} y={SIDE + 32} textAnchor="end" {...plain}>
          {sides.starboard} down {formatNumber(reach.rollDeg)}°
        </text>
        <text x={LEFT} y={SIDE + 47} {...plain}>
          dashed: the job's envelope; darker: more stays behind
        </text>
      </svg>
      <Small>A click on the map, or the sliders beside the drawing, holds the tank at that attitude.</Small>
    </Panel>
  );
}

const plain = { fontSize: 12, fill: "var(--soft)" } as const;
const label = {
  fontSize: 12,
  fill: "var(--ink)",
  fontWeight: 650,
  paintOrder: "stroke",
  stroke: "var(--raised)",
  strokeWidth: 4,
} as const;

const Cells = memo(function Cells({ map, most }: { map: AttitudeMap; most: number }) {
  return (
    <g shapeRendering="crispEdges">
      {Array.from(map.deadM3, (dead, k) => {
        const [i, j] = [Math.floor(k / COUNT), k % COUNT];
        return (
          <rect
            key={k}
            x={LEFT + j * CELL}
            y={18 + (COUNT - 1 - i) * CELL}
            width={CELL}
            height={CELL}
            fill="var(--ink)"
            opacity={most > 0 ? 0.04 + 0.5 * (Math.round((8 * dead) / most) / 8) : 0.04}
          />
        );
      })}
    </g>
  );
});

const attitudeText = ({ pitchDeg, rollDeg }: { pitchDeg: number; rollDeg: number }) =>
  `pitch ${formatNumber(pitchDeg)}°, roll ${formatNumber(rollDeg)}°`;

function Options({ port }: { port: TankPort }) {
  const { job, plan } = useJob();
  const { tank } = useTank();
  const { volume, length } = useUnits();
  const options = pickupOptions(tank, port, envelopeOf(job));
  const [found] = options;
  const [engine] = job.consumers;
  const feed = engine ? engineFlows(engine, plan.conditions.load[engine.id] ?? 1).feedM3S : 0;
  const seconds = wellHoldsS(tank, port.mouth, feed);
  return (
    <Panel>
      <h3>What another pickup gains</h3>
      <Table>
        <thead>
          <tr>
            <th>Pickup</th>
            <th className="n">Left, level</th>
            <th className="n">Left, worst</th>
            <th className="n">Gained at worst</th>
          </tr>
        </thead>
        <tbody>
          {options.map((option) => (
            <tr key={option.kind}>
              <td>{optionNames[option.kind]}</td>
              <td className="n">{volume(option.levelM3)}</td>
              <td className="n">{volume(option.worstM3)}</td>
              <td className="n" style={{ fontWeight: 650 }}>
                {option.kind === "asFound" ? "" : volume((found?.worstM3 ?? 0) - option.worstM3)}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {seconds !== null && (
        <p>
          The well feeds on for <b>{formatNumber(seconds, 2)} s</b> when the fuel round it has run to the
          other side.
        </p>
      )}
      <Small>
        A sump of {length(0.1)} by {length(0.08)} at the pickup; a second pickup counts where it can be
        switched to. Common practice.
      </Small>
    </Panel>
  );
}

/** The plate, the tube and the floor in one small drawing, with the figure to mark on the tube. */
function CutLength({ port }: { port: TankPort }) {
  const { tank } = useTank();
  const { length } = useUnits();
  const edit = useEditTank(tank);
  const fit: PickupFit = tank.pickupFit ?? {
    portId: port.id,
    mouth: "bevelled",
    depthM: Math.max(0.05, port.outside.zM),
    sagM: 0,
    carrierM: 0,
    clearanceM: 0.02,
  };
  const set = (change: Partial<PickupFit>) => void edit({ pickupFit: { ...fit, ...change } });
  const least = leastClearanceM(fit.mouth, port.boreM);
  const cut = cutLengthM(fit);
  return (
    <Panel>
      <h3>Length to cut the tube to</h3>
      <div style={{ display: "grid", gridTemplateColumns: "minmax(130px, 170px) 1fr", gap: 12 }}>
        <svg
          viewBox="0 0 170 200"
          role="img"
          aria-label={`Mark the tube at ${length(cut)} from the plate's face`}
        >
          <path d="M10 26H160" stroke="var(--ink)" strokeWidth={5} />
          <path d="M10 176H160" stroke="var(--idle)" strokeWidth={2} strokeDasharray="5 3" />
          <path d="M10 176Q85 196 160 176" fill="none" stroke="var(--ink)" strokeWidth={2.5} />
          <path
            d={`M62 12V${fit.mouth === "bevelled" ? 160 : 166}M74 12V166`}
            stroke="var(--ink)"
            strokeWidth={2}
          />
          <path
            d={fit.mouth === "bevelled" ? "M62 160L74 166" : "M62 166H74"}
            stroke="var(--ink)"
            strokeWidth={2}
          />
          <path
            d="M104 29V166M99 34L104 28L109 34M99 161L104 167L109 161"
            stroke="var(--act)"
            fill="none"
            strokeWidth={1.8}
          />
          <text x={110} y={100} fontSize={15} fontWeight={700} fill="var(--ink)">
            {length(cut)}
          </text>
          {fit.carrierM > 0 && (
            <text x={10} y={50} fontSize={12} fill="var(--soft)">
              {depthTaken(fit) === "free"
                ? `${length(fit.depthM)} free, ${length(fittedDepthM(fit))} fitted`
                : `${length(fittedDepthM(fit))} fitted`}
            </text>
          )}
          <text x={10} y={18} fontSize={12} fill="var(--soft)">
            plate
          </text>
          <text x={10} y={172} fontSize={12} fill="var(--soft)">
            empty
          </text>
          <text x={108} y={198} fontSize={12} fill="var(--soft)">
            full
          </text>
        </svg>
        <div>
          <Fields>
            <LengthField
              label="Plate's face to the bottom"
              value={fit.depthM}
              basis={tank.pickupFit ? "measured" : "assumed"}
              onCommit={(depthM) => set({ depthM })}
            />
            <Lengths
              of={fit}
              set={(change) => set(change)}
              fields={[
                { key: "sagM", label: "Floor sinks when full by", check: notNegative },
                { key: "carrierM", label: "Sprung carrier pressed by", check: notNegative },
                { key: "clearanceM", label: "Clearance wanted", check: notNegative },
              ]}
            />
            {fit.carrierM > 0 && (
              <Select
                label="Depth was taken"
                value={depthTaken(fit)}
                options={[
                  { id: "free", name: "on the free unit" },
                  { id: "fitted", name: "as it is fitted" },
                ]}
                onChange={(taken) => set({ taken })}
              />
            )}
            <Select
              label="Mouth"
              value={fit.mouth}
              options={[
                { id: "bevelled", name: "bevelled or notched" },
                { id: "square", name: "square" },
              ]}
              onChange={(mouth) => set({ mouth })}
            />
          </Fields>
          <Small>
            {fit.clearanceM < least
              ? `This mouth needs ${length(least)}.`
              : `Hang the tank as when full before measuring; ${length(0.02)} where dirt may lie.`}
          </Small>
          {!tank.pickupFit && <Button onPress={() => set({})}>Keep these figures</Button>}
        </div>
      </div>
    </Panel>
  );
}
