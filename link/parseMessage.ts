import type * as v from "valibot";
import { formatIssue, formatPath, ownValue, parseJson, parseShape, type Issue, type IssueCode } from "#core";
import {
  frameSchema,
  GAME_MESSAGES,
  HOST_MESSAGES,
  type ClientMessage,
  type Fault,
  type FaultCode,
  type FrameMessage,
  type GameFrame,
} from "./messages";

type Parsed<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly fault: Fault };

const MESSAGES: Readonly<Record<string, v.GenericSchema<unknown, ClientMessage>>> = {
  ...HOST_MESSAGES,
  ...GAME_MESSAGES,
};

/** The issues that are about a size rather than a form. */
const OF_BOUNDS: ReadonlySet<IssueCode> = new Set([
  "many",
  "range",
  "long-text",
  "far",
  "past-takes",
  "too-large",
  "too-full",
]);

/** Creates a refusal. */
export function linkFault(code: FaultCode, message: string, at?: string): Fault {
  return at === undefined ? { t: "fault", code, message } : { t: "fault", code, at, message };
}

/** Converts an issue of a document into a refusal; `path` is the place of the document in its message. */
export function faultOfIssue(issue: Issue, path: Issue["path"] = []): Fault {
  const placed = { ...issue, path: [...path, ...issue.path] };
  const code = issue.code === "rate" ? "rate" : OF_BOUNDS.has(issue.code) ? "bounds" : "shape";
  const at = placed.path.length > 0 ? formatPath(placed.path) : undefined;
  return linkFault(
    code,
    at === undefined ? formatIssue(placed).replace(/^the file/, "the message") : formatIssue(placed),
    at,
  );
}

/**
 * Parses the text of a message from a host or a game. Never throws. Returns the message, or the first fault in it with
 * its path. Frames are not looked at: see `parseFrame`.
 */
export function parseMessage(source: string): Parsed<ClientMessage> {
  const json = parseJson(source);
  if (!json.ok) return { ok: false, fault: faultOfIssue(json.issues[0]!) };
  const value = json.value;
  const isObject = typeof value === "object" && value !== null && !Array.isArray(value);
  const t = isObject ? (value as { t?: unknown }).t : undefined;
  const schema = typeof t === "string" ? ownValue(MESSAGES, t) : undefined;
  if (!schema) {
    const message = `t: a message is an object whose t is one of ${Object.keys(MESSAGES).join(", ")}`;
    return { ok: false, fault: linkFault("shape", message, "t") };
  }
  if (t === "frame") return { ok: true, value: value as FrameMessage };
  const parsed = parseShape(schema, value);
  return parsed.ok ? parsed : { ok: false, fault: faultOfIssue(parsed.issues[0]!) };
}

/**
 * Parses one frame; `path` is its place in its message. If only its number reads, a frame without
 * changes is returned beside the fault.
 */
export function parseFrame(
  input: unknown,
  path: Issue["path"],
): { readonly frame?: GameFrame; readonly fault?: Fault } {
  const parsed = parseShape(frameSchema, input);
  if (parsed.ok) return { frame: parsed.value };
  const fault = faultOfIssue(parsed.issues[0]!, path);
  const f: unknown = typeof input === "object" && input !== null ? (input as { f?: unknown }).f : undefined;
  const bare = parseShape(frameSchema, { f });
  return bare.ok ? { fault, frame: bare.value } : { fault };
}
