import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { formatIssue, formatTrace, parseTake, readTake, type Kit, type Take } from "#core";
import { compileRules, type Rules } from "./rules";
import { runRules, trackStride } from "./staging";
import { createSeeker } from "./seeker";

const read = (path: string): unknown => JSON.parse(readFileSync(`demo/${path}`, "utf8"));

function mustCompile(kit: Kit): Rules {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(rules.issues.map(formatIssue).join());
  return rules.value;
}

test("a take in which the stage takes no part has the gates that are painted, and a body that rests", () => {
  const rules = mustCompile(read("belfry-runner/kit.json") as Kit);
  const { program } = rules;
  const parsed = parseTake(read("belfry-runner/1-clean-climb.json"));
  if (!parsed.ok) throw new Error("the take must read");
  const bare: Take = { ...parsed.value, stage: "none", gates: { footing: [[20, 1]] } };
  const columns = readTake(program, bare);
  const { trace, track } = runRules(rules, columns);
  const gates = formatTrace(program, trace).events.flatMap(event =>
    event.kind === "gate" && event.id === "footing" ? [[event.f, event.open]] : [],
  );
  expect(gates).toEqual([[20, true]]);
  const stride = trackStride(rules);
  expect(new Set(Array.from(track).map((value, k) => `${k % stride} ${value}`)).size).toBe(stride);
  const state = createSeeker(rules, columns).stateAt(100, Infinity)!;
  expect(state.gateOpen[program.gates.findIndex(({ id }) => id === "footing")]).toBe(1);
});

test("a take in which the stage takes no part runs the rules as they are written, whatever the stage changes in them", () => {
  const kit = read("rope-catch/kit.json") as Kit & { stage: object };
  const rules = mustCompile({ ...kit, stage: { ...kit.stage, ease: 3 } } as Kit);
  const { stage: _stage, ...bareKit } = kit;
  const bareRules = mustCompile(bareKit as Kit);
  let differ = 0;
  for (const name of ["1-clean-round", "2-sloppy-round", "3-too-soon", "4-wrong-rope"]) {
    const parsed = parseTake(read(`rope-catch/${name}.json`));
    if (!parsed.ok) throw new Error("the take must read");
    const eventsOf = (own: Rules, take: Take) =>
      formatTrace(own.program, runRules(own, readTake(own.program, take)).trace).events;
    const unstaged = eventsOf(rules, { ...parsed.value, stage: "none" });
    expect(unstaged).toEqual(eventsOf(bareRules, parsed.value));
    if (JSON.stringify(unstaged) !== JSON.stringify(eventsOf(rules, parsed.value))) differ++;
  }
  expect(differ).toBeGreaterThan(0);
});

test("a stage that draws for a prompt with a draw of its own is refused", () => {
  const kit = read("rope-catch/kit.json") as Kit & { stage: { draws?: string[] } };
  const drawn = kit.stage.draws![0]!;
  const prompts = kit.prompts!.map(prompt => (prompt.id === drawn ? { ...prompt, draw: 5 } : prompt));
  const rules = compileRules({ ...kit, prompts });
  expect(rules.ok ? [] : rules.issues.map(formatIssue)).toEqual([
    expect.stringMatching(new RegExp(`^stage\\.draws\\[0\\]: prompt "${drawn}" draws its answer itself`)),
  ]);
});
