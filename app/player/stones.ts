import type { Kit } from "#core";
import { gatesOfStage, type Rules } from "#stage";
import { formatBinding } from "../input/codes";
import { make } from "./elements";
import type { Round } from "./round";

/**
 * Creates a button for each control, held while a finger or the mouse is on it, and one for each manual gate.
 */
export function createControls(
  host: HTMLElement,
  rules: Rules,
  controls: Kit["controls"],
  getRound: () => Round | undefined,
): void {
  const stones = controls.map(({ id, name, bindings }) => {
    const stone = make("button", "stone", name || id) as HTMLButtonElement;
    stone.type = "button";
    stone.dataset.control = id;
    stone.setAttribute("aria-pressed", "false");
    stone.append(make("small", "", bindings[0] ? formatBinding(bindings[0]) : "touch only"));
    const hold = (isDown: boolean) => getRound()?.holdOnScreen(id, isDown);
    stone.addEventListener("pointerdown", event => {
      event.preventDefault();
      stone.setPointerCapture(event.pointerId);
      hold(true);
    });
    for (const end of ["pointerup", "pointercancel", "lostpointercapture"])
      stone.addEventListener(end, () => hold(false));
    stone.addEventListener("contextmenu", event => event.preventDefault());
    return stone;
  });
  const staged = gatesOfStage(rules.kit);
  const byHand = (rules.kit.gates ?? []).filter(({ id }) => !rules.kit.stage && !staged.has(id));
  const gates = byHand.map(({ id, name }) => {
    const stone = make("button", "stone gate", name || id) as HTMLButtonElement;
    stone.type = "button";
    stone.dataset.gate = id;
    stone.append(make("small", "", "gate"));
    stone.addEventListener("click", () => {
      getRound()?.turnGate(id);
      stone.blur();
    });
    return stone;
  });
  host.replaceChildren(...stones, ...gates);
}

/** Updates the buttons to show what is held and which gates are open. */
export function updateControls(host: HTMLElement, round: Round | undefined): void {
  for (const stone of host.querySelectorAll<HTMLElement>(".stone")) {
    const { control, gate } = stone.dataset;
    const at = round?.session.program.gates.findIndex(({ id }) => id === gate) ?? -1;
    const isOn =
      round !== undefined &&
      (control !== undefined ? round.isHeld(control) : at >= 0 && round.session.state.gateOpen[at] === 1);
    stone.setAttribute("aria-pressed", String(isOn));
    if (gate !== undefined) stone.lastElementChild!.textContent = `gate, ${isOn ? "open" : "closed"}`;
  }
}
