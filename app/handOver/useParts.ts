import { useEffect, useState } from "react";
import { loadParts, type BuiltParts } from "../storage/builtParts";

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
