import { Link } from "react-router";
import styled from "styled-components";
import type { SchoolMatter } from "~/core/plan/types";
import { schoolText } from "~/messages/schools";
import { useJob } from "~/state/job";

const Note = styled.p`
  margin: 0 16px 10px; font-size: 13px; color: var(--soft); max-width: 80ch;
  a { color: var(--act); }
`;

/** How it is done where practice is divided: by the schools of this job. */
export function SchoolNote({ matters }: { matters: readonly SchoolMatter[] }) {
  const { job } = useJob();
  return (
    <Note>
      {matters.map((matter) => schoolText(job.schools, matter)).join(". ")}.{" "}
      <Link to={`/job/${job.id}/survey?part=fuel`}>Change the school</Link>
    </Note>
  );
}
