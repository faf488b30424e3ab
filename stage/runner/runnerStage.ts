import { refsOf, type StageKind } from "../kind";
import { RUNNER_EFFECTS } from "./effects";
import { actOnRunner } from "./acts";
import type { RunnerState } from "./body";
import { createRunner } from "./createRunner";
import { reportRunner, stepRunner } from "./stepRunner";
import { compileRunner, type RunnerProgram } from "./runnerProgram";
import { runnerSchema, type RunnerDocument } from "./schema";

/** The stage of a body on solid tiles. Its track: x and y of the centre of its feet, in tiles. */
export const runnerStage = {
  schema: runnerSchema,
  refs: ({ run, height, gates, zones, halts, fall }) => [
    ...(fall.slide ? refsOf("gate", { gate: fall.slide.gate }, ["fall", "slide"]) : []),
    ...(halts ?? []).map((gate, k) => ({ what: "gate" as const, id: gate, path: ["halts", k] })),
    ...refsOf("control", { left: run.left, right: run.right, up: run.up, down: run.down }, ["run"]),
    ...("control" in height ? refsOf("control", { control: height.control }, ["height"]) : []),
    ...refsOf("gate", zones ?? {}, ["zones"]),
    ...refsOf("gate", gates, ["gates"]),
  ],
  gates: ({ gates, zones }) => [...Object.values(gates), ...Object.values(zones ?? {})],
  effects: RUNNER_EFFECTS,
  course: ({ run, gates }) => ({ control: run.right, ground: gates.footing }),
  usesControl({ run, halts = [] }, id) {
    const isWalk = id === run.left || id === run.right;
    if (isWalk)
      return {
        words: `walks ${id === run.left ? "left" : "right"}`,
        isByRules: run.steers === "rules",
        halts,
      };
    if (id !== run.up && id !== run.down) return undefined;
    return { words: `aims a dash ${id === run.up ? "up" : "down"}`, isByRules: false, halts: [] };
  },
  compile: compileRunner,
  create: createRunner,
  copy: body => ({ ...body }),
  carry: (body, moved) => ({ ...body, followed: moved.control(body.followed), isStill: false }),
  report: reportRunner,
  act: actOnRunner,
  step: stepRunner,
  isStill: body => body.isStill,
  trackStride: 2,
  writeTrack(body, track, at) {
    track[at] = body.x;
    track[at + 1] = body.y;
  },
} satisfies StageKind<RunnerDocument, RunnerProgram, RunnerState>;
