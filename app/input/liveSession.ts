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
  readonly rules: Rules;
  readonly program: Program;
  readonly state: State;
  readonly trace: Trace;
  /** The bodies of the kit's stage, if it has one. */
  readonly bodies: StageState | undefined;
  /** How the bodies stood after each frame, as the stage's track has it. */
  readonly track: readonly number[];
  /** The speed of the game clock on each frame, percent, from the frame on which it changed: [frame, percent, …]. */
  readonly speeds: readonly number[];
  readonly recording: Recording;
  /** The take's own speed from the next frame on, percent of full speed; 0 stands still. */
  readonly setSpeed: (percent: number) => void;
  /** Runs one frame while the clock is stopped. */
  readonly stepOnce: () => void;
  /** The analog value of each control now, 0 to 1. */
  readonly values: Float64Array;
  /**
   * A control's analog value, 0 to 1, changed at a time; while the clock is stopped it lands on the next frame, whenever
   * that is stepped. Returns the edge it makes, or undefined when it makes none.
   */
  readonly setControl: (control: number, value: number, timeMs: number) => Landing | undefined;
  /** A gate held open or closed by hand from the next frame on. */
  readonly setGate: (gate: number, isOpen: boolean) => void;
  /** A gate opened by hand for one frame, the next. */
  readonly pulseGate: (gate: number) => void;
  /** Lets every control go. */
  readonly releaseAll: (timeMs: number) => void;
  /** Steps every frame that is due by now. Returns how many were stepped. */
  readonly advance: (nowMs: number) => number;
  /** Stops the clock (the page is hidden, the game is frozen), and starts it again where it stopped. */
  readonly pause: (nowMs: number) => void;
  readonly resume: (nowMs: number) => void;
  /** The same session under other rules: what was played is run again through them up to now, and goes on from there. */
  readonly underRules: (rules: Rules) => LiveSession;
}

/** Where an edge of a control lands. */
export interface Landing {
  readonly frame: number;
  readonly isDown: boolean;
  /** Was it moved on to a later frame, so that the change before it is seen for one frame at least? */
  readonly isStretched: boolean;
}

/** Where a session's clock stands. */
interface Clock {
  /** The time of frame 0, ms. */
  originMs: number;
  pausedAtMs: number | undefined;
}

/** Changes planned for frames to come, by frame. */
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

/** A session over a recording, run up to a frame. */
function startSession(rules: Rules, clock: Clock, recording: Recording, upTo: number): LiveSession {
  const { program } = rules;
  const { state, bodies } = createStaging(rules);
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(() => createLaneReader());
  const values = new Float64Array(program.controls.length);
  const track: number[] = [];
  const speeds: number[] = [];
  const due: Plan = new Map();
  const gatesDue: Plan = new Map();
  const msPerFrame = 1000 / program.rateHz;
  let speedPercent = TICKS;

  /** When something happened, in frames: never on a frame already stepped, never before the pair before it. */
  function placeOf(timeMs: number, lastX: number): number {
    const next = state.frame + 1;
    const x = Math.round(((timeMs - clock.originMs) / msPerFrame) * X_PARTS) / X_PARTS;
    const earliest = state.frame < 0 ? 0 : state.frame + 1 / X_PARTS;
    return Math.max(clock.pausedAtMs === undefined ? Math.max(x, earliest) : next, lastX);
  }

  /** Reads a value that a control takes at a place: what that makes of it is planned. */
  function read(control: number, x: number, value: number): Landing | undefined {
    values[control] = value;
    const reader = readers[control]!;
    const natural = landingFrame(x, program.rateHz, program.rateHz);
    const frame = readValue(reader, program.controls[control]!, natural, value);
    if (frame < 0) return undefined;
    put(due, frame, control * 2 + (reader.isDown ? 1 : 0));
    return { frame, isDown: reader.isDown, isStretched: frame > natural };
  }

  function setControl(control: number, value: number, timeMs: number): Landing | undefined {
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

  /** Runs what was recorded up to a frame; what lies beyond it stays planned. */
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
    advance(nowMs) {
      if (clock.pausedAtMs !== undefined) return 0;
      const lateMs = nowMs - clock.originMs - (state.frame + 1) * msPerFrame;
      if (lateMs > LONGEST_BURST_MS) clock.originMs += lateMs - LONGEST_BURST_MS;
      const target = Math.floor((nowMs - clock.originMs) / msPerFrame + 1e-6);
      let stepped = 0;
      for (; state.frame < target; stepped++) runFrame();
      return stepped;
    },
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
