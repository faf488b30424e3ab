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
import { diffTraces, type Difference } from "./diffTraces";
import { listFates, type Fate } from "./fates";

/** A number of the kit that could have saved a press: where it stands, and which way it would have to go. */
interface Lever {
  readonly path: readonly PathStep[];
  readonly rounding: Rounding;
  readonly direction: 1 | -1;
}

/** The smallest single change that would have saved a press, seen to save it by running the take again. */
export interface NearestMiss {
  /** By how many frames it was missed. */
  readonly missFrames: number;
  readonly path: readonly PathStep[];
  /** The length as it is written ("0f" where it is not), and as it would have to be. */
  readonly from: string;
  readonly to: string;
  /** What else that change would alter in this take. */
  readonly alsoChanges: readonly Difference[];
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
        const gate = (kit.gates ?? [])[loss.gate];
        const spent = gate ? [lever(["gates", loss.gate, "spentFor"], "atLeast", -1)] : [];
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
export type PrepareRun = (
  kit: Kit,
) => { readonly program: Program; readonly run: (columns: InputColumns) => Trace } | undefined;

const prepareBare: PrepareRun = kit => {
  const compiled = compile(kit);
  if (!compiled.ok) return undefined;
  const program = compiled.value;
  return { program, run: columns => run(program, columns) };
};

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
  const now = listFates(ready.program, trace).find(
    other => other.frame === fate.frame && other.control === fate.control,
  );
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

/**
 * For a press that was lost or lapsed: the smallest change to one number of the kit that would have saved it. Every
 * number that stood in its way is moved frame by frame (up to `mostFrames`, half a second where not given) and the
 * take run again; the one that needs the fewest frames wins, the first in the order of the reasons on a tie.
 * Undefined when no single number within reach saves it, or when there is nothing to save. `prepare`: how a kit is
 * made ready to run, for kits with a stage; the core's own way where not given.
 */
export function findNearestMiss(
  kit: Kit,
  take: Take,
  fate: Fate,
  mostFrames = Math.ceil(kit.rate / 2),
  prepare: PrepareRun = prepareBare,
): NearestMiss | undefined {
  const ready = prepare(kit);
  if (!ready) return undefined;
  const columns = readTake(ready.program, take);
  const lastFrame = Math.max(
    fate.frame,
    ...fate.losses.map(loss => loss.frame),
    ...fate.lapses.map(lapse => lapse.frame),
  );
  const short = { ...columns, frames: Math.min(columns.frames, lastFrame + mostFrames + MARGIN_FRAMES) };
  let best: { by: number; from: string; to: string; change: Lever } | undefined;
  for (const change of leversOf(kit, fate)) {
    const most = best ? best.by - 1 : mostFrames;
    const found = most > 0 ? searchLever(kit, short, fate, change, most, prepare) : undefined;
    if (found) best = { ...found, change };
  }
  if (!best) return undefined;
  const changed = prepare(writeAt(kit, best.change.path, best.to));
  if (!changed) return undefined;
  const differences = diffTraces(ready.run(columns), changed.run(columns));
  const alsoChanges = differences.filter(difference => !isOwnRescue(difference, fate));
  return { missFrames: best.by, path: best.change.path, from: best.from, to: best.to, alsoChanges };
}

/** Is this difference the rescue itself: the loss that is gone, or the move that is performed in its place? */
function isOwnRescue({ kind, index, what, made }: Difference, fate: Fate): boolean {
  const isOwn = fate.losses.some(loss => loss.move === index && loss.made === made);
  return isOwn && ((kind === "lost" && what === "gone") || (kind === "performed" && what === "new"));
}
