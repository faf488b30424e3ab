import type { Kit } from "#core";
import { element } from "./elements";
import { listRounds } from "./lists";
import type { Rounds } from "./rounds";

/** The dependencies of saving. */
interface SavingWorld {
  readonly rounds: Rounds;
  readonly save: (name: string, text: string) => void;
}

function saveWords(sent: number): string {
  if (sent === 0) return "Save the rounds as one file";
  return sent === 1 ? "Save one round as a file" : `Save ${sent} rounds as one file`;
}

/** Returns a valid file name for the rounds. */
function fileName(kit: Kit, player: string): string {
  const name = [kit.name || kit.id, player].filter(Boolean).join(" ");
  const plain = name.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase();
  return `${plain.slice(0, 80)}.takes.json`;
}

/**
 * Sets up the list of rounds: which are included, the file they are saved as, and the same as text in case no
 * file is saved. Returns a function to call when the rounds have changed.
 */
export function openSaving(kit: Kit, { rounds, save }: SavingWorld): () => void {
  const player = element<HTMLInputElement>("player");
  const button = element<HTMLButtonElement>("save");
  const copying = element<HTMLDetailsElement>("copying");
  const toText = () => `${JSON.stringify(rounds.toDocument(player.value))}\n`;
  const writeText = () => {
    element<HTMLTextAreaElement>("text").value = copying.open ? toText() : "";
  };
  function update(): void {
    const list = rounds.list();
    const sent = list.filter(({ isSent }) => isSent).length;
    listRounds(element("rounds"), rounds, update);
    element("none").hidden = list.length > 0;
    button.disabled = sent === 0;
    button.textContent = saveWords(sent);
    copying.hidden = sent === 0;
    writeText();
  }
  button.addEventListener("click", () => {
    const name = fileName(kit, player.value.trim());
    save(name, toText());
    rounds.saved();
    element("saved").textContent = `Saved as ${name}. Send it back to whoever gave you this page.`;
  });
  copying.addEventListener("toggle", writeText);
  player.addEventListener("input", writeText);
  update();
  return update;
}
