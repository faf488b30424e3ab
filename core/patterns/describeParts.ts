import type { Kit, Pattern, PatternKind, PatternOf } from "../kit/schema";
import { clause, nameList, words, type Offer, type Option, type SentencePart } from "../kit/sentence";

/**
 * Describes a pattern of one kind as a sentence that begins after the pattern's name and has no full stop.
 */
export type DescribeKind<K extends PatternKind> = (pattern: PatternOf<K>, kit: Kit) => SentencePart[];

/** Returns the clauses that could be added to a pattern of one kind, each with the resulting pattern. */
export type OfferKind<K extends PatternKind> = (pattern: PatternOf<K>, kit: Kit) => Offer<PatternOf<K>>[];

/** Returns the clause on controls that cancel an attempt. */
export function describeCancel(cancel: readonly string[] | undefined): SentencePart[] {
  if (!cancel || cancel.length === 0) return [];
  return clause(
    ["cancel"],
    [
      words("; "),
      ...nameList("control", cancel, ["cancel"], "cancelling control", "or"),
      words(" cancels it"),
    ],
  );
}

/** Returns an offer if it applies, otherwise none. */
export function offerIf<R>(isFitting: boolean, text: string, becomes: () => R): Offer<R>[] {
  return isFitting ? [{ words: text, becomes: becomes() }] : [];
}

/**
 * Returns the first control of the kit not in `used`, or else the kit's first; undefined in a kit without
 * controls.
 */
export function freeControl(kit: Kit, used: readonly string[]): string | undefined {
  return (kit.controls.find(control => !used.includes(control.id)) ?? kit.controls[0])?.id;
}

/** Offers a control that cancels an attempt. */
export function offerCancel<P extends { readonly cancel?: readonly string[] }>(
  pattern: P,
  kit: Kit,
  used: readonly string[],
): Offer<P>[] {
  const id = freeControl(kit, [...used, ...(pattern.cancel ?? [])]);
  return offerIf(
    id !== undefined && !used.includes(id) && !pattern.cancel?.includes(id),
    pattern.cancel?.length ? "… and let one more button cancel it" : "… and let a button cancel it",
    () => ({ ...pattern, cancel: [...(pattern.cancel ?? []), id!] }),
  );
}

export const FIRE_ON_REACH: readonly Option[] = [
  { value: "reach", label: "at once", hint: "fires on the frame on which the length is reached" },
  { value: "release", label: "when let go", hint: "fires on letting go, if it was held that long" },
];

/** Returns the clauses common to all rules: the modes in which the rule is active, and its clock. */
export function describeWhere(rule: {
  readonly modes?: readonly string[];
  readonly clock?: "game" | "real";
}): SentencePart[] {
  return [
    ...(rule.modes
      ? clause(["modes"], [words("; only in "), ...nameList("mode", rule.modes, ["modes"], "mode", "or", 1)])
      : []),
    ...(rule.clock === "real" ? clause(["clock"], [words("; by real time")]) : []),
  ];
}

/** Offers those clauses if they are absent. */
export function offerWhere<
  R extends { readonly modes?: readonly string[]; readonly clock?: "game" | "real" },
>(rule: R, kit: Kit): Offer<R>[] {
  const modes = (kit.modes ?? []).map(mode => mode.id);
  const next = modes.find(id => !rule.modes?.includes(id));
  return [
    ...offerIf(
      modes.length > 1 && next !== undefined,
      rule.modes ? "… in one more mode" : "… only in some modes",
      () => ({ ...rule, modes: [...(rule.modes ?? []), next!] }),
    ),
    ...offerIf(rule.clock !== "real", "… by real time", () => ({
      ...rule,
      clock: "real" as const,
    })),
  ];
}

/** Returns the clauses common to all patterns. */
export function describeCaptures(pattern: Pattern): SentencePart[] {
  return pattern.captures ? clause(["captures"], [words("; no other rule sees its controls")]) : [];
}
