import { expect, test } from "vitest";
import { decodeText } from "./decodeText";
import { readWhole } from "./readFile";

/** Encodes a text as UTF-16 with its byte order mark. */
function encodeUtf16(text: string, isLittle: boolean): Uint8Array {
  const bytes = new Uint8Array(2 * text.length + 2);
  const view = new DataView(bytes.buffer);
  [...`\uFEFF${text}`].forEach((letter, k) => view.setUint16(2 * k, letter.charCodeAt(0), isLittle));
  return bytes;
}

test("a text is decoded by its byte order mark, as UTF-8 without one", () => {
  const text = "{“é”}";
  const utf8 = new TextEncoder().encode(text);
  expect(decodeText(utf8)).toBe(text);
  expect(decodeText(new Uint8Array([0xef, 0xbb, 0xbf, ...utf8]))).toBe(text);
  expect(decodeText(encodeUtf16(text, true))).toBe(text);
  expect(decodeText(encodeUtf16(text, false))).toBe(text);
  expect([new Uint8Array(), new Uint8Array([0xff])].map(decodeText)).toEqual(["", "\uFFFD"]);
});

test("a document that a shell wrote as UTF-16 is read", () => {
  const take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: 3, lanes: {} };
  const read = (isLittle: boolean) => readWhole("t.json", encodeUtf16(JSON.stringify(take), isLittle));
  for (const isLittle of [true, false]) expect(read(isLittle)).toMatchObject([{ kind: "take", take }]);
});
