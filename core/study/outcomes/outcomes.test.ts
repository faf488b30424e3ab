import { readdirSync, readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import type { Take } from "../../input/takeSchema";
import { compile } from "../../kit/compile";
import type { Kit } from "../../kit/schema";
import { evaluate } from "../../run/run";
import { anyKit, anySharingKit, anyTake } from "../../tests/arbitraries";
import { assertUntil } from "../../tests/assertUntil";
import { expectSame } from "../../tests/expectSame";
import { countPresses, listEnders } from "../../tests/slowOutcomes";
import { drawTake, mustCompile, sketchKit } from "../../tests/strips";
import { formatTrace } from "../../trace/formatTrace";
import { FAILURES, LAPSE_REASONS, LOSS_REASONS, PERFORMED_BY } from "../../trace/trace";
import { edgeCountOf } from "../../trace/notes/edgeList";
import { formatLoss } from "../../trace/notes/lost";
import { listDelays } from "../feel/delays";
import { listPressRows } from "../pressRows";
import { readOutcome } from "../sweep/readOutcome";
import { formatMoveCounts, formatPatternCounts, formatPromptCounts, performedOf } from "./formatCounts";
import { notes } from "../../trace/noteKinds";
import { LOST_TO, sumCounts, sumRuleCounts, totalOf, type MoveCounts } from "./ruleCounts";
import { readOutcomes } from "./readOutcomes";

/**
 * Compares every figure of a run with a slow count from kit, take and trace file; returns the kinds of result
 * it met.
 */
function holdCounts(kit: Kit, take: Take): string[] {
  const program = mustCompile(kit);
  const trace = evaluate(program, take);
  const { events } = formatTrace(program, trace);
  const met = new Set<string>();
  const { presses, requests, counts } = readOutcomes(program, trace);
  const idsOf = (uses: readonly { readonly kind: string; readonly index: number }[]) =>
    uses.map(({ kind, index }) => (kind === "move" ? program.moves : program.prompts)[index]!.id).sort();

  const slow = countPresses(kit, take, events);
  expect(presses.map(({ control, frame }) => [program.controls[control]!.id, frame])).toEqual(
    slow.map(({ control, frame }) => [control, frame]),
  );
  presses.forEach((fate, k) => {
    const { used, lost, fired } = slow[k]!;
    expectSame(idsOf(fate.uses), used);
    expectSame(fate.losses.map(({ move }) => program.moves[move]!.id).sort(), lost);
    expectSame(fate.fires.length, fired);
    const outcome = used.length > 0 ? "used" : lost.length > 0 ? "lost" : fired > 0 ? "fired" : "";
    if (outcome === "" && fate.endings.length > 0) expectSame(fate.outcome, "ended");
    else if (outcome === "") expect(["lapsed", "unheard"]).toContain(fate.outcome);
    else expectSame(fate.outcome, outcome);
    for (const { pattern, frame, reason } of fate.lapses) {
      const why = LAPSE_REASONS[reason]!;
      const { id } = program.patterns[pattern]!;
      expectSame(
        events.filter(e => e.f === frame && e.kind === "lapsed" && e.id === id && e.why === why).length > 0,
        true,
      );
    }
    met.add(fate.outcome);
    if (used.length > 0 && lost.length > 0) met.add("used and lost");
  });
  const ended = presses.flatMap(({ control, endings }) =>
    endings.map(({ kind, index, frame, reason }) => ({
      control: program.controls[control]!.id,
      frame,
      id: (kind === "pattern" ? program.patterns : program.prompts)[index]!.id,
      why: (kind === "pattern" ? LAPSE_REASONS : FAILURES)[reason]!,
    })),
  );
  let explained = 0;
  for (const event of events) {
    const enders = listEnders(kit, event);
    if (!enders || !("why" in event)) continue;
    const found = ended.filter(e => e.frame === event.f && e.id === event.id && e.why === event.why);
    // A fire of a drawn prompt may be made of releases alone.
    expectSame(found.length > 0 || enders.length === kit.controls.length, true);
    for (const { control } of found) expect(enders).toContain(control);
    explained += found.length;
  }
  expectSame(explained, ended.length);
  const fateCounts = Object.values(counts.presses).reduce((sum, n) => sum + n, 0);
  expectSame(fateCounts, presses.length);
  expect(counts.presses.lost).toBe(
    slow.filter(({ used, lost }) => used.length === 0 && lost.length > 0).length,
  );

  program.moves.forEach(({ id }, m) => {
    const own = counts.moves[m]!;
    const performed = events.filter(e => e.kind === "performed" && e.id === id);
    const lost = events.filter(e => e.kind === "lost" && e.id === id);
    for (const by of PERFORMED_BY)
      expectSame(own.performed[by], performed.filter(e => "by" in e && e.by === by).length);
    for (const reason of LOSS_REASONS)
      expectSame(
        own.lost[reason] ?? 0,
        lost.filter(e => "why" in e && e.why?.split(":")[0] === reason).length,
      );
    expectSame(own.asked, performedOf(own) + totalOf(own.lost) + own.pending);
    for (const reason of LOST_TO) expectSame(totalOf(own.lostTo[reason]), own.lost[reason] ?? 0);
    expectSame(own.asked, requests.filter(({ move }) => move === m).length);
    if (own.pending > 0) met.add("pending");
    if (LOST_TO.some(reason => own.lost[reason])) met.add("lost to another");
  });
  const twice = sumCounts(program, [counts, counts]);
  for (const list of ["patterns", "moves", "prompts"] as const)
    twice[list].forEach((sum, k) => expectSame(sumRuleCounts(program, [counts, counts], list, k), sum));
  const releases = Array.from({ length: trace.count }, (_, i) => i).filter(
    i => trace.kind[i] === notes.edge.code && notes.edge.isDown(trace, i) === 0,
  );
  for (const { control, frame, released } of presses) {
    const end = releases.find(i => trace.subject[i] === control && trace.frame[i]! > frame);
    expectSame(released, end && trace.frame[end]);
  }
  program.patterns.forEach(({ id }, p) => {
    const own = counts.patterns[p]!;
    expectSame(own.fired, events.filter(e => e.kind === "fired" && e.id === id).length);
    for (const why of LAPSE_REASONS)
      expectSame(
        own.lapsed[why] ?? 0,
        events.filter(e => e.kind === "lapsed" && e.id === id && e.why === why).length,
      );
  });
  program.prompts.forEach(({ id, grades }, p) => {
    const own = counts.prompts[p]!;
    const outcomes = events.filter(e => e.kind === "prompt" && e.id === id);
    const ofOutcome = (name: string) => outcomes.filter(e => "outcome" in e && e.outcome === name).length;
    expectSame(own.shown, ofOutcome("shown"));
    expectSame(
      own.graded,
      grades.map(({ name }) => ofOutcome(name)),
    );
    expectSame(own.answered, ofOutcome("ok") + grades.reduce((sum, { name }) => sum + ofOutcome(name), 0));
    for (const why of FAILURES)
      expectSame(own.failed[why] ?? 0, outcomes.filter(e => "why" in e && e.why === why).length);
    expectSame(own.shown, own.answered + totalOf(own.failed) + own.showing);
  });

  // The figures of the other screens and tables.
  const rows = listPressRows(program, trace, take);
  expect(rows.map(({ outcome }) => outcome)).toEqual(presses.map(({ outcome }) => outcome));
  rows.forEach((row, k) => {
    const { uses, losses } = presses[k]!;
    if (row.used_by !== null) expect(idsOf(uses)).toContain(row.used_by);
    if (row.lost_why !== null)
      expect(losses.map(({ reason, because }) => formatLoss(program, reason, because))).toContain(
        row.lost_why,
      );
  });
  const swept = readOutcome(program, trace, { moves: undefined, prompts: undefined });
  expect(swept.lostPresses.size).toBe(counts.presses.lost);
  const sumShowings = (of: (own: (typeof counts.prompts)[number]) => number) =>
    counts.prompts.reduce((sum, own) => sum + of(own), 0);
  expect(swept.answered).toBe(sumShowings(({ answered }) => answered));
  expect(swept.unanswered).toBe(sumShowings(({ failed }) => totalOf(failed)));
  expect(totalOf(swept.performed)).toBe(counts.moves.reduce((sum, own) => sum + performedOf(own), 0));
  expect(totalOf(swept.lost)).toBe(counts.moves.reduce((sum, own) => sum + totalOf(own.lost), 0));
  const again = requests.filter(({ isAgain, end }) => isAgain && end === "performed");
  if (again.length > 0) met.add("again");
  const made = requests.filter(
    ({ end, isAgain, note }) => end === "performed" && !isAgain && edgeCountOf(trace, note) > 0,
  );
  expect(listDelays(program, trace, requests).length).toBe(made.length);
  return [...met];
}

/**
 * Removes carried fires: they are in no trace file, so requests repeated from them cannot be counted from
 * one.
 */
function withoutCarriedFires(kit: Kit): Kit {
  if (!kit.modes?.some(({ carry }) => carry)) return kit;
  return { ...kit, moves: (kit.moves ?? []).map(({ again: _again, ...move }) => move) };
}

/** The results that the random test must have met. */
const INTERESTING = [
  ...["used", "lost", "fired", "ended", "lapsed", "unheard"],
  ...["used and lost", "pending", "lost to another", "again"],
];

test.each([
  ["any kit", anyKit, 100],
  ["kits whose prompts share presses", anySharingKit, 100],
])("every figure is what a slow count of the trace file gives, on %s", (_name, kits, numRuns) => {
  const met = new Set<string>();
  assertUntil(
    fc.property(kits, anyTake, (kit, take) => {
      if (compile(kit).ok) for (const what of holdCounts(withoutCarriedFires(kit), take)) met.add(what);
    }),
    { numRuns },
    () => met.size >= INTERESTING.length,
  );
  expect([...met].sort()).toEqual([...INTERESTING].sort());
});

const takes = readdirSync("demo")
  .filter(name => !name.includes("."))
  .flatMap(kit =>
    readdirSync(`demo/${kit}`)
      .filter(file => /^\d/.test(file))
      .map(file => [kit, file.replace(".json", "")] as const),
  );

test.each(takes)(
  "demo %s, take %s, without its stage: every figure is what a slow count gives",
  (folder, name) => {
    const read = (file: string): unknown => JSON.parse(readFileSync(`demo/${folder}/${file}.json`, "utf8"));
    holdCounts(read("kit") as Kit, read(name) as Take);
  },
);

const nameOf = (move: number) => ["Hop", "Toll"][move] ?? "?";

test("the counts of a rule add up as written: requests first, then presses", () => {
  const counts: MoveCounts = {
    asked: 16,
    performed: { direct: 6, buffer: 2, coyote: 1, both: 0 },
    lost: { replaced: 1, beaten: 3, busy: 1, gate: 1, prompt: 1 },
    lostTo: { replaced: { 0: 1 }, beaten: { 0: 1, 1: 2 }, busy: { 1: 1 } },
    pending: 0,
    lostPresses: 1,
  };
  expect(formatMoveCounts(counts, nameOf)).toBe(
    "asked for 16 times: performed 9 times (2 by buffer, 1 by coyote), lost 7 times (3 as Hop and Toll used the press, 1 replaced by a newer press for Hop, 1 as Toll came first, 1 to a prompt); 1 press lost",
  );
  expect(formatMoveCounts({ ...counts, asked: 0 }, nameOf)).toBe("never asked for");
  expect(formatPatternCounts({ formed: 0, fired: 1, lapsed: {} })).toBe("fired once");
  expect(formatPatternCounts({ formed: 0, fired: 0, lapsed: {} })).toBe("never began");
  expect(formatPromptCounts({ shown: 2, answered: 0, graded: [], failed: { wrong: 2 }, showing: 0 })).toBe(
    "shown 2 times: never answered, failed 2 times",
  );
  const graded = { shown: 4, answered: 4, graded: [2, 0, 1], failed: {}, showing: 0 };
  const grades = ["perfect", "good", "fair"].map(name => ({ name }));
  expect(formatPromptCounts(graded, grades)).toBe(
    "shown 4 times: answered 4 times (2 perfect, 1 fair), never failed",
  );
});

test("a chord that is never completed counts as begun", () => {
  const kit = sketchKit("ab", {
    patterns: [{ id: "both", name: "Both", kind: "chord", controls: ["a", "b"] }],
  });
  const program = mustCompile(kit);
  const { counts } = readOutcomes(program, evaluate(program, drawTake({ a: ".###..###.", b: "" })));
  expect(formatPatternCounts(counts.patterns[0]!)).toBe("began 2 times, never fired");
});

test("the answer of a prompt is the fire whose presses were late enough, not the first pattern listed", () => {
  const kit = sketchKit("ab", {
    patterns: [
      { id: "hold", name: "Hold", kind: "hold", control: "a", for: "4f", fire: "reach" },
      { id: "press", name: "Press", kind: "press", control: "b" },
    ],
    prompts: [{ id: "r", name: "Rope", ask: ["hold", "press"], starts: { at: "3f" }, window: "9f" }],
  });
  const program = mustCompile(kit);
  // Both fire on frame 5; the press of A is older than the window.
  const { presses } = readOutcomes(
    program,
    evaluate(program, drawTake({ a: ".########.", b: ".....#...." })),
  );
  expect(presses.map(({ control, outcome }) => [control, outcome])).toEqual([
    [0, "fired"],
    [1, "used"],
  ]);
});

test("a lapse belongs to the presses of its own attempt", () => {
  const kit = sketchKit("a", {
    patterns: [{ id: "tap", name: "Tap", kind: "tap", control: "a", max: "2f" }],
  });
  const program = mustCompile(kit);
  const { presses } = readOutcomes(program, evaluate(program, drawTake({ a: ".#...#####..#####." })));
  expect(presses.map(({ outcome, lapses }) => [outcome, lapses.map(({ frame }) => frame)])).toEqual([
    ["fired", []],
    ["lapsed", [8]],
    ["lapsed", [15]],
  ]);
});

test("counts of several takes add up name by name", () => {
  const kit = sketchKit("a", {
    patterns: [{ id: "tap", name: "Tap", kind: "tap", control: "a", max: "2f" }],
    moves: [
      {
        id: "hop",
        name: "Hop",
        pattern: "tap",
        bans: ["busy:main"],
        frames: { startup: "9f", active: "0f", recovery: "0f" },
      },
    ],
  });
  const program = mustCompile(kit);
  const counts = (a: string) => readOutcomes(program, evaluate(program, drawTake({ a }))).counts;
  const sum = sumCounts(program, [counts(".#..#......."), counts(".#..####....")]);
  expect(sum.moves[0]).toMatchObject({
    asked: 3,
    performed: { direct: 2 },
    lost: { ban: 1 },
    lostPresses: 1,
  });
  expect(sum.patterns[0]).toEqual({ formed: 4, fired: 3, lapsed: { "too-long": 1 } });
  expect(sum.presses).toEqual({ used: 2, lost: 1, fired: 0, ended: 0, lapsed: 1, unheard: 0 });
  expect(sumCounts(program, []).moves[0]!.asked).toBe(0);
});
