import { useEffect, useState } from "react";
import { textFile, type OutFile } from "#handover";

/** The runtime's files as they lie beside the page, in the order in which they are shown. */
const NAMES = ["moss-tap-runtime.mjs", "moss-tap-runtime.d.ts", "run-vectors.mjs", "example.mjs"] as const;

async function load(name: string): Promise<OutFile> {
  const response = await fetch(`/runtime/${name}`);
  if (!response.ok) throw new Error(`${name}: ${response.status}`);
  return textFile(name, await response.text(), "text/javascript");
}

/** The runtime's files; undefined while they are fetched, or in words why they were not. */
export function useRuntimeFiles(): readonly OutFile[] | string | undefined {
  const [files, setFiles] = useState<readonly OutFile[] | string>();
  useEffect(() => {
    let isGone = false;
    Promise.all(NAMES.map(load)).then(
      found => isGone || setFiles(found),
      (error: unknown) => isGone || setFiles(error instanceof Error ? error.message : String(error)),
    );
    return () => void (isGone = true);
  }, []);
  return files;
}
