import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { parseJson } from "#core";
import { textFile, type OutFile } from "../outFile";

/** One file of a pack as listed in its manifest. */
export interface ManifestLine {
  readonly name: string;
  readonly bytes: number;
  /** SHA-256 (FIPS 180-4) of its bytes, 64 hexadecimal digits. */
  readonly sha256: string;
}

/** The file name of a pack's manifest. */
export const MANIFEST_NAME = "manifest.json";

function lineFor(name: string, bytes: Uint8Array): ManifestLine {
  return { name, bytes: bytes.length, sha256: bytesToHex(sha256(bytes)) };
}

/** Creates the manifest of files: their names, sizes and hashes, in order. It does not list itself. */
export function makeManifest(files: readonly Pick<OutFile, "name" | "bytes">[]): OutFile {
  const listed = files.map(({ name, bytes }) => lineFor(name, bytes));
  const document = { format: "moss-tap/manifest", version: 1, files: listed };
  return textFile(MANIFEST_NAME, `${JSON.stringify(document, null, 2)}\n`, "application/json");
}

/** Parses a manifest into lines by file name; undefined for an invalid one. */
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

/** Returns whether a file matches its line in a manifest; false if the manifest does not list it. */
export function isAsListed(
  manifest: ReadonlyMap<string, ManifestLine>,
  name: string,
  bytes: Uint8Array,
): boolean {
  const line = manifest.get(name);
  return line !== undefined && line.bytes === bytes.length && line.sha256 === lineFor(name, bytes).sha256;
}
