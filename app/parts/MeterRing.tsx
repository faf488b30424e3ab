import { FIRED, FORMING, IDLE, LAPSED, readMeter, SUSTAINED, type Meter } from "#core";
import { usePadState } from "../input/context";

const PHASE_WORDS: Readonly<Record<number, string>> = {
  [IDLE]: "idle",
  [FORMING]: "forming",
  [FIRED]: "fired",
  [SUSTAINED]: "sustained",
  [LAPSED]: "lapsed",
};

const RADIUS = 34;
const LENGTH = 2 * Math.PI * RADIUS;

/** Returns the live meter of a pattern; re-renders only when its display changes. */
export function useMeter(patternId: string): Meter & { isLive: boolean } {
  const text = usePadState(({ session }) => {
    if (!session) return "";
    const i = session.program.patterns.findIndex(pattern => pattern.id === patternId);
    if (i < 0) return "";
    const meter = readMeter(session.program, session.state, i);
    const { made, of } = meter;
    return [meter.phase, meter.ratio, meter.ageFrames, meter.level, meter.value, made, of].join(" ");
  });
  const [phase = 0, ratio = 0, ageFrames = 0, level = 0, value = 0, made = 0, of = 0] =
    text === "" ? [] : text.split(" ").map(Number);
  return { phase, ratio, ageFrames, level, value, made, of, isLive: text !== "" };
}

/** A ring that fills while an attempt grows, with its phase in words below. */
export function MeterRing({ patternId, name }: { patternId: string; name: string }) {
  const meter = useMeter(patternId);
  const isHot = meter.phase === FIRED || meter.phase === SUSTAINED;
  const ratio = isHot ? 1 : meter.ratio;
  return (
    <figure
      className="flex w-28 flex-col items-center gap-1 text-center"
      data-testid={`meter-${patternId}`}
      data-ratio={ratio.toFixed(3)}
    >
      <svg
        viewBox="0 0 84 84"
        className="size-20"
        role="meter"
        aria-label={`${name}: progress`}
        aria-valuemin={0}
        aria-valuemax={1}
        aria-valuenow={Number(ratio.toFixed(2))}
      >
        <circle cx="42" cy="42" r={RADIUS} fill="none" strokeWidth="8" className="stroke-sand" />
        <circle
          cx="42"
          cy="42"
          r={RADIUS}
          fill="none"
          strokeWidth="8"
          strokeLinecap="round"
          className={meter.phase === LAPSED ? "stroke-foxglove" : "stroke-moss"}
          strokeDasharray={`${ratio * LENGTH} ${LENGTH}`}
          transform="rotate(-90 42 42)"
          opacity={ratio > 0 ? 1 : 0}
        />
        {isHot && <ellipse cx="42" cy="42" rx="14" ry="11" className="fill-moss" />}
        {!isHot && (
          <text
            x="42"
            y="43"
            textAnchor="middle"
            dominantBaseline="middle"
            className="fill-ink font-mono text-lg font-semibold"
          >
            {Math.floor(meter.ageFrames)}f
          </text>
        )}
      </svg>
      <figcaption className="text-sm leading-tight">
        <b className="block">{name}</b>
        <span className={meter.phase === LAPSED ? "text-foxglove" : "text-soft"}>
          {meter.isLive ? PHASE_WORDS[meter.phase] : "not listening"}
        </span>
      </figcaption>
    </figure>
  );
}
