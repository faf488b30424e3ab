import { formatCode } from "../input/codes";
import { useDocument } from "../document/workbenchContext";
import { usePadState } from "../input/context";
import type { RawEvent } from "../input/padState";

const DROPPED_WORDS: Readonly<Record<RawEvent["dropped"], string>> = {
  "": "",
  repeat: "dropped: repeat by the system",
  same: "dropped: nothing new",
  "not bound": "plays nothing here",
  unused: "used by no rule in this mode",
  "focus lost": "all let go: focus lost",
  unplugged: "let go: the pad is gone",
  stuck: "let go: its key up never came",
};

const SHOWN = 40;

/** Describes the source of a raw event. */
function sourceOf(event: RawEvent, nameOf: (id: string) => string): string {
  const [device, name = ""] = event.code.split(":");
  if (device === "window") return "window";
  if (device === "screen") return `${nameOf(name)} on screen`;
  return formatCode(event.code);
}

/** Every event a device reported, newest first: its time, its frame, or why it was dropped. */
export function RawLog() {
  const log = usePadState(state => state.log);
  const repeats = usePadState(state => state.repeatsDropped);
  const isAwake = usePadState(state => state.session !== undefined);
  const kit = useDocument(state => state.kit);
  const nameOf = (id: string) => kit?.controls.find(control => control.id === id)?.name ?? id;
  return (
    <section aria-label="Raw events" className="min-h-0 grow overflow-auto px-5 py-3">
      <h2 className="text-sm font-semibold">What the machine reports</h2>
      <p className="mb-2 text-sm text-soft" data-testid="repeats">
        {isAwake || log.length > 0
          ? `${repeats} repeats dropped`
          : "Start listening and press keys: every event is listed, with what was dropped and why."}
      </p>
      <ol className="font-mono text-sm leading-snug">
        {log.slice(0, SHOWN).map(event => (
          <li key={event.key} className="border-b border-dotted border-line py-0.5">
            <span className="flex justify-between gap-2">
              <span className="truncate">
                {event.value >= 0.5 ? "▼" : "△"} {sourceOf(event, nameOf)}
                {event.value > 0 && event.value < 1 && ` ${event.value.toFixed(2)}`}
              </span>
              <span className="shrink-0 text-soft">
                {event.timeMs.toFixed(0)} ms{event.frame >= 0 && ` → ${event.frame}f`}
              </span>
            </span>
            {(event.dropped !== "" || event.isStretched) && (
              <span className="block font-sans text-foxglove">
                {event.isStretched
                  ? "shorter than a frame: kept one frame long"
                  : event.dropped === "unused" && !kit?.modes
                    ? "no rule uses it"
                    : DROPPED_WORDS[event.dropped]}
              </span>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
