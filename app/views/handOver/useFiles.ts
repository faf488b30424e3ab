import { useEffect, useMemo, useState } from "react";
import { NO_PARTS, type ExportFormat, type Handover, type HandoverParts, type OutFile } from "#handover";
import { useDesk } from "../../document/context";
import { askForFiles, isMadeAtOnce } from "../../judging/makeFiles";
import type { BuiltParts } from "./useParts";

/** Pictures that were drawn, of what; or why they could not be. */
export interface DrawnPictures {
  readonly of: Handover;
  readonly files: readonly OutFile[] | string;
}

/** What stands to be made of a form, or why it is not there. */
export type FilesNow =
  | { readonly state: "made"; readonly files: readonly OutFile[] }
  | { readonly state: "failed"; readonly reason: string }
  | { readonly state: "waits" | "drawing" }
  | { readonly state: "making"; readonly ran: { readonly done: number; readonly of: number } | undefined };

/** What a form is made with. A form that needs no parts is not made anew when they come. */
function partsFor(
  format: ExportFormat,
  built: BuiltParts | string | undefined,
  pictures: readonly OutFile[],
): HandoverParts | string | undefined {
  if (format.showsFaces && typeof built === "object") return { ...NO_PARTS, faces: built.faces };
  if (!format.needsParts) return format.needsPictures ? { ...NO_PARTS, pictures } : NO_PARTS;
  return typeof built === "object" ? { ...built, pictures } : built;
}

/** The files of a form; none are made until they are wanted where that costs something. */
export function useFiles(
  format: ExportFormat,
  handover: Handover,
  /** What pictures are drawn of: the same, whatever is wished of the sheet. */
  base: Handover,
  built: BuiltParts | string | undefined,
  drawn: DrawnPictures | undefined,
  isWanted: boolean,
): FilesNow {
  const { jobs } = useDesk();
  const pictures = format.needsPictures && drawn?.of === base ? drawn.files : undefined;
  const parts = useMemo(
    () => (typeof pictures === "string" ? pictures : partsFor(format, built, pictures ?? [])),
    [format, built, pictures],
  );
  const isDrawn = !format.needsPictures || pictures !== undefined;
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
  const [ran, setRan] = useState<{ done: number; of: number }>();
  useEffect(() => {
    if (isAtOnce || !isWanted || !isDrawn || typeof parts !== "object") return;
    const asked = askForFiles(jobs, format, handover, parts, (done, of) => setRan({ done, of }));
    void asked.outcome.then(outcome => {
      setRan(undefined);
      const common = { of: handover, with: parts };
      if (outcome.state === "done") setMade({ ...common, files: outcome.value });
      if (outcome.state === "failed") setMade({ ...common, files: outcome.reason });
    });
    return asked.stop;
  }, [jobs, format, handover, parts, isAtOnce, isWanted, isDrawn]);
  if (typeof parts === "string") return { state: "failed", reason: parts };
  if (atOnce) return { state: "made", files: atOnce };
  if (!isWanted && (format.needsPictures || !isLight)) return { state: "waits" };
  if (!isDrawn) return { state: "drawing" };
  const found = made?.of === handover && made.with === parts ? made.files : undefined;
  if (found === undefined) return { state: "making", ran };
  return typeof found === "string" ? { state: "failed", reason: found } : { state: "made", files: found };
}
