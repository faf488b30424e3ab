import { mkdirSync, renameSync, writeFileSync } from "node:fs";
import { basename, resolve } from "node:path";
import { build } from "esbuild";

/** Where compiled scripts lie, from the project's folder, in which every command runs. */
const OUT = ".stamp/cli";

/**
 * Compiles a script, named from the project's folder, with all of ours that it imports into one file, and gives that
 * file's path. A script in one plain file starts in a fraction of the time that its sources take to be read one by one,
 * in every thread anew. Commands that run beside each other write the same: the last one's stays.
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
