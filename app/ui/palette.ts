/** The colours used by canvases, read from the CSS tokens and again when the theme changes. */
export interface Palette {
  readonly paper: string;
  readonly leaf: string;
  readonly sand: string;
  readonly line: string;
  readonly ink: string;
  readonly soft: string;
  readonly moss: string;
  readonly fern: string;
  readonly sprout: string;
  readonly lichen: string;
  readonly lichenInk: string;
  readonly bark: string;
  readonly foxglove: string;
  readonly dew: string;
}

/** Reads the palette from the page's CSS tokens. */
export function readPalette(element: Element): Palette {
  const style = getComputedStyle(element);
  const names = [
    "paper",
    "leaf",
    "sand",
    "line",
    "ink",
    "soft",
    "moss",
    "fern",
    "sprout",
    "lichen",
    "lichenInk",
    "bark",
    "foxglove",
    "dew",
  ] as const;
  return Object.fromEntries(
    names.map(name => [
      name,
      style.getPropertyValue(name === "lichenInk" ? "--lichen-ink" : `--${name}`).trim(),
    ]),
  ) as unknown as Palette;
}
