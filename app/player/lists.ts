import { listRecognised } from "../scene/listRecognised";
import { make } from "./elements";
import type { Round } from "./round";
import type { KeptRound, Rounds } from "./rounds";

const anything = () => true;

/** Formats seconds as "1:05". */
export function clockWords(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** Lists the last recognised events, newest first. */
export function showRecognised(host: HTMLElement, session: Round["session"]): void {
  const lines = listRecognised(session.rules, session.trace, session.trace.count, anything);
  host.replaceChildren(
    ...lines.map(({ name, words, frame, isLoss }) => {
      const line = make("li", isLoss ? "loss" : "");
      line.append(make("span", "", `${name} ${words}`), make("span", "number", `${frame}f`));
      return line;
    }),
  );
}

/** Creates the checkbox that includes a round in the file. */
function makeBox(rounds: Rounds, { take, isSent }: KeptRound, onChange: () => void): HTMLElement {
  const box = Object.assign(document.createElement("input"), { type: "checkbox", checked: isSent });
  box.setAttribute("aria-label", `Send ${take.name}`);
  box.addEventListener("change", () => {
    rounds.setSent(take.id, box.checked);
    onChange();
  });
  return box;
}

/** Creates the editable name of a round. */
function makeName(rounds: Rounds, { take }: KeptRound, onChange: () => void): HTMLElement {
  const name = Object.assign(document.createElement("input"), { value: take.name, maxLength: 60 });
  name.className = "name";
  name.setAttribute("aria-label", `Name of ${take.name}`);
  name.addEventListener("change", () => {
    rounds.rename(take.id, name.value);
    onChange();
  });
  return name;
}

/** Lists the played rounds, each with its name and whether it is included. */
export function listRounds(host: HTMLElement, rounds: Rounds, onChange: () => void): void {
  host.replaceChildren(
    ...rounds.list().map(round => {
      const { take } = round;
      const line = make("li", "");
      const words = [clockWords(take.frames / take.rate), take.device].filter(Boolean).join(", by ");
      line.append(
        makeBox(rounds, round, onChange),
        makeName(rounds, round, onChange),
        make("span", "number", words),
      );
      return line;
    }),
  );
}
