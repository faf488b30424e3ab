import { useMemo } from "react";
import { EXPORT_FORMATS, type ExportFormat, type Handover, type OutFile } from "#handover";
import { useDocument } from "../document/context";
import { download } from "../storage/files";
import { Button } from "../ui/Button";
import { Region } from "../ui/Region";

function FileLine({ file }: { file: OutFile }) {
  return (
    <li className="flex items-center gap-4 border-b border-line py-2">
      <span className="min-w-0 grow truncate font-mono text-sm" title={file.name}>
        {file.name}
      </span>
      <span className="shrink-0 font-mono text-sm text-soft">{(file.bytes.length / 1024).toFixed(1)} KB</span>
      <Button onClick={() => download(file)} aria-label={`Save file ${file.name}`}>
        Save file
      </Button>
    </li>
  );
}

function Files({ format, handover }: { format: ExportFormat; handover: Handover }) {
  const files = useMemo(() => format.files(handover), [format, handover]);
  return (
    <ul aria-label={format.word}>
      {files.map((file, n) => (
        <FileLine key={n} file={file} />
      ))}
    </ul>
  );
}

/** Hand over: the forms in which a kit leaves, each with its files and their sizes. */
export function HandOverView() {
  const kit = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  const layouts = useDocument(state => state.layouts);
  const handover = useMemo(() => kit && { kit, takes, layouts }, [kit, takes, layouts]);
  if (!handover) return null;
  return (
    <section aria-label="Files" className="min-h-0 grow overflow-auto px-7 py-5">
      <div className="max-w-3xl">
        <h1 className="mb-4 font-serif text-2xl">What leaves the building</h1>
        {EXPORT_FORMATS.map(format => (
          <section key={format.id} aria-label={format.word} className="mb-7">
            <h2 className="font-serif text-xl">{format.word}</h2>
            <p className="mb-2 text-soft">{format.hint}</p>
            <Region name={format.word} of={handover}>
              <Files format={format} handover={handover} />
            </Region>
          </section>
        ))}
      </div>
    </section>
  );
}
