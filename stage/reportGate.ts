import { stageGate, type State } from "#core";

/** Opens or closes a gate of the bodies in the core, if it is not so already. `gate` is its index in the program, −1 for none. */
export function reportGate(state: State, gate: number, isOpen: boolean): void {
  if (gate >= 0 && (state.staged[gate] === 1) !== isOpen) stageGate(state, gate, isOpen);
}
