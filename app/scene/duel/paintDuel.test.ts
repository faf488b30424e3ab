import { expect, test } from "vitest";
import { measureDuel } from "./paintDuel";

test("the words above the bodies are in the picture, from a strip to a whole window", () => {
  for (const height of [90, 132, 200, 480, 900]) {
    const { floor, size, wordsY } = measureDuel(height);
    expect(wordsY, String(height)).toBeGreaterThanOrEqual(14);
    expect(floor).toBeLessThan(height);
    expect(size).toBeGreaterThanOrEqual(48);
    if (height >= 132) expect(wordsY).toBeLessThan(floor - size);
  }
  expect(measureDuel(480).size).toBe(190);
});
