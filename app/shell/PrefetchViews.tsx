import { use } from "react";
import { useFetchAhead, type FetchedAhead } from "./useFetchAhead";
import { UNSAFE_FrameworkContext as FrameworkContext } from "react-router";

/** The route of a kit, whose children are its views. */
const KIT_ROUTE = "kit";

/**
 * Fetches all views of a kit soon after the first page, the parts that are loaded later, and other files that they need, so
 * that they open at once and without the server. Fetches their modules itself: the router's own component loads them, and
 * reloads the page, which is then lost, if the server ends meanwhile.
 */
export function PrefetchViews({ files = [], parts }: { files?: readonly string[]; parts: FetchedAhead }) {
  const isTime = useFetchAhead(parts);
  const manifest = use(FrameworkContext)?.manifest;
  if (!isTime) return null;
  const views = Object.values(manifest?.routes ?? {}).filter(
    route => route?.id === KIT_ROUTE || route?.parentId === KIT_ROUTE,
  );
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
