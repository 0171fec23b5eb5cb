/** Sheets to hang at the manifold: the valve table of every line-up, and the bleed card of the chosen one. */
import type { ReactNode } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { stepKey } from "~/core/air/bled";
import { isStopOf } from "~/core/findings/findings";
import type { Finding } from "~/core/findings/index";
import { isPowered, isValve } from "~/core/kinds/families";
import { STEEPEST_DEG } from "~/core/tanks/attitude";
import { dipTable } from "~/core/tanks/dip";
import { tradeIn } from "~/core/units/trade";
import { leftText, stepDetail, stepTitle, whyNotText } from "~/messages/bleeding";
import { findingText } from "~/messages/findings";
import { nameOf } from "~/messages/notes";
import { schoolText } from "~/messages/schools";
import { settingWithTanks } from "~/messages/settingText";
import { useJob, useTrade } from "~/state/job";
import { useBleedPlan } from "~/state/work";
import { Button } from "~/ui/button";
import { GradeGlyph } from "~/ui/glyphs";
import { ClipSheet, CutSheet, HoleSheet, LabelSheet } from "./FitSheets";
import { LogSheet } from "./LogSheet";
import { EstimateSheet, LeakSheet, TorqueSheet, WorkSheet } from "./WorkSheets";

export const meta = () => [{ title: "To print · Iron Keel" }];

const Paper = styled.article`
  max-width: 960px; margin: 20px auto; background: #fff; color: #111; padding: 28px; border: 1px solid var(--hairline);
  th, td { border: 1px solid #888; color: #111; font-size: 14px; } th { background: #eee; }
  p { color: #222; }
  @media print { border: 0; margin: 0; padding: 0; max-width: none; }
`;
const Bar = styled.div`
  display: flex; gap: 12px; align-items: center; margin: 12px auto; max-width: 960px; padding: 0 12px;
  @media print { display: none; }
`;

export default function Print() {
  const { sheet } = useParams();
  const { job } = useJob();
  const One = sheets[sheet ?? ""] ?? ValveTable;
  return (
    <div>
      <Bar>
        <Link to={`/job/${job.id}/${backOf[sheet ?? ""] ?? "layout"}`}>Back</Link>
        <Button $main onPress={() => window.print()}>
          Print
        </Button>
      </Bar>
      <Paper>
        <One />
      </Paper>
    </div>
  );
}

const backOf: Record<string, string> = {
  bleed: "bleed",
  dip: "survey",
  work: "install",
  torque: "install",
  leak: "install",
  estimate: "install",
  clips: "fit",
  labels: "fit",
  cuts: "fit",
  holes: "fit",
  log: "care",
};
const sheets: Readonly<Record<string, () => ReactNode>> = {
  bleed: BleedCard,
  dip: DipCard,
  work: WorkSheet,
  torque: TorqueSheet,
  leak: LeakSheet,
  estimate: EstimateSheet,
  clips: ClipSheet,
  labels: LabelSheet,
  cuts: CutSheet,
  holes: HoleSheet,
  log: LogSheet,
};

/** The dip table of one tank at a trim, to hang at its sounding pipe. */
function DipCard() {
  const { job } = useJob();
  const [asked] = useSearchParams();
  const tank = job.tanks.find(({ id }) => id === asked.get("tank"));
  const number = (name: string, most: number) => {
    const value = Number(asked.get(name) ?? 0);
    return Number.isFinite(value) && Math.abs(value) <= most ? value : 0;
  };
  if (!tank) return <p>That tank is not in this job.</p>;
  const attitude = { pitchDeg: number("pitch", STEEPEST_DEG), rollDeg: number("roll", STEEPEST_DEG) };
  const step = number("step", 1);
  const rows = dipTable(tank, attitude, step > 0 ? step : 0.02);
  const { units } = job;
  return (
    <>
      <h1>
        {job.name}, {tank.name}: dip table
      </h1>
      <p>
        {attitude.pitchDeg === 0 && attitude.rollDeg === 0
          ? "Standing level."
          : `At pitch ${attitude.pitchDeg}°, roll ${attitude.rollDeg}°.`}{" "}
        Stick upright in the tank, on the floor at the sounding point.
      </p>
      <div style={{ columns: "4 150px" }}>
        {rows.map(({ depthM, volumeM3 }) => (
          <div
            key={depthM}
            style={{
              display: "flex",
              justifyContent: "space-between",
              borderBottom: "1px solid #888",
              padding: "3px 4px",
              breakInside: "avoid",
            }}
          >
            <span>{tradeIn(units).length(depthM)}</span>
            <b>{tradeIn(units).volume(volumeM3)}</b>
          </div>
        ))}
      </div>
    </>
  );
}

/** A line-up that must not be run as it stands says so on its own row. */
function StopMark({ finding }: { finding: Finding | undefined }) {
  const { job } = useJob();
  if (!finding) return null;
  return (
    <div style={{ display: "flex", gap: 6, alignItems: "baseline", color: "#a11f00" }}>
      <GradeGlyph grade="stop" />
      <span>Stop: {findingText(finding, job.units, (id) => nameOf(job, id)).title}</span>
    </div>
  );
}

function ValveTable() {
  const { job, plan, network, findings } = useJob();
  const stopOf = (id: string) => findings.find((finding) => isStopOf(finding, id));
  const valves = plan.parts.filter(isValve);
  const pumps = plan.parts.filter(isPowered);
  return (
    <>
      <h1>{job.name}: valve table</h1>
      <p>
        Set every valve of the row before the pump or engine runs. Never leave the return shut with the engine
        running.
      </p>
      <div style={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Valve table">
        <table>
          <thead>
            <tr>
              <th>Line-up</th>
              {valves.map(({ id, name }) => (
                <th key={id}>{name}</th>
              ))}
              {pumps.map(({ id, name }) => (
                <th key={id}>{name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {plan.lineUps.map((lineUp) => (
              <tr key={lineUp.id}>
                <td>
                  <b>{lineUp.name}</b>
                  <StopMark finding={stopOf(lineUp.id)} />
                </td>
                {valves.map((valve) => (
                  <td key={valve.id}>{settingWithTanks(network, valve, lineUp.valves[valve.id])}</td>
                ))}
                {pumps.map(({ id }) => (
                  <td key={id}>{lineUp.pumps[id] ?? "–"}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

const DRY = { kind: "dry" } as const;

function BleedCard() {
  const { job, lineUp } = useJob();
  const trade = useTrade();
  const { pan } = trade;
  const work = useBleedPlan(job, lineUp, DRY);
  const name = (id: string) => nameOf(job, id);
  const procedure = work.status === "done" ? (work.value?.procedure ?? null) : null;
  return (
    <>
      <h1>
        {job.name}: bleed card, {lineUp?.name}
      </h1>
      <p>
        Eye protection and gloves. Face and hands away from the opened joint. Pan under it
        {procedure && `: one of ${pan(procedure.panRoomM3)}`}. Do not crank a dry high-pressure pump: follow
        the engine maker's manual.
      </p>
      <p>
        {(["priming", "primer", "filterFill"] as const)
          .map((matter) => schoolText(job.schools, matter))
          .join(". ")}
        .
      </p>
      {work.status === "working" && <p>Looking for the way to bleed it…</p>}
      {work.status !== "working" && !procedure && <p>Nothing leads from a tank to a consumer in it.</p>}
      {procedure && (
        <>
          <table>
            <thead>
              <tr>
                <th>Step</th>
                <th>What</th>
                <th>Into the pan</th>
                <th>Done</th>
              </tr>
            </thead>
            <tbody>
              {procedure.steps.map((step, i) => (
                <tr key={stepKey(step, i)}>
                  <td>{i + 1}</td>
                  <td>
                    <b>{stepTitle(step, name)}</b>
                    <br />
                    {stepDetail(step, name, trade)}
                  </td>
                  <td>{step.kind === "bleed" ? pan(step.panM3) : ""}</td>
                  <td />
                </tr>
              ))}
            </tbody>
          </table>
          <p>
            Air left by the plan: {leftText(procedure.left)}.{" "}
            {procedure.whyNot.map((reason) => whyNotText(reason, name, trade)).join(" ")}
          </p>
        </>
      )}
    </>
  );
}
