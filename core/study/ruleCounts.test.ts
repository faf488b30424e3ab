import fc from "fast-check";
import { expect, test } from "vitest";
import { anyKit, anyTake } from "../tests/arbitraries";
import { compile } from "../kit/compile";
import { evaluate } from "../run/run";
import { formatTrace } from "../trace/formatTrace";
import { countRules, formatMoveCounts, formatPatternCounts, formatPromptCounts } from "./ruleCounts";

test("what is counted is what the events of the trace say, on random kits", () => {
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      const compiled = compile(kit);
      if (!compiled.ok) return;
      const program = compiled.value;
      const trace = evaluate(program, take);
      const { events } = formatTrace(program, trace);
      const counts = countRules(program, [trace, trace]);
      const ofKind = (kind: string, id: string) =>
        events.filter(event => event.kind === kind && event.id === id);
      program.patterns.forEach(({ id }, p) => {
        expect(counts.patterns[p]!.fired).toBe(2 * ofKind("fired", id).length);
        expect(counts.patterns[p]!.lapsed).toBe(2 * ofKind("lapsed", id).length);
      });
      program.moves.forEach(({ id }, m) => {
        const { asked, performed, gaveWay, lost } = counts.moves[m]!;
        const done = Object.values(performed).reduce((sum, count) => sum + count, 0);
        expect(done).toBe(2 * ofKind("performed", id).length);
        expect(gaveWay + lost).toBe(2 * ofKind("lost", id).length);
        expect(done + gaveWay + lost).toBeLessThanOrEqual(asked);
      });
    }),
    { numRuns: 60 },
  );
});

test("counts read as words", () => {
  const performed = { direct: 6, buffer: 2, coyote: 1, both: 0 };
  expect(formatMoveCounts({ asked: 12, performed, gaveWay: 1, lost: 2 })).toBe(
    "asked for 12 times: performed 9 times (2 by memory, 1 forgiven), gave way once, came to nothing 2 times",
  );
  expect(formatMoveCounts({ asked: 0, performed, gaveWay: 0, lost: 0 })).toBe("never asked for");
  expect(formatPatternCounts({ fired: 1, lapsed: 0 })).toBe("fired once");
  expect(formatPatternCounts({ fired: 0, lapsed: 0 })).toBe("never began");
  expect(formatPromptCounts({ shown: 2, answered: 0, failed: 2 })).toBe(
    "shown 2 times: answered never, failed 2 times",
  );
});
