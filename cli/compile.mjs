// Compiles the command and the scripts of its threads into plain files, which start in a fraction of the time.
import { mkdirSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

export const ROOT = fileURLToPath(new URL("..", import.meta.url));
const OUT = join(ROOT, ".stamp/cli");

/** The compiled files by name, and the sources they are made of. */
const ENTRIES = {
  "moss-tap": "cli/main.ts",
  checkThread: "cli/checks/checkThread.ts",
  pressThread: "cli/presses/pressThread.ts",
};

/** Compiles sources with all that they import; `external` packages are left where they are. */
function bundle(entry, external) {
  return build({
    entryPoints: [join(ROOT, entry)],
    bundle: true,
    external,
    platform: "node",
    target: "node20",
    format: "esm",
    // Packages in the older module format ask for `require`.
    banner: {
      js: 'import { createRequire as makeRequire } from "node:module"; const require = makeRequire(import.meta.url);',
    },
    minify: true,
    legalComments: "none",
    write: false,
    logLevel: "error",
  }).then(({ outputFiles }) => outputFiles[0].contents);
}

/** Writes a file so that a command that runs meanwhile never reads half of it. */
function put(folder, name, contents) {
  mkdirSync(folder, { recursive: true });
  const own = join(folder, `${name}.${process.pid}`);
  writeFileSync(own, contents);
  renameSync(own, join(folder, name));
}

/**
 * Compiles the command with its threads into a folder; the project's own by default. Returns that folder. Of packages only
 * the pool of threads stays outside, because it starts files of its own.
 */
export async function compileCommand(folder = OUT) {
  const external = ["tinypool", "esbuild", "vite", "lightningcss", "*.mjs"];
  await Promise.all(
    Object.entries(ENTRIES).map(async ([name, entry]) =>
      put(folder, `${name}.mjs`, await bundle(entry, external)),
    ),
  );
  return folder;
}

/** Compiles another script of the project, and returns its path. */
export async function compileScript(script) {
  const name = script.split("/").at(-1).replace(/\.ts$/, ".mjs");
  put(OUT, name, await bundle(script, ["tinypool", "esbuild", "vite", "lightningcss", "*.mjs"]));
  return join(OUT, name);
}
