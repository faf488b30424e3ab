import { useEffect, useState } from "react";
import { facesOf, textFile, type HandoverParts, type OutFile, type PlayerParts } from "#handover";

/** The runtime's files beside the page, in display order. */
const RUNTIME = ["moss-tap-runtime.mjs", "moss-tap-runtime.d.ts", "run-vectors.mjs", "example.mjs"] as const;

/** The parts of an export that do not depend on the kit. */
export type BuiltParts = Omit<HandoverParts, "pictures">;

async function load(path: string): Promise<string> {
  const response = await fetch(path);
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return response.text();
}

async function loadParts(): Promise<BuiltParts> {
  const runtime = RUNTIME.map(async (name): Promise<OutFile> =>
    textFile(name, await load(`/runtime/${name}`), "text/javascript"),
  );
  const player = JSON.parse(await load("/player/parts.json")) as PlayerParts;
  return { runtime: await Promise.all(runtime), player, faces: facesOf(player) };
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
