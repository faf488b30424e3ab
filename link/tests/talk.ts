import { createLinks, type Connection, type GameFrame, type PeerOrigin } from "..";
import type { Kit } from "#core";

/** A message as the other side parses it. */
export type Message = Record<string, unknown> & { readonly t: string };

export interface TestPeer {
  /** The messages that it got, in order. */
  readonly got: Message[];
  /** The status with which it was closed. */
  closed: number | undefined;
  readonly say: (message: unknown) => void;
  readonly leave: () => void;
  readonly pulse: (ms: number) => void;
  /** Returns the messages of one sort. */
  readonly of: (t: string) => Message[];
}

const HERE: PeerOrigin = { mayHost: true, address: "127.0.0.1" };
export const ELSEWHERE: PeerOrigin = { mayHost: false, address: "10.0.0.7" };

/** The links of a server without sockets, with a clock that the test moves. */
export function createTalk() {
  const clock = { nowMs: 0 };
  let drawn = 0;
  const links = createLinks(below => (drawn += 7) % below);
  /** Does all work that is due now. */
  const work = () => {
    while (links.work(clock.nowMs) === 0);
  };
  const connect = (origin: PeerOrigin = HERE): TestPeer => {
    const got: Message[] = [];
    const peer: TestPeer = {
      got,
      closed: undefined,
      say(message) {
        connection.receive(typeof message === "string" ? message : JSON.stringify(message), clock.nowMs);
        work();
      },
      leave() {
        connection.leave(clock.nowMs);
        work();
      },
      pulse: ms => connection.pulse(ms),
      of: t => got.filter(message => message.t === t),
    };
    const connection: Connection = links.connect(
      {
        send: text => got.push(JSON.parse(text) as Message),
        close: status => (peer.closed ??= status),
      },
      origin,
    );
    return peer;
  };
  return {
    links,
    connect,
    work,
    pass(ms: number) {
      clock.nowMs += ms;
      work();
    },
    /** Opens a link for a kit. */
    open(kit: Kit, more: object = {}) {
      const host = connect();
      host.say({ t: "open", kit, revision: 1, ...more });
      return { host, code: host.of("opened")[0]?.code as string };
    },
    join(code: string, more: object = {}, origin?: PeerOrigin) {
      const game = connect(origin);
      game.say({ t: "join", version: 1, code, name: "Game", rate: 60, asks: true, ...more });
      return game;
    },
  };
}

/** Converts strips, one character a frame, to the frames of a game: `#` is down, `.` up. */
export function drawFrames(
  controls: Readonly<Record<string, string>>,
  gates: Readonly<Record<string, string>> = {},
): GameFrame[] {
  const length = Math.max(
    ...[...Object.values(controls), ...Object.values(gates)].map(strip => strip.length),
  );
  const changes = (strips: Readonly<Record<string, string>>, f: number) =>
    Object.entries(strips).flatMap(([id, strip]) => {
      const isOn = strip[f] === "#";
      return isOn === (strip[f - 1] === "#") ? [] : [[id, isOn] as const];
    });
  return Array.from({ length }, (_, f) => {
    const [set, opened] = [changes(controls, f), changes(gates, f)];
    return {
      f,
      ...(set.length > 0 ? { set: Object.fromEntries(set) } : {}),
      ...(opened.length > 0 ? { gates: Object.fromEntries(opened) } : {}),
    };
  });
}
