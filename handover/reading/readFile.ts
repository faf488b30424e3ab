import { strFromU8 } from "fflate";
import { FILE_LIMIT_BYTES } from "#core";
import { PACK_LIMIT_BYTES, readPack } from "./readPack";
import { readSource, refuseFor, type ReadFile } from "./readSource";

const MEGABYTE = 1024 * 1024;

function isPack(name: string): boolean {
  return /\.zip$/i.test(name);
}

/** Is a file of so many bytes too large to be read? Then the refusal; it need not be opened for that. */
export function refuseTooLarge(name: string, bytes: number): ReadFile | undefined {
  const most = isPack(name) ? PACK_LIMIT_BYTES : FILE_LIMIT_BYTES;
  if (bytes <= most) return undefined;
  const facts = { megabytes: Math.ceil(bytes / MEGABYTE), limit: most / MEGABYTE };
  return refuseFor(name, [{ code: "too-large", severity: "fault", path: [], facts }]);
}

/** Is a file, by its name, a recording from elsewhere, which needs a mapping? */
export function isRecordingName(name: string): boolean {
  return /\.(csv|tsv|vcd)$/i.test(name);
}

/**
 * Reads a file by its name and bytes: it holds a document, or is a pack of them. Can be left and taken up between two files
 * of a pack, and tells the bytes read so far. One that is too large is refused unread. Nothing is thrown; what does not read
 * comes as a refusal with its reasons.
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
  return readSource(name, strFromU8(bytes));
}

/** The same in one go. */
export function readWhole(name: string, bytes: Uint8Array): readonly ReadFile[] {
  const reading = readEach(name, bytes);
  for (;;) {
    const step = reading.next();
    if (step.done) return step.value;
  }
}
