import type { Broken } from "../storage/records";
import { Button } from "../ui/Button";
import { useNotices } from "../ui/noticesContext";

/** The page of a stored kit that cannot be read: the reason, and a way to save it. */
export function BrokenKit({ broken }: { broken: Broken }) {
  const { notify } = useNotices();
  return (
    <main className="mx-auto flex min-h-[calc(100dvh-var(--notices-px))] max-w-xl flex-col justify-center gap-4 p-8">
      <h1 className="font-serif text-3xl break-words">{broken.name} cannot be read</h1>
      <p className="text-soft">It is kept as it is, and nothing of it is lost. The reasons:</p>
      <ul className="max-h-60 overflow-auto font-mono text-sm break-words text-soft">
        {broken.reasons.slice(0, 12).map(reason => (
          <li key={reason}>{reason}</li>
        ))}
      </ul>
      <p className="flex items-center gap-4">
        <Button look="strong" onClick={() => notify.saveRaw(broken.name, broken.raw)}>
          Save it as a file
        </Button>
        <a className="text-moss underline" href="/">
          Back to the shelf
        </a>
      </p>
    </main>
  );
}
