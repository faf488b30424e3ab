import { nanoid } from "nanoid";
import { applyAssist, findAssist, type Kit, type Layout, type Take } from "#core";
import { compileRules, gatesOfStage, type Rules } from "#stage";
import { applyLayout } from "../edits/edits";
import { formatBinding } from "../input/codes";
import { listHeard } from "../scene/listHeard";
import { paintBare } from "../scene/paintBare";
import { paintOutcome, paintPrompt, promptNow } from "../scene/paintPrompt";
import { onStage, shownAtRest, shownOfSession } from "../scene/scene";
import { STAGE_PAINTERS } from "../scene/stagePainters";
import { readPalette } from "../ui/palette";
import { beginRound, type Round, type RoundWorld } from "./round";
import type { Rounds } from "./rounds";

/** What a playable page plays. */
export interface Played {
  readonly kit: Kit;
  readonly layouts: readonly Layout[];
}

/** What the page stands on. */
export interface PlayerWorld extends RoundWorld {
  readonly rounds: Rounds;
  readonly save: (name: string, text: string) => void;
  readonly nextTurn: (run: () => void) => void;
}

/** A round ends by itself after so long, and is kept. Seconds. */
const LONGEST_SECONDS = 600;
const HELPS = { meters: true, memory: true, arcs: false };
const PROMPT_Y = 74;
const anything = () => true;

function element<T extends HTMLElement>(id: string): T {
  return document.getElementById(id) as T;
}

function make(tag: string, looks: string, text = ""): HTMLElement {
  const made = document.createElement(tag);
  made.className = looks;
  made.textContent = text;
  return made;
}

/** Seconds as "1:05". */
export function clockWords(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** The rules and bindings that are played with an assist on, or without one. */
function rulesWith(
  { kit, layouts }: Played,
  assistId: string,
): { rules: Rules; controls: Kit["controls"] } | undefined {
  const assist = findAssist(kit, assistId);
  const compiled = compileRules(assist ? applyAssist(kit, assist) : kit);
  if (!compiled.ok) return undefined;
  const layout = layouts.find(({ id }) => id === assist?.layout);
  return { rules: compiled.value, controls: (layout ? applyLayout(kit, layout) : kit).controls };
}

/** Sets a canvas to its box on the screen; gives what to paint on, in CSS px. */
function readyCanvas(canvas: HTMLCanvasElement) {
  const ctx = canvas.getContext("2d", { alpha: false });
  const { width, height } = canvas.getBoundingClientRect();
  if (!ctx || width === 0) return undefined;
  const ratio = window.devicePixelRatio || 1;
  const wide = Math.round(width * ratio);
  const tall = Math.round(height * ratio);
  if (canvas.width !== wide || canvas.height !== tall) Object.assign(canvas, { width: wide, height: tall });
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  const palette = readPalette(canvas);
  ctx.fillStyle = palette.leaf;
  ctx.fillRect(0, 0, width, height);
  return { ctx, palette, width, height };
}

/** Paints the kit as it stands: its stage or its meters, and over them the prompt that is shown. */
function paint(canvas: HTMLCanvasElement, rules: Rules, round: Round | undefined): void {
  const ready = readyCanvas(canvas);
  if (!ready) return;
  const { ctx, palette, width, height } = ready;
  const inHand = round?.inHand() ?? "key";
  const shown = round ? shownOfSession(round.session, inHand) : shownAtRest(rules, inHand);
  const scene = onStage(rules, shown);
  canvas.dataset.frame = String(round?.session.state.frame ?? -1);
  if (scene) {
    const picture = { ctx, palette, scene, width, height, helps: HELPS, cursor: undefined };
    STAGE_PAINTERS[scene.stage.kind](picture);
  } else paintBare(ctx, palette, shown, width, height);
  if (scene?.stage.kind === "ropes") return;
  const now = promptNow(shown);
  if (now) paintPrompt(ctx, palette, shown, now, width, PROMPT_Y);
  else paintOutcome(ctx, palette, shown, width / 2, PROMPT_Y);
}

/** Lays out a button for each control, held while a finger or the mouse is on it, and one for each gate that hands hold. */
function layStones(
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
    for (const end of ["pointerup", "pointercancel"]) stone.addEventListener(end, () => hold(false));
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

/** Shows on the stones what is held, and which gates are open. */
function tellStones(host: HTMLElement, round: Round | undefined): void {
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

/** The last things that were understood, newest first. */
function tellHeard(host: HTMLElement, { session }: Round): void {
  const lines = listHeard(session.rules, session.trace, session.trace.count, anything);
  host.replaceChildren(
    ...lines.map(({ name, words, frame, isLoss }) => {
      const line = make("li", isLoss ? "loss" : "");
      line.append(make("span", "", `${name} ${words}`), make("span", "number", `${frame}f`));
      return line;
    }),
  );
}

function listRounds(host: HTMLElement, rounds: Rounds, onChange: () => void): void {
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

/** A name for a round that no kept one has. */
function freeName(rounds: Rounds): string {
  const used = new Set(rounds.list().map(({ take }) => take.name));
  let n = rounds.list().length + 1;
  while (used.has(`Round ${n}`)) n++;
  return `Round ${n}`;
}

/** Puts the page to work: rounds of a kit, kept and saved. The markup is that of player.html. */
export function openPlayerPage(played: Played, world: PlayerWorld): void {
  const { kit } = played;
  const { rounds } = world;
  const canvas = element<HTMLCanvasElement>("stage");
  const turnButton = element<HTMLButtonElement>("turn");
  const saveButton = element<HTMLButtonElement>("save");
  const hands = element("hands");
  const player = element<HTMLInputElement>("player");
  const assist = element<HTMLSelectElement>("assist");
  const plain = rulesWith(played, "");
  element("title").textContent = kit.name || kit.id;
  canvas.setAttribute(
    "aria-label",
    `The stage of ${kit.name || kit.id}. What was understood stands beside it in words.`,
  );
  if (!plain) {
    element("refused").hidden = false;
    element("refused").textContent =
      "The rules on this page have faults and cannot be played. Ask for a new page.";
    turnButton.disabled = true;
    return;
  }
  let now = plain;
  let round: Round | undefined;
  /** The round that was played last, or is being played: the stage stands as it ended. */
  let shown: Round | undefined;
  let heard = -1;

  function tellRounds(): void {
    const list = rounds.list();
    const sent = list.filter(({ isSent }) => isSent).length;
    listRounds(element("rounds"), rounds, tellRounds);
    element("none").hidden = list.length > 0;
    saveButton.disabled = sent === 0;
    saveButton.textContent =
      sent === 0
        ? "Save the rounds as one file"
        : sent === 1
          ? "Save one round as a file"
          : `Save ${sent} rounds as one file`;
    element("copying").hidden = sent === 0;
    writeText();
  }
  function toText(): string {
    return `${JSON.stringify(rounds.toDocument(player.value))}\n`;
  }
  function writeText(): void {
    const copying = element<HTMLDetailsElement>("copying");
    element<HTMLTextAreaElement>("text").value = copying.open ? toText() : "";
  }
  function tellTurn(): void {
    document.body.classList.toggle("playing", round !== undefined);
    turnButton.textContent = round ? "End the round" : "Begin a round";
    for (const field of [player, assist]) field.disabled = round !== undefined;
  }
  function keep(take: Take | undefined): void {
    const helping = findAssist(kit, assist.value);
    if (take) rounds.add(helping ? { ...take, note: `played with “${helping.name}” on` } : take);
  }
  function end(): void {
    keep(round?.end({ id: nanoid(8), name: freeName(rounds) }));
    round = undefined;
    tellTurn();
    tellRounds();
    turnButton.focus({ preventScroll: true });
  }
  function begin(): void {
    heard = -1;
    round = shown = beginRound(world, now.rules, now.controls, end);
    turnButton.blur();
    tellTurn();
  }
  function turn(): void {
    round?.turn();
    paint(canvas, now.rules, shown);
    tellStones(hands, round);
    const session = round?.session;
    const seconds = session ? (session.state.frame + 1) / session.program.rateHz : 0;
    element("clock").textContent = round ? clockWords(seconds) : "";
    if (round && heard !== round.session.trace.count) {
      heard = round.session.trace.count;
      tellHeard(element("heard"), round);
    }
    if (seconds >= LONGEST_SECONDS) end();
    world.nextTurn(turn);
  }

  turnButton.addEventListener("click", () => (round ? end() : begin()));
  saveButton.addEventListener("click", () => {
    const name = [kit.name || kit.id, player.value.trim()].filter(Boolean).join(" ");
    const file = `${name
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .toLowerCase()
      .slice(0, 80)}.takes.json`;
    world.save(file, toText());
    rounds.saved();
    element("saved").textContent = `Saved as ${file}. Send it back to whoever gave you this page.`;
  });
  element("copying").addEventListener("toggle", writeText);
  player.addEventListener("input", writeText);
  if (kit.assists?.length) {
    element("helping").hidden = false;
    assist.append(new Option("none", ""), ...kit.assists.map(({ id, name }) => new Option(name || id, id)));
    assist.addEventListener("change", () => {
      now = rulesWith(played, assist.value) ?? plain;
      shown = undefined;
      layStones(hands, now.rules, now.controls, () => round);
    });
  }
  window.addEventListener("beforeunload", event => {
    if (round || rounds.isUnsaved()) event.preventDefault();
  });
  layStones(hands, now.rules, now.controls, () => round);
  tellTurn();
  tellRounds();
  turn();
}
