import type { SequenceProgram, StepProgram } from "../patterns/sequence/program";

/** The input of a sequence, computed in advance for every frame; shares no code with the stepper. */
export interface Seen {
  readonly frames: number;
  /** By control: one boolean per frame. */
  readonly down: readonly (readonly boolean[])[];
  /** By stick slot: the digit on each frame (5 before frame 0). */
  readonly digits: readonly (readonly number[])[];
}

/** A fire or a lapse; `reached` is the number of steps for a fire. */
export interface SlowEvent {
  readonly f: number;
  readonly why: string;
  /** The edges of the choice that fired, as `p0@4` (press of control 0 on frame 4), `d0@2`, each once. */
  readonly edges: readonly string[];
  readonly reached: number;
}

interface Choice {
  readonly frames: readonly number[];
  readonly edges: readonly string[];
}

function pressFrame(down: readonly boolean[], f: number): number {
  let p = f;
  while (p > 0 && down[p - 1]) p--;
  return p;
}

/** Returns the edges that complete a step on frame f, or nothing. */
function edgesOf(step: StepProgram, seen: Seen, f: number): [string, number][] | undefined {
  const downAt = (c: number, at: number) => at >= 0 && seen.down[c]![at]!;
  const isPress = (c: number) => downAt(c, f) && !downAt(c, f - 1);
  switch (step.does) {
    case "press":
      return isPress(step.control) ? [[`p${step.control}`, f]] : undefined;
    case "release":
      return !downAt(step.control, f) && downAt(step.control, f - 1) ? [[`r${step.control}`, f]] : undefined;
    case "hold": {
      if (!downAt(step.control, f - 1)) return undefined;
      const p = pressFrame(seen.down[step.control]!, f - 1);
      return f > p && (f - p) * 100 >= step.forTicks ? [[`p${step.control}`, p]] : undefined;
    }
    case "together": {
      if (!step.controls.every(c => downAt(c, f)) || !step.controls.some(isPress)) return undefined;
      const presses = step.controls.map(c => pressFrame(seen.down[c]!, f));
      if ((Math.max(...presses) - Math.min(...presses)) * 100 > step.withinTicks) return undefined;
      return step.controls.map((c, k) => [`p${c}`, presses[k]!]);
    }
    case "dir": {
      const digits = seen.digits[step.slot]!;
      return digits[f] === step.digit && digits[f] !== (f === 0 ? 5 : digits[f - 1])
        ? [[`d${step.slot}`, f]]
        : undefined;
    }
    case "face": {
      const digits = seen.digits[step.slot]!;
      if (f === 0 || digits[f - 1] !== step.digit) return undefined;
      let p = f - 1;
      while (p > 0 && digits[p - 1] === step.digit) p--;
      if (p === 0 && step.digit === 5) return undefined;
      return (f - p) * 100 >= step.forTicks ? [[`d${step.slot}`, p]] : undefined;
    }
  }
}

/** Replaces a release by the press before it, and lists each edge once. */
function report(seen: Seen, choice: Choice): string[] {
  const words = choice.edges.map(word => {
    const [source, frame] = word.split("@") as [string, string];
    if (source[0] !== "r") return word;
    return `p${source.slice(1)}@${pressFrame(seen.down[Number(source.slice(1))]!, Number(frame) - 1)}`;
  });
  return [...new Set(words)];
}

/**
 * Searches as literally as the rule is defined: lists all choices of frames for all first steps anew on every
 * frame, at full speed, without hiding. Exponential; for small takes only.
 */
export function searchAllChoices(pattern: SequenceProgram, seen: Seen): SlowEvent[] {
  const events: SlowEvent[] = [];
  const isPressed = (c: number, f: number) => seen.down[c]![f]! && (f === 0 || !seen.down[c]![f - 1]);
  const breaks = Array.from({ length: seen.frames }, (_, f) => pattern.breakers.some(c => isPressed(c, f)));
  const isSpoiled = (from: number, to: number) => breaks.slice(from, to + 1).some(Boolean);
  let floor = -1;

  const listChoices = (upTo: number): Choice[] => {
    const all: Choice[] = [];
    const extend = (choice: Choice) => {
      const made = choice.frames.length;
      if (made > 0) all.push(choice);
      if (made === pattern.steps.length) return;
      const step = pattern.steps[made]!;
      for (let f = Math.max(floor + 1, choice.frames.at(-1) ?? 0); f <= upTo; f++) {
        const since = made === 0 ? 0 : (f - choice.frames.at(-1)!) * 100;
        if (made > 0 && (since > step.gapTicks || since < step.afterTicks)) continue;
        if (made > 0 && (f - choice.frames[0]!) * 100 > pattern.totalTicks) continue;
        if (isSpoiled(choice.frames[0] ?? f, f)) continue;
        const edges = edgesOf(step, seen, f);
        if (!edges || edges.some(edge => edge[1] <= floor)) continue;
        const words = edges.map(edge => edge.join("@"));
        if (words.some(word => choice.edges.includes(word))) continue;
        extend({ frames: [...choice.frames, f], edges: [...choice.edges, ...words] });
      }
    };
    extend({ frames: [], edges: [] });
    return all;
  };

  const isInTime = (choice: Choice, f: number) => {
    const made = choice.frames.length;
    if (made === pattern.steps.length) return false;
    const isSoon = (f - choice.frames.at(-1)!) * 100 <= pattern.steps[made]!.gapTicks;
    return isSoon && (f - choice.frames[0]!) * 100 <= pattern.totalTicks;
  };

  /** The frame of the last fire; −1 before one, and after another end. */
  let firedAt = -1;
  /** Returns whether the input of the last step of the last fire is held on, up to a frame. */
  const isSustained = (to: number): boolean => {
    if (firedAt < 0) return false;
    const last = pattern.steps.at(-1)!;
    const frames = Array.from({ length: to - firedAt + 1 }, (_, k) => firedAt + k);
    if (last.does === "release") return false;
    if (last.does === "dir" || last.does === "face") {
      const digits = seen.digits[last.slot]!;
      return frames.every(f => digits[f] === last.digit);
    }
    const controls = last.does === "together" ? last.controls : [last.control];
    return frames.every(f => controls.every(c => seen.down[c]![f]));
  };

  let before: Choice[] = [];
  /** The most steps of a choice on the last frame on which the pattern was not forming, and since. */
  let reached = 0;
  for (let f = 0; f < seen.frames; f++) {
    const all = listChoices(f);
    const whole = all.filter(c => c.frames.length === pattern.steps.length && c.frames.at(-1) === f);
    const alive = all.filter(c => isInTime(c, f) && !isSpoiled(c.frames[0]!, f));
    const best = (choices: readonly Choice[]) => Math.max(0, ...choices.map(c => c.frames.length));
    if (
      (before.length > 0 || alive.length > 0 || whole.length > 0) &&
      pattern.cancel.some(c => isPressed(c, f))
    ) {
      events.push({ f, why: "cancelled", edges: [], reached: Math.max(reached, best(alive), best(whole)) });
      floor = f;
      firedAt = -1;
      before = [];
      reached = 0;
      continue;
    }
    if (whole.length > 0) {
      whole.sort((a, b) => {
        const k = a.frames.findIndex((frame, i) => frame !== b.frames[i]);
        return k < 0 ? 0 : b.frames[k]! - a.frames[k]!;
      });
      events.push({ f, why: "fired", edges: report(seen, whole[0]!), reached: pattern.steps.length });
      floor = firedAt = f;
      before = [];
      reached = 0;
      continue;
    }
    if (before.length > 0 && alive.length === 0) {
      const isBroken = breaks[f]! && before.some(choice => isInTime(choice, f));
      events.push({ f, why: isBroken ? "broken" : "too-slow", edges: [], reached });
      firedAt = -1;
    }
    before = alive;
    reached = isSustained(f) ? best(alive) : alive.length > 0 ? Math.max(reached, best(alive)) : 0;
  }
  return events;
}
