/*
 * Decides: which job is to be called in this month.
 * Seen in three seconds: what is due over all jobs, the next first, and what is overdue.
 */
import { CalendarDays } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { counted } from "~/messages/counted";
import { dayText } from "~/messages/when";
import type { Glance } from "~/schemas/noted";
import { saveText } from "~/state/files";
import type { JobSummary } from "~/store/list";
import { Button } from "~/ui/button";

const List = styled.ol`
  list-style: none; margin: 6px 0 10px; padding: 0;
  li { display: grid; grid-template-columns: 110px minmax(0, 1fr); gap: 4px 14px; padding: 4px 0; border-bottom: 1px solid var(--hairline); align-items: baseline; }
  li[data-over="true"] b { color: var(--danger); }
  a { color: inherit; display: inline-flex; align-items: center; min-height: max(28px, var(--finger)); }
  @media (pointer: coarse) { a { min-height: 44px; } }
`;
/** So far ahead a shop plans. */
const AHEAD_DAYS = 31;
const DAY_MS = 86_400_000;
/** Lines that are shown before the rest is asked for. */
const MOST = 12;

export function DueOverAll({
  jobs,
  glances,
  today,
}: {
  jobs: readonly JobSummary[];
  glances: ReadonlyMap<string, Glance>;
  today: string;
}) {
  const [isWhole, showWhole] = useState(false);
  const end = new Date(Date.parse(today) + AHEAD_DAYS * DAY_MS).toISOString().slice(0, 10);
  const all = jobs
    .flatMap(({ id }) => (glances.get(id)?.due ?? []).map((line) => ({ ...line, id })))
    .sort((a, b) => a.on.localeCompare(b.on) || a.uid.localeCompare(b.uid));
  if (all.length === 0) return null;
  const soon = all.filter(({ on }) => on <= end);
  const save = async () => {
    const { calendarText } = await import("~/schemas/calendar");
    const stamp = jobs.reduce((last, { updatedAt }) => (updatedAt > last ? updatedAt : last), "");
    const days = all.map(({ uid, on, text, detail }) => ({ uid, on, summary: text, description: detail }));
    saveText(
      "iron-keel-due.ics",
      calendarText("What is due", days, new Date(stamp || today)),
      "text/calendar",
    );
  };
  return (
    <section style={{ marginTop: 24 }} aria-label="What is due over all jobs">
      <h2>Due within a month</h2>
      {soon.length === 0 ? (
        <p>
          Nothing. The next is {all[0]?.text}, {dayText(new Date(`${all[0]?.on}T00:00:00Z`))}.
        </p>
      ) : (
        <List>
          {soon.slice(0, isWhole ? soon.length : MOST).map(({ uid, id, on, text }) => (
            <li key={uid} data-over={on < today}>
              <b>
                {dayText(new Date(`${on}T00:00:00Z`))}
                {on < today && ", over"}
              </b>
              <Link to={`/job/${id}/care`}>{text}</Link>
            </li>
          ))}
        </List>
      )}
      {soon.length > MOST && !isWhole && (
        <Button $quiet onPress={() => showWhole(true)}>
          All {soon.length}
        </Button>
      )}
      <Button onPress={() => void save()}>
        <CalendarDays size={16} aria-hidden /> Calendar of {counted(all.length, "date")}
      </Button>
    </section>
  );
}
