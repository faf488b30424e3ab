import type { PathStep } from "../formats/issue";
import type { Rounding } from "../time/duration";
import { describeRule } from "./describeRule";
import type { Kit } from "./schema";

/** A number shown in a rule's sentence. */
export interface KitNumber {
  readonly path: readonly PathStep[];
  /** The rule's name and the number's role in it: "Hop", "buffer". */
  readonly rule: string;
  readonly label: string;
  readonly kind: "length" | "count" | "number";
  /** The value as written. */
  readonly value: string | number;
  /** The minimum; for a length also how it converts to frames. */
  readonly least: number;
  readonly rounding?: Rounding;
}

const LISTS = ["patterns", "moves", "gates", "prompts"] as const;

/**
 * Returns every number that the sentences of a kit's rules show and let the designer change, rule by rule.
 */
export function listNumbers(kit: Kit): KitNumber[] {
  return LISTS.flatMap(list =>
    (kit[list] ?? []).flatMap((rule, index) =>
      describeRule(kit, list, index).flatMap((part): KitNumber[] => {
        const { kind } = part;
        if (kind !== "length" && kind !== "count" && kind !== "number") return [];
        const common = {
          path: [list, index, ...part.path],
          rule: rule.name || rule.id,
          label: part.label,
          value: part.value,
        };
        if (kind === "length") return [{ ...common, kind, least: part.least, rounding: part.rounding }];
        return [{ ...common, kind, least: kind === "count" ? part.least : -Infinity }];
      }),
    ),
  );
}
