// Makes the package of the command: everything compiled ahead, in a tarball that installs without network.
import { execFileSync } from "node:child_process";
import { chmodSync, cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { bundlePlayer } from "../runtime/playerParts.mjs";
import { runtimeFiles } from "../runtime/files.mjs";
import { compileCommand, ROOT } from "./compile.mjs";

const out = resolve(process.argv[2] ?? join(ROOT, "build"));
process.chdir(ROOT);
const folder = join(ROOT, ".stamp/package");
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
mkdirSync(out, { recursive: true });

const { version, license, engines, dependencies } = JSON.parse(readFileSync("package.json", "utf8"));
const pool = "tinypool";
const description = {
  name: "moss-tap",
  version,
  description: "Timing rules of a game on takes, in a terminal: traces, checks, tables, exports and imports.",
  license,
  type: "module",
  engines,
  bin: { "moss-tap": "moss-tap.mjs" },
  dependencies: { [pool]: dependencies[pool] },
  bundleDependencies: [pool],
};
writeFileSync(join(folder, "package.json"), `${JSON.stringify(description, null, 2)}\n`);
await compileCommand(folder);
const command = join(folder, "moss-tap.mjs");
writeFileSync(command, `#!/usr/bin/env node\n${readFileSync(command, "utf8")}`);
chmodSync(command, 0o755);
const parts = { player: await bundlePlayer(), runtime: await runtimeFiles() };
writeFileSync(join(folder, "parts.json"), JSON.stringify(parts));
for (const [from, to] of [
  ["LICENSE", "LICENSE"],
  ["docs/build-server.md", "README.md"],
  ["docs/check-rules.md", "docs/check-rules.md"],
  ["docs/frame-rules.md", "docs/frame-rules.md"],
  ["docs/file-formats.md", "docs/file-formats.md"],
])
  cpSync(from, join(folder, to));
cpSync(`node_modules/${pool}`, join(folder, "node_modules", pool), { recursive: true });
const name = execFileSync("npm", ["pack", "--silent", "--pack-destination", out], {
  cwd: folder,
  encoding: "utf8",
});
console.log(join(out, name.trim().split("\n").at(-1)));
