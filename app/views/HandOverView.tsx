import { download, fileNameOf, formatFile } from "../storage/files";
import { useWorkbench } from "../document/useWorkbench";
import { Button } from "../ui/Button";

function FileLine({ document }: { document: Parameters<typeof formatFile>[0] }) {
  const bytes = new TextEncoder().encode(formatFile(document)).length;
  return (
    <li className="flex items-center gap-4 border-b border-line py-2">
      <span className="grow font-mono text-sm">{fileNameOf(document)}</span>
      <span className="font-mono text-sm text-soft">{(bytes / 1024).toFixed(1)} KB</span>
      <Button onClick={() => download(document)} aria-label={`Save file ${fileNameOf(document)}`}>
        Save file
      </Button>
    </li>
  );
}

/** Hand over: the files that leave, with their sizes. */
export function HandOverView() {
  const kit = useWorkbench(state => state.kit);
  const takes = useWorkbench(state => state.takes);
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
