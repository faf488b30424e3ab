// Serves the built application; prints its address when it is ready, and stops cleanly on Ctrl-C.
import { createServer } from "node:http";
import { join } from "node:path";

// Must be set before React is loaded, which selects its build by it.
process.env.NODE_ENV = "production";
const { createRequestHandler } = await import("@react-router/express");
const { default: compression } = await import("compression");
const { default: express } = await import("express");

const ASSETS_POLICY = "default-src 'self'; frame-ancestors 'none'; base-uri 'none'";
const METHODS = ["GET", "HEAD", "OPTIONS"];
const LOOPBACK = ["localhost", "127.0.0.1", "[::1]"];

/** Exits with one clear line. */
function giveUp(words) {
  console.error(words);
  process.exit(2);
}

function readPort(written) {
  const port = Number(written);
  if (!/^\d+$/.test(written) || port > 65_535)
    giveUp(`PORT=${written} is not a port: give a whole number from 0 to 65535`);
  return port;
}

/** Sets security headers of static files. */
function secure(response) {
  response.setHeader("X-Content-Type-Options", "nosniff");
  response.setHeader("Content-Security-Policy", ASSETS_POLICY);
  response.setHeader("Referrer-Policy", "no-referrer");
}

/** Imports a file of the built server. */
const importBuilt = name =>
  import(new URL(`../build/server/${name}`, import.meta.url).href).catch(() =>
    giveUp("There is no build to serve: run bin/start, which builds first"),
  );

async function createApp() {
  const build = await importBuilt("index.js");
  const app = express();
  app.disable("x-powered-by");
  app.use(compression());
  const files = build.assetsBuildDirectory;
  const longLived = { immutable: true, maxAge: "1y", setHeaders: secure };
  app.use("/assets", express.static(join(files, "assets"), longLived));
  app.use(express.static(files, { setHeaders: secure }));
  app.all("*", createRequestHandler({ build, mode: "production" }));
  return app;
}

/** Returns the host name that a request asks for, without its port; undefined if it names none. */
function hostOf({ headers }) {
  const address = `http://${headers.host}/`;
  return headers.host && URL.canParse(address) ? new URL(address).hostname : undefined;
}

/** Another site must not reach a server of this machine under a name of its own. */
const isOwnName = name => !LOOPBACK.includes(host) || LOOPBACK.includes(name);

/** Returns the status and words of an answer given at once; undefined if the application answers. */
function answerAtOnce(request) {
  const { method, url } = request;
  if (!METHODS.includes(method)) return [405, `${method} is not allowed here`];
  const name = hostOf(request);
  if (name === undefined) return [400, "name the host that you ask, in a Host header"];
  if (!isOwnName(name)) return [400, `this server is not ${name}`];
  if (method === "OPTIONS") return [204, ""];
  return url.startsWith("/") ? undefined : [400, "ask for a path of this server, beginning with a slash"];
}

const host = process.env.HOST ?? "127.0.0.1";
const port = readPort(process.env.PORT ?? "3000");
const app = await createApp();
const { attachLinks } = await importBuilt("link.mjs");
// Connections without a complete request are closed after some seconds.
const server = createServer(
  { connectionsCheckingInterval: 1000, headersTimeout: 5000 },
  (request, response) => {
    const answer = answerAtOnce(request);
    if (!answer) return app(request, response);
    const [status, words] = answer;
    secure(response);
    response.writeHead(status, { "Content-Type": "text/plain; charset=utf-8", Allow: METHODS.join(", ") });
    response.end(words && `${words}\n`);
  },
);
server.requestTimeout = 30_000;
server.keepAliveTimeout = 5_000;
server.setTimeout(60_000);
server.on("error", error =>
  giveUp(
    error.code === "EADDRINUSE"
      ? `Port ${port} is taken: end what runs there, or choose another with PORT`
      : `The server could not start: ${error.message}`,
  ),
);
const links = attachLinks(server, { isHostName: isOwnName, ownsUpgrades: true });
server.listen(port, host, () => {
  const name = host === "127.0.0.1" ? "localhost" : host;
  console.log(`Moss Tap is ready at http://${name}:${server.address().port} (Ctrl-C stops it)`);
  if (!LOOPBACK.includes(host))
    console.log(
      `Any machine that reaches ${host} can open this page and its live links; a game needs a code to join one.`,
    );
});
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) {
  process.on(signal, () => {
    server.close(() => process.exit(0));
    links.close();
    server.closeAllConnections();
  });
}
