import type { PathStep } from "../formats/issue";
import { readTake, type InputColumns } from "../input/inputColumns";
import type { Take } from "../input/takeSchema";
import { compile } from "../kit/compile";
import { readAt, writeAt } from "../kit/editAt";
import type { Kit, Pattern } from "../kit/schema";
import { traitsOf } from "../patterns/recordOf";
import type { Program } from "../run/program";
import { run } from "../run/run";
import { parseFrames, type Rounding } from "../time/duration";
import { LAPSE_REASONS, LOSS_REASONS, type LapseReason, type Trace } from "../trace/trace";
import type { Fate } from "./outcomes/fate";
import { readOutcomes } from "./outcomes/readOutcomes";
import { findPrice, type Price } from "./price";

/** A number of the kit that could have saved a press: where it stands, and which way it would have to go. */
interface Lever {
  readonly path: readonly PathStep[];
  readonly rounding: Rounding;
  readonly direction: 1 | -1;
}

/** The smallest change of one number that would have saved a press, seen to save it by running the take again. */
export interface Repair {
  /** By how many frames the number must move. */
  readonly byFrames: number;
  readonly path: readonly PathStep[];
  /** The length as it is written ("0f" where it is not), and as it would have to be. */
  readonly from: string;
  readonly to: string;
  /** What else that change would alter, over all takes that were given. */
  readonly price: Price;
}

function lever(path: readonly PathStep[], rounding: Rounding, direction: 1 | -1): Lever {
  return { path, rounding, direction };
}

/** The numbers of a move that stand in the way for a reason. */
function leversOfLoss(kit: Kit, fate: Fate): Lever[] {
  return fate.losses.flatMap(loss => {
    const base = ["moves", loss.move] as const;
    const buffer = lever([...base, "buffer"], "atMost", 1);
    const needs = (kit.moves![loss.move]!.needs ?? []).map((_, k) =>
      lever([...base, "needs", k, "coyote"], "atMost", 1),
    );
    switch (LOSS_REASONS[loss.reason]!) {
      case "gate": {
        const gate = (kit.gates ?? [])[loss.because];
        const spent = gate ? [lever(["gates", loss.because, "spentFor"], "atLeast", -1)] : [];
        return [buffer, ...needs, ...spent];
      }
      case "cooldown":
        return [buffer, lever([...base, "cooldown"], "atLeast", -1)];
      case "late":
      case "ban":
      case "busy":
      case "uses":
        return [
          buffer,
          ...(kit.moves![loss.move]!.defer === undefined ? [] : [lever([...base, "defer"], "atLeast", -1)]),
        ];
      default:
        return [];
    }
  });
}

/** The numbers of a pattern that made it lapse. */
function leversOfLapse(pattern: Pattern, i: number, why: LapseReason): Lever[] {
  return (traitsOf(pattern.kind).levers?.(pattern, why) ?? []).map(({ path, rounding, direction }) =>
    lever(["patterns", i, ...path], rounding, direction),
  );
}

function leversOf(kit: Kit, fate: Fate): Lever[] {
  if (fate.outcome === "lost") return leversOfLoss(kit, fate);
  if (fate.outcome !== "lapsed") return [];
  const told = new Set(["too-short", "too-long", "too-slow"]);
  return fate.lapses.flatMap(({ pattern, reason }) =>
    told.has(LAPSE_REASONS[reason]!)
      ? leversOfLapse(kit.patterns[pattern]!, pattern, LAPSE_REASONS[reason]!)
      : [],
  );
}

function isSaved(fate: Fate, now: Fate | undefined): boolean {
  return now?.outcome === "used" || (fate.outcome === "lapsed" && now?.outcome === "fired");
}

/** A kit made ready to run: one that has a stage is run on it by whoever knows stages. Undefined while it has faults. */
export type PrepareRun = (kit: Kit) => PreparedKit | undefined;

/** A kit ready to run. */
export interface PreparedKit {
  readonly program: Program;
  readonly run: (columns: InputColumns) => Trace;
  /** Judges a whole run by checks, those that are asked of its take at the kit's own rate; left out, none are. */
  readonly judge?: (trace: Trace, takeId: string) => readonly JudgedCheck[];
}

/** What one check, by its place in the list of checks, finds in a run. */
export interface JudgedCheck {
  readonly check: number;
  readonly ok: boolean;
}

const prepareBare: PrepareRun = kit => {
  const compiled = compile(kit);
  if (!compiled.ok) return undefined;
  const program = compiled.value;
  return { program, run: columns => run(program, columns) };
};

/** Returns the fate that a press has in another run of its take; undefined where there is no such press edge. */
function findPress(program: Program, trace: Trace, { control, frame }: Fate): Fate | undefined {
  return readOutcomes(program, trace).presses.find(
    other => other.frame === frame && other.control === control,
  );
}

/** Runs the take under a changed kit, up to a frame, and tells whether the press is saved there. */
function tryChange(
  kit: Kit,
  columns: InputColumns,
  fate: Fate,
  change: Lever,
  frames: number,
  prepare: PrepareRun,
): Trace | undefined {
  const ready = prepare(writeAt(kit, change.path, `${frames}f`));
  if (!ready) return undefined;
  const trace = ready.run(columns);
  const now = findPress(ready.program, trace, fate);
  return isSaved(fate, now) ? trace : undefined;
}

/** The fewest frames by which a number must move, and the trace that shows it; undefined when none within reach does. */
function searchLever(
  kit: Kit,
  columns: InputColumns,
  fate: Fate,
  change: Lever,
  mostFrames: number,
  prepare: PrepareRun,
) {
  const written = readAt(kit, change.path);
  const from = typeof written === "string" ? written : "0f";
  const now = parseFrames(from, kit.rate, change.rounding) ?? 0;
  const reach = change.direction > 0 ? mostFrames : Math.min(mostFrames, now);
  for (let by = 1; by <= reach; by++) {
    if (tryChange(kit, columns, fate, change, now + change.direction * by, prepare)) {
      return { by, from, to: `${now + change.direction * by}f` };
    }
  }
  return undefined;
}

/** Frames after the loss that are still run while searching: a saved press comes out within this. */
const MARGIN_FRAMES = 120;

/** What a search for repairs goes by. */
export interface RepairSearch {
  /** How far each number is moved, in frames; half a second where not given. */
  readonly mostFrames?: number;
  /** How a kit is made ready to run, for kits with a stage; the core's own way where not given. */
  readonly prepare?: PrepareRun;
  /** Only the repair that needs the fewest frames is wanted: the search is shorter. */
  readonly isNearestOnly?: boolean;
  /** Other takes over which the price is counted, besides the one the press is in. */
  readonly others?: readonly Take[];
}

/**
 * For a press that was lost or lapsed: what would have saved it, nearest first. Every number that stood in its way is
 * moved frame by frame and the take run again; for each number the smallest move that saves the press is a repair, with
 * what else it alters. On a tie the order of the reasons. Empty when no single number within reach saves it, or when
 * there is nothing to save.
 */
export function findRepairs(
  kit: Kit,
  take: Take,
  fate: Fate,
  {
    mostFrames = Math.ceil(kit.rate / 2),
    prepare = prepareBare,
    isNearestOnly = false,
    others = [],
  }: RepairSearch = {},
): Repair[] {
  const ready = prepare(kit);
  if (!ready) return [];
  const columns = readTake(ready.program, take);
  const lastFrame = Math.max(
    fate.frame,
    ...fate.losses.map(loss => loss.frame),
    ...fate.lapses.map(lapse => lapse.frame),
  );
  const short = { ...columns, frames: Math.min(columns.frames, lastFrame + mostFrames + MARGIN_FRAMES) };
  const found: { by: number; from: string; to: string; change: Lever }[] = [];
  const seen = new Set<string>();
  for (const change of leversOf(kit, fate)) {
    if (seen.has(change.path.join())) continue;
    seen.add(change.path.join());
    const most = isNearestOnly && found[0] ? found[0].by - 1 : mostFrames;
    const by = most > 0 ? searchLever(kit, short, fate, change, most, prepare) : undefined;
    if (by && isNearestOnly) found.length = 0;
    if (by) found.push({ ...by, change });
  }
  return found
    .sort((a, b) => a.by - b.by)
    .map(({ by, from, to, change }) => {
      const price = priceOfChange(kit, [take, ...others], fate, writeAt(kit, change.path, to), prepare);
      return { byFrames: by, path: change.path, from, to, price };
    });
}

/** What a changed kit alters in takes; the press the change is for is in the first of them. */
function priceOfChange(
  kit: Kit,
  takes: readonly Take[],
  fate: Fate,
  changed: Kit,
  prepare: PrepareRun,
): Price {
  const was = prepare(kit)!;
  const is = prepare(changed)!;
  return findPrice(
    takes.map((take, k) => {
      const before = was.run(readTake(was.program, take));
      const after = is.run(readTake(is.program, take));
      if (k > 0) return { before, after };
      const saved = findPress(is.program, after, fate);
      return { before, after, wanted: saved && { before: fate, after: saved } };
    }),
  );
}

/** The words for a number of the kit, by the last field of its path. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  buffer: "remember for",
  coyote: "forgive for",
  max: "allow",
  for: "hold for",
  min: "charge from",
  full: "be full at",
  gap: "allow a gap of",
  spread: "allow a spread of",
  total: "allow in all",
  limit: "allow up to",
  cooldown: "cool down for",
  defer: "wait only",
  spentFor: "stay spent for",
};

/** A repair as an offer, with the rule it changes: "Hop: remember for 9f instead of 6f". What it costs: formatPrice. */
export function formatRepair(kit: Kit, { path, from, to }: Repair): string {
  const field = String(path.findLast(step => typeof step === "string"));
  const rule = readAt(kit, path.slice(0, 2)) as { readonly id: string; readonly name: string };
  return `${rule.name || rule.id}: ${FIELD_WORDS[field] ?? field} ${to} instead of ${from}`;
}
