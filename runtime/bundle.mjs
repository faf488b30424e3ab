import { readFile } from "node:fs/promises";
import { build } from "esbuild";

/** Words for people, which a game does not need: sentences of rules, offers, warnings. */
const SAID = /core[\\/](patterns[\\/]\w+[\\/]describe|kit[\\/]warnings)\.ts$/;

/** Leaves a module's names and takes what they say away. */
const wordless = {
  name: "wordless",
  setup(build) {
    // No module of ours does anything by being imported: what nothing is asked of is left out whole.
    build.onResolve({ filter: /./ }, async ({ path, pluginData, ...from }) => {
      if (pluginData === "resolved" || from.kind === "entry-point") return undefined;
      const { kind, importer, resolveDir } = from;
      const found = await build.resolve(path, { kind, importer, resolveDir, pluginData: "resolved" });
      return { ...found, sideEffects: false };
    });
    build.onLoad({ filter: SAID }, async ({ path }) => {
      const source = await readFile(path, "utf8");
      const names = [...source.matchAll(/^export (?:const|function\*?) (\w+)/gm)].map(([, name]) => name);
      return { contents: names.map(name => `export const ${name} = () => [];`).join("\n"), loader: "js" };
    });
  },
};

/** The runtime as one ES module without imports, as text. */
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
    plugins: [wordless],
    write: false,
    logLevel: "error",
  });
  return outputFiles[0].text;
}
