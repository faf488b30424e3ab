import { Context } from "svgcanvas";

/** What of an element's looks a picture keeps, as attributes that every reader of SVG knows. */
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
/** Attributes that mean something on the page alone. */
const OF_THE_PAGE = /^(?:class|style|tabindex|role|data-|aria-)/;

/** Faces by the names a machine may know them by, then those that every one has. */
function fallBack(family: string): string {
  return family.replace(/"([^"]+) Variable"/g, '"$1 Variable", "$1"');
}

/** Carries an element's computed looks over to its copy, and so on down; what is not shown is left out. */
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

/** An element of SVG with its attributes and, where it has some, its text. */
function make(tag: string, attributes: Readonly<Record<string, string | number>>, text = ""): SVGElement {
  const made = document.createElementNS(SVG, tag);
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, String(value));
  made.textContent = text;
  return made;
}

/** Room about a drawing, and over it for its name. Px. */
const MARGIN = 16;
const NAME_ROOM = 34;

/** The colours of a picture's sheet and of its name. */
interface Inks {
  readonly paper: string;
  readonly ink: string;
}

/** A drawing that is on the page as the text of an SVG file under a name: its looks in it, and nothing that only the page knows. */
export function pictureOf(drawing: SVGSVGElement, name: string, { paper, ink }: Inks): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  dress(drawing, copy);
  const { x, y, width, height } = drawing.viewBox.baseVal;
  const box = { width: width + 2 * MARGIN, height: height + 2 * MARGIN + NAME_ROOM };
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
  return new XMLSerializer().serializeToString(copy);
}

/** What is painted as the text of an SVG file. Sizes in px. */
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
  svg.setAttribute("viewBox", `0 0 ${width} ${height}`);
  return new XMLSerializer().serializeToString(svg);
}

/** The size that an SVG of ours says it has, px. */
function sizeOf(svg: string): { readonly width: number; readonly height: number } {
  const [, width] = /^<svg[^>]* width="([\d.]+)"/.exec(svg) ?? [];
  const [, height] = /^<svg[^>]* height="([\d.]+)"/.exec(svg) ?? [];
  return { width: Number(width), height: Number(height) };
}

/**
 * A picture as the bytes of a PNG, so many times as large. `faces`: rules of CSS with the faces in them, since a picture
 * knows none of the page's. Rejects where the browser cannot draw it.
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
