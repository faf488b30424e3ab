import { availableParallelism } from "node:os";
import { Command, Option } from "commander";
import {
  compareResults,
  countWords,
  formatIssue,
  parseChecks,
  parseResults,
  type Check,
  type CheckResult,
  type ResultChanges,
} from "#core";
import { compileTakeJudge, parseRules } from "#stage";
import { judgeFiles, type Judged } from "./checks/judgeFiles";
import { REPORTS } from "./checks/reports";
import { writeOut } from "./output";
import { refuse } from "./refuse";
import { readDocument } from "./readDocument";
import { listTakeFiles, parseShard } from "./takeFiles";

interface Options {
  readonly format: keyof typeof REPORTS;
  readonly out?: string;
  readonly rates?: string;
  readonly jobs: string;
  readonly shard: string;
  readonly against?: string;
  readonly onlyNew?: boolean;
  readonly allowEmpty?: boolean;
  readonly lenient?: boolean;
  readonly anyKit?: boolean;
}

const isRate = (rate: number) => Number.isInteger(rate) && rate >= 1 && rate <= 1000;

/** Returns the faults of options and files, a line each. */
function listFaults(options: Options, checksOf: string | undefined, kitId: string | undefined): string[] {
  const rates = options.rates?.split(",").map(Number) ?? [];
  const jobs = Number(options.jobs);
  return [
    ...(parseShard(options.shard) ? [] : [`--shard ${options.shard}: is no shard: write one like 2/4`]),
    ...(rates.every(isRate)
      ? []
      : [`--rates ${options.rates}: write whole frames a second from 1 to 1000, with commas between`]),
    ...(Number.isInteger(jobs) && jobs >= 1 && jobs <= 256
      ? []
      : [`--jobs ${options.jobs}: write how many threads work, 1 to 256`]),
    ...(options.onlyNew && options.against === undefined
      ? ["--only-new: name earlier results with --against, so that something can be new"]
      : []),
    ...(checksOf !== undefined && kitId !== undefined && checksOf !== kitId && !options.anyKit
      ? [
          `the checks are of the kit "${checksOf}", not of "${kitId}": name that kit, or allow it with --any-kit`,
        ]
      : []),
  ];
}

/** Returns why a run has tested nothing; undefined if it has. */
function whyEmpty(
  { takes, results }: { readonly takes: number; readonly results: readonly CheckResult[] },
  checks: readonly Check[],
): string | undefined {
  if (takes === 0) return "no take was judged: name takes, or folders that hold some";
  if (checks.every(check => check.off)) return "no check is on: write one, or switch one on";
  if (results.length === 0) return "no check asks for any of these takes";
  if (results.every(({ vacuous }) => vacuous))
    return "nothing was tested: in no take could anything have made a check fail";
  return undefined;
}

/** Sums up what was read, left out and compared, a line each. */
function sumUp(
  judged: Extract<Judged, { readonly takes: number }>,
  results: readonly CheckResult[],
  changes: ResultChanges | undefined,
): string[] {
  const vacuous = new Map<string, boolean>();
  for (const result of results)
    vacuous.set(result.check, (vacuous.get(result.check) ?? true) && result.vacuous === true);
  const idle = [...vacuous].filter(([, isVacuous]) => isVacuous).map(([check]) => check);
  const { takes, leftOut, broken } = judged;
  return [
    ...judged.notes,
    ...broken,
    ...(idle.length > 0 ? [`nothing could have made these checks fail: ${idle.join(", ")}`] : []),
    ...(leftOut.length > 0 || broken.length > 0
      ? [
          `${countWords(takes, "take")} judged${broken.length > 0 ? ", some did not read" : ""}${leftOut.length > 0 ? `; left out: ${leftOut.join(", ")}` : ""}`,
        ]
      : []),
    ...(changes
      ? [
          `${changes.newlyBroken} newly broken, ${changes.newlyHeld} newly held, ${changes.stillBroken} still broken, ${changes.gone} gone`,
        ]
      : []),
  ];
}

/**
 * Judges takes by checks; see docs/check-rules.md. Exit code 0: all hold, 1: some do not, 2: everything else.
 */
async function main(kitFile: string, checksFile: string, words: string[], options: Options): Promise<void> {
  const rules = readDocument(kitFile, parseRules);
  const checks = readDocument(checksFile, parseChecks);
  const before = options.against === undefined ? undefined : readDocument(options.against, parseResults);
  const files = listTakeFiles(words);
  const shard = parseShard(options.shard);
  const faults = [rules, checks, files, before].flatMap(read => (read && "lines" in read ? read.lines : []));
  const checksOf = "value" in checks ? checks.value.kit : undefined;
  faults.push(...listFaults(options, checksOf, "value" in rules ? rules.value.kit.id : undefined));
  if (faults.length > 0 || "lines" in rules || "lines" in checks || "lines" in files || !shard)
    return refuse(faults);
  const { kit } = rules.value;
  const rates = options.rates?.split(",").map(Number) ?? [];
  const ready = compileTakeJudge(kit, checks.value.checks, rates);
  if (!ready.ok)
    return refuse(
      ready.issues.map(
        issue => `${issue.path[0] === "checks" ? checksFile : kitFile}: ${formatIssue(issue)}`,
      ),
    );
  const judged = await judgeFiles(kit, checks.value, files, { rates, threads: Number(options.jobs), shard });
  if ("lines" in judged) return refuse(judged.lines);
  const empty = options.allowEmpty ? undefined : whyEmpty(judged, checks.value.checks);
  if (empty !== undefined) return refuse([...judged.broken, empty, "--allow-empty lets such a run pass"]);
  const compared =
    before && "value" in before ? compareResults(judged.results, before.value.results) : undefined;
  const results = compared?.results ?? judged.results;
  process.stderr.write(
    sumUp(judged, results, compared?.changes)
      .map(line => `${line}\n`)
      .join(""),
  );
  const report = REPORTS[options.format](results, checks.value, compared?.changes);
  if (options.out === undefined) process.stdout.write(report);
  else {
    const fault = writeOut(options.out, report);
    if (fault) return refuse([fault]);
  }
  const fails = ({ ok, was }: CheckResult) => !ok && !(options.onlyNew && was === false);
  process.exitCode = results.some(fails) ? 1 : 0;
  if (judged.broken.length > 0 && !options.lenient) process.exitCode = 2;
}

export const checkCommand = () =>
  new Command("check")
    .description(
      "Judges takes by checks: KIT.json, CHECKS.json and takes in, what holds and what does not out",
    )
    .argument("<kit>", "a kit file")
    .argument("<checks>", "a file of checks")
    .argument("<takes...>", "take files, packs, folders of them, or - for a list of files on standard input")
    .addOption(
      new Option("--format <form>", "how results are written").choices(Object.keys(REPORTS)).default("tap"),
    )
    .option("--out <file>", "where they are written, instead of standard output")
    .option("--rates <list>", "judge every check at these frames a second too, such as 30,60,144")
    .option("--jobs <n>", "how many threads work", String(availableParallelism()))
    .option("--shard <i/n>", "only every n-th take from the i-th on", "1/1")
    .option("--against <results>", "earlier results, as --format json wrote them: what broke since is marked")
    .option("--only-new", "only what is newly broken makes the exit code 1")
    .option("--allow-empty", "let a run pass that has tested nothing")
    .option("--lenient", "judge the rest if a take of a folder cannot be read")
    .option("--any-kit", "judge by checks of another kit")
    .action(main);
