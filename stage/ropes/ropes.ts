import type { Kit } from "#core";
import type { RopesDocument } from "./schema";

/**
 * Creates a seeded random generator of numbers from 0 to 1: equal seeds give equal sequences. Source:
 * mulberry32, public domain.
 */
export function createChance(seed: number): () => number {
  let at = seed >>> 0;
  return () => {
    at = (at + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(at ^ (at >>> 15), at | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

function scale(written: string, factor: number): string {
  const unit = written.endsWith("ms") ? "ms" : "f";
  const value = parseFloat(written) * factor;
  return unit === "f" ? `${Math.round(value)}f` : `${Math.round(value * 1000) / 1000}ms`;
}

/** Returns the pattern drawn for each prompt that the seed decides, by the prompt's id, in kit order. */
export function listDrawn(
  kit: Kit,
  ropes: RopesDocument,
): { readonly prompt: string; readonly pattern: string }[] {
  const drawn = prepareRopes(kit, ropes).prompts ?? [];
  return drawn.flatMap(({ id, ask }) =>
    ropes.draws?.includes(id) && (ropes.pool?.length ?? 0) > 0 ? [{ prompt: id, pattern: ask[0]! }] : [],
  );
}

/**
 * Returns the factor by which a prompt's window and grades are stretched: the general ease times its own. The
 * first entry of a prompt counts.
 */
export function easeOf(ropes: RopesDocument, promptId: string): number {
  const own = ropes.eases?.find(item => item.prompt === promptId)?.times ?? 1;
  return (ropes.ease ?? 1) * own;
}

/**
 * Returns a kit changed by its ropes: answers drawn by the seed, windows and grades stretched by the ease.
 */
export function prepareRopes(kit: Kit, ropes: RopesDocument): Kit {
  const chance = createChance(ropes.seed);
  const pool = (ropes.pool ?? []).filter(id => kit.patterns.some(pattern => pattern.id === id));
  const prompts = (kit.prompts ?? []).map(prompt => {
    const isDrawn = pool.length > 0 && ropes.draws?.includes(prompt.id);
    const ask = isDrawn ? [pool[Math.floor(chance() * pool.length)]!] : prompt.ask;
    const ease = easeOf(ropes, prompt.id);
    if (ease === 1) return { ...prompt, ask };
    const grades = prompt.grades?.map(({ early, late, ...grade }) => ({
      ...grade,
      within: scale(grade.within, ease),
      ...(early === undefined ? {} : { early: scale(early, ease) }),
      ...(late === undefined ? {} : { late: scale(late, ease) }),
    }));
    const target = prompt.target === undefined ? {} : { target: scale(prompt.target, ease) };
    return { ...prompt, ask, window: scale(prompt.window, ease), ...target, ...(grades ? { grades } : {}) };
  });
  return prompts.length > 0 ? { ...kit, prompts } : kit;
}
