import { useEffect, useMemo, useState } from "react";
import {
  NO_PARTS,
  type ExportFormat,
  type Handover,
  type HandoverParts,
  type MakingStep,
  type OutFile,
} from "#handover";
import { useWorkers } from "../judging/workers";
import { askForFiles, isMadeAtOnce } from "../judging/makeFiles";
import type { BuiltParts } from "../storage/builtParts";

/** The pictures drawn of a handover, or the reason for failure. */
export interface DrawnPictures {
  readonly of: Handover;
  readonly files: readonly OutFile[] | string;
}

/** The state of a form's files, or why there are none. */
export type FilesNow =
  | { readonly state: "made"; readonly files: readonly OutFile[] }
  | { readonly state: "failed"; readonly reason: string }
  | { readonly state: "waits" | "drawing" }
  | { readonly state: "making"; readonly progress: Making | undefined };

/** How many takes are run, or numbers searched, of how many. */
interface Making {
  readonly done: number;
  readonly of: number;
  readonly step: MakingStep;
}

/** Returns the parts a form needs. A form without parts is not made again when they arrive. */
function partsFor(
  format: ExportFormat,
  built: BuiltParts | string | undefined,
  pictures: readonly OutFile[],
): HandoverParts | string | undefined {
  if (format.uses.includes("parts") || format.uses.includes("frame-rules"))
    return typeof built === "object" ? { ...built, pictures } : built;
  const faces = format.uses.includes("faces") && typeof built === "object" ? built.faces : "";
  if (faces === "" && !format.uses.includes("pictures")) return NO_PARTS;
  return { ...NO_PARTS, faces, pictures };
}

/** Returns the files of a form; expensive ones are made on request only. */
export function useFiles(
  format: ExportFormat,
  handover: Handover,
  /** The input of the pictures, independent of the options of the sheet. */
  base: Handover,
  built: BuiltParts | string | undefined,
  drawn: DrawnPictures | undefined,
  isWanted: boolean,
): FilesNow {
  const { jobs } = useWorkers();
  const pictures = format.uses.includes("pictures") && drawn?.of === base ? drawn.files : undefined;
  const parts = useMemo(
    () => (typeof pictures === "string" ? pictures : partsFor(format, built, pictures ?? [])),
    [format, built, pictures],
  );
  const isDrawn = !format.uses.includes("pictures") || pictures !== undefined;
  const isLight = useMemo(() => isMadeAtOnce(format, handover), [format, handover]);
  const isAtOnce = isLight && isDrawn && typeof parts === "object";
  const atOnce = useMemo(
    () => (isAtOnce && typeof parts === "object" ? format.files(handover, parts) : undefined),
    [isAtOnce, format, handover, parts],
  );
  const [made, setMade] = useState<{
    of: Handover;
    with: HandoverParts;
    files: readonly OutFile[] | string;
  }>();
  const [progress, setProgress] = useState<Making>();
  useEffect(() => {
    if (isAtOnce || !isWanted || !isDrawn || typeof parts !== "object") return;
    const asked = askForFiles(jobs, format, handover, parts, (done, of, step) =>
      setProgress({ done, of, step }),
    );
    void asked.outcome.then(outcome => {
      setProgress(undefined);
      const common = { of: handover, with: parts };
      if (outcome.state === "done") setMade({ ...common, files: outcome.value });
      if (outcome.state === "failed") setMade({ ...common, files: outcome.reason });
    });
    return asked.stop;
  }, [jobs, format, handover, parts, isAtOnce, isWanted, isDrawn]);
  if (typeof parts === "string") return { state: "failed", reason: parts };
  if (atOnce) return { state: "made", files: atOnce };
  if (!isWanted && (format.uses.includes("pictures") || !isLight)) return { state: "waits" };
  if (!isDrawn) return { state: "drawing" };
  const found = made?.of === handover && made.with === parts ? made.files : undefined;
  if (found === undefined) return { state: "making", progress };
  return typeof found === "string" ? { state: "failed", reason: found } : { state: "made", files: found };
}
