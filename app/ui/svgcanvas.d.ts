/** The used part of svgcanvas, which has no types: a canvas context that writes SVG. */
declare module "svgcanvas" {
  export class Context {
    constructor(options: { width: number; height: number; document: Document });
    getSvg(): SVGSVGElement;
    getSerializedSvg(fixNamedEntities?: boolean): string;
  }
}
