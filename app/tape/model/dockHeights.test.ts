import { describe, expect, test } from "vitest";
import { clampHeight, heightOf, nextHeight, parseHeights, STRIP_PX } from "./dockHeights";

describe("the height of the dock", () => {
  test("is each view's own, as delivered until one is chosen", () => {
    expect(heightOf("tune", {}, 800)).toBe(STRIP_PX);
    expect(heightOf("play", { tune: 300 }, 800)).toBeLessThan(200);
    expect(heightOf("tune", { tune: 300 }, 800)).toBe(300);
    // The first checks are made on the tape, under a page of a few lines.
    expect(heightOf("first-checks", {}, 800)).toBeGreaterThan(heightOf("prove", {}, 800) + 100);
    expect(heightOf("first-checks", { prove: 200 }, 640)).toBeLessThanOrEqual(320);
    // Chosen in a taller window, it leaves the view its room in this one.
    expect(heightOf("tune", { tune: 900 }, 640)).toBe(440);
  });

  test("leaves the view its room, and is the strip where no row fits", () => {
    expect([10, 70, 100, 300, 5000].map(px => clampHeight(px, 800))).toEqual([44, 44, 120, 300, 600]);
  });

  test("cycles upwards from any height, and ends at the strip again", () => {
    const seen = [STRIP_PX];
    for (let k = 0; k < 4; k++) seen.push(nextHeight(seen.at(-1)!, 800));
    expect(seen).toEqual([44, 142, 400, 600, 44]);
    expect(nextHeight(250, 800)).toBe(400);
  });

  test.each([[null], ["{ torn"], ["[]"], ['{"tune":"high","elsewhere":3}'], ["null"]])(
    "reads nothing from %j",
    text => expect(parseHeights(text)).toEqual({}),
  );
});
