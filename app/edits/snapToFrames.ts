import { landingFrame, type Take } from "#core";

/** The lanes of a take that are brought to frames: one of a control or a gate, that of the speed, or all. */
export type SnappedLanes = { readonly list: "lanes" | "gates"; readonly id: string } | "speed" | "all";

/**
 * Returns a take of which the changes that land on some frames of the kit are at those frames' places, and marks of presses with
 * them: they are judged as before. A take at another rate has changes between frames of the kit, and an edit of frames up to a place
 * would leave the part of a frame before it. `rateHz` is the kit's rate. Returns the same take if nothing moves.
 */
export function snapToFrames(
  take: Take,
  frames: readonly number[],
  rateHz: number,
  snapped: SnappedLanes,
): Take {
  const wanted = new Set(frames);
  const placeOf = (x: number) => {
    const frame = landingFrame(x, rateHz, take.rate);
    return wanted.has(frame) ? (frame * take.rate) / rateHz : x;
  };
  // Of several changes that land on one frame the last one holds from there on.
  const snap = <V>(lane: readonly (readonly [number, V])[]): [number, V][] => [
    ...new Map(lane.map(([x, value]) => [placeOf(x), value])),
  ];
  const isIn = (list: "lanes" | "gates", id: string) =>
    snapped === "all" || (snapped !== "speed" && snapped.list === list && snapped.id === id);
  const each = <V>(list: "lanes" | "gates", lanes: Readonly<Record<string, V>>, change: (own: V) => V) =>
    Object.fromEntries(Object.entries(lanes).map(([id, own]) => [id, isIn(list, id) ? change(own) : own]));
  const isMoved = ({ lanes, gates = {}, speed = [] }: Take) =>
    [...Object.values(lanes), ...Object.values(gates), speed].some(lane =>
      lane.some(([x]) => placeOf(x) !== x),
    );
  if (!isMoved(take)) return take;
  return {
    ...take,
    lanes: each("lanes", take.lanes, snap),
    ...(take.gates ? { gates: each("gates", take.gates, snap) } : {}),
    ...(take.speed && (snapped === "all" || snapped === "speed") ? { speed: snap(take.speed) } : {}),
    ...(take.unmeant ? { unmeant: each("lanes", take.unmeant, xs => xs.map(placeOf)) } : {}),
  };
}
