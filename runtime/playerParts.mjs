import { readFile } from "node:fs/promises";
import { build } from "esbuild";
import { withoutTexts } from "./without.mjs";

const common = { bundle: true, minify: true, write: false, legalComments: "none", logLevel: "error" };

/** Returns the parts of a playable page: its script, its styles and its markup, as text. */
export async function bundlePlayer() {
  const [script, style, body] = await Promise.all([
    build({
      ...common,
      entryPoints: ["app/player/main.ts"],
      format: "iife",
      target: "es2022",
      plugins: [withoutTexts],
    }),
    build({
      ...common,
      entryPoints: ["app/player/player.css"],
      target: "es2022",
      loader: { ".woff2": "dataurl" },
    }),
    readFile("app/player/player.html", "utf8"),
  ]);
  return { script: script.outputFiles[0].text, style: style.outputFiles[0].text, body };
}
