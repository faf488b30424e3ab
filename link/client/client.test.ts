import { once } from "node:events";
import { readFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { gzipSync } from "node:zlib";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { WebSocket } from "ws";
import { sketchKit } from "../../core/tests/strips";
import { SUBPROTOCOL } from "..";
import { attachLinks, type AttachedLinks } from "../socket/attachLinks";
import { joinLink, type LinkedGame, type LinkFault, type LinkOptions } from "./moss-tap-link.mjs";

const KIT = sketchKit("a", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [{ id: "press", name: "Press", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "press", needs: [{ gate: "ground" }], buffer: "9f" }],
});

let server: Server;
let attached: AttachedLinks;
let port = 0;
let game: LinkedGame | undefined;

/** Starts a server, on the port of the one before within a test. */
async function startServer() {
  server = createServer();
  attached = attachLinks(server, { isHostName: () => true, ownsUpgrades: true });
  await once(server.listen(port, "127.0.0.1"), "listening");
  port = (server.address() as AddressInfo).port;
}

async function stopServer() {
  attached.close();
  server.close();
  server.closeAllConnections();
  await once(server, "close");
}

beforeEach(() => {
  port = 0;
  return startServer();
});
afterEach(async () => {
  game?.close();
  await stopServer();
});

/** Opens a link as the page does. */
async function openLink(code?: string) {
  const host = new WebSocket(`ws://127.0.0.1:${port}/link`, SUBPROTOCOL);
  const got: Record<string, unknown>[] = [];
  host.on("message", (data: Buffer) => got.push(JSON.parse(data.toString()) as Record<string, unknown>));
  await once(host, "open");
  host.send(JSON.stringify({ t: "open", kit: KIT, revision: 1, code }));
  await vi.waitFor(() => expect(got.length).toBeGreaterThan(0));
  return { host, got, code: got[0]!.code as string };
}

function join(code: string, more: Partial<LinkOptions> = {}) {
  const faults: LinkFault[] = [];
  const onFault = (fault: LinkFault) => faults.push(fault);
  game = joinLink({ url: `ws://127.0.0.1:${port}/link`, code, WebSocket, onFault, ...more });
  return { game, faults };
}

/** Steps the game until something holds. */
async function playUntil(
  played: LinkedGame,
  input: Parameters<LinkedGame["step"]>[0],
  isDone: () => boolean,
) {
  const events: { kind: string; f: number }[] = [];
  await vi.waitFor(
    () => {
      events.push(...played.step(input));
      expect(isDone()).toBe(true);
    },
    { timeout: 20_000, interval: 5 },
  );
  return events;
}

test("a game plays by the events of the link, as it does by the runtime", async () => {
  const { got, code } = await openLink();
  const { game, faults } = join(code, { name: "Tower", player: "Ines" });
  expect(game.step({ controls: { a: true } })).toEqual([]);
  await vi.waitFor(() => expect(game.state).toBe("playing"));
  expect([game.controls, game.gates, game.moves]).toEqual([["a"], ["ground"], ["hop"]]);
  game.step({ controls: { a: true } });
  game.step({ controls: {}, gates: { ground: true }, speedPercent: 50, did: ["hop"] });
  const events = await playUntil(game, { controls: {}, speedPercent: 50 }, () => game.isOpen("ground"));
  expect(events.filter(({ kind }) => kind === "performed")).toMatchObject([{ f: 1, id: "hop", waited: 1 }]);
  const framesOf = () => got.flatMap(({ frames }) => (frames ?? []) as object[]);
  await vi.waitFor(() => expect(framesOf().length).toBeGreaterThan(2));
  const frames = framesOf();
  expect(frames.slice(0, 3)).toEqual([
    { f: 0, set: { a: true } },
    { f: 1, set: { a: false }, gates: { ground: true }, speed: 50, did: [{ kind: "performed", id: "hop" }] },
    { f: 2 },
  ]);
  expect(faults).toEqual([]);
});

test("a server that ends and comes back is joined again, with what is held from its first frame on", async () => {
  const first = await openLink();
  const { game } = join(first.code);
  await playUntil(game, { controls: { a: true } }, () => game.frame > 2);
  await stopServer();
  await vi.waitFor(() => expect(game.state).toBe("joining"));
  expect(game.step({ controls: { a: true } })).toEqual([]);
  await startServer();
  const { got } = await openLink(first.code);
  await playUntil(game, { controls: { a: true } }, () => game.state === "playing" && game.frame >= 0);
  await vi.waitFor(() =>
    expect(got.find(({ t }) => t === "batch")).toMatchObject({
      from: 0,
      frames: [{ f: 0, set: { a: true } }],
    }),
  );
});

test("nothing is thrown without a server, with a wrong address, without a WebSocket or for a wrong rate", async () => {
  const { code } = await openLink();
  const away = joinLink({ url: "ws://127.0.0.1:1/link", code, WebSocket });
  const wrong: LinkFault[] = [];
  const onFault = (fault: LinkFault) => wrong.push(fault);
  const others = [
    joinLink({ url: "no address", code, WebSocket, onFault }),
    joinLink({ url: `ws://127.0.0.1:${port}/link`, code, WebSocket: "none", onFault }),
    joinLink({ url: `ws://127.0.0.1:${port}/link`, code, rate: 30, WebSocket, onFault }),
  ];
  await vi.waitFor(() => expect(wrong.length).toBe(3));
  expect(wrong.map(({ code }) => code)).toEqual(["socket", "socket", "rate"]);
  expect(others.map(({ state }) => state)).toEqual(["refused", "refused", "refused"]);
  for (const one of [away, ...others]) {
    expect(one.step({ controls: { a: true } })).toEqual([]);
    one.end();
    one.close();
  }
});

test("the file has no imports, and takes at most 4 KB packed", () => {
  const text = readFileSync("link/client/moss-tap-link.mjs", "utf8");
  expect(gzipSync(text, { level: 9 }).length).toBeLessThan(4096);
  expect(text).not.toMatch(/\bimport\b/);
});
