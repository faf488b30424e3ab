import { useEvaluation } from "../document/evaluationContext";
import { usePad, usePadState } from "../input/context";
import { SHORT_HEADER, useMedia } from "../ui/useMedia";

/** Wakes the pad, and shows whether it is awake. */
export function WakeButton() {
  const pad = usePad();
  const isAwake = usePadState(state => state.session !== undefined);
  const isRecording = usePadState(state => state.isRecording);
  const isPlayable = useEvaluation(state => state.rules !== undefined);
  const isLinked = usePadState(state => state.isLinked);
  const isResting = usePadState(state => state.isResting);
  const isNarrow = useMedia(SHORT_HEADER);
  const hasEnded = usePadState(state => state.ended !== undefined);
  const words = isNarrow
    ? "Esc ends"
    : isResting
      ? "Typing · Enter ends"
      : `${isRecording ? "Recording" : "Listening"} · Esc ends`;
  return (
    <>
      <span role="status" className="sr-only">
        {isAwake ? "Listening" : hasEnded ? "Listening ended" : ""}
      </span>
      <button
        type="button"
        disabled={!isPlayable || isLinked}
        aria-pressed={isAwake}
        onClick={() => (isAwake ? pad.sleep() : pad.wake())}
        className={`flex h-10 w-[184px] shrink-0 max-xl:w-[172px] max-xl:px-1 max-[960px]:h-9 max-[960px]:w-auto max-[960px]:px-3 items-center justify-center gap-2 rounded-full border-2 border-moss px-4 text-sm font-semibold whitespace-nowrap ${isAwake ? "bg-moss text-leaf" : "text-moss"}`}
      >
        <span
          aria-hidden
          className={`inline-block size-2.5 shrink-0 rounded-full border-2 ${isAwake ? "border-lichen bg-lichen" : "border-moss"}`}
        />
        {isLinked ? "A game plays" : isAwake ? words : isNarrow ? "Listen" : "Start listening"}
      </button>
    </>
  );
}
