import { randomInt } from "node:crypto";
import type { IncomingMessage, Server } from "node:http";
import type { Duplex } from "node:stream";
import { WebSocketServer, type WebSocket } from "ws";
import { createLinks, LINK_BOUNDS, SUBPROTOCOL, type Links, type PeerOrigin } from "..";

const PATH = "/link";
const PING_MS = 10_000;
/** Links without hosts are looked for at least so often. */
const REST_MS = 1000;
/** A host that reads so slowly is cut off; it follows again from the frame it has. */
const MAX_WAITING_BYTES = 64 * 1024 * 1024;
const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;

/** The links of a server, attached to it. */
export interface AttachedLinks {
  /** Breaks every connection, so that the server can close. */
  readonly close: () => void;
}

export interface LinkServerOptions {
  /** Whether the server may be addressed by a host name, as in the Host header without its port. */
  readonly isHostName: (name: string) => boolean;
  /** Whether other paths are refused here. If not, another listener answers them. */
  readonly ownsUpgrades: boolean;
}

function nameOf(host: string | undefined): string | undefined {
  const address = `http://${host}/`;
  return host !== undefined && URL.canParse(address) ? new URL(address).hostname : undefined;
}

/** A page of this server or a program on this machine may open links; all others may only join with a code. */
function originOf({ headers, socket }: IncomingMessage): PeerOrigin {
  const address = socket.remoteAddress ?? "";
  const { origin, host } = headers;
  if (origin === undefined) return { mayHost: LOOPBACK.test(address), address };
  const isOwn = URL.canParse(origin) && new URL(origin).host === host?.toLowerCase();
  return { mayHost: isOwn, address };
}

function refuseUpgrade(socket: Duplex, reason: string): void {
  socket.on("error", () => socket.destroy());
  socket.end(`HTTP/1.1 400 Bad Request\r\nContent-Type: text/plain\r\nConnection: close\r\n\r\n${reason}\n`);
}

/** Ends a connection that does not answer a ping until the next one. `onPulse` gets the time of each answer, in ms. */
function keepAlive(socket: WebSocket, onPulse: (ms: number) => void): void {
  let askedMs: number | undefined;
  const ping = () => {
    if (askedMs !== undefined) return socket.terminate();
    askedMs = performance.now();
    socket.ping();
  };
  const timer = setInterval(ping, PING_MS);
  ping();
  socket.on("pong", () => {
    if (askedMs !== undefined) onPulse(performance.now() - askedMs);
    askedMs = undefined;
  });
  socket.on("close", () => clearInterval(timer));
}

/** Calls the links when they are due: at once while there is work, else when a batch has waited long enough. */
function createSchedule(links: Links) {
  let timer: NodeJS.Timeout | undefined;
  let next: NodeJS.Immediate | undefined;
  const run = () => {
    clearTimeout(timer);
    clearImmediate(next);
    next = undefined;
    const dueMs = links.work(performance.now());
    if (dueMs === 0) next = setImmediate(run);
    else timer = setTimeout(run, Math.min(dueMs, REST_MS)).unref();
  };
  run();
  return {
    /** To be called after every message. Work in slices goes on after the messages that wait. */
    wake() {
      if (next === undefined) run();
    },
    stop() {
      clearTimeout(timer);
      clearImmediate(next);
    },
  };
}

/**
 * Serves live links at /link of a server, beside whatever it serves: docs/link.md. Connections are answered with
 * WebSocket statuses; a fault in this code closes its connection, not the server.
 */
export function attachLinks(server: Server, options: LinkServerOptions): AttachedLinks {
  const links = createLinks(below => randomInt(below));
  const schedule = createSchedule(links);
  const socketServer = (maxPayload: number) =>
    new WebSocketServer({
      noServer: true,
      maxPayload,
      perMessageDeflate: false,
      handleProtocols: () => SUBPROTOCOL,
    });
  const forHosts = socketServer(LINK_BOUNDS.hostBytes);
  const forGames = socketServer(LINK_BOUNDS.gameBytes);

  const accept = (socket: WebSocket, origin: PeerOrigin) => {
    const connection = links.connect(
      {
        send(text) {
          if (socket.readyState !== socket.OPEN) return;
          if (socket.bufferedAmount > MAX_WAITING_BYTES) socket.terminate();
          else socket.send(text);
        },
        close: (status, reason) => socket.close(status, reason),
      },
      origin,
    );
    keepAlive(socket, connection.pulse);
    // A broken or too large message: the connection is closed with the status that names it.
    socket.on("error", () => undefined);
    socket.on("message", (data: Buffer, isBinary) => {
      if (isBinary) return socket.close(1003, "messages are text");
      try {
        connection.receive(data.toString("utf8"), performance.now());
        schedule.wake();
      } catch (error) {
        console.error(error);
        socket.close(1011, "a fault of the server");
      }
    });
    socket.on("close", () => {
      connection.leave(performance.now());
      schedule.wake();
    });
  };

  server.on("upgrade", (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    const path = request.url?.split("?")[0];
    if (path !== PATH) {
      if (options.ownsUpgrades) refuseUpgrade(socket, `only ${PATH} is a WebSocket here`);
      return;
    }
    const name = nameOf(request.headers.host);
    if (name === undefined || !options.isHostName(name))
      return refuseUpgrade(socket, "this server has another name");
    const offered = request.headers["sec-websocket-protocol"];
    if (offered !== undefined && !offered.split(",").some(one => one.trim() === SUBPROTOCOL))
      return refuseUpgrade(socket, `offer the subprotocol ${SUBPROTOCOL}`);
    const origin = originOf(request);
    const sockets = origin.mayHost ? forHosts : forGames;
    sockets.handleUpgrade(request, socket, head, opened => accept(opened, origin));
  });

  return {
    close() {
      schedule.stop();
      for (const sockets of [forHosts, forGames]) for (const socket of sockets.clients) socket.terminate();
    },
  };
}
