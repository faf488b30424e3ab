import { useRef, useState, type ReactNode, type Ref } from "react";
import { flushSync } from "react-dom";
import { inksOf, pictureOf } from "../ui/svgPicture";
import { SavePicture } from "./SavePicture";

/** The buttons that save a drawing which the page shows in another form; it is drawn out of sight when it is saved. */
export function HiddenPicture({
  file,
  name,
  lines = [],
  children,
}: {
  /** The file's name without extension. */
  file: string;
  name: string;
  /** The legend, in lines below the drawing. */
  lines?: readonly string[];
  /** Draws it as SVG with this ref. */
  children: (ref: Ref<SVGSVGElement>) => ReactNode;
}) {
  const drawing = useRef<SVGSVGElement>(null);
  const [isDrawn, setDrawn] = useState(false);
  const makeSvg = () => {
    flushSync(() => setDrawn(true));
    const svg = drawing.current && pictureOf(drawing.current, name, inksOf(drawing.current), lines);
    setDrawn(false);
    return svg ?? undefined;
  };
  return (
    <div>
      {isDrawn && (
        <div className="fixed top-0 left-[200vw]" aria-hidden inert>
          {children(drawing)}
        </div>
      )}
      <SavePicture file={file} name={name} makeSvg={makeSvg} />
    </div>
  );
}
