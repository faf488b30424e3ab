import { cutLetters } from "#core";
import { Context } from "svgcanvas";
import { numberIds } from "./numberIds";

/** The computed styles a picture keeps, as standard SVG attributes. */
const KEPT = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linecap",
  "stroke-linejoin",
  "opacity",
] as const;
const KEPT_OF_TEXT = [
  "font-family",
  "font-size",
  "font-weight",
  "font-style",
  "text-anchor",
  "dominant-baseline",
] as const;
/** Attributes that only matter in the page. */
const OF_THE_PAGE = /^(?:class|style|tabindex|role|data-|aria-)/;

/** Returns font families with generic fallbacks. */
function fallBack(family: string): string {
  return family.replace(/"([^"]+) Variable"/g, '"$1 Variable", "$1"');
}

/** Copies computed styles from an element tree to its clone; hidden elements are removed. */
function dress(from: Element, to: Element): void {
  const style = getComputedStyle(from);
  if (style.display === "none" || style.visibility === "hidden") return to.remove();
  for (const { name } of [...to.attributes]) if (OF_THE_PAGE.test(name)) to.removeAttribute(name);
  const isText = to.tagName === "text" || to.tagName === "tspan";
  for (const name of isText ? [...KEPT, ...KEPT_OF_TEXT] : KEPT)
    to.setAttribute(name, fallBack(style.getPropertyValue(name)));
  const children = [...to.children];
  [...from.children].forEach((child, k) => dress(child, children[k]!));
}

const SVG = "http://www.w3.org/2000/svg";

/** Creates an SVG element with attributes and optional text. */
function make(tag: string, attributes: Readonly<Record<string, string | number>>, text = ""): SVGElement {
  const made = document.createElementNS(SVG, tag);
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, String(value));
  made.textContent = text;
  return made;
}

/** The margin around a drawing, and above it for its name. Px. */
const MARGIN = 16;
const NAME_ROOM = 34;
/** The mean width of a letter of the name. */
const NAME_LETTER_PX = 11;

const TEXT_FONT =
  '"Atkinson Hyperlegible Next Variable", "Atkinson Hyperlegible Next", system-ui, sans-serif';

/** The colours of a picture's background and of its name. */
export interface Inks {
  readonly paper: string;
  readonly ink: string;
}

/** The height of a line below a drawing, in px. */
const LINE_PX = 18;

/** Returns the colours of a picture as the theme in force around an element has them. */
export function inksOf(element: Element): Inks {
  const style = getComputedStyle(element);
  return { paper: style.getPropertyValue("--leaf").trim(), ink: style.getPropertyValue("--ink").trim() };
}

/** Returns a drawing of the page as the text of a standalone SVG file with a name, and lines below it, such as a legend. */
export function pictureOf(
  drawing: SVGSVGElement,
  name: string,
  { paper, ink }: Inks,
  lines: readonly string[] = [],
): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  dress(drawing, copy);
  const { x, y, width, height } = drawing.viewBox.baseVal;
  const box = { width: width + 2 * MARGIN, height: height + 2 * MARGIN + NAME_ROOM + lines.length * LINE_PX };
  const place = { x: x - MARGIN, y: y - MARGIN - NAME_ROOM };
  copy.setAttribute("xmlns", SVG);
  copy.setAttribute("viewBox", `${place.x} ${place.y} ${box.width} ${box.height}`);
  copy.setAttribute("width", String(box.width));
  copy.setAttribute("height", String(box.height));
  const look = {
    "font-family": '"Fraunces Variable", Fraunces, Georgia, serif',
    "font-size": 20,
    "font-weight": 600,
  };
  copy.prepend(
    make("title", {}, name),
    make("rect", { ...place, ...box, fill: paper }),
    make("text", { ...look, x, y: y - MARGIN, fill: ink }, name),
  );
  const small = { "font-family": TEXT_FONT, "font-size": 13, fill: ink };
  copy.append(
    ...lines.map((line, k) => make("text", { ...small, x, y: y + height + (k + 1) * LINE_PX }, line)),
  );
  return numberIds(new XMLSerializer().serializeToString(copy));
}

/** Returns canvas painting as the text of an SVG file. Sizes in px. */
export function paintPicture(
  width: number,
  height: number,
  paint: (ctx: CanvasRenderingContext2D) => void,
): string {
  const context = new Context({ width, height, document });
  paint(context as unknown as CanvasRenderingContext2D);
  const svg = context.getSvg();
  for (const text of svg.querySelectorAll("[font-family]"))
    text.setAttribute("font-family", fallBack(text.getAttribute("font-family") ?? ""));
  // The library writes attributes of styles that a context does not have.
  for (const text of svg.querySelectorAll("[text-decoration=undefined]"))
    text.removeAttribute("text-decoration");
  svg.setAttribute("viewBox", `0 0 ${width} ${height}`);
  return numberIds(new XMLSerializer().serializeToString(svg));
}

/** The room that a chart leaves for the name of its picture and around itself, in px. */
export const CHART_ROOM = {
  top: NAME_ROOM + MARGIN,
  left: MARGIN,
  right: MARGIN,
  bottom: MARGIN,
} as const;

/** Paints the background and the name of a picture that is painted like a canvas. */
export function paintName(
  ctx: CanvasRenderingContext2D,
  name: string,
  { paper, ink }: Inks,
  width: number,
  height: number,
): void {
  ctx.fillStyle = paper;
  ctx.fillRect(0, 0, width, height);
  ctx.fillStyle = ink;
  ctx.font = '600 20px "Fraunces Variable"';
  ctx.textAlign = "left";
  ctx.textBaseline = "alphabetic";
  ctx.fillText(cutLetters(name, Math.floor((width - 2 * MARGIN) / NAME_LETTER_PX)), MARGIN, MARGIN + 20);
}

/** Returns the size of an SVG of ours, in px. */
function sizeOf(svg: string): { readonly width: number; readonly height: number } {
  const [, width] = /^<svg[^>]* width="([\d.]+)"/.exec(svg) ?? [];
  const [, height] = /^<svg[^>]* height="([\d.]+)"/.exec(svg) ?? [];
  return { width: Number(width), height: Number(height) };
}

/**
 * Returns a picture as the bytes of a PNG, scaled by `times`. `faces` are CSS rules with embedded fonts,
 * because a picture cannot use the page's. Rejects if the browser cannot draw it.
 */
export async function toPng(svg: string, faces: string, times = 2): Promise<Uint8Array<ArrayBuffer>> {
  const { width, height } = sizeOf(svg);
  const withFaces = svg.replace(/^(<svg[^>]*>)/, `$1<style>${faces}</style>`);
  const image = new Image();
  const url = URL.createObjectURL(new Blob([withFaces], { type: "image/svg+xml" }));
  try {
    image.src = url;
    await image.decode();
    const canvas = Object.assign(document.createElement("canvas"), {
      width: Math.round(width * times),
      height: Math.round(height * times),
    });
    canvas.getContext("2d")!.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>(resolve => canvas.toBlob(resolve, "image/png"));
    if (!blob) throw new Error("this browser draws no PNG");
    return new Uint8Array(await blob.arrayBuffer());
  } finally {
    URL.revokeObjectURL(url);
  }
}
