import { fault, type Result, ownValue } from "#core";

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

/** The words of a dump, read one by one, with the line of the last one read. */
class Words {
  line = 1;
  private readonly parts: Iterator<RegExpMatchArray>;

  constructor(text: string) {
    this.parts = text.matchAll(/\n|\S+/g);
  }

  /** Returns the next word; undefined at the end. */
  next(): string | undefined {
    for (;;) {
      const { done, value } = this.parts.next();
      if (done) return undefined;
      if (value[0] !== "\n") return value[0];
      this.line++;
    }
  }

  /** Returns the words up to the next `$end`. */
  upToEnd(): string[] {
    const body: string[] = [];
    for (let word = this.next(); word !== undefined && word !== "$end"; word = this.next()) body.push(word);
    return body;
  }
}

/** A faulty word, and how to correct it. */
interface Refusal {
  readonly found: string;
  readonly hint: string;
}

/** A dump while it is read. */
interface Reading {
  /** The signals by their code; several may share one. */
  readonly signals: Map<string, (DumpSignal & { readonly changes: [number, number][] })[]>;
  readonly scopes: string[];
  unitSeconds: number;
  time: number;
  isDefined: boolean;
}

function readTimescale(dump: Reading, words: Words): Refusal | undefined {
  const written = words.upToEnd().join("");
  const [, figure, unit] = /^(10{0,2})([munpf]?s)$/.exec(written) ?? [];
  if (figure === undefined || unit === undefined)
    return { found: written, hint: "write 1, 10 or 100 and s, ms, us, ns, ps or fs" };
  dump.unitSeconds = Number(figure) * ownValue(UNITS, unit)!;
  return undefined;
}

function readVariable({ signals, scopes }: Reading, words: Words): Refusal | undefined {
  const [sort, width, code, ...name] = words.upToEnd();
  if (code === undefined || !/^\d+$/.test(width ?? "") || name.length === 0)
    return { found: "$var", hint: "write its sort, its width, its code and its name" };
  const path = [...scopes, name.join("")].join(".");
  const own = signals.get(code) ?? [];
  signals.set(code, [...own, { path, sort: sort!, width: Number(width), changes: [] }]);
  return undefined;
}

/** Reads a command; unknown ones are skipped up to their `$end`. */
function readCommand(dump: Reading, word: string, words: Words): Refusal | undefined {
  switch (word) {
    case "$timescale":
      return readTimescale(dump, words);
    case "$var":
      return readVariable(dump, words);
    case "$scope":
      dump.scopes.push(words.upToEnd().at(-1) ?? "");
      return undefined;
    case "$upscope":
      words.upToEnd();
      dump.scopes.pop();
      return undefined;
    case "$enddefinitions":
      words.upToEnd();
      dump.isDefined = true;
      return undefined;
    case "$dumpvars":
    case "$dumpall":
    case "$dumpon":
    case "$dumpoff":
    case "$end":
      // The values between them are changes like any other.
      return undefined;
    default:
      words.upToEnd();
      return undefined;
  }
}

function readTime(dump: Reading, word: string): Refusal | undefined {
  if (!/^#\d+$/.test(word)) return { found: word, hint: "write # and a whole number" };
  const at = Number(word.slice(1));
  if (at < dump.time) return { found: word, hint: `times go up: the one before was #${dump.time}` };
  dump.time = at;
  return undefined;
}

/** Reads a change: a bit with its code, or a vector or a real number with the code as the next word. */
function readChange({ signals, time }: Reading, word: string, words: Words): Refusal | undefined {
  const isLong = /^[bBrR]/.test(word);
  if (!isLong && !/^[01xzXZ]/.test(word)) return { found: word, hint: "write a time, a value or a command" };
  const code = isLong ? words.next() : word.slice(1);
  if (code === undefined) return { found: word, hint: "write the signal's code behind it" };
  const own = signals.get(code);
  if (!own) return { found: code, hint: "declare it with $var before it changes" };
  const isVector = /^[bB]/.test(word);
  const value = isVector ? readBits(word.slice(1)) : isLong ? Number(word.slice(1)) : word[0] === "1" ? 1 : 0;
  if (!Number.isFinite(value)) return { found: word, hint: "write a bit, b and bits, or r and a number" };
  for (const { changes } of own) changes.push([time, value]);
  return undefined;
}

/**
 * Parses a value change dump (IEEE 1364): scopes, variables of any type, bits, vectors and reals. Faults name
 * the line and the cure: text without definitions, a change of an undeclared signal, times that decrease.
 * Unknown commands are skipped up to their `$end`.
 */
export function readVcd(text: string): Result<Dump> {
  const dump: Reading = { signals: new Map(), scopes: [], unitSeconds: 1e-9, time: 0, isDefined: false };
  const words = new Words(text);
  const refuse = (line: number, { found, hint }: Refusal): Result<Dump> => ({
    ok: false,
    issues: [fault("dump", [`line ${line}`], { found, hint })],
  });
  for (let word = words.next(); word !== undefined; word = words.next()) {
    const { line } = words;
    const refusal = word.startsWith("$")
      ? readCommand(dump, word, words)
      : word.startsWith("#")
        ? readTime(dump, word)
        : readChange(dump, word, words);
    if (refusal) return refuse(line, refusal);
  }
  if (!dump.isDefined)
    return refuse(1, {
      found: "no $enddefinitions",
      hint: "save the whole dump again: its head is missing",
    });
  const { unitSeconds, signals, time } = dump;
  return { ok: true, value: { unitSeconds, signals: [...signals.values()].flat(), end: time }, warnings: [] };
}
