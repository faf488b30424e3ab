import { dequal } from "dequal";
import { nanoid } from "nanoid";
import type { Trace } from "#core";
import { findLeaps, measureArc, type Arc, type Rules } from "#stage";
import type { KeptArc } from "../../storage/records";
import { readOther, type SceneSources } from "../model/readScene";

/** The number of leaps searched for a completed one. */
const LOOKED_AT = 4;
/** The number of frames searched: this runs on every frame played, however long the take. */
const LOOKED_BACK = 3600;
/** The distance in frames within which a leap under other numbers is the same one. */
const SAME_LEAP = 30;

/** The current live session or replay, as far as arcs need it. */
interface Ground {
  readonly rules: Rules;
  readonly trace: Trace;
  readonly track: ArrayLike<number>;
  /** The current frame, and the last one. */
  readonly frame: number;
  readonly last: number;
}

function readGround({ pad, evaluation, playback }: SceneSources): Ground | undefined {
  const { session } = pad.getState();
  if (session) {
    const frame = Math.max(0, session.state.frame);
    const { rules, trace, track } = session;
    return { rules, trace, track, frame, last: frame };
  }
  const { evaluated } = evaluation.getState();
  if (!evaluated) return undefined;
  const { rules, trace, track, columns } = evaluated;
  const { frame } = playback.getState();
  return { rules, trace, track, frame, last: columns.frames - 1 };
}

/** Returns the last completed leap up to the current frame. */
function lastArc({ rules: { stage }, trace, track, frame, last }: Ground): Arc | undefined {
  if (stage?.kind !== "runner") return undefined;
  return findLeaps(trace, stage, frame, LOOKED_AT, frame - LOOKED_BACK)
    .map(leap => measureArc(track, leap, last))
    .find(arc => arc.hasLanded);
}

function nameMove({ rules: { kit, program } }: Ground, arc: Arc): string {
  const id = program.moves[arc.move]!.id;
  return kit.moves?.find(move => move.id === id)?.name ?? id;
}

function keepOf(ground: Ground, arc: Arc, take: string, numbers: string): KeptArc {
  const way: number[] = [];
  for (let f = Math.max(0, arc.from - 1); f <= arc.to; f++)
    way.push(Number(ground.track[f * 2]!.toFixed(3)), Number(ground.track[f * 2 + 1]!.toFixed(3)));
  const { heightTiles, farTiles, airFrames } = arc;
  const move = nameMove(ground, arc);
  return { id: nanoid(8), move, take, numbers, frame: arc.from, heightTiles, farTiles, airFrames, way };
}

/** Names the numbers in force: those of a variant, or those left by an edit. */
function nameNumbers({ workbench }: SceneSources): string {
  const { kit, variants, change } = workbench.getState();
  const variant = variants.find(item => dequal(item.kit, kit));
  if (variant) return variant.name;
  return change ? `after “${change}”` : "as it was opened";
}

/** Returns the measures of the last completed leap up to the current frame; undefined without one. */
export function readLastArc(sources: SceneSources): { readonly move: string; readonly arc: Arc } | undefined {
  const ground = readGround(sources);
  const arc = ground && lastArc(ground);
  return arc && { move: nameMove(ground, arc), arc };
}

/** Returns the last leap as a kept arc, with the same leap under the variant shown for comparison. */
export function keepArcs(sources: SceneSources): KeptArc[] {
  const ground = readGround(sources);
  const arc = ground && lastArc(ground);
  if (!arc) return [];
  const isLive = sources.pad.getState().session !== undefined;
  const evaluated = isLive ? undefined : sources.evaluation.getState().evaluated;
  const kept = keepOf(ground, arc, evaluated?.take.name ?? "played just now", nameNumbers(sources));
  const other = evaluated && readOther(sources, evaluated.take);
  if (!other) return [kept];
  const { rules, trace, track, columns } = other.evaluated;
  const { stage } = rules;
  if (stage?.kind !== "runner") return [kept];
  const last = columns.frames - 1;
  const there = { rules, trace, track, frame: last, last };
  const near = findLeaps(trace, stage, arc.from + SAME_LEAP, LOOKED_AT, arc.from - SAME_LEAP);
  const same = near
    .map(leap => measureArc(track, leap, last))
    .sort((a, b) => Math.abs(a.from - arc.from) - Math.abs(b.from - arc.from))[0];
  return same ? [kept, keepOf(there, same, evaluated!.take.name, other.name)] : [kept];
}
