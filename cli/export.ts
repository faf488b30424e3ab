import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { Command, Option } from "commander";
import { parseChecks, type Check } from "#core";
import { EXPORT_FORMATS, textFile, type OutFile } from "#handover";
import { parseRules } from "#stage";
import { runtimeFiles } from "../runtime/files.mjs";
import { readDocument } from "./readDocument";
import { readTakeFile } from "./readTakeFile";
import { refuse } from "./refuse";
import { listTakeFiles } from "./takeFiles";

/** What a kit leaves as: the form that makes its files, and which of them. */
const FORMS: Readonly<
  Record<string, { readonly form: string; readonly isOurs?: (name: string) => boolean }>
> = {
  sheet: { form: "sheet" },
  numbers: { form: "numbers", isOurs: name => !name.endsWith(".h") },
  header: { form: "numbers", isOurs: name => name.endsWith(".h") },
  vcd: { form: "vcd" },
  vectors: { form: "vectors" },
  runtime: { form: "runtime" },
  documents: { form: "documents" },
  zip: { form: "pack" },
};

interface Options {
  readonly as: string;
  readonly out: string;
  readonly checks?: string;
}

/** Writes one file where it is said, several into a folder of that name. */
function write(files: readonly OutFile[], out: string): void {
  if (files.length === 1) {
    mkdirSync(dirname(out), { recursive: true });
    return writeFileSync(out, files[0]!.bytes);
  }
  mkdirSync(out, { recursive: true });
  for (const { name, bytes } of files) writeFileSync(join(out, name), bytes);
}

/** Writes a kit with its takes in one of the forms in which it leaves; the same files as the page. Exit code 2: something could not be read, and nothing is written. */
async function main(
  kitFile: string,
  words: string[],
  { as, out, checks: checksFile }: Options,
): Promise<void> {
  const rules = readDocument(kitFile, parseRules);
  const listed = words.length > 0 ? listTakeFiles(words) : [];
  const checks = checksFile === undefined ? undefined : readDocument(checksFile, parseChecks);
  const read =
    "lines" in listed
      ? []
      : listed.map(file => readTakeFile(file, "value" in rules ? rules.value.kit.rate : 60));
  const faults = [rules, listed, checks, ...read].flatMap(item =>
    item && "lines" in item ? item.lines : [],
  );
  if (faults.length > 0 || "lines" in rules) return refuse(faults);
  const takes = read.flatMap(item => ("take" in item ? [item.take] : []));
  const { form, isOurs = () => true } = FORMS[as]!;
  const asked: readonly Check[] = checks && "value" in checks ? checks.value.checks : [];
  const files =
    form === "runtime"
      ? (await runtimeFiles()).map(([name, text]) => textFile(name, text, "text/javascript"))
      : EXPORT_FORMATS.find(({ id }) => id === form)!
          .files({ kit: rules.value.kit, takes, layouts: [], checks: asked })
          .filter(({ name }) => isOurs(name));
  if (files.length === 0) return refuse([`--as ${as}: there is nothing to write: name takes behind the kit`]);
  write(files, out);
}

await new Command("export")
  .description("A kit with its takes in a form in which it leaves: KIT.json and takes in, files out")
  .argument("<kit>", "a kit file")
  .argument("[takes...]", "take files, folders of them, or - for a list of files on standard input")
  .addOption(new Option("--as <form>", "what is written").choices(Object.keys(FORMS)).makeOptionMandatory())
  .requiredOption("--out <path>", "the file that is written, or the folder where it is several")
  .option("--checks <file>", "a file of checks that leave with it")
  .exitOverride(error => process.exit(error.exitCode === 0 ? 0 : 2))
  .action(main)
  .parseAsync();
