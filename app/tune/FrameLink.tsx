import { useDocument } from "../document/workbenchContext";
import { useGoTo } from "./useGoTo";

/** A link to the frame of a take from which a figure comes; long words and a long name of the take are cut, the frame is not. */
export function FrameLink({ take, frame, words }: { take: string; frame: number; words: string }) {
  const goTo = useGoTo();
  const name = useDocument(state => state.takes.find(({ id }) => id === take)?.name) ?? take;
  return (
    <button
      type="button"
      className="inline-flex max-w-full text-left whitespace-pre text-moss underline-offset-4 hover:underline"
      onClick={() => goTo(take, frame)}
    >
      <span className="truncate">{words}</span>
      <span className="text-soft"> · {Math.round(frame)}f, </span>
      <span className="min-w-8 shrink-[99999] truncate text-soft">{name}</span>
    </button>
  );
}
