import { FILE_LIMIT_BYTES } from "#core";
import { decodeText } from "./decodeText";
import { PACK_LIMIT_BYTES, readPack } from "./readPack";
import { readSource, refuseFor, type ReadFile } from "./readSource";

const MEGABYTE = 1024 * 1024;

function isPack(name: string): boolean {
  return /\.zip$/i.test(name);
}

/** Returns the refusal of a file that is too large, judged by its size alone; undefined if it can be read. */
export function refuseTooLarge(name: string, bytes: number): ReadFile | undefined {
  const most = isPack(name) ? PACK_LIMIT_BYTES : FILE_LIMIT_BYTES;
  if (bytes <= most) return undefined;
  const facts = { megabytes: Math.ceil(bytes / MEGABYTE), limit: most / MEGABYTE };
  return refuseFor(name, [{ code: "too-large", severity: "fault", path: [], facts }]);
}

/** Returns whether a file is a recording from another program, by its name; it then needs a mapping. */
export function isRecordingName(name: string): boolean {
  return /\.(csv|tsv|vcd)$/i.test(name);
}

/**
 * Reads a file, either a document or a pack of documents. Yields the bytes read so far, so that it can pause
 * between two files of a pack. A file that is too large is refused unread. Never throws; invalid files are
 * returned as refusals with their reasons.
 */
export function* readEach(name: string, bytes: Uint8Array): Generator<number, readonly ReadFile[]> {
  const refused = refuseTooLarge(name, bytes.length);
  if (refused) return [refused];
  if (isPack(name)) return yield* readPack(name, bytes);
  if (isRecordingName(name)) {
    const reason =
      "a recording from elsewhere: open the kit it is of, and map it at Hand over, under Take in";
    return [{ kind: "refused", name, reasons: [reason] }];
  }
  return readSource(name, decodeText(bytes));
}

/** Runs `readEach` to its end and returns the files. */
export function readWhole(name: string, bytes: Uint8Array): readonly ReadFile[] {
  const reading = readEach(name, bytes);
  for (;;) {
    const step = reading.next();
    if (step.done) return step.value;
  }
}
