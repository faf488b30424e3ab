import { useEffect, useId, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { followPointer } from "./followPointer";

const PX_PER_STEP = 8;

/** A drag, which is one step of undo however many edits it makes. */
export interface DragStep {
  readonly run: (edits: () => void) => void;
  readonly end: () => void;
  readonly cancel: () => void;
}

/** Begins the step of a drag; `onClosed` is called if the step is closed before the drag ends. */
export type BeginStep = (onClosed: () => void) => DragStep;

/** Parses and steps the value of a stone, as text. */
export interface StoneRules {
  readonly read: (
    typed: string,
  ) => { readonly ok: true; readonly value: string } | { readonly ok: false; readonly reason: string };
  /** Returns the value a number of steps away; the same one at a limit. */
  readonly step: (from: string, by: number) => string;
  /** Returns why it cannot go further up or down. */
  readonly limit: (by: number) => string;
}

/** The reason why a value was not applied, below it. */
function Trouble({ id, words }: { id: string; words: string }) {
  return (
    <span
      id={id}
      role="alert"
      className="absolute top-full left-0 z-20 mt-1 rounded-md border border-foxglove bg-leaf px-2 py-1 font-sans text-sm text-foxglove"
    >
      {words}
    </span>
  );
}

/**
 * An editable value in a sentence: drag it sideways, step it with the arrow keys or the wheel, or type it. A
 * value out of bounds is reported and not applied.
 */
export function Stone({
  label,
  value,
  beside = "",
  look,
  rules,
  onChange,
  beginStep,
}: {
  label: string;
  value: string;
  /** The same value in another unit. */
  beside?: string;
  look: string;
  rules: StoneRules;
  onChange: (value: string) => void;
  beginStep: BeginStep;
}) {
  const [draft, setDraft] = useState<string | undefined>();
  const [trouble, setTrouble] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const troubleId = useId();
  const shown = draft ?? value;

  const forget = () => {
    setDraft(undefined);
    setTrouble("");
  };
  const stepBy = (by: number) => {
    forget();
    const next = rules.step(value, by);
    if (next !== value) onChange(next);
    else setTrouble(rules.limit(by));
  };
  const commit = (typed: string) => {
    const read = rules.read(typed);
    if (!read.ok) return setTrouble(read.reason);
    forget();
    if (read.value !== value) onChange(read.value);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const steps: Record<string, number> = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 };
    const by = steps[event.key];
    if (by !== undefined) {
      event.preventDefault();
      stepBy(by * (event.shiftKey ? 10 : 1));
    } else if (event.key === "Enter") commit(shown);
    else if (event.key === "Escape") forget();
  };
  const onPointerDown = (event: PointerEvent<HTMLInputElement>) => {
    if (!event.isPrimary) return;
    const fromX = event.clientX;
    const step = beginStep(() => stop());
    let isMoved = false;
    let last = value;
    const stop = followPointer(event, {
      move(moved) {
        const by = Math.trunc((moved.clientX - fromX) / PX_PER_STEP);
        if (by === 0 && !isMoved) return;
        isMoved = true;
        setDraft(undefined);
        const next = rules.step(value, by);
        if (next === last) return;
        last = next;
        step.run(() => onChange(next));
      },
      end(isUp) {
        step.end();
        if (isUp && !isMoved) field.current?.select();
      },
      cancel: () => (isMoved ? step.cancel() : step.end()),
    });
  };

  useEffect(() => {
    const input = field.current;
    if (!input) return;
    const onWheel = (event: WheelEvent) => {
      if (document.activeElement !== input) return;
      event.preventDefault();
      stepBy(event.deltaY < 0 ? 1 : -1);
    };
    input.addEventListener("wheel", onWheel, { passive: false });
    return () => input.removeEventListener("wheel", onWheel);
  });

  return (
    <span className="relative inline-flex items-baseline gap-1.5 whitespace-nowrap">
      <input
        ref={field}
        data-dragged
        data-draft={draft === undefined ? undefined : ""}
        aria-label={beside ? `${label}, ${beside}` : label}
        aria-invalid={trouble !== ""}
        aria-describedby={trouble ? troubleId : undefined}
        className={`cursor-ew-resize touch-none rounded-md border-b-2 px-1.5 py-0.5 text-center font-mono font-semibold not-italic focus:cursor-text ${look}`}
        style={{ width: `calc(${Math.max(2, shown.length)}ch + 14px)` }}
        value={shown}
        inputMode="text"
        spellCheck={false}
        onChange={event => setDraft(event.target.value)}
        onBlur={() => draft !== undefined && commit(draft)}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
      />
      {beside && <span className="font-mono text-sm text-soft">{beside}</span>}
      {trouble && <Trouble id={troubleId} words={trouble} />}
    </span>
  );
}
