import { expect, test, vi } from "vitest";
import { createProgressReporter } from "./slices";

/** Returns the times of all reports and of those with a partial result, of a job that steps every 10 ms for 3 s. */
function reportTimes(mostMs?: number) {
  const clock = vi.spyOn(performance, "now");
  const times = { all: [] as number[], partial: [] as number[] };
  let now = 0;
  const report = createProgressReporter(
    {
      reportProgress(_done, _of, partial) {
        times.all.push(now);
        if (partial !== undefined) times.partial.push(now);
      },
      yieldNow: () => Promise.resolve(),
    },
    mostMs,
  );
  for (; now <= 3000; now += 10) {
    clock.mockReturnValue(now);
    report(now, 3000, () => "so far");
  }
  clock.mockRestore();
  return times;
}

test("a job reports progress every 80 ms, and partial results to draw less and less often", () => {
  const { all, partial } = reportTimes();
  expect(all.length).toBe(38);
  expect(partial).toEqual([0, 80, 240, 560, 960, 1360, 1760, 2160, 2560, 2960]);
});

test("a job whose steps are named names one with every report", () => {
  const { all, partial } = reportTimes(0);
  expect(partial).toEqual(all);
});
