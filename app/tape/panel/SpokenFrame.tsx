import { useEffect, useState } from "react";
import { usePlaybackControl } from "../../document/evaluationContext";
import type { Evaluated } from "../../judging/judge";
import { listFacts } from "../model/frameFacts";
import type { TapeModel } from "../model/tapeRows";

/** The time the playhead must rest on a frame before it is announced. */
const REST_MS = 250;

/**
 * Announces the facts of the playhead's frame in the selected row to screen readers, when it comes to rest.
 */
export function SpokenFrame({
  evaluated,
  model,
  row,
}: {
  evaluated: Evaluated;
  model: TapeModel;
  row: number;
}) {
  const playback = usePlaybackControl();
  const [spoken, setSpoken] = useState("");
  useEffect(() => {
    const speak = () => {
      const { frame } = playback.getState();
      const chosen = model.rows[row];
      if (!chosen) return;
      const facts = listFacts({ ...model, rows: [chosen] }, evaluated.rules, evaluated.trace, frame);
      const words = facts.map(({ fact }) => fact).join("; ") || "nothing";
      setSpoken(`${chosen.name} at ${frame}f: ${words}`);
    };
    let timer = setTimeout(speak, REST_MS);
    const leave = playback.subscribe(({ frame }, before) => {
      if (frame === before.frame) return;
      clearTimeout(timer);
      timer = setTimeout(speak, REST_MS);
    });
    return () => {
      leave();
      clearTimeout(timer);
    };
  }, [evaluated, model, row, playback]);
  return (
    <p role="status" className="sr-only">
      {spoken}
    </p>
  );
}
