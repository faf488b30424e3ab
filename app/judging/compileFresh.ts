import type { Kit, Program } from "#core";
import { compileStaged } from "./staged";

const programs = new WeakMap<Kit, Program | null>();

/** A kit's program for a picture of it, kept as long as the kit is; undefined while the kit has faults. */
export function compileFresh(kit: Kit): Program | undefined {
  let program = programs.get(kit);
  if (program === undefined) {
    const compiled = compileStaged(kit);
    program = compiled.ok ? compiled.value : null;
    programs.set(kit, program);
  }
  return program ?? undefined;
}
