import { useEffect, useState, type ReactNode } from "react";
import type { SessionFigures } from "../input/sessionFigures";
import { Histogram } from "../ui/Histogram";
import { useDocument } from "../document/workbenchContext";
import { usePad } from "../input/context";

/** The interval at which the figures are updated while the pad is awake, in frames. */
const EVERY_FRAMES = 15;

function useFigures(): SessionFigures {
  const pad = usePad();
  const [figures, setFigures] = useState<SessionFigures>(pad.readFigures);
  useEffect(
    () =>
      pad.subscribe(({ session, frame }, before) => {
        if (session !== before.session || (frame !== before.frame && frame % EVERY_FRAMES === 0))
          setFigures(pad.readFigures());
      }),
    [pad],
  );
  return figures;
}

function at(values: readonly number[], share: number): number | undefined {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
}

function Figure({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex justify-between gap-4 border-b border-dotted border-line py-1">
      <dt>{name}</dt>
      <dd className="font-mono">{children}</dd>
    </div>
  );
}

/**
 * The measurements of this session's input: dropped events, shortest presses, the evenness of the clock,
 * delays.
 */
export function Figures() {
  const figures = useFigures();
  const rate = useDocument(state => state.kit?.rate ?? 60);
  const ms = (value: number | undefined) =>
    value === undefined ? <span className="text-soft">none yet</span> : `${value.toFixed(1)} ms`;
  const frames = (value: number | undefined) =>
    value === undefined ? "" : ` · ${((value * rate) / 1000).toFixed(1)}f`;
  const { delaysMs, turnsMs } = figures;
  return (
    <section aria-label="Figures" className="min-h-0 grow overflow-auto px-6 py-4">
      <h1 className="font-serif text-2xl">Input delay on this computer</h1>
      <p className="mb-3 text-sm text-soft">
        Measured since the pad was last woken, on this machine, in this browser.
      </p>
      <div className="grid grid-cols-2 gap-8">
        <dl className="text-sm" data-testid="figures">
          <Figure name="Repeats by the system, dropped">{figures.repeatsDropped}</Figure>
          <Figure name="Presses shorter than a frame, kept">{figures.stretched}</Figure>
          <Figure name="Shortest press">
            {ms(figures.shortestPressMs)}
            {frames(figures.shortestPressMs)}
          </Figure>
          <Figure name="Shortest gap between presses">
            {ms(figures.shortestGapMs)}
            {frames(figures.shortestGapMs)}
          </Figure>
          <Figure name="One screen refresh, median">{ms(at(turnsMs, 0.5))}</Figure>
          <Figure name="Slowest of twenty refreshes">{ms(at(turnsMs, 0.95))}</Figure>
          {figures.readsMs.length > 0 && (
            <>
              <Figure name="Pads are read every">{ms(at(figures.readsMs, 0.5))}</Figure>
              <Figure name="Slowest of twenty reads">{ms(at(figures.readsMs, 0.95))}</Figure>
            </>
          )}
          <Figure name="From event to its frame, median">{ms(at(delaysMs, 0.5))}</Figure>
          <Figure name="To its frame, slowest of twenty">{ms(at(delaysMs, 0.95))}</Figure>
        </dl>
        <div className="text-sm">
          {figures.readsMs.length > 0 && (
            <p className="mb-2 text-soft">
              A gamepad reports no times: a press is placed in the middle of the interval between two reads,
              and a press between two reads is not seen.
            </p>
          )}
          <h2>From an event to the moment its frame was run</h2>
          <Histogram label="From event to frame" values={delaysMs} binWidth={4} bins={13} unit="ms" />
          <h2 className="mt-3">From one screen refresh to the next</h2>
          <Histogram label="Turns of the screen" values={turnsMs} binWidth={2} bins={20} unit="ms" />
        </div>
      </div>
    </section>
  );
}
