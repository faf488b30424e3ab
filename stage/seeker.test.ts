import fc from "fast-check";
import { expect, test } from "vitest";
import { readOutcomes, readTake, studyRooms, type Kit, type RunFrom, type Take } from "#core";
import duelTake from "../demo/clapper-duel/4-great-tolls.json";
import duelKit from "../demo/clapper-duel/kit.json";
import runnerTake from "../demo/belfry-runner/2-late-at-every-edge.json";
import runnerKit from "../demo/belfry-runner/kit.json";
import ropesTake from "../demo/rope-catch/2-sloppy-round.json";
import ropesKit from "../demo/rope-catch/kit.json";
import { compileRules, createBranching, createSeeker, runRules } from "./index";

const PLAYED = [
  ["runner", runnerKit, runnerTake],
  ["duel", duelKit, duelTake],
  ["ropes", ropesKit, ropesTake],
] as const;

function open(document: unknown, take: unknown) {
  const rules = compileRules(document as Kit);
  if (!rules.ok) throw new Error("the demo has faults");
  const columns = readTake(rules.value.program, take as Take);
  return { seeker: createSeeker(rules.value, columns), frames: columns.frames };
}

/** Formats everything that meters and prompts read from a state. */
function picture(seeker: ReturnType<typeof open>["seeker"], frame: number): string {
  const state = seeker.stateAt(frame, Infinity)!;
  return JSON.stringify([state.frame, state.gameTicks, [...state.numbers], [...state.flags]]);
}

test.each(PLAYED)(
  "seeking in a take on the %s gives the same scene as playing it through",
  (_, kit, take) => {
    const { seeker, frames } = open(kit, take);
    const straight = Array.from({ length: frames }, (_, frame) => picture(seeker, frame));
    expect(new Set(straight).size).toBe(frames);
    const jumping = open(kit, take).seeker;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: frames - 1 }), frame => {
        expect(picture(jumping, frame)).toBe(straight[frame]);
      }),
      { numRuns: 60 },
    );
  },
);

test("a distant frame is reached in slices, and going back starts from the nearest kept state", () => {
  const long = { ...(runnerTake as unknown as Take), frames: 3000 };
  const { seeker } = open(runnerKit, long);
  expect(seeker.stateAt(2000, 1500)).toBeUndefined();
  expect(seeker.stateAt(2000, 1500)?.frame).toBe(2000);
  expect(seeker.stateAt(700, 101)?.frame).toBe(700);
  expect(seeker.stateAt(599, 598)).toBeUndefined();
  expect(seeker.stateAt(599, 598)?.frame).toBe(599);
  expect(seeker.stateAt(2500, 701)?.frame).toBe(2500);
});

test.each(PLAYED)(
  "a run of the %s from a kept moment finds the rooms that whole runs find",
  (_, kit, take) => {
    const rules = compileRules(kit as unknown as Kit);
    if (!rules.ok) throw new Error("the demo has faults");
    const { program } = rules.value;
    const columns = readTake(program, take as unknown as Take);
    const { trace } = runRules(rules.value, columns);
    const whole: RunFrom = changed => ({
      runTo: frame => runRules(rules.value, { ...changed, frames: frame }).trace,
    });
    const study = (runFrom: RunFrom) => {
      const steps = studyRooms(program, columns, readOutcomes(program, trace), runFrom);
      let step = steps.next();
      while (!step.done) step = steps.next();
      return step.value;
    };
    const found = study(createBranching(rules.value, columns));
    expect(found).toEqual(study(whole));
    const uses = readOutcomes(program, trace).presses.filter(fate =>
      fate.uses.some(use => use.kind === "move"),
    );
    expect(found.rooms.length).toBeGreaterThanOrEqual(uses.length);
  },
);
