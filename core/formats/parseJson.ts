import { BOUNDS } from "./bounds";
import { fault, type Result } from "./issue";
import { locateJsonFault } from "./locateJsonFault";

const [QUOTE, BACKSLASH, COMMA, COLON, BRACKET, BRACE] = [0x22, 0x5c, 0x2c, 0x3a, 0x5b, 0x7b];

/** The maximum size of a file, in bytes. */
export const FILE_LIMIT_BYTES = 32 * 1024 * 1024;

/**
 * Estimates the memory that parsed JSON text takes, in bytes, from its brackets, colons and commas; reads it
 * without making anything. Sizes: measured in V8, where a list or object takes about 64 bytes, a member of a
 * large object 160 and an item of a list 18.
 */
function estimateBytes(source: string): number {
  let bytes = 0;
  let isText = false;
  for (let k = 0; k < source.length; k++) {
    const code = source.charCodeAt(k);
    if (code === QUOTE) isText = !isText;
    else if (isText) k += code === BACKSLASH ? 1 : 0;
    else if (code === COMMA) bytes += 18;
    else if (code === BRACKET || code === BRACE) bytes += 64;
    else if (code === COLON) bytes += 160;
  }
  return bytes;
}

/**
 * Parses text as JSON. Returns one issue with the line and column of the error. Text longer than FILE_LIMIT_BYTES characters,
 * or whose parts would take more than BOUNDS.memoryBytes, is refused unread.
 */
export function parseJson(source: string): Result<unknown> {
  if (source.length > FILE_LIMIT_BYTES) {
    const megabytes = Math.ceil(source.length / 1024 / 1024);
    return {
      ok: false,
      issues: [fault("too-large", [], { megabytes, limit: FILE_LIMIT_BYTES / 1024 / 1024 })],
    };
  }
  const bytes = estimateBytes(source);
  if (bytes > BOUNDS.memoryBytes) {
    const [megabytes, limit] = [bytes, BOUNDS.memoryBytes].map(size => Math.ceil(size / 1024 / 1024));
    return { ok: false, issues: [fault("too-full", [], { megabytes: megabytes!, limit: limit! })] };
  }
  try {
    const value: unknown = JSON.parse(source.replace(/^\uFEFF/, ""));
    return { ok: true, value, warnings: [] };
  } catch (error) {
    const detail = locateJsonFault(source) ?? (error instanceof Error ? error.message : String(error));
    return { ok: false, issues: [fault("not-json", [], { detail })] };
  }
}
