import type { Kit } from "../kit/schema";
import type { Program } from "../run/program";
import { LOSS_REASONS, type Trace, GATE } from "../trace/trace";
import { gateName as nameOfGate } from "../kit/names";
import { lapseWords } from "./reasonWords";
import type { Difference } from "./diffTraces";
import type { Fate, Loss } from "./fates";
import type { NearestMiss } from "./nearestMiss";

/** A kit and the program it was compiled to. */
export interface RulesRead {
  readonly kit: Kit;
  readonly program: Program;
}

function nameOf(
  list: readonly { readonly id: string; readonly name: string }[] | undefined,
  index: number,
): string {
  const item = list?.[index];
  return item ? item.name || item.id : "?";
}

function gateName(kit: Kit, program: Program, gate: number): string {
  return nameOfGate(kit, program.gates[gate]!.id);
}

/** The frame on which a gate next opens after a frame, or −1. */
function nextOpening(trace: Trace, gate: number, after: number): number {
  for (let i = 0; i < trace.count; i++) {
    if (
      trace.frame[i]! > after &&
      trace.kind[i] === GATE &&
      trace.subject[i] === gate &&
      trace.payload[trace.at[i]!] === 1
    )
      return trace.frame[i]!;
  }
  return -1;
}

function whyLost(kit: Kit, program: Program, trace: Trace, loss: Loss): string {
  const move = nameOf(kit.moves, loss.move);
  switch (LOSS_REASONS[loss.reason]!) {
    case "gate": {
      const gate = gateName(kit, program, loss.gate);
      const opens = nextOpening(trace, loss.gate, loss.frame);
      if (opens < 0) return `${gate} was not open for ${move}`;
      return `${gate} opened at ${opens}, ${opens - loss.frame}f after ${move} forgot it`;
    }
    case "ban":
      return `${gateName(kit, program, loss.gate)} was open, which keeps ${move} from happening`;
    case "cooldown":
      return `${move} was still cooling down`;
    case "uses":
      return `${move} had no use left`;
    case "busy":
      return `another move took the place of ${move}`;
    case "replaced":
      return `a newer press took its place before ${move} could happen`;
    case "beaten":
      return `another move used the same press before ${move}`;
    case "prompt":
      return `a prompt had taken the press`;
    case "mode":
      return `the mode of ${move} was over`;
    case "late":
      return `${move} came due too late`;
  }
}

function howUsed(kit: Kit, fate: Fate): string {
  return fate.uses
    .map(use => {
      if (use.kind === "prompt") return `answered ${nameOf(kit.prompts, use.index)}`;
      const waited = use.frame - use.made;
      const after = use.made > fate.frame ? `, ${use.made - fate.frame}f after the press` : "";
      const how =
        ["", `, remembered ${waited}f`, ", forgiven", `, remembered ${waited}f and forgiven`][use.by] ?? "";
      return `became ${nameOf(kit.moves, use.index)} at ${use.frame}${after}${how}`;
    })
    .join(", and ");
}

/** What became of one press, as a plain sentence with its frames. The same words everywhere. */
export function formatFate({ kit, program }: RulesRead, trace: Trace, fate: Fate): string {
  const press = `${nameOf(kit.controls, fate.control)} at ${fate.frame}`;
  switch (fate.outcome) {
    case "used":
      return `${press} ${howUsed(kit, fate)}.`;
    case "lost":
      return `${press} was lost: ${whyLost(kit, program, trace, fate.losses.at(-1)!)}.`;
    case "fired":
      return `${press} fired ${[...new Set(fate.fires.map(fire => nameOf(kit.patterns, fire.pattern)))].join(" and ")}; no move or prompt waits for it.`;
    case "lapsed": {
      const parts = fate.lapses.map(
        lapse =>
          `${nameOf(kit.patterns, lapse.pattern)} lapsed at ${lapse.frame}: ${lapseWords(lapse.reason)}`,
      );
      return `${press} came to nothing. ${[...new Set(parts)].join("; ")}.`;
    }
    case "unheard":
      return `${press} was heard by nothing.`;
  }
}

/** The words for a number of the kit, by the last field of its path. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  buffer: "Remember for",
  coyote: "Forgive for",
  max: "Allow",
  for: "Hold for",
  min: "Charge from",
  full: "Full at",
  gap: "Allow a gap of",
  spread: "Allow a spread of",
  total: "Allow in all",
  limit: "Allow up to",
  cooldown: "Cool down for",
  defer: "Wait only",
  spentFor: "Spend for only",
};

/** What else a change alters, counted: "nothing else changes", "also 1 hop more, 2 later". */
export function formatDifferences(differences: readonly Difference[]): string {
  if (differences.length === 0) return "nothing else changes";
  const count = (what: Difference["what"], kind: Difference["kind"]) =>
    differences.filter(d => d.what === what && d.kind === kind).length;
  const parts = [
    [count("new", "performed"), "performed more"],
    [count("gone", "performed"), "performed no more"],
    [count("moved", "performed"), "performed at another time"],
    [count("new", "lost"), "lost more"],
    [count("gone", "lost"), "lost no more"],
    [count("moved", "lost"), "forgotten at another time"],
    [count("new", "prompt") + count("gone", "prompt") + count("moved", "prompt"), "changes in prompts"],
  ] as const;
  return `also ${parts
    .filter(([n]) => n > 0)
    .map(([n, words]) => `${n} ${words}`)
    .join(", ")}`;
}

/** The change that would have saved a press, as an offer: "Remember for 9f instead of 6f: nothing else changes". */
export function formatNearestMiss(miss: NearestMiss): string {
  const field = String(miss.path.findLast(step => typeof step === "string"));
  return `${FIELD_WORDS[field] ?? field} ${miss.to} instead of ${miss.from}: ${formatDifferences(miss.alsoChanges)}`;
}
