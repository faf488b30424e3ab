import { useEffect } from "react";
import { useStore } from "zustand";
import { storageStatus } from "../storage/library";
import { Button } from "../ui/Button";
import { dismiss, notices, type Notice } from "../ui/notices";

const MOST_DETAILS = 6;

/** A plain word that asks for nothing goes by itself after this. */
const GOES_AFTER_MS = 8000;

function NoticeCard({ notice }: { notice: Notice }) {
  useEffect(() => {
    if (notice.tone === "trouble" || notice.action) return;
    const timer = setTimeout(() => dismiss(notice.id), GOES_AFTER_MS);
    return () => clearTimeout(timer);
  }, [notice]);
  const hidden = notice.details.length - MOST_DETAILS;
  return (
    <li
      className={`flex flex-col gap-2 rounded-stone border-2 bg-leaf p-4 shadow-lg ${notice.tone === "trouble" ? "border-foxglove" : "border-moss"}`}
    >
      <p className="font-semibold">{notice.title}</p>
      {notice.details.length > 0 && (
        <ul className="max-h-56 overflow-auto font-mono text-sm break-words text-soft">
          {notice.details.slice(0, MOST_DETAILS).map(detail => (
            <li key={detail}>{detail}</li>
          ))}
          {hidden > 0 && <li>… and {hidden} more</li>}
        </ul>
      )}
      <p className="flex gap-2">
        {notice.action && (
          <Button
            onClick={() => {
              notice.action?.run();
              dismiss(notice.id);
            }}
          >
            {notice.action.label}
          </Button>
        )}
        <Button onClick={() => dismiss(notice.id)}>Close</Button>
      </p>
    </li>
  );
}

/** Notices at the foot of the page, and a standing word when work cannot be kept. */
export function NoticeBoard() {
  const list = useStore(notices);
  const status = useStore(storageStatus);
  return (
    <div
      role="status"
      aria-live="polite"
      className="fixed right-4 bottom-4 z-40 w-[440px] max-w-[calc(100vw-2rem)]"
    >
      <ul className="flex flex-col gap-3">
        {!status.isKept && (
          <li className="rounded-stone border-2 border-foxglove bg-leaf p-4 text-sm" data-testid="not-kept">
            <b className="text-foxglove">Not kept.</b> {status.reason}
          </li>
        )}
        {list.map(notice => (
          <NoticeCard key={notice.id} notice={notice} />
        ))}
      </ul>
    </div>
  );
}
