import { BarController, BarElement, CategoryScale, Chart, LinearScale } from "chart.js";
import { useEffect, useRef } from "react";
import { readPalette } from "../tape/palette";

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** How many values fall into each bin from 0 up; the last bin takes everything beyond. */
export function countBins(values: readonly number[], binWidth: number, bins: number): number[] {
  const counts = Array<number>(bins).fill(0);
  for (const value of values) counts[Math.max(0, Math.min(bins - 1, Math.floor(value / binWidth)))]!++;
  return counts;
}

/** A distribution as bars, in the colours of the theme. `unit` stands behind the numbers of the axis. */
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
  useEffect(() => {
    if (!canvas.current) return;
    const { moss, soft, line } = readPalette(canvas.current);
    const ticks = {
      color: soft,
      font: { family: '"Atkinson Hyperlegible Mono Variable", monospace', size: 11 },
    };
    chart.current = new Chart(canvas.current, {
      type: "bar",
      data: {
        labels: [],
        datasets: [{ data: [], backgroundColor: moss, categoryPercentage: 1, barPercentage: 0.9 }],
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        scales: {
          x: { grid: { display: false }, ticks: { ...ticks, maxRotation: 0 } },
          y: {
            beginAtZero: true,
            grid: { color: line },
            ticks: { ...ticks, precision: 0, maxTicksLimit: 4 },
          },
        },
      },
    });
    return () => chart.current?.destroy();
  }, []);
  useEffect(() => {
    const made = chart.current;
    if (!made) return;
    made.data.labels = Array.from(
      { length: bins },
      (_, k) => `${Math.round(k * binWidth * 10) / 10}${k === bins - 1 ? "+" : ""} ${unit}`,
    );
    made.data.datasets[0]!.data = countBins(values, binWidth, bins);
    made.update("none");
  }, [values, binWidth, bins, unit]);
  return (
    <div className="h-28 w-full max-w-[420px]">
      <canvas ref={canvas} role="img" aria-label={`${label}: ${values.length} values`} />
    </div>
  );
}
