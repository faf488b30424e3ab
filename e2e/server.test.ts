import { execFile, spawn, type ChildProcess } from "node:child_process";
import { connect, createServer } from "node:net";
import { promisify } from "node:util";
import { gzipSync } from "node:zlib";
import { afterEach, expect, test } from "vitest";

let server: ChildProcess | undefined;

afterEach(() => void server?.kill("SIGKILL"));

/** Starts the server script; resolves with its port, or with its exit and output. */
function start(env: Record<string, string>) {
  return new Promise<{ port: number; code: number | null; errorText: string }>(resolve => {
    const started = spawn(process.execPath, ["bin/serve.mjs"], { env: { ...process.env, ...env } });
    server = started;
    let errorText = "";
    started.stderr.on("data", text => (errorText += String(text)));
    started.stdout.on("data", text => {
      const port = /ready at http:\/\/localhost:(\d+)/.exec(String(text))?.[1];
      if (port) resolve({ port: Number(port), code: null, errorText });
    });
    started.on("exit", code => resolve({ port: 0, code, errorText }));
  });
}

/** Sends raw bytes and returns the first line and headers of the response. */
function send(port: number, bytes: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, "127.0.0.1", () => socket.write(bytes));
    let answer = "";
    socket.on("data", data => {
      answer += String(data);
      if (answer.includes("\r\n\r\n")) {
        socket.destroy();
        resolve(answer.slice(0, answer.indexOf("\r\n\r\n")));
      }
    });
    socket.on("error", reject);
  });
}

test.each([["abc"], ["-1"], ["70000"], ["3000x"]])("PORT=%s is one clear line, and exit 2", async port => {
  const { code, errorText } = await start({ PORT: port });
  expect(code).toBe(2);
  expect(errorText.trim()).toBe(`PORT=${port} is not a port: give a whole number from 0 to 65535`);
});

test("pages are rendered completely in any NODE_ENV", async () => {
  for (const NODE_ENV of ["", "development", "test"]) {
    const { port } = await start({ PORT: "0", NODE_ENV });
    const answer = await fetch(`http://127.0.0.1:${port}/`);
    expect(answer.status).toBe(200);
    expect(await answer.text()).toMatch(/<\/html>/);
    server!.kill("SIGKILL");
  }
});

const RENDER = `import { createRequestHandler } from "react-router";
  const handle = createRequestHandler(await import("./build/server/index.js"), "production");
  const page = await (await handle(new Request("http://localhost/"))).text();
  const timers = process.getActiveResourcesInfo().filter(kind => kind === "Timeout");
  console.log(JSON.stringify([page.endsWith("</html>"), timers.length]));`;

test("a rendered page leaves no timer that keeps its process running", async () => {
  const env = { ...process.env, NODE_ENV: "production" };
  const given = ["--input-type=module", "--eval", RENDER];
  const { stdout } = await promisify(execFile)(process.execPath, given, { env });
  expect(JSON.parse(stdout)).toEqual([true, 0]);
});

test("the scripts of a first view stay within their sizes, and hold no charts", async () => {
  const { port } = await start({ PORT: "0" });
  const address = `http://127.0.0.1:${port}`;
  const read = async (path: string) => (await fetch(`${address}${path}`)).text();
  for (const [path, limitKb] of [
    ["/", 181],
    ["/kit/some/play", 376],
    ["/kit/some/shape", 396],
  ] as const) {
    const page = await read(path);
    const scripts = new Set(page.match(/\/assets\/[\w.-]+\.js/g));
    const sources = await Promise.all([...scripts].map(read));
    const kb = sources.reduce((sum, source) => sum + gzipSync(source).length, 0) / 1024;
    expect([path, kb]).toEqual([path, expect.toSatisfy(size => size > 100 && size < limitKb)]);
    expect(sources.filter(source => source.includes("BarController"))).toEqual([]);
  }
});

test("a port that is taken is one clear line, and exit 2", async () => {
  const other = createServer().listen(0, "127.0.0.1");
  await new Promise(resolve => other.once("listening", resolve));
  const { port } = other.address() as { port: number };
  const { code, errorText } = await start({ PORT: String(port) });
  other.close();
  expect(code).toBe(2);
  expect(errorText.trim()).toBe(`Port ${port} is taken: end what runs there, or choose another with PORT`);
});

test("a connection that sends nothing, or half a request, is closed within 15 s", async () => {
  const { port } = await start({ PORT: "0" });
  const began = Date.now();
  await Promise.all(["", "GET / HTTP/1.1\r\nHost: local"].map(half => send(port, half)));
  expect(Date.now() - began).toBeLessThan(15_000);
});

test("odd requests get a clear answer, and every answer has its content type", async () => {
  const { port } = await start({ PORT: "0" });
  const head = (line: string) =>
    send(port, `${line} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n`);
  expect(await head("TRACE /")).toMatch(/^HTTP\/1\.1 405 .*nosniff/s);
  expect(await head("OPTIONS *")).toMatch(/^HTTP\/1\.1 204 .*Allow: GET, HEAD, OPTIONS/s);
  expect(await head("POST /")).toMatch(/^HTTP\/1\.1 405 .*Allow: GET, HEAD, OPTIONS/s);
  expect(await send(port, "GET / HTTP/1.0\r\n\r\n")).toMatch(/^HTTP\/1\.1 400/);
  for (const name of ["elsewhere.example", "bad host/", "localhost:port"])
    expect(await send(port, `GET / HTTP/1.1\r\nHost: ${name}\r\nConnection: close\r\n\r\n`)).toMatch(
      /^HTTP\/1\.1 400/,
    );
  expect(await head("GET http://elsewhere.example/")).toMatch(/^HTTP\/1\.1 400/);
  expect(await head("GET /")).toMatch(/^HTTP\/1\.1 200 .*cache-control: no-cache.*nosniff/is);
  expect(await head("GET /_root.data")).toMatch(/content-security-policy: default-src 'none'.*nosniff/is);
  expect(await head("GET /nowhere-at-all")).toMatch(/^HTTP\/1\.1 404/);
  expect(await head("GET /favicon.ico")).toMatch(/^HTTP\/1\.1 200 .*image\/x-icon/is);
  const asset = /\/assets\/[\w.-]+\.js/.exec(await (await fetch(`http://127.0.0.1:${port}/`)).text())![0];
  const answer = await fetch(`http://127.0.0.1:${port}${asset}`);
  expect(answer.headers.get("x-content-type-options")).toBe("nosniff");
  expect(answer.headers.get("content-security-policy")).toContain("default-src 'self'");
});
