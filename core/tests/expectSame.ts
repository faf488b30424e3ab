import { dequal } from "dequal/lite";
import { expect } from "vitest";

/**
 * Expects that two values are equal, as `expect(actual).toEqual(expected)` does. For loops of many thousand
 * comparisons, in which `expect` itself would take most of the time: it is called only for a difference.
 */
export function expectSame(actual: unknown, expected: unknown): void {
  if (!dequal(actual, expected)) expect(actual).toEqual(expected);
}
