import type { Chart, ChartConfiguration, ChartType, Plugin } from "chart.js";
import { useCallback, useEffect, useRef, useState } from "react";
import { fetchPart } from "./fetchPart";
import { readPalette, type Palette } from "./palette";

export const CHART_FONT = { family: '"Atkinson Hyperlegible Mono Variable", monospace', size: 11 };

/** The options of every chart: it fills its box, without animation. */
export const CHART_BASE = { animation: false, responsive: true, maintainAspectRatio: false } as const;

/** The parts of a chart that depend on its data and on the theme. */
type Painted<Type extends ChartType> = Pick<ChartConfiguration<Type>, "data" | "options">;

/** Loads the library of charts; it is loaded once for all charts. */
export const loadCharts = () =>
  fetchPart(() => import("./chartLibrary")).then(library => library.withComponents());

/**
 * Creates a chart on a canvas as soon as the library is loaded, repaints it in the colours of a new theme, and destroys it
 * with its component. `paint` returns its data and options; `repaint` applies them again if it is another function than the
 * one shown. `trouble` is why it is not drawn, with the cure, if the library could not be fetched.
 */
export function useChart<Type extends ChartType>(
  type: Type,
  paint: (palette: Palette) => Painted<Type>,
  onDrawn?: (chart: Chart<Type>, palette: Palette) => void,
) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<Type> | undefined>(undefined);
  const [trouble, setTrouble] = useState<string>();
  const latest = useRef({ type, paint, onDrawn });
  useEffect(() => {
    latest.current = { type, paint, onDrawn };
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
    let isMounted = true;
    const drawn: Plugin<Type> = {
      id: "drawn",
      afterDatasetsDraw: made => latest.current.onDrawn?.(made as Chart<Type>, readPalette(element)),
    };
    loadCharts().then(
      ChartClass => {
        if (!isMounted) return;
        const { type, paint } = latest.current;
        const options = { type, ...paint(readPalette(element)), plugins: [drawn] };
        chart.current = new ChartClass<Type>(element, options);
        shown.current = paint;
      },
      ({ message }: Error) => isMounted && setTrouble(`The chart is not drawn. ${message}`),
    );
    window.addEventListener("moss-tap-theme", apply);
    return () => {
      window.removeEventListener("moss-tap-theme", apply);
      isMounted = false;
      chart.current?.destroy();
      chart.current = undefined;
    };
  }, [apply]);
  return { canvas, chart, repaint, trouble };
}
