import type { PadMap, PadSource } from "#core";
import { withDiagonals, type Answer, type Asked } from "../../input/padWatch";

/** One request of the guided map of a pad, and the button or axis of the standard layout that answers it. */
export interface PadStep {
  /** As in "Press … and let it go". */
  readonly words: string;
  readonly asked: Asked;
  readonly button?: number;
  readonly axis?: number;
}

const button = (number: number, words: string, asked: Asked = "button"): PadStep => ({
  words: `Press ${words}`,
  asked,
  button: number,
});
const push = (axis: number, words: string): PadStep => ({ words: `Push ${words}`, asked: "stick", axis });

/** The requests in their order: W3C Gamepad, section "Standard gamepad", has the numbers. */
export const PAD_STEPS: readonly PadStep[] = [
  button(0, "the lowest of the four buttons at the right"),
  button(1, "the rightmost of these four"),
  button(2, "the leftmost of these four"),
  button(3, "the topmost of these four"),
  button(12, "up on the cross at the left", "direction"),
  button(15, "right on the cross", "direction"),
  button(13, "down on the cross", "direction"),
  button(14, "left on the cross", "direction"),
  button(4, "the upper button at the left shoulder"),
  button(5, "the upper button at the right shoulder"),
  button(6, "the left trigger, as far as it goes,", "trigger"),
  button(7, "the right trigger, as far as it goes,", "trigger"),
  push(0, "the left stick to the right"),
  push(1, "the left stick down"),
  push(2, "the right stick to the right"),
  push(3, "the right stick down"),
  button(10, "the left stick in"),
  button(11, "the right stick in"),
  button(8, "the left one of the small buttons in the middle"),
  button(9, "the right one of the small buttons in the middle"),
  button(16, "the button in the centre"),
];

/** The buttons of the cross, clockwise from the top. */
const CROSS = [12, 15, 13, 14];

/** The answers so far, by step; null for something that the pad does not have. */
export interface PadDraft {
  readonly answers: readonly (Answer | null)[];
}

export const NO_ANSWERS: PadDraft = { answers: [] };

/** Returns the step that is asked for next; undefined after the last. */
export const stepOf = ({ answers }: PadDraft): PadStep | undefined => PAD_STEPS[answers.length];

/** Returns whether two answers are the same part of a pad. */
function isSame(a: Answer, b: Answer): boolean {
  if (a.kind === "stick" || b.kind === "stick")
    return a.kind === "stick" && b.kind === "stick" && a.axis === b.axis;
  const [one, two] = [a.source, b.source];
  if (one.kind === "button" || two.kind === "button")
    return one.kind === "button" && two.kind === "button" && one.button === two.button;
  if (one.axis !== two.axis) return false;
  if (one.kind === "hat" && two.kind === "hat") return one.at[0] === two.at[0];
  return (
    one.kind === two.kind &&
    one.kind === "axis" &&
    two.kind === "axis" &&
    one.to > one.from === two.to > two.from
  );
}

/** Returns the earlier step that has the same part of the pad as an answer; undefined if none has. */
export function takenBy({ answers }: PadDraft, answer: Answer): PadStep | undefined {
  const at = answers.findIndex(earlier => earlier !== null && isSame(earlier, answer));
  return PAD_STEPS[at];
}

/** Returns the map that the answers make. */
export function mapOf(padId: string, { answers }: PadDraft): PadMap {
  const sources = new Map<number, PadSource>();
  const axes: PadMap["axes"][number][] = [];
  answers.forEach((answer, k) => {
    const { button: is, axis } = PAD_STEPS[k]!;
    if (answer?.kind === "source" && is !== undefined) sources.set(is, answer.source);
    if (answer?.kind === "stick" && axis !== undefined)
      axes.push({ is: axis, axis: answer.axis, rest: answer.rest, full: answer.full });
  });
  withDiagonals(CROSS.map(number => sources.get(number))).forEach((source, k) => {
    if (source) sources.set(CROSS[k]!, source);
  });
  const buttons = [...sources].map(([is, source]) => ({ is, source })).sort((a, b) => a.is - b.is);
  return { pad: padId, buttons, axes };
}

/** Describes where something is on the pad: "button 3", "axis 5, from −1 to 1", "axis 9 at −0.71". */
export function describeAnswer(answer: Answer | null): string {
  const number = (value: number) => String(value).replace("-", "−");
  if (answer === null) return "not on this pad";
  if (answer.kind === "stick") return `axis ${answer.axis}, ${number(answer.rest)} to ${number(answer.full)}`;
  const { source } = answer;
  if (source.kind === "button") return `button ${source.button}`;
  if (source.kind === "hat") return `axis ${source.axis} at ${number(source.at[0]!)}`;
  return `axis ${source.axis}, ${number(source.from)} to ${number(source.to)}`;
}
