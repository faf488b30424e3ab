import { useEffect, useState } from "react";
import { useStore } from "zustand";
import { useStored } from "../storage/context";
import { formatTrouble } from "../storage/status";
import { Button } from "../ui/Button";
import type { Notice } from "../ui/notices";
import { useNotices } from "../ui/noticesContext";

const MAX_DETAILS = 6;

/** A plain notice disappears after this time; one with an action stays longer. */
const GOES_AFTER_MS = 8000;
const WITH_WAY_BACK_MS = 15_000;

/** More notices than this are collapsed into one line. */
const MAX_SHOWN = 2;

function NoticeCard({ notice }: { notice: Notice }) {
  const { dismiss } = useNotices();
  useEffect(() => {
    if (notice.tone === "trouble") return;
    const timer = setTimeout(() => dismiss(notice.id), notice.action ? WITH_WAY_BACK_MS : GOES_AFTER_MS);
    return () => clearTimeout(timer);
  }, [notice, dismiss]);
  const hidden = notice.details.length - MAX_DETAILS;
  const acts = [notice.action, notice.other].filter(act => act !== undefined);
  return (
    <li
      className={`flex flex-col gap-1.5 rounded-stone border-2 bg-leaf px-4 py-2.5 text-sm shadow-lg ${notice.tone === "trouble" ? "border-foxglove" : "border-moss"}`}
    >
      <p className="font-semibold break-words">{notice.title}</p>
      {notice.details.length > 0 && (
        <ul className="max-h-40 overflow-auto break-words text-soft">
          {notice.details.slice(0, MAX_DETAILS).map(detail => (
            <li key={detail}>{detail}</li>
          ))}
          {hidden > 0 && <li>… and {hidden} more</li>}
        </ul>
      )}
      <p className="flex flex-wrap gap-2">
        {acts.map(({ label, run }) => (
          <Button
            key={label}
            onClick={() => {
              run();
              dismiss(notice.id);
            }}
          >
            {label}
          </Button>
        ))}
        <Button look="quiet" onClick={() => dismiss(notice.id)}>
          Close
        </Button>
      </p>
    </li>
  );
}

/**
 * Notices below the header at the right, over the view and never over the tape; many are collapsed into one
 * line.
 */
export function NoticeBoard() {
  const { storage } = useStored();
  const { store, dismiss } = useNotices();
  const list = useStore(store);
  const { trouble } = useStore(storage);
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? list : list.slice(-MAX_SHOWN);
  const gathered = list.length - shown.length;
  return (
    <div
      role="status"
      aria-label="Notices"
      aria-live="polite"
      className="pointer-events-none fixed top-16 right-4 z-40 max-h-[calc(100dvh-22rem)] w-[400px] max-w-[calc(100vw-2rem)] overflow-auto"
    >
      <ul className="pointer-events-auto flex flex-col gap-2">
        {trouble && (
          <li
            className="rounded-stone border-2 border-foxglove bg-leaf px-4 py-2.5 text-sm"
            data-testid="not-kept"
          >
            <b className="text-foxglove">Not kept.</b> {formatTrouble(trouble)}
          </li>
        )}
        {gathered > 0 && (
          <li className="flex items-center gap-2 rounded-stone border border-line bg-leaf px-4 py-1 text-sm">
            <span className="grow">{gathered} more before these</span>
            <Button look="quiet" onClick={() => setWhole(true)}>
              Show
            </Button>
            <Button look="quiet" onClick={() => list.forEach(({ id }) => dismiss(id))}>
              Close all
            </Button>
          </li>
        )}
        {shown.map(notice => (
          <NoticeCard key={notice.id} notice={notice} />
        ))}
      </ul>
    </div>
  );
}
