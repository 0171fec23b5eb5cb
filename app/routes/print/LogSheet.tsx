/** Everything that stands in the log, in the order of its days. */
import { logRows } from "~/messages/handOver";
import { useJob } from "~/state/job";

export function LogSheet() {
  const { job, book } = useJob();
  return (
    <>
      <h1>{job.name}: log</h1>
      <table>
        <thead>
          <tr>
            <th>Day</th>
            <th>What</th>
            <th>Found</th>
          </tr>
        </thead>
        <tbody>
          {logRows(job, book).map(([day = "", what = "", found = ""], i) => (
            // Two rows may say the same; they stand in one order.
            <tr key={`${i} ${day} ${what}`}>
              <td>{day}</td>
              <td>{what}</td>
              <td>{found}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
