/** A line chart in the scheme's own ink. Loaded only where a chart is shown. */
import {
  Chart,
  type ChartType,
  Legend,
  LinearScale,
  LineElement,
  type Plugin,
  PointElement,
  ScatterController,
  Tooltip,
} from "chart.js";
import { useEffect, useState } from "react";
import { Scatter } from "react-chartjs-2";
import { currentTheme, day, night, type Scheme } from "./theme";

Chart.defaults.font.family = "Archivo Variable, Archivo, sans-serif";
Chart.defaults.font.size = 12;
Chart.register(LinearScale, PointElement, LineElement, ScatterController, Tooltip, Legend);

export interface Series {
  name: string;
  colour: keyof Scheme;
  points: { x: number; y: number }[];
  dash?: number[] | undefined;
  dot?: boolean;
}

/** A moment on the x axis: a hairline, or the heavy one that is scrubbed. */
export interface Moment {
  x: number;
  isNow?: boolean;
  isDanger?: boolean;
}

function useScheme(): Scheme {
  const [scheme, setScheme] = useState<Scheme>(() => (currentTheme() === "night" ? night : day));
  useEffect(() => {
    const observer = new MutationObserver(() => setScheme(currentTheme() === "night" ? night : day));
    observer.observe(document.documentElement, { attributeFilter: ["data-theme"] });
    return () => observer.disconnect();
  }, []);
  return scheme;
}

/** How far the plot stands in from the sides of the chart, px: for what is drawn over the same axis. */
export interface Inset {
  leftPx: number;
  rightPx: number;
}

interface Over {
  moments: readonly Moment[];
  scheme: Scheme;
  onInset?: ((inset: Inset) => void) | undefined;
}

declare module "chart.js" {
  interface PluginOptionsByType<TType extends ChartType> {
    over?: TType extends ChartType ? Over : never;
  }
}

/** Draws moments over the lines, and tells where the plot stands. */
const over: Plugin<"scatter", Over> = {
  id: "over",
  afterLayout({ chartArea, width }, _, { onInset }) {
    onInset?.({ leftPx: Math.round(chartArea.left), rightPx: Math.round(width - chartArea.right) });
  },
  afterDatasetsDraw({ ctx, chartArea, scales }, _, { moments, scheme }) {
    for (const { x, isNow, isDanger } of moments) {
      const px = scales.x?.getPixelForValue(x) ?? Number.NaN;
      if (!(px >= chartArea.left - 1 && px <= chartArea.right + 1)) continue;
      ctx.save();
      ctx.strokeStyle = isDanger ? scheme.danger : isNow ? scheme.act : scheme.soft;
      ctx.lineWidth = isNow ? 2.5 : 1.2;
      if (!isNow) ctx.setLineDash([3, 3]);
      ctx.beginPath();
      ctx.moveTo(px, chartArea.top);
      ctx.lineTo(px, chartArea.bottom);
      ctx.stroke();
      ctx.restore();
    }
  },
};
const plugins = [over];

export function LineChart({
  label,
  x,
  y,
  series,
  height = 240,
  moments = [],
  yMin,
  xMax,
  onInset,
}: {
  label: string;
  x: string;
  y: string;
  series: Series[];
  height?: number;
  moments?: readonly Moment[];
  yMin?: number;
  xMax?: number;
  onInset?: (inset: Inset) => void;
}) {
  const scheme = useScheme();
  const axis = (text: string) => ({
    title: { display: true, text, color: scheme.soft },
    ticks: { color: scheme.soft },
    grid: { color: scheme.hairline },
  });
  return (
    <div style={{ height }}>
      <Scatter
        role="img"
        aria-label={label}
        data={{
          datasets: series.map(({ name, colour, points, dash, dot }) => ({
            label: name,
            data: points,
            showLine: !dot,
            pointRadius: dot ? 6 : 0,
            borderColor: scheme[colour],
            backgroundColor: scheme[colour],
            ...(dash && { borderDash: dash }),
            borderWidth: 2.5,
          })),
        }}
        plugins={plugins}
        options={{
          maintainAspectRatio: false,
          animation: false,
          scales: {
            x: { ...axis(x), ...(xMax === undefined ? {} : { min: 0, max: xMax }) },
            y: { ...axis(y), ...(yMin === undefined ? {} : { min: yMin }) },
          },
          plugins: {
            legend: { labels: { color: scheme.ink, boxHeight: 2 } },
            over: { moments, scheme, onInset },
          },
        }}
      />
    </div>
  );
}
