import { useState } from "react";
import { evaluateEasing, type Easing } from "#core";
import { Button } from "../ui/Button";
import { formatPoints, readCurve, readPasted, samplePoints } from "./curvePoints";

/** The number of points of a new custom curve. */
const POINTS = 6;

/** The easing functions that CSS names. */
export const PRESETS = [
  { value: "linear", label: "straight line" },
  { value: "ease", label: "ease" },
  { value: "ease-in", label: "ease in" },
  { value: "ease-out", label: "ease out" },
  { value: "ease-in-out", label: "ease in and out" },
];

/** The source of a curve: a named one, custom points, or a pasted CSS easing function. */
export function CurveChoices({
  css,
  easing,
  onChoose,
}: {
  css: string;
  easing: Easing;
  onChoose: (css: string) => void;
}) {
  const [pasted, setPasted] = useState("");
  const [trouble, setTrouble] = useState("");
  const hasPoints = readCurve(easing).kind === "points";
  const takePoints = () =>
    onChoose(formatPoints(samplePoints(ratio => evaluateEasing(easing, ratio), POINTS)));
  const paste = () => {
    const read = readPasted(pasted);
    if (!read.ok) return setTrouble(read.reason);
    setTrouble("");
    setPasted("");
    onChoose(read.css);
  };
  return (
    <>
      <p className="mt-2 flex flex-wrap gap-1">
        {PRESETS.map(preset => (
          <Button
            key={preset.value}
            aria-pressed={css === preset.value}
            onClick={() => onChoose(preset.value)}
          >
            {preset.label}
          </Button>
        ))}
        {!hasPoints && <Button onClick={takePoints}>points of my own</Button>}
      </p>
      {hasPoints && (
        <p className="mt-1 text-soft">Double-click adds a point, Delete takes the focused one away.</p>
      )}
      <p className="mt-2 flex gap-2">
        <input
          aria-label="Paste a CSS easing function"
          placeholder="cubic-bezier(…) or linear(…)"
          className="min-w-0 grow rounded-lg border border-edge bg-leaf px-2 py-1 font-mono"
          value={pasted}
          onChange={event => setPasted(event.target.value)}
          onKeyDown={event => event.key === "Enter" && paste()}
        />
        <Button onClick={paste} disabled={pasted.trim() === ""}>
          Take it
        </Button>
      </p>
      {trouble && (
        <p role="alert" className="text-foxglove">
          {trouble}
        </p>
      )}
      <p className="mt-1 font-mono text-xs break-all text-soft">{css}</p>
    </>
  );
}
