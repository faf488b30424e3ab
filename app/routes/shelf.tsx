import { appContext } from "../appContext";
import { closeKit } from "../compose";
import { DEMOS } from "../storage/demo.server";
import { useStorageReturn } from "../shell/useStorageReturn";
import { ShelfView } from "../shelf/ShelfView";
import type { Route } from "./+types/shelf";

export function loader() {
  return { demos: DEMOS };
}

/** Loads the shelf; without the server it has no demos. */
export async function clientLoader({ serverLoader, context }: Route.ClientLoaderArgs) {
  const app = context.get(appContext);
  await closeKit(app);
  const { library } = app;
  const [demos, kits] = await Promise.all([
    serverLoader().then(
      loaded => loaded.demos,
      () => undefined,
    ),
    library.listKits(),
  ]);
  return { demos, kits, library };
}
clientLoader.hydrate = true as const;

export default function Shelf({ loaderData }: Route.ComponentProps) {
  useStorageReturn();
  const isRead = "kits" in loaderData;
  return (
    <ShelfView
      demos={loaderData.demos}
      kits={isRead ? loaderData.kits : []}
      library={isRead ? loaderData.library : undefined}
    />
  );
}

export { BlankPage as HydrateFallback } from "../shell/BlankPage";
