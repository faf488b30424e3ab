import { dequal } from "dequal";
import { createStore, type StoreApi } from "zustand/vanilla";
import {
  compileCheck,
  appliesTo,
  groupBy,
  ratesOf,
  type Check,
  type Issue,
  type Kit,
  type Take,
} from "#core";
import { compileRules, type TakeVerdict } from "#stage";
import type { Judge } from "../judging/judge";
import { whyTooLong } from "../judging/longTake";
import type { JobHandle, Jobs } from "../judging/jobs/jobs";
import type { ProvedTake } from "../judging/jobs/prove";
import type { CheckSum } from "../ui/checkSum";
import type { Workbench } from "./workbench";

/** The verdicts in one take: for each check by its id, one verdict per rate. */
export type Verdicts = ReadonlyMap<string, readonly TakeVerdict[]>;

/** The results of the open kit's checks. */
export interface Proof {
  /**
   * By the take's id. While takes are judged again the previous results remain; `isCurrent` shows which are
   * up to date.
   */
  readonly found: ReadonlyMap<string, Verdicts>;
  /** The results before the last step of the history; undefined before there was one. */
  readonly beforeStep: ReadonlyMap<string, Verdicts> | undefined;
  /** Takes whose results belong to the current kit and checks. */
  readonly isCurrent: ReadonlySet<string>;
  /** The faults that prevent a check from being judged, by its id, such as a name the kit lacks. */
  readonly faults: ReadonlyMap<string, readonly Issue[]>;
  readonly isWorking: boolean;
  /** The reason why takes could not be judged; empty if they could. */
  readonly trouble: string;
  /**
   * The number of checks that are on and have a take to be judged on, and of those that hold: on every one of their takes, at
   * every rate. A check that cannot be judged or names a missing take does not hold, nor one that nothing in any of its takes
   * could have made fail; those are `vacuous`.
   */
  readonly asked: number;
  readonly holds: number;
  readonly vacuous: number;
  /** The number of results that are not known: not judged yet, or not at all. */
  readonly unknown: number;
}

const NOTHING: Proof = {
  found: new Map(),
  beforeStep: undefined,
  isCurrent: new Set(),
  faults: new Map(),
  isWorking: false,
  trouble: "",
  asked: 0,
  holds: 0,
  vacuous: 0,
  unknown: 0,
};

const LANES = ["prove 1", "prove 2"] as const;
/** With fewer takes one worker suffices, and the other stays free for other jobs. */
const FEW_TAKES = 12;
/** With fewer cores two workers would leave none for the page, which must render a frame every 16 ms. */
const ENOUGH_CORES = 3;

/** Returns the verdicts in one take by the id of their check. `checks`: those that were judged, in their order. */
export function toVerdicts(checks: readonly Check[], verdicts: readonly TakeVerdict[]): Verdicts {
  return groupBy(verdicts, ({ check }) => checks[check]!.id);
}

/**
 * Counts the checks that hold on all of their takes, and those that nothing in any of them could have made fail; missing takes and
 * checks that cannot be judged do not hold.
 */
export function sumUp(
  { found, faults }: Pick<Proof, "found" | "faults">,
  kit: Kit,
  checks: readonly Check[],
  takes: readonly Take[],
): CheckSum & Pick<Proof, "unknown"> {
  let [asked, holds, vacuous, unknown] = [0, 0, 0, 0];
  for (const check of checks) {
    if (check.off) continue;
    const rates = ratesOf(check, kit.rate).length;
    const missing = check.on === "*" ? 0 : check.on.filter(id => !takes.some(take => take.id === id)).length;
    let [own, known, isOk, isVacuous] = [0, 0, true, true];
    for (const take of takes) {
      if (!appliesTo(check, take.id)) continue;
      own++;
      const verdicts = found.get(take.id)?.get(check.id) ?? [];
      known += verdicts.length;
      isOk &&= verdicts.every(verdict => verdict.ok);
      isVacuous &&= verdicts.every(verdict => verdict.vacuous);
    }
    if (missing + own === 0) continue;
    asked++;
    if (faults.has(check.id)) continue;
    const left = Math.max(0, rates * own - known);
    unknown += left;
    if (missing > 0 || left > 0 || !isOk) continue;
    if (isVacuous) vacuous++;
    else holds++;
  }
  return { asked, holds, vacuous, unknown };
}

/** The inputs of a proof: takes are judged again when any of them changes. */
interface Subject {
  readonly kit: Kit;
  readonly checks: readonly Check[];
  readonly takes: readonly Take[];
}

interface ProvingWorld {
  readonly cores: number;
  readonly nowMs: () => number;
  readonly setTimer: (ms: number, run: () => void) => () => void;
}

/**
 * The minimum interval between two rounds while a number is dragged, so that some results arrive in between;
 * ms.
 */
const BREATH_MS = 120;

/**
 * Creates the proof, which follows the workbench: judges every take by every check at each edit, in workers,
 * and publishes results as they arrive.
 */
export function createProving(
  workbench: Pick<Workbench, "getState" | "subscribe" | "keepCheckTally" | "history">,
  judge: Pick<Judge, "compile">,
  jobs: Pick<Jobs, "ask">,
  { cores, nowMs, setTimer }: ProvingWorld,
): StoreApi<Proof> {
  const store = createStore<Proof>(() => NOTHING);
  let asking: readonly JobHandle<"prove">[] = [];
  let turn = 0;
  let beganMs = -Infinity;
  let callOff: (() => void) | undefined;
  /** The last complete results, and the step of the history that they belong to. */
  let whole: { readonly step: unknown; readonly found: Proof["found"] } | undefined;

  /** Leaves out the checks that name something the kit lacks, or use a rate at which it has faults. */
  function sift({ kit, checks }: Subject): { sound: Check[]; faults: Map<string, readonly Issue[]> } {
    const faults = new Map<string, readonly Issue[]>();
    const compiled = new Map<number, ReturnType<typeof compileRules>>();
    const rulesAt = (rate: number) => {
      const known =
        compiled.get(rate) ?? (rate === kit.rate ? judge.compile(kit) : compileRules({ ...kit, rate }));
      compiled.set(rate, known);
      return known;
    };
    const sound = checks.filter(check => {
      for (const rate of ratesOf(check, kit.rate)) {
        const rules = rulesAt(rate);
        const ready = rules.ok ? compileCheck(rules.value.program, kit.rate, check) : rules;
        if (!ready.ok) faults.set(check.id, ready.issues);
      }
      return !faults.has(check.id);
    });
    return { sound, faults };
  }

  function begin(subject: Subject): void {
    const own = ++turn;
    beganMs = nowMs();
    asking.forEach(asked => asked.stop());
    asking = [];
    const { kit, checks } = subject;
    const sifted = sift(subject);
    const { sound } = sifted;
    const takes = subject.takes.filter(take => whyTooLong(take, kit.rate) === "");
    const was = store.getState();
    // Unchanged results keep their identity, so that they need not be drawn again.
    const faults = dequal(sifted.faults, was.faults) ? was.faults : sifted.faults;
    const show = (change: Partial<Proof>) => {
      const next = { ...store.getState(), ...change };
      store.setState({ ...change, ...sumUp(next, kit, checks, subject.takes) });
    };
    /** Runs when the history has the edit, of which the proof hears before. */
    const onRecorded = (run: (step: unknown) => void) =>
      queueMicrotask(() => own === turn && run(workbench.history.getState().pastStates.at(-1)));
    onRecorded(step => whole && whole.step !== step && show({ beforeStep: whole.found }));
    const isIdle = sound.length === 0 || takes.length === 0;
    show({
      faults,
      isCurrent: new Set(),
      trouble: "",
      isWorking: !isIdle,
      ...(isIdle ? { found: new Map() } : {}),
    });
    const finish = () => {
      onRecorded(step => (whole = { step, found: store.getState().found }));
      keep(store.getState());
    };
    if (isIdle) return finish();
    const halves = takes.length <= FEW_TAKES || cores < ENOUGH_CORES ? 1 : LANES.length;
    let left = halves;
    const known = new Map(takes.flatMap(({ id }) => (was.found.has(id) ? [[id, was.found.get(id)!]] : [])));
    const current = new Set<string>();
    const addVerdicts = (half: readonly Take[], proved: readonly ProvedTake[]) => {
      if (own !== turn) return;
      for (const { take, verdicts } of proved) {
        const { id } = half[take]!;
        const now = toVerdicts(sound, verdicts);
        if (!dequal(known.get(id), now)) known.set(id, now);
        current.add(id);
      }
      show({ found: new Map(known), isCurrent: new Set(current) });
    };
    asking = LANES.slice(0, halves).map((lane, h) => {
      const half = takes.filter((_, t) => t % halves === h);
      const question = { kit, checks: sound };
      const onProgress = ({ partial }: { readonly partial?: unknown }) =>
        addVerdicts(half, partial as readonly ProvedTake[]);
      const asked = jobs.ask({ job: "prove", question, takes: half, lane, onProgress });
      void asked.outcome.then(outcome => {
        if (own !== turn) return;
        left--;
        if (outcome.state === "done") addVerdicts(half, outcome.value);
        const trouble = outcome.state === "failed" ? outcome.reason : store.getState().trouble;
        show({ isWorking: left > 0, trouble });
        if (left === 0 && !trouble) finish();
      });
      return asked;
    });
  }

  /** Stores the summary with the kit, for the shelf. */
  function keep({ asked, holds, vacuous, unknown }: Proof): void {
    if (unknown > 0) return;
    const { checkTally, holder } = workbench.getState();
    const kept = checkTally ?? NOTHING;
    const isKept = kept.asked === asked && kept.holds === holds && kept.vacuous === vacuous;
    if (holder !== "ours" || isKept) return;
    workbench.keepCheckTally({ asked, holds, vacuous });
  }

  const follow = (now: ReturnType<Workbench["getState"]>, before?: typeof now) => {
    const isSame =
      before !== undefined &&
      now.kit === before.kit &&
      now.checks === before.checks &&
      now.takes === before.takes;
    if (isSame) return;
    if (!now.kit || now.kit.id !== before?.kit?.id) {
      turn++;
      asking.forEach(asked => asked.stop());
      asking = [];
      whole = undefined;
      store.setState(NOTHING, true);
    }
    callOff?.();
    callOff = undefined;
    const { kit, checks, takes } = now;
    if (!kit) return;
    const waitMs = store.getState().isWorking ? beganMs + BREATH_MS - nowMs() : 0;
    if (waitMs <= 0) begin({ kit, checks, takes });
    else callOff = setTimer(waitMs, () => begin({ kit, checks, takes }));
  };
  follow(workbench.getState());
  workbench.subscribe(follow);
  return store;
}
