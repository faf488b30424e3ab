import {
  Chart,
  type ChartComponentLike,
  type ChartConfiguration,
  type ChartType,
  type Plugin,
} from "chart.js";
import { useCallback, useEffect, useRef } from "react";
import { readPalette, type Palette } from "./palette";

export const CHART_FONT = { family: '"Atkinson Hyperlegible Mono Variable", monospace', size: 11 };

/** The options of every chart: it fills its box, without animation. */
export const CHART_BASE = { animation: false, responsive: true, maintainAspectRatio: false } as const;

/** The parts of a chart that depend on its data and on the theme. */
type Painted<Type extends ChartType> = Pick<ChartConfiguration<Type>, "data" | "options">;

/**
 * Creates a chart on a canvas when it is mounted, repaints it in the colours of a new theme, and destroys it.
 * `parts` are the components of the library that it needs; `paint` returns its data and options; `repaint`
 * applies them again if it is another function than the one shown.
 */
export function useChart<Type extends ChartType>(
  type: Type,
  parts: ChartComponentLike[],
  paint: (palette: Palette) => Painted<Type>,
  onDrawn?: (chart: Chart<Type>, palette: Palette) => void,
) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<Type> | undefined>(undefined);
  const latest = useRef({ type, parts, paint, onDrawn });
  useEffect(() => {
    latest.current = { type, parts, paint, onDrawn };
  });
  /** The paint that the chart shows, so that a chart just created is not laid out again. */
  const shown = useRef<typeof paint | undefined>(undefined);
  const apply = useCallback(() => {
    const made = chart.current;
    if (!made) return;
    shown.current = latest.current.paint;
    const { data, options } = shown.current(readPalette(made.canvas));
    made.data = data;
    if (options) made.options = options as typeof made.options;
    made.update("none");
  }, []);
  const repaint = useCallback(() => {
    if (shown.current !== latest.current.paint) apply();
  }, [apply]);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const { type, parts, paint } = latest.current;
    Chart.register(...parts);
    const drawn: Plugin<Type> = {
      id: "drawn",
      afterDatasetsDraw: made => latest.current.onDrawn?.(made as Chart<Type>, readPalette(element)),
    };
    const made = new Chart<Type>(element, { type, ...paint(readPalette(element)), plugins: [drawn] });
    chart.current = made;
    shown.current = paint;
    window.addEventListener("moss-tap-theme", apply);
    return () => {
      window.removeEventListener("moss-tap-theme", apply);
      made.destroy();
      chart.current = undefined;
    };
  }, [apply]);
  return { canvas, chart, repaint };
}
