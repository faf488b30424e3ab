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
  parseTake,
  readOutcomes,
  readTake,
  sumCounts,
  type Kit,
  type Take,
} from "#core";
import { EXPORT_FORMATS, NO_PARTS, readSource, type ReadFile } from "#handover";
import { beginRun, compileRules, findAdvantage, type Rules } from "#stage";
import { isMadeAtOnce } from "../../app/judging/makeFiles";
import { listAnswers } from "../../app/maps/answers";
import { listLengthDots, listStretches } from "../../app/maps/pressLengths";
import { listTapGaps } from "../../app/maps/tapGaps";
import { listTries } from "../../app/maps/tries";
import { listBanDots, listWindowDots } from "../../app/maps/windowDots";
import { buildTape } from "../../app/tape/model/buildTape";

/** A take is run so far here: as far as the page runs one at once; longer ones go to its workers in slices of this. Frames. */
const MOST_FRAMES = 20_000;

/** How a document fared. */
export interface Journey {
  readonly became: ReadFile["kind"];
  /** How many sentences a refusal had, or how many warnings stood beside a kit that was taken. */
  readonly said: number;
}

/** Everything the maps read off a run. */
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

/** A kit and a take through run, fates, tape, maps and trace. */
function walkRun(rules: Rules, take: Take): void {
  const whole = readTake(rules.program, take);
  const course = beginRun(rules, whole);
  course.runTo(Math.min(whole.frames, MOST_FRAMES));
  const { trace } = course;
  for (const fate of readOutcomes(rules.program, trace).presses.slice(0, 200)) formatFate(rules, trace, fate);
  buildTape(rules, trace, take);
  readMaps(rules, trace);
  const document = formatTrace(rules.program, trace);
  if (/null|NaN|Infinity/.test(JSON.stringify(document.events.map(event => Object.values(event)))))
    throw new Error("a number without end left in a trace");
}

function walkExports(kit: Kit, takes: readonly Take[]): void {
  const handover = { kit, takes, layouts: [], checks: [] };
  // What the page does not do at once either, it does in a worker when it is asked for.
  for (const form of EXPORT_FORMATS.filter(item => isMadeAtOnce(item, handover)))
    for (const file of form.files(handover, NO_PARTS))
      if (file.bytes.length === 0) throw new Error(`${form.id} wrote an empty file`);
}

/**
 * Takes the text of a document the whole way through the application: read, refused in words or checked, run with a
 * companion, told, mapped, written and read again. Throws where any of it fails; never because the document is bad.
 */
export function travel(text: string, companion: { readonly kit: Kit; readonly take: Take }): Journey {
  // Of takes that came together the first is looked into; all of them were read.
  const [read = { kind: "passed", name: "none", why: "nothing in it" }] = readSource("document.json", text);
  if (read.kind === "refused") {
    if (read.reasons.length === 0 || read.reasons.some(reason => reason === ""))
      throw new Error("refused without a word");
    return { became: read.kind, said: read.reasons.length };
  }
  if (read.kind === "layout" || read.kind === "passed") return { became: read.kind, said: 0 };
  const kit = read.kind === "kit" ? read.kit : companion.kit;
  const take = read.kind === "take" ? read.take : companion.take;
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error("what was read does not compile");
  compiled.warnings.forEach(formatIssue);
  if (countFrames(take, kit.rate) > 0) walkRun(compiled.value, take);
  walkExports(kit, [take]);
  if (!parseTake(JSON.parse(JSON.stringify(take))).ok)
    throw new Error("a take that was read is refused again");
  return { became: read.kind, said: compiled.warnings.length };
}
