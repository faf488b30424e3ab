import { useEffect, useState } from "react";
import { Link } from "react-router";
import { countWords, parseTake, type Take } from "#core";
import type { Library } from "../storage/library";
import { useWorkers } from "../judging/workers";
import { LONG_TAKE_FRAMES } from "../judging/longTake";
import { isBroken, type Broken, type KitRecord } from "../storage/records";
import { Button } from "../ui/Button";
import { holdColour, holdWords, vacuousWords } from "../ui/checkSum";
import { useNotices } from "../ui/noticesContext";
import { NotFetchedError } from "../ui/fetchPart";
import { loadSavePack } from "./loadParts";
import { TakePicture } from "./TakePicture";

function formatWhen(ms: number): string {
  const minutes = Math.round((Date.now() - ms) / 60_000);
  if (minutes < 1) return "just now";
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 60 * 24) return `${Math.round(minutes / 60)} h ago`;
  return new Date(ms).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
}

/** The last take of a kit, or why it has no picture; nothing while it is loaded. */
interface LastTake {
  readonly take?: Take;
  readonly words?: string;
}

/** Returns the last take of a kit, for its picture. */
function useLastTake(library: Library, record: KitRecord): LastTake {
  const [last, setLast] = useState<LastTake>({});
  const lastId = record.order.takes?.at(-1);
  useEffect(() => {
    if (lastId === undefined) return;
    let isWanted = true;
    void library.readPart(record.id, "takes", lastId).then(raw => {
      if (!isWanted) return;
      const { frames, rate } = (raw ?? {}) as Partial<Take>;
      // A long take has no picture, and need not be parsed for one.
      if (Number(frames) > LONG_TAKE_FRAMES)
        return setLast({ words: `a long take, ${Math.round(Number(frames) / Number(rate) / 60)} min` });
      const read = parseTake(raw);
      if (read.ok) setLast({ take: read.value });
    });
    return () => {
      isWanted = false;
    };
  }, [library, record.id, record.version, lastId]);
  return lastId === undefined ? { words: "no take yet" } : last;
}

/** A kit on the shelf: a picture of its latest take, its contents, its last change. */
export function KitCard({
  record,
  library,
  onDelete,
}: {
  record: KitRecord;
  library: Library;
  onDelete: (record: KitRecord) => void;
}) {
  const { notify } = useNotices();
  const { jobs } = useWorkers();
  const { kit, checkTally } = record;
  const last = useLastTake(library, record);
  const takes = record.order.takes?.length ?? 0;
  const save = async () => {
    const kept = await library.readKit(record.id);
    if (!kept || isBroken(kept)) return;
    const { document } = kept;
    try {
      const { savePack } = await loadSavePack();
      await savePack(jobs, document);
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      notify({
        tone: "trouble",
        title: `${kit.name} was not saved as a file.`,
        details: [error instanceof NotFetchedError ? why : `${why}: try again.`],
      });
    }
    if (kept.broken.length > 0)
      notify({
        tone: "trouble",
        title: `Not everything of ${kit.name} could be read, and what could not is not in the pack.`,
        details: kept.broken.map(item => item.name),
      });
  };
  return (
    <li className="flex flex-col rounded-stone border border-line bg-leaf" data-testid={`kit-${record.id}`}>
      <Link to={`/kit/${encodeURIComponent(record.id)}/play`} className="block rounded-t-stone">
        <TakePicture kit={kit} take={last.take} words={last.words ?? ""} />
        <span className="block px-4 pt-3">
          <span className="block truncate font-serif text-xl font-semibold" title={kit.name}>
            {kit.name}
          </span>
          <span className="block text-sm text-soft">
            {countWords(kit.patterns.length + (kit.moves?.length ?? 0), "rule")} · {countWords(takes, "take")}{" "}
            · {kit.rate} frames a second
          </span>
          <span className="block truncate text-sm text-soft">
            {record.change || "added"}, {formatWhen(record.changedAt)}
          </span>
          {checkTally && checkTally.asked > 0 && (
            <span className={`block text-sm ${holdColour(checkTally)}`}>
              {[holdWords(checkTally), vacuousWords(checkTally)].filter(Boolean).join(", ")}
            </span>
          )}
        </span>
      </Link>
      <p className="mt-2 flex gap-1 px-2 pb-2">
        <Button look="quiet" onClick={() => void save()} aria-label={`Save files of ${kit.name}`}>
          Save files
        </Button>
        <Button look="quiet" onClick={() => onDelete(record)} aria-label={`Delete ${kit.name}`}>
          Delete
        </Button>
      </p>
    </li>
  );
}

/** An unreadable item on the shelf: it stays there and can be saved as a file. */
export function BrokenCard({ broken, onDelete }: { broken: Broken; onDelete: () => void }) {
  const { notify } = useNotices();
  return (
    <li className="flex flex-col rounded-stone border border-foxglove bg-leaf p-4" data-testid="broken-kit">
      <p className="font-serif text-xl font-semibold">{broken.name}</p>
      <p className="text-sm text-foxglove">
        This kit cannot be read. Nothing of it is lost: save it as a file.
      </p>
      <p className="mt-1 line-clamp-3 font-mono text-xs break-words text-soft">{broken.reasons[0]}</p>
      <p className="mt-auto -ml-2 flex gap-1 pt-2">
        <Button
          look="quiet"
          onClick={() => notify.saveRaw(broken.name, broken.raw)}
          aria-label={`Save ${broken.name} as it is`}
        >
          Save as it is
        </Button>
        <Button look="quiet" onClick={onDelete} aria-label={`Delete ${broken.name}`}>
          Delete
        </Button>
      </p>
    </li>
  );
}
