export function loader() {
  throw new Response("There is no page at this address.", { status: 404 });
}

export default function Nowhere() {
  return null;
}
