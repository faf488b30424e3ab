/**
 * The views below which the dock has a height of its own; `linked` is Play while a running game plays, `wide` while the stage fills
 * the window, `first-checks` Prove that was opened without a check.
 */
export type DockView =
  | "wire"
  | "shape"
  | "play"
  | "linked"
  | "wide"
  | "tune"
  | "prove"
  | "first-checks"
  | "hand-over";

/** The heights between which one key cycles: the bar alone with its overview, a few rows, half the window, most of it. */
export type DockLevel = "strip" | "low" | "half" | "tall";

export const STRIP_PX = 44;
/** The least height at which rows are shown. */
export const LEAST_PX = 120;
/** The height left to the view above, at least, in windows that have twice as much. */
const VIEW_PX = 200;
/** Below this height of the window the tape gives way: as delivered, only its strip is shown. */
const LOW_WINDOW_PX = 544;

const LEVELS: readonly DockLevel[] = ["strip", "low", "half", "tall"];
const LOW_PX = 142;

/** The height of each view's dock until the designer chooses another. */
const DELIVERED: Readonly<Record<DockView, number>> = {
  wire: LOW_PX,
  shape: LOW_PX,
  play: LOW_PX,
  linked: 380,
  wide: STRIP_PX,
  tune: STRIP_PX,
  prove: 168,
  "first-checks": 300,
  "hand-over": STRIP_PX,
};

/** The heights that the designer has chosen, in px, by view. */
export type ChosenHeights = Readonly<Partial<Record<DockView, number>>>;

/** Returns the greatest height of a dock in a window of some height, in px. */
export const greatestPx = (windowPx: number): number =>
  Math.max(LEAST_PX, windowPx - Math.min(VIEW_PX, Math.floor(windowPx / 2)));

/** Returns the height of a level in a window of some height, in px. */
export function levelPx(level: DockLevel, windowPx: number): number {
  const px = { strip: STRIP_PX, low: LOW_PX, half: windowPx / 2, tall: greatestPx(windowPx) }[level];
  return clampHeight(px, windowPx);
}

/** Returns a height that can be used: the strip, or one at which rows are shown and the view keeps its room. */
export function clampHeight(px: number, windowPx: number): number {
  if (px < (STRIP_PX + LEAST_PX) / 2) return STRIP_PX;
  return Math.round(Math.max(LEAST_PX, Math.min(greatestPx(windowPx), px)));
}

/**
 * Returns the height of a view's dock: the chosen one, or the delivered one, as far as the window has room for it. The
 * choice itself remains for taller windows.
 */
export function heightOf(view: DockView, chosen: ChosenHeights, windowPx: number): number {
  const delivered = windowPx < LOW_WINDOW_PX ? STRIP_PX : DELIVERED[view];
  return clampHeight(chosen[view] ?? delivered, windowPx);
}

/** Returns the next height of the cycle: the lowest level above the present height, or the strip after the tallest. */
export function nextHeight(px: number, windowPx: number): number {
  return LEVELS.map(level => levelPx(level, windowPx)).find(height => height > px + 1) ?? STRIP_PX;
}

/** Reads chosen heights from a text; what cannot be read is as if it had not been chosen. */
export function parseHeights(text: string | null): ChosenHeights {
  try {
    const read: unknown = JSON.parse(text ?? "{}");
    const entries = Object.entries(read as Record<string, unknown>).filter(
      ([view, px]) => Object.hasOwn(DELIVERED, view) && typeof px === "number" && Number.isFinite(px),
    );
    return Object.fromEntries(entries);
  } catch {
    return {};
  }
}
