import { fault, type Result } from "#core";

/** One signal of a dump, by its scopes and its name; times in units of the dump. */
export interface DumpSignal {
  readonly path: string;
  readonly sort: string;
  readonly width: number;
  readonly changes: readonly (readonly [time: number, value: number])[];
}

/** A parsed value change dump. */
export interface Dump {
  /** The length of a unit of time, in seconds. */
  readonly unitSeconds: number;
  readonly signals: readonly DumpSignal[];
  /** The last time in the dump. */
  readonly end: number;
}

const UNITS: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9, ps: 1e-12, fs: 1e-15 };

/** Returns a vector's value as a number; bits that are unknown or high-impedance count as 0. */
const readBits = (bits: string) => parseInt(bits.replace(/[xzXZ]/g, "0"), 2);

/** Yields the words of a dump with their line numbers. */
function* wordsOf(text: string): Generator<{ readonly word: string; readonly line: number }> {
  let line = 1;
  for (const [part] of text.matchAll(/\n|\S+/g))
    if (part === "\n") line++;
    else yield { word: part, line };
}

/**
 * Parses a value change dump (IEEE 1364): scopes, variables of any type, bits, vectors and reals. Faults name
 * the line and the cure: text without definitions, a change of an undeclared signal, times that decrease.
 * Unknown commands are skipped up to their `$end`.
 */
export function readVcd(text: string): Result<Dump> {
  const signals = new Map<
    string,
    { path: string; sort: string; width: number; changes: [number, number][] }[]
  >();
  const scopes: string[] = [];
  let unitSeconds = 1e-9;
  let time = 0;
  let isDefined = false;
  const words = wordsOf(text);
  const refuse = (line: number, found: string, hint: string): Result<Dump> => ({
    ok: false,
    issues: [fault("dump", [`line ${line}`], { found, hint })],
  });
  const upToEnd = (): string[] => {
    const body: string[] = [];
    for (let next = words.next(); !next.done && next.value.word !== "$end"; next = words.next())
      body.push(next.value.word);
    return body;
  };
  for (let next = words.next(); !next.done; next = words.next()) {
    const { word, line } = next.value;
    const change = (code: string, value: number): Result<Dump> | undefined => {
      const own = signals.get(code);
      if (!own) return refuse(line, code, "declare it with $var before it changes");
      if (!Number.isFinite(value)) return refuse(line, word, "write a bit, b and bits, or r and a number");
      for (const { changes } of own) changes.push([time, value]);
      return undefined;
    };
    if (word === "$timescale") {
      const written = upToEnd().join("");
      const [, figure, unit] = /^(10{0,2})([munpf]?s)$/.exec(written) ?? [];
      if (figure === undefined || unit === undefined)
        return refuse(line, written, "write 1, 10 or 100 and s, ms, us, ns, ps or fs");
      unitSeconds = Number(figure) * UNITS[unit]!;
    } else if (word === "$scope") scopes.push(upToEnd().at(-1) ?? "");
    else if (word === "$upscope") {
      upToEnd();
      scopes.pop();
    } else if (word === "$var") {
      const [sort, width, code, ...name] = upToEnd();
      if (code === undefined || !/^\d+$/.test(width ?? "") || name.length === 0)
        return refuse(line, "$var", "write its sort, its width, its code and its name");
      const own = signals.get(code) ?? [];
      own.push({
        path: [...scopes, name.join("")].join("."),
        sort: sort!,
        width: Number(width),
        changes: [],
      });
      signals.set(code, own);
    } else if (word === "$enddefinitions") {
      upToEnd();
      isDefined = true;
    } else if (
      word === "$dumpvars" ||
      word === "$dumpall" ||
      word === "$dumpon" ||
      word === "$dumpoff" ||
      word === "$end"
    )
      continue;
    else if (word.startsWith("$")) upToEnd();
    else if (word.startsWith("#")) {
      const at = Number(word.slice(1));
      if (!/^#\d+$/.test(word)) return refuse(line, word, "write # and a whole number");
      if (at < time) return refuse(line, word, `times go up: the one before was #${time}`);
      time = at;
    } else {
      const isLong = /^[bBrR]/.test(word);
      const code = isLong ? words.next() : undefined;
      if (isLong && (code?.done ?? true)) return refuse(line, word, "write the signal's code behind it");
      const faulty = isLong
        ? change(
            (code as { value: { word: string } }).value.word,
            /^[bB]/.test(word) ? readBits(word.slice(1)) : Number(word.slice(1)),
          )
        : /^[01xzXZ]/.test(word)
          ? change(word.slice(1), word[0] === "1" ? 1 : 0)
          : refuse(line, word, "write a time, a value or a command");
      if (faulty) return faulty;
    }
  }
  if (!isDefined) return refuse(1, "no $enddefinitions", "save the whole dump again: its head is missing");
  return { ok: true, value: { unitSeconds, signals: [...signals.values()].flat(), end: time }, warnings: [] };
}
