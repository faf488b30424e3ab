import { build } from "esbuild";
import { withoutStudies } from "./without.mjs";

/** Returns the runtime as the text of one ES module without imports. */
export async function bundleRuntime() {
  const { outputFiles } = await build({
    entryPoints: ["runtime/runtime.ts"],
    bundle: true,
    minify: true,
    format: "esm",
    target: "es2022",
    treeShaking: true,
    legalComments: "none",
    banner: { js: "/* Moss Tap runtime. MIT. It asks nothing of any host: no page, no files, no clock. */" },
    plugins: [withoutStudies],
    write: false,
    logLevel: "error",
  });
  return outputFiles[0].text;
}
