/**
 * Returns which of `count` patterns a prompt with a seed asks for on its `showing`-th showing, from 0: the finaliser of
 * the 32-bit murmur3 hash of the seed and the showing, modulo `count`. Source: frame rules, section 8, Draw.
 */
export function drawPlace(seed: number, showing: number, count: number): number {
  let hash = (seed + Math.imul(0x9e3779b9, showing + 1)) >>> 0;
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return ((hash ^ (hash >>> 16)) >>> 0) % count;
}
