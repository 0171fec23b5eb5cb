/*
 * Decides: what is measured, what is only assumed, and what of it can stay.
 * Seen in three seconds: the tank at hand with its fuel and its mouths wet or dry, and what stands against it.
 */
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { assumedFigures } from "~/core/plan/assumed";
import { fieldNames } from "~/messages/fields";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Sheet } from "~/ui/place";
import { Tabs } from "~/ui/tabs";
import { FuelAndSite } from "./FuelAndSite";
import { Hoses } from "./Hoses";
import { Report } from "./Report";
import { Samples } from "./Samples";
import { Tanks } from "./Tanks";

export const meta = () => [{ title: "Survey · Iron Keel" }];

const Body = styled.div`
  h2 { font-size: 20px; padding: 8px 0 7px 16px; }
`;

const parts = ["tanks", "fuel", "hoses", "samples", "measure", "report"] as const;
type Part = (typeof parts)[number];

export default function Survey() {
  const { job, plan } = useJob();
  const [asked, ask] = useSearchParams();
  const part = parts.find((one) => one === asked.get("part")) ?? "tanks";
  const setPart = (next: Part) => ask({ part: next }, { replace: true, preventScrollReset: true });
  const assumed = assumedFigures(job, plan);
  return (
    <Body>
      <Tabs<Part>
        label="Parts of the survey"
        head={<h2>Survey</h2>}
        chosen={part}
        onChoose={setPart}
        tabs={[
          { id: "tanks", name: "Tanks", body: () => <Tanks /> },
          { id: "fuel", name: "Fuel and site", body: () => <FuelAndSite /> },
          { id: "hoses", name: "Hoses", body: () => <Hoses /> },
          { id: "samples", name: "Samples", body: () => <Samples /> },
          { id: "measure", name: `To measure, ${assumed.length}`, body: () => <ToMeasure /> },
          { id: "report", name: "Report", body: () => <Report /> },
        ]}
      />
    </Body>
  );
}

function ToMeasure() {
  const { job, plan } = useJob();
  const assumed = assumedFigures(job, plan);
  return (
    <Sheet>
      <h3>Still to be measured: {assumed.length}</h3>
      {assumed.length === 0 ? (
        <p>Every figure has been measured or is the maker's.</p>
      ) : (
        <p style={{ fontSize: 13, columns: "2 300px" }}>
          {assumed.map(({ id, field, portId }) => {
            const port = job.tanks.find((tank) => tank.id === id)?.ports.find((one) => one.id === portId);
            return (
              <span key={`${id}${portId ?? ""}${field}`} style={{ display: "block" }}>
                <b>{nameOf(job, id)}</b>: {port && `${port.name}, `}
                {fieldNames[field] ?? field}
              </span>
            );
          })}
        </p>
      )}
    </Sheet>
  );
}
