import type { Kit, Step } from "../../kit/schema";
import { nameOf } from "../../kit/names";
import { arrowOf } from "../../input/directions";

/** Returns the controls that play a step, by id: its own, or the four of its stick. */
export function controlsPlayed(step: Step, kit: Kit): readonly string[] {
  if ("press" in step) return [step.press];
  if ("release" in step) return [step.release];
  if ("hold" in step) return [step.hold];
  if ("together" in step) return step.together;
  const stick = kit.sticks?.find(item => item.id === step.dir.slice(0, step.dir.lastIndexOf(":")));
  return stick ? [stick.up, stick.down, stick.left, stick.right] : [];
}

/** Formats a step: "Strike", "Strike let go", "hold Strike", "Strike + Guard", "→". */
export function stepWords(step: Step, kit: Kit): string {
  const controlName = (id: string) => nameOf(kit, "controls", id);
  if ("press" in step) return controlName(step.press);
  if ("release" in step) return `${controlName(step.release)} let go`;
  if ("hold" in step) return `hold ${controlName(step.hold)}`;
  if ("together" in step) return step.together.map(controlName).join(" + ");
  const arrow = arrowOf(Number(step.dir.slice(step.dir.lastIndexOf(":") + 1)));
  return step.for === undefined ? arrow : `${arrow} held`;
}
