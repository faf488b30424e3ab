import type { Chart, ChartOptions } from "chart.js";
import { useEffect, type KeyboardEvent, type ReactNode } from "react";
import { fetchPart } from "./fetchPart";
import { readPalette, type Palette } from "./palette";
import { CHART_BASE, CHART_FONT, useChart } from "./useChart";

/** One line of a chart; its look sets colour and dashes, so that lines differ without colour. */
export interface ChartLine {
  readonly label: string;
  readonly look: "moss" | "sprout" | "bark" | "foxglove" | "dew" | "soft";
  readonly dash?: readonly number[];
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

/** A vertical mark on the chart. */
export interface ChartMark {
  readonly x: number;
  readonly words: string;
  readonly look: keyof Palette;
}

interface Shown {
  readonly lines: readonly ChartLine[];
  readonly marks: readonly ChartMark[];
  readonly xWords: string;
  readonly yWords: string;
  readonly yMost: number | undefined;
  readonly formatX: (x: number) => string;
}

/** Paints marks with their words, on strips of the colour behind the chart, so that lines do not cross the words. */
function paintMarks(
  chart: Chart<"line">,
  marks: readonly ChartMark[],
  palette: Palette,
  behind: string,
): void {
  const { ctx, chartArea, scales } = chart;
  marks.forEach(({ x, words, look }, k) => {
    const at = scales.x!.getPixelForValue(x);
    if (at < chartArea.left - 1 || at > chartArea.right + 1) return;
    ctx.save();
    ctx.strokeStyle = ctx.fillStyle = palette[look];
    ctx.lineWidth = 2;
    ctx.beginPath();
    ctx.moveTo(at, chartArea.top);
    ctx.lineTo(at, chartArea.bottom);
    ctx.stroke();
    ctx.font = `${CHART_FONT.size}px ${CHART_FONT.family}`;
    const width = ctx.measureText(words).width;
    const left = at + 4 + width > chartArea.right ? at - 4 - width : at + 4;
    ctx.fillStyle = behind;
    ctx.fillRect(left - 2, chartArea.top + 2 + k * 14, width + 4, 13);
    ctx.fillStyle = palette[look];
    ctx.fillText(words, left, chartArea.top + 12 + k * 14);
    ctx.restore();
  });
}

function optionsFor(palette: Palette, { xWords, yWords, yMost, formatX }: Shown): ChartOptions<"line"> {
  const ticks = { color: palette.soft, font: CHART_FONT };
  const title = (text: string) => ({ display: true, text, color: palette.soft, font: CHART_FONT });
  return {
    ...CHART_BASE,
    interaction: { mode: "index", intersect: false },
    plugins: {
      legend: {
        labels: {
          color: palette.ink,
          font: CHART_FONT,
          boxWidth: 24,
          boxHeight: 1,
          sort: (a, b) => (a.datasetIndex ?? 0) - (b.datasetIndex ?? 0),
        },
      },
    },
    scales: {
      x: {
        type: "linear",
        title: title(xWords),
        grid: { color: palette.line },
        ticks: { ...ticks, maxRotation: 0, callback: value => formatX(Number(value)) },
      },
      y: {
        beginAtZero: true,
        ...(yMost === undefined ? {} : { max: yMost }),
        title: title(yWords),
        grid: { color: palette.line },
        ticks,
      },
    },
  };
}

const toDatasets = (palette: Palette, lines: readonly ChartLine[]) =>
  lines.map(({ label, look, dash = [], points }) => ({
    label,
    data: points.map(({ x, y }) => ({ x, y })),
    borderColor: palette[look],
    backgroundColor: palette[look],
    borderDash: [...dash],
    // Dashed lines are drawn over solid ones, so that both show where they are equal.
    order: dash.length > 0 ? 0 : 1,
    borderWidth: 2,
    pointRadius: points.length > 30 ? 0 : 2,
  }));

/** Lines over a number, in the colours of the theme; a click reports its x. */
export function LineChart({
  label,
  isMain = false,
  onPick,
  onKeyDown,
  save,
  ...shown
}: Shown & {
  label: string;
  /** Whether it is what its view is for, and takes half of the window's height. */
  isMain?: boolean;
  onPick?: (x: number) => void;
  onKeyDown?: (event: KeyboardEvent) => void;
  /** Renders the buttons that save the chart; `makeSvg` resolves with it as an SVG file with a name. */
  save?: (makeSvg: (name: string) => Promise<string>) => ReactNode;
}) {
  const paint = (palette: Palette) => ({
    data: { datasets: toDatasets(palette, shown.lines) },
    options: optionsFor(palette, shown),
  });
  const { canvas, chart, repaint, trouble } = useChart("line", paint, (made, palette) =>
    paintMarks(made, shown.marks, palette, palette.paper),
  );
  useEffect(repaint);
  const makeSvg = async (name: string) => {
    const { chartPicture } = await fetchPart(() => import("./chartPicture"));
    const palette = readPalette(document.body);
    return chartPicture(name, palette, { type: "line", ...paint(palette) }, made =>
      paintMarks(made, shown.marks, palette, palette.leaf),
    );
  };
  return (
    <>
      <div className={`mt-2 w-full ${isMain ? "h-[clamp(12rem,50dvh,40rem)]" : "h-48 max-w-[760px]"}`}>
        <canvas
          ref={canvas}
          hidden={trouble !== undefined}
          role={onPick ? "slider" : "img"}
          {...(onPick ? { tabIndex: 0, "aria-valuetext": shown.marks.at(-1)?.words ?? "" } : {})}
          aria-label={label}
          className={onPick ? "cursor-pointer" : ""}
          onClick={event => {
            const x = chart.current?.scales.x?.getValueForPixel(event.nativeEvent.offsetX);
            if (x !== undefined) onPick?.(x);
          }}
          onKeyDown={onKeyDown}
        />
        {trouble && <p role="status">{trouble}</p>}
      </div>
      {save?.(makeSvg)}
    </>
  );
}
