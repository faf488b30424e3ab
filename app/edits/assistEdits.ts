import type { Assist, Kit } from "#core";
import { freshId } from "./freshId";

/** Starting points for an assist. */
export const ASSIST_STARTERS: readonly (Omit<Assist, "id"> & { readonly line: string })[] = [
  { name: "More time", windows: 150, line: "every window half as long again" },
  { name: "Much more time", windows: 250, line: "every window two and a half times as long" },
  { name: "No holding", toggles: true, line: "one press begins a hold, another ends it" },
  { name: "No mashing", mashes: true, line: "holding counts as mashing" },
  { name: "Slow double taps", gaps: 200, line: "the gap between taps twice as long" },
];

/** Returns a kit with one more assist; a duplicate name is made unique. */
export function addAssist(
  kit: Kit,
  { name, line: _line, ...fields }: Omit<Assist, "id"> & { readonly line?: string },
): Kit {
  const assists = kit.assists ?? [];
  const names = new Set(assists.map(assist => assist.name));
  let own = name;
  for (let n = 2; names.has(own); n++) own = `${name} ${n}`;
  const id = freshId("assist", new Set(assists.map(assist => assist.id)));
  return { ...kit, assists: [...assists, { ...fields, id, name: own }] };
}

/** Returns a kit with one of its assists changed. */
export function changeAssist(kit: Kit, id: string, change: (assist: Assist) => Assist): Kit {
  return { ...kit, assists: (kit.assists ?? []).map(assist => (assist.id === id ? change(assist) : assist)) };
}

/** Returns a kit without one of its assists; the list is removed with the last one. */
export function removeAssist(kit: Kit, id: string): Kit {
  const { assists = [], ...rest } = kit;
  const left = assists.filter(assist => assist.id !== id);
  return left.length > 0 ? { ...rest, assists: left } : rest;
}
