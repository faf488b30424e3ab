import type { Gate, Kit, Move, Pattern, Prompt } from "./schema";

/** The rules a starter adds, which receive ids of their own. */
export interface Bundle {
  readonly controls?: Kit["controls"];
  readonly sticks?: NonNullable<Kit["sticks"]>;
  readonly gates?: readonly Gate[];
  readonly patterns: readonly Pattern[];
  readonly moves?: readonly Move[];
  readonly prompts?: readonly Prompt[];
  /** The key of the rule to open. */
  readonly opens: string;
}

/** A starting point for a rule: a few rules in designers' words, with working numbers. */
export interface Starter {
  readonly id: string;
  readonly words: string;
  readonly line: string;
  readonly make: (control: Kit["controls"][number], take: TakeId, kit: Kit) => Bundle;
}

/** Returns a new id for an item of a kind by its name, and reserves it. */
export type TakeId = (kind: string, name: string) => string;
