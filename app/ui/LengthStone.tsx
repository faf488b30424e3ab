import { useEffect, useId, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { followPointer } from "./followPointer";
import { otherUnit, readLength, stepLength } from "./lengthText";

const PX_PER_FRAME = 8;

/** A length in a sentence: drag it sideways, step it with the arrows or the wheel, or type it. The other unit stands beside it. */
export function LengthStone({
  label,
  value,
  rateHz,
  rounding,
  least,
  onChange,
  onGesture,
}: {
  label: string;
  value: string;
  rateHz: number;
  rounding: "atLeast" | "atMost";
  least: number;
  onChange: (value: string) => void;
  /** Called when a drag begins; what it returns marks the first edit and the end, so that a drag is one step of undo. */
  onGesture: () => { edited: () => void; end: () => void; cancel: () => void };
}) {
  const [draft, setDraft] = useState<string | undefined>();
  const [trouble, setTrouble] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const troubleId = useId();
  const shown = draft ?? value;

  const stepBy = (frames: number) => {
    setDraft(undefined);
    setTrouble("");
    const next = stepLength(value, frames, rateHz, rounding, least);
    if (next !== value) onChange(next);
    else if (frames < 0) setTrouble(`at least ${least}f here`);
  };
  const settle = (typed: string) => {
    const read = readLength(typed, value, rateHz, rounding, least);
    if (!read.ok) return setTrouble(read.reason);
    setTrouble("");
    setDraft(undefined);
    if (read.value !== value) onChange(read.value);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const steps: Record<string, number> = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 };
    const by = steps[event.key];
    if (by !== undefined) {
      event.preventDefault();
      stepBy(by * (event.shiftKey ? 10 : 1));
    } else if (event.key === "Enter") settle(shown);
    else if (event.key === "Escape") {
      setDraft(undefined);
      setTrouble("");
    }
  };
  const onPointerDown = (event: PointerEvent<HTMLInputElement>) => {
    const fromX = event.clientX;
    const gesture = onGesture();
    let isMoved = false;
    let last = value;
    followPointer(event, {
      move(moved) {
        const frames = Math.trunc((moved.clientX - fromX) / PX_PER_FRAME);
        if (frames === 0 && !isMoved) return;
        isMoved = true;
        setDraft(undefined);
        const next = stepLength(value, frames, rateHz, rounding, least);
        if (next === last) return;
        last = next;
        onChange(next);
        gesture.edited();
      },
      end() {
        gesture.end();
        if (!isMoved) field.current?.select();
      },
      cancel: () => (isMoved ? gesture.cancel() : gesture.end()),
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
        data-draft={draft === undefined ? undefined : ""}
        aria-label={`${label}, ${otherUnit(value, rateHz, rounding)}`}
        aria-invalid={trouble !== ""}
        aria-describedby={trouble ? troubleId : undefined}
        className="cursor-ew-resize touch-none rounded-md border-b-2 border-moss bg-lichen px-1.5 py-0.5 text-center font-mono font-semibold text-on-lichen not-italic focus:cursor-text"
        style={{ width: `calc(${Math.max(2, shown.length)}ch + 14px)` }}
        value={shown}
        inputMode="text"
        spellCheck={false}
        onChange={event => setDraft(event.target.value)}
        onBlur={() => draft !== undefined && settle(draft)}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
      />
      <span className="font-mono text-sm text-soft">{otherUnit(value, rateHz, rounding)}</span>
      {trouble && (
        <span
          id={troubleId}
          role="alert"
          className="absolute top-full left-0 z-20 mt-1 rounded-md border border-foxglove bg-leaf px-2 py-1 font-sans text-sm text-foxglove"
        >
          {trouble}
        </span>
      )}
    </span>
  );
}
