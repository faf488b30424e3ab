import type { Route } from "./+types/nowhere";

export function loader({ params }: Route.LoaderArgs) {
  throw new Response(`There is no page at /${params["*"]}.`, { status: 404 });
}

export default function Nowhere() {
  return null;
}
