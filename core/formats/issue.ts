/** The codes of issues in a file, a kit or a take. `formatIssue` has the sentence of each. */
export type IssueCode =
  | "not-json"
  | "dump"
  | "too-large"
  | "too-full"
  | "too-many-changes"
  | "wrong-format"
  | "too-new"
  | "unknown-version"
  | "id"
  | "long-text"
  | "many"
  | "many-in-all"
  | "far"
  | "past-takes"
  | "deep"
  | "long-at-rate"
  | "unknown-field"
  | "missing"
  | "type"
  | "length"
  | "length-zero"
  | "empty"
  | "whole"
  | "range"
  | "text"
  | "choice"
  | "code"
  | "no-variant"
  | "rate"
  | "order"
  | "duplicate-id"
  | "unknown-id"
  | "gate-above"
  | "gate-sources"
  | "gate-count"
  | "output-gate"
  | "full-not-above-from"
  | "release-above-press"
  | "max-on-reach"
  | "repeat-on-release"
  | "when-field"
  | "to-before-from"
  | "grade-name"
  | "levels-order"
  | "ask-nothing"
  | "curve"
  | "stick-same"
  | "dir"
  | "start-without-modes"
  | "too-long-take"
  | "same-control"
  | "lane-value"
  | "frames"
  | "stage"
  | "stage-draws"
  | "never-full"
  | "coyote-never"
  | "buffer-never"
  | "dead-stretch"
  | "double-stretch"
  | "long-buffer"
  | "assist-beyond"
  | "same-binding"
  | "unreachable-move"
  | "need-never"
  | "never-fires"
  | "never-starts"
  | "wrong-without-controls"
  | "shares-all-edges"
  | "two"
  | "check-none"
  | "check-two"
  | "check-field"
  | "check-value"
  | "min-above-max"
  | "stretch-order";

/** One step of a path into a document: a field's name or an index in a list. */
export type PathStep = string | number;

/** One problem: a code with its facts. A `fault` stops a kit from running, a `warning` does not. */
export interface Issue {
  readonly code: IssueCode;
  readonly severity: "fault" | "warning";
  readonly path: readonly PathStep[];
  readonly facts: Readonly<Record<string, string | number>>;
}

/** The outcome of reading user input: a value with its warnings, or every issue found. */
export type Result<T> =
  | { readonly ok: true; readonly value: T; readonly warnings: readonly Issue[] }
  | { readonly ok: false; readonly issues: readonly Issue[] };

/** Creates a fault. */
export function fault(code: IssueCode, path: readonly PathStep[], facts: Issue["facts"] = {}): Issue {
  return { code, severity: "fault", path, facts };
}

/** Creates a warning. */
export function warning(code: IssueCode, path: readonly PathStep[], facts: Issue["facts"] = {}): Issue {
  return { code, severity: "warning", path, facts };
}

/** Formats a path: `patterns[2].for`; an empty path is "the file". */
export function formatPath(path: readonly PathStep[]): string {
  if (path.length === 0) return "the file";
  return path
    .map((step, i) => {
      if (typeof step === "number") return `[${step}]`;
      const plain = /^[A-Za-z_$][\w$]*$/.test(step);
      return plain ? (i === 0 ? step : `.${step}`) : `[${JSON.stringify(step)}]`;
    })
    .join("");
}
