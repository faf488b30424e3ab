import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { WebSocket } from "ws";
import { FLAGS, freePort } from "./browser";

/** A browser driven by WebDriver BiDi (W3C), without a driver package of its own. */
export interface BidiBrowser {
  readonly downloads: string;
  /** Sends a command; resolves with its result. */
  readonly send: (method: string, params: object) => Promise<Record<string, unknown>>;
  /** The errors logged by pages so far. */
  readonly errors: readonly string[];
  readonly close: () => Promise<void>;
}

const START_MS = 30_000;

interface Message {
  readonly id?: number;
  readonly type: "success" | "error" | "event";
  readonly result?: Record<string, unknown>;
  readonly message?: string;
  readonly method?: string;
  readonly params?: { readonly level?: string; readonly text?: string };
}

/** Connects to a browser that listens for BiDi. */
async function connect(address: string) {
  const socket = new WebSocket(address, { perMessageDeflate: false });
  await new Promise((resolve, reject) => socket.once("open", resolve).once("error", reject));
  const waiting = new Map<number, (message: Message) => void>();
  const errors: string[] = [];
  let nextId = 1;
  socket.on("message", data => {
    const message = JSON.parse(String(data)) as Message;
    if (message.type === "event") {
      if (message.params?.level === "error") errors.push(message.params.text ?? "");
      return;
    }
    waiting.get(message.id!)?.(message);
    waiting.delete(message.id!);
  });
  const send = (method: string, params: object) =>
    new Promise<Record<string, unknown>>((resolve, reject) => {
      const id = nextId++;
      waiting.set(id, ({ type, result, message }) =>
        type === "success" ? resolve(result!) : reject(new Error(`${method}: ${message}`)),
      );
      socket.send(JSON.stringify({ id, method, params }));
    });
  return { socket, send, errors };
}

/** Waits for a line of a process that matches, and returns its first group. */
function lineOf(child: ChildProcess, pattern: RegExp): Promise<string> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("the browser did not start")), START_MS);
    const read = (data: unknown) => {
      const found = pattern.exec(String(data));
      if (!found) return;
      clearTimeout(timer);
      resolve(found[1]!);
    };
    child.stdout!.on("data", read);
    child.stderr!.on("data", read);
  });
}

/** Starts Firefox with a new profile, and connects to it. */
export async function openFirefox(): Promise<BidiBrowser> {
  const home = mkdtempSync(join(tmpdir(), "moss-tap-firefox-"));
  const downloads = join(home, "downloads");
  const profile = join(home, "profile");
  mkdirSync(downloads);
  mkdirSync(profile);
  const preferences = {
    "browser.download.dir": downloads,
    "browser.download.folderList": 2,
    "browser.download.alwaysOpenPanel": false,
    "browser.shell.checkDefaultBrowser": false,
    "datareporting.policy.dataSubmissionEnabled": false,
    "toolkit.telemetry.enabled": false,
    "app.update.enabled": false,
    "app.normandy.enabled": false,
  };
  const lines = Object.entries(preferences).map(
    ([name, value]) => `user_pref(${JSON.stringify(name)}, ${JSON.stringify(value)});`,
  );
  writeFileSync(join(profile, "user.js"), lines.join("\n"));
  const child = spawn(
    "/usr/bin/firefox-esr",
    ["--headless", "--no-remote", "--remote-debugging-port=0", "--profile", profile, "about:blank"],
    { env: { ...process.env, HOME: home, MOZ_HEADLESS_WIDTH: "1280", MOZ_HEADLESS_HEIGHT: "900" } },
  );
  const address = await lineOf(child, /WebDriver BiDi listening on (ws:\S+)/);
  const { socket, send, errors } = await connect(`${address}/session`);
  await send("session.new", { capabilities: {} });
  const close = async () => {
    await send("browser.close", {}).catch(() => undefined);
    socket.close();
    child.kill("SIGKILL");
    rmSync(home, { recursive: true, force: true });
  };
  return { downloads, send, errors, close };
}

/** Starts Chromium with a new profile by its driver, and connects to it. */
export async function openChromium(): Promise<BidiBrowser> {
  const home = mkdtempSync(join(tmpdir(), "moss-tap-chromium-"));
  const downloads = join(home, "downloads");
  mkdirSync(downloads);
  const port = await freePort();
  const child = spawn("/usr/bin/chromedriver", [`--port=${port}`]);
  await lineOf(child, /(started successfully)/);
  const answer = await fetch(`http://127.0.0.1:${port}/session`, {
    method: "POST",
    body: JSON.stringify({
      capabilities: {
        alwaysMatch: {
          webSocketUrl: true,
          "goog:chromeOptions": {
            binary: "/usr/bin/chromium",
            args: [...FLAGS, `--user-data-dir=${join(home, "profile")}`, "--window-size=1280,940"],
            prefs: { "download.default_directory": downloads, "download.prompt_for_download": false },
          },
        },
      },
    }),
  });
  const { value } = (await answer.json()) as {
    value: { sessionId: string; capabilities: { webSocketUrl: string } };
  };
  const { socket, send, errors } = await connect(value.capabilities.webSocketUrl);
  const close = async () => {
    socket.close();
    await fetch(`http://127.0.0.1:${port}/session/${value.sessionId}`, { method: "DELETE" });
    child.kill("SIGKILL");
    rmSync(home, { recursive: true, force: true });
  };
  return { downloads, send, errors, close };
}
