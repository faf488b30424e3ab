import { availableParallelism } from "node:os";
import { extname } from "node:path";
import { Command } from "commander";
import { countWords } from "#core";
import { parseRules } from "#stage";
import { refuse } from "./refuse";
import { TABLES } from "./presses/tables";
import { writePresses } from "./presses/writePresses";
import { readDocument } from "./readDocument";
import { listTakeFiles, parseShard } from "./takeFiles";

interface Options {
  readonly out: string;
  readonly jobs: string;
  readonly shard: string;
}

/**
 * Writes a row for every press of every take; see docs/check-rules.md. Exit code 2: unreadable input, nothing
 * is written.
 */
async function main(kitFile: string, words: string[], options: Options): Promise<void> {
  const rules = readDocument(kitFile, parseRules);
  const files = listTakeFiles(words);
  const shard = parseShard(options.shard);
  const jobs = Number(options.jobs);
  const faults = [rules, files].flatMap(read => ("lines" in read ? read.lines : []));
  if (!TABLES[extname(options.out)])
    faults.push(`--out ${options.out}: name a file that ends in ${Object.keys(TABLES).join(" or ")}`);
  if (!shard) faults.push(`--shard ${options.shard}: is no shard: write one like 2/4`);
  if (!Number.isInteger(jobs) || jobs < 1 || jobs > 256)
    faults.push(`--jobs ${options.jobs}: write how many threads work, 1 to 256`);
  if (faults.length > 0 || "lines" in rules || "lines" in files || !shard) return refuse(faults);
  const written = await writePresses(rules.value.kit, files, { out: options.out, threads: jobs, shard });
  if ("lines" in written) return refuse(written.lines);
  const { takes, presses, frames, seconds } = written;
  const speed = Math.round(frames / seconds / 1000);
  process.stderr.write(
    `${countWords(takes, "take")}, ${countWords(presses, "press", "presses")}, ${countWords(frames, "frame")} in ${seconds.toFixed(1)} s: ${speed} thousand frames a second\n`,
  );
}

export const judgeCommand = () =>
  new Command("judge")
    .description("What became of every press: KIT.json and takes in, a table of presses out")
    .argument("<kit>", "a kit file")
    .argument("<takes...>", "take files, folders of them, or - for a list of files on standard input")
    .requiredOption("--out <file>", "where the table is written, .parquet or .csv")
    .option("--jobs <n>", "how many threads work", String(availableParallelism()))
    .option("--shard <i/n>", "only every n-th take from the i-th on", "1/1")
    .action(main);
