import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { formatTrace, parseChecks, parseTake, readTake, type TraceEvent } from "#core";
import { compileTakeJudge, parseRules, runRules } from "#stage";

const DEMOS = ["belfry-runner", "clapper-duel", "rope-catch"];

function play(folder: string, name: string): readonly TraceEvent[] {
  const rules = parseRules(JSON.parse(readFileSync(`demo/${folder}/kit.json`, "utf8")));
  const take = parseTake(JSON.parse(readFileSync(`demo/${folder}/${name}.json`, "utf8")));
  if (!rules.ok || !take.ok) throw new Error(`${folder}/${name} does not read`);
  const { program } = rules.value;
  return formatTrace(program, runRules(rules.value, readTake(program, take.value)).trace).events;
}

const eventsOf = (events: readonly TraceEvent[], kind: TraceEvent["kind"], id?: string) =>
  events.filter(event => event.kind === kind && (id === undefined || event.id === id));

test.each(DEMOS)("%s ships with four takes at least", folder => {
  expect(readdirSync(`demo/${folder}`).length).toBeGreaterThanOrEqual(5);
});

test.each(DEMOS)("one check of %s fails in its takes, and each could have", folder => {
  const read = (name: string): unknown => JSON.parse(readFileSync(`demo/${folder}/${name}`, "utf8"));
  const [rules, checks] = [parseRules(read("kit.json")), parseChecks(read("checks.json"))];
  if (!rules.ok || !checks.ok) throw new Error(`${folder} does not read`);
  const judge = compileTakeJudge(rules.value.kit, checks.value.checks);
  if (!judge.ok) throw new Error(`the checks of ${folder} cannot be judged`);
  const results = readdirSync(`demo/${folder}`)
    .filter(name => /^\d/.test(name))
    .flatMap(name => {
      const take = parseTake(read(name));
      return take.ok ? judge.value(take.value) : [];
    });
  expect(new Set(results.map(({ check }) => check)).size).toBe(checks.value.checks.length);
  expect(results.filter(({ ok }) => !ok).length).toBe(1);
  expect(results.filter(({ vacuous }) => vacuous)).toEqual([]);
});

test("the clean climb hops on the frame of each edge, and rings the bell", () => {
  const events = play("belfry-runner", "1-clean-climb");
  expect(eventsOf(events, "performed", "hop").map(event => event.f)).toEqual([84, 153, 222, 290, 376]);
  expect(eventsOf(events, "performed", "ring")).toMatchObject([{ f: 348, by: "direct" }]);
});

test("late at every edge: each hop is within the coyote", () => {
  const hops = eventsOf(play("belfry-runner", "2-late-at-every-edge"), "performed", "hop");
  expect(hops.map(event => "by" in event && event.by)).toEqual(Array(5).fill("coyote"));
});

test("a press before the landing is lost without a buffer", () => {
  const events = play("belfry-runner", "3-eaten");
  expect(eventsOf(events, "lost", "hop")).toContainEqual(
    expect.objectContaining({ made: 136, f: 142, why: "gate:footing" }),
  );
});

test("a double tap just too slow, and a brace that ends in nothing", () => {
  const events = play("belfry-runner", "4-slow-twice");
  expect(eventsOf(events, "performed", "scurry")).toEqual([]);
  expect(eventsOf(events, "lapsed", "right-twice").length).toBe(4);
  expect(eventsOf(events, "lapsed", "tuck")).toContainEqual(
    expect.objectContaining({ f: 110, why: "too-long" }),
  );
  expect(eventsOf(events, "lapsed", "cling")).toContainEqual(
    expect.objectContaining({ f: 113, why: "too-short" }),
  );
  expect(eventsOf(events, "performed", "spring").length).toBe(2);
});

test("a clean bout: chime, toll and peal; the chain pressed too early loses its presses", () => {
  const clean = eventsOf(play("clapper-duel", "1-clean-bout"), "performed").slice(0, 3);
  expect(clean.map(event => [event.id, event.f])).toEqual([
    ["chime", 20],
    ["toll", 36],
    ["peal", 54],
  ]);
  const early = play("clapper-duel", "2-pressed-too-early");
  expect(eventsOf(early, "lost", "toll")).toContainEqual(
    expect.objectContaining({ why: "gate:toll-may-follow" }),
  );
});

test("an early parry is hit, and the game stops at the hit", () => {
  const events = play("clapper-duel", "3-sloppy-bout");
  expect(eventsOf(events, "gate", "struck").length).toBeGreaterThan(0);
  expect(eventsOf(play("clapper-duel", "4-great-tolls"), "lapsed", "great-charge")).toMatchObject([
    { f: 28, why: "too-short" },
  ]);
});

test("ropes: a clean round is graded, the others fail as named", () => {
  const outcome = (name: string, id: string) =>
    eventsOf(play("rope-catch", name), "prompt", id)
      .flatMap(event => ("outcome" in event ? [event] : []))
      .at(-1);
  expect(outcome("1-clean-round", "catch")).toMatchObject({ outcome: "clean" });
  expect(outcome("3-too-soon", "catch")).toMatchObject({ outcome: "failed", why: "too-early" });
  expect(outcome("4-wrong-rope", "catch")).toMatchObject({ outcome: "failed", why: "wrong" });
  expect(outcome("2-sloppy-round", "hold")).toMatchObject({ outcome: "failed", why: "too-late" });
});
