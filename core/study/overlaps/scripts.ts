import type { Kit, Pattern, Step } from "../../kit/schema";
import { parseFrames, type Rounding } from "../../time/duration";

/** One press of a control: its first frame down, and the first frame up again. */
export interface ScriptPress {
  readonly control: string;
  readonly from: number;
  readonly to: number;
}

/** Presses intended to set off a pattern. */
export type Script = readonly ScriptPress[];

/** The length of a press whose length does not matter, in frames. */
const SHORT = 2;

const spanOf = (script: Script) => script.reduce((last, { to }) => Math.max(last, to), 0);

/** Returns the controls of a stick that make the direction of a digit. */
function directionControls(kit: Kit, stickId: string, digit: string): string[] {
  const stick = kit.sticks?.find(({ id }) => id === stickId);
  if (!stick) return [];
  const { up, down, left, right } = stick;
  const across = "147".includes(digit) ? [left] : "369".includes(digit) ? [right] : [];
  const along = "789".includes(digit) ? [up] : "123".includes(digit) ? [down] : [];
  return [...across, ...along];
}

/**
 * Returns the presses of a sequence, each step `apart` frames after the previous one was made. A direction is
 * held until the next direction of the same stick, a press briefly.
 */
function sequenceScript(kit: Kit, steps: readonly Step[], apart: number, lengthOf: LengthOf): Script {
  const script: { control: string; from: number; to: number }[] = [];
  let at = 0;
  let facing: { control: string; from: number; to: number }[] = [];
  const letGo = (frame: number) => {
    for (const press of facing) press.to = Math.max(press.from + 1, frame);
    facing = [];
  };
  const add = (control: string, from: number, to: number) => {
    const open = script.find(press => press.control === control && press.to >= from);
    if (open) open.to = Math.max(open.to, from - 1);
    const press = { control, from, to };
    script.push(press);
    return press;
  };
  steps.forEach((step, k) => {
    if (k > 0) at += apart;
    if ("press" in step) add(step.press, at, at + SHORT);
    else if ("release" in step) {
      const held = script.findLast(press => press.control === step.release);
      if (held) held.to = Math.max(held.from + 1, at);
      else add(step.release, at, (at += 1));
    } else if ("hold" in step) {
      const length = lengthOf(step.for, "atLeast");
      add(step.hold, at, at + length + 1);
      at += length;
    } else if ("together" in step) for (const control of step.together) add(control, at, at + SHORT);
    else {
      const [stickId, digit] = [step.dir.slice(0, step.dir.lastIndexOf(":")), step.dir.slice(-1)];
      const wanted = directionControls(kit, stickId, digit);
      const kept = facing.filter(({ control }) => wanted.includes(control));
      facing = facing.filter(press => !kept.includes(press));
      letGo(at);
      for (const control of wanted)
        if (!kept.some(press => press.control === control)) kept.push(add(control, at, at + SHORT));
      facing = kept;
      if (step.for !== undefined) at += lengthOf(step.for, "atLeast");
    }
  });
  letGo(at + SHORT);
  return script.filter(({ from, to }) => to > from);
}

type LengthOf = (written: string, rounding: Rounding) => number;

/** Returns presses of one control, each `apart` frames after the previous one. */
function tapsScript(controls: readonly string[], count: number, apart: number): Script {
  return Array.from({ length: count }, (_, k) => ({
    control: controls[k % controls.length]!,
    from: k * apart,
    to: k * apart + Math.min(SHORT, Math.max(1, apart - 1)),
  }));
}

/**
 * Returns inputs intended to set off a pattern, made of its own boundaries: the shortest and the longest
 * press it answers, steps as close and as far apart as it allows. Only a run shows whether they do.
 */
export function listScripts(kit: Kit, pattern: Pattern): Script[] {
  const lengthOf: LengthOf = (written, rounding) => parseFrames(written, kit.rate, rounding) ?? 0;
  const one = (control: string, length: number): Script => [{ control, from: 0, to: Math.max(1, length) }];
  switch (pattern.kind) {
    case "press":
    case "release":
      return [one(pattern.control, 1), one(pattern.control, SHORT)];
    case "tap":
      return [one(pattern.control, 1), one(pattern.control, lengthOf(pattern.max, "atMost"))];
    case "hold": {
      const least = lengthOf(pattern.for, "atLeast");
      const most = pattern.max === undefined ? least + 1 : lengthOf(pattern.max, "atMost");
      return [one(pattern.control, least), one(pattern.control, least + 1), one(pattern.control, most)];
    }
    case "charge": {
      const full = lengthOf(pattern.full, "atLeast");
      const least = pattern.min === undefined ? 1 : lengthOf(pattern.min, "atLeast");
      return [one(pattern.control, least), one(pattern.control, full), one(pattern.control, full + 1)];
    }
    case "taps": {
      const gap = lengthOf(pattern.gap, "atMost");
      return [SHORT, gap].map(apart => tapsScript([pattern.control], pattern.count, Math.max(SHORT, apart)));
    }
    case "chord": {
      const spread = pattern.spread === undefined ? 3 : lengthOf(pattern.spread, "atMost");
      const held = (pattern.for === undefined ? 0 : lengthOf(pattern.for, "atLeast")) + SHORT;
      return [0, spread].map(apart =>
        pattern.controls.map((control, k) => ({
          control,
          from: k === 0 ? 0 : apart,
          to: apart + held,
        })),
      );
    }
    case "sequence": {
      const gap = lengthOf(pattern.gap, "atMost");
      return [1, SHORT + 1, gap].map(apart =>
        sequenceScript(kit, pattern.steps, Math.max(1, apart), lengthOf),
      );
    }
    case "mash":
      return [tapsScript(pattern.controls, pattern.count, SHORT)];
  }
}

/** Returns a script shifted by a number of frames. */
export function shiftScript(script: Script, by: number): Script {
  return script.map(({ control, from, to }) => ({ control, from: from + by, to: to + by }));
}

/**
 * Merges presses of one control that touch or overlap; undefined if the merge loses a press edge of either.
 */
function unite(a: Script, b: Script): Script {
  const all = [...a, ...b].sort((x, y) =>
    x.control < y.control ? -1 : x.control > y.control ? 1 : x.from - y.from,
  );
  const united: { control: string; from: number; to: number }[] = [];
  for (const press of all) {
    const last = united.at(-1);
    if (last?.control === press.control && press.from <= last.to) last.to = Math.max(last.to, press.to);
    else united.push({ ...press });
  }
  return united;
}

/**
 * Returns every overlay of two scripts in which a press of each falls on one edge; each begins at frame 0.
 */
export function layOver(a: Script, b: Script): Script[] {
  const ways: Script[] = [];
  const seen = new Set<number>();
  for (const one of a)
    for (const two of b) {
      const by = one.from - two.from;
      if (one.control !== two.control || seen.has(by)) continue;
      seen.add(by);
      const united = unite(a, shiftScript(b, by));
      const first = united.reduce((least, { from }) => Math.min(least, from), Infinity);
      ways.push(shiftScript(united, -first));
    }
  return ways;
}

/** Returns a script's frames and edges; smaller scripts are tried first. */
export function sizeOf(script: Script): { readonly frames: number; readonly edges: number } {
  return { frames: spanOf(script), edges: script.length * 2 };
}
