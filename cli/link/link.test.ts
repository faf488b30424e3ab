import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, readFileSync, readdirSync, rmSync, symlinkSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { parseTake } from "#core";
import { compileCommand } from "../compile.mjs";

const folder = mkdtempSync(join(tmpdir(), "moss-tap-link-"));
let command = "";

beforeAll(async () => {
  command = `${await compileCommand(folder)}/moss-tap.mjs`;
  symlinkSync(resolve("node_modules"), join(folder, "node_modules"));
});
afterAll(() => rmSync(folder, { recursive: true }));

async function freePort(): Promise<number> {
  const server = createServer().listen(0, "127.0.0.1");
  await once(server, "listening");
  const { port } = server.address() as AddressInfo;
  server.close();
  return port;
}

/** Starts a process; `ended` resolves with its exit code and output, `printed` when a line matches. */
function start(args: readonly string[]) {
  const child = spawn(process.execPath, args);
  let output = "";
  const waiting = new Set<() => void>();
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", data => {
      output += String(data);
      waiting.forEach(check => check());
    });
  return {
    ended: new Promise<{ code: number | null; output: string }>(done =>
      child.on("close", code => done({ code, output })),
    ),
    printed: (pattern: RegExp) =>
      new Promise<RegExpExecArray>(done => {
        const check = () => {
          const found = pattern.exec(output);
          if (!found) return;
          waiting.delete(check);
          done(found);
        };
        waiting.add(check);
        check();
      }),
  };
}

/** Plays the sample game against the command, as a build does. */
async function playGame(game: readonly string[], link: readonly string[] = []) {
  const url = `ws://localhost:${await freePort()}/link`;
  const checking = start([command, "link", "demo/belfry-runner/kit.json", "--url", url, "--check", ...link]);
  const [, code] = await checking.printed(/code (\S+)/);
  const playing = start([
    "game/main.mjs",
    "--url",
    url,
    "--code",
    code!,
    "--frames",
    "1500",
    "--fast",
    ...game,
  ]);
  const [checked, played] = await Promise.all([checking.ended, playing.ended]);
  return { ...checked, game: played.output };
}

test("a game whose input code does what the rules do passes, and leaves its take", async () => {
  const out = join(folder, "takes");
  const { code, output } = await playGame(["--own"], ["--out", out, "--code", "KQ4T-7M"]);
  expect(output).toMatch(/take 1 ended after 1500f: 28 agreed, 0 apart, 0 only the game, 0 only the rules/);
  expect([code, output.trim().split("\n").at(-1)]).toEqual([0, "no difference of more than 0f"]);
  expect(readdirSync(out)).toEqual(["001-hands-1.json"]);
  const take = parseTake(JSON.parse(readFileSync(join(out, "001-hands-1.json"), "utf8")));
  if (!take.ok) throw new Error("the take must read");
  expect([take.value.frames, take.value.stage, take.value.player]).toEqual([1500, "none", "hands 1"]);
  expect(take.value.did?.hop?.length).toBeGreaterThan(5);
});

test("a game that forgives a frame more fails, and the difference is named with both lengths", async () => {
  const { code, output } = await playGame(["--fault", "coyote+1"], ["--slip", "29"]);
  expect(output).toContain(
    "514f Hop: only the game: in the game it counts by coyote 6f after Footing closed, by the rules for 5f\n",
  );
  expect(code).toBe(1);
});

test("a game that asks gets its events, and a check of it has compared nothing", async () => {
  const { code, output } = await playGame([]);
  expect(output).toContain("nothing was compared");
  expect(code).toBe(2);
});

test("wrong options, and a game that does not come, are one clear line and exit 2", async () => {
  const kit = "demo/belfry-runner/kit.json";
  const url = `ws://localhost:${await freePort()}/link`;
  const wrong: [string[], RegExp][] = [
    [["--slip", "x"], /^--slip x: write a whole number of frames/],
    [["--url", "localhost"], /--url localhost: write an address such as/],
    [["--code", "12"], /code: "12" is not a code/],
    [["--wait", "1"], /no game joined within 1 s/],
  ];
  for (const [args, words] of wrong) {
    const { code, output } = await start([command, "link", kit, "--url", url, ...args]).ended;
    expect([code, output.split("\n").filter(Boolean).at(-1)]).toEqual([2, expect.stringMatching(words)]);
  }
});
