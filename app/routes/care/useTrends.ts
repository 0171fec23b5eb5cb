/** Trends of all gauges, and the one of the gauge on the chosen line-up's way. */
import { useMemo } from "react";
import { type GaugeTrend, trendsOf } from "~/core/care/gaugeTrend";
import type { Gauge } from "~/core/kinds/gauge";
import { useJob } from "~/state/job";

export function useTrends(): { trends: GaugeTrend[]; trend: GaugeTrend | null; gauge: Gauge | null } {
  const { plan, book, network, stored } = useJob();
  const trends = useMemo(() => trendsOf(network, book), [network, book]);
  const gauges = plan.parts.filter((part) => part.kind === "gauge");
  const gauge =
    gauges.find(({ id }) => stored?.way?.stations.some((station) => station.id === id)) ?? gauges[0] ?? null;
  return { trends, gauge, trend: trends.find(({ gaugeId }) => gaugeId === gauge?.id) ?? null };
}
