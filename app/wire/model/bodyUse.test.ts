import { expect, test } from "vitest";
import type { Kit } from "#core";
import { compileRules, type RunnerDocument } from "#stage";
import { readKitAndTakes } from "../../tests/evaluated";
import { describeBodyUse } from "./bodyUse";

const { kit } = readKitAndTakes("demo/belfry-runner");

/** Describes a control of the demo with changes of its stage, in its first mode. */
function describeUse(controlId: string, stage: Partial<RunnerDocument>, more: Partial<Kit> = {}) {
  const compiled = compileRules({ ...kit, ...more, stage: { ...(kit.stage as RunnerDocument), ...stage } });
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  const { program } = compiled.value;
  return describeBodyUse(
    compiled.value,
    program.controls.findIndex(({ id }) => id === controlId),
    0,
  );
}

const { run } = kit.stage as RunnerDocument;

test("the keys of a walk are named with the gates that halt it; other controls are not used by the body", () => {
  expect(describeUse(run.left, {})).toBe("walks left");
  expect(describeUse(run.right, { halts: kit.gates!.slice(0, 2).map(({ id }) => id) })).toBe(
    `walks right, not while ${kit
      .gates!.slice(0, 2)
      .map(({ name }) => name)
      .join(" or ")} is open`,
  );
  expect(describeUse("leap", {})).toBeUndefined();
  expect(describeUse("leap", { run: { ...run, up: "leap" } })).toBe("aims a dash up");
});

test("steered by the rules, a direction walks only while a pattern hears it", () => {
  const stage = { run: { ...run, steers: "rules" as const } };
  expect(describeUse(run.right, stage)).toBe("walks right, while a rule uses it");
  // The demo has no rule on its left.
  expect(describeUse(run.left, stage)).toBe("never walks left here, because no rule uses it");
});
