import { strToU8 } from "fflate";

/** A file in hand: its name and what is in it. */
export interface OutFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly type: string;
}

/** A name a file system takes, made of what something is called; empty where nothing of it can stay. */
export function slugOf(name: string): string {
  return name
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase()
    .slice(0, 80);
}

/** Text as the bytes of a file. */
export function textFile(name: string, text: string, type: string): OutFile {
  return { name, bytes: strToU8(text) as Uint8Array<ArrayBuffer>, type };
}

/** Anything as a file of JSON, as it is: for what was kept and does not read. */
export function fileOfRaw(name: string, raw: unknown): OutFile {
  const text = `${JSON.stringify(raw, null, 2) ?? "null"}\n`;
  return textFile(`${slugOf(name) || "moss-tap"}.json`, text, "application/json");
}

/** What gives names for files side by side, made of what things are called: two of one name get a number. */
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
