import type { Gate, Kit } from "../kit/schema";
import {
  atLeast,
  atMost,
  clause,
  count,
  gate as gatePart,
  nameList,
  optional,
  ref,
  ruleName,
  words,
  type Offer,
  type SentencePart,
} from "../kit/sentence";
import { offerIf } from "../patterns/describeParts";

function describeCount(
  gate: Gate,
  list: "pattern" | "move",
  id: string,
  field: "fires" | "performs",
  did: string,
): SentencePart[] {
  const times = gate.atLeast ?? 1;
  return clause(
    [field],
    [
      words(" is open once "),
      ref(list, id, [field]),
      words(` has${did} `),
      count(times, ["atLeast"], "how many times"),
      words(times === 1 ? " time" : " times"),
      ...optional(gate.until, ["until"], until => [
        words("; the count is 0 while "),
        gatePart(until, ["until"], "gate that ends the count"),
        words(" is open"),
      ]),
    ],
  );
}

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
  if (gate.fires !== undefined) return describeCount(gate, "pattern", gate.fires, "fires", " fired");
  if (gate.performs !== undefined)
    return describeCount(gate, "move", gate.performs, "performs", " been performed");
  return [words(" is open while the stage, a move, a prompt or a take holds it open")];
}

/** Describes a gate as one sentence, its name first. Paths are relative to the gate. */
export function describeGate(gate: Gate): SentencePart[] {
  return [
    ruleName(gate.name || gate.id),
    ...describeSource(gate),
    ...optional(gate.linger, ["linger"], linger => [
      words("; it stays open for "),
      atMost(linger, ["linger"], "stays open for"),
      words(" after that"),
    ]),
    ...optional(gate.spentFor, ["spentFor"], spent => [
      words("; once spent, it refills after "),
      atLeast(spent, ["spentFor"], "spent for"),
    ]),
  ];
}

/**
 * Returns the clauses that could be added to a gate, each with the resulting gate. A derived gate can only
 * refer to gates above it.
 */
export function offerGate(gate: Gate, kit: Kit): Offer<Gate>[] {
  const above = (kit.gates ?? []).slice(0, (kit.gates ?? []).indexOf(gate)).map(item => item.id);
  const pattern = kit.patterns[0]?.id;
  const move = kit.moves?.[0]?.id;
  const derived = gate.all ?? gate.any ?? gate.none;
  const counts = gate.fires !== undefined || gate.performs !== undefined;
  const isPlain = derived === undefined && gate.while === undefined && !counts;
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
    ...offerIf(isPlain && pattern !== undefined, "… once a pattern has fired so many times", () => ({
      ...gate,
      fires: pattern!,
      atLeast: 3,
    })),
    ...offerIf(isPlain && move !== undefined, "… once a move was performed so many times", () => ({
      ...gate,
      performs: move!,
      atLeast: 3,
    })),
    ...offerIf(
      counts && gate.until === undefined && above.length > 0,
      "… and count again from zero while a gate is open",
      () => ({
        ...gate,
        until: above.at(-1)!,
      }),
    ),
    ...offerIf(derived !== undefined && more !== undefined, "… and one more gate", () => ({
      ...gate,
      [field]: [...derived!, more!],
    })),
    ...offerIf(gate.linger === undefined, "… and stay open for a while after", () => ({
      ...gate,
      linger: "6f",
    })),
    ...offerIf(gate.spentFor === undefined, "… and refill at another time once spent", () => ({
      ...gate,
      spentFor: "133ms",
    })),
  ];
}
