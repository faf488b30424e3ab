import { useMemo } from "react";
import { download, fileOf, type FileDocument } from "../storage/files";
import { Button } from "../ui/Button";
import { useDocument } from "../document/context";

function FileLine({ document }: { document: FileDocument }) {
  const file = useMemo(() => fileOf(document), [document]);
  return (
    <li className="flex items-center gap-4 border-b border-line py-2">
      <span className="grow font-mono text-sm">{file.name}</span>
      <span className="font-mono text-sm text-soft">{(file.bytes.length / 1024).toFixed(1)} KB</span>
      <Button onClick={() => download(file)} aria-label={`Save file ${file.name}`}>
        Save file
      </Button>
    </li>
  );
}

/** Hand over: the files that leave, with their sizes. */
export function HandOverView() {
  const kit = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  if (!kit) return null;
  return (
    <section aria-label="Files" className="min-h-0 max-w-3xl grow overflow-auto px-7 py-5">
      <h1 className="mb-1 font-serif text-2xl">What leaves the building</h1>
      <p className="mb-4 text-soft">
        Plain JSON, as docs/file-formats.md tells. Drop a file on the shelf to read it in again.
      </p>
      <ul>
        <FileLine document={kit} />
        {takes.map(take => (
          <FileLine key={take.id} document={take} />
        ))}
      </ul>
      <p className="mt-6 text-sm text-soft">
        The timing sheet for people and the test vectors for the game will stand here.
      </p>
    </section>
  );
}
