import { BOUNDS, formatIssue, ownValue, type Kit, type Mapping, type Take } from "#core";
import {
  columnsOf,
  feedTable,
  glanceAtTable,
  guessChangeColumns,
  guessControls as matchControls,
  guessDumpMapping,
  guessGates as matchGates,
  guessMoves as matchMoves,
  guessSpeeds,
  guessTableMapping,
  guessWords,
  listMapped,
  placeSource,
  readDump,
  readNumber,
  readSignedCell,
  readVcd,
  wordSource,
} from "#handover";

/** The preview of a recording: the beginning of its text, parsed. */
export type Glance =
  | {
      readonly sort: "table";
      readonly text: string;
      readonly head: readonly string[];
      readonly rows: readonly (readonly string[])[];
    }
  | {
      readonly sort: "dump";
      readonly text: string;
      readonly paths: readonly string[];
      /** The paths of signals with a value below 0. */
      readonly signed: readonly string[];
      /** The largest values of those with real values, by path. */
      readonly largest: Readonly<Record<string, number>>;
    }
  | { readonly sort: "broken"; readonly reasons: readonly string[] };

type Mapped = Readonly<Record<string, string>>;

/** The number of bytes of a file in a preview. */
export const GLANCE_BYTES = 256 * 1024;
/** The number of rows searched for names of controls. */
const MAX_ROWS = 2000;

/** The names of axes, with those of the controls that values above and below 0 play. */
const AXES: readonly (readonly [name: RegExp, above: string, below: string])[] = [
  [/(x|horizontal|across)$/i, "right", "left"],
  [/(y|vertical|updown)$/i, "up", "down"],
];

/** Returns the text of a dump up to its last complete line. */
const wholeLines = (text: string) => text.slice(0, text.lastIndexOf("\n") + 1);

function glanceAtDump(text: string): Glance {
  const dump = readVcd(wholeLines(text));
  if (!dump.ok) return { sort: "broken", reasons: dump.issues.map(formatIssue) };
  const { signals } = dump.value;
  const signed = signals.filter(
    ({ sort, changes }) => sort === "real" && changes.some(([, value]) => value < 0),
  );
  return {
    sort: "dump",
    text: wholeLines(text),
    paths: signals.map(({ path }) => path),
    signed: signed.map(({ path }) => path),
    largest: Object.fromEntries(
      signals.map(({ path, changes }) => [
        path,
        changes.reduce((most, [, value]) => Math.max(most, value), 0),
      ]),
    ),
  };
}

/** Previews the beginning of a recording. `name` is its file name, whose extension identifies a dump. */
export function glanceAt(name: string, text: string): Glance {
  if (/\.vcd$/i.test(name)) return glanceAtDump(text.length < GLANCE_BYTES ? `${text}\n` : text);
  const [head, ...rows] = glanceAtTable(text, MAX_ROWS);
  if (!head || rows.length === 0) {
    const reason = "there is no table in it: write a row of names, and rows of values under it";
    return { sort: "broken", reasons: [reason] };
  }
  return { sort: "table", text, head: head.map(name => name.trim()), rows };
}

/**
 * Returns whether an earlier mapping can read this: all of its columns, or at least one of its signals,
 * exist.
 */
function fits(mapping: Mapping, glance: Glance): boolean {
  if (glance.sort === "broken" || (mapping.sort === "dump") !== (glance.sort === "dump")) return false;
  if (glance.sort === "dump") return listMapped(mapping).some(path => glance.paths.includes(path));
  const wanted = [mapping.time, mapping.control, mapping.value].filter(name => name !== undefined);
  const columns = mapping.sort === "frames" ? columnsOf(mapping) : [];
  return [...wanted, ...columns].every(name => glance.head.includes(name));
}

/** Returns whether a kit has all that an earlier mapping names: a rule may have been deleted since, or have another id. */
function isOfKit({ controls, gates = [], moves = [] }: Kit, mapping: Mapping): boolean {
  const hasAll = (items: readonly { readonly id: string }[], mapped: Mapped = {}) => {
    const ids = new Set(items.map(({ id }) => id));
    return Object.values(mapped).every(id => ids.has(id));
  };
  return (
    hasAll(controls, mapping.controls) &&
    hasAll(controls, mapping.below) &&
    hasAll(gates, mapping.gates) &&
    hasAll(moves, mapping.performs)
  );
}

/** Returns a mapping that also knows the words that were met in its columns of words, so that they can be mapped. */
export function learnWords(mapping: Mapping, met: readonly string[]): Mapping {
  if (!mapping.words) return mapping;
  const places = met.map(source => placeSource(source, mapping.words));
  const words = Object.entries(mapping.words).map(([column, known]) => {
    const found = places.flatMap(place => (place.column === column ? (place.word ?? []) : []));
    return [column, [...new Set([...known, ...found])].slice(0, BOUNDS.items)] as const;
  });
  return { ...mapping, words: Object.fromEntries(words) };
}

/** Returns the names in a table's column of controls, as far as previewed. */
function namesIn(glance: Glance & { sort: "table" }, column: string | undefined): string[] {
  const at = glance.head.indexOf(column ?? "");
  return at < 0 ? [] : glance.rows.map(row => (row[at] ?? "").trim()).filter(name => name !== "");
}

/** Returns the sources with a value from −1 to 0, as far as previewed. */
export function listSigned(glance: Glance, mapping: Mapping): readonly string[] {
  if (glance.sort === "broken") return [];
  if (glance.sort === "dump") return glance.signed;
  const isSigned = (cell: string | undefined) => (readSignedCell(cell ?? "") ?? 0) < 0;
  if (mapping.sort === "frames")
    return glance.head.filter(
      (name, k) => name !== mapping.time && glance.rows.some(row => isSigned(row[k])),
    );
  const [control, value] = [mapping.control, mapping.value].map(name => glance.head.indexOf(name ?? ""));
  const signed = glance.rows.filter(row => isSigned(row[value!])).map(row => (row[control!] ?? "").trim());
  return [...new Set(signed)];
}

/** Maps sources with values below 0 that are named like an axis to the controls named like its ends. */
function guessAxes(kit: Kit, glance: Glance, mapping: Mapping): Mapping {
  let guessed = mapping;
  for (const source of listSigned(glance, mapping)) {
    const [, above, below] = AXES.find(([name]) => name.test(source.trim())) ?? [];
    const named = above && below ? matchControls(kit, [above, below]) : undefined;
    const [whole, half] = [named?.get(above ?? ""), named?.get(below ?? "")];
    if (whole === undefined || half === undefined) continue;
    guessed = mapBelow(mapSource(guessed, source, whole), source, half);
  }
  return guessed;
}

/** Returns the largest number among the cells of a source; 0 without one. */
function largestOf(glance: Glance, mapping: Mapping, source: string): number {
  if (glance.sort === "broken") return 0;
  if (glance.sort === "dump") return ownValue(glance.largest, source) ?? 0;
  const [control, value] = [mapping.control, mapping.value].map(name => glance.head.indexOf(name ?? ""));
  const isChanges = mapping.sort === "changes";
  const at = isChanges ? value! : glance.head.indexOf(source);
  return glance.rows.reduce((most, row) => {
    const number = isChanges && row[control!]?.trim() !== source ? 0 : readNumber((row[at] ?? "").trim());
    return number > most ? number : most;
  }, 0);
}

/** Maps unmapped sources to the gates, to the moves, and to the speed of the game, if their names match. */
function guessOthers(kit: Kit, glance: Glance, mapping: Mapping, sources: readonly string[]): Mapping {
  const known = new Set(listMapped(mapping));
  const left = sources.filter(source => !known.has(source));
  const gates = matchGates(kit, left);
  const performs = matchMoves(
    kit,
    left.filter(source => !gates.has(source)),
  );
  const speeds = guessSpeeds(
    left.filter(source => !gates.has(source) && !performs.has(source)),
    source => largestOf(glance, mapping, source),
  );
  return {
    ...mapping,
    ...partOf("speed", { ...mapping.speed, ...Object.fromEntries(speeds) }),
    ...partOf("gates", { ...mapping.gates, ...Object.fromEntries(gates) }),
    ...partOf("performs", { ...mapping.performs, ...Object.fromEntries(performs) }),
  };
}

/** Maps unmapped sources to controls with matching names that no source plays yet. */
function guessRest(kit: Kit, mapping: Mapping, sources: readonly string[]): Mapping {
  const known = listMapped(mapping);
  const used = new Set([...Object.values(mapping.controls), ...Object.values(mapping.below ?? {})]);
  const found = matchControls(
    kit,
    sources.filter(source => !known.includes(source)),
  );
  const added = [...found].filter(([, control]) => !used.has(control));
  return { ...mapping, controls: { ...mapping.controls, ...Object.fromEntries(added) } };
}

/** Returns a mapping of which each source plays the control that its name suggests. */
export function guessControls(
  kit: Kit,
  glance: Glance,
  { below: _below, gates: _gates, performs: _performs, speed: _speed, ...mapping }: Mapping,
): Mapping {
  const axes = guessAxes(kit, glance, { ...mapping, controls: {} });
  const plain = listSources(glance, axes).filter(
    source => placeSource(source, axes.words).word === undefined,
  );
  return guessUses(kit, glance, guessRest(kit, axes, plain));
}

/** Maps the sources that play no control yet: words show moves or open gates rather than play controls. */
function guessUses(kit: Kit, glance: Glance, mapping: Mapping): Mapping {
  const sources = listSources(glance, mapping);
  return guessRest(kit, guessOthers(kit, glance, mapping, sources), sources);
}

/** Returns the initial mapping: an earlier one that fits, otherwise a guess from the names. */
export function beginMapping(kit: Kit, glance: Glance, used: readonly Mapping[]): Mapping | undefined {
  if (glance.sort === "broken") return undefined;
  const known = used.find(mapping => fits(mapping, glance) && isOfKit(kit, mapping));
  if (known) return known;
  const guessed =
    glance.sort === "dump"
      ? guessDumpMapping(kit, glance.paths)
      : guessTableMapping(kit, glance.head, glance.rows);
  if (guessed.sort === "changes") return guessControls(kit, glance, guessed);
  return guessUses(kit, glance, guessAxes(kit, glance, guessed));
}

/**
 * Returns the sources that can play a control: names, columns, words in columns, or signals, by the mapping's sort. `met`: those that
 * reading the whole file found beyond its preview.
 */
export function listSources(
  glance: Glance,
  mapping: Mapping,
  met: readonly string[] = [],
): readonly string[] {
  if (glance.sort === "broken") return [];
  if (glance.sort === "dump") return glance.paths;
  if (mapping.sort === "changes") return [...new Set([...namesIn(glance, mapping.control), ...met])];
  const columns = glance.head.filter(name => name !== "" && name !== mapping.time);
  return columns.flatMap(name => {
    const words = ownValue(mapping.words, name);
    return words ? words.map(word => wordSource(name, word)) : [name];
  });
}

function without(mapped: Mapped, source: string): Mapped {
  const { [source]: _was, ...others } = mapped;
  return others;
}

/** Returns an optional list of a mapping as a part of it; nothing if it is empty. */
const partOf = (list: "below" | "gates" | "performs" | "speed", mapped: Mapped): Partial<Mapping> =>
  Object.keys(mapped).length === 0 ? {} : { [list]: mapped };

/** The uses of a source: it plays a control, opens a gate, shows that the game performed a move, or gives the speed of the game. */
export type SourceUse = "controls" | "gates" | "performs" | "speed";

/**
 * Returns a mapping with a source of one use, or of none if `id` is undefined. `id`: of a control, a gate or a move, or how the
 * source gives the speed. One that plays no control has none for its values below 0 either.
 */
export function mapSource(
  { gates = {}, performs = {}, speed = {}, below = {}, ...mapping }: Mapping,
  source: string,
  id: string | undefined,
  use: SourceUse = "controls",
): Mapping {
  const changed = (list: Mapped, own: SourceUse): Mapped => ({
    ...without(list, source),
    ...(use === own && id !== undefined ? { [source]: id } : {}),
  });
  return {
    ...mapping,
    controls: changed(mapping.controls, "controls"),
    ...partOf("gates", changed(gates, "gates")),
    ...partOf("performs", changed(performs, "performs")),
    ...partOf("speed", changed(speed, "speed")),
    ...partOf("below", use === "controls" ? below : without(below, source)),
  };
}

/** Returns the use of a source and the id that it is mapped to; undefined for none. */
export function purposeOf(
  { controls, gates, performs, speed }: Mapping,
  source: string,
): { readonly use: SourceUse; readonly id: string } | undefined {
  const lists = { controls, gates, performs, speed };
  for (const use of Object.keys(lists) as SourceUse[]) {
    const id = ownValue(lists[use], source);
    if (id !== undefined) return { use, id };
  }
  return undefined;
}

/** Returns a mapping with what a source has below 0 playing a control, or none. */
export function mapBelow(
  { below = {}, ...mapping }: Mapping,
  source: string,
  control: string | undefined,
): Mapping {
  const added = control === undefined ? {} : { [source]: control };
  return { ...mapping, ...partOf("below", { ...without(below, source), ...added }) };
}

/** Returns a mapping for another sort of rows, guessed from the names. */
export function turnSort(kit: Kit, glance: Glance, mapping: Mapping, sort: "changes" | "frames"): Mapping {
  if (glance.sort !== "table" || sort === mapping.sort) return mapping;
  const { format, version, rate, unit, time, start } = mapping;
  const timed = { ...(unit ? { unit } : {}), ...(time ? { time } : {}), ...(start ? { start } : {}) };
  const common = { format, version, rate, sort, ...timed };
  if (sort === "frames") {
    const words = guessWords(glance.head, glance.rows, time);
    return guessControls(kit, glance, { ...common, ...words, controls: {} });
  }
  const others = glance.head.filter(name => name !== time);
  const [control = "", value = ""] = others;
  const columns = guessChangeColumns(kit, glance.head, glance.rows, time) ?? { control, value };
  const turned = { ...common, time: time ?? glance.head[0]!, ...columns, controls: {} };
  return guessControls(kit, glance, turned);
}

/**
 * Returns the result of a mapping for the preview: the take so far and unrecognised items, or the reason for
 * failure.
 */
export function previewOf(
  glance: Glance,
  mapping: Mapping,
): { readonly take: Take; readonly notes: readonly string[] } | { readonly reasons: readonly string[] } {
  if (glance.sort === "broken") return { reasons: glance.reasons };
  const named = { id: "preview", name: "preview" };
  const feed = feedTable(mapping);
  if (glance.sort === "table") feed.rows([glance.head, ...glance.rows]);
  const read = glance.sort === "dump" ? readDump(mapping, glance.text, named) : feed.finish(named);
  return read.ok ? read.value : { reasons: read.issues.map(formatIssue) };
}
