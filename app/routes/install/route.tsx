/** The work in its order, and the test of its joints. */

import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { entriesOf, type LeakCheck } from "~/core/book/entries";
import { MINUTE_S } from "~/core/units/factors";
import { gaugeUnit } from "~/core/units/trade";
import { type LeakState, leakStates } from "~/core/work/leakStates";
import { firstState, type LeakJoint, leakTest } from "~/core/work/leakTest";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { SchoolNote } from "~/fields/SchoolNote";
import { decayText, leakStateNames, leakStateSteps, underText } from "~/messages/leaks";
import { momentText } from "~/messages/when";
import { Plumbing } from "~/plumbing/Plumbing";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { useJob, useTrade } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Caution, PlaceHead, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { Tabs } from "~/ui/tabs";
import { Access } from "./Access";
import { PlanDrawing } from "./PlanDrawing";
import { WorkOrder } from "./WorkOrder";

export const meta = () => [{ title: "Install · Iron Keel" }];

const States = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; margin: 0 16px 8px;
`;
const Tick = styled.div`
  display: flex; gap: 6px;
`;

const Figures = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: flex-end;
  > * { min-width: 130px; }
`;

const nothing = { wetted: [], shutIn: [] };

const parts = ["work", "access", "leaks"] as const;
type InstallPart = (typeof parts)[number];
const Body = styled.div`
  h2 { font-size: 20px; padding: 8px 0 7px 16px; }
`;

export default function Install() {
  const [asked, ask] = useSearchParams();
  const part = parts.find((one) => one === asked.get("part")) ?? "work";
  return (
    <Body>
      <Tabs<InstallPart>
        label="Parts of installing"
        head={<h2>Install</h2>}
        chosen={part}
        onChoose={(next) => ask({ part: next }, { replace: true, preventScrollReset: true })}
        tabs={[
          { id: "work", name: "Work order", body: () => <WorkOrder /> },
          { id: "access", name: "Access", body: () => <Access /> },
          { id: "leaks", name: "Leak test", body: () => <LeakTest /> },
        ]}
      />
    </Body>
  );
}

/** What a gauge read at once and after a while, with the return blanked; the last of it stands in the hand-over. */
function DecayTest({ lineUpId }: { lineUpId: string }) {
  const { job, plan, book, enter } = useJob();
  const say = useTrade();
  const gauges = plan.parts.filter(({ kind }) => kind === "gauge");
  const [gaugeId, setGauge] = useState(
    gauges.find((one) => one.kind === "gauge" && one.measures === "pressure")?.id ?? gauges[0]?.id,
  );
  const [fromPa, setFrom] = useState<number>();
  const [toPa, setTo] = useState<number>();
  const [minutes, setMinutes] = useState(10);
  const last = entriesOf(book, "decay").findLast(
    (one) => one.lineUpId === lineUpId && one.planId === plan.id,
  );
  if (gaugeId === undefined) return <Sheet>No gauge in the plan tells a pressure.</Sheet>;
  const unit = gaugeUnit(job.units, 1);
  return (
    <Sheet>
      <h3>Does it hold?</h3>
      <Figures>
        <Select
          label="Gauge"
          value={gaugeId}
          options={gauges.map(({ id, name }) => ({ id, name }))}
          onChange={setGauge}
        />
        <QuantityField label="At once" dimension="pressure" unit={unit} value={fromPa} onCommit={setFrom} />
        <QuantityField label="After a while" dimension="pressure" unit={unit} value={toPa} onCommit={setTo} />
        <QuantityField
          label="Minutes between"
          dimension="ratio"
          unit=""
          value={minutes}
          check={positive}
          onCommit={setMinutes}
        />
        <Button
          $main
          isDisabled={fromPa === undefined || toPa === undefined}
          onPress={() =>
            fromPa !== undefined &&
            toPa !== undefined &&
            void enter({ kind: "decay", lineUpId, gaugeId, fromPa, toPa, seconds: minutes * MINUTE_S })
          }
        >
          Enter in the log
        </Button>
      </Figures>
      {last && <p>{decayText(last, say)}</p>}
    </Sheet>
  );
}

/*
 * Decides: whether every joint of a line-up is dry before it is handed over.
 * Seen in three seconds: the plan with its joints ticked, and the next joint to look at.
 */
function LeakTest() {
  const { job, plan, book, network, stored: verdict, lineUp, enter, select, selectedId } = useJob();
  const placed = usePlumbing(network);
  const [chosen, setChosen] = useState<LeakState | null>(null);
  const state = chosen ?? (lineUp ? firstState(plan, lineUp) : "running");
  const way = verdict?.way ?? null;
  const { wetted, shutIn } = useMemo(
    () => (lineUp ? leakTest(network, lineUp, plan.conditions, state, book, way) : nothing),
    [network, lineUp, plan.conditions, state, book, way],
  );
  const done = wetted.filter(({ check }) => check?.result === "dry");
  const wet = wetted.filter(({ isWet }) => isWet);
  const next = wetted.find(({ check }) => check?.result !== "dry");
  const tick = ({ joint }: LeakJoint, result: LeakCheck["result"]) =>
    lineUp && void enter({ kind: "leakCheck", lineUpId: lineUp.id, joint, state, result });
  const named = ({ partName, portName }: LeakJoint) => `${partName}, ${portName}`;
  return (
    <div>
      <PlaceHead>
        <p>
          Leak test of {lineUp?.name ?? "no line-up"}: {done.length} of {wetted.length} joints dry.
          {wet.length > 0 && ` Wet: ${wet.map(named).join("; ")}.`}
          {next && ` Next: ${named(next)}.`}
        </p>
      </PlaceHead>
      <States role="group" aria-label="What runs while you look">
        {leakStates.map((one) => (
          <ToggleButton key={one} isSelected={one === state} onChange={() => setChosen(one)}>
            {leakStateNames[one]}
          </ToggleButton>
        ))}
      </States>
      <Caution>
        {leakStateSteps[state]} Look at each joint with a dry cloth, no flame or spark, ventilate,
        extinguisher to hand. A joint under vacuum draws air in and may show no drop. Pressure that falls
        through an open return after switch-off is no leak. Never loosen the high-pressure side; that is for a
        licensed workshop.
      </Caution>
      <SchoolNote matters={["joints", "torque", "factoryFilter"]} />
      {placed && (
        <PlanDrawing placed={placed} label="Plan with the joints that are dry ticked">
          {(scale) => (
            <Plumbing
              network={network}
              placed={placed}
              verdict={verdict}
              units={job.units}
              selectedId={selectedId}
              glowIds={wet.map(({ partId }) => partId)}
              onSelect={select}
              scale={scale}
              doneKeys={new Set(done.map(({ key }) => key))}
            />
          )}
        </PlanDrawing>
      )}
      {state === "blanked" && lineUp && <DecayTest lineUpId={lineUp.id} />}
      <Sheet>
        <Table>
          <thead>
            <tr>
              <th className="n">No.</th>
              <th>Joint</th>
              <th>It is under</th>
              <th>Looked at</th>
              <th className="wide">Last check</th>
            </tr>
          </thead>
          <tbody>
            {wetted.map((item, i) => (
              <tr key={item.key}>
                <td className="n">{i + 1}</td>
                <td>
                  <b>{item.partName}</b>, {item.portName}
                </td>
                <td>{underText(item.now, item.nowPa, job.units)}</td>
                <td>
                  <Tick>
                    <ToggleButton
                      isSelected={item.check?.result === "dry" && !item.isWet}
                      aria-label={`${named(item)}: dry`}
                      onChange={() => tick(item, "dry")}
                    >
                      dry
                    </ToggleButton>
                    <ToggleButton
                      isSelected={item.isWet}
                      aria-label={`${named(item)}: wet`}
                      onChange={() => tick(item, "wet")}
                    >
                      wet
                    </ToggleButton>
                  </Tick>
                </td>
                <td className="wide">{item.check ? momentText(item.check.at) : "–"}</td>
              </tr>
            ))}
          </tbody>
        </Table>
        {wetted.length === 0 && (
          <p>No fuel stands at any joint in this state, so there is none to look at.</p>
        )}
        {shutIn.length > 0 && (
          <p>
            Shut in between valves or a pump that lets nothing back, so that this state tells nothing of them:{" "}
            {shutIn.map(named).join("; ")}.
          </p>
        )}
      </Sheet>
    </div>
  );
}
