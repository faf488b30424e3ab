import {
  cloneElement,
  useEffect,
  useId,
  useRef,
  type KeyboardEvent,
  type PointerEvent,
  type ReactElement,
  type ReactNode,
} from "react";

/** The time that a pointer rests on an element before its explanation is shown, in ms. */
const REST_MS = 350;
const WIDTH_PX = 280;
const MARGIN_PX = 8;

/** The life of one explanation: shown after a rest, at once, or hidden. */
function useTip() {
  const place = useRef<HTMLSpanElement>(null);
  const tip = useRef<HTMLSpanElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const show = () => {
    clearTimeout(timer.current);
    const box = place.current?.firstElementChild?.getBoundingClientRect();
    if (!box || !tip.current) return;
    const left = Math.min(box.left, window.innerWidth - WIDTH_PX - MARGIN_PX);
    Object.assign(tip.current.style, { left: `${Math.max(MARGIN_PX, left)}px`, top: `${box.bottom}px` });
    tip.current.togglePopover(true);
    const own = tip.current.getBoundingClientRect();
    // Above the element where there is no room below it.
    if (own.bottom > window.innerHeight) tip.current.style.top = `${box.top - own.height}px`;
  };
  const hide = () => {
    clearTimeout(timer.current);
    tip.current?.togglePopover(false);
  };
  const showSoon = () => {
    clearTimeout(timer.current);
    timer.current = setTimeout(show, REST_MS);
  };
  return { place, tip, show, showSoon, hide };
}

/**
 * An element with an explanation, shown while the pointer rests on either, or while the element has the focus of a keyboard;
 * Escape hides it. It lies above everything, and takes no room.
 */
export function Explained({
  words,
  isShownByClick = false,
  children,
}: {
  words: string;
  /** For elements that do nothing else when they are clicked or tapped. */
  isShownByClick?: boolean;
  children: ReactElement<{ readonly "aria-describedby"?: string }>;
}) {
  const id = useId();
  const { place, tip, show, showSoon, hide } = useTip();
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Escape" || !tip.current?.matches(":popover-open")) return;
    event.stopPropagation();
    hide();
  };
  const onPointerEnter = ({ pointerType }: PointerEvent) => pointerType !== "touch" && showSoon();
  return (
    <span
      ref={place}
      className="contents"
      onPointerEnter={onPointerEnter}
      onPointerLeave={hide}
      onFocus={event => event.target.matches(":focus-visible") && show()}
      onBlur={hide}
      onClick={isShownByClick ? show : hide}
      onKeyDown={onKeyDown}
    >
      {cloneElement(children, { "aria-describedby": id })}
      <span
        ref={tip}
        id={id}
        role="tooltip"
        popover="manual"
        className="fixed inset-auto m-0 w-[280px] border-0 bg-transparent py-1.5 text-left font-sans text-sm font-normal text-leaf whitespace-normal"
      >
        <span className="block rounded-stone bg-ink px-3 py-2">{words}</span>
      </span>
    </span>
  );
}

/** The terms of the trade that screens explain where they use them. */
const TERMS = {
  startup: "Startup: the frames before a move does anything to others.",
  active: "Active: the frames on which a blow can land.",
  recovery: "Recovery: the frames after the active ones, until the move is over.",
  whole: "Startup, active and recovery together.",
  onHit: "Advantage on a hit: how many frames the fighter can act before the opponent; negative if later.",
  onGuard:
    "Advantage on a guard: how many frames the fighter can act before the opponent after a guarded blow.",
  onMiss:
    "Advantage on a miss: how many frames the fighter can act before the opponent after a blow that found nobody.",
  room: "How many frames earlier or later the press could have come with the same move performed. One frame or none is tight.",
  meant:
    "A press counts as meant unless it is marked on the tape as not meant. Walking, and controls of no rule, do not count.",
  kept: "Kept: some move or prompt uses the press.",
  buffer: "Buffer: how long a press that came too early waits, to be used once it can be.",
  coyote: "Coyote: how long after a gate has closed a press still counts as if it were open.",
  lost: "Lost: the press asked for a move or prompt and did not get it; the tape shows why.",
  onset:
    "Onset: how long after the turn of a gate, or the target of a prompt, that judged it a press came; before it is early. The line is the median.",
  withoutEffect: "Without effect: no rule used the press, and none lost it.",
  take: "Take: recorded input, frame by frame. Rules are judged on it again at every change.",
  check: "Check: something that must hold on takes, judged again at every change.",
  variant: "Variant: the rules as they were at some moment, kept beside the present ones.",
  assist: "Assist: rules that are easier in some way, for players who turn it on.",
  unwanted: "Presses not meant, or doubled, that set something off; and failures of checks with “never”.",
} as const;

export type Term = keyof typeof TERMS;

/** Returns the explanation of a term. */
export const explanationOf = (term: Term): string => TERMS[term];

/** A term within a text, dotted below, with its explanation. */
export function TermWord({ of, children }: { of: Term; children: ReactNode }) {
  return (
    <Explained words={TERMS[of]} isShownByClick>
      <button
        type="button"
        className="cursor-help border-b border-dotted border-soft text-inherit [font:inherit]"
      >
        {children}
      </button>
    </Explained>
  );
}
