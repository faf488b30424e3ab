import { gateName, parseFrames, type Kit } from "#core";
import { framesLater, type PairedAct } from "./differences";
import type { LinkEvent } from "./messages";

/** Returns the last frame before `frame` on which a gate was open; undefined if it never was, `frame` if it is open. */
function lastOpen(events: readonly LinkEvent[], gate: string, frame: number): number | undefined {
  const change = events.findLast(event => event.kind === "gate" && event.id === gate && event.f <= frame);
  if (change?.kind !== "gate") return undefined;
  return change.open ? frame : change.f - 1;
}

const framesOf = (length: string | undefined, rateHz: number) =>
  length === undefined ? 0 : (parseFrames(length, rateHz, "atMost") ?? 0);

/** The need of a move whose gate was closed on a frame, and for how many frames. */
function findClosedNeed(
  kit: Kit,
  move: NonNullable<Kit["moves"]>[number],
  events: readonly LinkEvent[],
  frame: number,
) {
  for (const need of move.needs ?? []) {
    const open = lastOpen(events, need.gate, frame);
    if (open !== undefined && open < frame)
      return {
        name: gateName(kit, need.gate),
        closedFrames: frame - open,
        coyoteFrames: framesOf(need.coyote, kit.rate),
      };
  }
  return undefined;
}

/**
 * Explains a difference by a length that one side has longer: "in the game it counts by coyote 6f after Footing closed, by the
 * rules for 5f".
 * `events` are those of the rules on the take. Returns undefined if no such length explains it.
 */
export function explainDifference(
  kit: Kit,
  events: readonly LinkEvent[],
  pair: PairedAct,
): string | undefined {
  const move = kit.moves?.find(({ id }) => id === pair.id);
  if (!move || framesLater(pair) !== undefined) return undefined;
  if (pair.rules !== undefined) {
    const own = events.find(
      event => event.kind === "performed" && event.id === pair.id && event.f === pair.rules,
    );
    if (own?.kind !== "performed") return undefined;
    if (own.waited > 0)
      return `by the rules the press waited in the buffer for ${own.waited}f, in the game it did not`;
    const need = own.by === "coyote" ? findClosedNeed(kit, move, events, pair.rules) : undefined;
    return (
      need &&
      `by the rules it counts by coyote ${need.closedFrames}f after ${need.name} closed, in the game it does not`
    );
  }
  const frame = pair.game!;
  const press = events.findLast(
    event => event.kind === "fired" && event.id === move.pattern && event.f <= frame,
  );
  if (!press) return undefined;
  const waitedFrames = frame - press.f;
  const bufferFrames = framesOf(move.buffer, kit.rate);
  const need = findClosedNeed(kit, move, events, frame);
  if (
    need &&
    waitedFrames <= bufferFrames &&
    need.closedFrames > need.coyoteFrames &&
    need.closedFrames <= kit.rate / 2
  )
    return `in the game it counts by coyote ${need.closedFrames}f after ${need.name} closed, by the rules for ${need.coyoteFrames}f`;
  if (waitedFrames > bufferFrames && waitedFrames <= kit.rate / 2)
    return `in the game the press waited in the buffer for ${waitedFrames}f, by the rules for ${bufferFrames}f`;
  return undefined;
}
