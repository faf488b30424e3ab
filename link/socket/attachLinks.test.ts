import { once } from "node:events";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, expect, test } from "vitest";
import { WebSocket } from "ws";
import { sketchKit } from "../../core/tests/strips";
import { SUBPROTOCOL } from "..";
import { attachLinks, type AttachedLinks } from "./attachLinks";

const KIT = sketchKit("a", {
  patterns: [{ id: "press", name: "Press", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "press" }],
});

let server: Server;
let attached: AttachedLinks;
let port = 0;

beforeAll(async () => {
  server = createServer();
  attached = attachLinks(server, { isHostName: name => name !== "evil.example", ownsUpgrades: true });
  await once(server.listen(0, "127.0.0.1"), "listening");
  port = (server.address() as AddressInfo).port;
});

afterAll(() => {
  attached.close();
  server.close();
});

type Message = Record<string, unknown>;

/** Connects, and returns the connection with a queue of its messages; rejects if the upgrade is refused. */
async function connect(headers: Record<string, string> = {}, protocol = SUBPROTOCOL, path = "/link") {
  const socket = new WebSocket(`ws://127.0.0.1:${port}${path}`, protocol, { headers });
  const got: Message[] = [];
  const waiting: ((message: Message) => void)[] = [];
  socket.on("message", (data: Buffer) => {
    const message = JSON.parse(data.toString()) as Message;
    const receive = waiting.shift();
    if (receive) receive(message);
    else got.push(message);
  });
  socket.on("error", () => undefined);
  const closed = new Promise<number>(resolve => socket.on("close", resolve));
  await new Promise<void>((resolve, reject) => {
    socket.on("open", resolve);
    socket.on("unexpected-response", (_request, response) => reject(new Error(String(response.statusCode))));
    socket.on("close", () => reject(new Error("closed")));
  });
  return {
    socket,
    closed,
    say: (message: object) => socket.send(JSON.stringify(message)),
    next: () => {
      const message = got.shift();
      return message ? Promise.resolve(message) : new Promise<Message>(resolve => waiting.push(resolve));
    },
  };
}

async function openLink() {
  const host = await connect();
  host.say({ t: "open", kit: KIT, revision: 1 });
  const { code } = await host.next();
  return { host, code };
}

const joinOf = (code: unknown) => ({ t: "join", version: 1, code, name: "<b>", rate: 60, asks: true });

test("a game and a host talk through sockets, and a broken connection ends the take", async () => {
  const { host, code } = await openLink();
  const game = await connect({ Origin: "http://elsewhere.example" });
  expect(game.socket.protocol).toBe(SUBPROTOCOL);
  game.say(joinOf(code));
  expect((await game.next()).t).toBe("welcome");
  expect(await host.next()).toEqual({ t: "joined", name: "<b>", rate: 60, asks: true });
  game.say({ t: "frame", f: 0, set: { a: true } });
  const events = [
    { f: 0, kind: "fired", id: "press" },
    { f: 0, kind: "performed", id: "hop", pattern: "press", waited: 0 },
  ];
  expect(await game.next()).toMatchObject({
    t: "events",
    f: 0,
    events: events.map(({ kind, id }) => ({ kind, id })),
  });
  expect(await host.next()).toMatchObject({ t: "batch", from: 0, frames: [{ f: 0, set: { a: true } }] });
  game.socket.terminate();
  expect(await host.next()).toEqual({ t: "left", why: "gone" });
  host.say({ t: "edit", revision: 2, kit: KIT });
  expect(await host.next()).toMatchObject({ t: "kit", revision: 2, from: 0 });
  host.say({ t: "close" });
  expect(await host.closed).toBe(1000);
});

test("a page of this server may open a link; one of another origin, or with an opaque one, may not", async () => {
  const own = await connect({ Origin: `http://127.0.0.1:${port}` });
  own.say({ t: "open", kit: KIT, revision: 1 });
  expect((await own.next()).t).toBe("opened");
  for (const Origin of ["http://elsewhere.example", `http://localhost:${port + 1}`, "null"]) {
    const other = await connect({ Origin });
    other.say({ t: "open", kit: KIT, revision: 1 });
    expect(await other.next()).toMatchObject({ t: "fault", code: "shape", at: "t" });
    other.socket.close();
  }
  own.say({ t: "close" });
  await own.closed;
});

test("another path, host name or subprotocol is refused before it is a WebSocket", async () => {
  await expect(connect({}, SUBPROTOCOL, "/other")).rejects.toThrow("400");
  await expect(connect({ Host: "evil.example" })).rejects.toThrow("400");
  await expect(connect({}, "another.v1")).rejects.toThrow("400");
});

test("a message beyond 64 KiB from a game, and a binary one, close the connection", async () => {
  const { host, code } = await openLink();
  const far = await connect({ Origin: "http://elsewhere.example" });
  far.socket.send(" ".repeat(64 * 1024 + 1));
  expect(await far.closed).toBe(1009);
  const near = await connect();
  near.say(joinOf(code));
  await near.next();
  near.socket.send(" ".repeat(64 * 1024 + 1));
  expect(await near.closed).toBe(1009);
  const binary = await connect();
  binary.socket.send(Buffer.from("{}"));
  expect(await binary.closed).toBe(1003);
  host.say({ t: "close" });
  await host.closed;
});

test("a host may send a kit of megabytes, and a game of a thousand faults is closed", async () => {
  const host = await connect();
  host.say({ t: "open", kit: { ...KIT, name: "x".repeat(8 * 1024 * 1024) }, revision: 1 });
  expect(await host.next()).toMatchObject({ t: "fault", code: "bounds", at: "kit.name" });
  for (let n = 0; n < 1000; n++) host.socket.send("{");
  expect(await host.closed).toBe(1008);
});
