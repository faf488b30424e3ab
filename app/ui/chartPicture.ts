import { BasicPlatform, Chart, type ChartConfiguration, type ChartType } from "chart.js";
import type { Palette } from "./palette";
import { CHART_ROOM, paintName, paintPicture } from "./svgPicture";

const WIDTH_PX = 760;
const HEIGHT_PX = 420;

/**
 * Returns a chart as the text of an SVG file with a name: another chart of the same data is painted, without animation, on a
 * context that writes SVG. The components of its type must be registered, as they are once a chart is on the page.
 */
export function chartPicture<Type extends ChartType>(
  name: string,
  { leaf: paper, ink }: Pick<Palette, "leaf" | "ink">,
  { type, data: { datasets, ...data }, options }: ChartConfiguration<Type>,
  onDrawn: (chart: Chart<Type>) => void,
): string {
  const still = { responsive: false, animation: false, devicePixelRatio: 1, layout: { padding: CHART_ROOM } };
  let painted: Chart<Type> | undefined;
  const svg = paintPicture(WIDTH_PX, HEIGHT_PX, ctx => {
    const item = { getContext: () => ctx } as unknown as HTMLCanvasElement;
    painted = new Chart<Type>(item, {
      type,
      // A line with segments is not painted as a Path2D, which a context that writes SVG does not know.
      data: { ...data, datasets: datasets.map(lines => ({ ...lines, segment: {} })) },
      options: { ...options, ...still } as NonNullable<typeof options>,
      plugins: [
        {
          id: "picture",
          beforeDraw: made => paintName(made.ctx, name, { paper, ink }, WIDTH_PX, HEIGHT_PX),
          afterDatasetsDraw: made => onDrawn(made as Chart<Type>),
        },
      ],
      platform: BasicPlatform,
    });
  });
  // The library keeps every chart until it is destroyed, which wipes what it painted.
  painted?.destroy();
  return svg;
}
