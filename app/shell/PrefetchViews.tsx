import { use, useEffect, useState } from "react";
import { isFetchedAhead } from "./offline";
import { loadCharts } from "../ui/useChart";
import { UNSAFE_FrameworkContext as FrameworkContext } from "react-router";

/** The time after which the other views are fetched: the first one has everything it needs by then. */
const AFTER_MS = 2500;
/** The route whose children are the views of a kit. */
const KIT_ROUTE = "kit";

/**
 * Fetches all views of a kit soon after the first one, their charts, and other files that they need, so that they open without the
 * server. Fetches their modules itself: the router's own component loads them, and reloads the page, which is then lost, if
 * the server ends meanwhile.
 */
export function PrefetchViews({ files }: { files: readonly string[] }) {
  const [isTime, setTime] = useState(false);
  const manifest = use(FrameworkContext)?.manifest;
  useEffect(() => {
    if (!isFetchedAhead()) return;
    const timer = setTimeout(() => setTime(true), AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    if (isTime) loadCharts().catch(() => undefined);
  }, [isTime]);
  if (!isTime) return null;
  const views = Object.values(manifest?.routes ?? {}).filter(route => route?.parentId === KIT_ROUTE);
  const modules = new Set(views.flatMap(view => [view!.module, ...(view!.imports ?? [])]));
  return (
    <>
      {[...modules].map(file => (
        <link key={file} rel="modulepreload" href={file} />
      ))}
      {files.map(file => (
        <link key={file} rel="prefetch" href={file} />
      ))}
    </>
  );
}
