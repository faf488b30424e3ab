import { useEffect, useState } from "react";
import { writeAt, type Control } from "#core";
import { formatBinding, formatCode } from "../devices/codes";
import { sleepPad } from "../devices/pad";
import { usePad } from "../devices/usePad";
import { addControl, bindControl } from "../store/edits";
import { editKit } from "../store/workbench";
import { useWorkbench } from "../store/useWorkbench";
import { Button } from "../ui/Button";
import { useHeldFrames } from "./ControlPad";

/** Waits for the next key or pointer button and gives its code; Escape leaves. */
function useCapture(isWaiting: boolean, onCode: (code: string | undefined) => void): void {
  useEffect(() => {
    if (!isWaiting) return;
    const onKey = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      onCode(event.code === "Escape" ? undefined : `key:${event.code}`);
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  });
}

function ControlRow({ control, others }: { control: Control; others: readonly Control[] }) {
  const [isWaiting, setWaiting] = useState(false);
  const [word, setWord] = useState("");
  const heldFrames = useHeldFrames(control.id);
  const isDown = heldFrames > 0;
  const setBindings = (bindings: readonly (readonly string[])[]) =>
    editKit(`bound ${control.name}`, kit => bindControl(kit, control.id, bindings));
  useCapture(isWaiting, code => {
    setWaiting(false);
    if (code === undefined) return setWord("");
    if (control.bindings.some(binding => binding.length === 1 && binding[0] === code))
      return setWord(`${formatCode(code)} already plays this`);
    const other = others.find(item =>
      item.bindings.some(binding => binding.length === 1 && binding[0] === code),
    );
    setWord(other ? `${formatCode(code)} plays ${other.name} too` : "");
    setBindings([...control.bindings, [code]]);
  });
  return (
    <li className="flex items-center gap-4 border-b border-line py-2.5">
      <svg aria-hidden width="30" height="24" viewBox="0 0 30 24">
        <ellipse
          cx="15"
          cy="12"
          rx="12"
          ry="9"
          strokeWidth="2"
          className={isDown ? "fill-bark stroke-bark" : "fill-leaf stroke-soft"}
        />
      </svg>
      <input
        aria-label={`Name of ${control.name}`}
        className="w-32 shrink-0 rounded bg-transparent px-1 py-0.5 font-semibold focus:bg-leaf"
        defaultValue={control.name}
        key={control.name}
        onBlur={event => {
          const name = event.target.value.trim();
          if (name && name !== control.name)
            editKit(`renamed ${name}`, kit =>
              writeAt(
                kit,
                ["controls", kit.controls.findIndex(item => item.id === control.id), "name"],
                name,
              ),
            );
        }}
        onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
      />
      <span className="w-16 shrink-0 font-mono text-sm" data-testid={`held-${control.id}`}>
        {isDown ? `${heldFrames}f` : <span className="text-soft">up</span>}
      </span>
      <ul className="flex grow flex-wrap items-center gap-2">
        {control.bindings.map((binding, b) => (
          <li
            key={binding.join()}
            className="flex items-center rounded-lg border border-line bg-leaf pl-2.5 font-mono text-sm"
          >
            {formatBinding(binding)}
            <button
              type="button"
              aria-label={`Take ${formatBinding(binding)} off ${control.name}`}
              className="px-2 py-1 text-soft hover:text-foxglove"
              onClick={() => setBindings(control.bindings.filter((_, k) => k !== b))}
            >
              ×
            </button>
          </li>
        ))}
        <li>
          <Button
            aria-label={isWaiting ? undefined : `Bind by pressing: ${control.name}`}
            onClick={() => {
              sleepPad();
              setWaiting(!isWaiting);
            }}
          >
            {isWaiting ? "Press a key … (Esc leaves)" : "Bind by pressing"}
          </Button>
        </li>
        {word && (
          <li className="text-sm text-foxglove" role="status">
            {word}
          </li>
        )}
      </ul>
    </li>
  );
}

const DROPPED_WORDS = {
  "": "",
  repeat: "dropped: repeat by the system",
  "not bound": "plays nothing here",
  "focus lost": "focus lost: all let go",
} as const;

function RawLog() {
  const log = usePad(state => state.log);
  const repeats = usePad(state => state.repeatsDropped);
  const isAwake = usePad(state => state.session !== undefined);
  return (
    <section aria-label="Raw events" className="overflow-auto border-l border-line px-5 py-4">
      <h2 className="text-sm font-semibold">What the machine reports</h2>
      <p className="mb-2 text-sm text-soft" data-testid="repeats">
        {isAwake || log.length > 0
          ? `${repeats} repeats dropped`
          : "Wake the pad and press keys: every event is listed, with what was dropped and why."}
      </p>
      <ol className="font-mono text-sm">
        {log.map(event => (
          <li
            key={event.key}
            className="flex justify-between gap-3 border-b border-dotted border-line py-0.5"
          >
            <span>
              {event.isDown ? "▼" : "△"}{" "}
              {event.code === "focus:" ? "window" : formatCode(event.code.replace("screen:", "key:"))}
            </span>
            <span className="text-soft">
              {event.frame >= 0 ? `on ${event.frame}f` : ""} {DROPPED_WORDS[event.dropped]}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Wire: every control with its lamp, how long it is held, what plays it, and what the machine really reports. */
export function WireView() {
  const kit = useWorkbench(state => state.kit);
  if (!kit) return null;
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_340px]">
      <section aria-label="Controls" className="overflow-auto px-7 py-5">
        <h1 className="mb-2 font-serif text-2xl">Every control, and what plays it</h1>
        {kit.controls.length === 0 && (
          <p className="text-soft">No control yet. Add one, then press the key that shall play it.</p>
        )}
        <ul>
          {kit.controls.map(control => (
            <ControlRow
              key={control.id}
              control={control}
              others={kit.controls.filter(item => item !== control)}
            />
          ))}
        </ul>
        <p className="mt-4">
          <Button
            onClick={() =>
              editKit("added a control", now => addControl(now, `Control ${now.controls.length + 1}`))
            }
          >
            Add a control
          </Button>
        </p>
      </section>
      <RawLog />
    </div>
  );
}
