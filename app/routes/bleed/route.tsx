/*
 * Decides: which joint to open next, and how much fuel will have come when it runs solid.
 * Seen in three seconds: the sections filling from the tank on, with the running total into the pan.
 */
import { Printer } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { SchoolNote } from "~/fields/SchoolNote";
import { nameOf } from "~/messages/notes";
import { useJob, useTrade } from "~/state/job";
import { Select } from "~/ui/fields";
import { Caution, PlaceHead, Sheet } from "~/ui/place";
import { BleedNote, useBleed } from "./steps";

export const meta = () => [{ title: "Bleed · Iron Keel" }];

const Note = styled.span`
  display: block; font-size: 13px; color: var(--soft);
`;

const PrimingNote = styled.p`
  margin: 0 16px 10px; max-width: 70ch;
`;
const Ends = styled.div`
  margin: 0 16px 10px; max-width: 260px;
`;

export default function Bleed() {
  const { job, stored: verdict, lineUp, select, selectedId } = useJob();
  const { pan } = useTrade();
  const [endId, setEndId] = useState<string>();
  const bleed = useBleed(endId);
  const { steps = [], ends = [], end = null } = bleed ?? {};
  const total = steps.at(-1)?.totalM3 ?? 0;
  return (
    <div>
      <PlaceHead>
        <h2>Bleed</h2>
        <p>
          {lineUp?.name ?? "No line-up"}: {steps.length} joints from tank to{" "}
          {end?.name ?? verdict?.way?.stations.at(-1)?.name ?? "the end"}, {pan(total)} in all: a pan with
          room for it.
        </p>
        <Link to={`/job/${job.id}/print/bleed`}>
          <Printer size={16} aria-hidden /> Bleed card
        </Link>
      </PlaceHead>
      <Caution>
        Eye protection and gloves; stand clear of the opened joint, face and hands away. Never push fuel by
        tank pressure above the tank's rating, and never petrol. Do not crank a dry high-pressure pump; follow
        the engine maker's manual for the high-pressure side.
      </Caution>
      <SchoolNote matters={["priming", "primer", "filterFill"]} />
      {bleed?.isPriming && (
        <PrimingNote>
          Nothing runs that draws: fuel comes only where a joint is open. Loosen {end?.name}
          {end?.kind === "joint" ? ", inlet," : ""} over the pan before the pump is started, and shut it when
          fuel runs solid.
        </PrimingNote>
      )}
      {ends.length > 1 && (
        <Ends>
          <Select
            label="Fuel comes out at"
            value={end?.id ?? null}
            options={ends.map(({ id, name, kind }) => ({
              id,
              name: kind === "screw" ? name : `${name}, inlet joint`,
            }))}
            onChange={setEndId}
          />
        </Ends>
      )}
      <Sheet>
        <svg
          width="100%"
          height="44"
          viewBox="0 0 1000 44"
          preserveAspectRatio="none"
          role="img"
          aria-label={`Sections from the tank on, ${pan(total)} in all`}
        >
          {steps.map((step, i) => {
            const x = ((step.totalM3 - step.sectionM3) / (total || 1)) * 1000;
            return (
              <rect
                key={step.partId + step.at}
                x={x + 1}
                y={8}
                width={Math.max(1, (step.sectionM3 / (total || 1)) * 1000 - 2)}
                height={28}
                fill={selectedId === step.partId ? "var(--vacuum)" : i % 2 ? "var(--idle)" : "var(--ink)"}
              />
            );
          })}
        </svg>
        <table>
          <thead>
            <tr>
              <th className="n">Step</th>
              <th>Open, until fuel runs solid; then shut it</th>
              <th className="wide">Fills</th>
              <th className="n wide">Section</th>
              <th className="n">Into the pan so far</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((step, i) => (
              <tr
                key={step.partId + step.at}
                onClick={() => select(step.partId)}
                style={{
                  cursor: "pointer",
                  background:
                    selectedId === step.partId ? "color-mix(in srgb, var(--act) 9%, transparent)" : undefined,
                }}
              >
                <td className="n">{i + 1}</td>
                <td>
                  <b>{step.partName}</b>, {step.at}
                  <Note>
                    <BleedNote step={step} />
                  </Note>
                </td>
                <td className="wide">{nameOf(job, step.sectionId)}</td>
                <td className="n wide">{pan(step.sectionM3)}</td>
                <td className="n" style={{ fontWeight: 650 }}>
                  {pan(step.totalM3)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {steps.length === 0 && <p>Nothing flows in this line-up: open a way from a tank first.</p>}
      </Sheet>
    </div>
  );
}
