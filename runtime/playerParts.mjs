import { readFile } from "node:fs/promises";
import { build } from "esbuild";
import { noticesOf } from "./notices.mjs";
import { withoutTexts } from "./without.mjs";

const common = {
  bundle: true,
  minify: true,
  write: false,
  metafile: true,
  legalComments: "none",
  logLevel: "error",
};

/**
 * Returns the parts of a playable page as text: its script, its styles, its markup, and the notices of the
 * packages and of the fonts in it.
 */
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
  const [notices, fontNotices] = await Promise.all(
    [script, style].map(({ metafile }) => noticesOf(Object.keys(metafile.inputs))),
  );
  return { script: script.outputFiles[0].text, style: style.outputFiles[0].text, body, notices, fontNotices };
}
