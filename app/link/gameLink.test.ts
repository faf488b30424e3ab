import { expect, test } from "vitest";
import { evaluate, formatTrace, type Kit, type Take } from "#core";
import { createLinks, type Connection, type GameFrame } from "#link";
import { mustCompile, sketchKit } from "../../core/tests/strips";
import { createBrowser, openKit, openTab, until, type TestBrowser } from "../tests/testWorld";
import type { LinkSocket, LinkSocketListeners } from "./linkSocket";

const KIT: Kit = {
  ...sketchKit("a", {
    gates: [{ id: "ground", name: "Ground" }],
    patterns: [{ id: "press", name: "Press", kind: "press", control: "a" }],
    moves: [
      { id: "hop", name: "Hop", pattern: "press", needs: [{ gate: "ground", coyote: "2f" }], buffer: "3f" },
    ],
  }),
  id: "lantern",
};
const withBuffer =
  (buffer: string) =>
  (kit: Kit): Kit => ({ ...kit, moves: [{ ...kit.moves![0]!, buffer }] });

/** A server that can be ended and started, with messages delivered at once. */
function createServer() {
  let links = createLinks(below => 5 % below);
  let nowMs = 0;
  let open = new Set<(status: number) => void>();
  let isUp = true;
  const work = () => {
    nowMs += 20;
    while (links.work(nowMs) === 0);
  };
  const connect = (onMessage: (text: string) => void, onClose: (status: number) => void): Connection => {
    const end = (status: number) => {
      if (open.delete(end)) onClose(status);
    };
    open.add(end);
    const own = links;
    const connection = own.connect({ send: onMessage, close: end }, { mayHost: true, address: "here" });
    return {
      receive(text) {
        connection.receive(text, nowMs);
        work();
      },
      pulse: connection.pulse,
      leave() {
        open.delete(end);
        connection.leave(nowMs);
        work();
      },
    };
  };
  return {
    connect,
    work,
    stop() {
      isUp = false;
      const all = open;
      open = new Set();
      for (const end of all) open.add(end);
      for (const end of all) end(1006);
      links = createLinks(below => 5 % below);
    },
    start: () => void (isUp = true),
    /** The socket of a page. */
    openSocket({ onOpen, onMessage, onClose }: LinkSocketListeners): LinkSocket {
      let connection: Connection | undefined;
      queueMicrotask(() => {
        if (!isUp) return onClose(1006);
        connection = connect(onMessage, onClose);
        onOpen();
      });
      return {
        send: text => connection?.receive(text, nowMs),
        close: () => connection?.leave(nowMs),
      };
    },
    game(code: string, more: object = {}) {
      const got: Record<string, unknown>[] = [];
      const connection = connect(
        text => got.push(JSON.parse(text) as Record<string, unknown>),
        () => undefined,
      );
      const say = (message: object) => connection.receive(JSON.stringify(message), nowMs);
      say({
        t: "join",
        version: 1,
        code,
        name: "Lantern Hop",
        rate: 60,
        asks: true,
        player: "Ines",
        ...more,
      });
      return {
        got,
        say,
        play: (frames: readonly GameFrame[]) => frames.forEach(frame => say({ t: "frame", ...frame })),
        leave: () => connection.leave(nowMs),
      };
    },
  };
}

type Server = ReturnType<typeof createServer>;

async function openLinked(server: Server, browser: TestBrowser = createBrowser()) {
  const tab = openTab(browser, { openSocket: server.openSocket });
  await openKit(tab, KIT);
  tab.gameLink.open();
  await until(() => tab.gameLink.getState().status === "open");
  return { tab, code: tab.gameLink.getState().code! };
}

const idle = (from: number, to: number): GameFrame[] =>
  Array.from({ length: to - from }, (_, n) => ({ f: from + n }));
/** A press three frames before the ground comes, which the buffer of 3f keeps; one at 20 that is lost. */
const FRAMES: readonly GameFrame[] = [
  ...idle(0, 5),
  { f: 5, set: { a: true } },
  ...idle(6, 8),
  { f: 8, gates: { ground: true }, set: { a: false } },
  ...idle(9, 12),
  { f: 12, gates: { ground: false } },
  ...idle(13, 20),
  { f: 20, set: { a: 1 } },
  ...idle(21, 30),
];

const performedIn = (take: Take, kit: Kit) => {
  const program = mustCompile(kit);
  return formatTrace(program, evaluate(program, take)).events.flatMap(({ kind, f }) =>
    kind === "performed" ? [f] : [],
  );
};

test("a game that plays is shown as the session of the pad, and its take is kept with player and device", async () => {
  const server = createServer();
  const { tab, code } = await openLinked(server);
  const game = server.game(code, { device: "pad" });
  game.play(FRAMES);
  tab.turn(16);
  expect(tab.gameLink.getState()).toMatchObject({
    game: { name: "Lantern Hop" },
    frame: 29,
    counts: undefined,
  });
  const { session, isLinked, frame } = tab.pad.getState();
  expect([isLinked, frame, session!.values[0]]).toEqual([true, 29, 1]);
  tab.pad.wake(true);
  expect(tab.pad.getState().session).toBe(session);
  game.say({ t: "end" });
  tab.turn(16);
  const [take] = tab.workbench.getState().takes;
  expect(take).toMatchObject({
    name: "Take 1",
    player: "Ines",
    device: "pad",
    stage: "none",
    frames: 30,
    rate: 60,
  });
  expect(take!.lanes.a).toEqual([
    [5, 1],
    [8, 0],
    [20, 1],
  ]);
  expect(performedIn(take!, KIT)).toEqual([8]);
  expect(tab.pad.getState()).toMatchObject({ session: undefined, isLinked: false });
  game.play(idle(0, 3));
  tab.turn(16);
  game.leave();
  tab.turn(16);
  expect(tab.workbench.getState().takes.map(({ name, frames }) => [name, frames])).toEqual([
    ["Take 1", 30],
    ["Take 2", 3],
  ]);
  expect(tab.gameLink.getState().game).toBeUndefined();
});

test("an edit is in force in the game from its next frame, and the session goes on under it; so does undo", async () => {
  const server = createServer();
  const { tab, code } = await openLinked(server);
  const game = server.game(code);
  game.play(FRAMES.slice(0, 10));
  tab.turn(16);
  tab.workbench.editKit("buffer", withBuffer("0f"));
  expect(game.got.at(-1)).toMatchObject({
    t: "kit",
    revision: 2,
    from: 10,
    kit: { moves: [{ buffer: "0f" }] },
  });
  expect(tab.gameLink.getState().inForce).toMatchObject({ from: 10 });
  game.play(FRAMES.slice(10));
  tab.turn(16);
  const { session } = tab.pad.getState();
  expect([session!.rules.kit.moves![0]!.buffer, session!.state.frame]).toEqual(["0f", 29]);
  tab.workbench.undo();
  expect(game.got.at(-1)).toMatchObject({ t: "kit", revision: 3, kit: { moves: [{ buffer: "3f" }] } });
  tab.workbench.editKit("fault", kit => ({ ...kit, patterns: [] }));
  expect(game.got.at(-1)).toMatchObject({ revision: 3 });
});

test("acts that the game reports are compared with the rules", async () => {
  const server = createServer();
  const { tab, code } = await openLinked(server);
  const game = server.game(code, { asks: false });
  const did = (f: number): GameFrame => ({ ...FRAMES[f]!, did: [{ kind: "performed", id: "hop" }] });
  game.play([...FRAMES.slice(0, 10), did(10), ...FRAMES.slice(11), ...idle(30, 60)]);
  tab.turn(16);
  expect(tab.gameLink.getState().counts).toEqual({ agreed: 0, apart: 1, onlyGame: 0, onlyRules: 0 });
  game.say({ t: "end" });
  tab.turn(16);
  expect(tab.workbench.getState().takes[0]!.did).toEqual({ hop: [10] });
});

test("a server that starts again is opened with the same code; the take until then is kept", async () => {
  const server = createServer();
  const { tab, code } = await openLinked(server);
  server.game(code).play(FRAMES);
  tab.turn(16);
  server.stop();
  expect(tab.gameLink.getState().status).toBe("away");
  tab.turn(600);
  await Promise.resolve();
  server.start();
  tab.turn(2000);
  await until(() => tab.gameLink.getState().status === "open");
  tab.turn(16);
  expect(tab.gameLink.getState().code).toBe(code);
  expect(tab.workbench.getState().takes.map(({ frames }) => frames)).toEqual([30]);
  server.game(code).play(FRAMES);
  tab.turn(16);
  expect(tab.gameLink.getState().frame).toBe(29);
});

test("a page that is loaded again follows without a hole, and one recording is kept of the take", async () => {
  const server = createServer();
  const browser = createBrowser();
  const { tab, code } = await openLinked(server, browser);
  const game = server.game(code);
  game.play(FRAMES.slice(0, 15));
  tab.turn(600);
  await tab.workbench.flush();
  tab.kill();
  game.play(FRAMES.slice(15));
  const again = openTab(browser, { openSocket: server.openSocket });
  await again.workbench.open(KIT.id);
  await until(() => again.gameLink.getState().status === "open");
  again.turn(16);
  expect(again.gameLink.getState().frame).toBe(29);
  game.say({ t: "end" });
  again.turn(16);
  await again.workbench.flush();
  const { takes } = again.workbench.getState();
  expect(takes.map(({ frames }) => frames)).toEqual([30]);
  expect(performedIn(takes[0]!, KIT)).toEqual([8]);
});

test("of two tabs, the one with the pen sends its rules to the game and keeps the take, once", async () => {
  const server = createServer();
  const browser = createBrowser();
  const { tab, code } = await openLinked(server, browser);
  const other = openTab(browser, { openSocket: server.openSocket });
  await other.workbench.open(KIT.id);
  const game = server.game(code);
  game.play(FRAMES.slice(0, 10));
  tab.turn(16);
  expect(other.gameLink.getState().status).toBe("off");
  other.workbench.takePen();
  await until(() => other.workbench.getState().holder === "ours");
  await until(() => other.gameLink.getState().status === "open");
  other.workbench.editKit("buffer", withBuffer("1f"));
  expect(game.got.at(-1)).toMatchObject({ t: "kit", kit: { moves: [{ buffer: "1f" }] } });
  game.play(FRAMES.slice(10));
  game.say({ t: "end" });
  for (const one of [tab, other]) one.turn(16);
  await until(() => other.workbench.getState().takes.length === 1);
  await other.workbench.flush();
  await until(() => tab.workbench.getState().takes.length === 1);
  expect(other.workbench.getState().takes.map(({ frames }) => frames)).toEqual([30]);
});

test("a server that does not answer is a notice, and closing the link ends it for the game", async () => {
  const server = createServer();
  const tab = openTab(createBrowser(), { openSocket: server.openSocket });
  await openKit(tab, KIT);
  server.stop();
  tab.gameLink.open();
  await until(() => tab.gameLink.getState().status === "off");
  expect(tab.notices.store.getState()[0]?.title).toMatch(/server of this page does not answer/);
  server.start();
  tab.gameLink.open();
  await until(() => tab.gameLink.getState().status === "open");
  const game = server.game(tab.gameLink.getState().code!);
  game.play(FRAMES);
  tab.gameLink.close();
  expect(game.got.at(-1)).toMatchObject({ t: "fault", code: "code" });
  tab.turn(16);
  expect(tab.workbench.getState().takes.length).toBe(1);
  expect(tab.gameLink.getState().status).toBe("off");
});
