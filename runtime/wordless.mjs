import { readFile } from "node:fs/promises";

/** Words for people, which a game does not need: sentences of rules, offers, warnings. */
const SAID = /core[\\/](patterns[\\/]\w+[\\/]describe|kit[\\/]warnings)\.ts$/;

/** A plugin of esbuild: leaves a module's names and takes what they say away. */
export const wordless = {
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
