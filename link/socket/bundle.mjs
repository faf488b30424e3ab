// Writes the server's part of the live link beside the built server, as one file.
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

await build({
  entryPoints: [fileURLToPath(new URL("attachLinks.ts", import.meta.url))],
  outfile: fileURLToPath(new URL("../../build/server/link.mjs", import.meta.url)),
  bundle: true,
  packages: "bundle",
  external: ["ws"],
  platform: "node",
  mainFields: ["module", "main"],
  target: "node20",
  format: "esm",
  legalComments: "none",
  logLevel: "error",
});
