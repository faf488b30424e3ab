import { readFile } from "node:fs/promises";
import { bundleRuntime } from "./bundle.mjs";

/**
 * Returns the runtime with its types, an example and the script that runs vectors: [name, text] of each file.
 */
export async function runtimeFiles() {
  const kept = ["moss-tap-runtime.d.mts", "example.mjs", "run-vectors.mjs"];
  const texts = await Promise.all(kept.map(name => readFile(`runtime/${name}`, "utf8")));
  return [["moss-tap-runtime.mjs", await bundleRuntime()], ...kept.map((name, k) => [name, texts[k]])];
}
