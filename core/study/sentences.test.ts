import fc from "fast-check";
import { expect, test } from "vitest";
import { formatFinding } from "../formats/formatIssue";
import { describeGate, offerGate } from "../gates/describeGate";
import { compile } from "../kit/compile";
import { gateName } from "../kit/names";
import type { Kit } from "../kit/schema";
import { formatSentence, type RefList, type SentencePart } from "../kit/sentence";
import { findWarnings } from "../kit/warnings";
import { describeSwitch } from "../modes/describeSwitch";
import { describeMove, offerMove } from "../moves/describeMove";
import { describePattern, offerPattern } from "../patterns/describePattern";
import { describePrompt, offerPrompt } from "../prompts/describePrompt";
import { evaluate } from "../run/run";
import { anyKit, anyTake } from "../tests/arbitraries";
import { formatEvent } from "../trace/formatTrace";
import { FAILURES, LAPSE_REASONS, LOSS_REASONS } from "../trace/trace";
import { countWords, joinNames } from "../formats/words";
import { formatEventWords } from "../trace/eventWords";
import { readOutcomes } from "./outcomes/readOutcomes";
import { formatFate } from "./formatFate";
import { findPrice, formatPrice } from "./price";
import { FAILURE_WORDS, LAPSE_WORDS, LOSS_WORDS } from "../trace/reasonWords";
import { findRepairs, formatRepair } from "./repairs";

/** Errors in generated sentences: a plural of one, a code for words, a gap, a clause that joins nothing. */
const UGLY = [
  /\b1 (frames|taps|times|presses|hits|steps|levels|uses|moves|takes|gates|rules|words)\b/,
  /\bundefined\b|\bNaN\b|\bnull\b|\[object|Infinity/,
  /busy:|out:|gate:|ban:|too-(late|early|long|short|slow)/,
  /\s{2}|\s[,;.:]|[,;:]\s*[,;:.]|^[\s,;:.]|[\s,;:]$/,
  /\b(an|the|of|and|or|with|if|for) *$/,
  /\bto more\b|\? /,
];

function expectPlain(text: string): void {
  const ugly = text === "" ? /^$/ : UGLY.find(pattern => pattern.test(text));
  // `expect` for each of a million sentences would take longer than to make them.
  if (ugly) expect(text).not.toMatch(ugly);
}

const textOf = (kit: Kit, parts: readonly SentencePart[]) =>
  formatSentence(parts, (list: RefList, id) =>
    list === "gate" || list === "openable" ? gateName(kit, id) : id,
  );

/** Yields every sentence of a kit, and every sentence after any one of its offers. */
function* sentencesOf(kit: Kit): Generator<string> {
  for (const pattern of kit.patterns) {
    yield textOf(kit, describePattern(pattern, kit));
    for (const offer of offerPattern(pattern, kit)) {
      yield offer.words;
      yield textOf(kit, describePattern(offer.becomes, kit));
    }
  }
  for (const move of kit.moves ?? []) {
    yield textOf(kit, describeMove(move));
    for (const offer of offerMove(move, kit)) {
      yield offer.words;
      yield textOf(kit, describeMove(offer.becomes));
    }
  }
  for (const gate of kit.gates ?? []) {
    yield textOf(kit, describeGate(gate));
    for (const offer of offerGate(gate, kit)) {
      yield offer.words;
      yield textOf(kit, describeGate(offer.becomes));
    }
  }
  for (const prompt of kit.prompts ?? []) {
    yield textOf(kit, describePrompt(prompt, kit));
    for (const offer of offerPrompt(prompt, kit)) {
      yield offer.words;
      yield textOf(kit, describePrompt(offer.becomes, kit));
    }
  }
  for (const change of kit.switches ?? []) yield textOf(kit, describeSwitch(change, kit));
}

test("every sentence of any kit, and about any take, is grammatical", () => {
  let sentences = 0;
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      for (const sentence of sentencesOf(kit)) {
        expectPlain(sentence);
        sentences++;
      }
      const compiled = compile(kit);
      if (!compiled.ok) return;
      const program = compiled.value;
      for (const warning of findWarnings(kit, program)) expectPlain(formatFinding(warning));
      const trace = evaluate(program, take);
      for (let i = 0; i < trace.count; i++) {
        const event = formatEvent(program, trace, i);
        if (event) expectPlain(formatEventWords(event, kit));
      }
      const fates = readOutcomes(program, trace).presses;
      for (const fate of fates) expectPlain(formatFate({ kit, program }, trace, fate));
      const lost = fates.find(fate => fate.outcome === "lost");
      for (const repair of lost ? findRepairs(kit, take, lost, { mostFrames: 4 }) : []) {
        expectPlain(formatRepair(kit, repair));
        expectPlain(formatPrice(kit, repair.price));
      }
    }),
    { numRuns: 150 },
  );
  expect(sentences).toBeGreaterThan(2000);
});

test("counts, lists, reasons and prices are formatted for none, one, few and many", () => {
  for (const reason of LAPSE_REASONS) expectPlain(LAPSE_WORDS[reason]);
  for (const reason of LOSS_REASONS) expectPlain(LOSS_WORDS[reason]("Footing"));
  for (const reason of FAILURES) expectPlain(FAILURE_WORDS[reason]);
  expect([0, 1, 2].map(n => countWords(n, "press", "presses"))).toEqual([
    "0 presses",
    "1 press",
    "2 presses",
  ]);
  expect([["A"], ["A", "B"], ["A", "B", "C"]].map(joinNames)).toEqual(["A", "A and B", "A, B and C"]);
  const kit = { moves: [{ name: "Hop" }], patterns: [], gates: [] } as unknown as Kit;
  expect(formatPrice(kit, findPrice([]))).toBe("nothing else changes in all 0 takes");
  for (const more of [1, 2])
    for (const fewer of [0, 1, 3])
      expectPlain(
        formatPrice(kit, { takes: 2, lines: [{ kind: "performed", index: 0, more, fewer, moved: 1 }] }),
      );
});
