import { dequal } from "dequal";
import type { Kit, Mapping } from "#core";
import type { KitSettings } from "../storage/records";
import type { IdList } from "../edits/renameId";

/** An item of a kit that goes by another id. */
export interface Rename {
  readonly list: IdList;
  readonly from: string;
  readonly to: string;
}

const LISTS: readonly IdList[] = ["controls", "patterns", "moves", "gates", "prompts"];

/**
 * Returns the item that has another id in a later state of a kit, and its name and place as before; undefined if none has, or several
 * have. An undo of a renaming is one, too.
 */
export function findRename(before: Kit, after: Kit): Rename | undefined {
  const found = LISTS.flatMap(list => {
    const [past, now] = [before[list] ?? [], after[list] ?? []];
    if (past === now || past.length !== now.length) return [];
    return past.flatMap(({ id, name }, k) => {
      const { id: to, name: nameNow } = now[k]!;
      return id === to || name !== nameNow ? [] : [{ list, from: id, to }];
    });
  });
  return found.length === 1 ? found[0] : undefined;
}

/** Returns values of a record with an id replaced. */
function renameValues(record: Readonly<Record<string, string>>, { from, to }: Rename) {
  return Object.fromEntries(Object.entries(record).map(([key, id]) => [key, id === from ? to : id]));
}

/** The parts of a mapping that name items of a list. */
const PARTS_OF_MAPPING = {
  controls: ["controls", "below"],
  gates: ["gates"],
  moves: ["performs"],
  patterns: [],
  prompts: [],
} as const satisfies Readonly<Record<IdList, readonly (keyof Mapping)[]>>;

function renameInMapping(mapping: Mapping, rename: Rename): Mapping {
  const parts = PARTS_OF_MAPPING[rename.list].flatMap(part => {
    const own = mapping[part];
    return own ? [[part, renameValues(own, rename)] as const] : [];
  });
  return { ...mapping, ...Object.fromEntries(parts) };
}

/** Returns the key of a warning marked as intended, "dead leap tuck cling", with an id replaced. */
function renameInWarning(key: string, { list, from, to }: Rename): string {
  const [kind = "", control = "", ...patterns] = key.split(" ");
  if (list === "controls") return [kind, control === from ? to : control, ...patterns].join(" ");
  if (list !== "patterns" || !patterns.includes(from)) return key;
  return [kind, control, ...patterns.map(id => (id === from ? to : id)).sort()].join(" ");
}

/** Returns the settings beside a kit with an id replaced: the scripted player, rows, mappings and intended warnings. */
export function renameInSettings(settings: KitSettings, rename: Rename): KitSettings {
  const { list, from, to } = rename;
  const { hand, order, mappings, wanted } = settings;
  const idOf = (of: IdList, id: string) => (list === of && id === from ? to : id);
  const renamed: KitSettings = {
    ...settings,
    order: order.map(key => {
      const [group = "", ...rest] = key.split(":");
      const isOf = group === list || (group === "game" && list === "moves");
      return isOf && rest.join(":") === from ? `${group}:${to}` : key;
    }),
    ...(hand && {
      hand: {
        ...hand,
        lines: hand.lines.map(line => ({
          ...line,
          control: idOf("controls", line.control),
          ...(line.gate === undefined ? {} : { gate: idOf("gates", line.gate) }),
        })),
      },
    }),
    ...(mappings && {
      mappings: mappings.map(mapping => renameInMapping(mapping, rename)) as NonNullable<
        KitSettings["mappings"]
      >,
    }),
    ...(wanted && { wanted: wanted.map(key => renameInWarning(key, rename)) }),
  };
  return dequal(renamed, settings) ? settings : renamed;
}
