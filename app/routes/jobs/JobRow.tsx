/** A job as it stands: its plumbing drawn small, its worst finding, what is due or awaited, what was changed last. */
import { memo } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Sketch } from "~/core/drawing/sketch";
import { counted } from "~/messages/counted";
import { dayText, momentText } from "~/messages/when";
import type { Glance } from "~/schemas/noted";
import type { JobSummary } from "~/store/list";
import { Button } from "~/ui/button";
import { GradeGlyph } from "~/ui/glyphs";

const Row = styled.li`
  display: grid; grid-template-columns: 168px minmax(0, 1fr) auto; gap: 4px 18px; align-items: center; padding: 12px 4px; border-bottom: 1px solid var(--hairline);
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); }
`;
const JobLink = styled(Link)`
  color: var(--ink); text-decoration: none; display: grid; gap: 2px; min-height: 44px;
  b { font-size: 18px; font-weight: 650; font-stretch: 84%; text-decoration: underline; text-underline-offset: 3px; text-decoration-thickness: 1px; }
  span { color: var(--soft); font-size: 13px; }
  .glance { display: inline-flex; gap: 6px; align-items: center; color: var(--ink); }
`;
const Actions = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; justify-content: flex-end;
  @media (max-width: 700px) { justify-content: flex-start; }
`;

const dateText = (iso: string | null) => (iso ? momentText(iso) : "never");

/** Not read, only recognised: tanks hollow, what burns full, hoses between. */
function Small({ width, height, hoses, bodies }: Sketch) {
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden
      style={{ margin: "auto" }}
    >
      <path
        d={hoses
          .map((xy) => xy.map((one, i) => `${i === 0 ? "M" : i === 2 ? "L" : " "}${one}`).join(" "))
          .join("")}
        fill="none"
        stroke="var(--soft)"
        strokeWidth={1}
      />
      {bodies.map(({ is, x, y, width: w, height: h }, i) => (
        <rect
          key={i}
          x={x}
          y={y}
          width={w}
          height={h}
          fill={is === "consumer" ? "var(--ink)" : is === "tank" ? "var(--raised)" : "var(--soft)"}
          stroke="var(--ink)"
          strokeWidth={is === "tank" ? 1.4 : 0.6}
        />
      ))}
    </svg>
  );
}

/** How a job stands: the worst of its findings, what is due next, what has not come. */
function AtAGlance({ name, worst, counts, due, awaited }: Glance & { name: string }) {
  const more = counts.stop + counts.mend + counts.watch - 1;
  const [next] = due;
  return (
    <>
      {worst && (
        <span className="glance">
          <GradeGlyph grade={worst.grade} size={13} /> {worst.title}
          {more > 0 && `, and ${more} more`}
        </span>
      )}
      {(next || awaited > 0) && (
        <span>
          {next &&
            `Next due ${dayText(new Date(`${next.on}T00:00:00Z`))}: ${next.text.replace(`${name}: `, "")}. `}
          {awaited > 0 && `${counted(awaited, "part")} awaited.`}
        </span>
      )}
    </>
  );
}

interface Props {
  job: JobSummary;
  glance: Glance | undefined;
  onSave: (job: JobSummary) => void;
  onDuplicate: (job: JobSummary) => void;
  onDelete: (job: JobSummary) => void;
}

export const JobRow = memo(function JobRow({ job, glance, onSave, onDuplicate, onDelete }: Props) {
  return (
    <Row>
      <span className="wide" style={{ display: "grid" }}>
        {glance?.sketch && <Small {...glance.sketch} />}
      </span>
      <JobLink to={`/job/${job.id}`} prefetch="intent">
        <b>{job.name}</b>
        {job.note && <span>{job.note}</span>}
        {glance && <AtAGlance name={job.name} {...glance} />}
        <span>
          {job.kind}, {counted(job.tanks, "tank")}, {counted(job.parts, "part")}. Changed{" "}
          {dateText(job.updatedAt)}
          {glance?.changed && `: ${glance.changed}`}. Last saved as a file: {dateText(job.exportedAt)}
          {job.exportedAt && job.changedSinceExport ? ", changed since" : ""}.
        </span>
        {job.isNewer && (
          <span>Written by a newer version of this application: open it there. Nothing is changed here.</span>
        )}
      </JobLink>
      <Actions>
        <Button $quiet onPress={() => onSave(job)} aria-label={`Save ${job.name} as a file`}>
          Save file
        </Button>
        <Button $quiet onPress={() => onDuplicate(job)} aria-label={`Duplicate ${job.name}`}>
          Duplicate
        </Button>
        <Button $quiet onPress={() => onDelete(job)} aria-label={`Delete ${job.name}`}>
          Delete
        </Button>
      </Actions>
    </Row>
  );
});
