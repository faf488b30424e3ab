import { use } from "react";
import { useFetchAhead, type FetchedAhead } from "./useFetchAhead";
import { UNSAFE_FrameworkContext as FrameworkContext } from "react-router";

/** The route whose children are the views of a kit. */
const KIT_ROUTE = "kit";

/**
 * Fetches all views of a kit soon after the first one, the parts that they load later, and other files that they need, so that they open without the
 * server. Fetches their modules itself: the router's own component loads them, and reloads the page, which is then lost, if
 * the server ends meanwhile.
 */
export function PrefetchViews({ files, parts }: { files: readonly string[]; parts: FetchedAhead }) {
  const isTime = useFetchAhead(parts);
  const manifest = use(FrameworkContext)?.manifest;
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
