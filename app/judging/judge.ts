import {
  createOutcomeReader,
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

/** A take evaluated under rules. */
export interface Evaluated {
  readonly rules: Rules;
  readonly program: Program;
  readonly take: Take;
  readonly columns: InputColumns;
  readonly trace: Trace;
  /** The bodies of the stage after each frame; empty without moving bodies. */
  readonly track: Float32Array;
}

/** The result of a long evaluation from which an `Evaluated` is assembled. */
export type EvaluatedParts = Pick<Evaluated, "columns" | "trace" | "track">;

/** Compiles kits and evaluates takes, each once: results are cached as long as their inputs live. */
export interface Judge {
  /** Returns a compiled kit, or every fault. Cached per kit. */
  readonly compile: (kit: Kit) => Result<Rules>;
  /** Returns the rules of a kit; undefined while it has faults. */
  readonly rulesOf: (kit: Kit) => Rules | undefined;
  /** Returns a take's lanes as read at the rules' rate, without running the rules. */
  readonly columnsOf: (rules: Rules, take: Take) => InputColumns;
  readonly evaluate: (rules: Rules, take: Take) => Evaluated;
  /** Adds a worker's result to the cache. */
  readonly learn: (rules: Rules, take: Take, parts: EvaluatedParts) => Evaluated;
  /** Returns the cached evaluation of a take; undefined if it has not been evaluated. */
  readonly known: (rules: Rules, take: Take) => Evaluated | undefined;
  /** Returns the outcomes of every press and request of a take; cached. */
  readonly outcomesOf: (evaluated: Evaluated) => TakeOutcomes;
  /** Reads the outcomes of a long take in slices; afterwards `outcomesOf` returns them at once. */
  readonly readOutcomes: (evaluated: Evaluated, yieldToUi: () => Promise<void>) => Promise<void>;
  /** Returns random access to the state of an evaluated take. */
  readonly seekerOf: (evaluated: Evaluated) => Seeker;
}

/** Memoises by object key, for the lifetime of the key. */
function createMemo<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const made = new WeakMap<K, { readonly value: V }>();
  return key => {
    let found = made.get(key);
    if (!found) made.set(key, (found = { value: make(key) }));
    return found.value;
  };
}

/**
 * Memoises the most recent keys only: the undo history keeps many kits alive, and each would keep its
 * results.
 */
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

/** The number of compiled kits kept: the open one, variants, and those of a drag. */
const KEPT_COMPILED = 24;

/** A take's columns for one way of reading. */
interface ReadOnce {
  columns?: InputColumns;
}

/** The number of readings kept per take: the open kit's, and those of variants at other rates. */
const KEPT_READINGS = 4;

/** The number of notes of a long trace read between two yields, a few milliseconds of work. */
export const NOTES_A_REST = 10_000;

/** Creates an empty judge. */
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
      // The page is brought up to date in a task of its own.
      await rest();
    },
    seekerOf: createMemo(({ rules, columns }: Evaluated) => createSeeker(rules, columns)),
  };
}
