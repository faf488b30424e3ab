import {
  FILE_LIMIT_BYTES,
  formatIssue,
  parseJson,
  parseKit,
  parseLayout,
  parseTake,
  type Issue,
  type Kit,
  type Layout,
  type Result,
  type Take,
} from "#core";

/** What came out of a file: a kit, a take, a layout of keys, or the sentences that say why none of them. */
export type ReadFile =
  | { readonly kind: "kit"; readonly kit: Kit }
  | { readonly kind: "take"; readonly take: Take }
  | { readonly kind: "layout"; readonly layout: Layout }
  | { readonly kind: "refused"; readonly name: string; readonly reasons: readonly string[] };

function refuse(name: string, issues: readonly Issue[]): ReadFile {
  return { kind: "refused", name, reasons: issues.map(formatIssue) };
}

/** Reads the text of a kit, take or layout file; the format field tells which it is. */
export function readSource(name: string, source: string): ReadFile {
  const json = parseJson(source);
  if (!json.ok) return refuse(name, json.issues);
  const format = (json.value as { format?: unknown } | null)?.format;
  const taken: Result<Take> | undefined = format === "moss-tap/take" ? parseTake(json.value) : undefined;
  if (taken) return taken.ok ? { kind: "take", take: taken.value } : refuse(name, taken.issues);
  if (format === "moss-tap/layout") {
    const layout = parseLayout(json.value);
    return layout.ok ? { kind: "layout", layout: layout.value } : refuse(name, layout.issues);
  }
  const kit = parseKit(json.value);
  return kit.ok ? { kind: "kit", kit: kit.value } : refuse(name, kit.issues);
}

/** Reads a file a user chose or dropped. One that is too large is refused unread. */
export async function readFile(file: File): Promise<ReadFile> {
  if (file.size > FILE_LIMIT_BYTES) {
    const megabytes = Math.ceil(file.size / 1024 / 1024);
    const facts = { megabytes, limit: FILE_LIMIT_BYTES / 1024 / 1024 };
    return refuse(file.name, [{ code: "too-large", severity: "fault", path: [], facts }]);
  }
  return readSource(file.name, await file.text());
}

/** A document as the text of its file: indented, lanes and bindings on one line each. */
export function formatFile(document: Kit | Take | Layout): string {
  const oneLine = (_: string, list: string) =>
    `[${list
      .split(/\s*\n\s*/)
      .join(" ")
      .trim()}]`;
  const text = JSON.stringify(document, null, 2);
  return text.replace(/\[((?:\s*(?:-?[\d.e+-]+|"[^"\n]*"),?)+\s*)\]/g, oneLine) + "\n";
}

/** A name a file system takes, made of a document's name. */
export function fileNameOf(document: Kit | Take | Layout): string {
  const kind = document.format.replace("moss-tap/", "");
  const base =
    document.name
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .replace(/^-|-$/g, "")
      .toLowerCase() || kind;
  return `${base}.${kind}.json`;
}

/** Hands a document to the user as a file. */
export function download(document: Kit | Take | Layout): void {
  const url = URL.createObjectURL(new Blob([formatFile(document)], { type: "application/json" }));
  const link = Object.assign(window.document.createElement("a"), {
    href: url,
    download: fileNameOf(document),
  });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
