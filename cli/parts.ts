import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { facesOf, runtimeFile, type HandoverParts, type OutFile } from "#handover";

type Player = NonNullable<HandoverParts["player"]>;
type TextFiles = readonly (readonly [name: string, text: string])[];

/** The parts of exports that do not depend on a kit, as a package of the command holds them (`parts.json`). */
export interface PackagedParts {
  readonly player: Player;
  readonly runtime: TextFiles;
}

/** Bundles the parts from the sources of the project at a path. */
async function bundleParts(project: string): Promise<PackagedParts> {
  const load = (path: string) => import(pathToFileURL(join(project, path)).href) as Promise<never>;
  const before = process.cwd();
  // Bundling resolves paths from the project's folder.
  process.chdir(project);
  try {
    const { bundlePlayer }: { bundlePlayer: () => Promise<Player> } = await load("runtime/playerParts.mjs");
    const { runtimeFiles }: { runtimeFiles: () => Promise<TextFiles> } = await load("runtime/files.mjs");
    return { player: await bundlePlayer(), runtime: await runtimeFiles() };
  } finally {
    process.chdir(before);
  }
}

/** Loads the page of the frame rules: from the package of the command, or from the project that runs it. */
export function loadFrameRules(): OutFile {
  const name = "frame-rules.md";
  const beside = new URL(`./docs/${name}`, import.meta.url);
  const project = process.env.MOSS_TAP_PROJECT ?? ".";
  return runtimeFile(name, readFileSync(existsSync(beside) ? beside : join(project, "docs", name), "utf8"));
}

/** Loads the parts of exports: from beside the command, or from the project that runs it. Pictures need a screen. */
export async function loadParts(): Promise<HandoverParts> {
  const beside = new URL("./parts.json", import.meta.url);
  const project = process.env.MOSS_TAP_PROJECT;
  if (!existsSync(beside) && project === undefined)
    throw new Error("the parts of exports are missing: install the command again");
  const { player, runtime } = existsSync(beside)
    ? (JSON.parse(readFileSync(beside, "utf8")) as PackagedParts)
    : await bundleParts(project!);
  const files = runtime.map(([name, text]) => runtimeFile(name, text));
  return { player, runtime: files, faces: facesOf(player), pictures: [] };
}
