import { nanoid } from "nanoid";
import { applyAssist, findAssist, type Kit, type Layout, type Take } from "#core";
import { compileRules, type Rules } from "#stage";
import { applyLayout } from "../edits/layoutEdits";
import { describeCanvas } from "../ui/describeCanvas";
import { element } from "./elements";
import { clockWords, showRecognised } from "./lists";
import { paintPlayed } from "./paintPlayed";
import { beginRound, type Round, type RoundWorld } from "./round";
import type { Rounds } from "./rounds";
import { openSaving } from "./saving";
import { createControls, updateControls } from "./stones";

/** The content of a playable page. */
export interface Played {
  readonly kit: Kit;
  readonly layouts: readonly Layout[];
}

/** The dependencies of the page. */
export interface PlayerWorld extends RoundWorld {
  readonly rounds: Rounds;
  readonly save: (name: string, text: string) => void;
  /** Subscribes to changes of the page's size, colours or fonts. */
  readonly onLooks: (onChange: () => void) => void;
  readonly nextTurn: (run: () => void) => void;
}

/** A round ends automatically after this time and is kept, in seconds. */
const LONGEST_SECONDS = 600;

/** Returns the rules and bindings with an assist applied, or without one. */
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

/** Returns a name for a round that no kept one has. */
function freeName(rounds: Rounds): string {
  const used = new Set(rounds.list().map(({ take }) => take.name));
  let n = rounds.list().length + 1;
  while (used.has(`Round ${n}`)) n++;
  return `Round ${n}`;
}

function showName(name: string): void {
  element("title").textContent = name;
  const label = `The stage of ${name}. The recognised inputs are listed beside it.`;
  element("stage").setAttribute("aria-label", label);
}

function refuse(): void {
  element("refused").hidden = false;
  element("refused").textContent =
    "The rules on this page have faults and cannot be played. Ask for a new page.";
  element<HTMLButtonElement>("turn").disabled = true;
}

/** Starts the page: rounds of a kit, kept and saved. Requires the markup of player.html. */
export function openPlayerPage(played: Played, world: PlayerWorld): void {
  const { kit } = played;
  const { rounds } = world;
  const canvas = element<HTMLCanvasElement>("stage");
  const turnButton = element<HTMLButtonElement>("turn");
  const hands = element("hands");
  const assist = element<HTMLSelectElement>("assist");
  const plain = rulesWith(played, "");
  showName(kit.name || kit.id);
  if (!plain) return refuse();
  const showRounds = openSaving(kit, world);
  let now = plain;
  let round: Round | undefined;
  /** The current or last round; the stage keeps showing its end. */
  let shown: Round | undefined;
  let shownCount = -1;
  let isPainted = false;

  function showTurn(): void {
    isPainted = false;
    document.body.classList.toggle("playing", round !== undefined);
    turnButton.textContent = round ? "End the round" : "Begin a round";
    for (const field of [element<HTMLInputElement>("player"), assist]) field.disabled = round !== undefined;
  }
  function keep(take: Take | undefined): void {
    const helping = findAssist(kit, assist.value);
    if (take) rounds.add(helping ? { ...take, note: `played with “${helping.name}” on` } : take);
  }
  function end(): void {
    keep(round?.end({ id: nanoid(8), name: freeName(rounds) }));
    round = undefined;
    showTurn();
    showRounds();
    turnButton.focus({ preventScroll: true });
  }
  function begin(): void {
    shownCount = -1;
    round = shown = beginRound(world, now.rules, now.controls, end);
    turnButton.blur();
    showTurn();
  }
  function showRound({ session }: Round): void {
    const seconds = (session.state.frame + 1) / session.program.rateHz;
    element("clock").textContent = clockWords(seconds);
    if (shownCount !== session.trace.count) {
      shownCount = session.trace.count;
      showRecognised(element("heard"), session);
    }
    if (seconds >= LONGEST_SECONDS) end();
  }
  function turn(): void {
    round?.turn();
    if (round || !isPainted) {
      isPainted = true;
      paintPlayed(canvas, now.rules, shown);
      updateControls(hands, round);
    }
    if (round) showRound(round);
    world.nextTurn(turn);
  }
  function layHands(): void {
    createControls(hands, now.rules, now.controls, () => round);
    isPainted = false;
  }

  describeCanvas(canvas, () => ({ frame: shown?.session.state.frame ?? -1 }));
  turnButton.addEventListener("click", () => (round ? end() : begin()));
  if (kit.assists?.length) {
    element("helping").hidden = false;
    assist.append(new Option("none", ""), ...kit.assists.map(({ id, name }) => new Option(name || id, id)));
    assist.addEventListener("change", () => {
      now = rulesWith(played, assist.value) ?? plain;
      shown = undefined;
      layHands();
    });
  }
  window.addEventListener("beforeunload", event => {
    if (round || rounds.isUnsaved()) event.preventDefault();
  });
  world.onLooks(() => (isPainted = false));
  layHands();
  showTurn();
  turn();
}
