// Compiles the command and the scripts of its threads into plain files, which start in a fraction of the time.
import { mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { basename, join } from "node:path";
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

/** The beginning of the names of the files that entries share. */
const SHARED = "shared-";

/**
 * Compiles sources, by the names of their files, with all that they import; returns the files with their contents. Modules that
 * several of them use, or that are imported when they are needed, are files of their own.
 */
function bundle(entries) {
  return build({
    entryPoints: Object.fromEntries(Object.entries(entries).map(([name, path]) => [name, join(ROOT, path)])),
    outdir: "/",
    outExtension: { ".js": ".mjs" },
    splitting: true,
    chunkNames: `${SHARED}[hash]`,
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
  }).then(({ outputFiles }) => outputFiles.map(({ path, contents }) => ({ name: basename(path), contents })));
}

/** Writes a file so that a command that runs meanwhile never reads half of it. */
function put(folder, name, contents) {
  mkdirSync(folder, { recursive: true });
  const own = join(folder, `${name}.${process.pid}`);
  writeFileSync(own, contents);
  renameSync(own, join(folder, name));
}

/** The age from which on files of an earlier build are removed, in ms: until then, a command may still read them. */
const OLD_MS = 60 * 60 * 1000;

/** Removes old files that entries of earlier builds have shared. */
function removeOld(folder, current) {
  for (const name of readdirSync(folder)) {
    if (!name.startsWith(SHARED) || current.has(name)) continue;
    const path = join(folder, name);
    if (Date.now() - statSync(path).mtimeMs > OLD_MS) rmSync(path, { force: true });
  }
}

/** Compiles the command with its threads into a folder; the project's own by default. Returns that folder. */
export async function compileCommand(folder = OUT) {
  const files = await bundle(ENTRIES);
  const isShared = ({ name }) => name.startsWith(SHARED);
  // Entries last: the files that they name are there by then.
  for (const { name, contents } of [...files.filter(isShared), ...files.filter(file => !isShared(file))])
    put(folder, name, contents);
  removeOld(folder, new Set(files.map(({ name }) => name)));
  return folder;
}

/** Compiles another script of the project, and returns its path. */
export async function compileScript(script) {
  const name = basename(script, ".ts");
  for (const file of await bundle({ [name]: script })) put(OUT, file.name, file.contents);
  return join(OUT, `${name}.mjs`);
}
