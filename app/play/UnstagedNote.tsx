import { useEvaluation } from "../document/evaluationContext";
import { usePadState } from "../input/context";

/** A note on the stage while a take is open in which it takes no part, as in those of a game: its body would seem to ignore the tape. */
export function UnstagedNote() {
  const isUnstaged = useEvaluation(state => state.evaluated?.take.stage === "none");
  const isAwake = usePadState(state => state.session !== undefined);
  if (!isUnstaged || isAwake) return null;
  return (
    <p
      role="status"
      className="absolute inset-x-3 bottom-2 mx-auto w-fit rounded-xl border border-line bg-paper px-3 py-1 text-sm"
    >
      This take has gates of its own: the stage takes no part in it. The tape below shows it.
    </p>
  );
}
