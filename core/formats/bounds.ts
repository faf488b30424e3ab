/**
 * The limits of a document's contents. Anything larger is refused before it is stored, so that every stored
 * document can be opened, drawn and run. docs/file-formats.md lists the limits with their reasons.
 */
export const BOUNDS = {
  /** Characters of an id, which appears in addresses, file names and traces. */
  idLetters: 100,
  /** Characters of a name, which is drawn on the tape, on keys and on stages. */
  nameLetters: 200,
  /** Characters of a note on a take. */
  noteLetters: 10_000,
  /** Characters of an easing curve, and the absolute bound of its stops. */
  curveLetters: 2000,
  curveReach: 1000,
  /** Items of a list in a kit: rules, controls, modes. */
  items: 1000,
  /** Items of all lists of a kit but its stage, those within rules included: a change of one number may concern each. */
  itemsInAll: 10_000,
  /** Items of a list within one rule: what it needs, asks, opens. A sentence of more cannot be read or edited. */
  clauses: 64,
  /** Steps of a sequence; the matcher keeps every choice of frames that may still complete. */
  steps: 64,
  /** The absolute bound of a number without a closer one, such as a charge's output. */
  reach: 1_000_000,
  /** Rows of a level, and tiles in a row. */
  levelRows: 256,
  levelTiles: 4096,
  /** Frames of a take, at its own rate and at the kit's: a day at 200 frames a second. */
  frames: 17_280_000,
  /** The highest speed of the game clock, in percent. */
  speedPercent: 400,
  /** Memory of a file's parts once it is parsed, as estimated from its text. */
  memoryBytes: 256 * 1024 * 1024,
  /** Issues listed of one document. */
  issues: 200,
  /** Nesting depth of lists and objects. */
  depth: 32,
} as const;

/**
 * Returns whether a text is a valid id: not empty, within the bound, and free of characters reserved by
 * addresses and paths.
 */
export function isId(text: string): boolean {
  return text.length > 0 && text.length <= BOUNDS.idLetters && ID_PATTERN.test(text);
}

/**
 * The pattern of an id: letters, digits and signs, except those reserved by addresses and paths, unpaired
 * surrogates and invisible characters.
 */
export const ID_PATTERN =
  /^(?!\.{1,2}$)(?:[^\x00-\x1f\x7f/?#\\%\ud800-\udfff]|[\ud800-\udbff][\udc00-\udfff])+$/;
