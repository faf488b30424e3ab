import { readFile } from "node:fs/promises";

/** Modules with texts for designers: sentences of rules, offers, starting points, warnings. */
const TEXTS = "patterns[\\\\/]\\w+[\\\\/](?:describe|starters)|kit[\\\\/]warnings";
/** Traits of patterns for those who draw, try and study them, and what runs note for studies. */
const STUDIES = "patterns[\\\\/]\\w+[\\\\/]study|moves[\\\\/]noteWaits";
/** Words and questions about events, for tapes and checks. */
const QUESTIONS = "trace[\\\\/]reasonWords|trace[\\\\/]notes[\\\\/]asked|kit[\\\\/]names";

const filterOf = (...modules) => new RegExp(`core[\\\\/](${modules.join("|")})\\.ts$`);

/** Returns an esbuild plugin that keeps the names of the matching modules and removes their content. */
function without(filter) {
  return {
    name: "without",
    setup(build) {
      // No module of ours has side effects on import, so unused ones are omitted.
      build.onResolve({ filter: /./ }, async ({ path, pluginData, ...from }) => {
        if (pluginData === "resolved" || from.kind === "entry-point") return undefined;
        const { kind, importer, resolveDir } = from;
        const found = await build.resolve(path, { kind, importer, resolveDir, pluginData: "resolved" });
        return { ...found, sideEffects: false };
      });
      build.onLoad({ filter }, async ({ path }) => {
        const source = await readFile(path, "utf8");
        const names = [...source.matchAll(/^export (?:const|function\*?) (\w+)/gm)].map(([, name]) => name);
        return { contents: names.map(name => `export const ${name} = () => [];`).join("\n"), loader: "js" };
      });
    },
  };
}

/** Removes the texts. For a page, which draws patterns. */
export const withoutTexts = without(filterOf(TEXTS));

/** Removes the texts, the studies and the questions. For a game, which only runs patterns. */
export const withoutStudies = without(filterOf(TEXTS, STUDIES, QUESTIONS));
