import {
  BOUNDS,
  countFrames,
  createOutcomeReader,
  fault,
  formatFinding,
  finishOutcomes,
  readingKey,
  readOutcomes,
  readTake,
  type InputColumns,
  type Kit,
  type Program,
  type Result,
  type Take,
  type TakeOutcomes,
  type Trace,
} from "#core";
import { compileRules, createSeeker, runRules, type Rules, type Seeker } from "#stage";

/** A take as rules understand it. */
export interface Evaluated {
  readonly rules: Rules;
  readonly program: Program;
  readonly take: Take;
  readonly columns: InputColumns;
  readonly trace: Trace;
  /** How the bodies of the stage stood after each frame; empty where it has none that move. */
  readonly track: Float32Array;
}

/** What the answers of long work are put together from, so that they stand beside those worked out at once. */
export type EvaluatedParts = Pick<Evaluated, "columns" | "trace" | "track">;

/** Compiles kits and evaluates takes, each thing once: what was worked out stands as long as what it was made of. */
export interface Judge {
  /** A kit ready to run, or every fault found. The same object for the same kit. */
  readonly compile: (kit: Kit) => Result<Rules>;
  /** The rules of a kit for a picture of it; undefined while it has faults. */
  readonly rulesOf: (kit: Kit) => Rules | undefined;
  /** A take's lanes as the rules' frames read them; the rules need not be run for this. */
  readonly columnsOf: (rules: Rules, take: Take) => InputColumns;
  readonly evaluate: (rules: Rules, take: Take) => Evaluated;
  /** Makes what a worker found out part of what is known. */
  readonly learn: (rules: Rules, take: Take, parts: EvaluatedParts) => Evaluated;
  /** What is known of a take already; undefined where it has not been evaluated. */
  readonly known: (rules: Rules, take: Take) => Evaluated | undefined;
  /** Returns what became of every press and request of a take; the same object each time. */
  readonly outcomesOf: (evaluated: Evaluated) => TakeOutcomes;
  /** Reads the outcomes of a long take in slices; after it `outcomesOf` returns them at once. */
  readonly readOutcomes: (evaluated: Evaluated, rest: () => Promise<void>) => Promise<void>;
  /** Looks into an evaluated take: how the rules stood after any of its frames. */
  readonly seekerOf: (evaluated: Evaluated) => Seeker;
}

/** What is made of a key, once for each key, for as long as that lives. */
function createMemo<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const made = new WeakMap<K, { readonly value: V }>();
  return key => {
    let found = made.get(key);
    if (!found) made.set(key, (found = { value: make(key) }));
    return found.value;
  };
}

/** What is made of a key, kept for the keys asked for last: the history of undo keeps many kits alive, and each would keep all that was made of it. */
function createRecent<K, V>(most: number, make: (key: K) => V): (key: K) => V {
  const made = new Map<K, V>();
  return key => {
    const value = made.has(key) ? made.get(key)! : make(key);
    made.delete(key);
    made.set(key, value);
    if (made.size > most) made.delete(made.keys().next().value!);
    return value;
  };
}

/** So many versions of kits are kept compiled: the open one, variants, and those under the hand. */
const KEPT_COMPILED = 24;

/** A take's columns as one way of reading makes them. */
interface ReadOnce {
  columns?: InputColumns;
}

/** So many ways of reading a take are kept: the open kit's, and those of variants at other rates. */
const KEPT_READINGS = 4;

/** So many notes of a long trace are read between two rests: a few milliseconds of work. */
export const NOTES_A_REST = 10_000;

/** Makes a judge, which knows nothing yet. */
export function createJudge(): Judge {
  const compile = createRecent(KEPT_COMPILED, compileRules);
  const readingOf = createMemo(readingKey);
  const columnsByTake = createMemo<Take, (reading: string) => ReadOnce>(() =>
    createRecent(KEPT_READINGS, () => ({})),
  );
  const knownByRules = createMemo<Rules, WeakMap<Take, Evaluated>>(() => new WeakMap());
  const columnsOf: Judge["columnsOf"] = ({ program }, take) => {
    const kept = columnsByTake(take)(readingOf(program));
    return (kept.columns ??= readTake(program, take));
  };

  const outcomesByEvaluated = new WeakMap<Evaluated, TakeOutcomes>();
  function outcomesOf(evaluated: Evaluated): TakeOutcomes {
    let outcomes = outcomesByEvaluated.get(evaluated);
    if (!outcomes)
      outcomesByEvaluated.set(evaluated, (outcomes = readOutcomes(evaluated.program, evaluated.trace)));
    return outcomes;
  }

  function learn(rules: Rules, take: Take, parts: EvaluatedParts): Evaluated {
    const evaluated = { rules, program: rules.program, take, ...parts };
    knownByRules(rules).set(take, evaluated);
    return evaluated;
  }

  return {
    compile,
    rulesOf(kit) {
      const compiled = compile(kit);
      return compiled.ok ? compiled.value : undefined;
    },
    columnsOf,
    evaluate(rules, take) {
      const known = knownByRules(rules).get(take);
      if (known) return known;
      const columns = columnsOf(rules, take);
      return learn(rules, take, { columns, ...runRules(rules, columns) });
    },
    learn,
    known: (rules, take) => knownByRules(rules).get(take),
    outcomesOf,
    async readOutcomes(evaluated, rest) {
      if (outcomesByEvaluated.has(evaluated)) return;
      const { program, trace } = evaluated;
      const reader = createOutcomeReader(program, trace);
      for (let note = 0; note < trace.count; note += NOTES_A_REST) {
        reader.readTo(Math.min(trace.count, note + NOTES_A_REST));
        await rest();
      }
      outcomesByEvaluated.set(evaluated, finishOutcomes(reader));
    },
    seekerOf: createMemo(({ rules, columns }: Evaluated) => createSeeker(rules, columns)),
  };
}

/** Takes longer than this, at the kit's rate, are evaluated in a worker, so that the page never waits for them. Frames. */
export const LONG_TAKE_FRAMES = 20_000;

/** Is a take too long, at a kit's rate, to be evaluated while someone waits? */
export function isLong(take: Take, rateHz: number): boolean {
  return countFrames(take, rateHz) > LONG_TAKE_FRAMES;
}

/** Why a take cannot be run at a kit's rate at all, in words; empty where it can. */
export function whyTooLong(take: Take, rateHz: number): string {
  const frames = countFrames(take, rateHz);
  if (frames <= BOUNDS.frames) return "";
  return formatFinding(fault("long-at-rate", ["frames"], { frames, rate: rateHz, limit: BOUNDS.frames }));
}
