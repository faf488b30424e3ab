import { useDocument } from "../document/workbenchContext";
import { useGoTo } from "./useGoTo";

/** A link to the frame of a take from which a figure comes; a long name of the take is cut, its frame is not. */
export function FrameLink({ take, frame, words }: { take: string; frame: number; words: string }) {
  const goTo = useGoTo();
  const name = useDocument(state => state.takes.find(({ id }) => id === take)?.name) ?? take;
  return (
    <button
      type="button"
      className="max-w-full truncate text-left text-moss underline-offset-4 hover:underline"
      onClick={() => goTo(take, frame)}
    >
      {words}{" "}
      <span className="text-soft">
        · {Math.round(frame)}f, {name}
      </span>
    </button>
  );
}
