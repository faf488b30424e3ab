import type { PathStep } from "../formats/issue";

/** The value at a path in a document, or undefined where the path leads nowhere. */
export function readAt(document: unknown, path: readonly PathStep[]): unknown {
  return path.reduce<unknown>(
    (here, step) => (here as Record<PathStep, unknown> | undefined)?.[step],
    document,
  );
}

/** A copy of a document with the value at a path replaced or added; everything off the path is shared with the original. */
export function writeAt<T>(document: T, path: readonly PathStep[], value: unknown): T {
  const [step, ...rest] = path;
  if (step === undefined) return value as T;
  const child = writeAt((document as Record<PathStep, unknown>)[step], rest, value);
  if (Array.isArray(document)) return document.map((item, i) => (i === step ? child : item)) as T;
  return { ...document, [step]: child };
}

/** Fields that mean nothing without another: they leave with it. */
const COMPANIONS: Readonly<Record<PathStep, readonly string[]>> = {
  fires: ["atLeast", "until"],
  performs: ["atLeast", "until"],
  wrong: ["wrongOn"],
};

/** A copy of a document without the clause of a sentence at a path, and without what means nothing alone. */
export function takeOut<T>(document: T, path: readonly PathStep[]): T {
  const last = path.at(-1);
  const fields = last === undefined ? [] : [last, ...(COMPANIONS[last] ?? [])];
  return fields.reduce((left, field) => deleteAt(left, [...path.slice(0, -1), field]), document);
}

/**
 * A copy of a document with what stands at a path taken out: a field is left out, an item of a list goes and those
 * behind it move up; a list left empty goes too. A path that leads nowhere changes nothing.
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
