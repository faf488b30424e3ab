import { useEffect, useRef, useState } from "react";
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

const LINE = "flex items-start gap-4 border-t-2 border-l-8 border-t-ink px-4 py-1";

function NoticeLine({ notice }: { notice: Notice }) {
  const { dismiss } = useNotices();
  useEffect(() => {
    if (notice.tone === "trouble") return;
    const timer = setTimeout(() => dismiss(notice.id), notice.action ? WITH_WAY_BACK_MS : GOES_AFTER_MS);
    return () => clearTimeout(timer);
  }, [notice, dismiss]);
  const hidden = notice.details.length - MAX_DETAILS;
  const acts = [notice.action, notice.other].filter(act => act !== undefined);
  return (
    <li className={`${LINE} ${notice.tone === "trouble" ? "border-l-foxglove" : "border-l-moss"}`}>
      <div className="min-w-0 grow py-1">
        <p className="font-semibold break-words">{notice.title}</p>
        {notice.details.length > 0 && (
          <ul className="break-words text-soft">
            {notice.details.slice(0, MAX_DETAILS).map(detail => (
              <li key={detail}>{detail}</li>
            ))}
            {hidden > 0 && <li>… and {hidden} more</li>}
          </ul>
        )}
      </div>
      <p className="flex shrink-0 gap-2">
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

/** Publishes the height of an element as the property `--notices-px` of the page, which pages leave free. */
function useReservedHeight() {
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const board = ref.current;
    if (!board) return;
    const { style } = document.documentElement;
    const observer = new ResizeObserver(() => style.setProperty("--notices-px", `${board.offsetHeight}px`));
    observer.observe(board);
    return () => {
      observer.disconnect();
      style.removeProperty("--notices-px");
    };
  }, []);
  return ref;
}

/**
 * Notices in lines of their own at the lower edge of the window. Pages end above them, so they cover nothing;
 * below a kit the tape gives them its lowest rows. Many are collapsed into one line.
 */
export function NoticeBoard() {
  const { storage } = useStored();
  const { store, dismiss } = useNotices();
  const list = useStore(store);
  const { trouble } = useStore(storage);
  const [isWhole, setWhole] = useState(false);
  const ref = useReservedHeight();
  const shown = isWhole ? list : list.slice(-MAX_SHOWN);
  const gathered = list.length - shown.length;
  return (
    <div
      ref={ref}
      role="status"
      aria-label="Notices"
      aria-live="polite"
      className="fixed inset-x-0 bottom-0 z-40 max-h-[min(15rem,40dvh)] overflow-auto bg-leaf text-sm"
    >
      <ul>
        {trouble && (
          <li className={`${LINE} border-l-foxglove`} data-testid="not-kept">
            <p className="py-1">
              <b className="text-foxglove">Not kept.</b> {formatTrouble(trouble)}
            </p>
          </li>
        )}
        {gathered > 0 && (
          <li className={`${LINE} border-l-line`}>
            <span className="grow py-1">{gathered} more before these</span>
            <Button look="quiet" onClick={() => setWhole(true)}>
              Show
            </Button>
            <Button look="quiet" onClick={() => list.forEach(({ id }) => dismiss(id))}>
              Close all
            </Button>
          </li>
        )}
        {shown.map(notice => (
          <NoticeLine key={notice.id} notice={notice} />
        ))}
      </ul>
    </div>
  );
}
