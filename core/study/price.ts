import type { Kit } from "../kit/schema";
import { countWords, joinNames } from "../formats/words";
import { notes } from "../trace/noteKinds";
import { isAnswered, promptOutcome } from "../trace/notes/prompt";
import type { Trace } from "../trace/trace";
import type { Fate } from "./outcomes/fate";

/** The kinds of difference between two runs of a take. */
export type PriceKind = "performed" | "lost" | "fired" | "lapsed" | "answered" | "failed" | "opens";

/**
 * One difference of one rule: how many more, fewer, or the same number on other frames. `index` is its index
 * in its list.
 */
export interface PriceLine {
  readonly kind: PriceKind;
  readonly index: number;
  readonly more: number;
  readonly fewer: number;
  readonly moved: number;
}

/** The effects of a change of the kit, over a number of takes. */
export interface Price {
  readonly takes: number;
  readonly lines: readonly PriceLine[];
}

/** Two runs of one take, before and after a change. */
export interface RunPair {
  readonly before: Trace;
  readonly after: Trace;
  /**
   * The fates of the presses that the change is for, before and after; their differences are wanted and not
   * priced.
   */
  readonly wanted?: readonly { readonly before: Fate; readonly after: Fate }[];
}

/**
 * Returns everything that is part of some presses' fates, as keys of kind, rule and moment. The moment of a
 * performance or a loss is the frame of its request: a move makes one request per frame, but can lose two on
 * one frame.
 */
function keysOfFates(fates: readonly Fate[]): ReadonlySet<string> {
  const keysOf = (fate: Fate) => [
    ...fate.losses.map(({ move, made }) => `lost ${move} ${made}`),
    ...fate.lapses.map(({ pattern, frame }) => `lapsed ${pattern} ${frame}`),
    ...fate.fires.map(({ pattern, frame }) => `fired ${pattern} ${frame}`),
    ...fate.uses.map(
      ({ kind, index, made }) => `${kind === "move" ? "performed" : "answered"} ${index} ${made}`,
    ),
  ];
  return new Set(fates.flatMap(keysOf));
}

function kindOf(trace: Trace, note: number): PriceKind | undefined {
  switch (trace.kind[note]) {
    case notes.performed.code:
      return "performed";
    case notes.lost.code:
      return "lost";
    case notes.fired.code:
      return "fired";
    case notes.lapsed.code:
      return "lapsed";
    case notes.gate.code:
      return notes.gate.isOpen(trace, note) === 1 ? "opens" : undefined;
    case notes.prompt.code: {
      const outcome = notes.prompt.outcome(trace, note);
      if (isAnswered(outcome)) return "answered";
      return outcome === promptOutcome.failed ? "failed" : undefined;
    }
    default:
      return undefined;
  }
}

/** Returns the moment of a priced note, as in the keys of a fate. */
function momentOf(trace: Trace, note: number, kind: PriceKind): number {
  if (kind === "performed") return notes.performed.made(trace, note);
  return kind === "lost" ? notes.lost.made(trace, note) : trace.frame[note]!;
}

/** Returns the frames of all priced notes, by kind and rule. */
function framesByRule(trace: Trace, wanted: ReadonlySet<string>): Map<string, number[]> {
  const found = new Map<string, number[]>();
  for (let i = 0; i < trace.count; i++) {
    const kind = kindOf(trace, i);
    if (!kind) continue;
    const key = `${kind} ${trace.subject[i]}`;
    if (wanted.has(`${key} ${momentOf(trace, i, kind)}`)) continue;
    const frames = found.get(key);
    if (frames) frames.push(trace.frame[i]!);
    else found.set(key, [trace.frame[i]!]);
  }
  return found;
}

/** Returns how many frames are in both of two ascending lists. */
function countShared(a: readonly number[], b: readonly number[]): number {
  let shared = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) {
      shared++;
      i++;
      j++;
    } else if (a[i]! < b[j]!) i++;
    else j++;
  }
  return shared;
}

/**
 * Computes the effects of a change from runs of every take before and after it: moves, patterns, prompts and
 * gates.
 */
export function findPrice(pairs: readonly RunPair[]): Price {
  const lines = new Map<string, PriceLine>();
  for (const { before: traceBefore, after: traceAfter, wanted = [] } of pairs) {
    const before = framesByRule(traceBefore, keysOfFates(wanted.map(fates => fates.before)));
    const after = framesByRule(traceAfter, keysOfFates(wanted.map(fates => fates.after)));
    for (const key of new Set([...before.keys(), ...after.keys()])) {
      const [kind, index] = key.split(" ");
      const a = before.get(key) ?? [];
      const b = after.get(key) ?? [];
      const moved = Math.min(a.length, b.length) - countShared(a, b);
      if (a.length === b.length && moved === 0) continue;
      const line = lines.get(key);
      lines.set(key, {
        kind: kind as PriceKind,
        index: Number(index),
        more: (line?.more ?? 0) + Math.max(0, b.length - a.length),
        fewer: (line?.fewer ?? 0) + Math.max(0, a.length - b.length),
        moved: (line?.moved ?? 0) + moved,
      });
    }
  }
  return { takes: pairs.length, lines: [...lines.values()].sort(compareLines) };
}

const KINDS: readonly PriceKind[] = ["performed", "lost", "answered", "failed", "fired", "lapsed", "opens"];

function compareLines(a: PriceLine, b: PriceLine): number {
  return KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) || a.index - b.index;
}

function ruleOf(kit: Kit, { kind, index }: PriceLine): string {
  const lists = {
    performed: kit.moves,
    lost: kit.moves,
    fired: kit.patterns,
    lapsed: kit.patterns,
    answered: kit.prompts,
    failed: kit.prompts,
    opens: kit.gates,
  };
  const rule = lists[kind]?.[index];
  return rule ? rule.name || rule.id : "a busy slot";
}

const VERBS: Readonly<Record<PriceKind, string>> = {
  performed: "is performed",
  lost: "is lost",
  answered: "is answered",
  failed: "fails",
  fired: "fires",
  lapsed: "lapses",
  opens: "opens",
};

function lineWords(kit: Kit, line: PriceLine): string {
  const parts = [
    [line.more, "more"],
    [line.fewer, "less"],
    [line.moved, "at another time"],
  ] as const;
  const counts = parts.flatMap(([n, words]) =>
    n > 0 ? [`${n === 1 ? "once" : `${n} times`} ${words}`] : [],
  );
  return `${ruleOf(kit, line)} ${VERBS[line.kind]} ${joinNames(counts)}`;
}

/** The number of lines written out in full. */
const MAX_LINES = 4;

/**
 * Formats a price: "nothing else changes in all 4 takes", "over all 4 takes: Hop is performed once more;
 * Cling fires 8 times more".
 */
export function formatPrice(kit: Kit, { takes, lines }: Price): string {
  const where = takes === 1 ? "this take" : `all ${takes} takes`;
  const gates = lines.filter(line => line.kind === "opens" && kit.gates?.[line.index] !== undefined);
  const rules = lines.filter(line => line.kind !== "opens");
  if (rules.length + gates.length === 0) return `nothing else changes in ${where}`;
  const words = rules.slice(0, MAX_LINES).map(line => lineWords(kit, line));
  if (rules.length > MAX_LINES)
    words.push(`${countWords(rules.length - MAX_LINES, "more change")} of that kind`);
  // Gates follow from performances, and many at once if a stage opens them.
  if (gates.length > 2) words.push(`${countWords(gates.length, "gate")} open at other times`);
  else words.push(...gates.map(line => lineWords(kit, line)));
  return `over ${where}: ${words.join("; ")}`;
}
