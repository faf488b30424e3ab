import { once } from "node:events";
import { createServer } from "node:http";
import { WebSocket } from "ws";
import { SUBPROTOCOL, type HostMessage } from "#link";
import { attachLinks } from "../../link/socket/attachLinks";
import { reasonOf } from "../output";

/** An open connection to a server of links, as a host. */
export interface HostConnection {
  readonly send: (message: object) => void;
  readonly onMessage: (listener: (message: HostMessage) => void) => void;
  /** Resolves when the connection ends, with its status. */
  readonly closed: Promise<number>;
  readonly close: () => void;
  /** Whether this process serves the link, because no server did. */
  readonly isOwn: boolean;
}

/** Connects a socket; undefined if nothing listens there. */
async function connect(url: string): Promise<WebSocket | undefined> {
  const socket = new WebSocket(url, SUBPROTOCOL, { maxPayload: 0 });
  try {
    await once(socket, "open");
    return socket;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ECONNREFUSED") return undefined;
    throw new Error(`--url ${url}: ${reasonOf(error)}`, { cause: error });
  }
}

/** Serves links at an address of this machine, until `stop` is called. */
async function serve(url: URL): Promise<() => void> {
  const server = createServer((_request, response) => {
    response.writeHead(404, { "Content-Type": "text/plain" }).end("Only a live link is served here.\n");
  });
  const isHostName = (name: string) => ["localhost", "127.0.0.1", "[::1]"].includes(name);
  const links = attachLinks(server, { isHostName, ownsUpgrades: true });
  await once(server.listen(Number(url.port || 80), "127.0.0.1"), "listening");
  return () => {
    links.close();
    server.close();
  };
}

/** Connects to the server of links at an address. If nothing listens there, serves links there for as long as it runs. */
export async function connectHost(address: string): Promise<HostConnection> {
  if (!URL.canParse(address) || !/^wss?:$/.test(new URL(address).protocol))
    throw new Error(`--url ${address}: write an address such as ws://localhost:3000/link`);
  const url = new URL(address);
  let socket = await connect(address);
  let stop = () => {};
  const isOwn = socket === undefined;
  if (!socket) {
    if (!["localhost", "127.0.0.1"].includes(url.hostname))
      throw new Error(
        `--url ${address}: nothing listens there, and another machine cannot be served from here`,
      );
    stop = await serve(url);
    socket = await connect(address.replace("localhost", "127.0.0.1"));
  }
  const open = socket!;
  const closed = new Promise<number>(resolve => open.on("close", status => resolve(status)));
  return {
    isOwn,
    send: message => open.send(JSON.stringify(message)),
    onMessage(listener) {
      open.on("message", (data: Buffer) => listener(JSON.parse(data.toString("utf8")) as HostMessage));
    },
    closed,
    close() {
      open.close();
      stop();
    },
  };
}
