/*
 * Decides: whether to run, and what to write down; nothing of the plan is changed here.
 * Seen in three seconds: the state of fuel and filter, the last reading against the plan, and what is due next.
 */
import { Link } from "react-router";
import styled from "styled-components";
import { isPowered, isValve } from "~/core/kinds/families";
import { TakeReadings } from "~/fields/TakeReadings";
import { handOverTitles, TROUBLE } from "~/messages/handOver";
import { settingText } from "~/messages/settingText";
import { useJob } from "~/state/job";
import { Select } from "~/ui/fields";
import { Caution, PlaceHead, Sheet } from "~/ui/place";
import { Answers } from "../care/Answers";
import { DueList } from "../care/DueList";
import { FilterCard } from "../care/FilterCard";
import { TakenAboard } from "../care/Fuel";
import { useTrends } from "../care/useTrends";

export const meta = () => [{ title: "Owner · Iron Keel" }];

const Page = styled.div`
  max-width: 720px; margin: 0 auto; padding-bottom: 60px;
`;

export default function Owner() {
  const { job, plan, lineUp, chooseLineUp } = useJob();
  const { trends, trend } = useTrends();
  const { vessel, engine, fitter, on } = job.handOver ?? {};
  const told = [vessel, engine, fitter && `fitted by ${fitter}`, on].filter(Boolean).join(", ");
  const tank = job.tanks[0];
  return (
    <Page>
      <PlaceHead>
        <h1 style={{ fontSize: 24 }}>{job.name}</h1>
        <p>{told || job.note}</p>
        <Link to={`/job/${job.id}/care`}>All of the job</Link>
      </PlaceHead>
      <h2 className="sr">To look and to log</h2>
      <Answers trend={trend} />
      <Sheet aria-label="Valves">
        <h3>How the valves stand</h3>
        {lineUp && (
          <Select
            label="Line-up"
            value={lineUp.id}
            options={plan.lineUps.map(({ id, name }) => ({ id, name }))}
            onChange={chooseLineUp}
          />
        )}
        <ul>
          {plan.parts.filter(isValve).map((valve) => (
            <li key={valve.id}>
              {valve.name}: <b>{settingText(valve, lineUp?.valves[valve.id])}</b>
            </li>
          ))}
          {plan.parts.filter(isPowered).map(({ id, name }) => (
            <li key={id}>
              {name}: <b>{lineUp?.pumps[id] ?? "off"}</b>
            </li>
          ))}
        </ul>
        <p>Every valve first, then the pump or the engine. Never shut the return with the engine running.</p>
      </Sheet>
      {lineUp && (
        <Sheet>
          <h3>Write down what is read</h3>
          <TakeReadings key={lineUp.id} />
        </Sheet>
      )}
      {tank && (
        <Sheet>
          <h3>Fuel taken aboard</h3>
          <TakenAboard />
        </Sheet>
      )}
      <DueList trends={trends} isOwner />
      <FilterCard />
      <Sheet>
        <h3>{handOverTitles.trouble}</h3>
        <ul>
          {TROUBLE.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        <Caution>
          The high-pressure side is never loosened: that is for a licensed workshop. The makers' manuals and
          local codes go before this page.
        </Caution>
      </Sheet>
    </Page>
  );
}
