import {
  createFrameInput,
  createLaneReader,
  createState,
  createTrace,
  landingFrame,
  readValue,
  step,
  type FrameInput,
  type Program,
  type State,
  type Take,
  type Trace,
} from "#core";
import {
  createStage,
  reportStage,
  stageSpeed,
  stepStage,
  writeTrack,
  type StageProgram,
  type StageState,
} from "#stage";

/** The longest stretch that is stepped in one go; what a stalled page missed beyond it never happened. */
const LONGEST_BURST_MS = 250;

/** How finely times are written down, in parts of a frame. */
const X_PARTS = 1000;

/**
 * The kit running under someone's hands: a clock of fixed steps at the kit's rate, fed with values of
 * controls by the time at which they changed. Knows no screen and no device; times are given in ms.
 * Everything is recorded, so that what was played can be kept as a take that gives the same trace.
 */
export interface LiveSession {
  readonly program: Program;
  readonly state: State;
  readonly trace: Trace;
  /** The bodies of the kit's stage, if it has one. */
  readonly stage: StageState | undefined;
  readonly stageProgram: StageProgram | undefined;
  /** How the bodies stood after each frame, as the stage's track has it. */
  readonly track: readonly number[];
  /** The take's own speed from the next frame on, percent of full speed; 0 stands still. */
  readonly setSpeed: (percent: number) => void;
  /** Runs one frame while the clock is stopped. */
  readonly stepOnce: () => void;
  /** The analog value of each control now, 0 to 1. */
  readonly values: Float64Array;
  /** A control's analog value, 0 to 1, changed at a time. Returns the edge it makes, or undefined when it makes none. */
  readonly setControl: (control: number, value: number, timeMs: number) => Landing | undefined;
  /** A gate held open or closed by hand from the next frame on. */
  readonly setGate: (gate: number, isOpen: boolean) => void;
  /** A gate held open or closed from a frame on that is not stepped yet. */
  readonly setGateAt: (gate: number, isOpen: boolean, frame: number) => void;
  /** Lets every control go. */
  readonly releaseAll: (timeMs: number) => void;
  /** Steps every frame that is due by now. Returns how many were stepped. */
  readonly advance: (nowMs: number) => number;
  /** Stops the clock (the page is hidden), and starts it again where it stopped. */
  readonly pause: (nowMs: number) => void;
  readonly resume: (nowMs: number) => void;
  /** What was played so far as a take. */
  readonly toTake: (id: string, name: string, kitId: string) => Take;
}

/** Where an edge of a control lands. */
export interface Landing {
  readonly frame: number;
  readonly isDown: boolean;
  /** Was it moved on to a later frame, so that the change before it is seen for one frame at least? */
  readonly isStretched: boolean;
}

/** Starts a session whose frame 0 is now. */
export function createLiveSession(
  program: Program,
  nowMs: number,
  stageProgram: StageProgram | undefined = undefined,
): LiveSession {
  const state = createState(program);
  const trace = createTrace(program.rateHz);
  const input: FrameInput = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(() => createLaneReader());
  const values = new Float64Array(program.controls.length);
  const lanes: [number, number][][] = program.controls.map(() => []);
  const gateLanes: [number, 0 | 1][][] = program.gates.map(() => []);
  const stage = stageProgram && createStage(stageProgram);
  const track: number[] = [];
  const speedLane: [number, number][] = [];
  let speedPercent = 100;
  const due = new Map<number, number[]>();
  const gatesDue = new Map<number, number[]>();
  const msPerFrame = 1000 / program.rateHz;
  let originMs = nowMs;
  let pausedAtMs: number | undefined;

  function plan(plans: Map<number, number[]>, frame: number, change: number): void {
    const planned = plans.get(frame);
    if (planned) planned.push(change);
    else plans.set(frame, [change]);
  }

  /** When something happened, in frames: never on a frame already stepped, never before the pair before it. */
  function placeOf(timeMs: number, lane: readonly (readonly [number, number])[]): number {
    const x = Math.round(((timeMs - originMs) / msPerFrame) * X_PARTS) / X_PARTS;
    const earliest = state.frame < 0 ? 0 : state.frame + 1 / X_PARTS;
    return Math.max(x, earliest, lane.at(-1)?.[0] ?? 0);
  }

  function setControl(control: number, value: number, timeMs: number): Landing | undefined {
    if (values[control] === value) return undefined;
    values[control] = value;
    const lane = lanes[control]!;
    const x = placeOf(pausedAtMs === undefined ? timeMs : pausedAtMs, lane);
    lane.push([x, value]);
    const reader = readers[control]!;
    const natural = landingFrame(x, program.rateHz, program.rateHz);
    const frame = readValue(reader, program.controls[control]!, natural, value);
    if (frame < 0) return undefined;
    plan(due, frame, control * 2 + (reader.isDown ? 1 : 0));
    return { frame, isDown: reader.isDown, isStretched: frame > natural };
  }

  function setGateAt(gate: number, isOpen: boolean, frame: number): void {
    const lane = gateLanes[gate]!;
    if (lane.at(-1)?.[0] === frame) lane.pop();
    lane.push([frame, isOpen ? 1 : 0]);
    const planned = (gatesDue.get(frame) ?? []).filter(change => change >> 1 !== gate);
    gatesDue.set(frame, [...planned, gate * 2 + (isOpen ? 1 : 0)]);
  }

  function load(plans: Map<number, number[]>, frame: number, into: Uint32Array): number {
    const planned = plans.get(frame);
    if (!planned) return 0;
    planned.sort((a, b) => a - b);
    planned.forEach((change, k) => (into[k] = change));
    plans.delete(frame);
    return planned.length;
  }

  function runFrame(): void {
    input.changeCount = load(due, state.frame + 1, input.changes);
    input.gateChangeCount = load(gatesDue, state.frame + 1, input.gateChanges);
    input.speedPercent = stage ? stageSpeed(stage, speedPercent) : speedPercent;
    const since = trace.count;
    step(program, state, input, trace);
    if (!stage || !stageProgram) return;
    stepStage(stageProgram, stage, program, state, trace, since);
    writeTrack(stage, track, track.length);
  }

  if (stage && stageProgram) reportStage(stageProgram, stage, state);

  return {
    program,
    state,
    trace,
    stage,
    stageProgram,
    track,
    setSpeed(percent) {
      if (percent === speedPercent) return;
      speedPercent = percent;
      if (speedLane.at(-1)?.[0] === state.frame + 1) speedLane.pop();
      speedLane.push([state.frame + 1, percent]);
    },
    stepOnce() {
      if (pausedAtMs === undefined) return;
      runFrame();
      originMs -= msPerFrame;
    },
    values,
    setControl,
    setGate: (gate, isOpen) => setGateAt(gate, isOpen, state.frame + 1),
    setGateAt,
    releaseAll(timeMs) {
      for (let c = 0; c < values.length; c++) setControl(c, 0, timeMs);
    },
    advance(nowMs) {
      if (pausedAtMs !== undefined) return 0;
      const lateMs = nowMs - originMs - (state.frame + 1) * msPerFrame;
      if (lateMs > LONGEST_BURST_MS) originMs += lateMs - LONGEST_BURST_MS;
      const target = Math.floor((nowMs - originMs) / msPerFrame + 1e-6);
      let stepped = 0;
      for (; state.frame < target; stepped++) {
        runFrame();
      }
      return stepped;
    },
    pause(nowMs) {
      pausedAtMs ??= nowMs;
    },
    resume(nowMs) {
      if (pausedAtMs === undefined) return;
      originMs += nowMs - pausedAtMs;
      pausedAtMs = undefined;
    },
    toTake(id, name, kitId) {
      const used = (lane: readonly unknown[]) => lane.length > 0;
      const named = <T>(list: readonly { readonly id: string }[], pairs: readonly T[][]) =>
        Object.fromEntries(
          list.flatMap((item, i) => (used(pairs[i]!) ? [[item.id, pairs[i]!.slice()]] : [])),
        );
      const take = {
        format: "moss-tap/take" as const,
        version: 1 as const,
        id,
        name,
        kit: kitId,
        rate: program.rateHz,
        frames: state.frame + 1,
        lanes: named(program.controls, lanes) as Take["lanes"],
      };
      const paced = speedLane.length > 0 ? { ...take, speed: speedLane.slice() } : take;
      if (!gateLanes.some(used)) return paced;
      return { ...paced, gates: named(program.gates, gateLanes) as NonNullable<Take["gates"]> };
    },
  };
}
