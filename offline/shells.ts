import { VERBS } from "../app/shell/verbs";

/** A page that is kept for a kind of address: the path of its file, and an address for which it is rendered. */
export interface Shell {
  readonly file: string;
  readonly address: string;
}

const shellAt = (name: string, address: string): Shell => ({ file: `shells/${name}.html`, address });

const SHELF = shellAt("shelf", "/");
const NEW_KIT = shellAt("new", "/new");
const NOWHERE = shellAt("nowhere", "/nowhere");
const BY_VIEW = new Map<string, Shell>(VERBS.map(({ path }) => [path, shellAt(path, `/kit/kept/${path}`)]));
const FIRST_VIEW = shellAt("kit", "/kit/kept");

/** The pages of the application. Those of a kit do not depend on its id, because the browser keeps the kits. */
export const SHELLS: readonly Shell[] = [SHELF, NEW_KIT, FIRST_VIEW, ...BY_VIEW.values(), NOWHERE];

/**
 * Returns the page for an address.
 * @param path of a URL, such as "/kit/k1/shape"
 */
export function shellFor(path: string): Shell {
  const [first, kitId, view, ...rest] = path.split("/").slice(1).filter(Boolean);
  if (first === undefined) return SHELF;
  if (first === "new" && kitId === undefined) return NEW_KIT;
  if (first !== "kit" || kitId === undefined || rest.length > 0) return NOWHERE;
  return view === undefined ? FIRST_VIEW : (BY_VIEW.get(view) ?? NOWHERE);
}
