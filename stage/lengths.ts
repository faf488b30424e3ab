import { findLeaves, type AnySchema, type Kit, type WrittenLength } from "#core";
import { duration } from "./parts";
import { effectSchema, stageSchema } from "./schema";

const LENGTHS: ReadonlySet<unknown> = new Set([duration]);

/**
 * Returns every length of time written in a kit's stage and in the effects of its moves; paths are relative
 * to the kit.
 */
export function listStageLengths(kit: Kit): WrittenLength[] {
  const found: WrittenLength[] = [];
  const look = (schema: unknown, value: unknown, path: WrittenLength["path"]) =>
    findLeaves(
      schema as AnySchema,
      value,
      LENGTHS,
      (at, written) => found.push({ path: at, written: String(written) }),
      path,
    );
  look(stageSchema, kit.stage, ["stage"]);
  kit.moves?.forEach((move, m) => look(effectSchema, move.effect, ["moves", m, "effect"]));
  return found;
}
