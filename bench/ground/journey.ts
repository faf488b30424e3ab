import {
  countFrames,
  describeMove,
  describePattern,
  describePrompt,
  formatFate,
  formatIssue,
  findFollowUp,
  formatTrace,
  listLinks,
  listMeanwhile,
  readOutcomes,
  readTake,
  sumCounts,
  type Kit,
  type Take,
} from "#core";
import { EXPORT_FORMATS, formatFile, NO_PARTS, readSource, type ReadFile } from "#handover";
import { beginRun, compileRules, findAdvantage, type Rules } from "#stage";
import { isMadeAtOnce } from "../../app/judging/makeFiles";
import { listAnswers } from "../../app/maps/answers";
import { listLengthDots, listStretches } from "../../app/maps/pressLengths";
import { listTapGaps } from "../../app/maps/tapGaps";
import { listTries } from "../../app/maps/tries";
import { listBanDots, listWindowDots } from "../../app/maps/windowDots";
import { buildTape } from "../../app/tape/model/buildTape";

/**
 * The maximum frames of a take run here: those the page runs synchronously; longer ones are sliced in its
 * workers.
 */
const MAX_FRAMES = 20_000;

/** The result of one document. */
export interface Journey {
  readonly became: ReadFile["kind"];
  /** The number of sentences of a refusal, or of warnings of an accepted kit. */
  readonly sentences: number;
}

/** Reads everything the maps show of a run. */
function readMaps({ program, kit }: Rules, trace: Trace): void {
  const outcomes = readOutcomes(program, trace);
  const read = { program, trace, outcomes };
  program.controls.forEach((_, c) => {
    listLengthDots(read, c);
    listStretches(program, c, 120);
  });
  program.patterns.forEach((pattern, i) => {
    if (pattern.kind === "sequence") listTries(program, [trace], i);
    if (pattern.kind === "taps") listTapGaps(read, i, 60);
    describePattern(kit.patterns[i]!, kit);
  });
  program.moves.forEach((move, m) => {
    for (const need of move.needs) listWindowDots(read, m, need.gate);
    for (const ban of move.bans) listBanDots(read, m, ban);
    listMeanwhile(program, trace, outcomes.requests, m);
    describeMove(kit.moves![m]!);
  });
  sumCounts(program, [outcomes.counts]);
  for (const [one, two] of listLinks(kit).slice(0, 2)) findFollowUp(kit, one, two);
  if (kit.moves?.[0]) findAdvantage(kit, 0);
  kit.prompts?.forEach((_, p) => listAnswers(program, trace, p));
  kit.prompts?.forEach(prompt => describePrompt(prompt, kit));
}

type Trace = ReturnType<typeof beginRun>["trace"];

/** Runs a kit and a take through fates, tape, maps and trace. */
function walkRun(rules: Rules, take: Take): void {
  const whole = readTake(rules.program, take);
  const course = beginRun(rules, whole);
  course.runTo(Math.min(whole.frames, MAX_FRAMES));
  const { trace } = course;
  for (const fate of readOutcomes(rules.program, trace).presses.slice(0, 200)) formatFate(rules, trace, fate);
  buildTape(rules, trace, take);
  readMaps(rules, trace);
  const outcomes = readOutcomes(rules.program, trace);
  if (outcomes.presses.some(press => formatFate(rules, trace, press) === ""))
    throw new Error("a press without a fate");
  const written = formatTrace(rules.program, trace);
  if (written.events.some((event, k) => k > 0 && event.f < written.events[k - 1]!.f))
    throw new Error("a trace with an event before an earlier one");
  if (/null|NaN|Infinity/.test(JSON.stringify(written.events.map(event => Object.values(event)))))
    throw new Error("a number without end left in a trace");
}

function walkExports(kit: Kit, takes: readonly Take[]): void {
  const handover = { kit, takes, layouts: [], checks: [] };
  // Forms the page makes only on request are skipped.
  for (const form of EXPORT_FORMATS.filter(item => isMadeAtOnce(item, handover)))
    for (const file of form.files(handover, NO_PARTS))
      if (file.bytes.length === 0) throw new Error(`${form.id} wrote an empty file`);
}

/**
 * Runs the text of a document through the whole application: parsed, refused or checked, run with a
 * companion, formatted, mapped, written and read again. Throws if any step fails, never because the document
 * is invalid.
 */
export function travel(text: string, companion: { readonly kit: Kit; readonly take: Take }): Journey {
  // Of several takes in one document the first one is examined; all were parsed.
  const [read = { kind: "passed", name: "none", why: "nothing in it" }] = readSource("document.json", text);
  if (read.kind === "refused") {
    if (read.reasons.length === 0 || read.reasons.some(reason => reason === ""))
      throw new Error("refused without a word");
    return { became: read.kind, sentences: read.reasons.length };
  }
  if (read.kind === "layout" || read.kind === "passed") return { became: read.kind, sentences: 0 };
  const kit = read.kind === "kit" ? read.kit : companion.kit;
  const take = read.kind === "take" ? read.take : companion.take;
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error("what was read does not compile");
  compiled.warnings.forEach(formatIssue);
  if (countFrames(take, kit.rate) > 0) walkRun(compiled.value, take);
  walkExports(kit, [take]);
  const document = read.kind === "kit" ? kit : take;
  const [again] = readSource("document.json", formatFile(document));
  const known = again?.kind === "kit" ? again.kit : again?.kind === "take" ? again.take : undefined;
  if (JSON.stringify(known) !== JSON.stringify(document))
    throw new Error("a document that was read, written and read again is another one");
  return { became: read.kind, sentences: compiled.warnings.length };
}
