import { appContext } from "../appContext";
import { closeKit } from "../compose";
import { NewKitView } from "../shelf/newKit/NewKitView";
import type { Route } from "./+types/newKit";

/** Closes any open kit before a new one is created. */
export async function clientLoader({ context }: Route.ClientLoaderArgs) {
  await closeKit(context.get(appContext));
  return null;
}

export default function NewKit() {
  return <NewKitView />;
}

export { BlankPage as HydrateFallback } from "../shell/BlankPage";
