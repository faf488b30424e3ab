import { traitsOf } from "../patterns/recordOf";
import { outputGate } from "../kit/compileNames";
import type { Kit, Move } from "../kit/schema";
import {
  atLeast,
  atMost,
  choice,
  clause,
  count,
  enumerate,
  gate,
  nameList,
  number,
  optional,
  ref,
  ruleName,
  text,
  words,
  type Offer,
  type Option,
  type SentencePart,
} from "../kit/sentence";
import { describeWhere, offerIf, offerWhere } from "../patterns/describeParts";

/** Returns the gates that can be opened and spent: the kit's gates and the busy gates of its slots. */
export function openableGates(kit: Kit): string[] {
  const slots = [...new Set((kit.moves ?? []).map(move => move.slot ?? "main"))];
  return [...(kit.gates ?? []).map(item => item.id), ...slots.map(slot => `busy:${slot}`)];
}

/** Returns the gates that can be read: those, and the output gates of moves with a linger. */
export function nameableGates(kit: Kit): string[] {
  const outputs = (kit.moves ?? []).filter(move => move.linger !== undefined);
  return [...openableGates(kit), ...outputs.map(({ id }) => outputGate(id))];
}

const MEMORY: readonly Option[] = [
  { value: "real", label: "real time", hint: "a hit stop does not keep a press alive" },
  { value: "game", label: "the game's clock", hint: "what stops the game stops the buffer too" },
];

function describeWhen(move: Move): SentencePart[] {
  return [
    ...optional(move.when?.count, ["when", "count"], taps => [
      words(" with exactly "),
      count(taps, ["when", "count"], "number of taps wanted"),
      words(taps === 1 ? " tap" : " taps"),
    ]),
    ...optional(move.when?.level, ["when", "level"], level => [
      words(" at level "),
      count(level, ["when", "level"], "least level wanted", 0),
      words(" or above"),
    ]),
  ];
}

function describeNeeds(move: Move): SentencePart[] {
  const needs = (move.needs ?? []).map((need, k) => ({
    ...gate(need.gate, ["needs", k, "gate"], "gate needed"),
    clause: ["needs", k],
  }));
  const bans = nameList("gate", move.bans ?? [], ["bans"], "gate that keeps it away", "or");
  return [
    ...(needs.length > 0
      ? clause(
          ["needs"],
          [words(", if "), ...enumerate(needs), words(needs.length > 1 ? " are open" : " is open")],
        )
      : []),
    ...(bans.length > 0 ? clause(["bans"], [words(", not while "), ...bans, words(" is open")]) : []),
  ];
}

function describeTimes(move: Move): SentencePart[] {
  return [
    ...optional(move.buffer, ["buffer"], buffer => [
      words(": buffer "),
      atMost(buffer, ["buffer"], "buffer"),
    ]),
    ...(move.needs ?? []).flatMap((need, k) =>
      optional(need.coyote, ["needs", k, "coyote"], coyote => [
        words(", coyote "),
        atMost(coyote, ["needs", k, "coyote"], "coyote"),
      ]),
    ),
    ...optional(move.defer, ["defer"], defer => [
      words("; waits "),
      atLeast(defer, ["defer"], "wait to be sure"),
      words(" to be sure"),
    ]),
    ...(move.again === "held" ? clause(["again"], [words("; asks again as long as it is held")]) : []),
    ...optional(move.memory, ["memory"], memory => [
      words("; its buffer counts in "),
      choice(memory, MEMORY, ["memory"], "clock of its buffer"),
    ]),
    ...optional(move.cooldown, ["cooldown"], cooldown => [
      words("; not again for "),
      atLeast(cooldown, ["cooldown"], "cooldown"),
    ]),
    ...optional(move.uses, ["uses"], uses => [
      words("; only "),
      count(uses.max, ["uses", "max"], "number of uses"),
      words(uses.max === 1 ? " time until " : " times until "),
      gate(uses.refill, ["uses", "refill"], "gate that gives the uses back"),
      words(" is open"),
    ]),
    ...optional(move.linger, ["linger"], linger => [
      words("; its output stays on while its input holds, and for "),
      atLeast(linger, ["linger"], "output stays on for"),
      words(" after"),
    ]),
  ];
}

function describeEffects(move: Move): SentencePart[] {
  return [
    ...optional(move.frames, ["frames"], frames => [
      words("; startup "),
      atLeast(frames.startup, ["frames", "startup"], "startup"),
      words(", active "),
      atLeast(frames.active, ["frames", "active"], "active"),
      words(", recovery "),
      atLeast(frames.recovery, ["frames", "recovery"], "recovery"),
    ]),
    ...(move.opens ?? []).flatMap((opening, k) =>
      clause(
        ["opens", k],
        [
          words("; opens "),
          ref("openable", opening.gate, ["opens", k, "gate"], "gate it opens"),
          words(" from "),
          atLeast(opening.from, ["opens", k, "from"], "opens from"),
          words(" to "),
          atMost(opening.to, ["opens", k, "to"], "opens until"),
        ],
      ),
    ),
    ...(move.spends?.length
      ? clause(
          ["spends"],
          [words("; spends "), ...nameList("openable", move.spends, ["spends"], "gate it spends")],
        )
      : []),
    ...optional(move.priority, ["priority"], priority => [
      words("; priority "),
      number(priority, ["priority"], "priority"),
    ]),
    ...optional(move.slot, ["slot"], slot => [words("; in slot "), text(slot, ["slot"], "slot")]),
    ...(move.shares ? clause(["shares"], [words("; shares its press with other moves")]) : []),
  ];
}

/** Describes a move as one sentence, its name first. Paths are relative to the move. */
export function describeMove(move: Move): SentencePart[] {
  return [
    ruleName(move.name || move.id),
    words(" on "),
    ref("pattern", move.pattern, ["pattern"]),
    ...describeWhen(move),
    ...describeNeeds(move),
    ...describeTimes(move),
    ...describeEffects(move),
    ...describeWhere(move),
  ];
}

/** Returns the clauses on needs that could be added to a move. */
function offerNeeds(move: Move, kit: Kit): Offer<Move>[] {
  const gates = nameableGates(kit);
  const needs = move.needs ?? [];
  const used = [...needs.map(need => need.gate), ...(move.bans ?? [])];
  const free = gates.find(id => !used.includes(id));
  // Offers a ban on a busy gate if any move has a timeline, otherwise on one of the kit's own gates.
  const isBusyEver = (kit.moves ?? []).some(other => other.frames !== undefined);
  const keeper = isBusyEver ? gates.findLast(id => !used.includes(id)) : free;
  const bare = needs.findIndex(need => need.coyote === undefined);
  return [
    ...offerIf(
      free !== undefined,
      needs.length > 0 ? "… if one more gate is open" : "… if a gate is open",
      () => ({
        ...move,
        needs: [...needs, { gate: free! }],
      }),
    ),
    ...offerIf(keeper !== undefined, "… if a gate is not open", () => ({
      ...move,
      bans: [...(move.bans ?? []), keeper!],
    })),
    ...offerIf(move.buffer === undefined, "… with a buffer", () => ({ ...move, buffer: "6f" })),
    ...offerIf(bare >= 0, "… with coyote time", () => ({
      ...move,
      needs: needs.map((need, k) => (k === bare ? { ...need, coyote: "5f" } : need)),
    })),
  ];
}

/** Returns the clauses on repetition and effects that could be added to a move. */
function offerEffects(move: Move, kit: Kit): Offer<Move>[] {
  const pattern = kit.patterns.find(item => item.id === move.pattern);
  const carries = pattern ? traitsOf(pattern.kind).carries : [];
  const own = (kit.gates ?? []).map(item => item.id);
  const spendable = (move.needs ?? []).map(need => need.gate).find(id => !move.spends?.includes(id));
  return [
    ...offerIf(move.spends === undefined && spendable !== undefined, "… and spend the gate it needs", () => ({
      ...move,
      spends: [spendable!],
    })),
    ...offerIf(move.uses === undefined && own.length > 0, "… and only so many times", () => ({
      ...move,
      uses: { max: 1, refill: own[0]! },
    })),
    ...offerIf(move.again === undefined, "… and ask again while it is held", () => ({
      ...move,
      again: "held" as const,
    })),
    ...offerIf(move.memory === undefined, "… with its buffer on a clock of its own", () => ({
      ...move,
      memory: move.clock === "real" ? ("game" as const) : ("real" as const),
    })),
    ...offerIf(move.cooldown === undefined, "… and not again for a while", () => ({
      ...move,
      cooldown: "30f",
    })),
    ...offerIf(!move.frames, "… with startup, active and recovery", () => ({
      ...move,
      frames: { startup: "6f", active: "4f", recovery: "12f" },
    })),
    ...offerIf(own.length > 0, "… and open a gate while it goes on", () => ({
      ...move,
      opens: [...(move.opens ?? []), { gate: own.at(-1)!, from: "8f", to: "20f" }],
    })),
    ...offerIf(
      carries.includes("count") && move.when?.count === undefined,
      "… with exactly so many taps",
      () => ({
        ...move,
        when: { ...move.when, count: 2 },
      }),
    ),
    ...offerIf(carries.includes("level") && move.when?.level === undefined, "… from a level on", () => ({
      ...move,
      when: { ...move.when, level: 1 },
    })),
    ...offerIf(move.defer === undefined, "… after a wait, in case another move gets the press", () => ({
      ...move,
      defer: "6f",
    })),
    ...offerIf(move.priority === undefined, "… before or after other moves", () => ({
      ...move,
      priority: 1,
    })),
    ...offerIf(move.slot === undefined, "… in a slot of its own", () => ({ ...move, slot: "feet" })),
    ...offerIf(!move.shares, "… and share its press with other moves", () => ({ ...move, shares: true })),
    ...offerIf(move.linger === undefined, "… and let its output stay on for a while", () => ({
      ...move,
      linger: "6f",
    })),
  ];
}

/** Returns the clauses that could be added to a move, each with the resulting move. */
export function offerMove(move: Move, kit: Kit): Offer<Move>[] {
  return [...offerNeeds(move, kit), ...offerEffects(move, kit), ...offerWhere(move, kit)];
}
