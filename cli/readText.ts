import { closeSync, createReadStream, openSync, readFileSync, readSync } from "node:fs";
import { Readable } from "node:stream";
import { decodeText, encodingOf } from "#handover";

/** Returns the text of a file, by its path or as 0 for standard input, in any encoding that is recognised. Throws if it cannot be read. */
export const readText = (file: string | 0): string => decodeText(readFileSync(file));

/** Returns the first bytes of a file, fewer of a shorter one. Throws if it cannot be read. */
export function readHead(file: string, length: number): Uint8Array {
  const open = openSync(file, "r");
  try {
    const head = new Uint8Array(length);
    return head.subarray(0, readSync(open, head));
  } finally {
    closeSync(open);
  }
}

/** Streams the text of a file in pieces; `head` shows its encoding. */
export function streamText(file: string, head: Uint8Array): Readable {
  const decoder = new TextDecoder(encodingOf(head));
  async function* decode(): AsyncGenerator<string> {
    for await (const piece of createReadStream(file)) yield decoder.decode(piece as Buffer, { stream: true });
  }
  return Readable.from(decode());
}
