/**
 * How much of anything a document may hold. What is more is refused in words before it is stored, so that whatever is kept
 * can be opened, drawn and run. docs/file-formats.md lists them with their reasons.
 */
export const BOUNDS = {
  /** Letters of an id: it stands in addresses, file names and traces. */
  idLetters: 100,
  /** Letters of a name: it is drawn on the tape, on stones and on stages. */
  nameLetters: 200,
  /** Letters of a note on a take. */
  noteLetters: 10_000,
  /** Letters of an easing curve, and how far its stops may lie from 0. */
  curveLetters: 2000,
  curveReach: 1000,
  /** Items of a list in a kit: rules, controls, what a rule names. */
  items: 1000,
  /** Steps of a sequence: every choice of frames for them is held while it may still come true. */
  steps: 64,
  /** How far a number may lie from 0 where nothing else bounds it, such as what a charge is worth. */
  reach: 1_000_000,
  /** Rows of a level and tiles in a row. */
  levelRows: 256,
  levelTiles: 4096,
  /** Frames of a take, at its own rate and at the kit's: a day at 200 frames a second. */
  frames: 17_280_000,
  /** How deep lists and objects may stand in each other. */
  depth: 32,
} as const;

/** Can a text be an id: not empty, short enough, with nothing in it that addresses and paths keep for themselves? */
export function isId(text: string): boolean {
  return text.length > 0 && text.length <= BOUNDS.idLetters && ID_PATTERN.test(text);
}

/** An id: letters, digits and signs but for those that addresses and paths keep for themselves, and no unpaired or unseen ones. */
export const ID_PATTERN =
  /^(?!\.{1,2}$)(?:[^\x00-\x1f\x7f/?#\\%\ud800-\udfff]|[\ud800-\udbff][\udc00-\udfff])+$/;
