import { readFile } from "node:fs/promises";

/** Modules for people, which a game does not need: sentences of rules, offers, warnings, traits for studies. */
const DISPLAY_TEXTS = /core[\\/](patterns[\\/]\w+[\\/](describe|study)|kit[\\/]warnings)\.ts$/;

/** An esbuild plugin that keeps a module's names and removes its texts. */
export const wordless = {
  name: "wordless",
  setup(build) {
    // No module of ours has side effects on import, so unused ones are omitted.
    build.onResolve({ filter: /./ }, async ({ path, pluginData, ...from }) => {
      if (pluginData === "resolved" || from.kind === "entry-point") return undefined;
      const { kind, importer, resolveDir } = from;
      const found = await build.resolve(path, { kind, importer, resolveDir, pluginData: "resolved" });
      return { ...found, sideEffects: false };
    });
    build.onLoad({ filter: DISPLAY_TEXTS }, async ({ path }) => {
      const source = await readFile(path, "utf8");
      const names = [...source.matchAll(/^export (?:const|function\*?) (\w+)/gm)].map(([, name]) => name);
      return { contents: names.map(name => `export const ${name} = () => [];`).join("\n"), loader: "js" };
    });
  },
};
