import { expect, test } from "vitest";
import { limitOf, survey } from "./survey";

/** A fixed seed keeps the build repeatable; the long form of `npm run ground` draws others. */
const SEED = 20;
const MUTATED = 300;
const CRAFTED_BYTES = 200_000;

/**
 * Other load slows even processor time, and code runs cold here, so only the order of magnitude is tested.
 */
const SLACK = 8;

test("no malformed document, drawn or crafted, throws, is refused without a reason or takes long", () => {
  const findings = [...survey(SEED, MUTATED, CRAFTED_BYTES, SLACK)];
  expect(findings.filter(({ thrown }) => thrown !== "")).toEqual([]);
  expect(findings.filter(finding => finding.ms > SLACK * limitOf(finding))).toEqual([]);
  const became = new Set(findings.map(({ became }) => became));
  expect([...became].sort()).toEqual(["checks", "kit", "refused", "take"]);
});
