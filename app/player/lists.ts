import { listHeard } from "../scene/listHeard";
import { make } from "./elements";
import type { Round } from "./round";
import type { Rounds } from "./rounds";

const anything = () => true;

/** Seconds as "1:05". */
export function clockWords(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** The last things that were understood, newest first. */
export function tellHeard(host: HTMLElement, session: Round["session"]): void {
  const lines = listHeard(session.rules, session.trace, session.trace.count, anything);
  host.replaceChildren(
    ...lines.map(({ name, words, frame, isLoss }) => {
      const line = make("li", isLoss ? "loss" : "");
      line.append(make("span", "", `${name} ${words}`), make("span", "number", `${frame}f`));
      return line;
    }),
  );
}

/** Lists the rounds that were played, each with whether it is sent. */
export function listRounds(host: HTMLElement, rounds: Rounds, onChange: () => void): void {
  host.replaceChildren(
    ...rounds.list().map(({ take, isSent }) => {
      const line = make("li", "");
      const label = make("label", "");
      const box = Object.assign(document.createElement("input"), { type: "checkbox", checked: isSent });
      box.addEventListener("change", () => {
        rounds.setSent(take.id, box.checked);
        onChange();
      });
      const words = [clockWords(take.frames / take.rate), take.device].filter(Boolean).join(", by ");
      label.append(box, make("span", "", take.name), make("span", "number", words));
      line.append(label);
      return line;
    }),
  );
}
