/** The encodings of texts that are read. */
type TextEncoding = "utf-8" | "utf-16le" | "utf-16be";

/**
 * Returns the encoding of a text from its first bytes: UTF-16 if it begins with the byte order mark of that, as texts of some
 * spreadsheets and shells do; UTF-8 otherwise, with its own mark or without one.
 */
export function encodingOf([first, second]: Uint8Array): TextEncoding {
  if (first === 0xff && second === 0xfe) return "utf-16le";
  return first === 0xfe && second === 0xff ? "utf-16be" : "utf-8";
}

/** Returns the text of a file without its byte order mark. Bytes that are no text become U+FFFD. */
export function decodeText(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}
