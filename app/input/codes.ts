import * as core from "#core";
import { keyLabels } from "./keyLabels";

const labelOf = (key: string) => keyLabels.getState().get(key);

/** Returns the name of a code; keys are named by the user's keyboard layout if the browser provides it. */
export function formatCode(code: string): string {
  return core.formatCode(code, labelOf);
}

/** Returns the names of a binding's codes, joined by "+". */
export function formatBinding(binding: readonly string[]): string {
  return core.formatBinding(binding, labelOf);
}
