import { toMarkdownText } from "../documents/inertText";
import { fileOf } from "../documents/documents";
import type { ExportFormat, PackedForm } from "../kind";
import { slugOf, textFile } from "../outFile";
import { VARIANTS_FOLDER } from "../pack/documentsFolder";
import { makeManifest } from "../pack/manifest";
import { nameApart, zipFiles } from "../pack/pack";
import { createRuns } from "../runs";
import { formatJsonSchemas } from "../schemas/jsonSchemas";

/** One folder of the pack of everything. */
interface Folder {
  readonly folder: string;
  readonly line: string;
  readonly files: NonNullable<PackedForm["files"]>;
}

/** The folders that belong to no form. */
const OWN_FOLDERS: readonly Folder[] = [
  {
    folder: VARIANTS_FOLDER,
    line: "earlier versions of the rules that were kept, each a kit; they come back with the kit",
    files: ({ kit, variants = [] }) =>
      variants.map(variant => fileOf({ ...variant.kit, id: kit.id, name: variant.name })),
  },
  {
    folder: "schemas",
    line: "JSON Schemas of the documents",
    files: () =>
      Object.entries(formatJsonSchemas()).map(([name, text]) =>
        textFile(name.replace("docs/schema/", ""), text, "application/json"),
      ),
  },
];

/** Returns the README of a pack that has these folders. */
function readme(name: string, folders: readonly Folder[]): string {
  const lines = folders.map(({ folder, line }) => `- \`${folder}/\`: ${line}.`);
  return `# ${toMarkdownText(name)}: what was handed over

${lines.join("\n")}
- \`manifest.json\`: size and SHA-256 of every file.
`;
}

/** Creates the form that packs the files of all forms in one zip; equal kits give equal bytes. */
export function createEverythingFormat(forms: readonly ExportFormat[]): ExportFormat {
  const folders: Folder[] = forms.flatMap(({ packed, files }) =>
    packed === "none"
      ? []
      : [{ ...packed, files: packed.files ?? ((handover, parts) => files(handover, parts)) }],
  );
  const all = [...folders, ...OWN_FOLDERS];
  const uses = new Set(forms.flatMap(form => form.uses));
  return {
    id: "everything",
    word: "All in one",
    hint: "Every file below in one zip, with a manifest of sizes and SHA-256. It is read in as one, too.",
    uses: [...uses, "all"],
    commands: [{ as: "zip" }],
    packed: "none",
    files(handover, parts, onProgress) {
      const runs = createRuns(handover, onProgress);
      const { name, id } = handover.kit;
      const used = new Set<string>();
      const filled = all
        .map(folder => ({ ...folder, made: folder.files(handover, parts, runs, onProgress) }))
        .filter(({ made }) => made.length > 0);
      const files = [
        textFile("README.md", readme(name || id, filled), "text/markdown"),
        ...filled.flatMap(({ folder, made }) =>
          made.map(file => ({ ...file, name: `${folder}/${file.name}` })),
        ),
      ].map(file => ({ ...file, name: nameApart(file.name, used) }));
      const packed = [makeManifest(files), ...files];
      const bytes = zipFiles(Object.fromEntries(packed.map(file => [file.name, file.bytes])));
      return [{ name: `${slugOf(name) || "kit"}.all.zip`, bytes, type: "application/zip" }];
    },
  };
}
