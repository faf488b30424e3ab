import { formatMs } from "#core";
import { listFacts } from "../model/frameFacts";
import type { TapeModel } from "../model/tapeRows";
import type { Evaluated } from "../../judging/judge";

const MAX_FACTS = 9;

/** A card with all facts about one frame, on the side and in the half of the tape away from the pointer. */
export function FrameCard({
  model,
  evaluated,
  frame,
  besideX,
  isUpper,
}: {
  model: TapeModel;
  evaluated: Evaluated;
  frame: number;
  besideX: number;
  /** Whether the pointer is over the upper half; the card is then in the lower one. */
  isUpper: boolean;
}) {
  const facts = listFacts(model, evaluated.rules, evaluated.trace, frame);
  const place = besideX < 720 ? { right: 12 } : { left: 208 };
  return (
    <div
      className="pointer-events-none absolute z-10 w-72 rounded-stone border-2 border-ink bg-paper px-4 py-2 text-sm"
      style={{ ...place, ...(isUpper ? { bottom: 8 } : { top: 32 }) }}
      data-testid="frame-card"
    >
      <p className="font-mono">
        <b>{frame}f</b> <span className="text-soft">{formatMs(frame, model.rateHz)}</span>
      </p>
      <dl>
        {facts.slice(0, MAX_FACTS).map((fact, i) => (
          <div key={i} className="flex gap-2">
            <dt className="max-w-32 shrink-0 truncate">{fact.name}</dt>
            <dd className="text-soft">{fact.fact}</dd>
          </div>
        ))}
      </dl>
      {facts.length === 0 && <p className="text-soft">Nothing is down, nothing happens.</p>}
      {facts.length > MAX_FACTS && <p className="text-soft">… and {facts.length - MAX_FACTS} more</p>}
    </div>
  );
}
