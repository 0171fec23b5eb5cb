/*
 * Decides: what is done with fuel that is not clean: strip, settle, polish, treat or discard.
 * Seen in three seconds: how long a polish takes until the tank is clean, and how much sooner the line looks so.
 */
import { useMemo, useState } from "react";
import styled from "styled-components";
import { cureOf, HIRED_M3S } from "~/core/care/cure";
import {
  COMMON_BIOCIDE,
  commonPolish,
  polishCourse,
  polishWay,
  type Treatment,
  treatments,
} from "~/core/care/treatments";
import { fuelAt } from "~/core/fuel/fuel";
import { percentText } from "~/core/units/format";
import { panUnit } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { cureText, treatmentHoursText, treatmentTexts } from "~/messages/care";
import { useJob, useTrade } from "~/state/job";
import { Select } from "~/ui/fields";
import { LineChart } from "~/ui/lazyChart";
import { Caution, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";

const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 8px 14px; align-items: start; margin-bottom: 8px;
`;
const Frame = styled.div`
  overflow-x: auto;
`;
const between = (si: number) => (si > 0 && si < 1 ? null : "Over 0 and under 100 %.");

export default function Treatments() {
  const { job, plan, book, solver } = useJob();
  const { units } = job;
  const say = useTrade();
  // The tank that can be polished, where one can.
  const [tankId, setTank] = useState(
    () => (job.tanks.find((one) => polishWay(solver, plan, one)) ?? job.tanks[0])?.id,
  );
  const tank = job.tanks.find(({ id }) => id === tankId) ?? job.tanks[0];
  const [task, setTask] = useState({ ...commonPolish } as Record<keyof typeof commonPolish, number>);
  const [perM3, setPerM3] = useState(COMMON_BIOCIDE);
  const fuel = fuelAt(job.fuel, plan.conditions.fuelC);
  const way = useMemo(() => (tank ? polishWay(solver, plan, tank) : null), [solver, plan, tank]);
  const aboardM3 = tank ? (plan.conditions.aboardM3[tank.id] ?? 0) : 0;
  const list = useMemo<Treatment[]>(
    () =>
      tank && fuel && aboardM3 > 0
        ? treatments({ tank, aboardM3, fuel, way, task, biocidePerM3: perM3 })
        : [],
    [tank, fuel, aboardM3, way, task, perM3],
  );
  const course = useMemo(
    () => (way ? polishCourse({ ...task, volumeM3: aboardM3, flowM3S: way.flowM3S }) : []),
    [way, aboardM3, task],
  );
  const cure = useMemo(
    () => (tank ? cureOf(job, book, tank, way?.flowM3S ?? HIRED_M3S) : null),
    [job, book, tank, way],
  );
  const recommended = cure && cureText(cure);
  if (!tank || !fuel) return <Sheet>No tank yet.</Sheet>;
  const share = (key: keyof typeof commonPolish, label: string) => (
    <QuantityField
      label={label}
      dimension="ratio"
      unit="%"
      value={task[key]}
      basis={task[key] === commonPolish[key] ? "assumed" : "measured"}
      check={between}
      onCommit={(si) => setTask({ ...task, [key]: si })}
    />
  );
  const line = (name: "mixed" | "tank" | "line") =>
    course.map((point) => ({ x: point.hours, y: 100 * point[name] }));
  const end = course.at(-1);
  return (
    <Sheet>
      <h3>What to do with the fuel</h3>
      {recommended && <p style={{ fontWeight: 600 }}>{recommended}</p>}
      <Fields>
        <Select
          label="Tank"
          value={tank.id}
          options={job.tanks.map(({ id, name }) => ({ id, name }))}
          onChange={setTank}
        />
        {share("target", "May remain")}
        {share("singlePass", "Held back in one pass")}
        {share("deadShare", "Of the tank stands still")}
        {share("exchangeShare", "Of the flow stirs that")}
        <QuantityField
          label="Biocide for all of it, by its maker"
          dimension="volume"
          unit={panUnit(units)}
          value={perM3 * aboardM3}
          basis={perM3 === COMMON_BIOCIDE ? "assumed" : "maker"}
          check={positive}
          onCommit={(si) => setPerM3(si / aboardM3)}
        />
      </Fields>
      {end && way ? (
        <>
          <p style={{ margin: "4px 0" }}>
            {way.lineUp} draws {say.flow(way.flowM3S)} from {say.volume(aboardM3)} in {tank.name}.
          </p>
          <LineChart
            label={`What floats in ${tank.name} as it is polished`}
            x="hours"
            y="% of what floats now"
            yMin={0}
            series={[
              { name: "tank, a part standing still", colour: "ink", points: line("tank") },
              { name: "line, as sampled", colour: "pressure", dash: [4, 4], points: line("line") },
              { name: "tank, well mixed", colour: "idle", points: line("mixed") },
              {
                name: "may remain",
                colour: "danger",
                points: [
                  { x: 0, y: 100 * task.target },
                  { x: end.hours, y: 100 * task.target },
                ],
              },
            ]}
          />
        </>
      ) : (
        <p>No line-up for polishing draws from {tank.name}: make one in Lay out, and its hours stand here.</p>
      )}
      <Frame tabIndex={0} role="region" aria-label="Ways to treat it">
        <Table>
          <thead>
            <tr>
              <th>Way</th>
              <th>Takes</th>
              <th className="n">Fuel lost</th>
              <th className="n">Elements</th>
              <th className="n">Still floats</th>
              <th>But</th>
            </tr>
          </thead>
          <tbody>
            {list.map((one) => (
              <tr key={one.kind}>
                <td style={{ fontWeight: 650 }}>{treatmentTexts[one.kind].name}</td>
                <td>{treatmentHoursText(one)}</td>
                <td className="n">{one.lostM3 > 0 ? say.volume(one.lostM3) : "none"}</td>
                <td className="n">{one.elements || "none"}</td>
                <td className="n">{one.kind === "settle" ? "what is finer" : percentText(one.remains)}</td>
                <td>
                  {one.doseM3 > 0 && `${say.pan(one.doseM3)} in all. `}
                  {treatmentTexts[one.kind].but}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Frame>
      <Caution>
        Engine stopped where the tank is opened; no flame, no spark, air moving. A figure marked assumed is
        common practice: two samples an hour apart, from the bottom, say more than any of them.
      </Caution>
    </Sheet>
  );
}
