import { expect, test } from "vitest";
import { readKitAndTake, evaluateWith } from "../../tests/evaluated";
import { listOnsets } from "#core";
import { formatOnsets, ONSET_BIN_MS, ONSET_ENDS_MS, summarizeOnsets } from "./onsets";

test("onsets are counted in bars around the moment that judged them, those beyond the ends at the ends", () => {
  const { n, medianMs, quartilesMs, bars } = summarizeOnsets([-400, -10, 0, 24, 25, 900]);
  expect(n).toBe(6);
  expect(medianMs).toBe(12);
  expect(quartilesMs).toEqual([-7.5, 24.75]);
  const middle = ONSET_ENDS_MS / ONSET_BIN_MS;
  expect(bars.flatMap((count, k) => (count > 0 ? [[k - middle, count]] : []))).toEqual([
    [-middle, 1],
    [-1, 1],
    [0, 2],
    [1, 1],
    [middle - 1, 1],
  ]);
  const words = (list: readonly number[]) => formatOnsets(summarizeOnsets(list));
  expect(words([-10, -10, 0, 24, 30])).toBe(
    "median 0 ms, half of them from 10 ms early to 24 ms late, n = 5",
  );
  expect(words([50, 50, 50, 50.2])).toBe("median 50 ms late, half of them 50 ms late, n = 4");
  expect(words([-10, 0, 24])).toBe("median 0 ms, n = 3");
  expect(formatOnsets(summarizeOnsets([]))).toBe("no press that a gate or target judged");
});

test("late at every edge: each leap of the demo came after the ground was left", () => {
  const { kit, take } = readKitAndTake("demo/belfry-runner", "2-late-at-every-edge");
  const { program, trace } = evaluateWith(kit, take);
  const onsets = listOnsets(program, { take, trace });
  expect(onsets.length).toBeGreaterThan(3);
  expect(Math.min(...onsets)).toBeGreaterThan(0);
});
