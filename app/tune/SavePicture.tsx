import { useState } from "react";
import { textFile } from "#handover";
import { useNotices } from "../ui/noticesContext";
import { loadFaces } from "../storage/builtParts";
import { download } from "../storage/files";
import { Button } from "../ui/Button";
import { toPng } from "../ui/svgPicture";

/** The buttons that save a picture, as SVG or as PNG of twice the size. */
export function SavePicture({
  file,
  name,
  makeSvg,
}: {
  /** The file's name without extension. */
  file: string;
  name: string;
  /** Returns or resolves with the text of an SVG file; undefined if there is nothing to draw. */
  makeSvg: () => string | undefined | Promise<string | undefined>;
}) {
  const { notify } = useNotices();
  const [isWorking, setWorking] = useState(false);
  const save = async (write: (svg: string) => Promise<void>) => {
    setWorking(true);
    try {
      const svg = await makeSvg();
      if (svg !== undefined) await write(svg);
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
  const saveSvg = async (svg: string) => download(textFile(`${file}.svg`, svg, "image/svg+xml"));
  const savePng = async (svg: string) =>
    download({ name: `${file}.png`, bytes: await toPng(svg, await loadFaces()), type: "image/png" });
  return (
    <p className="text-sm text-soft">
      Save this picture as
      <Button
        look="quiet"
        aria-label={`Save as SVG: ${name}`}
        disabled={isWorking}
        onClick={() => void save(saveSvg)}
      >
        SVG
      </Button>
      or
      <Button
        look="quiet"
        aria-label={`Save as PNG: ${name}`}
        disabled={isWorking}
        onClick={() => void save(savePng)}
      >
        PNG
      </Button>
    </p>
  );
}
