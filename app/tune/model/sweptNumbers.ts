import {
  formatMs,
  listGroup,
  listNumbers,
  parseFrames,
  presentValue,
  readAt,
  SWEPT_GROUPS,
  traitsOf,
  type Kit,
  type KitNumber,
  type Move,
  type PathStep,
  type Swept,
} from "#core";
import { listEffectFigures } from "#stage";
import type { SweepRange, SweptChoice } from "../../document/studySettings";

const GROUP_WORDS = {
  buffers: "all buffers",
  coyotes: "all coyotes",
  gaps: "all gaps and spreads",
  windows: "all windows",
} as const;

const keyOf = (path: readonly PathStep[]) => path.join(".");

function choiceOf({ path, rule, label, kind, value, least }: KitNumber): SweptChoice {
  const written = String(value);
  const unit = written.endsWith("ms") ? "ms" : "f";
  return {
    key: keyOf(path),
    words: `${rule}: ${label} (${written})`,
    name: `${rule}: ${label}`,
    swept: kind === "length" ? { kind: "length", path, unit } : { kind: "number", path },
    present: parseFloat(written),
    least: kind === "length" || kind === "count" ? least : -Infinity,
  };
}

/** Returns the numbers of effects on the stage. */
function listEffectNumbers(kit: Kit): SweptChoice[] {
  return (kit.moves ?? []).flatMap((move, m) =>
    listEffectFigures(move).map(({ field, value, path: inMove }) => {
      const path = ["moves", m, ...inMove];
      const name = `${move.name || move.id}: ${field} on the stage`;
      return {
        key: keyOf(path),
        words: `${name} (${value})`,
        name,
        swept: { kind: "number", path } as const,
        present: value,
        least: 0,
      };
    }),
  );
}

/**
 * Returns everything of a kit that can be swept: the numbers of its sentences and effects, and groups of
 * lengths.
 */
export function listSwept(kit: Kit): SweptChoice[] {
  const numbers = listNumbers(kit).map(choiceOf);
  const seen = new Set<string>();
  const single = [...numbers, ...listEffectNumbers(kit)].filter(({ key }) => {
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
  const groups = SWEPT_GROUPS.flatMap((group): SweptChoice[] => {
    const count = listGroup(kit, group).length;
    if (count < 2) return [];
    const name = GROUP_WORDS[group];
    const swept: Swept = { kind: "group", group };
    return [
      { key: `group ${group}`, words: `${name} (${count}), in percent`, name, swept, present: 100, least: 0 },
    ];
  });
  return [...single, ...groups];
}

/** Returns the default number of a sweep: a buffer, otherwise a length, otherwise any. */
export function firstSwept(choices: readonly SweptChoice[]): SweptChoice | undefined {
  return (
    choices.find(({ key }) => key.endsWith("buffer")) ??
    choices.find(({ swept }) => swept.kind === "length") ??
    choices[0]
  );
}

/**
 * Returns the control on which the move of a number is played, or the pattern that a move or a prompt uses; undefined if there
 * are several, or none whose presses are meant.
 */
export function controlOf(kit: Kit, { swept }: SweptChoice): string | undefined {
  if (swept.kind === "group") return undefined;
  const [list, index] = swept.path;
  const own = (kit[list as "patterns" | "moves"] ?? [])[index as number];
  const id =
    list === "moves" ? (own as Move | undefined)?.pattern : list === "patterns" ? own?.id : undefined;
  const pattern = kit.patterns.find(item => item.id === id);
  const isUsed =
    kit.moves?.some(move => move.pattern === id) || kit.prompts?.some(({ ask }) => ask.includes(id!));
  if (!pattern || !isUsed) return undefined;
  const played = traitsOf(pattern.kind).playedOn(pattern, kit);
  return played.length === 1 ? played[0] : undefined;
}

/** Returns the default range of a sweep: from 0 to about twice the present value, in its unit. */
export function firstRange({ swept, present, least }: SweptChoice): SweepRange {
  if (swept.kind === "group") return { from: 0, to: 300 };
  const from = Number.isFinite(least) ? Math.max(0, least) : 0;
  const room = swept.kind === "length" ? (swept.unit === "f" ? 20 : 400) : 10;
  return { from, to: Math.max(from + room, Math.ceil(present * 2)) };
}

/** The maximum number of values; in a wider range the step grows. */
const MAX_VALUES = 41;

/** Returns the values of a range, whole for whole numbers, including the present one if it is inside. */
export function listValues(from: number, to: number, present: number, most = MAX_VALUES): number[] {
  const step = Math.max(1, Math.ceil((to - from) / (most - 1)));
  const values = new Set<number>();
  for (let value = from; value <= to; value += step) values.add(value);
  values.add(to);
  if (present >= from && present <= to) values.add(present);
  return [...values].sort((a, b) => a - b);
}

/** Returns the present value of a number, in a kit that may have changed since it was chosen. */
export function presentOf(kit: Kit, choice: SweptChoice): number {
  return presentValue(kit, choice.swept) ?? choice.present;
}

/** Formats a value with its unit and, for a length, the other unit: "6f (100 ms)". */
export function formatSwept(value: number, { swept }: SweptChoice, rateHz: number): string {
  if (swept.kind === "group") return `${value} %`;
  if (swept.kind === "number") return String(value);
  if (swept.unit === "f") return `${value}f (${formatMs(value, rateHz)})`;
  return `${value} ms (${parseFrames(`${value}ms`, rateHz, "atMost") ?? 0}f)`;
}

/** Formats a value briefly, for axes. */
export function formatShort(value: number, { swept }: SweptChoice): string {
  if (swept.kind === "group") return `${value}%`;
  return swept.kind === "length" ? `${value}${swept.unit}` : String(value);
}

/** Returns whether the target of a path still exists. */
export function isThere(kit: Kit, { swept }: SweptChoice): boolean {
  return swept.kind === "group" || readAt(kit, swept.path.slice(0, 2)) !== undefined;
}
