/** A file in memory: its name and its contents. */
export interface OutFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly type: string;
}

/** Returns a valid file name made of a display name; empty if no character is usable. */
export function slugOf(name: string): string {
  return name
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase()
    .slice(0, 80);
}

/** Returns a text file; `type` is its MIME type. */
export function textFile(name: string, text: string, type: string): OutFile {
  return { name, bytes: new TextEncoder().encode(text), type };
}

/** Returns a JSON file of any value, for stored data that does not parse. */
export function fileOfRaw(name: string, raw: unknown): OutFile {
  const text = `${JSON.stringify(raw, null, 2) ?? "null"}\n`;
  return textFile(`${slugOf(name) || "moss-tap"}.json`, text, "application/json");
}

/**
 * Creates a generator of unique file names for files of one folder, made of display names; duplicates get a
 * number.
 */
export function createSlugs(otherwise: string): (name: string) => string {
  const used = new Set<string>();
  return name => {
    const slug = slugOf(name) || otherwise;
    let free = slug;
    for (let n = 2; used.has(free); n++) free = `${slug}-${n}`;
    used.add(free);
    return free;
  };
}
