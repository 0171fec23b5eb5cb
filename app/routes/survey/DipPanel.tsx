import type { Change } from "~/core/edit/merge";
import { dayText } from "~/messages/when";
/*
 * Decides: how many litres a depth or a gauge reading stands for, and whether the gauge can be believed.
 * Seen in three seconds: litres over depth as a curve, the straight-line gauge's error, and what is left at E.
 */

import { Download, Printer, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { entriesOf } from "~/core/book/entries";
import { inOrder } from "~/core/edit/inOrder";
import type { Sender } from "~/core/plan/types";
import { fittedAttitude } from "~/core/tanks/attitude";
import {
  dipTable,
  fitFills,
  gaugeTable,
  senderReadings,
  volumeOfDip,
  worstGaugeErrorM3,
} from "~/core/tanks/dip";
import { boundsOf } from "~/core/tanks/shape";
import { soundingOf } from "~/core/tanks/tank";
import { fromSi } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { notNegative, positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { Strike } from "~/fields/Strike";
import { dipFaultText } from "~/messages/faults";
import { fileName, saveText } from "~/state/files";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { LineChart } from "~/ui/lazyChart";
import { ActionsHead } from "~/ui/place";
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

const stepOf = (unit: string) => (unit === "in" || unit === "ft" ? 0.0254 : 0.02);

export function DipPanel() {
  return (
    <>
      <DipTable />
      <Dips />
      <SenderCard />
      <Fills />
    </>
  );
}

function DipTable() {
  const { job } = useJob();
  const { tank, attitude } = useTank();
  const { units, length, volume } = useUnits();
  const edit = useEditTank(tank);
  const [step, setStep] = useState(stepOf(units.length));
  const rows = dipTable(tank, attitude, step);
  const sounding = soundingOf(tank);
  const { x, y } = boundsOf(tank.shape);
  const isLevel = attitude.pitchDeg === 0 && attitude.rollDeg === 0;
  const trim = isLevel ? "standing level" : `at pitch ${attitude.pitchDeg}°, roll ${attitude.rollDeg}°`;
  const save = async () => {
    const { toCsv } = await import("~/core/export/csv");
    const table = rows.map(({ depthM, volumeM3 }) => ({
      [`depth ${units.length}`]: Number(fromSi("length", depthM, units.length).toFixed(3)),
      [`volume ${units.volume}`]: Number(fromSi("volume", volumeM3, units.volume).toFixed(2)),
    }));
    saveText(`${fileName(job.name)}-${fileName(tank.name)}-dip.csv`, toCsv(table), "text/csv");
  };
  const within = (range: [number, number]) => (si: number) =>
    si >= range[0] && si <= range[1] ? null : "Lies outside the tank.";
  return (
    <Panel>
      <h3>Dip table, {trim}</h3>
      <LineChart
        label={`${tank.name}: volume over depth`}
        height={190}
        x={`depth, ${units.length}`}
        y={units.volume}
        series={[
          {
            name: trim,
            colour: "ink",
            points: rows.map((row) => ({
              x: fromSi("length", row.depthM, units.length),
              y: fromSi("volume", row.volumeM3, units.volume),
            })),
          },
        ]}
      />
      <Fields>
        <LengthField
          label="A line every"
          value={step}
          check={(si) => (si >= 0.001 ? null : `At least ${length(0.001)}.`)}
          onCommit={setStep}
        />
        <LengthField
          label="Sounded at: along"
          value={sounding.xM}
          check={within(x)}
          onCommit={(xM) => void edit({ sounding: { ...sounding, xM } })}
        />
        <LengthField
          label="Sounded at: across"
          value={sounding.yM}
          check={within(y)}
          onCommit={(yM) => void edit({ sounding: { ...sounding, yM } })}
        />
      </Fields>
      <div style={{ maxHeight: 180, overflow: "auto" }} tabIndex={0} role="group" aria-label="Dip table">
        <Table>
          <thead>
            <tr>
              <th className="n">Depth</th>
              <th className="n">Volume</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ depthM, volumeM3 }) => (
              <tr key={depthM}>
                <td className="n">{length(depthM)}</td>
                <td className="n">{volume(volumeM3)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <div style={{ display: "flex", gap: 10, alignItems: "center", margin: "6px 0 8px" }}>
        <Button onPress={() => void save()}>
          <Download size={16} /> CSV
        </Button>
        <Link
          to={`/job/${job.id}/print/dip?tank=${tank.id}&pitch=${attitude.pitchDeg}&roll=${attitude.rollDeg}&step=${step}`}
        >
          <Printer size={16} aria-hidden /> Dip card
        </Link>
      </div>
    </Panel>
  );
}

function Dips() {
  const { book, dispatch, enter, say } = useJob();
  const { tank, attitude } = useTank();
  const { units, volume, length } = useUnits();
  const [depth, setDepth] = useState<number | undefined>();
  const file = useRef<HTMLInputElement>(null);
  const dips = entriesOf(book, "dip").filter((one) => one.tankId === tank.id);
  const read = async (chosen: File) => {
    const { readDipCsv } = await import("~/core/export/dipCsv");
    const found = readDipCsv(await chosen.text(), units);
    if (!found.ok) return say(found.faults.map((fault) => dipFaultText(fault)).join("; "), true);
    const result = await enter(
      found.rows.map(({ at, depthM, volumeM3 }) => ({
        kind: "dip" as const,
        tankId: tank.id,
        depthM,
        ...(volumeM3 === null ? {} : { volumeM3 }),
        ...(at ? { at: new Date(at).toISOString() } : {}),
      })),
    );
    if (!result.ok) return;
    say(`${found.rows.length} dips entered.`);
  };
  const here = depth === undefined ? null : volumeOfDip(tank, attitude, depth);
  return (
    <Panel>
      <h3>Dips taken</h3>
      <Fields>
        <LengthField label="Depth on the stick" value={depth} check={notNegative} onCommit={setDepth} />
        {here !== null && depth !== undefined && (
          <>
            <p>
              holds <b>{volume(here)}</b>
            </p>
            <Button onPress={() => void enter({ kind: "dip", tankId: tank.id, depthM: depth })}>
              Enter in the log
            </Button>
            <Button
              onPress={() =>
                void dispatch({ name: "setConditions", change: { aboardM3: { [tank.id]: here } } })
              }
            >
              This is aboard now
            </Button>
          </>
        )}
      </Fields>
      {dips.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>When</th>
              <th className="n">Depth</th>
              <th className="n">By the table, level</th>
              <th className="n">Known</th>
              <ActionsHead name="Strike" />
            </tr>
          </thead>
          <tbody>
            {dips.map((dip) => (
              <tr key={dip.id}>
                <td>{dayText(dip.at)}</td>
                <td className="n">{length(dip.depthM)}</td>
                <td className="n">{volume(volumeOfDip(tank, fittedAttitude(tank), dip.depthM))}</td>
                <td className="n">{dip.volumeM3 === undefined ? "" : volume(dip.volumeM3)}</td>
                <td>
                  <Strike entryId={dip.id} what={`dip of ${length(dip.depthM)}, ${dayText(dip.at)}`} />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <input
        ref={file}
        type="file"
        accept=".csv,text/csv"
        className="sr"
        tabIndex={-1}
        aria-label="CSV of dips"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = "";
          if (chosen) void read(chosen);
        }}
      />
      <Button onPress={() => file.current?.click()}>
        <Upload size={16} /> Dips from CSV
      </Button>
      <Small>Columns: depth, and volume and at where they are known.</Small>
    </Panel>
  );
}

const kinds: { id: Sender["kind"]; name: string }[] = [
  { id: "ohm240to33", name: "240 to 33 ohm" },
  { id: "ohm10to180", name: "10 to 180 ohm" },
  { id: "ohm0to90", name: "0 to 90 ohm" },
  { id: "volt0to5", name: "0 to 5 V" },
  { id: "own", name: "own figures" },
];

function SenderCard() {
  const { tank, tilted } = useTank();
  const { units, volume } = useUnits();
  const edit = useEditTank(tank);
  const { sender } = tank;
  const { z } = boundsOf(tank.shape);
  const set = (change: Change<Sender>) => sender && void edit({ sender: { ...sender, ...change } });
  const choose = (kind: Sender["kind"]) => {
    const [emptyReading, fullReading] = senderReadings[kind];
    const height = z[1] - z[0];
    void edit({
      sender: { lowM: 0.05 * height, highM: 0.95 * height, ...sender, kind, emptyReading, fullReading },
    });
  };
  const rows = sender ? gaugeTable(tank, sender, fittedAttitude(tank)) : [];
  const worst = worstGaugeErrorM3(rows);
  const litres = (m3: number) => fromSi("volume", m3, units.volume);
  return (
    <Panel>
      <h3>Sender and gauge</h3>
      <Fields>
        <Select label="Sender" value={sender?.kind ?? null} options={kinds} onChange={choose} />
        {sender && (
          <>
            <QuantityField
              label="Reads empty"
              dimension="ratio"
              unit=""
              value={sender.emptyReading}
              check={notNegative}
              onCommit={(emptyReading) => set({ emptyReading })}
            />
            <QuantityField
              label="Reads full"
              dimension="ratio"
              unit=""
              value={sender.fullReading}
              check={notNegative}
              onCommit={(fullReading) => set({ fullReading })}
            />
            <Lengths
              of={sender}
              set={(change) => {
                const [at, value] = "lowM" in change ? [0, change.lowM] : [1, change.highM];
                const [lowM = sender.lowM, highM = sender.highM] = inOrder(
                  [sender.lowM, sender.highM],
                  at,
                  value ?? 0,
                  0,
                );
                set({ lowM, highM });
              }}
              fields={[
                { key: "lowM", label: "Float lowest at depth", check: notNegative },
                { key: "highM", label: "Float highest at depth", check: positive },
              ]}
            />
          </>
        )}
      </Fields>
      {sender && (
        <>
          <Facts>
            <dt>Left when the gauge says E</dt>
            <dd>{volume(rows[0]?.volumeM3 ?? 0)}</dd>
            <dt>Straight-line gauge is off by up to</dt>
            <dd>
              {worst < 0 ? "−" : "+"}
              {volume(Math.abs(worst))}, {formatNumber((100 * Math.abs(worst)) / tilted.capacityM3, 2)} %
            </dd>
          </Facts>
          <LineChart
            label="Volume over sender reading, and what a straight-line gauge says"
            height={190}
            x="reading"
            y={units.volume}
            series={[
              {
                name: "in the tank",
                colour: "ink",
                points: rows.map((row) => ({ x: row.reading, y: litres(row.volumeM3) })),
              },
              {
                name: "straight-line gauge says",
                colour: "back",
                dash: [6, 4],
                points: rows.map((row) => ({ x: row.reading, y: litres(row.straightM3) })),
              },
            ]}
          />
        </>
      )}
    </Panel>
  );
}

/** Known litres put in and what the sender read: the shape held against them. */
function Fills() {
  const { book, enter } = useJob();
  const { tank } = useTank();
  const { units, volume } = useUnits();
  const [added, setAdded] = useState<number | undefined>();
  const [reading, setReading] = useState<number | undefined>();
  const { sender } = tank;
  const fills = entriesOf(book, "fill").filter((one) => one.tankId === tank.id);
  if (!sender) return null;
  const fit = fitFills(tank, sender, fittedAttitude(tank), fills);
  return (
    <Panel>
      <h3>Calibrated by fills of known litres</h3>
      <Small>
        From one state on, enter each fill and the reading after it. Two fills are the least; the first may be
        nothing.
      </Small>
      <Fields>
        <QuantityField
          label="Put in"
          dimension="volume"
          unit={units.volume}
          value={added}
          check={notNegative}
          onCommit={setAdded}
        />
        <QuantityField
          label="Sender reads after it"
          dimension="ratio"
          unit=""
          value={reading}
          check={notNegative}
          onCommit={setReading}
        />
        <Button
          isDisabled={added === undefined || reading === undefined}
          onPress={() => {
            if (added === undefined || reading === undefined) return;
            void enter({ kind: "fill", tankId: tank.id, addedM3: added, reading }).then((result) => {
              if (!result.ok) return;
              setAdded(undefined);
              setReading(undefined);
            });
          }}
        >
          Enter the fill
        </Button>
      </Fields>
      {fit && (
        <>
          <p>
            The tank holds <b>{formatNumber(fit.scale * 100, 3)} %</b> of what its shape says;{" "}
            {volume(Math.max(0, fit.startM3))} was aboard before the first.
          </p>
          <Table>
            <thead>
              <tr>
                <th className="n">Reading</th>
                <th className="n">By the shape</th>
                <th className="n">Fitted</th>
                <th className="n">Fill misses by</th>
              </tr>
            </thead>
            <tbody>
              {fit.points.map((point, i) => (
                <tr key={i}>
                  <td className="n">{formatNumber(point.reading, 4)}</td>
                  <td className="n">{volume(point.shapeM3)}</td>
                  <td className="n">{volume(fit.scale * point.shapeM3)}</td>
                  <td className="n">{volume(point.missM3)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </>
      )}
      {fills.length > 0 && (
        <Small>
          Entered:{" "}
          {fills.map((fill) => (
            <span key={fill.id}>
              {volume(fill.addedM3)}, reads {formatNumber(fill.reading, 4)}{" "}
              <Strike entryId={fill.id} what={`fill of ${volume(fill.addedM3)}`} />{" "}
            </span>
          ))}
        </Small>
      )}
      {fills.length > 0 && !fit && (
        <Small>
          {fills.length} entered: one more at another reading, and the shape can be held against them.
        </Small>
      )}
    </Panel>
  );
}
