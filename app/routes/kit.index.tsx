import { redirect } from "react-router";
import type { Route } from "./+types/kit.index";

/** Redirects a kit's bare address to Play. */
export function clientLoader({ params }: Route.ClientLoaderArgs) {
  return redirect(`/kit/${encodeURIComponent(params.kitId)}/play`);
}
clientLoader.hydrate = true as const;

export default function KitIndex() {
  return null;
}
