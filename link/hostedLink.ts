import { createLinkedTake, type LinkedTake } from "./linkedTake";
import type { Batch, GameFrame, HostMessage, Joined, KitInForce, Left, LinkEvent } from "./messages";

/** A take of a link as its host sees it. */
export interface HostedTake {
  readonly game: Joined;
  readonly taken: LinkedTake;
}

/** The listeners of the host of a link. */
export interface HostListeners {
  /** A take begins. `from` is its first frame here, above 0 if those before are no longer held by the server. */
  readonly onTake?: (take: HostedTake, from: number) => void;
  /** Frames that the host did not have yet, and the events of the rules in force on them. */
  readonly onFrames?: (take: HostedTake, frames: readonly GameFrame[], events: readonly LinkEvent[]) => void;
  readonly onEnd?: (take: HostedTake, why: Left["why"]) => void;
  readonly onGame?: (game: Joined | undefined) => void;
  readonly onKit?: (message: KitInForce) => void;
  /** How long a ping took to the game and back. */
  readonly onPulse?: (ms: number) => void;
}

/** The host's side of a link, without its socket. */
export interface HostedLink {
  /** The take that is played; undefined before its first frame. */
  readonly take: HostedTake | undefined;
  /** The first frame that is missing after the connection broke, of the take with that number. */
  readonly missing: { readonly from: number; readonly take: number };
  readonly receive: (message: HostMessage) => void;
}

/** Creates the host's side of a link that was just opened. Frames that come twice are taken once. */
export function createHostedLink(listeners: HostListeners): HostedLink {
  let take: HostedTake | undefined;
  /** The game that plays; undefined after it has left. */
  let player: Joined | undefined;
  /** The number of takes that ended, as the server counts them; undefined until it has answered. */
  let ended: number | undefined;

  const receiveBatch = ({ from, frames, events }: Batch) => {
    if (!player) return;
    if (!take) {
      take = { game: player, taken: createLinkedTake(player) };
      listeners.onTake?.(take, from);
    }
    const own = take;
    const fresh = frames.filter(({ f }) => f >= own.taken.frames);
    fresh.forEach(own.taken.add);
    if (fresh.length > 0) listeners.onFrames?.(own, fresh, events);
  };

  const receiveLeft = ({ why }: Left) => {
    const own = take;
    take = undefined;
    ended = (ended ?? 0) + 1;
    if (own) listeners.onEnd?.(own, why);
    if (why === "end") return;
    player = undefined;
    listeners.onGame?.(undefined);
  };

  return {
    get take() {
      return take;
    },
    get missing() {
      return { from: take?.taken.frames ?? 0, take: ended ?? 0 };
    },
    receive(message) {
      if (message.t === "opened") ended ??= message.take ?? 0;
      else if (message.t === "batch") receiveBatch(message);
      else if (message.t === "left") receiveLeft(message);
      else if (message.t === "kit") listeners.onKit?.(message);
      else if (message.t === "pulse") listeners.onPulse?.(message.ms);
      else if (message.t === "joined") {
        player = message;
        listeners.onGame?.(message);
      }
    },
  };
}
