import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { parseJson } from "#core";
import { textFile, type OutFile } from "../outFile";

/** One file of a pack as its manifest lists it. */
export interface ManifestLine {
  readonly name: string;
  readonly bytes: number;
  /** SHA-256 (FIPS 180-4) of its bytes, 64 hexadecimal digits. */
  readonly sha256: string;
}

/** The name under which a pack's manifest lies in it. */
export const MANIFEST_NAME = "manifest.json";

function lineFor(name: string, bytes: Uint8Array): ManifestLine {
  return { name, bytes: bytes.length, sha256: bytesToHex(sha256(bytes)) };
}

/** The manifest of files: their names, sizes and hashes, in their order. It does not list itself. */
export function makeManifest(files: readonly Pick<OutFile, "name" | "bytes">[]): OutFile {
  const listed = files.map(({ name, bytes }) => lineFor(name, bytes));
  const document = { format: "moss-tap/manifest", version: 1, files: listed };
  return textFile(MANIFEST_NAME, `${JSON.stringify(document, null, 2)}\n`, "application/json");
}

/** The lines of a manifest by the names they are of; undefined for a text that is none. */
export function readManifest(source: string): ReadonlyMap<string, ManifestLine> | undefined {
  const json = parseJson(source);
  const document = json.ok ? (json.value as { format?: unknown; files?: unknown } | null) : undefined;
  if (document?.format !== "moss-tap/manifest" || !Array.isArray(document.files)) return undefined;
  const lines = document.files as readonly Partial<ManifestLine>[];
  return new Map(
    lines.flatMap(line =>
      typeof line?.name === "string" && typeof line.sha256 === "string" && typeof line.bytes === "number"
        ? [[line.name, line as ManifestLine]]
        : [],
    ),
  );
}

/** Is a file just what a manifest says of it? One that the manifest does not list is not. */
export function isAsListed(
  manifest: ReadonlyMap<string, ManifestLine>,
  name: string,
  bytes: Uint8Array,
): boolean {
  const line = manifest.get(name);
  return line !== undefined && line.bytes === bytes.length && line.sha256 === lineFor(name, bytes).sha256;
}
