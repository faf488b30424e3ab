import type { Gate, Kit } from "../kit/schema";
import {
  atLeast,
  clause,
  nameList,
  optional,
  ref,
  ruleName,
  words,
  type Offer,
  type SentencePart,
} from "../kit/sentence";
import { offerIf } from "../patterns/describeParts";

function describeSource(gate: Gate): SentencePart[] {
  if (gate.all)
    return clause(
      ["all"],
      [
        words(" is open while all of "),
        ...nameList("gate", gate.all, ["all"], "gate", "and", 1),
        words(" are"),
      ],
    );
  if (gate.any)
    return clause(
      ["any"],
      [
        words(" is open while any of "),
        ...nameList("gate", gate.any, ["any"], "gate", "or", 1),
        words(" is"),
      ],
    );
  if (gate.none)
    return clause(
      ["none"],
      [
        words(" is open while none of "),
        ...nameList("gate", gate.none, ["none"], "gate", "and", 1),
        words(" is"),
      ],
    );
  if (gate.while !== undefined)
    return clause(
      ["while"],
      [words(" is open while "), ref("pattern", gate.while, ["while"]), words(" has fired and lasts")],
    );
  return [words(" is open while the stage, a move, a prompt or a take holds it open")];
}

/** A gate as one sentence, its name first. Paths are inside the gate. */
export function describeGate(gate: Gate): SentencePart[] {
  return [
    ruleName(gate.name || gate.id),
    ...describeSource(gate),
    ...optional(gate.spentFor, ["spentFor"], spent => [
      words("; spent, it is whole again after "),
      atLeast(spent, ["spentFor"], "spent for"),
    ]),
  ];
}

/** What else a gate could say, each with the gate as it would then be. A derived gate names gates above it only. */
export function offerGate(gate: Gate, kit: Kit): Offer<Gate>[] {
  const above = (kit.gates ?? []).slice(0, (kit.gates ?? []).indexOf(gate)).map(item => item.id);
  const pattern = kit.patterns[0]?.id;
  const derived = gate.all ?? gate.any ?? gate.none;
  const isPlain = derived === undefined && gate.while === undefined;
  const more = above.find(id => !derived?.includes(id));
  const field = gate.all ? "all" : gate.any ? "any" : "none";
  return [
    ...offerIf(isPlain && above.length > 0, "… while all of some other gates are open", () => ({
      ...gate,
      all: [above[0]!],
    })),
    ...offerIf(isPlain && above.length > 0, "… while any of some other gates is open", () => ({
      ...gate,
      any: [above[0]!],
    })),
    ...offerIf(isPlain && above.length > 0, "… while none of some other gates is open", () => ({
      ...gate,
      none: [above[0]!],
    })),
    ...offerIf(isPlain && pattern !== undefined, "… while a pattern lasts", () => ({
      ...gate,
      while: pattern!,
    })),
    ...offerIf(derived !== undefined && more !== undefined, "… and one more gate", () => ({
      ...gate,
      [field]: [...derived!, more!],
    })),
    ...offerIf(gate.spentFor === undefined, "… and be whole again sooner or later once spent", () => ({
      ...gate,
      spentFor: "133ms",
    })),
  ];
}
