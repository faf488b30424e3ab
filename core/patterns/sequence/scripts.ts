import type { Kit, PatternOf, Step } from "../../kit/schema";
import { SHORT, type LengthOf, type Script } from "../scripts";

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

/** Returns inputs with steps as close as possible, close, and as far apart as the gap allows. */
export function sequenceScripts(pattern: PatternOf<"sequence">, kit: Kit, lengthOf: LengthOf): Script[] {
  const gap = lengthOf(pattern.gap, "atMost");
  return [1, SHORT + 1, gap].map(apart => sequenceScript(kit, pattern.steps, Math.max(1, apart), lengthOf));
}
