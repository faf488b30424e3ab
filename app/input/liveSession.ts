import {
  createFrameInput,
  createLaneReader,
  createTrace,
  landingFrame,
  readValue,
  TICKS,
  type Program,
  type State,
  type Trace,
} from "#core";
import { createStaging, stepStaging, writeTrack, type Rules, type StageState } from "#stage";
import { createRecording, laneOf, type Recording } from "./recording";

/** The longest time that is caught up after a stall; what lies beyond it is a gap of the recording. */
const MAX_CATCH_UP_MS = 10_000;

/** The share of the way to its release threshold below which a control rests: drift of a stick is not written. */
const REST_SHARE = 0.5;

/** The number of frames stepped between two looks at the clock while catching up. */
const FRAMES_PER_LOOK = 8;

/** The resolution of recorded times, in parts of a frame. */
const X_PARTS = 1000;

/**
 * A kit running on live input: a fixed-step clock at the kit's rate, fed with control values and their times.
 * Knows neither screens nor devices; times are in ms. Records everything, so that the session can be stored
 * as a take with the same trace.
 */
export interface LiveSession {
  readonly rules: Rules;
  readonly program: Program;
  readonly state: State;
  readonly trace: Trace;
  /** The bodies of the kit's stage, if any. */
  readonly bodies: StageState | undefined;
  /** The bodies after each frame, in the stage's track format. */
  readonly track: readonly number[];
  /** The speed of the game clock in percent, from the frame of each change: [frame, percent, …]. */
  readonly speeds: readonly number[];
  readonly recording: Recording;
  /** The length of the recording so far, in frames of its own rate. */
  readonly frames: number;
  /** Sets the take's own speed from the next frame on, in percent of full speed; 0 stops the game clock. */
  readonly setSpeed: (percent: number) => void;
  /** Steps one frame while the clock is stopped. */
  readonly stepOnce: () => void;
  /** The current analog value of each control, 0 to 1. */
  readonly values: Float64Array;
  /**
   * Sets a control's analog value, 0 to 1, at a time; while the clock is stopped it lands on the next frame
   * stepped. Returns the resulting edge, or undefined.
   */
  readonly setControl: (control: number, value: number, timeMs: number) => Landing | undefined;
  /** Holds a gate open or closed manually from the next frame on. */
  readonly setGate: (gate: number, isOpen: boolean) => void;
  /** Opens a gate manually for one frame, the next. */
  readonly pulseGate: (gate: number) => void;
  /** Releases every control. */
  readonly releaseAll: (timeMs: number) => void;
  /**
   * Steps every frame that is due, as long as `hasTime`; the rest remains due. Returns the number of frames.
   */
  readonly advance: (nowMs: number, hasTime?: () => boolean) => number;
  /**
   * Records a gap for the time by which the session is late beyond ten seconds, as after a sleep of the machine; with
   * `isAll` for all of it. Call it before input is placed. Returns the length of the gap in ms, 0 for none.
   */
  readonly markGap: (nowMs: number, isAll?: boolean) => number;
  /** Stops the clock (hidden page, frozen game); `resume` continues from there. */
  readonly pause: (nowMs: number) => void;
  readonly resume: (nowMs: number) => void;
  /** Returns the same session under other rules: what was played is run again through them, and continues. */
  readonly underRules: (rules: Rules) => LiveSession;
}

/** The position of a control's edge. */
export interface Landing {
  readonly frame: number;
  readonly isDown: boolean;
  /** Whether it was delayed to a later frame, so that the previous change lasts at least one frame. */
  readonly isStretched: boolean;
}

/** The state of a session's clock. */
interface Clock {
  /** The time of frame 0, in ms. */
  originMs: number;
  pausedAtMs: number | undefined;
}

/** Changes planned for future frames, by frame. */
type Plan = Map<number, number[]>;

function load(plan: Plan, frame: number, into: Uint32Array): number {
  const planned = plan.get(frame);
  if (!planned) return 0;
  planned.sort((a, b) => a - b);
  planned.forEach((change, k) => (into[k] = change));
  plan.delete(frame);
  return planned.length;
}

function put(plan: Plan, frame: number, change: number): void {
  const planned = plan.get(frame);
  if (planned) planned.push(change);
  else plan.set(frame, [change]);
}

/** Starts a session whose frame 0 is now. */
export function createLiveSession(rules: Rules, nowMs: number): LiveSession {
  const clock = { originMs: nowMs, pausedAtMs: undefined };
  return startSession(rules, clock, createRecording(rules.program.rateHz), -1);
}

/** Starts a session from a recording, run up to a frame. */
function startSession(rules: Rules, clock: Clock, recording: Recording, upTo: number): LiveSession {
  const { program } = rules;
  const { state, bodies } = createStaging(rules);
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(() => createLaneReader());
  const values = new Float64Array(program.controls.length);
  const restBelow = program.controls.map(({ releaseAt }) => releaseAt * REST_SHARE);
  const track: number[] = [];
  const speeds: number[] = [];
  const due: Plan = new Map();
  const gatesDue: Plan = new Map();
  const msPerFrame = 1000 / program.rateHz;
  let speedPercent = TICKS;

  /** Converts a time to frames: never on a frame already stepped, never before the previous pair. */
  function placeOf(timeMs: number, lastX: number): number {
    const next = state.frame + 1;
    const x = Math.round(((timeMs - clock.originMs) / msPerFrame) * X_PARTS) / X_PARTS;
    const earliest = state.frame < 0 ? 0 : state.frame + 1 / X_PARTS;
    return Math.max(clock.pausedAtMs === undefined ? Math.max(x, earliest) : next, lastX);
  }

  /** Reads a control's value at a position and plans the resulting change. */
  function read(control: number, x: number, value: number): Landing | undefined {
    values[control] = value;
    const reader = readers[control]!;
    const natural = landingFrame(x, program.rateHz, program.rateHz);
    const frame = readValue(reader, program.controls[control]!, natural, value);
    if (frame < 0) return undefined;
    put(due, frame, control * 2 + (reader.isDown ? 1 : 0));
    return { frame, isDown: reader.isDown, isStretched: frame > natural };
  }

  function setControl(control: number, given: number, timeMs: number): Landing | undefined {
    const value = given < restBelow[control]! ? 0 : given;
    if (values[control] === value) return undefined;
    const lane = laneOf(recording.lanes, program.controls[control]!.id);
    const x = placeOf(timeMs, lane.at(-1)?.[0] ?? 0);
    lane.push([x, value]);
    return read(control, x, value);
  }

  function planGate(gate: number, frame: number, isOpen: boolean): void {
    const others = (gatesDue.get(frame) ?? []).filter(change => change >> 1 !== gate);
    gatesDue.set(frame, [...others, gate * 2 + (isOpen ? 1 : 0)]);
  }

  function setGateAt(gate: number, frame: number, isOpen: boolean): void {
    const lane = laneOf(recording.gates, program.gates[gate]!.id);
    if (lane.at(-1)?.[0] === frame) lane.pop();
    lane.push([frame, isOpen ? 1 : 0]);
    planGate(gate, frame, isOpen);
  }

  function runFrame(): void {
    const frame = state.frame + 1;
    input.changeCount = load(due, frame, input.changes);
    input.gateChangeCount = load(gatesDue, frame, input.gateChanges);
    input.speedPercent = speedPercent;
    stepStaging(rules, { state, bodies }, input, trace);
    if (speeds.at(-1) !== state.speedPercent) speeds.push(frame, state.speedPercent);
    if (bodies) writeTrack(bodies, track, track.length);
  }

  function markGap(nowMs: number, isAll = false): number {
    if (clock.pausedAtMs !== undefined) return 0;
    const lateMs = nowMs - clock.originMs - (state.frame + 1) * msPerFrame;
    const lostMs = Math.round(lateMs - (isAll ? 0 : MAX_CATCH_UP_MS));
    if (lostMs <= 0) return 0;
    clock.originMs += lostMs;
    recording.gaps.push([state.frame + 1, lostMs]);
    return lostMs;
  }

  /** Runs what was recorded up to a frame; later changes stay planned. */
  function catchUp(): void {
    program.controls.forEach((control, c) => {
      for (const [x, value] of recording.lanes.get(control.id) ?? []) read(c, x, value);
    });
    program.gates.forEach((gate, g) => {
      for (const [frame, isOpen] of recording.gates.get(gate.id) ?? []) planGate(g, frame, isOpen === 1);
    });
    const changes = new Map(recording.speed);
    while (state.frame < upTo) {
      speedPercent = changes.get(state.frame + 1) ?? speedPercent;
      runFrame();
    }
    speedPercent = changes.get(upTo + 1) ?? speedPercent;
  }

  catchUp();

  return {
    rules,
    program,
    state,
    trace,
    bodies,
    track,
    speeds,
    recording,
    get frames() {
      return state.frame + 1;
    },
    setSpeed(percent) {
      if (percent === speedPercent) return;
      speedPercent = percent;
      if (recording.speed.at(-1)?.[0] === state.frame + 1) recording.speed.pop();
      recording.speed.push([state.frame + 1, percent]);
    },
    stepOnce() {
      if (clock.pausedAtMs === undefined) return;
      runFrame();
      clock.originMs -= msPerFrame;
    },
    values,
    setControl,
    setGate: (gate, isOpen) => setGateAt(gate, state.frame + 1, isOpen),
    pulseGate(gate) {
      setGateAt(gate, state.frame + 1, true);
      setGateAt(gate, state.frame + 2, false);
    },
    releaseAll(timeMs) {
      for (let c = 0; c < values.length; c++) setControl(c, 0, timeMs);
    },
    advance(nowMs, hasTime) {
      if (clock.pausedAtMs !== undefined) return 0;
      markGap(nowMs);
      const target = Math.floor((nowMs - clock.originMs) / msPerFrame + 1e-6);
      let stepped = 0;
      for (; state.frame < target; stepped++) {
        if (hasTime && stepped > 0 && stepped % FRAMES_PER_LOOK === 0 && !hasTime()) break;
        runFrame();
      }
      return stepped;
    },
    markGap,
    pause(nowMs) {
      if (clock.pausedAtMs !== undefined) return;
      this.advance(nowMs);
      clock.pausedAtMs = nowMs;
    },
    resume(nowMs) {
      if (clock.pausedAtMs === undefined) return;
      clock.originMs += nowMs - clock.pausedAtMs;
      clock.pausedAtMs = undefined;
    },
    underRules: other => startSession(other, { ...clock }, recording, state.frame),
  };
}
