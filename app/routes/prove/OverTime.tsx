/*
 * Decides: how long the fuel lasts at this work, and when something must be changed over.
 * Seen in three seconds: each tank's level falling to its mouth, and the hour of the first grave event.
 */
import { useCallback, useMemo, useState } from "react";
import styled from "styled-components";
import type { Id } from "~/core/kinds/record";
import type { DutyStep, LineUp } from "~/core/plan/types";
import { conditionsAt, dutySeconds } from "~/core/running/run";
import { fromSi } from "~/core/units/factors";
import { percentText } from "~/core/units/format";
import { panUnit, tradeIn } from "~/core/units/trade";
import { QuantityField } from "~/fields/QuantityField";
import { nameOf } from "~/messages/notes";
import { clockText, eventText, hoursText, isGrave } from "~/messages/running";
import { useExplored, useJob } from "~/state/job";
import { type RunAsked, useRunOverTime } from "~/state/work";
import { Button } from "~/ui/button";
import type { Inset } from "~/ui/chart";
import { Slider } from "~/ui/fields";
import { LineChart } from "~/ui/lazyChart";
import { Table } from "~/ui/table";
import { Duty } from "./Duty";

const Split = styled.div`
  display: grid; grid-template-columns: minmax(0, 3fr) minmax(220px, 1fr); gap: 6px 18px; align-items: start;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Events = styled.ol`
  list-style: none; margin: 0; padding: 0; font-size: 13px;
  li { display: grid; grid-template-columns: 44px 1fr; border-bottom: 1px solid var(--hairline); }
  button { grid-column: 1 / -1; display: grid; grid-template-columns: 44px 1fr; gap: 6px; text-align: left; border: 0; background: none; padding: 5px 2px; cursor: pointer; min-height: max(30px, var(--finger)); }
  @media (pointer: coarse) { button { min-height: 44px; } }
`;

/** Line colours that mean something elsewhere are not spent here: tanks differ by dash, all in ink. */
const dashes: (number[] | undefined)[] = [undefined, [8, 4], [2, 3], [12, 3, 2, 3]];

/** A plan without a duty is shown one working day on the chosen line-up. Common practice, no source: half load. */
const DAY = { hours: 10, load: 0.5 } as const;
const first = (lineUp: LineUp | null): DutyStep[] =>
  lineUp ? [{ id: "day", ...DAY, lineUpId: lineUp.id, pitchDeg: 0, rollDeg: 0 }] : [];

export default function OverTime() {
  const { job, plan, lineUp, network, chooseLineUp } = useJob();
  const { explore } = useExplored();
  const duty = useMemo(() => plan.duty ?? first(lineUp), [plan.duty, lineUp]);
  const [ambientC, setAmbient] = useState(plan.conditions.fuelC);
  const [isStopped, setStopped] = useState(false);
  const [inset, setInset] = useState<Inset>({ leftPx: 57, rightPx: 11 });
  const alignTo = useCallback(
    (next: Inset) =>
      setInset((now) => (now.leftPx === next.leftPx && now.rightPx === next.rightPx ? now : next)),
    [],
  );
  const [turn, setTurn] = useState(0);
  const [atS, setAt] = useState<number | null>(null);
  const asked: RunAsked | null =
    isStopped || duty.length === 0 ? null : { start: plan.conditions, duty: [...duty], ambientC, turn };
  const work = useRunOverTime(job, asked);
  const ofS = dutySeconds(duty);
  const { units } = job;
  const name = (id: Id) => plan.lineUps.find((one) => one.id === id)?.name ?? nameOf(job, id);
  const run = work.status === "done" && !isStopped ? work.value : null;
  // The last run stays in sight while the next is worked out.
  const [last, setLast] = useState(run);
  if (run && run !== last) setLast(run);
  const shown = run ?? (isStopped ? null : last);
  const scrub = (next: number) => {
    setAt(next);
    if (!run) return;
    const conditions = conditionsAt({ ...network, plan: { ...plan, duty: [...duty] } }, run, next);
    const point = run.points.findLast((one) => one.atS <= next + 1e-6);
    if (point) chooseLineUp(point.lineUpId);
    if (conditions) explore(conditions);
  };
  const used = job.tanks.filter(({ id }) =>
    [...plan.runs, ...plan.joints].some(({ from, to }) => from.part === id || to.part === id),
  );
  const fallingPots = [
    ...new Set(shown?.events.flatMap((event) => (event.kind === "potDrains" ? [event.partId] : []))),
  ];
  return (
    <div>
      <p role="status" style={{ margin: "0 0 6px" }}>
        {duty.length === 0 && "No step yet: add one to run the plan over time."}
        {!plan.duty && lineUp && (
          <span>
            Assumed: a day of {DAY.hours} h on {lineUp.name} at {percentText(DAY.load)} load.{" "}
          </span>
        )}
        {duty.length > 0 && work.status === "working" && !isStopped && (
          <>
            Running {clockText(work.done)} of {clockText(ofS)}…{" "}
            <Button $quiet onPress={() => setStopped(true)}>
              Stop
            </Button>
          </>
        )}
        {isStopped && (
          <>
            Stopped.{" "}
            <Button
              $quiet
              onPress={() => {
                setStopped(false);
                setTurn(turn + 1);
              }}
            >
              Run it again
            </Button>
          </>
        )}
        {work.status === "failed" && !isStopped && `The run stopped: ${work.reason}`}
        {run && (
          <>
            <b>{tradeIn(units).volume(run.burnedM3)}</b> burned in {clockText(ofS)} h.{" "}
            {run.events.find(isGrave) ? (
              <b style={{ color: "var(--danger)" }}>
                {clockText(run.events.find(isGrave)?.atS ?? 0)}:{" "}
                {eventText(run.events.find(isGrave) as (typeof run.events)[number], units, name)}.
              </b>
            ) : (
              "Nothing runs dry, over or hot."
            )}
          </>
        )}
      </p>
      <Duty stored={duty} inset={inset}>
        {(strip) => (
          <Split>
            <div>
              {strip}
              {shown && (
                <>
                  <LineChart
                    label="Fuel in each tank over the duty"
                    x="hours"
                    y={`aboard, ${units.volume}`}
                    yMin={0}
                    xMax={ofS / 3600}
                    height={230}
                    onInset={alignTo}
                    moments={[
                      ...shown.events
                        .filter(({ kind, atS: s }) => kind !== "step" || s > 0)
                        .map((event) => ({ x: event.atS / 3600, isDanger: isGrave(event) })),
                      ...(atS === null ? [] : [{ x: atS / 3600, isNow: true }]),
                    ]}
                    series={used.map(({ id, name: tank }, i) => ({
                      name: tank,
                      colour: "ink",
                      dash: dashes[i % dashes.length],
                      points: shown.points.map((point) => ({
                        x: point.atS / 3600,
                        y: fromSi("volume", point.aboardM3[id] ?? 0, units.volume),
                      })),
                    }))}
                  />
                  {fallingPots.length > 0 && (
                    <LineChart
                      label="Fuel in the swirl pot over the duty"
                      x="hours"
                      y={`in the pot, ${panUnit(units)}`}
                      yMin={0}
                      xMax={ofS / 3600}
                      height={130}
                      series={fallingPots.map((id, i) => ({
                        name: name(id),
                        colour: "ink",
                        dash: dashes[i % dashes.length],
                        points: shown.points.map((point) => ({
                          x: point.atS / 3600,
                          y: fromSi("volume", point.potM3[id] ?? 0, panUnit(units)),
                        })),
                      }))}
                    />
                  )}
                  <Slider
                    label="Moment shown on the Keel"
                    value={atS ?? 0}
                    min={0}
                    max={ofS}
                    step={Math.max(1, Math.round(ofS / 500))}
                    output={atS === null ? "move to follow the run" : `${clockText(atS)} h`}
                    onChange={scrub}
                  />
                </>
              )}
            </div>
            {shown && (
              <div>
                <h3>Events</h3>
                <Events>
                  {shown.events.map((event, i) => (
                    <li key={i}>
                      <button type="button" onClick={() => scrub(event.atS)}>
                        <span>{clockText(event.atS)}</span>
                        <span style={{ fontWeight: isGrave(event) ? 650 : 400 }}>
                          {eventText(event, units, name)}
                        </span>
                      </button>
                    </li>
                  ))}
                </Events>
                <h3 style={{ marginTop: 10 }}>How long it feeds from now</h3>
                <Table style={{ fontSize: 13 }}>
                  <tbody>
                    {shown.endurance.map(({ lineUpId, load, found }) => (
                      <tr key={lineUpId}>
                        <td>
                          {name(lineUpId)}, at {percentText(load)}
                        </td>
                        <td className="n">
                          {found
                            ? `${hoursText(found.hours)} h, ${tradeIn(units).volume(found.burnedM3)}`
                            : "over a week"}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </Table>
                <p style={{ fontSize: 12, color: "var(--soft)" }}>
                  From the stored level, at the load and slope of its step above, until a mouth comes clear or
                  a consumer starves. A filter is taken to reach its change point in 500 h of rated flow:
                  common practice, no source.
                </p>
              </div>
            )}
          </Split>
        )}
      </Duty>
      <div style={{ width: 130 }}>
        <QuantityField
          label="Air outside"
          dimension="temperature"
          unit={units.temperature}
          value={ambientC}
          check={(si) =>
            si >= -60 && si <= 60
              ? null
              : `${tradeIn(units).temperature(-60)} to ${tradeIn(units).temperature(60)}.`
          }
          onCommit={(c) => setAmbient(c)}
        />
      </div>
    </div>
  );
}
