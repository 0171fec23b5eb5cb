/*
 * Decides: whether this boat or truck eats elements faster than others of the shop.
 * Seen in three seconds: how long each lasted, and the middle of all jobs beside it.
 */
import { useEffect, useMemo, useState } from "react";
import { elementLives, middleOf } from "~/core/care/elementLives";
import { formatNumber } from "~/core/units/format";
import { counted } from "~/messages/counted";
import { nameOf } from "~/messages/notes";
import { storageFault } from "~/messages/storage";
import { useJob } from "~/state/job";
import { entriesOfAll } from "~/store/book";
import { Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { say } from "~/ui/toast";

export function Elements() {
  const { job, book } = useJob();
  const lives = useMemo(() => elementLives(book), [book]);
  const [all, setAll] = useState<{ jobs: number; days: number | null }>({ jobs: 0, days: null });
  useEffect(() => {
    let isOver = false;
    entriesOfAll("elementChanged").then(
      (byJob) => {
        const days = [...byJob.values()].flatMap((entries) => elementLives(entries).map((life) => life.days));
        if (!isOver) setAll({ jobs: byJob.size, days: middleOf(days) });
      },
      (error: unknown) => !isOver && say({ text: storageFault(error), lasts: true }),
    );
    return () => {
      isOver = true;
    };
  }, [book]);
  if (lives.length === 0) return null;
  const own = middleOf(lives.map(({ days }) => days));
  return (
    <Sheet>
      <h3>How long elements lasted</h3>
      <p>
        {own === null ? "Not known here." : `Here ${formatNumber(own)} days in the middle.`}{" "}
        {all.days !== null &&
          all.jobs > 1 &&
          `Over ${counted(all.jobs, "job")} ${formatNumber(all.days)} days.`}
      </p>
      <Table>
        <thead>
          <tr>
            <th>Filter</th>
            <th>Changed</th>
            <th className="n">Days</th>
            <th className="n">Engine hours</th>
            <th className="n">Stood at</th>
          </tr>
        </thead>
        <tbody>
          {[...lives].reverse().map(({ partId, changedOn, days, hours, loading }) => (
            <tr key={`${partId} ${changedOn}`}>
              <td>{nameOf(job, partId)}</td>
              <td>{changedOn}</td>
              <td className="n">{days === null ? "–" : formatNumber(days)}</td>
              <td className="n">{hours === null ? "–" : formatNumber(hours)}</td>
              <td className="n">{loading === null ? "–" : `${formatNumber(loading)} times clean`}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Sheet>
  );
}
