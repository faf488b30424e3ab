import { findLeaves, type AnySchema } from "../formats/walkSchema";
import type { PathStep } from "../formats/issue";
import { duration, duration1 } from "./parts";
import { kitSchema, type Kit } from "./schema";

/** A length of time in a kit, as written. */
export interface WrittenLength {
  readonly path: readonly PathStep[];
  readonly written: string;
}

const LENGTHS: ReadonlySet<unknown> = new Set([duration, duration1]);

/**
 * Returns every written length in a kit's rules, in kit order. Lengths of its stage are listed by the stage.
 */
export function listLengths(kit: Kit): WrittenLength[] {
  const found: WrittenLength[] = [];
  findLeaves(kitSchema as unknown as AnySchema, kit, LENGTHS, (path, written) =>
    found.push({ path, written: String(written) }),
  );
  return found;
}
