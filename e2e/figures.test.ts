import { expect, test, vi } from "vitest";
import { measureFigures } from "./figuresAll";
import { useSession } from "./session";

const session = useSession();

test("every figure can be measured, on small takes", async () => {
  const print = vi.spyOn(console, "log").mockImplementation(() => {});
  const { driver, address, downloads } = session;
  await measureFigures(driver, address, downloads, {
    takes: 4,
    frames: 7200,
    longFrames: 90_000,
    steps: 2,
    watchMs: 200,
  });
  const lines = print.mock.calls.map(([line]) => String(line));
  print.mockRestore();
  expect(lines.length).toBeGreaterThan(20);
  expect(lines.filter(line => /NaN|Infinity|undefined/.test(line))).toEqual([]);
});
