import { useState, type RefObject } from "react";
import { textFile } from "#handover";
import { useNotices } from "../ui/noticesContext";
import { loadFaces } from "../storage/builtParts";
import { download } from "../storage/files";
import { Button } from "../ui/Button";
import { inksOf, pictureOf, toPng } from "../ui/svgPicture";

/** The buttons that save a drawing as a picture with its name and legend, as SVG or as PNG of twice the size. */
export function SavePicture({
  drawing,
  file,
  name,
  lines,
  prepare,
}: {
  drawing: RefObject<SVGSVGElement | null>;
  /** The file's name without extension. */
  file: string;
  name: string;
  /** The legend, in lines below the drawing. */
  lines: readonly string[];
  /** Draws it, if it is not drawn all the time. */
  prepare?: () => void;
}) {
  const { notify } = useNotices();
  const [isWorking, setWorking] = useState(false);
  const svgOf = (element: SVGSVGElement) => pictureOf(element, name, inksOf(element), lines);
  const saveSvg = () => {
    prepare?.();
    if (drawing.current) download(textFile(`${file}.svg`, svgOf(drawing.current), "image/svg+xml"));
  };
  const savePng = async () => {
    prepare?.();
    if (!drawing.current) return;
    setWorking(true);
    try {
      const bytes = await toPng(svgOf(drawing.current), await loadFaces());
      download({ name: `${file}.png`, bytes, type: "image/png" });
    } catch (error) {
      notify({
        tone: "trouble",
        title: "The picture could not be drawn",
        details: [error instanceof Error ? error.message : String(error)],
      });
    } finally {
      setWorking(false);
    }
  };
  return (
    <p className="text-sm text-soft">
      Save this picture as
      <Button look="quiet" aria-label={`Save as SVG: ${name}`} onClick={saveSvg}>
        SVG
      </Button>
      or
      <Button
        look="quiet"
        aria-label={`Save as PNG: ${name}`}
        disabled={isWorking}
        onClick={() => void savePng()}
      >
        PNG
      </Button>
    </p>
  );
}
