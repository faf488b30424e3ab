import * as v from "valibot";
import { text } from "../../kit/parts";

const ms = v.pipe(v.number("type"), v.minValue(0, "range"), v.maxValue(1000, "range"));
const bias = v.pipe(v.number("type"), v.minValue(-1000, "range"), v.maxValue(1000, "range"));
const percent = v.pipe(v.number("type"), v.minValue(0, "range"), v.maxValue(100, "range"));

/** A character: the random deviations with which a player repeats an input. */
export const characterSchema = v.strictObject({
  name: text,
  /** The mean lateness of a press (early below 0) and its standard deviation, in ms. */
  biasMs: bias,
  spreadMs: ms,
  /** The standard deviation of the logarithm of a press's length, in percent. */
  lengthPercent: percent,
  /** The standard deviation of each finger from the first, for fingers meant together, in ms. */
  fingersMs: ms,
  /** The percentage of presses that are missing, and of those that come twice. */
  missedPercent: percent,
  doubledPercent: percent,
});

export type Character = Readonly<v.InferOutput<typeof characterSchema>>;

/** A built-in character, with the reason for its figures. */
export interface ShippedCharacter extends Character {
  readonly why: string;
}

/** Round figures, chosen to differ from each other; fit one to your own takes for accuracy. */
export const CHARACTERS: readonly ShippedCharacter[] = [
  {
    name: "Practised",
    biasMs: 0,
    spreadMs: 12,
    lengthPercent: 10,
    fingersMs: 5,
    missedPercent: 0,
    doubledPercent: 0,
    why: "knows the rhythm: most presses within a frame and a half at 60",
  },
  {
    name: "Steady",
    biasMs: 5,
    spreadMs: 25,
    lengthPercent: 20,
    fingersMs: 12,
    missedPercent: 0.5,
    doubledPercent: 0.5,
    why: "plays often: most presses within three frames at 60",
  },
  {
    name: "New",
    biasMs: 20,
    spreadMs: 50,
    lengthPercent: 35,
    fingersMs: 25,
    missedPercent: 2,
    doubledPercent: 2,
    why: "reacts more than foresees, so late on the whole, and twice as wide as a steady hand",
  },
  {
    name: "Limited",
    biasMs: 40,
    spreadMs: 90,
    lengthPercent: 60,
    fingersMs: 60,
    missedPercent: 5,
    doubledPercent: 6,
    why: "hands that tremble or tire: wide in time, uneven in length, seldom two fingers at once",
  },
];

/** A character without deviations: it repeats a take exactly. */
export const STILL: Character = {
  name: "As recorded",
  biasMs: 0,
  spreadMs: 0,
  lengthPercent: 0,
  fingersMs: 0,
  missedPercent: 0,
  doubledPercent: 0,
};
