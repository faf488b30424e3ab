import { execFileSync, spawnSync } from "node:child_process";
import {
  chmodSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";

const MEGABYTE = 1024 * 1024;

/** The repository of a made-up game, without any package of ours but the one installed. */
const game = mkdtempSync(join(tmpdir(), "lantern-hop-"));
/** The blocks of the page for build servers, in order: install, script, whole run, comparison, table. */
const blocks = [...readFileSync("docs/build-server.md", "utf8").matchAll(/```sh\n([\s\S]*?)```/g)].map(
  ([, text]) => text!,
);

const shell = (line: string) => spawnSync("bash", ["-c", line], { cwd: game, encoding: "utf8" });
const command = (...args: readonly string[]) =>
  spawnSync("node_modules/.bin/moss-tap", args, { cwd: game, encoding: "utf8" });

beforeAll(() => {
  mkdirSync(join(game, "tools"));
  mkdirSync(join(game, "feel/takes/night one"), { recursive: true });
  execFileSync("node", ["cli/pack.mjs", join(game, "tools")]);
  writeFileSync(join(game, "package.json"), '{"name": "lantern-hop", "private": true}');
  for (const name of ["kit.json", "checks.json"])
    cpSync(`demo/belfry-runner/${name}`, join(game, "feel", name));
  const takes = readdirSync("demo/belfry-runner").filter(name => /^\d/.test(name));
  takes.forEach((name, k) =>
    cpSync(`demo/belfry-runner/${name}`, join(game, "feel/takes", k < 2 ? name : join("night one", name))),
  );
  const installed = shell(blocks[0]!);
  if (installed.status !== 0) throw new Error(installed.stderr);
}, 120_000);
afterAll(() => rmSync(game, { recursive: true, force: true }));

test("the package installs without network, is small, and knows its version", () => {
  const size = (path: string): number =>
    statSync(path).isDirectory()
      ? readdirSync(path).reduce((sum, name) => sum + size(join(path, name)), 0)
      : statSync(path).size;
  expect(size(join(game, "node_modules/moss-tap"))).toBeLessThan(5 * MEGABYTE);
  expect(command("--version").stdout.trim()).toBe("0.1.0");
  expect(command("--help").status).toBe(0);
});

test("the lines of the page run as written", () => {
  writeFileSync(join(game, "check-feel.sh"), blocks[1]!);
  chmodSync(join(game, "check-feel.sh"), 0o755);
  const shards = [1, 2, 3, 4].map(shard => shell(`./check-feel.sh ${shard}`).status);
  expect(shards.filter(status => status === 1)).toHaveLength(1);
  expect(shards.filter(status => status === 0)).toHaveLength(3);
  expect(readdirSync(join(game, "reports")).sort()).toEqual([1, 2, 3, 4].map(shard => `feel-${shard}.xml`));
  expect(shell(blocks[2]!).status).toBe(1);
  const again = shell(blocks[3]!);
  expect([again.status, again.stdout.split("\n").at(-2)]).toEqual([
    0,
    "# newly broken 0, newly held 0, still broken 1, gone 0",
  ]);
  expect(shell(blocks[4]!).status).toBe(0);
  expect(readFileSync(join(game, "reports/presses.parquet")).subarray(0, 4).toString()).toBe("PAR1");
});

test.each([
  ["an unknown option", ["check", "--sideways"]],
  ["a missing kit", ["check", "nowhere.json", "feel/checks.json", "feel/takes"]],
  [
    "a report where a folder is",
    ["check", "feel/kit.json", "feel/checks.json", "feel/takes", "--out", "feel"],
  ],
  [
    "a report below a file",
    ["check", "feel/kit.json", "feel/checks.json", "feel/takes", "--out", "feel/kit.json/x"],
  ],
  ["a table where a folder is", ["judge", "feel/kit.json", "feel/takes", "--out", "feel/takes.csv/"]],
  ["an export below a file", ["export", "feel/kit.json", "--as", "sheet", "--out", "feel/kit.json/x"]],
  ["no command", []],
])("%s: exit 2, lines and no stack", (_, args) => {
  const { status, stderr } = command(...args);
  expect(status).toBe(2);
  expect(stderr).not.toBe("");
  expect(stderr).not.toMatch(/^\s+at /m);
});

test("a trace with phases, and an export that needs the prepared parts, come from the package alone", () => {
  const traced = command("trace", "feel/kit.json", "feel/takes/1-clean-climb.json", "--phases");
  expect(JSON.parse(traced.stdout)).toMatchObject({ format: "moss-tap/trace" });
  expect(
    command("export", "feel/kit.json", "feel/takes", "--as", "page", "--out", "reports/page.html").status,
  ).toBe(0);
  expect(readFileSync(join(game, "reports/page.html"), "utf8")).toContain("<html");
});
