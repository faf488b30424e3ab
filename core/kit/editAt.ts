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
