import { build, type Plugin } from "esbuild";
import { expect, test } from "vitest";
import { PATTERN_KINDS } from "../core/patterns/kinds";
import { withoutStudies, withoutTexts } from "./without.mjs";

/** Bundles the registry of patterns with a plugin, runs it, and returns the names of each kind's traits. */
async function listTraits(plugins: Plugin[]): Promise<Record<string, string[]>> {
  const { outputFiles } = await build({
    entryPoints: ["core/patterns/kinds.ts"],
    bundle: true,
    format: "esm",
    write: false,
    logLevel: "error",
    plugins,
  });
  const url = `data:text/javascript;base64,${Buffer.from(outputFiles[0]!.contents).toString("base64")}`;
  const { PATTERN_KINDS: kinds } = (await import(/* @vite-ignore */ url)) as {
    PATTERN_KINDS: typeof PATTERN_KINDS;
  };
  return Object.fromEntries(
    Object.entries(kinds).map(([kind, { record }]) => [kind, Object.keys(record).sort()]),
  );
}

test("a playable page keeps every trait of every pattern; a game's module only those it runs with", async () => {
  const all = await listTraits([]);
  expect(Object.keys(all)).toEqual(Object.keys(PATTERN_KINDS));
  expect(await listTraits([withoutTexts])).toEqual(all);
  const inGame = await listTraits([withoutStudies]);
  for (const [kind, traits] of Object.entries(inGame)) {
    expect(all[kind]).toEqual(expect.arrayContaining(traits));
    expect(traits).not.toContain("wanted");
  }
});
