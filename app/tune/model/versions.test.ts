import { expect, test } from "vitest";
import { readKitAndTakes } from "../../tests/evaluated";
import { PRESENT_VERSION } from "../../document/studySettings";
import { firstPair, listVersions, readVersion } from "./versions";

const { kit: BARE } = readKitAndTakes("demo/belfry-runner");
const kit = { ...BARE, assists: [{ id: "time", name: "More time", windows: 150 }] };

test("a variant is compared with the present rules first, and these with an assist", () => {
  const variants = [{ id: "old", name: "Old", kit: BARE }];
  expect(firstPair(listVersions(BARE, variants as never))).toEqual({
    one: "variant old",
    two: PRESENT_VERSION,
  });
  expect(firstPair(listVersions(kit, []))).toEqual({ one: PRESENT_VERSION, two: "assist time" });
});

test("the version of an assist is the kit with its windows scaled, and one that is gone is none", () => {
  expect(readVersion("assist time", kit, [])?.moves?.find(({ id }) => id === "hop")?.buffer).toBe("9f");
  expect(readVersion("assist gone", kit, [])).toBeUndefined();
});
