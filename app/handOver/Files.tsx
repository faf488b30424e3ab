import { useState } from "react";
import type { ExportFormat, Handover, MakingStep, OutFile } from "#handover";
import { isLargeKit } from "../judging/kitSize";
import { download } from "../storage/files";
import { Button } from "../ui/Button";
import { useFiles, type DrawnPictures } from "./useFiles";
import type { BuiltParts } from "../storage/builtParts";

/** The number of files of a form shown at first. */
const FEW = 6;

function sizeWords(bytes: number): string {
  return bytes < 1e6 ? `${(bytes / 1024).toFixed(1)} KB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}

function FileLine({ file, onSaved }: { file: OutFile; onSaved: () => void }) {
  const save = () => {
    download(file);
    onSaved();
  };
  return (
    <li className="flex items-center gap-3 border-b border-line py-1 last:border-b-0">
      <span className="min-w-0 grow truncate font-mono text-sm" title={file.name}>
        {file.name}
      </span>
      <span className="shrink-0 font-mono text-sm text-soft">{sizeWords(file.bytes.length)}</span>
      <Button onClick={save} aria-label={`Save file ${file.name}`}>
        Save file
      </Button>
    </li>
  );
}

function FileList({
  word,
  files,
  onSaved,
}: {
  word: string;
  files: readonly OutFile[];
  onSaved: () => void;
}) {
  const [isWhole, setWhole] = useState(false);
  if (files.length === 0)
    return (
      <p className="py-2 text-soft">Nothing to hand over in this form: no take yet, or rules to mend.</p>
    );
  const shown = isWhole || files.length <= FEW + 1 ? files : files.slice(0, FEW);
  return (
    <>
      <ul aria-label={word}>
        {shown.map((file, n) => (
          <FileLine key={n} file={file} onSaved={onSaved} />
        ))}
      </ul>
      {shown.length < files.length && (
        <Button look="quiet" onClick={() => setWhole(true)}>
          Show {files.length - shown.length} more
        </Button>
      )}
    </>
  );
}

const WAITING = {
  drawing: "The pictures are being drawn…",
  making: "The files are being made…",
} as const;

const STEPS: Readonly<Record<MakingStep, string>> = { takes: "takes run", numbers: "numbers searched" };

/** Explains why the files of a form are only made on request. */
function whyAsked(format: ExportFormat, { kit }: Handover): string {
  if (format.uses.includes("all")) return "Create the zip";
  if (format.uses.includes("pictures")) return "Create the pictures";
  if (format.uses.includes("boundaries")) return "Create them: inputs are searched for every number";
  if (isLargeKit(kit)) return "Create them: the kit is large";
  const isRun = format.uses.includes("runs");
  return `Create them: the takes are long${isRun ? ", and are run for it" : ""}`;
}

/** The input of the files of a form, and the callbacks of drawing and saving. */
export interface FilesProps {
  readonly format: ExportFormat;
  readonly handover: Handover;
  /** The same without the options of the sheet: the input of the pictures. */
  readonly base: Handover;
  readonly built: BuiltParts | string | undefined;
  readonly drawn: DrawnPictures | undefined;
  readonly onDraw: (of: Handover) => void;
  readonly onSaved: () => void;
}

/** The files of a form with their sizes; the button that makes them, or the progress of that. */
export function Files({ format, handover, base, built, drawn, onDraw, onSaved }: FilesProps) {
  const [wanted, setWanted] = useState<Handover>();
  const now = useFiles(format, handover, base, built, drawn, wanted === handover);
  const begin = () => {
    setWanted(handover);
    if (format.uses.includes("pictures") && drawn?.of !== base) onDraw(base);
  };
  switch (now.state) {
    case "waits": {
      const why = whyAsked(format, handover);
      return (
        <Button onClick={begin} aria-label={`${why}: ${format.word}`}>
          {why}
        </Button>
      );
    }
    case "drawing":
    case "making":
      return (
        <p role="status" className="py-2 text-soft">
          {WAITING[now.state]}{" "}
          {now.state === "making" && now.progress && (
            <span>
              <span className="font-mono">
                {now.progress.done} of {now.progress.of}
              </span>{" "}
              {STEPS[now.progress.step]}
            </span>
          )}{" "}
          {wanted && (
            <Button look="quiet" onClick={() => setWanted(undefined)}>
              Cancel
            </Button>
          )}
        </p>
      );
    case "failed":
      return (
        <p role="alert" className="py-2 text-foxglove">
          These files could not be made: {now.reason}
        </p>
      );
    case "made":
      return (
        <>
          <FileList word={format.word} files={now.files} onSaved={onSaved} />
          {format.uses.includes("pictures") && !format.uses.includes("all") && (
            <Button look="quiet" onClick={() => onDraw(base)}>
              Create them again from the kit as it is now
            </Button>
          )}
        </>
      );
  }
}
