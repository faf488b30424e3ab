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

/**
 * The modules that are not compiled in: the pool of threads starts files of its own; the others build the player and the
 * runtime, in a checkout only.
 */
const EXTERNAL = ["tinypool", "esbuild", "vite", "lightningcss", "*.mjs"];

/** Compiles sources with all that they import. */
function bundle(entry) {
  return build({
    entryPoints: [join(ROOT, entry)],
    bundle: true,
    external: EXTERNAL,
    platform: "node",
    // The older form of some packages asks for files by names that are made up while they run.
    mainFields: ["module", "main"],
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

/** Compiles the command with its threads into a folder; the project's own by default. Returns that folder. */
export async function compileCommand(folder = OUT) {
  await Promise.all(
    Object.entries(ENTRIES).map(async ([name, entry]) => put(folder, `${name}.mjs`, await bundle(entry))),
  );
  return folder;
}

/** Compiles another script of the project, and returns its path. */
export async function compileScript(script) {
  const name = script.split("/").at(-1).replace(/\.ts$/, ".mjs");
  put(OUT, name, await bundle(script));
  return join(OUT, name);
}
