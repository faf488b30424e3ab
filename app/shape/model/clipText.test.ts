import { expect, test } from "vitest";
import { readKitAndTake } from "../../tests/evaluated";
import { copyRules, pasteRules } from "../../edits/ruleClips";
import { describePasted, formatClip, readClip } from "./clipText";

const { kit } = readKitAndTake("e2e/belfry", "clean-climb");
const clip = copyRules(kit, [{ list: "moves", index: 0 }]);

test("copied rules are read again as they were", () => {
  expect(readClip(formatClip(clip))).toEqual({ clip });
});

test("any other text is refused with its cure, a broken kit with its places", () => {
  const none = {
    trouble: "The clipboard holds no rules: copy some first, here or in another kit.",
    details: [],
  };
  for (const text of ["", "hello", "[1]", "null", `{"format":"moss-tap/take"}`])
    expect(readClip(text)).toEqual(none);
  expect(readClip(formatClip({ ...clip, patterns: [], moves: [], gates: [] }))).toEqual(none);
  const broken = readClip(formatClip(clip).replace(/"kind": "\w+"/, `"kind": "wish"`));
  expect("details" in broken && broken.details[0]).toMatch(/^patterns\[0\]\.kind: /);
});

test("a paste names what it added, and what it could not keep", () => {
  const { title, details } = describePasted(pasteRules(kit, clip));
  expect([title, details]).toEqual([`1 rule pasted: ${kit.moves![0]!.name} 2.`, []]);
  const empty = { ...kit, controls: [], patterns: [], moves: [], gates: [], stage: undefined };
  const other = describePasted(pasteRules(empty as never, clip));
  expect(other.details[0]).toMatch(/^New controls, to be bound in Wire: /);
  expect(describePasted({ kit, added: [], controls: [], leftModes: ["Air"] }).title).toMatch(
    /^Nothing to paste/,
  );
});
