/** Sheets to hang at the manifold: the valve table of every line-up, and the bleed card of the chosen one. */
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { isValve } from "~/core/plan/valves";
import { formatNumber } from "~/core/units/format";
import { nameOf } from "~/messages/notes";
import { settingText } from "~/plumbing/Plumbing";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { BleedNote, stepsOf } from "../bleed/steps";

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
  return (
    <div>
      <Bar>
        <Link to={`/job/${job.id}/${sheet === "bleed" ? "bleed" : "layout"}`}>Back</Link>
        <Button $main onPress={() => window.print()}>
          Print
        </Button>
      </Bar>
      <Paper>{sheet === "bleed" ? <BleedCard /> : <ValveTable />}</Paper>
    </div>
  );
}

function ValveTable() {
  const { job, plan } = useJob();
  const valves = plan.parts.filter(isValve);
  const pumps = plan.parts.filter(({ kind }) => kind === "liftPump");
  return (
    <>
      <h1>{job.name}: valve table</h1>
      <p>
        Set every valve of the row before the pump or engine runs. Never leave the return shut with the engine
        running.
      </p>
      <div style={{ overflowX: "auto" }}>
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
                </td>
                {valves.map((valve) => (
                  <td key={valve.id}>{settingText(valve, lineUp.valves[valve.id])}</td>
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

function BleedCard() {
  const { job, plan, stored: verdict, lineUp } = useJob();
  const steps = stepsOf(plan, verdict);
  const ml = (m3: number) => formatNumber(m3 * 1e6);
  return (
    <>
      <h1>
        {job.name}: bleed card, {lineUp?.name}
      </h1>
      <p>
        Eye protection and gloves. Face and hands away from the opened joint. Pan under it. Do not crank a dry
        high-pressure pump: follow the engine maker's manual.
      </p>
      <table>
        <thead>
          <tr>
            <th>Step</th>
            <th>Open until fuel runs solid, then shut</th>
            <th>Fills</th>
            <th>mL</th>
            <th>mL so far</th>
            <th>Done</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step, i) => (
            <tr key={step.partId + step.at}>
              <td>{i + 1}</td>
              <td>
                <b>{step.partName}</b>, {step.at}
                <BleedNote step={step} />
              </td>
              <td>{nameOf(job, step.sectionId)}</td>
              <td>{ml(step.sectionM3)}</td>
              <td>{ml(step.totalM3)}</td>
              <td />
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
