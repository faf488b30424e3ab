import type { PathStep } from "../formats/issue";
import { readTake, type InputColumns } from "../input/inputColumns";
import { readingKey } from "../input/readingKey";
import type { Take } from "../input/takeSchema";
import { readAt, writeAt } from "../kit/editAt";
import type { Kit } from "../kit/schema";
import type { Program } from "../program/program";
import { LONGEST_WRITTEN, parseFrames, type Rounding } from "../time/duration";
import type { Trace } from "../trace/trace";
import type { Fate } from "./outcomes/fate";
import { readOutcomes } from "./outcomes/readOutcomes";
import { findPrice, type Price, type RunPair } from "./price";
import type { PreparedKit, PrepareRun } from "./prepareRun";

/** A press that a change should save: the index of its take among those tried, its control and its frame. */
export interface WantedPress {
  readonly take: number;
  readonly control: number;
  readonly frame: number;
}

/** The effect of a change, found by running every take with it. */
export interface TriedChange {
  /** The wanted presses that are used with the change, or fire instead of only lapsing. */
  readonly saved: readonly WantedPress[];
  /** All other effects over all takes. */
  readonly price: Price;
}

/** Runs takes under a kit and under changes of it. Every offer of the application comes from one. */
export interface Trier {
  /** Returns the effects of a change over all takes; undefined if the changed kit has faults. */
  readonly tryChange: (changed: Kit, wanted: readonly WantedPress[]) => TriedChange | undefined;
  /** Returns the wanted presses that a change saves; runs only the takes that contain them. */
  readonly listSaved: (changed: Kit, wanted: readonly WantedPress[]) => readonly WantedPress[];
}

/** A number of the kit that may change: its path, and the direction of the change. */
export interface Lever {
  readonly path: readonly PathStep[];
  readonly rounding: Rounding;
  readonly direction: 1 | -1;
  /** The default length if none is written. */
  readonly base: string;
}

/** The smallest change of one number that saves a wanted press, with its effects over all takes. */
export interface SmallestChange extends TriedChange {
  readonly byFrames: number;
  /** The length as written, and its new value. */
  readonly from: string;
  readonly to: string;
}

interface Run {
  readonly trace: Trace;
  readonly fates: ReadonlyMap<string, Fate>;
}

const keyOf = ({ control, frame }: Pick<Fate, "control" | "frame">) => `${control} ${frame}`;

/** Returns whether a press unused before the change is used after it. */
export function isSaved(before: Fate | undefined, after: Fate | undefined): boolean {
  if (!before || !after || before.outcome === "used") return false;
  return after.outcome === "used" || (before.outcome === "lapsed" && after.outcome === "fired");
}

/** Caches each take's columns as long as the changes do not affect how takes are read. */
function createColumnsCache(): (program: Program, take: Take) => InputColumns {
  let reading = "";
  let known = new Map<Take, InputColumns>();
  return (program, take) => {
    const key = readingKey(program);
    if (key !== reading) [reading, known] = [key, new Map()];
    let columns = known.get(take);
    if (!columns) known.set(take, (columns = readTake(program, take)));
    return columns;
  };
}

/**
 * Creates the trier of a kit over takes; the takes' own runs are computed on first use. Returns undefined if
 * the kit has faults.
 */
export function createTrier(kit: Kit, takes: readonly Take[], prepare: PrepareRun): Trier | undefined {
  const ready = prepare(kit);
  if (!ready) return undefined;
  const columnsOf = createColumnsCache();
  const runWith = ({ program, run }: PreparedKit, take: Take): Run => {
    const trace = run(columnsOf(program, take));
    const { presses } = readOutcomes(program, trace);
    return { trace, fates: new Map(presses.map(fate => [keyOf(fate), fate])) };
  };
  const own: (Run | undefined)[] = takes.map(() => undefined);
  const ownRun = (t: number) => (own[t] ??= runWith(ready, takes[t]!));
  const savedIn = (t: number, after: Run, wanted: readonly WantedPress[]) =>
    wanted.filter(
      press => press.take === t && isSaved(ownRun(t).fates.get(keyOf(press)), after.fates.get(keyOf(press))),
    );
  return {
    listSaved(changed, wanted) {
      const now = prepare(changed);
      if (!now) return [];
      return [...new Set(wanted.map(({ take }) => take))].flatMap(t =>
        savedIn(t, runWith(now, takes[t]!), wanted),
      );
    },
    tryChange(changed, wanted) {
      const now = prepare(changed);
      if (!now) return undefined;
      const saved: WantedPress[] = [];
      const pairs = takes.map((take, t): RunPair => {
        const [before, after] = [ownRun(t), runWith(now, take)];
        const here = savedIn(t, after, wanted);
        saved.push(...here);
        const fates = here.map(press => ({
          before: before.fates.get(keyOf(press))!,
          after: after.fates.get(keyOf(press))!,
        }));
        return { before: before.trace, after: after.trace, wanted: fates };
      });
      return { saved, price: findPrice(pairs) };
    },
  };
}

/**
 * Searches for the smallest change of a number, in frames, that saves at least one wanted press; yields the
 * frames tried so far, so that it can be cancelled. Returns undefined if none up to `mostFrames` does.
 */
export function* searchSmallest(
  trier: Trier,
  kit: Kit,
  lever: Lever,
  wanted: readonly WantedPress[],
  mostFrames: number,
): Generator<number, SmallestChange | undefined> {
  const written = readAt(kit, lever.path);
  const from = typeof written === "string" ? written : lever.base;
  const now = parseFrames(from, kit.rate, lever.rounding) ?? 0;
  const reach = Math.min(mostFrames, lever.direction > 0 ? LONGEST_WRITTEN - now : now);
  for (let by = 1; by <= reach; by++) {
    const to = `${now + lever.direction * by}f`;
    const changed = writeAt(kit, lever.path, to);
    if (trier.listSaved(changed, wanted).length > 0) {
      const tried = trier.tryChange(changed, wanted);
      return tried && { ...tried, byFrames: by, from, to };
    }
    yield by;
  }
  return undefined;
}
