import { useEffect, useMemo, useState } from "react";
import { EXPORT_FORMATS, type ExportFormat, type Handover, type OutFile } from "#handover";
import { useDesk, useDocument } from "../document/context";
import { askForFiles, isMadeAtOnce } from "../judging/makeFiles";
import { download } from "../storage/files";
import { Button } from "../ui/Button";
import { Region } from "../ui/Region";
import { NextStep } from "./NextStep";
import { Sheet } from "./Sheet";
import { useRuntimeFiles } from "./useRuntimeFiles";

function FileLine({ file, onSaved }: { file: OutFile; onSaved: () => void }) {
  const save = () => {
    download(file);
    onSaved();
  };
  return (
    <li className="flex items-center gap-3 border-b border-line py-1">
      <span className="min-w-0 grow truncate font-mono text-sm" title={file.name}>
        {file.name}
      </span>
      <span className="shrink-0 font-mono text-sm text-soft">{(file.bytes.length / 1024).toFixed(1)} KB</span>
      <Button onClick={save} aria-label={`Save file ${file.name}`}>
        Save file
      </Button>
    </li>
  );
}

/** The files of a form; while a worker makes them, undefined, or why it could not. None are made until they are wanted. */
function useFiles(
  format: ExportFormat,
  handover: Handover,
  isWanted: boolean,
): readonly OutFile[] | string | undefined {
  const { jobs } = useDesk();
  const atOnce = useMemo(
    () => (isMadeAtOnce(format, handover) ? format.files(handover) : undefined),
    [format, handover],
  );
  const [made, setMade] = useState<{ of: Handover; files: readonly OutFile[] | string }>();
  useEffect(() => {
    if (atOnce || !isWanted) return;
    const asked = askForFiles(jobs, format, handover);
    void asked.outcome.then(outcome => {
      if (outcome.state === "done") setMade({ of: handover, files: outcome.value });
      if (outcome.state === "failed") setMade({ of: handover, files: outcome.reason });
    });
    return asked.stop;
  }, [jobs, format, handover, atOnce, isWanted]);
  return atOnce ?? (made?.of === handover ? made.files : undefined);
}

function FileList({
  word,
  files,
  onSaved,
}: {
  word: string;
  files: readonly OutFile[] | string | undefined;
  onSaved: () => void;
}) {
  if (files === undefined)
    return (
      <p role="status" className="py-2 text-soft">
        The files are being made…
      </p>
    );
  if (typeof files === "string")
    return (
      <p role="alert" className="py-2 text-foxglove">
        These files could not be made: {files}
      </p>
    );
  if (files.length === 0)
    return <p className="py-2 text-soft">Nothing to hand over in this form: no take yet.</p>;
  return (
    <ul aria-label={word}>
      {files.map((file, n) => (
        <FileLine key={n} file={file} onSaved={onSaved} />
      ))}
    </ul>
  );
}

function Files({
  format,
  handover,
  onSaved,
}: {
  format: ExportFormat;
  handover: Handover;
  onSaved: () => void;
}) {
  const [wanted, setWanted] = useState<Handover>();
  const isWanted = !format.runsTakes || wanted === handover;
  const files = useFiles(format, handover, isWanted);
  if (files === undefined && !isWanted)
    return (
      <Button onClick={() => setWanted(handover)} aria-label={`Make ${format.word}`}>
        Make them: the takes are long, and are run for it
      </Button>
    );
  return (
    <>
      <FileList word={format.word} files={files} onSaved={onSaved} />
      {files === undefined && format.runsTakes && (
        <Button look="quiet" onClick={() => setWanted(undefined)}>
          Cancel
        </Button>
      )}
    </>
  );
}

/** What a game runs the kit with: the core as one module, its types, and the script that proves it with the vectors. */
function RuntimeSection({ onSaved }: { onSaved: () => void }) {
  return (
    <section aria-label="Runtime" className="mb-6">
      <h2 className="font-serif text-xl">Runtime</h2>
      <p className="mb-1 text-sm text-soft">
        The core as one module for a game, 30 KB packed, with its types, a loop to begin from, and the script
        that runs the test vectors. The kit is the document below.
      </p>
      <FileList word="Runtime" files={useRuntimeFiles()} onSaved={onSaved} />
    </section>
  );
}

/** Hand over: the forms in which a kit leaves, each with its files and their sizes. */
export function HandOverView() {
  const kit = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  const layouts = useDocument(state => state.layouts);
  const checks = useDocument(state => state.checks);
  const [isSaved, setSaved] = useState(false);
  const handover = useMemo(() => kit && { kit, takes, layouts, checks }, [kit, takes, layouts, checks]);
  if (!handover) return null;
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_minmax(380px,36%)] max-lg:grid-cols-1 max-lg:overflow-auto">
      <Sheet handover={handover} />
      <section
        aria-label="Files"
        className="min-h-0 overflow-auto border-l border-line px-6 py-4 max-lg:border-l-0"
      >
        <h1 className="font-serif text-2xl">What leaves the building</h1>
        <div className="mb-3">
          <NextStep view="hand-over" isDone={isSaved}>
            Save the pack: it holds everything, and is read in again by dropping it on the shelf.
          </NextStep>
        </div>
        {EXPORT_FORMATS.map(format => (
          <section key={format.id} aria-label={format.word} className="mb-6">
            <h2 className="font-serif text-xl">{format.word}</h2>
            <p className="mb-1 text-sm text-soft">{format.hint}</p>
            <Region name={format.word} of={handover}>
              <Files format={format} handover={handover} onSaved={() => setSaved(true)} />
            </Region>
          </section>
        ))}
        <RuntimeSection onSaved={() => setSaved(true)} />
      </section>
    </div>
  );
}
