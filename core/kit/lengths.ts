import { findLeaves, type AnySchema } from "../formats/walkSchema";
import type { PathStep } from "../formats/issue";
import { duration, duration1 } from "./parts";
import { kitSchema, type Kit } from "./schema";

/** A length of time that stands in a kit, as it is written. */
export interface WrittenLength {
  readonly path: readonly PathStep[];
  readonly written: string;
}

const LENGTHS: ReadonlySet<unknown> = new Set([duration, duration1]);

/** Every length of time in a kit's rules, as written, in the order of the kit. Those of its stage are the stage's to list. */
export function listLengths(kit: Kit): WrittenLength[] {
  const found: WrittenLength[] = [];
  findLeaves(kitSchema as unknown as AnySchema, kit, LENGTHS, (path, written) =>
    found.push({ path, written: String(written) }),
  );
  return found;
}
