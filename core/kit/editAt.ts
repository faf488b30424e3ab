import type { PathStep } from "../formats/issue";

/** Returns the value at a path in a document, or undefined if the path does not exist. */
export function readAt(document: unknown, path: readonly PathStep[]): unknown {
  return path.reduce<unknown>(
    (here, step) => (here as Record<PathStep, unknown> | undefined)?.[step],
    document,
  );
}

/**
 * Returns a copy of a document with the value at a path replaced or added; everything off the path is shared
 * with the original. Objects that the path leads through are added if they are absent.
 */
export function writeAt<T>(document: T, path: readonly PathStep[], value: unknown): T {
  const [step, ...rest] = path;
  if (step === undefined) return value as T;
  const child = writeAt((document as Record<PathStep, unknown> | undefined)?.[step], rest, value);
  if (Array.isArray(document)) return document.map((item, i) => (i === step ? child : item)) as T;
  return { ...document, [step]: child };
}

/** Fields that have no meaning without another; they are removed with it. */
const COMPANIONS: Readonly<Record<PathStep, readonly string[]>> = {
  fires: ["atLeast", "until"],
  performs: ["atLeast", "until"],
  wrong: ["wrongOn"],
};

/** Returns a copy of a document without the clause at a path and the fields that depend on it. */
export function takeOut<T>(document: T, path: readonly PathStep[]): T {
  const last = path.at(-1);
  const fields = last === undefined ? [] : [last, ...(COMPANIONS[last] ?? [])];
  return fields.reduce((left, field) => deleteAt(left, [...path.slice(0, -1), field]), document);
}

/**
 * Returns a copy of a document without the value at a path: a field is omitted, a list item is removed, and a
 * list left empty as well. A path that does not exist changes nothing.
 */
export function deleteAt<T>(document: T, path: readonly PathStep[]): T {
  const last = path.at(-1);
  const parent = readAt(document, path.slice(0, -1));
  if (last === undefined || typeof parent !== "object" || parent === null) return document;
  if (Array.isArray(parent)) {
    const left = parent.filter((_, i) => i !== last);
    return left.length === 0
      ? deleteAt(document, path.slice(0, -1))
      : writeAt(document, path.slice(0, -1), left);
  }
  const { [last]: gone, ...rest } = parent as Record<PathStep, unknown>;
  return writeAt(document, path.slice(0, -1), rest);
}
