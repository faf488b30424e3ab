import { mkdirSync, renameSync, writeFileSync } from "node:fs";
import { basename, resolve } from "node:path";
import { build } from "esbuild";

/** The folder of compiled scripts, relative to the project's folder, in which every command runs. */
const OUT = ".stamp/cli";

/**
 * Compiles a script with all of its own imports into one file and returns that file's path. One plain file
 * starts in a fraction of the time that reading its sources takes, in every thread. Concurrent commands write
 * the same file; the last write wins.
 */
export async function compileScript(script) {
  const { outputFiles } = await build({
    entryPoints: [script],
    bundle: true,
    packages: "external",
    platform: "node",
    target: "node20",
    format: "esm",
    write: false,
    logLevel: "error",
  });
  const out = resolve(OUT, `${basename(script, ".ts")}.mjs`);
  const own = `${out}.${process.pid}`;
  mkdirSync(OUT, { recursive: true });
  writeFileSync(own, outputFiles[0].contents);
  renameSync(own, out);
  return out;
}
