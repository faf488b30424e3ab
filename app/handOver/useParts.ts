import { useEffect, useState } from "react";
import { PLAYER_PATH, RUNTIME, RUNTIME_PATHS } from "./partPaths";
import { facesOf, runtimeFile, type HandoverParts, type PlayerParts } from "#handover";

/** The parts of an export that do not depend on the kit. */
export type BuiltParts = Omit<HandoverParts, "pictures">;

/** Loads a file; without the server, as it was fetched with the first view. */
async function load(path: string): Promise<string> {
  const response = await fetch(path).catch(() => fetch(path, { cache: "force-cache" }));
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return response.text();
}

async function loadParts(): Promise<BuiltParts> {
  const [written, ...texts] = await Promise.all([PLAYER_PATH, ...RUNTIME_PATHS].map(load));
  const runtime = RUNTIME.map((name, k) => runtimeFile(name, texts[k]!));
  const player = JSON.parse(written!) as PlayerParts;
  return { runtime, player, faces: facesOf(player) };
}

/**
 * Returns the parts built with the application; undefined while they are fetched, or the reason for failure
 * as text.
 */
export function useParts(): BuiltParts | string | undefined {
  const [parts, setParts] = useState<BuiltParts | string>();
  useEffect(() => {
    let isGone = false;
    loadParts().then(
      found => isGone || setParts(found),
      (error: unknown) => isGone || setParts(error instanceof Error ? error.message : String(error)),
    );
    return () => void (isGone = true);
  }, []);
  return parts;
}
