import { listLengths, listNumbers, parseFrames, readAt, type Kit, type PathStep } from "#core";
import { listEffectFigures, listStageLengths } from "#stage";

/** A number of a kit, for the people who build the game. */
export interface Figure {
  /** The list of its rule, and the rule's id and name. */
  readonly list: string;
  readonly id: string;
  readonly rule: string;
  /** Its path in the rule, with list items by index: `needs.0.coyote`. */
  readonly field: string;
  /** The field in words, as its rule's sentence names it: "coyote"; items alike in one rule are counted: "coyote 2". */
  readonly label: string;
  readonly written: string;
  /** For a length: whole frames at the kit's rate, their length in ms, and the rounding used. */
  readonly frames: number | null;
  readonly ms: number | null;
  readonly rounding: "at least" | "at most" | null;
}

/** Lengths that no sentence shows are rounded up, as the frame rules require for times to wait. */
const UNSHOWN_ROUNDING = "atLeast";

/** Returns a field without a label of its own in words: "effect leap" of "effect.leap". */
const wordsOf = (field: string) => field.replaceAll(".", " ");

/** Counts the labels that occur several times in one rule. */
function countLabels(figures: readonly Figure[]): Figure[] {
  const seen = new Map<string, number>();
  return figures.map(figure => {
    const key = JSON.stringify([figure.list, figure.id, figure.label]);
    const count = (seen.get(key) ?? 0) + 1;
    seen.set(key, count);
    return count === 1 ? figure : { ...figure, label: `${figure.label} ${count}` };
  });
}

/** The words for the thresholds of a control, as on Wire. */
const POINT_WORDS: ReadonlyMap<string, string> = new Map([
  ["pressAt", "press point"],
  ["releaseAt", "release point"],
]);

/**
 * Returns every length and figure of a kit and its stage, in kit order. Figures of rules have the rule's id;
 * those of the stage have none.
 */
export function listFigures(kit: Kit): Figure[] {
  const shown = new Map(listNumbers(kit).map(number => [number.path.join("."), number]));
  const effects = (kit.moves ?? []).flatMap((move, m) =>
    listEffectFigures(move).map(({ path }): readonly PathStep[] => ["moves", m, ...path]),
  );
  const points = kit.controls.flatMap((control, c) =>
    (["pressAt", "releaseAt"] as const).flatMap(field =>
      control[field] === undefined ? [] : [["controls", c, field] as readonly PathStep[]],
    ),
  );
  const paths = [
    ...points,
    ...[...shown.values()].map(({ path }) => path),
    ...listLengths(kit).map(({ path }) => path),
    ...effects,
    ...listStageLengths(kit).map(({ path }) => path),
  ];
  const seen = new Set<string>();
  const figures = paths.flatMap((path): Figure[] => {
    const key = path.join(".");
    const value = readAt(kit, path);
    if (seen.has(key) || value === undefined) return [];
    seen.add(key);
    const [list, place, ...rest] = path;
    const rule = readAt(kit, [list!, place!]) as { id?: string; name?: string } | undefined;
    const isRule = typeof place === "number" && typeof rule === "object";
    const written = String(value);
    const rounding = shown.get(key)?.rounding ?? UNSHOWN_ROUNDING;
    const frames = typeof value === "string" ? (parseFrames(written, kit.rate, rounding) ?? null) : null;
    const field = (isRule ? rest : path.slice(1)).join(".");
    return [
      {
        list: String(list),
        id: isRule ? (rule.id ?? "") : "",
        rule: isRule ? rule.name || rule.id || "" : String(list),
        field,
        label: shown.get(key)?.label ?? POINT_WORDS.get(field) ?? wordsOf(field),
        written,
        frames,
        ms: frames === null ? null : Math.round((frames * 1e6) / kit.rate) / 1000,
        rounding: frames === null ? null : rounding === "atLeast" ? "at least" : "at most",
      },
    ];
  });
  return countLabels(figures);
}
