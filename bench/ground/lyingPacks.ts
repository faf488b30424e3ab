import { strToU8, zipSync, type Zippable } from "fflate";
import { readPack } from "../../handover/reading/readPack";

type Chance = () => number;

const LOCAL_HEADER = 0x04034b50;
const CENTRAL_HEADER = 0x02014b50;
const END_OF_DIRECTORY = 0x06054b50;

/** The fields of the three headers of a zip file (APPNOTE 4.3): offset and size in bytes. */
const FIELDS: Readonly<Record<number, readonly (readonly [offset: number, size: 2 | 4])[]>> = {
  // Flags, method, checksum, packed size, size, lengths of name and of the extra field.
  [LOCAL_HEADER]: [
    [6, 2],
    [8, 2],
    [14, 4],
    [18, 4],
    [22, 4],
    [26, 2],
    [28, 2],
  ],
  // The same, and the offset of the local header.
  [CENTRAL_HEADER]: [
    [8, 2],
    [10, 2],
    [16, 4],
    [20, 4],
    [24, 4],
    [28, 2],
    [30, 2],
    [32, 2],
    [42, 4],
  ],
  // Number of entries, size and offset of the directory, length of the comment.
  [END_OF_DIRECTORY]: [
    [8, 2],
    [10, 2],
    [12, 4],
    [16, 4],
    [20, 2],
  ],
};

const NUMBERS = [0, 1, 8, 99, 0x7fff, 0xffff, 33_000_000, 0x7fffffff, 0xffffffff];

function listHeaders(view: DataView): { readonly at: number; readonly signature: number }[] {
  const found = [];
  for (let at = 0; at + 4 <= view.byteLength; at++) {
    const signature = view.getUint32(at, true);
    if (signature in FIELDS) found.push({ at, signature });
  }
  return found;
}

/** Returns a pack of some of the files, with one to three fields of its headers wrong, or cut short. */
export function lyingPack(
  chance: Chance,
  files: readonly (readonly [name: string, text: string])[],
): Uint8Array {
  const below = (n: number) => Math.floor(chance() * n);
  const some = files.filter(() => chance() < 0.6);
  const level = chance() < 0.5 ? 0 : 6;
  const entries: Zippable = Object.fromEntries(
    some.map(([name, text]) => [name, [strToU8(text), { level }]]),
  );
  const packed = zipSync(entries);
  const view = new DataView(packed.buffer, packed.byteOffset, packed.byteLength);
  const headers = listHeaders(view);
  for (let n = 1 + below(3); n > 0; n--) {
    const { at, signature } = headers[below(headers.length)]!;
    const fields = FIELDS[signature]!;
    const [offset, size] = fields[below(fields.length)]!;
    const value = chance() < 0.5 ? NUMBERS[below(NUMBERS.length)]! : below(2 * packed.length);
    if (at + offset + size > packed.length) continue;
    if (size === 2) view.setUint16(at + offset, value, true);
    else view.setUint32(at + offset, value, true);
  }
  return chance() < 0.1 ? packed.subarray(0, below(packed.length)) : packed;
}

/** The result of one pack: what its files became, and processor time in ms. */
export interface PackFinding {
  readonly became: readonly string[];
  readonly unpackedBytes: number;
  readonly ms: number;
}

/** Reads a pack to its end. Throws what reading it throws. */
export function readLying(packed: Uint8Array): PackFinding {
  const began = process.cpuUsage();
  const reading = readPack("lying.zip", packed);
  let unpackedBytes = 0;
  for (;;) {
    const step = reading.next();
    if (!step.done) {
      unpackedBytes = step.value;
      continue;
    }
    const became = step.value.map(file => {
      if (file.kind === "refused" && file.reasons.join("").length === 0)
        throw new Error("refused without a reason");
      return file.kind;
    });
    return { became, unpackedBytes, ms: process.cpuUsage(began).user / 1000 };
  }
}
