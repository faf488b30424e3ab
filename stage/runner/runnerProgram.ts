import { parseFrames, type Kit, type Program, ownValue } from "#core";
import { compileEffects } from "../compileEffect";
import { compileBeams, type MovingBeam } from "./beams";
import { RUNNER_EFFECTS, type RunnerAct } from "./effects";
import { parseLevel, type Level } from "./level";
import type { RunnerDocument } from "./schema";

/** The rates at which a speed changes: accelerating, braking and turning around. */
interface Grip {
  readonly accel: number;
  readonly brake: number;
  readonly turn: number;
}

/**
 * A compiled runner: references are indices into the program's lists, −1 for none; lengths in frames of the
 * kit.
 */
export interface RunnerProgram {
  readonly kind: "runner";
  readonly level: Level;
  readonly beams: readonly MovingBeam[];
  readonly tilePx: number;
  readonly left: number;
  readonly right: number;
  /** The controls that aim a dash. */
  readonly aimUp: number;
  readonly aimDown: number;
  readonly speed: number;
  /** Gates that keep every direction from the body. */
  readonly halts: readonly number[];
  /**
   * The patterns that let a direction through, left and right; undefined if the keys steer. The number of controls is the
   * stride of what is hidden from patterns.
   */
  readonly steering: Readonly<Record<"left" | "right", readonly number[]>> | undefined;
  readonly controlCount: number;
  /**
   * The rates at which the speed changes on the ground and in the air: accelerating, braking and turning
   * around. Tiles per second squared.
   */
  readonly onGround: Grip;
  readonly inAir: Grip;
  readonly lingerFrames: number;
  readonly up: number;
  readonly down: number;
  readonly most: number;
  /** Below this speed, in tiles per second, a share of its gravity is left; 0 and 1 without a hang. */
  readonly hangWithin: number;
  readonly hangShare: number;
  /** How far a rising body is moved aside at the edge of a tile, in tiles. */
  readonly corner: number;
  /** The gate while which it falls at most at `slideMost`. */
  readonly slideGate: number;
  readonly slideMost: number;
  readonly height: RunnerDocument["height"]["by"];
  readonly heightControl: number;
  /** The start and end of a lift, in frames since the launch, and whether it continues after release. */
  readonly liftFrom: number;
  readonly liftFrames: number;
  readonly liftKeeps: boolean;
  readonly share: number;
  readonly gates: {
    readonly footing: number;
    readonly rising: number;
    readonly falling: number;
    readonly wall: number;
    readonly ceiling: number;
  };
  readonly zoneGates: readonly number[];
  readonly lagFrames: number;
  /** By move: its effects on the body, in their order. */
  readonly acts: readonly (readonly RunnerAct[])[];
}

/** Returns the share of its gravity, or of its speed, that a height rule leaves to a jump. */
function shareOf(height: RunnerDocument["height"]): number {
  if (height.by === "cut") return height.to;
  if (height.by === "lift") return height.share ?? 0;
  return height.by === "float" ? height.share : 1;
}

/** Returns the patterns that have a control among those of their attempt or steps. */
function watchersOf(program: Program, id: string): number[] {
  const control = program.controls.findIndex(item => item.id === id);
  return program.patterns.flatMap((pattern, p) =>
    !pattern.isOff && pattern.controls.includes(control) ? [p] : [],
  );
}

/** Compiles a runner from a stage document and the moves' effects. Ids the program lacks become −1. */
export function compileRunner(
  document: RunnerDocument,
  kit: Kit,
  program: Program,
  effects: readonly (readonly Readonly<Record<string, unknown>>[])[],
): RunnerProgram {
  const control = (id: string) => program.controls.findIndex(item => item.id === id);
  const gate = (id: string | undefined) =>
    id === undefined ? -1 : program.gates.findIndex(item => item.id === id);
  const level = parseLevel(document.level);
  const frames = (written: string | undefined) => parseFrames(written ?? "0f", kit.rate, "atLeast") ?? 0;
  const { height } = document;
  const { accel, brake = accel, turn = accel } = document.run;
  const onGround = { accel, brake, turn };
  return {
    kind: "runner",
    level,
    beams: compileBeams(document.beams, kit.rate),
    tilePx: document.tilePx,
    left: control(document.run.left),
    right: control(document.run.right),
    aimUp: control(document.run.up ?? ""),
    aimDown: control(document.run.down ?? ""),
    speed: document.run.speed,
    halts: (document.halts ?? []).map(gate).filter(index => index >= 0),
    steering:
      document.run.steers === "rules"
        ? { left: watchersOf(program, document.run.left), right: watchersOf(program, document.run.right) }
        : undefined,
    controlCount: program.controls.length,
    onGround,
    inAir: { ...onGround, ...document.run.air },
    lingerFrames: frames(document.run.linger),
    up: document.fall.up,
    down: document.fall.down,
    most: document.fall.most,
    hangWithin: document.fall.hang?.within ?? 0,
    hangShare: document.fall.hang?.share ?? 1,
    corner: (document.fall.corner ?? 0) / document.tilePx,
    slideGate: gate(document.fall.slide?.gate),
    slideMost: document.fall.slide?.most ?? 0,
    height: height.by,
    heightControl: "control" in height ? control(height.control) : -1,
    liftFrom: height.by === "lift" ? frames(height.from) : 0,
    liftFrames: height.by === "lift" ? frames(height.for) : 0,
    liftKeeps: height.by === "lift" && height.keeps === true,
    share: shareOf(height),
    gates: {
      footing: gate(document.gates.footing),
      rising: gate(document.gates.rising),
      falling: gate(document.gates.falling),
      wall: gate(document.gates.wall),
      ceiling: gate(document.gates.ceiling),
    },
    zoneGates: level.zoneLetters.map(letter => gate(ownValue(document.zones, letter))),
    lagFrames: frames(document.groundLag),
    acts: effects.map(list => compileEffects(RUNNER_EFFECTS, list, kit.rate)),
  };
}
