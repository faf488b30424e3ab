import { firstNoteAfter, formatEvent, formatEventWords, notes, type Trace } from "#core";
import type { Rules } from "#stage";
import { useDesk, useEvaluated, usePlayback } from "../document/context";
import { usePadState } from "../input/context";

const SHOWN = 10;
/** So many notes are looked through for them at most: in a long session a quiet rule may have none for an hour. */
const MOST_LOOKED = 4000;
const IS_TOLD = new Set<number>([notes.FIRE, notes.LAPSE, notes.PERFORMED, notes.LOST, notes.PROMPT]);

type IsWanted = (kind: "pattern" | "move", id: string) => boolean;

interface Line {
  readonly note: number;
  readonly frame: number;
  readonly name: string;
  readonly words: string;
  readonly isLoss: boolean;
}

/** The line that tells a note, or undefined for one that is not told. */
function lineOf({ kit, program }: Rules, trace: Trace, note: number, isWanted: IsWanted): Line | undefined {
  const event = IS_TOLD.has(trace.kind[note]!) ? formatEvent(program, trace, note) : undefined;
  if (!event || !("id" in event) || (event.kind === "lost" && event.why === "beaten")) return undefined;
  const isMove = event.kind === "performed" || event.kind === "lost";
  if (!isWanted(isMove ? "move" : "pattern", event.id)) return undefined;
  const list = event.kind === "prompt" ? kit.prompts : isMove ? kit.moves : kit.patterns;
  return {
    note,
    frame: event.f,
    name: list?.find(item => item.id === event.id)?.name ?? event.id,
    words: formatEventWords(event, kit),
    isLoss:
      event.kind === "lost" ||
      event.kind === "lapsed" ||
      (event.kind === "prompt" && event.outcome === "failed"),
  };
}

/** The last notes before a place of the trace that are told, newest first. */
function listLines(rules: Rules, trace: Trace, end: number, isWanted: IsWanted): Line[] {
  const lines: Line[] = [];
  const last = Math.max(0, end - MOST_LOOKED);
  for (let note = end - 1; note >= last && lines.length < SHOWN; note--) {
    const line = lineOf(rules, trace, note, isWanted);
    if (line) lines.push(line);
  }
  return lines;
}

const anything: IsWanted = () => true;

/**
 * The last things understood, newest first, each with its frame: of what is being played; of the open take up to the
 * playhead where `isReplayTold`, and a click on a line goes there.
 */
export function Ticker({
  only = anything,
  isReplayTold = false,
}: {
  only?: IsWanted;
  isReplayTold?: boolean;
}) {
  const { playback } = useDesk();
  const session = usePadState(state => state.session);
  const evaluated = useEvaluated();
  const live = usePadState(state => state.session?.trace.count ?? 0);
  const replayed = isReplayTold && !session ? evaluated : undefined;
  const reached = usePlayback(({ frame }) => (replayed ? firstNoteAfter(replayed.trace, frame) : 0));
  const told = session ?? replayed;
  const lines = told ? listLines(told.rules, told.trace, session ? live : reached, only) : [];
  if (lines.length === 0) {
    return (
      <p className="text-sm text-soft">
        {session
          ? "Press something: what is understood appears here."
          : replayed
            ? "Replay the take, or wake the pad and press: what is understood appears here."
            : "Wake the pad and press: what is understood appears here."}
      </p>
    );
  }
  return (
    <ol className="text-sm" aria-label="Last results" data-testid="ticker">
      {lines.map(line => (
        <li
          key={line.note}
          className={`flex justify-between gap-3 border-b border-dotted border-line py-1 ${line.isLoss ? "text-foxglove" : ""}`}
        >
          <span>
            <b>{line.name}</b> {line.words}
          </span>
          {replayed ? (
            <button
              type="button"
              className="font-mono underline-offset-4 hover:underline"
              aria-label={`${line.frame}f: go to the frame`}
              onClick={() => playback.goTo(line.frame)}
            >
              {line.frame}f
            </button>
          ) : (
            <span className="font-mono">{line.frame}f</span>
          )}
        </li>
      ))}
    </ol>
  );
}
