import type { Gate, Kit, Move, Pattern, Prompt } from "./schema";

/** Rules that a starter brings, to be added with ids of their own. */
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

/** A way to begin: a few rules in designers' words, with numbers that work. */
export interface Starter {
  readonly id: string;
  readonly words: string;
  readonly line: string;
  readonly make: (control: Kit["controls"][number], take: TakeId, kit: Kit) => Bundle;
}

/** Gives a fresh id for something of a kind by its name, and keeps it from being given again. */
export type TakeId = (kind: string, name: string) => string;
