import { parseKit } from "#core";
import { createCode, parseCode } from "./code";
import { createLink, createRevision, type Link, type Revision } from "./link";
import {
  LINK_BOUNDS,
  LINK_VERSION,
  type ClientMessage,
  type Fault,
  type Follow,
  type FramesMessage,
  type Join,
  type Open,
} from "./messages";
import { faultOfIssue, linkFault, parseFrame, parseMessage } from "./parseMessage";

/** A connection as the links see it. Calls must not throw. */
export interface Peer {
  readonly send: (text: string) => void;
  /** Closes the connection with a WebSocket status. */
  readonly close: (status: number, reason: string) => void;
}

/** The source of a connection. */
export interface PeerOrigin {
  /** Whether it may open links: a page of this server, or a program on this machine. */
  readonly mayHost: boolean;
  /** Its network address, by which wrong codes are counted. */
  readonly address: string;
}

/** A connected peer. */
export interface Connection {
  readonly receive: (text: string, nowMs: number) => void;
  /** A ping came back after so many ms. */
  readonly pulse: (ms: number) => void;
  /** The connection broke or was closed. */
  readonly leave: (nowMs: number) => void;
}

/** All links of a server. */
export interface Links {
  readonly connect: (peer: Peer, origin: PeerOrigin) => Connection;
  /**
   * Does work that is due: batches, edits that catch up, links without hosts. Returns when to call again, in ms: 0 if
   * there is more to do, Infinity if nothing waits.
   */
  readonly work: (nowMs: number) => number;
  /** The number of open links. */
  readonly size: number;
}

/** The WebSocket statuses of closing. */
const [CLOSED, REFUSED, TOO_BIG] = [1000, 1008, 1009];
const MINUTE_MS = 60_000;
const AWAY_MS = 10 * MINUTE_MS;

interface OpenLink {
  readonly code: string;
  readonly link: Link;
  readonly hosts: Set<Peer>;
  game: Client | undefined;
  /** When its last host left; Infinity while there is one. */
  awayMs: number;
}

interface Client {
  readonly peer: Peer;
  readonly origin: PeerOrigin;
  /** When its faults of the last minute came. */
  faultsMs: number[];
  isClosed: boolean;
  hosted?: OpenLink | undefined;
  played?: OpenLink | undefined;
}

/** Counts wrong codes for each address. */
function createDoor() {
  const wrongMs = new Map<string, number[]>();
  const refusedMs = new Map<string, number>();
  return {
    isShut: (address: string, nowMs: number) => nowMs < (refusedMs.get(address) ?? -Infinity),
    countWrong(address: string, nowMs: number) {
      const recent = [...(wrongMs.get(address) ?? []), nowMs].filter(ms => ms > nowMs - MINUTE_MS);
      wrongMs.set(address, recent);
      if (recent.length < LINK_BOUNDS.codesPerMinute) return;
      refusedMs.set(address, nowMs + MINUTE_MS);
      wrongMs.delete(address);
    },
    forget(nowMs: number) {
      for (const [address, ms] of wrongMs) if (ms.at(-1)! < nowMs - MINUTE_MS) wrongMs.delete(address);
      for (const [address, ms] of refusedMs) if (ms < nowMs) refusedMs.delete(address);
    },
  };
}

/**
 * Creates the links of a server: reads messages, steps the rules, and calls the peers that get an answer. `draw(n)`
 * returns a whole number from 0 to n − 1 that cannot be guessed. Holds no timer: call `work` when it is due, and after
 * every message. Never throws for what a message holds.
 */
export function createLinks(draw: (below: number) => number): Links {
  const links = new Map<string, OpenLink>();
  const door = createDoor();

  const close = (client: Client, status: number, reason: string) => {
    client.isClosed = true;
    client.peer.close(status, reason);
  };

  const refuse = (client: Client, fault: Fault, nowMs: number) => {
    if (client.isClosed) return;
    client.peer.send(JSON.stringify(fault));
    client.faultsMs = [...client.faultsMs.filter(ms => ms > nowMs - MINUTE_MS), nowMs];
    if (client.faultsMs.length < LINK_BOUNDS.faultsPerMinute) return;
    if (client.played) leaveGame(client, "fault", nowMs);
    close(client, REFUSED, "too many faults in a minute");
  };

  const leaveGame = (client: Client, why: "gone" | "fault", nowMs: number) => {
    const open = client.played;
    client.played = undefined;
    if (open?.game !== client) return;
    open.game = undefined;
    open.link.end(why, nowMs);
  };

  const dropLink = (open: OpenLink, reason: string, nowMs: number) => {
    // Another link may have its code since.
    if (links.get(open.code) !== open) return;
    links.delete(open.code);
    const { game } = open;
    if (game) {
      game.peer.send(JSON.stringify(linkFault("code", reason)));
      leaveGame(game, "gone", nowMs);
      close(game, CLOSED, reason);
    }
    for (const peer of open.hosts) peer.close(CLOSED, reason);
  };

  const readRevision = (kit: unknown, revision: number): Revision | Fault => {
    const parsed = parseKit(kit);
    return parsed.ok ? createRevision(revision, parsed.value) : faultOfIssue(parsed.issues[0]!, ["kit"]);
  };

  const nextCode = (asked: string | undefined): string | Fault => {
    if (asked !== undefined) {
      const code = parseCode(asked);
      if (code === undefined)
        return linkFault(
          "shape",
          `code: "${asked}" is not a code: six letters and digits, as KQ4T-7M`,
          "code",
        );
      return links.has(code)
        ? linkFault("taken", `code: ${code} is in use: follow it, or open without a code`, "code")
        : code;
    }
    for (;;) {
      const code = createCode(draw);
      if (!links.has(code)) return code;
    }
  };

  const open = (client: Client, message: Open, nowMs: number) => {
    if (links.size >= LINK_BOUNDS.links)
      return refuse(
        client,
        linkFault("bounds", `${LINK_BOUNDS.links} links are open: close one first`),
        nowMs,
      );
    const revision = readRevision(message.kit, message.revision);
    if ("t" in revision) return refuse(client, revision, nowMs);
    const code = nextCode(message.code);
    if (typeof code !== "string") return refuse(client, code, nowMs);
    const hosts = new Set([client.peer]);
    const own: OpenLink = {
      code,
      hosts,
      game: undefined,
      awayMs: Infinity,
      link: createLink(revision, {
        toGame: answer => own.game?.peer.send(JSON.stringify(answer)),
        toHosts: text => hosts.forEach(peer => peer.send(text)),
      }),
    };
    links.set(code, own);
    client.hosted = own;
    client.peer.send(JSON.stringify({ t: "opened", code }));
  };

  const follow = (client: Client, { code, from, take }: Follow, nowMs: number) => {
    const found = links.get(parseCode(code) ?? "");
    if (!found)
      return refuse(client, linkFault("code", `code: no link has the code "${code}"`, "code"), nowMs);
    const { link } = found;
    const missed = [
      ...link.missed(from, take).map(message => JSON.stringify(message)),
      ...link.missedBatches(from, take, nowMs),
    ];
    found.hosts.add(client.peer);
    found.awayMs = Infinity;
    client.hosted = found;
    client.peer.send(JSON.stringify({ t: "opened", code: found.code, take: link.take }));
    for (const text of missed) client.peer.send(text);
  };

  const join = (client: Client, message: Join, nowMs: number) => {
    if (message.version !== LINK_VERSION)
      return refuse(
        client,
        linkFault(
          "version",
          `version: ${message.version} is not known here: write ${LINK_VERSION}`,
          "version",
        ),
        nowMs,
      );
    const { address } = client.origin;
    if (door.isShut(address, nowMs)) {
      client.peer.send(JSON.stringify(linkFault("code", "too many wrong codes: wait a minute", "code")));
      return close(client, REFUSED, "too many wrong codes");
    }
    const found = links.get(parseCode(message.code) ?? "");
    if (!found) {
      door.countWrong(address, nowMs);
      return refuse(client, linkFault("code", `code: no link has the code "${message.code}"`, "code"), nowMs);
    }
    if (!found.game) found.game = client;
    const isFree = found.game === client;
    const fault = found.link.join(message, nowMs);
    if (!fault) client.played = found;
    else {
      if (isFree) found.game = undefined;
      refuse(client, fault, nowMs);
    }
  };

  const playFrames = (client: Client, { frames }: FramesMessage, path: readonly string[], nowMs: number) => {
    for (let i = 0; i < frames.length && client.played; i++) {
      const at = path.length > 0 ? [...path, i] : [];
      const { frame, fault } = parseFrame(frames[i], at);
      const late = frame && client.played.link.play(frame, nowMs);
      const found = fault ?? late;
      if (found) refuse(client, found, nowMs);
    }
  };

  const misplaced = (client: Client, t: string, nowMs: number) => {
    const may = client.played
      ? "a game sends frame, frames and end"
      : client.hosted
        ? "a host sends edit and close"
        : client.origin.mayHost
          ? "begin with open, follow or join"
          : "begin with join";
    refuse(client, linkFault("shape", `t: ${t} cannot be sent now: ${may}`, "t"), nowMs);
  };

  const edit = (
    client: Client,
    hosted: OpenLink,
    message: { kit: unknown; revision: number },
    nowMs: number,
  ) => {
    const revision = readRevision(message.kit, message.revision);
    const fault = "t" in revision ? revision : hosted.link.edit(revision);
    if (fault) refuse(client, fault, nowMs);
  };

  const dispatch = (client: Client, message: ClientMessage, nowMs: number): void => {
    const { hosted, played, origin } = client;
    const isNew = !hosted && !played;
    switch (message.t) {
      case "open":
        return isNew && origin.mayHost ? open(client, message, nowMs) : misplaced(client, "open", nowMs);
      case "follow":
        return isNew && origin.mayHost ? follow(client, message, nowMs) : misplaced(client, "follow", nowMs);
      case "join":
        return isNew ? join(client, message, nowMs) : misplaced(client, "join", nowMs);
      case "edit":
        return hosted ? edit(client, hosted, message, nowMs) : misplaced(client, "edit", nowMs);
      case "close":
        return hosted ? dropLink(hosted, "the link was closed", nowMs) : misplaced(client, "close", nowMs);
      case "end":
        return played ? played.link.end("end", nowMs) : misplaced(client, "end", nowMs);
      case "frames":
        return played ? playFrames(client, message, ["frames"], nowMs) : misplaced(client, "frames", nowMs);
      case "frame": {
        const { t: _t, ...frame } = message;
        if (!played) return misplaced(client, "frame", nowMs);
        return playFrames(client, { t: "frames", frames: [frame] }, [], nowMs);
      }
    }
  };

  return {
    get size() {
      return links.size;
    },
    connect(peer, origin) {
      const client: Client = { peer, origin, faultsMs: [], isClosed: false };
      return {
        receive(text, nowMs) {
          if (client.isClosed) return;
          const isHost = client.hosted !== undefined || (!client.played && origin.mayHost);
          if (!isHost && byteLength(text) > LINK_BOUNDS.gameBytes) {
            leaveGame(client, "fault", nowMs);
            return close(client, TOO_BIG, "a message of a game has 64 KiB at most");
          }
          const parsed = parseMessage(text);
          if (parsed.ok) dispatch(client, parsed.value, nowMs);
          else refuse(client, parsed.fault, nowMs);
        },
        pulse(ms) {
          if (!client.played) return;
          const text = JSON.stringify({ t: "pulse", ms: Math.round(ms * 10) / 10 });
          for (const host of client.played.hosts) host.send(text);
        },
        leave(nowMs) {
          client.isClosed = true;
          leaveGame(client, "gone", nowMs);
          const { hosted } = client;
          if (hosted?.hosts.delete(peer) && hosted.hosts.size === 0) hosted.awayMs = nowMs;
        },
      };
    },
    work(nowMs) {
      let dueMs = Infinity;
      door.forget(nowMs);
      for (const own of links.values()) {
        if (own.link.catchUp(nowMs)) dueMs = 0;
        dueMs = Math.min(dueMs, own.link.flush(nowMs));
        if (nowMs - own.awayMs >= AWAY_MS) dropLink(own, "no page was there for 10 minutes", nowMs);
      }
      return dueMs;
    },
  };
}

/** Returns the length of a text in UTF-8, in bytes. */
function byteLength(text: string): number {
  // A short text is never too long, whatever it holds.
  if (text.length * 3 <= LINK_BOUNDS.gameBytes) return text.length;
  let bytes = 0;
  for (const letter of text) {
    const code = letter.codePointAt(0)!;
    bytes += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return bytes;
}
