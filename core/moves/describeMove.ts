import type { Move } from "../kit/schema";
import { atLeast, atMost, enumerate, ruleName, words, type SentencePart } from "../kit/sentence";

function gate(id: string, path: readonly (string | number)[]): SentencePart {
  return { kind: "gate", id, path, label: "gate" };
}

/** A move as one sentence, its name first. Paths are inside the move. */
export function describeMove(move: Move): SentencePart[] {
  const needs = (move.needs ?? []).map((need, k) => gate(need.gate, ["needs", k, "gate"]));
  const bans = (move.bans ?? []).map((id, k) => gate(id, ["bans", k]));
  const coyotes = (move.needs ?? []).flatMap((need, k) =>
    need.coyote === undefined
      ? []
      : [words(", forgiven for "), atMost(need.coyote, ["needs", k, "coyote"], "coyote"), words(" after")],
  );
  return [
    ruleName(move.name || move.id),
    words(" on "),
    { kind: "pattern", id: move.pattern, path: ["pattern"], label: "pattern" },
    ...(needs.length > 0
      ? [words(", if "), ...enumerate(needs), words(needs.length > 1 ? " are open" : " is open")]
      : []),
    ...(bans.length > 0
      ? [words(needs.length > 0 ? " and not " : ", if not "), ...enumerate(bans, "or")]
      : []),
    ...(move.buffer === undefined
      ? []
      : [words(": remembered for "), atMost(move.buffer, ["buffer"], "buffer"), words(" before")]),
    ...coyotes,
    ...(move.defer === undefined
      ? []
      : [words("; waits "), atLeast(move.defer, ["defer"], "defer"), words(" to be sure")]),
    ...(move.cooldown === undefined
      ? []
      : [words("; not again for "), atLeast(move.cooldown, ["cooldown"], "cooldown")]),
    ...(move.frames
      ? [
          words("; startup "),
          atLeast(move.frames.startup, ["frames", "startup"], "startup"),
          words(", active "),
          atLeast(move.frames.active, ["frames", "active"], "active"),
          words(", recovery "),
          atLeast(move.frames.recovery, ["frames", "recovery"], "recovery"),
        ]
      : []),
  ];
}
