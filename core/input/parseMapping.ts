import * as v from "valibot";
import { BOUNDS } from "../formats/bounds";
import { idRecord } from "../formats/idRecord";
import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import type { DeepReadonly } from "../formats/readonly";
import { id, rate, text } from "../kit/parts";

/**
 * Maps a recording from another program to a take: which columns or signals play which controls, and the unit
 * of its times.
 */
export const mappingSchema = v.strictObject({
  format: v.literal("moss-tap/mapping"),
  version: v.literal(1),
  /**
   * `changes`: a row per change; `frames`: a row per frame with a column per control; `dump`: a value change
   * dump.
   */
  sort: v.picklist(["changes", "frames", "dump"], "choice"),
  /** The rate of the resulting take, and of times written in frames, in Hz. */
  rate,
  /** The unit of times in a table; a dump carries its own. */
  unit: v.exactOptional(v.picklist(["frames", "s", "ms", "us", "ns"], "choice")),
  /** The time of a table at which the take begins: 0, or that of the first row, as for times of a clock or of a whole session. */
  start: v.exactOptional(v.picklist(["zero", "first-row"], "choice")),
  /** The columns of a table, by their headers. `control` and `value` only for a row per change. */
  time: v.exactOptional(text),
  control: v.exactOptional(text),
  value: v.exactOptional(text),
  /** Maps names in the control column, column headers, or signal paths, whatever they hold, to ids of controls. */
  controls: idRecord(id, text),
  /** Maps the values below 0 of such sources, like the axis of a stick, to ids of controls; `controls` maps those above. */
  below: v.exactOptional(idRecord(id, text)),
  /** Maps such sources to ids of gates, which are open while their value is not 0. The take is then run without the kit's stage. */
  gates: v.exactOptional(idRecord(id, text)),
  /**
   * Maps such sources to ids of moves which the game itself performed: when their value rises from 0, and in a table of changes on
   * each row on which it is not 0.
   */
  performs: v.exactOptional(idRecord(id, text)),
  /**
   * Maps such sources to how they give the speed of the game: `times`, 1 is full speed; `percent`, 100 is; `stops`, the game is stopped
   * while they are not 0. The speeds of several sources are multiplied.
   */
  speed: v.exactOptional(idRecord(v.picklist(["times", "percent", "stops"], "choice"), text)),
  /**
   * The columns of a table of frames whose cells hold words, such as the state of a character, or the buttons held, "A+B". Each word
   * is a source of its own, named by the column and the word: "state: dash", 1 on the rows that have it, else 0. By column the words
   * that were known; others are reported when they are met.
   */
  words: v.exactOptional(idRecord(v.pipe(v.array(text, "type"), v.maxLength(BOUNDS.items, "many")), text)),
});

export type Mapping = DeepReadonly<v.InferOutput<typeof mappingSchema>>;

const MAPPING_FORMAT: DocumentFormat<Mapping> = {
  format: "moss-tap/mapping",
  version: 1,
  schema: mappingSchema as unknown as DocumentFormat<Mapping>["schema"],
  forward: {},
};

/**
 * Parses an unknown value as a mapping. The controls, gates and moves it names need not exist, since a mapping can serve
 * several kits.
 */
export function parseMapping(input: unknown): Result<Mapping> {
  return parseDocument(MAPPING_FORMAT, input);
}
