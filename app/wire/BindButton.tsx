import { useEffect, useRef, useState } from "react";
import type { Control } from "#core";
import { isOfBench, warnOfBinding } from "../input/browserKeys";
import { captureBinding, type Captured } from "../input/capture";
import { formatBinding } from "../input/codes";
import { bindControl } from "../edits/controlEdits";
import { Button } from "../ui/Button";
import { usePad } from "../input/context";
import { useWorkbench } from "../document/workbenchContext";
import type { Workbench } from "../document/workbench";

/** Replaces a control's bindings; one step of undo. */
export function setBindings(
  workbench: Workbench,
  control: Control,
  bindings: readonly (readonly string[])[],
): void {
  workbench.editKit(`bound ${control.name}`, kit => bindControl(kit, control.id, bindings));
}

function isSame(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every(code => b.includes(code));
}

/**
 * Returns a remark on a new binding: it exists already, another control has it, or the browser reserves it.
 */
function wordOn(codes: readonly string[], control: Control, others: readonly Control[]): string {
  const written = formatBinding(codes);
  if (control.bindings.some(binding => isSame(binding, codes))) return `${written} already plays this`;
  const other = others.find(item => item.bindings.some(binding => isSame(binding, codes)));
  const kept = warnOfBinding(codes);
  return [other && `${written} plays ${other.name} too`, kept && `${written}: ${kept}`]
    .filter(Boolean)
    .join("; ");
}

/** Waits for a key, pad button, half-axis, pointer button, or several held together, and binds it. */
export function BindButton({ control, others }: { control: Control; others: readonly Control[] }) {
  const workbench = useWorkbench();
  const pad = usePad();
  const [isWaiting, setWaiting] = useState(false);
  const [word, setWord] = useState("");
  const zone = useRef<HTMLSpanElement>(null);
  const answer = useRef<(captured: Captured) => void>(undefined);
  useEffect(() => {
    answer.current = captured => {
      setWaiting(false);
      if (captured.kind === "leave") return setWord("");
      if (captured.kind === "clear") {
        setWord("");
        return setBindings(workbench, control, []);
      }
      setWord(wordOn(captured.codes, control, others));
      if (isOfBench(captured.codes)) return;
      if (!control.bindings.some(binding => isSame(binding, captured.codes)))
        setBindings(workbench, control, [...control.bindings, captured.codes]);
    };
  });
  useEffect(() => {
    if (!isWaiting || !zone.current) return;
    return captureBinding(zone.current, captured => answer.current?.(captured), pad.maps.read);
  }, [isWaiting, pad]);
  return (
    <span ref={zone} className="inline-flex flex-wrap items-center gap-2">
      <Button
        aria-label={isWaiting ? undefined : `Bind by pressing: ${control.name}`}
        className={`px-2.5! py-1! ${isWaiting ? "border-moss" : ""}`}
        onClick={() => {
          if (isWaiting) return;
          pad.sleep();
          setWord("");
          setWaiting(true);
        }}
      >
        {isWaiting ? "Press a key or button, or click or scroll here … Esc leaves, Backspace clears" : "Bind"}
      </Button>
      {word && (
        <span className="text-sm text-foxglove" role="status">
          {word}
        </span>
      )}
    </span>
  );
}
