import { countWords } from "#core";
import type { ChartOptions } from "chart.js";
import { useEffect } from "react";
import type { Palette } from "./palette";
import { CHART_BASE, CHART_FONT, useChart } from "./useChart";

/** The pause after which a changed chart is drawn, because its layout takes longer than a frame. */
const REST_MS = 120;

/** Counts the values in each bin from 0 up; the last bin includes all larger values. */
export function countBins(values: readonly number[], binWidth: number, bins: number): number[] {
  const counts = Array<number>(bins).fill(0);
  for (const value of values) counts[Math.max(0, Math.min(bins - 1, Math.floor(value / binWidth)))]!++;
  return counts;
}

function optionsFor({ soft, line }: Palette): ChartOptions<"bar"> {
  const ticks = { color: soft, font: CHART_FONT };
  return {
    ...CHART_BASE,
    plugins: {
      legend: { display: false },
      tooltip: { callbacks: { label: ({ raw }) => countWords(Number(raw), "value") } },
    },
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
  const counts = countBins(values, binWidth, bins);
  const words = (k: number) => `${Math.round(k * binWidth * 10) / 10}${k === bins - 1 ? "+" : ""} ${unit}`;
  const { canvas, repaint, trouble } = useChart("bar", palette => ({
    data: {
      labels: counts.map((_, k) => words(k)),
      datasets: [{ data: counts, backgroundColor: palette.moss, categoryPercentage: 1, barPercentage: 0.9 }],
    },
    options: optionsFor(palette),
  }));
  const key = counts.join();
  useEffect(() => {
    const timer = setTimeout(repaint, REST_MS);
    return () => clearTimeout(timer);
  }, [key, binWidth, unit, repaint]);
  return (
    <div className="h-28 w-full max-w-[420px]">
      <canvas
        ref={canvas}
        hidden={trouble !== undefined}
        role="img"
        aria-label={`${label}: ${countWords(values.length, "value")}`}
      />
      {trouble && <p role="status">{trouble}</p>}
    </div>
  );
}
