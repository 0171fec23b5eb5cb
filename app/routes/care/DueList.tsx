/** What is due and when, the next first; and as a file for the calendar. */
import { CalendarDays } from "lucide-react";
import { useMemo } from "react";
import { type Due, dueOf } from "~/core/care/due";
import type { GaugeTrend } from "~/core/care/gaugeTrend";
import { calendarDays, dueDetail, dueText, dueWhen } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { fileName, saveText } from "~/state/files";
import { type OpenJob, useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Sheet } from "~/ui/place";

async function saveCalendar({ job, book }: OpenJob, due: readonly Due[]): Promise<void> {
  const { calendarText } = await import("~/schemas/calendar");
  const last = book.reduce((most, { at }) => Math.max(most, Date.parse(at)), 0);
  const days = calendarDays(job, due, (id) => nameOf(job, id));
  saveText(`${fileName(job.name)}.ics`, calendarText(job.name, days, new Date(last)), "text/calendar");
}

export function DueList({ trends }: { trends: readonly GaugeTrend[] }) {
  const open = useJob();
  const { job, network, book, select } = open;
  const due = useMemo(() => dueOf(network, book, trends), [network, book, trends]);
  const isDated = due.some(({ on }) => on !== null);
  return (
    <Sheet aria-label="What is due">
      <h3>What is due</h3>
      {due.length === 0 ? (
        <p>Nothing in the plan falls due: no filter, and no tank that is drawn from.</p>
      ) : (
        <table>
          <thead>
            <tr>
              <th>When</th>
              <th>What</th>
              <th className="wide">Why</th>
            </tr>
          </thead>
          <tbody>
            {due.map((one) => (
              <tr key={one.id}>
                <td style={{ fontWeight: 650 }}>{dueWhen(one)}</td>
                <td>
                  <Button $quiet style={{ padding: 0, textAlign: "left" }} onPress={() => select(one.ofId)}>
                    {dueText(one, (id) => nameOf(job, id))}
                  </Button>
                </td>
                <td className="wide">{dueDetail(one)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Button isDisabled={!isDated} onPress={() => void saveCalendar(open, due)}>
        <CalendarDays size={16} aria-hidden /> Calendar file
      </Button>
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        Taken into a calendar once more it updates what is there: nothing stands twice.
      </p>
    </Sheet>
  );
}
