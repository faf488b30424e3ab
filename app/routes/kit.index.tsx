import { redirect } from "react-router";
import type { Route } from "./+types/kit.index";

/** A kit's bare address leads to where it is played. */
export function clientLoader({ params }: Route.ClientLoaderArgs) {
  return redirect(`/kit/${encodeURIComponent(params.kitId)}/play`);
}
clientLoader.hydrate = true as const;

export default function KitIndex() {
  return null;
}
