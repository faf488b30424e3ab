import { useCallback, useEffect, useRef, useState } from "react";
import { writeSwept, type Kit, type Swept } from "#core";
import { useWorkbench } from "../../document/workbenchContext";

/** A number set to a value. */
export interface SetNumber {
  readonly swept: Swept;
  readonly value: number;
}

/** A value being tried: the kit has it and the tape shows its effect, until it is kept or discarded. */
export interface Trying {
  readonly value: number | undefined;
  /** The kit before. */
  readonly before: Kit | undefined;
  /** `besides`: other numbers set at the same time. */
  readonly tryValue: (swept: Swept, value: number, name: string, besides?: readonly SetNumber[]) => void;
  readonly keep: () => void;
  readonly letGo: () => void;
}

/**
 * Tries values of a number on the open kit, like a drag: a kept value is one step of undo, a discarded one
 * leaves nothing.
 */
export function useTrying(): Trying {
  const workbench = useWorkbench();
  const step = useRef<ReturnType<typeof workbench.beginStep> | undefined>(undefined);
  const [state, setState] = useState<{ value: number; before: Kit } | undefined>();
  const end = useCallback((way: "end" | "cancel") => {
    step.current?.[way]();
    step.current = undefined;
    setState(undefined);
  }, []);
  useEffect(() => () => step.current?.cancel(), []);
  const tryValue: Trying["tryValue"] = (swept, value, name, besides = []) => {
    const { kit } = workbench.getState();
    const before = state?.before ?? kit;
    if (!kit || !before || !workbench.mayEdit()) return;
    step.current ??= workbench.beginStep(() => {
      step.current = undefined;
      setState(undefined);
    });
    // A group is scaled from its original lengths; a number is set absolutely.
    step.current.run(() =>
      workbench.editKit(`${name}: ${value}`, now =>
        [{ swept, value }, ...besides].reduce<Kit>(
          (kit, own) => writeSwept(own.swept.kind === "group" ? before : kit, own.swept, own.value) ?? kit,
          now,
        ),
      ),
    );
    setState({ value, before });
  };
  return {
    value: state?.value,
    before: state?.before,
    tryValue,
    keep: () => end("end"),
    letGo: () => end("cancel"),
  };
}
