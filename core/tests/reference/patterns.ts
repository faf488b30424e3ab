import { evaluateEasing, parseEasing } from "../../curve/easing";
import type { PatternOf } from "../../kit/schema";
import { parseFrames } from "../../time/duration";
import type { View } from "./view";

export type Edge = readonly [source: string, frame: number];

/** The event of a pattern on one frame. */
export interface Event {
  readonly fires?: { readonly edges: readonly Edge[]; readonly carries?: Readonly<Record<string, number>> };
  readonly lapses?: { readonly why: string; readonly reached?: number };
}

/** A pattern followed frame by frame, as literally as the rules are written. */
export interface Watcher {
  step(view: View): Event;
  /**
   * Whether the input of the last fire is still down, and whether an attempt is under way. Call after `step`.
   */
  isSustained(view: View): boolean;
  isForming(view: View): boolean;
  /** Called when one of its controls was hidden while down. */
  startOver(view: View, hasLapsed: boolean): void;
  /** Called at the end of a frame, with whether the pattern is forming. */
  close?(isForming: boolean): void;
  /** For a sequence: the steps the best choice has made in its current attempt. */
  reached?(): number;
}

/** Lengths in hundredths of a frame. */
export class Lengths {
  constructor(private readonly rate: number) {}
  atLeast = (text: string | undefined, without = 0) =>
    text === undefined ? without : 100 * parseFrames(text, this.rate, "atLeast")!;
  atMost = (text: string | undefined, without = Infinity) =>
    text === undefined ? without : 100 * parseFrames(text, this.rate, "atMost")!;
}

const NOTHING: Event = {};
const lapses = (why: string): Event => ({ lapses: { why } });

function watchPress(pattern: PatternOf<"press">, lengths: Lengths): Watcher {
  const { control, repeat } = pattern;
  let press: { fires: number; mark: number } | undefined;
  const firstMark = lengths.atLeast(repeat?.after);
  const every = Math.max(100, lengths.atLeast(repeat?.every));
  const fire = (view: View): Event => ({
    fires: { edges: [[control, view.pressOf(control)]], carries: { repeat: press!.fires++ } },
  });
  return {
    step(view) {
      if (view.isPressed(control)) {
        press = { fires: 0, mark: firstMark };
        if (repeat) while (press.mark <= 0) press.mark += every;
        return fire(view);
      }
      if (!view.isDown(control)) press = undefined;
      if (!press || !repeat || view.age(view.pressOf(control)) < press.mark) return NOTHING;
      while (press.mark <= view.age(view.pressOf(control))) press.mark += every;
      return fire(view);
    },
    isSustained: view => press !== undefined && view.isDown(control),
    isForming: () => false,
    startOver: () => void (press = undefined),
  };
}

function watchRelease({ control }: PatternOf<"release">): Watcher {
  let isFollowed = false;
  return {
    step(view) {
      if (view.isPressed(control)) isFollowed = true;
      if (!isFollowed || view.isDown(control)) return NOTHING;
      isFollowed = false;
      const press = view.pressOf(control);
      return { fires: { edges: [[control, press]], carries: { held: view.age(press) / 100 } } };
    },
    isSustained: () => false,
    isForming: () => isFollowed,
    startOver: () => void (isFollowed = false),
  };
}

function watchTap(pattern: PatternOf<"tap">, lengths: Lengths): Watcher {
  const { control } = pattern;
  const max = lengths.atMost(pattern.max);
  let isFollowed = false;
  return {
    step(view) {
      if (view.isPressed(control)) {
        isFollowed = true;
        return NOTHING;
      }
      if (!isFollowed) return NOTHING;
      if (view.age(view.pressOf(control)) > max) {
        isFollowed = false;
        return lapses("too-long");
      }
      if (view.isDown(control)) return NOTHING;
      isFollowed = false;
      return { fires: { edges: [[control, view.pressOf(control)]] } };
    },
    isSustained: () => false,
    isForming: () => isFollowed,
    startOver: () => void (isFollowed = false),
  };
}

function watchHold(pattern: PatternOf<"hold">, lengths: Lengths): Watcher {
  const { control, fire, cancel, repeat } = pattern;
  const length = lengths.atLeast(pattern.for);
  const max = lengths.atMost(pattern.max);
  const every = repeat ? Math.max(100, lengths.atLeast(repeat.every)) : undefined;
  let stage: "none" | "alive" | "reached" = "none";
  let mark = 0;
  const fires = (view: View): Event => ({ fires: { edges: [[control, view.pressOf(control)]] } });
  function grow(view: View): Event {
    const age = view.age(view.pressOf(control));
    if (fire === "reach") {
      if (age >= length) {
        stage = view.isDown(control) ? "reached" : "none";
        mark = length;
        if (every !== undefined) while (mark <= age) mark += every;
        return fires(view);
      }
      if (view.isDown(control)) return NOTHING;
      stage = "none";
      return lapses("too-short");
    }
    if (age > max) {
      stage = "none";
      return lapses("too-long");
    }
    if (view.isDown(control)) return NOTHING;
    stage = "none";
    return age >= length ? fires(view) : lapses("too-short");
  }
  return {
    step(view) {
      if (stage === "reached" && !view.isDown(control)) stage = "none";
      if (view.isPressed(control)) stage = "alive";
      const hasMore = stage === "reached" && every !== undefined;
      if ((stage === "alive" || hasMore) && view.isAnyPressed(cancel)) {
        stage = "none";
        return lapses("cancelled");
      }
      if (stage === "alive") return view.isPressed(control) ? NOTHING : grow(view);
      if (!hasMore || view.age(view.pressOf(control)) < mark) return NOTHING;
      while (mark <= view.age(view.pressOf(control))) mark += every;
      return fires(view);
    },
    isSustained: () => stage === "reached",
    isForming: () => stage === "alive",
    startOver: () => void (stage = "none"),
  };
}

function watchCharge(pattern: PatternOf<"charge">, lengths: Lengths): Watcher {
  const { control, fire, cancel } = pattern;
  const from = lengths.atLeast(pattern.from);
  const full = lengths.atLeast(pattern.full);
  const min = lengths.atLeast(pattern.min);
  const limit = lengths.atMost(pattern.limit);
  const curve = parseEasing(pattern.curve ?? "linear");
  if (!curve.ok) throw new Error("the curve must read");
  const easing = curve.value;
  const [low, high] = pattern.output ?? [0, 1];
  const levels = (pattern.levels ?? []).map(level => lengths.atLeast(level.at));
  let stage: "none" | "alive" | "fired" = "none";
  function fires(view: View): Event {
    const age = view.age(view.pressOf(control));
    const ratio = Math.min(1, Math.max(0, (age - from) / (full - from)));
    const value = low + (high - low) * evaluateEasing(easing, ratio);
    const level = levels.filter(at => at <= age).length;
    return {
      fires: { edges: [[control, view.pressOf(control)]], carries: { age: age / 100, ratio, level, value } },
    };
  }
  return {
    step(view) {
      if (stage === "fired" && !view.isDown(control)) stage = "none";
      if (view.isPressed(control)) stage = "alive";
      if (stage !== "alive") return NOTHING;
      if (view.isAnyPressed(cancel)) {
        stage = "none";
        return lapses("cancelled");
      }
      if (view.isPressed(control)) return NOTHING;
      const age = view.age(view.pressOf(control));
      if (age > limit) {
        stage = "none";
        return lapses("too-long");
      }
      if (fire !== "release" && age >= full) {
        stage = view.isDown(control) ? "fired" : "none";
        return fires(view);
      }
      if (view.isDown(control)) return NOTHING;
      stage = "none";
      return fire === "full" || age < min ? lapses("too-short") : fires(view);
    },
    isSustained: () => stage === "fired",
    isForming: () => stage === "alive",
    startOver: () => void (stage = "none"),
  };
}

function watchTaps(pattern: PatternOf<"taps">, lengths: Lengths): Watcher {
  const { control, count, answer } = pattern;
  const gap = lengths.atMost(pattern.gap);
  const max = lengths.atMost(pattern.max);
  let chain: number[] = [];
  let isHot = false;
  let isLastHeld = false;
  const fires = (presses: readonly number[]): Event => {
    isHot = true;
    return { fires: { edges: presses.map(f => [control, f]), carries: { count: presses.length } } };
  };
  return {
    step(view) {
      let event = NOTHING;
      const last = chain.at(-1);
      if (last !== undefined && isLastHeld && view.age(last) > max) {
        chain = [];
        isHot = false;
        event = lapses("too-long");
      } else if (last !== undefined && view.age(last) > gap) {
        if (answer === "final") event = fires(chain);
        if (answer === "nth") {
          isHot = false;
          event = lapses("too-slow");
        }
        chain = [];
      }
      if (!view.isDown(control)) isHot = isLastHeld = false;
      if (!view.isPressed(control)) return event;
      isHot = false;
      isLastHeld = true;
      chain.push(view.f);
      const isWhole = chain.length === count;
      const presses = chain;
      if (isWhole) chain = [];
      return isWhole || answer === "each" ? fires(presses) : event;
    },
    isSustained: () => isHot,
    isForming: () => chain.length > 0,
    startOver() {
      chain = [];
      isHot = isLastHeld = false;
    },
  };
}

function watchChord(pattern: PatternOf<"chord">, lengths: Lengths): Watcher {
  const { controls } = pattern;
  const spread = lengths.atMost(pattern.spread);
  const length = pattern.for === undefined ? undefined : lengths.atLeast(pattern.for);
  let completed: number | undefined;
  let hot = false;
  let lastEvent = -1;
  const areDown = (view: View) => controls.every(view.isDown);
  function judge(view: View): Event {
    const fires = (): Event => {
      completed = undefined;
      hot = areDown(view);
      return { fires: { edges: controls.map(control => [control, view.pressOf(control)]) } };
    };
    if (completed !== undefined) {
      if (view.age(completed) >= length!) return fires();
      if (areDown(view)) return NOTHING;
      completed = undefined;
      return lapses("too-short");
    }
    if (!areDown(view) || !view.isAnyPressed(controls)) return NOTHING;
    const ages = controls.map(control => view.age(view.pressOf(control)));
    if (Math.max(...ages) - Math.min(...ages) > spread) return lapses("too-slow");
    if (length === undefined) return fires();
    completed = view.f;
    return NOTHING;
  }
  return {
    step(view) {
      if (!areDown(view)) hot = false;
      const event = judge(view);
      if (event.lapses) hot = false;
      if (event !== NOTHING) lastEvent = view.f;
      return event;
    },
    isSustained: () => hot,
    isForming: view => controls.some(control => view.isDown(control) && view.pressOf(control) > lastEvent),
    startOver(view) {
      completed = undefined;
      hot = false;
      lastEvent = view.f;
    },
  };
}

function watchMash(pattern: PatternOf<"mash">, lengths: Lengths): Watcher {
  const { controls, count, alternate } = pattern;
  const within = lengths.atMost(pattern.within);
  let counted: Edge[] = [];
  let last: string | undefined;
  let hot: string | undefined;
  let lapsedOn = -1;
  return {
    step(view) {
      let event = NOTHING;
      if (hot !== undefined && !view.isDown(hot)) hot = undefined;
      for (const control of controls.filter(view.isPressed)) {
        const isAgain = control === last;
        last = control;
        if (lapsedOn === view.f || (alternate && isAgain)) continue;
        counted.push([control, view.f]);
        const tail = counted.slice(-count);
        if (tail.length < count || view.age(tail[0]![1]) > within || event !== NOTHING) continue;
        event = { fires: { edges: tail } };
        counted = [];
        hot = control;
      }
      return event;
    },
    isSustained: () => hot !== undefined,
    isForming: view => counted.some(([, f]) => view.age(f) <= within),
    startOver(view, hasLapsed) {
      counted = [];
      last = hot = undefined;
      if (hasLapsed) lapsedOn = view.f;
    },
  };
}

/** Creates the watcher of any kind except a sequence. */
export function watchPlain(
  pattern: PatternOf<"press" | "release" | "tap" | "hold" | "charge" | "taps" | "chord" | "mash">,
  lengths: Lengths,
): Watcher {
  switch (pattern.kind) {
    case "press":
      return watchPress(pattern, lengths);
    case "release":
      return watchRelease(pattern);
    case "tap":
      return watchTap(pattern, lengths);
    case "hold":
      return watchHold(pattern, lengths);
    case "charge":
      return watchCharge(pattern, lengths);
    case "taps":
      return watchTaps(pattern, lengths);
    case "chord":
      return watchChord(pattern, lengths);
    case "mash":
      return watchMash(pattern, lengths);
  }
}
