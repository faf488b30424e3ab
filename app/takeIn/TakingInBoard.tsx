import { useState } from "react";
import { useStore } from "zustand";
import { sumTaken, type TakenLine } from "../storage/takenIn";
import { Button } from "../ui/Button";
import { useNotices } from "../ui/noticesContext";
import { loadTakenSheet } from "./loadTakenSheet";
import type { TakingIn } from "./useTakingIn";

/** The number of results shown individually; more are in a list. */
const FEW_LINES = 3;

/** A few results, shown individually. */
function FewLines({ lines }: { lines: readonly TakenLine[] }) {
  return (
    <ul className="grow break-words">
      {lines.length === 0 && <li>There was nothing in it.</li>}
      {lines.map(({ name, words, isTaken, isPassed }, n) => (
        <li key={n} className={isTaken || isPassed ? "" : "text-foxglove"}>
          <b>{name}</b> {words}
        </li>
      ))}
    </ul>
  );
}

/**
 * The progress of an import with a cancel button and, when it is complete, the result of each document.
 * `isFewSaid`: a few results are shown elsewhere.
 */
export function TakingInBoard({
  taking,
  isShortListElsewhere = false,
}: {
  taking: TakingIn;
  isShortListElsewhere?: boolean;
}) {
  const { lines } = taking;
  const now = useStore(taking.now);
  const { notify } = useNotices();
  /** The list of results while it is open; it is loaded when it opens. */
  const [list, setList] = useState<Awaited<ReturnType<typeof loadTakenSheet>>>();
  const open = () =>
    loadTakenSheet().then(setList, ({ message }: Error) =>
      notify({ tone: "trouble", title: "The list of results was not opened.", details: [message] }),
    );
  const close = () => {
    setList(undefined);
    taking.forget();
  };
  if (now)
    return (
      <div
        role="status"
        className="flex items-center gap-3 rounded-stone border-2 border-moss bg-leaf px-4 py-2 text-sm"
      >
        <label className="grow">
          Reading {now.files === 1 ? "a file" : `${now.files} files`},{" "}
          <span className="font-mono">
            {(now.done / 1e6).toFixed(1)} of {(now.of / 1e6).toFixed(1)} MB
          </span>
          <progress className="block w-full" value={now.done} max={Math.max(1, now.of)} />
        </label>
        <Button onClick={taking.stop}>Cancel</Button>
      </div>
    );
  const isFew = lines !== undefined && lines.length <= FEW_LINES;
  if (!lines || (isFew && isShortListElsewhere)) return null;
  return (
    <div
      role="status"
      className="flex items-center gap-3 rounded-stone border border-line bg-leaf px-4 py-2 text-sm"
    >
      {isFew ? (
        <FewLines lines={lines} />
      ) : (
        <>
          <span className="grow">{sumTaken(lines)}</span>
          <Button onClick={() => void open()}>Show the list</Button>
        </>
      )}
      <Button look="quiet" onClick={close}>
        Close
      </Button>
      {list && <list.TakenSheet lines={lines} onClose={() => setList(undefined)} />}
    </div>
  );
}
