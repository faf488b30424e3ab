import { facesOf, runtimeFile, type HandoverParts, type PlayerParts } from "#handover";
import { PLAYER_PATH, RUNTIME, RUNTIME_PATHS } from "./partPaths";

/** The parts of an export that do not depend on the kit. */
export type BuiltParts = Omit<HandoverParts, "pictures">;

/** Loads a file; without the server, as it was fetched with the first view. */
async function load(path: string): Promise<string> {
  const response = await fetch(path).catch(() => fetch(path, { cache: "force-cache" }));
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return response.text();
}

/** Loads the parts built with the application. Rejects with the path of a file that cannot be fetched. */
export async function loadParts(): Promise<BuiltParts> {
  const [written, ...texts] = await Promise.all([PLAYER_PATH, ...RUNTIME_PATHS].map(load));
  const runtime = RUNTIME.map((name, k) => runtimeFile(name, texts[k]!));
  const player = JSON.parse(written!) as PlayerParts;
  return { runtime, player, faces: facesOf(player) };
}

/** Loads the CSS rules with embedded fonts, which pictures need. */
export async function loadFaces(): Promise<string> {
  return facesOf(JSON.parse(await load(PLAYER_PATH)) as PlayerParts);
}
