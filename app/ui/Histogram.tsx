import { BarController, BarElement, CategoryScale, Chart, LinearScale, type ChartOptions } from "chart.js";
import { useEffect, useRef } from "react";
import { readPalette } from "./palette";

/** The pause after which the chart is drawn, because its layout takes longer than a frame. */
const REST_MS = 120;

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** Counts the values in each bin from 0 up; the last bin includes all larger values. */
export function countBins(values: readonly number[], binWidth: number, bins: number): number[] {
  const counts = Array<number>(bins).fill(0);
  for (const value of values) counts[Math.max(0, Math.min(bins - 1, Math.floor(value / binWidth)))]!++;
  return counts;
}

function optionsFor(element: Element): ChartOptions<"bar"> {
  const { soft, line } = readPalette(element);
  const font = { family: '"Atkinson Hyperlegible Mono Variable", monospace', size: 11 };
  const ticks = { color: soft, font };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    scales: {
      x: { grid: { display: false }, ticks: { ...ticks, maxRotation: 0, sampleSize: 3 } },
      y: {
        beginAtZero: true,
        grid: { color: line },
        ticks: { ...ticks, precision: 0, maxTicksLimit: 4 },
      },
    },
  };
}

function fill(chart: Chart<"bar">, counts: readonly number[], binWidth: number, unit: string): void {
  const last = counts.length - 1;
  chart.data.labels = counts.map(
    (_, k) => `${Math.round(k * binWidth * 10) / 10}${k === last ? "+" : ""} ${unit}`,
  );
  chart.data.datasets[0]!.data = [...counts];
  chart.update("none");
}

/** A distribution as bars, in the colours of the theme. `unit` follows the numbers of the axis. */
export function Histogram({
  label,
  values,
  binWidth,
  bins,
  unit,
}: {
  label: string;
  values: readonly number[];
  binWidth: number;
  bins: number;
  unit: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<"bar"> | undefined>(undefined);
  const counts = countBins(values, binWidth, bins);
  const key = counts.join();
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const { moss } = readPalette(element);
    const datasets = [{ data: [], backgroundColor: moss, categoryPercentage: 1, barPercentage: 0.9 }];
    const made = new Chart(element, {
      type: "bar",
      data: { labels: [], datasets },
      options: optionsFor(element),
    });
    chart.current = made;
    const onTheme = () => {
      made.options = optionsFor(element);
      made.data.datasets[0]!.backgroundColor = readPalette(element).moss;
      made.update("none");
    };
    window.addEventListener("moss-tap-theme", onTheme);
    return () => {
      window.removeEventListener("moss-tap-theme", onTheme);
      made.destroy();
    };
  }, []);
  useEffect(() => {
    const made = chart.current;
    if (!made) return;
    const isFirst = made.data.labels?.length === 0;
    const timer = setTimeout(
      () => fill(made, key.split(",").map(Number), binWidth, unit),
      isFirst ? 0 : REST_MS,
    );
    return () => clearTimeout(timer);
  }, [key, binWidth, unit]);
  return (
    <div className="h-28 w-full max-w-[420px]">
      <canvas ref={canvas} role="img" aria-label={`${label}: ${values.length} values`} />
    </div>
  );
}
