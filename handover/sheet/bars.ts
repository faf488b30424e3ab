import { cutLetters, formatMs, ownValue } from "#core";
import type { Figure } from "../numbers/listFigures";
import { escapeHtml } from "./escapeHtml";

const WIDTH = 660;
const LEFT = 176;
/** Keeps the marks of the scale from running through a text. */
const HALO = 'paint-order="stroke" stroke="#fff" stroke-width="4"';
/** The letters of a label that fit left of the bars. */
const MAX_LETTERS = 25;
const ROW = 17;

/** Returns a common scale: a whole number of frames that includes the longest, with evenly spaced marks. */
function scaleOf(most: number): { readonly to: number; readonly step: number } {
  const step =
    [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find(frames => most / frames <= 12) ?? Math.ceil(most / 12);
  return { to: Math.max(step, Math.ceil(most / step) * step), step };
}

/** One bar: its range and its label. */
interface Bar {
  readonly words: string;
  readonly from: number;
  readonly to: number;
  readonly isLeast: boolean;
}

/** Returns the bars of a rule: timeline parts in sequence, openings at their ranges, other lengths from 0. */
function barsOf(figures: readonly Figure[]): Bar[] {
  const framesOf = (field: string) => figures.find(figure => figure.field === field)?.frames ?? 0;
  const startup = framesOf("frames.startup");
  const begins: Readonly<Record<string, number>> = {
    "frames.active": startup,
    "frames.recovery": startup + framesOf("frames.active"),
  };
  return figures.flatMap(({ field, label, frames, rounding }): Bar[] => {
    const isLeast = rounding === "at least";
    const [, opens] = /^opens\.(\d+)\.(?:from|to)$/.exec(field) ?? [];
    if (frames === null || (opens !== undefined && field.endsWith("from"))) return [];
    if (opens !== undefined)
      return [{ words: "opens", from: framesOf(`opens.${opens}.from`), to: frames, isLeast }];
    const from = ownValue(begins, field) ?? 0;
    return frames === 0 ? [] : [{ words: cutLetters(label, MAX_LETTERS), from, to: from + frames, isLeast }];
  });
}

/**
 * Draws the lengths of a rule on one scale, each with its frames and ms; empty for a rule without lengths.
 * Frames are the kit's, `rateHz` is the kit's rate.
 */
export function drawBars(figures: readonly Figure[], rateHz: number): string {
  const bars = barsOf(figures);
  if (bars.length === 0) return "";
  const { to: most, step } = scaleOf(Math.max(...bars.map(({ to }) => to)));
  const xOf = (frame: number) => LEFT + (frame / most) * (WIDTH - LEFT - 130);
  const bottom = bars.length * ROW + 2;
  const marks = Array.from({ length: Math.floor(most / step) + 1 }, (_, k) => k * step);
  const rows = bars.map(({ words, from, to, isLeast }, k) => {
    const y = k * ROW;
    // Times to wait are filled, windows are outlined, so that they differ without colour.
    const look = isLeast ? 'fill="#34624a"' : 'fill="#fff" stroke="#34624a" stroke-width="1.5"';
    const label =
      from > 0 && words === "opens" ? `${from}f to ${to}f` : `${to - from}f ${formatMs(to - from, rateHz)}`;
    return (
      `<text x="0" y="${y + 12}">${escapeHtml(words)}</text>` +
      `<rect x="${xOf(from).toFixed(1)}" y="${y + 3}" width="${Math.max(1, xOf(to) - xOf(from)).toFixed(1)}" height="${ROW - 6}" ${look}/>` +
      `<text x="${(xOf(to) + 5).toFixed(1)}" y="${y + 12}" ${HALO}>${label}</text>`
    );
  });
  const lines = marks.map(
    frame =>
      `<line x1="${xOf(frame).toFixed(1)}" x2="${xOf(frame).toFixed(1)}" y1="0" y2="${bottom}" stroke="#d3cab4"/>` +
      `<text x="${xOf(frame).toFixed(1)}" y="${bottom + 11}" text-anchor="middle">${frame}</text>`,
  );
  return `<svg viewBox="0 0 ${WIDTH} ${bottom + 16}" width="${WIDTH}" role="img" aria-label="lengths in frames, to scale">${lines.join("")}${rows.join("")}</svg>`;
}
