/** A line chart in the scheme's own ink. Loaded only where a chart is shown. */
import { Chart, Legend, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from "chart.js";
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
  dash?: number[];
  dot?: boolean;
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

export function LineChart({
  label,
  x,
  y,
  series,
  height = 240,
}: {
  label: string;
  x: string;
  y: string;
  series: Series[];
  height?: number;
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
            borderDash: dash,
            borderWidth: 2.5,
          })),
        }}
        options={{
          maintainAspectRatio: false,
          animation: false,
          scales: { x: axis(x), y: axis(y) },
          plugins: { legend: { labels: { color: scheme.ink, boxHeight: 2 } } },
        }}
      />
    </div>
  );
}
