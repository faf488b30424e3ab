import type { Route } from "./+types/shelf";
import { ShelfView } from "../views/ShelfView";
import { listDemos } from "../storage/demo.server";
import { listKits, listTakes } from "../storage/library";
import { saveNow } from "../document/workbench";
import { changeShelf, type ShelfChange } from "../document/shelfChanges";

export function loader() {
  return { demos: listDemos() };
}

export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  const [{ demos }] = await Promise.all([serverLoader(), saveNow()]);
  const kits = await listKits();
  const takes = await Promise.all(kits.map(record => listTakes(record.id)));
  return { demos, kits: kits.map((record, i) => ({ record, takes: takes[i]!.map(item => item.take) })) };
}
clientLoader.hydrate = true as const;

export async function clientAction({ request }: Route.ClientActionArgs) {
  return changeShelf((await request.json()) as ShelfChange);
}

export default function Shelf({ loaderData }: Route.ComponentProps) {
  return <ShelfView demos={loaderData.demos} kits={"kits" in loaderData ? loaderData.kits : []} />;
}

export function HydrateFallback() {
  return <div className="h-dvh bg-paper" aria-busy="true" />;
}
