import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { figure, list, longText, some } from "./parts";

/** The buttons and axes of the standard layout of gamepads (W3C Gamepad), by their numbers from 0. */
export const STANDARD_BUTTONS = 17;
export const STANDARD_AXES = 4;

const place = v.pipe(v.number("whole"), v.integer("whole"), v.minValue(0, "range"), v.maxValue(255, "range"));
const within = (count: number) =>
  v.pipe(v.number("whole"), v.integer("whole"), v.minValue(0, "range"), v.maxValue(count - 1, "range"));

/** A pad's own button; an axis from a value at rest to one fully pressed; or an axis at certain values, such as a hat switch. */
const sourceSchema = v.variant(
  "kind",
  [
    v.strictObject({ kind: v.literal("button"), button: place }),
    v.strictObject({ kind: v.literal("axis"), axis: place, from: figure, to: figure }),
    v.strictObject({ kind: v.literal("hat"), axis: place, at: some(figure, 8) }),
  ],
  "kind",
);

/** The map of a pad with an order of its own: for each button and axis of the standard layout, its place on that pad. */
export const padMapSchema = v.strictObject({
  /** The id by which the browser names the pad. */
  pad: longText(500),
  buttons: list(v.strictObject({ is: within(STANDARD_BUTTONS), source: sourceSchema }), STANDARD_BUTTONS),
  axes: list(
    v.strictObject({ is: within(STANDARD_AXES), axis: place, rest: figure, full: figure }),
    STANDARD_AXES,
  ),
});

export type PadMap = DeepReadonly<v.InferOutput<typeof padMapSchema>>;
/** The place of one button on the pad. */
export type PadSource = PadMap["buttons"][number]["source"];
