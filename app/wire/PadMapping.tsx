import { useEffect, useRef, useState } from "react";
import { usePad } from "../input/context";
import type { Pad } from "../input/pad";
import { createPadWatch, type PadWatch, type WatchedAxis } from "../input/padWatch";
import { Button } from "../ui/Button";
import { Sheet } from "../ui/Sheet";
import {
  describeAnswer,
  mapOf,
  NO_ANSWERS,
  PAD_STEPS,
  stepOf,
  takenBy,
  type PadDraft,
} from "./model/padSteps";

/** A pad without the standard layout, as the browser names it. */
interface StrangePad {
  readonly index: number;
  readonly id: string;
  readonly name: string;
}

/** The state of the pad at the last picture. */
interface Sight {
  readonly isTouched: boolean;
  readonly axes: readonly WatchedAxis[];
  readonly isGone: boolean;
}

const readPad = ({ maps }: Pad, index: number) =>
  maps.readRaw?.().find(each => each?.index === index && each.connected);

/** Watches a pad on every turn of the screen, and adds its answers to the draft. */
function useWatched(item: StrangePad, draft: PadDraft, onDraft: (draft: PadDraft) => void) {
  const pad = usePad();
  const [sight, setSight] = useState<Sight>(() => {
    // With as many lines as later, so that nothing moves.
    const reading = readPad(pad, item.index);
    const first = createPadWatch();
    if (reading) first.feed(reading);
    return { isTouched: false, axes: first.axes(), isGone: !reading };
  });
  const [word, setWord] = useState("");
  const watch = useRef<PadWatch>(undefined);
  const answer = useRef<(reading: ReturnType<PadWatch["feed"]>) => void>(undefined);
  const asked = stepOf(draft)?.asked;
  useEffect(() => {
    answer.current = found => {
      if (!found) return;
      const taken = takenBy(draft, found);
      setWord(taken ? `That was ${describeAnswer(found)}, which has been pressed before. Try again.` : "");
      if (!taken && stepOf(draft)) onDraft({ answers: [...draft.answers, found] });
    };
  });
  useEffect(() => {
    pad.sleep();
    const own = (watch.current = createPadWatch());
    let request = 0;
    const look = () => {
      const reading = readPad(pad, item.index);
      if (reading) answer.current?.(own.feed(reading));
      const next: Sight = { isTouched: own.isTouched(), axes: own.axes(), isGone: !reading };
      setSight(now => (JSON.stringify(now) === JSON.stringify(next) ? now : next));
      request = requestAnimationFrame(look);
    };
    request = requestAnimationFrame(look);
    return () => cancelAnimationFrame(request);
  }, [pad, item.index]);
  useEffect(() => {
    if (asked) watch.current?.ask(asked);
  }, [asked, draft]);
  return { sight, word, settle: () => answer.current?.(watch.current?.settle()) };
}

/** The request that is open, with the ways around it. */
function Request({
  draft,
  sight,
  word,
  onDraft,
  onSettle,
}: {
  draft: PadDraft;
  sight: Sight;
  word: string;
  onDraft: (draft: PadDraft) => void;
  /** Takes what the pad reports now as its rest. */
  onSettle: () => void;
}) {
  const step = stepOf(draft);
  const answered = draft.answers.length;
  const last = draft.answers.at(-1);
  if (!step)
    return (
      <p className="min-h-14 font-serif text-xl" data-testid="pad-step">
        Every part is answered: keep the map.
      </p>
    );
  return (
    <>
      <p className="mt-2 text-sm text-soft">
        {answered + 1} of {PAD_STEPS.length}
      </p>
      <p className="min-h-14 font-serif text-xl" aria-live="polite" data-testid="pad-step">
        {step.words} and let it go.
      </p>
      <p className="mt-1 min-h-10 text-sm" role="status">
        {sight.isGone
          ? "The pad is not connected: connect it, and press any of its buttons."
          : sight.isTouched
            ? "Now let everything go. If this stays, confirm below that it is let go: then this is how it rests."
            : word ||
              (last !== undefined &&
                `${PAD_STEPS[answered - 1]!.words.replace(/^\w+ /, "")}: ${describeAnswer(last)}`)}
      </p>
      <p className="mt-3 flex flex-wrap gap-2">
        <Button onClick={() => onDraft({ answers: [...draft.answers, null] })}>This pad has none</Button>
        <Button disabled={!sight.isTouched} onClick={onSettle}>
          Everything is let go
        </Button>
        <Button
          look="quiet"
          disabled={answered === 0}
          onClick={() => onDraft({ answers: draft.answers.slice(0, -1) })}
        >
          One back
        </Button>
      </p>
    </>
  );
}

/** The values that each axis had. */
function Axes({ axes }: { axes: readonly WatchedAxis[] }) {
  const number = (value: number) => value.toFixed(2).replace("-", "−");
  return (
    <ul
      className="mt-4 grid grid-cols-2 gap-x-6 font-mono narrow:grid-cols-1 text-xs text-soft"
      aria-label="Axes of the pad"
    >
      {axes.map(({ rest, least, most, steps }, a) => (
        <li key={a}>
          axis {a}: rests at {number(rest)}, seen {number(least)} to {number(most)}, {steps}{" "}
          {steps === 1 ? "value" : "values"}
        </li>
      ))}
    </ul>
  );
}

/** The guided map of a pad without the standard layout: one short press of each part. Answers stay until the map is kept. */
export function PadMapping({
  item,
  draft,
  onDraft,
  onClose,
}: {
  item: StrangePad;
  draft: PadDraft;
  onDraft: (draft: PadDraft) => void;
  onClose: () => void;
}) {
  const pad = usePad();
  const { sight, word, settle } = useWatched(item, draft, onDraft);
  const found = draft.answers.filter(answer => answer !== null).length;
  const keep = () => {
    pad.maps.keep(mapOf(item.id, draft));
    pad.refreshPads();
    // Another map of it begins anew.
    onDraft(NO_ANSWERS);
    onClose();
  };
  return (
    <Sheet title={`Map ${item.name}`} isOpen onClose={onClose}>
      <p className="mt-1 text-sm text-soft">
        Let everything go first, also the triggers. Then press each part once as asked; nothing else is bound
        by it.
      </p>
      <Request draft={draft} sight={sight} word={word} onDraft={onDraft} onSettle={settle} />
      <p className="mt-3">
        <Button look="strong" disabled={found === 0} onClick={keep}>
          Keep this map ({found} of {PAD_STEPS.length} parts)
        </Button>
      </p>
      <Axes axes={sight.axes} />
    </Sheet>
  );
}
