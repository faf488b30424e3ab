import type { Kit } from "../kit/schema";
import type { Program } from "../program/program";
import { nextOpening } from "../trace/gateTurns";
import { notes } from "../trace/noteKinds";
import { lapseWords } from "../trace/reasonWords";
import {
  FAILURES,
  firstNoteAfter,
  LAPSE_REASONS,
  LOSS_REASONS,
  PERFORMED_BY,
  type Trace,
} from "../trace/trace";
import { clockOfTrace } from "../time/takeClock";
import { dueFrame } from "./dueFrame";
import { joinNames } from "../formats/words";
import { gateName as nameOfGate } from "../kit/names";
import { explainingLosses, type Fate, type Loss, type Use } from "./outcomes/fate";

/** A kit and the program compiled from it. */
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

/** Returns the name of the move that spent a gate on a frame. */
function spenderOf(kit: Kit, program: Program, trace: Trace, gate: number, frame: number): string {
  for (let i = firstNoteAfter(trace, frame - 1); i < trace.count && trace.frame[i] === frame; i++) {
    if (trace.kind[i] === notes.performed.code && program.moves[trace.subject[i]!]!.spends.includes(gate))
      return nameOf(kit.moves, trace.subject[i]!);
  }
  return "a move";
}

function whyNotOpen(kit: Kit, program: Program, trace: Trace, loss: Loss): string {
  const gate = gateName(kit, program, loss.because);
  const move = nameOf(kit.moves, loss.move);
  if (loss.spentAt >= 0) {
    const spender = spenderOf(kit, program, trace, loss.because, loss.spentAt);
    return `${gate} was open, but ${spender} had spent it at ${loss.spentAt}, and ${move} needs it`;
  }
  const opens = nextOpening(trace, loss.because, loss.frame);
  if (opens === undefined) return `${gate} was not open for ${move}`;
  return `${gate} opened at ${opens}, ${opens - loss.frame}f after the buffer of ${move} ran out`;
}

function whyLost(kit: Kit, program: Program, trace: Trace, loss: Loss): string {
  const move = nameOf(kit.moves, loss.move);
  const other = nameOf(kit.moves, loss.because);
  const newer = other === move ? `a newer ${other}` : other;
  switch (LOSS_REASONS[loss.reason]!) {
    case "gate":
      return whyNotOpen(kit, program, trace, loss);
    case "ban":
      return `${gateName(kit, program, loss.because)} was open, which keeps ${move} from happening`;
    case "cooldown":
      return `${move} was still cooling down`;
    case "uses":
      return `${move} had no use left`;
    case "busy":
      return `${newer} took the place of ${move} at ${loss.frame}`;
    case "replaced":
      return `${newer}, asked for at ${loss.frame}, took the place of ${move}`;
    case "beaten":
      return `${other} used the same press before ${move}`;
    case "prompt":
      return `a prompt had taken the press from ${move}`;
    case "mode":
      return `the mode of ${move} was over`;
    case "late":
      return `${move} came due too late`;
  }
}

/** Formats why a press was lost, once per move; omits replaced requests if others give more information. */
function whyAllLost(kit: Kit, program: Program, trace: Trace, fate: Fate): string {
  const last = new Map(explainingLosses(fate).map(loss => [loss.move, loss]));
  return [...last.values()].map(loss => whyLost(kit, program, trace, loss)).join("; ");
}

/** Formats what hid a press from other rules, as the end of a sentence. */
function keptWords(kit: Kit, fate: Fate): string {
  if (!fate.kept) return "";
  const { kind, index } = fate.kept;
  const keeper = nameOf(kind === "prompt" ? kit.prompts : kit.patterns, index);
  const control = nameOf(kit.controls, fate.control);
  return `${keeper} keeps ${control} from all other rules${kind === "prompt" ? " while its window is open" : ""}`;
}

/** Formats the waits of a used press, as the end of a sentence: to be sure, by buffer, by coyote. */
function formatWaits(program: Program, trace: Trace, use: Use): string {
  const { index, made, frame, by } = use;
  const move = program.moves[index]!;
  const due = move.deferTicks === 0 ? made : dueFrame(clockOfTrace(trace), move, use);
  const way = PERFORMED_BY[by]!;
  const waits = [
    ...(due > made ? [`after ${due - made}f to be sure`] : []),
    ...(way === "buffer" || way === "both" ? [`by buffer after ${frame - due}f`] : []),
    ...(way === "coyote" || way === "both" ? ["by coyote"] : []),
  ];
  return waits.length > 0 ? `, ${joinNames(waits)}` : "";
}

function howUsed(kit: Kit, program: Program, trace: Trace, fate: Fate): string {
  return fate.uses
    .map(use => {
      if (use.kind === "prompt") return `answered ${nameOf(kit.prompts, use.index)}`;
      const after = use.made > fate.frame ? `, ${use.made - fate.frame}f after the press` : "";
      return `became ${nameOf(kit.moves, use.index)} at ${use.frame}${after}${formatWaits(program, trace, use)}`;
    })
    .join(", and ");
}

/** The words for how a press ended a rule of a name, by reason. */
const ENDED_BY: Readonly<Record<string, (name: string) => string>> = {
  cancelled: name => `cancelled ${name}`,
  broken: name => `broke off ${name}`,
  wrong: name => `failed ${name} as the wrong button`,
  "too-early": name => `failed ${name} by coming too early`,
};

/** Formats what a press ended, as words after it; empty if nothing. */
function whatEnded(kit: Kit, { frame: pressed, endings }: Fate): string {
  const words = endings.map(({ kind, index, frame, reason }) => {
    const isPattern = kind === "pattern";
    const why = isPattern ? LAPSE_REASONS[reason]! : FAILURES[reason]!;
    const how = ENDED_BY[why]!(nameOf(isPattern ? kit.patterns : kit.prompts, index));
    return frame === pressed ? how : `${how} at ${frame}`;
  });
  return joinNames([...new Set(words)]);
}

/** Formats the lapses of a press, each pattern with its frame and reason. */
function whyLapsed(kit: Kit, fate: Fate): string[] {
  const parts = fate.lapses.map(
    ({ pattern, frame, reason }) =>
      `${nameOf(kit.patterns, pattern)} lapsed at ${frame}: ${lapseWords(reason)}`,
  );
  return [...new Set(parts)];
}

/** Formats what became of one press, as a sentence with its frames. The same wording is used everywhere. */
export function formatFate({ kit, program }: RulesRead, trace: Trace, fate: Fate): string {
  const press = `${nameOf(kit.controls, fate.control)} at ${fate.frame}`;
  const ended = whatEnded(kit, fate);
  const also = ended && `; it ${ended}`;
  switch (fate.outcome) {
    case "used":
      return `${press} ${howUsed(kit, program, trace, fate)}${also}.`;
    case "lost":
      return `${press} was lost: ${whyAllLost(kit, program, trace, fate)}${also}.`;
    case "fired": {
      const fired = joinNames([...new Set(fate.fires.map(fire => nameOf(kit.patterns, fire.pattern)))]);
      const kept = keptWords(kit, fate) || (ended ? "" : "no move or prompt waits for it");
      return `${press} fired ${fired}${kept && `; ${kept}`}${also}.`;
    }
    case "ended":
      return `${[`${press} ${ended}`, ...whyLapsed(kit, fate)].join("; ")}.`;
    case "lapsed": {
      const kept = keptWords(kit, fate);
      return `${press} completed nothing. ${[...whyLapsed(kit, fate), ...(kept ? [kept] : [])].join("; ")}.`;
    }
    case "unheard":
      return `${press} was seen by no rule${fate.kept ? `: ${keptWords(kit, fate)}` : ""}.`;
  }
}
