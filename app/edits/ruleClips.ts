import { dequal } from "dequal";
import type { Kit } from "#core";
import { freshId, freshName } from "./freshId";
import { changeRate } from "./rateEdits";
import { directionsIn, referencesOf, stickOf } from "./references";
import { renameInRules, type IdList } from "./renameId";
import type { RulePlace } from "./ruleEdits";

/** The lists of rules that can be copied; a switch of modes has no meaning without its modes. */
type CopiedList = "gates" | "patterns" | "moves" | "prompts";
const RULES_BUT_GATES = ["patterns", "moves", "prompts"] as const satisfies readonly CopiedList[];
const COPIED: readonly CopiedList[] = ["gates", ...RULES_BUT_GATES];

interface Item {
  readonly id: string;
  readonly name: string;
}

const itemsOf = (kit: Kit, list: IdList): readonly Item[] => kit[list] ?? [];

/** Returns the ids of the modes to which a rule is limited; none if it holds in all. */
const modesOf = (item: Item & { readonly modes?: readonly string[] }) => item.modes ?? [];

/**
 * Returns a kit of some rules and of everything they refer to: their controls and sticks, gates, patterns and moves. It is a kit
 * like any other, so it can be parsed, read and pasted elsewhere. Modes to which rules are limited are
 * named only; switches of modes, takes and the stage are left out.
 */
export function copyRules(kit: Kit, places: readonly RulePlace[]): Kit {
  const wanted: Record<IdList, Set<string>> = {
    controls: new Set(),
    patterns: new Set(),
    moves: new Set(),
    gates: new Set(),
    prompts: new Set(),
  };
  const lists = Object.keys(wanted) as IdList[];
  const sticks = new Set<string>();
  const addReferences = (item: unknown) => {
    const references = referencesOf(item);
    for (const other of lists) for (const name of references[other]) add(other, name);
  };
  const addStick = (stick: Item) => {
    if (sticks.has(stick.id)) return;
    sticks.add(stick.id);
    addReferences(stick);
  };
  const add = (list: IdList, id: string) => {
    const item = itemsOf(kit, list).find(own => own.id === id);
    if (!item || wanted[list].has(id)) return;
    wanted[list].add(id);
    addReferences(item);
    for (const stick of kit.sticks ?? [])
      if (
        (list === "controls" && referencesOf(stick).controls.includes(id)) ||
        directionsIn(item).some(direction => stickOf(direction) === stick.id)
      )
        addStick(stick);
  };
  for (const { list, index } of places) {
    const item = list === "switches" ? undefined : itemsOf(kit, list)[index];
    if (item && list !== "switches") add(list, item.id);
  }
  const items = (list: IdList) => itemsOf(kit, list).filter(item => wanted[list].has(item.id));
  const inModes = new Set(COPIED.flatMap(list => items(list).flatMap(modesOf)));
  const modes = (kit.modes ?? []).filter(mode => inModes.has(mode.id)).map(({ id, name }) => ({ id, name }));
  const { format, version, id, name, rate } = kit;
  const optional = (["gates", "moves", "prompts"] as const).filter(list => wanted[list].size > 0);
  return {
    ...{ format, version, id, name, rate },
    controls: items("controls"),
    patterns: items("patterns"),
    ...(modes.length > 0 ? { modes } : {}),
    ...(sticks.size > 0 ? { sticks: kit.sticks!.filter(stick => sticks.has(stick.id)) } : {}),
    ...Object.fromEntries(optional.map(list => [list, items(list)])),
  } as unknown as Kit;
}

/** Returns an item without its id and name. */
const contentOf = ({ id: _id, name: _name, ...rest }: Item): object => rest;

/** The result of pasting rules. */
export interface Pasted {
  readonly kit: Kit;
  /** The rules that were added, in order, by list and id. */
  readonly added: readonly { readonly list: CopiedList; readonly id: string; readonly name: string }[];
  /** The names of controls that were added. */
  readonly controls: readonly string[];
  /** The names of modes to which rules were limited and which the kit does not have: the rules hold in all modes now. */
  readonly leftModes: readonly string[];
}

/** Returns for every control or gate of a clip the one of the kit with its id, or else its name; undefined if there is none. */
const findSame = (own: readonly Item[], item: Item): Item | undefined =>
  own.find(({ id }) => id === item.id) ??
  own.find(({ name }) => name.toLowerCase() === item.name.toLowerCase());

/** A clip whose ids of some lists are those of the kit, or free there, and the ids of its items to be added, by list. */
interface Fitted {
  readonly clip: Kit;
  readonly added: ReadonlyMap<IdList, ReadonlySet<string>>;
}

/** Fits the items of one list: each gets the id of the item that `find` has in the kit, or a free one and is to be added. */
function fitList(
  kit: Kit,
  { clip, added }: Fitted,
  list: IdList,
  find: (own: readonly Item[], item: Item) => Item | undefined,
): Fitted {
  const own = itemsOf(kit, list);
  const others = list === "controls" ? [...(kit.sticks ?? []), ...(clip.sticks ?? [])] : [];
  const taken = new Set([...own, ...others].map(({ id }) => id));
  const ids = new Map<string, string>();
  const fresh = new Set<string>();
  for (const item of itemsOf(clip, list)) {
    const same = find(own, item);
    const id = same?.id ?? (taken.has(item.id) ? freshId(item.id, taken) : item.id);
    ids.set(item.id, id);
    taken.add(id);
    if (!same) fresh.add(id);
  }
  return { clip: renameInRules(clip, list, ids), added: new Map([...added, [list, fresh]]) };
}

/** Returns the items of a fitted clip that are to be added to the kit, under names that are free there. */
function listAdded(kit: Kit, { clip, added }: Fitted, list: IdList): Item[] {
  const names = new Set(itemsOf(kit, list).map(({ name }) => name));
  return itemsOf(clip, list)
    .filter(({ id }) => added.get(list)?.has(id))
    .map(item => {
      const name = freshName(item.name, names);
      names.add(name);
      return { ...item, name };
    });
}

/** Replaces the sticks in directions of a value, at any depth. */
function renameSticks(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(value)) return value.map(item => renameSticks(item, ids));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, item]) => {
      if (key !== "dir" || typeof item !== "string") return [key, renameSticks(item, ids)];
      const stick = stickOf(item);
      return [key, `${ids.get(stick) ?? stick}${item.slice(stick.length)}`];
    }),
  );
}

/** Returns the clip with its rules limited to modes of the kit, by id or name, and the names of modes that it does not have. */
function mapModes(kit: Kit, clip: Kit): { readonly clip: Kit; readonly left: readonly string[] } {
  const found = new Map((clip.modes ?? []).map(mode => [mode.id, findSame(kit.modes ?? [], mode)?.id]));
  const limit = <T extends Item>(items: readonly T[]) =>
    items.map(item => {
      if (modesOf(item).length === 0) return item;
      const { modes: _modes, ...rest } = item as T & { modes?: unknown };
      const own = modesOf(item).flatMap(id => found.get(id) ?? []);
      return (own.length > 0 ? { ...rest, modes: own } : rest) as T;
    });
  const limited = COPIED.flatMap(list => (clip[list] ? [[list, limit(clip[list] as readonly Item[])]] : []));
  const left = (clip.modes ?? []).filter(({ id }) => found.get(id) === undefined).map(({ name }) => name);
  return { clip: { ...clip, ...Object.fromEntries(limited) } as Kit, left };
}

/** Fits sticks and controls: a stick that the kit has replaces the clip's, and so do its controls. */
function fitInputs(kit: Kit, clip: Kit): Fitted & { readonly sticks: ReadonlySet<string> } {
  const taken = new Set([...kit.controls, ...clip.controls, ...(kit.sticks ?? [])].map(({ id }) => id));
  const ofSticks = new Map<string, string>();
  const ids = new Map<string, string>();
  const sticks = new Set<string>();
  for (const stick of clip.sticks ?? []) {
    const same = findSame(kit.sticks ?? [], stick);
    const own = kit.sticks?.find(({ id }) => id === same?.id);
    const id = own?.id ?? (taken.has(stick.id) ? freshId(stick.id, taken) : stick.id);
    taken.add(id);
    ids.set(stick.id, id);
    if (own)
      for (const side of ["up", "down", "left", "right"] as const) ofSticks.set(stick[side], own[side]);
    else sticks.add(id);
  }
  const renamed: Kit = {
    ...clip,
    ...(clip.sticks ? { sticks: clip.sticks.map(stick => ({ ...stick, id: ids.get(stick.id)! })) } : {}),
    patterns: renameSticks(clip.patterns, ids) as Kit["patterns"],
  };
  const fitted = fitList(kit, { clip: renamed, added: new Map() }, "controls", (own, item) =>
    ofSticks.has(item.id) ? own.find(({ id }) => id === ofSticks.get(item.id)) : findSame(own, item),
  );
  return { ...fitted, sticks };
}

/**
 * Returns a kit with the rules of a clip (see copyRules) added at the end of its lists. Lengths keep their time if the
 * rates differ. Controls, sticks and gates of the clip are those of the kit with the same id, or else the same name; rules that
 * others of the clip refer to are not added again if the kit has them word for word. Everything added gets a free id and
 * a free name.
 */
export function pasteRules(kit: Kit, clip: Kit): Pasted {
  const sameRate = changeRate(clip, kit.rate, "time");
  const referred = new Set(
    COPIED.flatMap(from =>
      itemsOf(clip, from).flatMap(item => {
        const references = referencesOf(item);
        return COPIED.flatMap(list =>
          references[list].filter(id => list !== from || id !== item.id).map(id => `${list} ${id}`),
        );
      }),
    ),
  );
  const modes = mapModes(kit, sameRate);
  const inputs = fitInputs(kit, modes.clip);
  let fitted = fitList(kit, inputs, "gates", findSame);
  for (const list of RULES_BUT_GATES)
    fitted = fitList(kit, fitted, list, (own, item) =>
      referred.has(`${list} ${item.id}`)
        ? own.find(other => other.id === item.id && dequal(contentOf(other), contentOf(item)))
        : undefined,
    );
  const controls = listAdded(kit, fitted, "controls");
  const rules = COPIED.flatMap(list => listAdded(kit, fitted, list).map(item => ({ list, item })));
  const added = (list: IdList) =>
    list === "controls" ? controls : rules.flatMap(rule => (rule.list === list ? [rule.item] : []));
  const lists = (["controls", ...COPIED] as const).flatMap(list =>
    added(list).length > 0 ? [[list, [...itemsOf(kit, list), ...added(list)]]] : [],
  );
  const sticks = (fitted.clip.sticks ?? []).filter(({ id }) => inputs.sticks.has(id));
  return {
    kit: {
      ...kit,
      ...Object.fromEntries(lists),
      ...(sticks.length > 0 ? { sticks: [...(kit.sticks ?? []), ...sticks] } : {}),
    } as Kit,
    added: rules.map(({ list, item: { id, name } }) => ({ list, id, name })),
    controls: controls.map(({ name }) => name),
    leftModes: modes.left,
  };
}
