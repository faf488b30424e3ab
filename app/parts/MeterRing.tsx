import { FIRED, FORMING, IDLE, indexOfId, LAPSED, readMeter, SUSTAINED, type Meter } from "#core";
import { usePad } from "../input/context";
import type { PadState } from "../input/padState";
import { useWriter } from "../ui/LiveText";

const PHASE_WORDS: Readonly<Record<number, string>> = {
  [IDLE]: "idle",
  [FORMING]: "forming",
  [FIRED]: "fired",
  [SUSTAINED]: "sustained",
  [LAPSED]: "lapsed",
};

const RADIUS = 34;
const LENGTH = 2 * Math.PI * RADIUS;

/** Returns the meter of a pattern in the live session; undefined if there is none. */
export function meterIn({ session }: PadState, patternId: string): Meter | undefined {
  if (!session) return undefined;
  const i = indexOfId(session.program.patterns, patternId);
  return i < 0 ? undefined : readMeter(session.program, session.state, i);
}

/**
 * Writes a meter into the parts of its ring, if it shows anything else. Their classes are those of the marks `data-is-hot` and
 * `data-has-lapsed`.
 */
function writeRing(ring: HTMLElement, meter: Meter | undefined): void {
  const { phase, ratio: grown, ageFrames } = meter ?? { phase: IDLE, ratio: 0, ageFrames: 0 };
  const isHot = phase === FIRED || phase === SUSTAINED;
  const ratio = isHot ? 1 : grown;
  const shown = `${meter ? phase : "none"} ${ratio} ${Math.floor(ageFrames)}`;
  if (ring.dataset.shown === shown) return;
  ring.dataset.shown = shown;
  const part = (name: string) => ring.querySelector(`[data-part=${name}]`)!;
  ring.toggleAttribute("data-is-hot", isHot);
  ring.toggleAttribute("data-has-lapsed", phase === LAPSED);
  ring.dataset.ratio = ratio.toFixed(3);
  part("meter").setAttribute("aria-valuenow", String(Number(ratio.toFixed(2))));
  part("arc").setAttribute("stroke-dasharray", `${ratio * LENGTH} ${LENGTH}`);
  part("arc").setAttribute("opacity", ratio > 0 ? "1" : "0");
  part("age").textContent = `${Math.floor(ageFrames)}f`;
  part("words").textContent = meter ? PHASE_WORDS[phase]! : "not listening";
}

/** A ring that fills while an attempt grows, with its phase in words below; written without a render. */
export function MeterRing({
  patternId,
  name,
  isOneOfMany = false,
}: {
  patternId: string;
  name: string;
  /** Whether it is in a list longer than a screen: then it is drawn and written only near the screen. */
  isOneOfMany?: boolean;
}) {
  const ring = useWriter<HTMLElement, PadState>(usePad(), (element, state) =>
    writeRing(element, meterIn(state, patternId)),
  );
  return (
    <figure
      ref={ring}
      className={`group/ring flex w-28 flex-col items-center gap-1 text-center ${isOneOfMany ? "h-36 contain-strict [content-visibility:auto]" : ""}`}
      data-testid={`meter-${patternId}`}
    >
      <svg
        viewBox="0 0 84 84"
        className="size-20"
        role="meter"
        aria-label={`${name}: progress`}
        aria-valuemin={0}
        aria-valuemax={1}
        data-part="meter"
      >
        <circle cx="42" cy="42" r={RADIUS} fill="none" strokeWidth="8" className="stroke-sand" />
        <circle
          cx="42"
          cy="42"
          r={RADIUS}
          fill="none"
          strokeWidth="8"
          strokeLinecap="round"
          className="stroke-moss group-data-has-lapsed/ring:stroke-foxglove"
          transform="rotate(-90 42 42)"
          data-part="arc"
        />
        <ellipse cx="42" cy="42" rx="14" ry="11" className="hidden fill-moss group-data-is-hot/ring:block" />
        <text
          x="42"
          y="43"
          textAnchor="middle"
          dominantBaseline="middle"
          className="fill-ink font-mono text-lg font-semibold group-data-is-hot/ring:hidden"
          data-part="age"
        />
      </svg>
      <figcaption className="text-sm leading-tight">
        <b className="block">{name}</b>
        <span className="text-soft group-data-has-lapsed/ring:text-foxglove" data-part="words" />
      </figcaption>
    </figure>
  );
}
