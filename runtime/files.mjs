import { readFile } from "node:fs/promises";
import { bundleRuntime } from "./bundle.mjs";

/**
 * Returns the runtime with its types, an example, the script that runs vectors, the frame rules, and the file that joins a
 * live link: [name, text] of each file.
 */
export async function runtimeFiles() {
  const kept = ["moss-tap-runtime.d.mts", "example.mjs", "run-vectors.mjs"];
  const forLinks = ["moss-tap-link.mjs", "moss-tap-link.d.mts"];
  const texts = await Promise.all(kept.map(name => readFile(`runtime/${name}`, "utf8")));
  const linkTexts = await Promise.all(forLinks.map(name => readFile(`link/client/${name}`, "utf8")));
  return [
    ["moss-tap-runtime.mjs", await bundleRuntime()],
    ...kept.map((name, k) => [name, texts[k]]),
    ...forLinks.map((name, k) => [name, linkTexts[k]]),
    ["frame-rules.md", await readFile("docs/frame-rules.md", "utf8")],
  ];
}
