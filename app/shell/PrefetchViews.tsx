import { useEffect, useState } from "react";
import { PrefetchPageLinks } from "react-router";
import { VERBS } from "./verbs";

/** The time after which the other views are fetched: the first one has everything it needs by then. */
const AFTER_MS = 2500;

/** Returns whether the server answers. Otherwise the router would reload the page, and lose it, for a view it cannot load. */
async function isServed(file: string): Promise<boolean> {
  try {
    return (await fetch(file)).ok;
  } catch {
    return false;
  }
}

/**
 * Fetches all views of a kit soon after the first one, and other files that they need, so that they open without
 * the server.
 */
export function PrefetchViews({ kitId, files }: { kitId: string; files: readonly string[] }) {
  const [isTime, setTime] = useState(false);
  useEffect(() => {
    let timer = setTimeout(function look() {
      void isServed(files[0]!).then(isThere => {
        if (isThere) setTime(true);
        else timer = setTimeout(look, AFTER_MS);
      });
    }, AFTER_MS);
    return () => clearTimeout(timer);
  }, [files]);
  if (!isTime) return null;
  return (
    <>
      {VERBS.map(({ path }) => (
        <PrefetchPageLinks key={path} page={`/kit/${encodeURIComponent(kitId)}/${path}`} />
      ))}
      {files.map(file => (
        <link key={file} rel="prefetch" href={file} />
      ))}
    </>
  );
}
