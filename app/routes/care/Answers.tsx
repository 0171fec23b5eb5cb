/** Three lines that answer: the fuel, the filter, the last reading against the plan. */
import { useMemo } from "react";
import styled from "styled-components";
import { entriesOf, type VacuumReading } from "~/core/book/entries";
import type { GaugeTrend } from "~/core/care/gaugeTrend";
import { fitOf } from "~/core/care/instruments";
import { worstJar } from "~/core/care/jar";
import { type ImpliedLoading, loadingFromReading } from "~/core/care/loadingFromReading";
import type { Network } from "~/core/network/network";
import { fitText, jarVerdicts, trendText } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { dayText } from "~/messages/when";
import { useJob, useTrade } from "~/state/job";

const Lines = styled.dl`
  margin: 0 16px 12px; display: grid; grid-template-columns: 84px minmax(0, 1fr); gap: 4px 12px; font-size: 18px;
  dt { color: var(--soft); font-weight: 600; } dd { margin: 0; font-weight: 600; }
`;

const uncapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

export function Answers({ trend }: { trend: GaugeTrend | null }) {
  const { job, book, network } = useJob();
  const say = useTrade();
  const last = entriesOf(book, "vacuum").at(-1);
  const isThere = (id: string) => job.tanks.some((tank) => tank.id === id);
  const worst = worstJar(entriesOf(book, "sample").filter(({ tankId }) => isThere(tankId)));
  return (
    <Lines>
      <dt>Fuel</dt>
      <dd>
        {worst
          ? `${nameOf(job, worst.sample.tankId)}: ${uncapital(jarVerdicts[worst.verdict].name)}, sampled ${dayText(new Date(worst.sample.at))}`
          : "not sampled yet: draw a jar from the lowest point"}
      </dd>
      <dt>Filter</dt>
      <dd>{trend ? trendText(trend, say.vacuum) : "no reading yet that stands behind a filter"}</dd>
      <dt>Reading</dt>
      <dd>{last ? <LastReading reading={last} network={network} /> : "none yet"}</dd>
    </Lines>
  );
}

/** What a reading implies by the plan at what it was taken at. */
export function useImplied(reading: VacuumReading, network: Network): ImpliedLoading {
  const { plan } = useJob();
  const lineUp = plan.lineUps.find(({ id }) => id === reading.lineUpId);
  return useMemo(
    () =>
      lineUp
        ? loadingFromReading(network, lineUp, reading.conditions, reading.gaugeId, reading.vacuumPa)
        : { outcome: "notSolved" },
    [network, lineUp, reading],
  );
}

/** The last reading against what the plan computes at what it was taken at. */
function LastReading({ reading, network }: { reading: VacuumReading; network: Network }) {
  const say = useTrade();
  const implied = useImplied(reading, network);
  if (!("computedPa" in implied))
    return <>{say.vacuum(reading.vacuumPa)}: the plan gives no figure to compare with</>;
  return (
    <>
      {say.vacuum(reading.vacuumPa)} on {dayText(new Date(reading.at))}, the plan says{" "}
      {say.vacuum(implied.computedPa)}:{" "}
      {fitText("vacuum", fitOf({ quantity: "vacuum" }, reading.vacuumPa, implied.computedPa), say)}
    </>
  );
}
