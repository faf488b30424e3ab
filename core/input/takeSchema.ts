import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { idRecord } from "../formats/idRecord";
import { BOUNDS } from "../formats/bounds";
import { id, longText, rate, text, unit } from "../kit/parts";

/** No take comes near this; a number beyond it, endless ones too, is none that was meant. */
const FARTHEST = 1e9;

const x = v.pipe(v.number("range"), v.minValue(0, "frames"), v.maxValue(FARTHEST, "frames"));
const lane = <T extends v.GenericSchema>(value: T) => v.array(v.tuple([x, value], "type"), "type");

/** The take document: recorded input, one lane a control. Source: frame rules, section 9. */
export const takeSchema = v.strictObject({
  format: v.literal("moss-tap/take"),
  version: v.literal(1),
  id,
  name: text,
  kit: v.exactOptional(text),
  rate,
  frames: v.pipe(v.number("frames"), v.minValue(0, "frames"), v.maxValue(FARTHEST, "frames")),
  lanes: idRecord(lane(unit)),
  gates: v.exactOptional(idRecord(lane(v.picklist([0, 1], "choice")))),
  speed: v.exactOptional(
    lane(v.pipe(v.number("range"), v.integer("whole"), v.minValue(0, "range"), v.maxValue(400, "range"))),
  ),
  player: v.exactOptional(text),
  device: v.exactOptional(text),
  note: v.exactOptional(longText(BOUNDS.noteLetters)),
});

export type Take = DeepReadonly<v.InferOutput<typeof takeSchema>>;
export type Lane = Take["lanes"][string];
