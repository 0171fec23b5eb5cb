/*
 * Decides: whether a pump fits its work, and whether two would.
 * Seen in three seconds: where its curve meets what the system asks, and how near its relief or dead head it runs.
 */
import { lazy, Suspense, useMemo } from "react";
import { type Arrangement, arrangedPoints, pumpPoints } from "~/core/hydraulics/pumps";
import { tradeIn } from "~/core/units/trade";
import { partKindName } from "~/messages/kinds";
import { nameOf } from "~/messages/notes";
import { useJob, useTrade } from "~/state/job";
import { Table } from "~/ui/table";

const PumpChart = lazy(() => import("./PumpChart"));
const arrangementNames: Record<Arrangement, string> = {
  alone: "as it is",
  parallel: "two in parallel",
  series: "two in series",
};

export default function Pumps() {
  const { job, plan, network, lineUp, stored, select } = useJob();
  const { units } = job;
  const points = useMemo(() => pumpPoints(network, plan.conditions), [network, plan.conditions]);
  const pumpId = stored?.way?.firstPumpId ?? points.find(({ lineUpId }) => lineUpId === lineUp?.id)?.pumpId;
  const two = useMemo(
    () => (lineUp && pumpId ? arrangedPoints(network, lineUp, plan.conditions, pumpId) : []),
    [network, lineUp, plan.conditions, pumpId],
  );
  const { gauge, vacuum } = useTrade();
  const flow = (si: number) => tradeIn(units).flow(si);
  if (points.length === 0) return <p>No pump with a curve runs in any line-up.</p>;
  return (
    <div>
      {stored && (
        <Suspense fallback={<p>Drawing…</p>}>
          <PumpChart network={network} verdict={stored} units={units} />
        </Suspense>
      )}
      {pumpId && two.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>{nameOf(job, pumpId)}</th>
              <th className="n">Flow</th>
              <th className="n">Lifts</th>
              <th className="n">Vacuum at its inlet</th>
              <th className="n">Fed at</th>
            </tr>
          </thead>
          <tbody>
            {two.map(({ arrangement, point, feedPa }) => (
              <tr key={arrangement}>
                <td>{arrangementNames[arrangement]}</td>
                <td className="n">{point ? flow(point.flowM3S) : "–"}</td>
                <td className="n">{point ? gauge(point.risePa) : "–"}</td>
                <td className="n">{point ? vacuum(Math.max(0, -point.inletPa)) : "–"}</td>
                <td className="n">{feedPa === null ? "–" : gauge(feedPa)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <h3 style={{ marginTop: 12 }}>Every pump in every line-up</h3>
      <Table>
        <thead>
          <tr>
            <th>Pump</th>
            <th>Line-up</th>
            <th className="n">Flow</th>
            <th className="n">Lifts</th>
            <th className="n">Dead head</th>
            <th>Relief</th>
          </tr>
        </thead>
        <tbody>
          {points.map((point) => {
            const part = plan.parts.find(({ id }) => id === point.pumpId);
            return (
              <tr key={`${point.pumpId}${point.lineUpId}`}>
                <td>
                  <button type="button" className="plain" onClick={() => select(point.pumpId)}>
                    {part?.name}
                  </button>{" "}
                  <span style={{ color: "var(--soft)" }}>{part ? partKindName(part.kind) : ""}</span>
                </td>
                <td>{plan.lineUps.find(({ id }) => id === point.lineUpId)?.name}</td>
                <td className="n">{flow(point.flowM3S)}</td>
                <td className="n">{gauge(point.risePa)}</td>
                <td className="n">{gauge(point.deadHeadPa)}</td>
                <td>
                  {part && "reliefPa" in part && part.reliefPa !== undefined
                    ? `${gauge(part.reliefPa)}${point.isAtRelief ? ", open" : ""}`
                    : "none"}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </div>
  );
}
