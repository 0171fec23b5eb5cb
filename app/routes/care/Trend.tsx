/** The filter's loading over time: readings, the four laws that could be, and when it is due by them. */
import { useMemo } from "react";
import { lawCurve } from "~/core/care/blocking";
import { type GaugeTrend, horizonOf, REPEATS_PA } from "~/core/care/gaugeTrend";
import { trendText, whenText } from "~/messages/care";
import { dayText } from "~/messages/when";
import { useTrade } from "~/state/job";
import { LineChart } from "~/ui/lazyChart";
import { Sheet } from "~/ui/place";

const PIECES = 40;
const lawNames: Record<number, string> = { 0: "cake", 1: "pores filling", 1.5: "between", 2: "pores shut" };

export function Trend({ trend }: { trend: GaugeTrend }) {
  const { vacuum } = useTrade();
  const { points, weighed, target } = trend;
  const series = useMemo(() => {
    const from = points[0]?.x ?? 0;
    const to = horizonOf(trend);
    const laws = (weighed?.fits ?? []).map(({ order, trend: fit, share }) => ({
      name: `${lawNames[order] ?? order}, ${Math.round(100 * share)} %`,
      colour: "idle" as const,
      dash: [5, 3 + 2 * order],
      points: lawCurve(fit, order, { from, to, most: 2 * target, pieces: PIECES }),
    }));
    return [
      ...laws,
      {
        name: `change at ${vacuum(trend.limitPa)}`,
        colour: "danger" as const,
        points: [
          { x: from, y: target },
          { x: to, y: target },
        ],
      },
      {
        name: "readings",
        colour: "ink" as const,
        dot: true,
        points: points.flatMap(({ x, loading, isOutlier }) => (isOutlier ? [] : [{ x, y: loading }])),
      },
      {
        name: "left out",
        colour: "idle" as const,
        dot: true,
        points: points.flatMap(({ x, loading, isOutlier }) => (isOutlier ? [{ x, y: loading }] : [])),
      },
    ].filter((one) => one.points.length > 0);
  }, [trend, points, weighed, target, vacuum]);
  const first = points[0];
  const since = first ? dayText(new Date(first.at)) : undefined;
  const earliest = weighed?.earliest;
  return (
    <Sheet>
      <h3>{trend.filter.name}, by its readings</h3>
      <LineChart
        label={trendText(trend, vacuum)}
        x={trend.by !== "days" ? "engine hours" : `days since ${since ?? "the first reading"}`}
        y="times a clean one"
        series={series}
        yMin={0}
        moments={earliest !== null && earliest !== undefined ? [{ x: earliest, isDanger: true }] : []}
      />
      {trend.changedAt !== null && (
        <p style={{ fontWeight: 650, margin: "4px 0" }}>
          From {whenText(trend, trend.changedAt)} on it blocks faster than before: look at the fuel and the
          jar; the dates are of the readings since then.
        </p>
      )}
      {points.some(({ isOutlier }) => isOutlier) && (
        <p style={{ margin: "4px 0" }}>
          One reading does not go with the others and is left out of the dates: strike it if it was misread.
        </p>
      )}
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        Each reading is brought to a clean filter's by the plan at its own load, temperature and levels. How a
        filter blocks is not known beforehand: four laws are weighed by how well they meet the readings, and
        the earliest date of those that do is acted on
        {earliest !== null && earliest !== undefined ? ` (${whenText(trend, earliest)}, red)` : ""}. A gauge
        is taken to repeat within {vacuum(REPEATS_PA)}: assumed. One bad tank of fuel cannot be foretold.
      </p>
    </Sheet>
  );
}
