import { listLengths, listNumbers, parseFrames, readAt, type Kit, type PathStep } from "#core";
import { listStageLengths } from "#stage";

/** A number of a kit, as people who build the game read it. */
export interface Figure {
  /** The list the rule stands in, its id and its name. */
  readonly list: string;
  readonly id: string;
  readonly rule: string;
  /** Where it stands in the rule, places of lists by number: `needs.0.coyote`. */
  readonly field: string;
  readonly written: string;
  /** Of a length: whole frames at the kit's rate, what those last in ms, and how it was rounded. */
  readonly frames: number | null;
  readonly ms: number | null;
  readonly rounding: "at least" | "at most" | null;
}

/** Fields of lengths that no sentence shows are rounded up, as the frame rules have it for what must be waited for. */
const UNSHOWN_ROUNDING = "atLeast";

/** Every length and figure of a kit and its stage, in the kit's order. A list's rules have an id; the stage's own numbers have none. */
export function listFigures(kit: Kit): Figure[] {
  const shown = new Map(listNumbers(kit).map(number => [number.path.join("."), number]));
  const effects = (kit.moves ?? []).flatMap((move, m) =>
    Object.entries((move.effect ?? {}) as Readonly<Record<string, unknown>>).flatMap(([field, value]) =>
      typeof value === "number" ? [["moves", m, "effect", field] as readonly PathStep[]] : [],
    ),
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
  return paths.flatMap((path): Figure[] => {
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
    return [
      {
        list: String(list),
        id: isRule ? (rule.id ?? "") : "",
        rule: isRule ? rule.name || rule.id || "" : String(list),
        field: (isRule ? rest : path.slice(1)).join("."),
        written,
        frames,
        ms: frames === null ? null : Math.round((frames * 1e6) / kit.rate) / 1000,
        rounding: frames === null ? null : rounding === "atLeast" ? "at least" : "at most",
      },
    ];
  });
}
