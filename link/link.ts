import { compile, landingFrame, type Kit, type Program } from "#core";
import { createGameRun, type GameRun } from "./gameRun";
import {
  LINK_BOUNDS,
  type Batch,
  type Fault,
  type GameFrame,
  type GameMessage,
  type HostMessage,
  type Join,
  type LinkEvent,
} from "./messages";
import { linkFault } from "./parseMessage";
import { createPlayedLog, type PlayedLog } from "./playedLog";
import { createRecentBatches } from "./recentBatches";

/** Rules with their number; the revision of an edit is above that of the one before. */
export interface Revision {
  readonly number: number;
  readonly kit: Kit;
  readonly program: Program;
}

/** Compiles a parsed kit as a revision, without its stage. */
export function createRevision(number: number, kit: Kit): Revision {
  const compiled = compile(kit);
  if (!compiled.ok) throw new RangeError("the kit must be parsed before it is compiled");
  return { number, kit, program: compiled.value };
}

/** Edited rules that run through what was played so far. */
interface Pending {
  readonly revision: Revision;
  readonly run: GameRun;
  /** The next entry of the log to run. */
  next: number;
}

/** Batches leave at most so often. */
const BATCH_MS = 1000 / 60;
/** Entries of the log, and frames, that one slice of catching up runs. */
const SLICE_ENTRIES = 64;
const SLICE_FRAMES = 2048;

/** The receivers of the messages of a link. */
export interface LinkOutputs {
  readonly toGame: (message: GameMessage) => void;
  readonly toHosts: (text: string) => void;
}

/** One game and the rules it plays by, for any number of hosts. Knows no socket and no clock. */
export interface Link {
  /** The number of takes that ended. */
  readonly take: number;
  readonly join: (game: Join, nowMs: number) => Fault | undefined;
  /** Steps a frame. Returns why it is left out; undefined if it is not. */
  readonly play: (frame: GameFrame, nowMs: number) => Fault | undefined;
  /** Ends the take. The game stays unless it is gone. */
  readonly end: (why: "end" | "gone" | "fault", nowMs: number) => void;
  /** Brings rules into force once they have run through what was played. */
  readonly edit: (revision: Revision) => Fault | undefined;
  /** Runs one slice of edited rules through what was played. Returns whether there is more to do. */
  readonly catchUp: (nowMs: number) => boolean;
  /** Sends the frames that wait, at most 60 times a second. Returns when to call again, in ms; Infinity if never. */
  readonly flush: (nowMs: number) => number;
  /** Returns the messages missed by a host that has the frames before `from`. */
  readonly missed: (from: number, take: number | undefined) => HostMessage[];
  /** Returns the texts of the batches it misses, of those held; what waits to be sent is sent to the other hosts first. */
  readonly missedBatches: (from: number, take: number | undefined, nowMs: number) => string[];
}

/** Creates a link without a game. */
export function createLink(opened: Revision, outputs: LinkOutputs): Link {
  let revision = opened;
  let forceFrom = 0;
  let joined: Join | undefined;
  let run: GameRun | undefined;
  let log: PlayedLog = createPlayedLog();
  let pending: Pending | undefined;
  let take = 0;
  let frames: GameFrame[] = [];
  let events: LinkEvent[] = [];
  let batchFrom = 0;
  let batchedMs = -Infinity;
  /** Ids that any revision since the game joined had: an edit may take one away that the game still sends. */
  let knownIds = new Set<string>();
  const rateHz = () => joined?.rate ?? revision.program.rateHz;
  const recent = createRecentBatches(f => landingFrame(f, revision.program.rateHz, rateHz()));

  const send = (message: HostMessage) => outputs.toHosts(JSON.stringify(message));

  const learnIds = ({ kit, program }: Revision) => {
    for (const { id } of program.controls) knownIds.add(`set.${id}`);
    for (const { id } of kit.gates ?? []) knownIds.add(`gates.${id}`);
  };

  /** Returns the refusal of a frame that names something no revision has. */
  const findUnknown = (frame: GameFrame): Fault | undefined => {
    for (const part of ["set", "gates"] as const) {
      for (const id of Object.keys(frame[part] ?? {})) {
        if (knownIds.has(`${part}.${id}`)) continue;
        const what = part === "set" ? "control" : "gate";
        return linkFault(
          "shape",
          `${part}.${id}: the kit has no ${what} "${id}": see the ids in welcome`,
          `${part}.${id}`,
        );
      }
    }
    return undefined;
  };

  const sendBatch = (nowMs: number) => {
    if (frames.length === 0) return;
    const batch: Batch = { t: "batch", from: batchFrom, frames, events };
    const text = JSON.stringify(batch);
    const toFrame = frames.at(-1)!.f;
    recent.add({ text, take, sentMs: nowMs, toFrame, isBatch: true });
    outputs.toHosts(text);
    batchFrom = toFrame + 1;
    batchedMs = nowMs;
    frames = [];
    events = [];
  };

  /** Puts rules into force from the next frame on. */
  const enforce = (next: Revision, caughtUp: GameRun | undefined, nowMs: number) => {
    sendBatch(nowMs);
    revision = next;
    run = caughtUp;
    pending = undefined;
    forceFrom = (run?.gameFrame ?? -1) + 1;
    learnIds(next);
    const message = { t: "kit", revision: next.number, from: forceFrom, kit: next.kit } as const;
    if (joined) outputs.toGame(message);
    send(message);
  };

  const beginTake = () => {
    run = joined && createGameRun(revision.program, joined.rate);
    log = createPlayedLog();
    batchFrom = 0;
    forceFrom = 0;
  };

  /** Steps a frame of an asking game, and answers each frame that was sent or on which something happened. */
  const answer = (frame: GameFrame) => {
    const found: LinkEvent[] = [];
    run!.step(frame.f, frame, event => found.push(event));
    events.push(...found);
    let at = 0;
    while (at < found.length && found[at]!.f < frame.f) {
      const f = found[at]!.f;
      const first = at;
      while (at < found.length && found[at]!.f === f) at++;
      outputs.toGame({ t: "events", f, events: found.slice(first, at) });
    }
    outputs.toGame({ t: "events", f: frame.f, events: found.slice(at) });
  };

  return {
    get take() {
      return take;
    },
    join(game, nowMs) {
      if (joined)
        return linkFault("taken", "a game plays on this link already: end it, or open another link");
      if (pending) enforce(pending.revision, undefined, nowMs);
      const kitRate = revision.program.rateHz;
      if (game.asks && game.rate !== kitRate)
        return linkFault(
          "rate",
          `rate: a game that asks runs at the kit's ${kitRate} frames a second`,
          "rate",
        );
      joined = game;
      knownIds = new Set();
      learnIds(revision);
      beginTake();
      const { kit, number, program } = revision;
      outputs.toGame({
        t: "welcome",
        kit,
        revision: number,
        rate: program.rateHz,
        controls: program.controls.map(({ id }) => id),
        gates: (kit.gates ?? []).map(({ id }) => id),
        moves: program.moves.map(({ id }) => id),
      });
      const text = JSON.stringify(joinedMessage(game));
      // Only for hosts that still miss an earlier take.
      recent.add({ text, take, sentMs: nowMs, toFrame: -1, isBatch: false });
      outputs.toHosts(text);
      return undefined;
    },
    play(frame, nowMs) {
      const last = run!.gameFrame;
      if (frame.f <= last || frame.f - last > LINK_BOUNDS.jump)
        return linkFault(
          "order",
          `f: ${frame.f} cannot follow ${last}: count by one, or jump ${LINK_BOUNDS.jump} at most`,
          "f",
        );
      const unknown = findUnknown(frame);
      const kept = unknown ? { f: frame.f } : frame;
      if (log.changes >= LINK_BOUNDS.changes && (kept.set ?? kept.gates ?? kept.speed) !== undefined)
        return linkFault(
          "bounds",
          `more than ${LINK_BOUNDS.changes} changes in one take: end it and begin another`,
        );
      log.add(kept);
      if (joined!.asks) answer(kept);
      else run!.step(kept.f, kept, event => events.push(event));
      frames.push(kept);
      if (nowMs - batchedMs >= BATCH_MS) sendBatch(nowMs);
      return unknown;
    },
    end(why, nowMs) {
      if (!joined) return;
      sendBatch(nowMs);
      const text = JSON.stringify({ t: "left", why } satisfies HostMessage);
      recent.add({ text, take, sentMs: nowMs, toFrame: Infinity, isBatch: false });
      outputs.toHosts(text);
      take++;
      const waiting = pending?.revision;
      if (why !== "end") joined = undefined;
      run = undefined;
      if (waiting) enforce(waiting, undefined, nowMs);
      beginTake();
    },
    edit(next) {
      const known = (pending?.revision ?? revision).number;
      if (next.number <= known)
        return linkFault(
          "order",
          `revision: ${next.number} is not above ${known}, the newest here`,
          "revision",
        );
      if (joined?.asks && next.program.rateHz !== joined.rate)
        return linkFault(
          "rate",
          `kit.rate: the game asks at ${joined.rate} frames a second: keep that rate while it plays`,
          "kit.rate",
        );
      pending = { revision: next, run: createGameRun(next.program, rateHz()), next: 0 };
      return undefined;
    },
    catchUp(nowMs) {
      if (!pending) return false;
      if (!run || run.gameFrame < 0) {
        enforce(pending.revision, joined && createGameRun(pending.revision.program, joined.rate), nowMs);
        return false;
      }
      const own = pending;
      const upTo = own.run.gameFrame + SLICE_FRAMES;
      for (let n = 0; n < SLICE_ENTRIES && own.next < log.count; n++) {
        const entry = log.read(own.next);
        if (entry.f > upTo) break;
        own.run.step(entry.f, entry);
        own.next++;
      }
      const nextF = own.next < log.count ? log.read(own.next).f - 1 : run.gameFrame;
      const quiet = Math.min(nextF, upTo);
      if (quiet > own.run.gameFrame) own.run.step(quiet, {});
      if (own.run.gameFrame < run.gameFrame) return true;
      enforce(own.revision, own.run, nowMs);
      return false;
    },
    flush(nowMs) {
      recent.forget(nowMs);
      if (frames.length === 0) return Infinity;
      const inMs = batchedMs + BATCH_MS - nowMs;
      if (inMs > 0) return inMs;
      sendBatch(nowMs);
      return Infinity;
    },
    missed: (from, of) => [
      ...(joined && (of === undefined || of === take) ? [joinedMessage(joined)] : []),
      { t: "kit", revision: revision.number, from: forceFrom, kit: revision.kit },
    ],
    missedBatches(from, of, nowMs) {
      sendBatch(nowMs);
      return recent.since(of ?? take, from);
    },
  };
}

function joinedMessage({ name, rate, asks, player, device }: Join): HostMessage {
  return {
    t: "joined",
    name,
    rate,
    asks,
    ...(player === undefined ? {} : { player }),
    ...(device === undefined ? {} : { device }),
  };
}
