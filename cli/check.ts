import { writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { Command, Option } from "commander";
import { formatIssue, parseChecks } from "#core";
import { compileTakeJudge, parseRules } from "#stage";
import { judgeFiles } from "./checks/judgeFiles";
import { REPORTS } from "./checks/reports";
import { refuse } from "./refuse";
import { readDocument } from "./readDocument";
import { listTakeFiles, parseShard } from "./takeFiles";

interface Options {
  readonly format: keyof typeof REPORTS;
  readonly out?: string;
  readonly rates?: string;
  readonly jobs: string;
  readonly shard: string;
}

const isRate = (rate: number) => Number.isInteger(rate) && rate >= 1 && rate <= 1000;

/**
 * Judges takes by checks; see docs/check-rules.md. Exit code 0: all hold, 1: some do not, 2: unreadable
 * input.
 */
async function main(kitFile: string, checksFile: string, words: string[], options: Options): Promise<void> {
  const rules = readDocument(kitFile, parseRules);
  const checks = readDocument(checksFile, parseChecks);
  const files = listTakeFiles(words);
  const shard = parseShard(options.shard);
  const rates = options.rates?.split(",").map(Number) ?? [];
  const jobs = Number(options.jobs);
  const faults = [rules, checks, files].flatMap(read => ("lines" in read ? read.lines : []));
  if (!shard) faults.push(`--shard ${options.shard}: is no shard: write one like 2/4`);
  if (!rates.every(isRate))
    faults.push(`--rates ${options.rates}: write whole frames a second from 1 to 1000, with commas between`);
  if (!Number.isInteger(jobs) || jobs < 1 || jobs > 256)
    faults.push(`--jobs ${options.jobs}: write how many threads work, 1 to 256`);
  if (faults.length > 0 || "lines" in rules || "lines" in checks || "lines" in files || !shard)
    return refuse(faults);
  const { kit } = rules.value;
  const ready = compileTakeJudge(kit, checks.value.checks, rates);
  if (!ready.ok)
    return refuse(
      ready.issues.map(
        issue => `${issue.path[0] === "checks" ? checksFile : kitFile}: ${formatIssue(issue)}`,
      ),
    );
  const judged = await judgeFiles(kit, checks.value, files, { rates, threads: jobs, shard });
  if ("lines" in judged) return refuse(judged.lines);
  process.stderr.write(judged.notes.map(line => `${line}\n`).join(""));
  const report = REPORTS[options.format](judged.results, checks.value);
  if (options.out === undefined) process.stdout.write(report);
  else writeFileSync(options.out, report);
  process.exitCode = judged.results.every(result => result.ok) ? 0 : 1;
}

const threads = String(availableParallelism());
await new Command("check")
  .description("Judges takes by checks: KIT.json, CHECKS.json and takes in, what holds and what does not out")
  .argument("<kit>", "a kit file")
  .argument("<checks>", "a file of checks")
  .argument("<takes...>", "take files, folders of them, or - for a list of files on standard input")
  .addOption(
    new Option("--format <form>", "how results are written").choices(Object.keys(REPORTS)).default("tap"),
  )
  .option("--out <file>", "where they are written, instead of standard output")
  .option("--rates <list>", "judge every check at these frames a second too, such as 30,60,144")
  .option("--jobs <n>", "how many threads work", threads)
  .option("--shard <i/n>", "only every n-th take from the i-th on", "1/1")
  .exitOverride(error => process.exit(error.exitCode === 0 ? 0 : 2))
  .action(main)
  .parseAsync();
