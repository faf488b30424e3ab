/** What is used of svgcanvas, which comes without types: a context of a canvas that writes an SVG. */
declare module "svgcanvas" {
  export class Context {
    constructor(options: { width: number; height: number; document: Document });
    getSvg(): SVGSVGElement;
    getSerializedSvg(fixNamedEntities?: boolean): string;
  }
}
