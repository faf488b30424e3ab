import { useDocument } from "../../document/context";
import { useGoTo } from "./useGoTo";

/** A frame of a take that a figure came from: a click opens it on the tape. */
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
        · {name}, {Math.round(frame)}f
      </span>
    </button>
  );
}
