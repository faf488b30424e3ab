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
import {
  canCarry,
  copyBodies,
  carryBodies,
  createReplay,
  createStaging,
  listStageGates,
  noteReports,
  stepStaging,
  trackStride,
  writeTrack,
  type GateReports,
  type Rules,
  type StageState,
} from "#stage";
import { createRecording, laneOf, recordingUpTo, type Recording } from "./recording";

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
  /**
   * Whether other rules were in force on earlier frames, so that a run of the recording from its beginning may take the
   * bodies another way than was seen.
   */
  readonly isPatched: boolean;
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
  /**
   * Begins to continue this session under other rules: what was played is run through them, with the gates and the speed
   * of the clock as they were; bodies stay where they are. This session goes on until the other has caught up.
   */
  readonly under: (rules: Rules) => Successor;
  /** Returns where the session is now. */
  readonly place: () => Place;
  /** Returns where it was some frames ago, at most two seconds; its beginning if it is shorter. */
  readonly placeBefore: (frames: number) => Place | undefined;
  /**
   * Returns a session that goes on from an earlier place of this one: its bodies, and what the present rules make of the
   * input until then with gates as they were. This session must not be used any more; what it recorded later is not in the
   * other.
   */
  readonly backTo: (place: Place, nowMs: number) => LiveSession;
}

/** A frame of a session, with the bodies after it. */
export interface Place {
  readonly frame: number;
  /** The rules that were in force. */
  readonly rules: Rules;
  readonly bodies: StageState | undefined;
}

/** A session under other rules that catches up with the one it follows. */
export interface Successor {
  /**
   * Runs on, as long as `hasTime`. Returns the session once it has caught up: it takes the place of the one it follows,
   * which must not be used any more.
   */
  readonly catchUp: (hasTime?: () => boolean) => LiveSession | undefined;
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

/** The stage as it was seen so far. Sessions that follow each other continue it. */
interface Seen {
  readonly track: number[];
  readonly speeds: number[];
  readonly reports: GateReports;
  /** The gates that its bodies hold open. */
  readonly open: Set<string>;
  /** The last two seconds, frame by frame. */
  readonly recent: Place[];
}

const nothingSeen = (): Seen => ({ track: [], speeds: [], reports: [], open: new Set(), recent: [] });

/** How far back a session can return to a frame that was not marked, in seconds. */
const RECENT_SECONDS = 2;

/** Returns a part of what was seen, up to a frame. `stride`: the values of a frame in the track. */
function seenUpTo({ track, speeds, reports, recent }: Seen, frame: number, stride: number): Seen {
  const until = reports.filter(([f]) => f <= frame);
  const last = new Map(until.map(([, id, isOpen]) => [id, isOpen]));
  return {
    track: track.slice(0, (frame + 1) * stride),
    speeds: speeds.flatMap((value, k) => (k % 2 === 0 && value <= frame ? [value, speeds[k + 1]!] : [])),
    reports: until,
    open: new Set([...last].flatMap(([id, isOpen]) => (isOpen === 1 ? [id] : []))),
    recent: recent.filter(place => place.frame <= frame),
  };
}

/** The session that another one follows, and the frame up to which it does. */
type Followed = Pick<LiveSession, "rules" | "bodies" | "isPatched"> & { readonly state: { frame: number } };

/** Starts a session whose frame 0 is now. */
export function createLiveSession(rules: Rules, nowMs: number): LiveSession {
  const clock = { originMs: nowMs, pausedAtMs: undefined };
  return startSession(rules, clock, createRecording(rules.program.rateHz), nothingSeen()).session;
}

/** Returns the speed of the game clock on each frame in turn, from a list of [frame, percent, …]. */
function createSpeedReader(speeds: readonly number[]): (frame: number) => number {
  let next = 0;
  let percent = TICKS;
  return frame => {
    for (; next < speeds.length && speeds[next]! <= frame; next += 2) percent = speeds[next + 1]!;
    return percent;
  };
}

/** A session, and how it catches up with the one it follows; at once if there is none. */
interface Started {
  readonly session: LiveSession;
  readonly catchUp: (hasTime?: () => boolean) => boolean;
}

/** Starts a session before its first frame. `follows`: what it catches up with. */
function startSession(
  rules: Rules,
  clock: Clock,
  recording: Recording,
  before: Seen,
  follows?: Followed,
): Started {
  const { program } = rules;
  const replay = follows && canCarry(follows.rules, rules) ? createReplay(rules, before.reports) : undefined;
  const seen = follows && !replay ? nothingSeen() : before;
  const { track, speeds } = seen;
  const staging = replay ? undefined : createStaging(rules);
  const state = replay?.state ?? staging!.state;
  let bodies = staging?.bodies;
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(() => createLaneReader());
  const values = new Float64Array(program.controls.length);
  const restBelow = program.controls.map(({ releaseAt }) => releaseAt * REST_SHARE);
  const due: Plan = new Map();
  const gatesDue: Plan = new Map();
  const msPerFrame = 1000 / program.rateHz;
  const stageGates = listStageGates(rules);
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

  /** Loads the changes of the next frame, which is returned. */
  function loadNext(percent: number): number {
    const frame = state.frame + 1;
    input.changeCount = load(due, frame, input.changes);
    input.gateChangeCount = load(gatesDue, frame, input.gateChanges);
    input.speedPercent = percent;
    return frame;
  }

  function runFrame(percent: number): void {
    const frame = loadNext(percent);
    stepStaging(rules, { state, bodies }, input, trace);
    remember();
    if (speeds.at(-1) !== state.speedPercent) speeds.push(frame, state.speedPercent);
    if (!bodies) return;
    writeTrack(bodies, track, track.length);
    noteReports(rules, state, stageGates, seen.open, seen.reports);
  }

  function placeNow(): Place {
    return { frame: state.frame, rules, bodies: bodies && copyBodies(bodies) };
  }

  function remember(): void {
    seen.recent.push(placeNow());
    if (seen.recent.length > RECENT_SECONDS * program.rateHz + 1) seen.recent.shift();
  }

  function markGap(nowMs: number, isAll = false): number {
    if (clock.pausedAtMs !== undefined) return 0;
    const lateMs = nowMs - clock.originMs - (state.frame + 1) * msPerFrame;
    const lostMs = Math.round(lateMs - (isAll ? 0 : MAX_CATCH_UP_MS));
    // Events that arrive together after one stall make one gap: a longer one would move them closer together.
    const isMarked = !isAll && recording.gaps.at(-1)?.[0] === state.frame + 1;
    if (lostMs <= 0 || isMarked) return 0;
    clock.originMs += lostMs;
    recording.gaps.push([state.frame + 1, lostMs]);
    return lostMs;
  }

  /** How many pairs of each lane are read. */
  const readSoFar = program.controls.map(() => 0);
  /** Plans what was recorded since the last call. The gates of frames to come may have changed. */
  function readRecorded(): void {
    program.controls.forEach((control, c) => {
      const lane = recording.lanes.get(control.id) ?? [];
      for (; readSoFar[c]! < lane.length; readSoFar[c]!++) read(c, ...lane[readSoFar[c]!]!);
    });
    program.gates.forEach((gate, g) => {
      const lane = recording.gates.get(gate.id) ?? [];
      for (let k = lane.length - 1; k >= 0 && lane[k]![0] > state.frame; k--)
        planGate(g, lane[k]![0], lane[k]![1] === 1);
    });
  }

  const speedSeen = createSpeedReader(before.speeds);

  function catchUp(hasTime?: () => boolean): boolean {
    if (!follows) return true;
    readRecorded();
    const speedOf = replay ? speedSeen : createSpeedReader(recording.speed.flat());
    for (let stepped = 0; state.frame < follows.state.frame; stepped++) {
      if (hasTime && stepped > 0 && stepped % FRAMES_PER_LOOK === 0 && !hasTime()) return false;
      if (!replay) runFrame(speedOf(state.frame + 1));
      else {
        loadNext(speedOf(state.frame + 1));
        replay.step(input, trace);
      }
    }
    speedPercent = recording.speed.at(-1)?.[1] ?? TICKS;
    if (!replay || !follows.bodies) return true;
    bodies = carryBodies(follows.rules, follows.bodies, rules, state);
    // Gates that another stage held are closed, too.
    noteReports(rules, state, program.gates.keys(), seen.open, seen.reports);
    return true;
  }

  if (!replay) noteReports(rules, state, stageGates, seen.open, seen.reports);

  const session: LiveSession = {
    rules,
    program,
    state,
    trace,
    get bodies() {
      return bodies;
    },
    track,
    speeds,
    recording,
    isPatched: replay !== undefined || follows?.isPatched === true,
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
      runFrame(speedPercent);
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
        runFrame(speedPercent);
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
    under(other) {
      const started = startSession(other, clock, recording, seen, session);
      return { catchUp: hasTime => (started.catchUp(hasTime) ? started.session : undefined) };
    },
    place: placeNow,
    placeBefore: frames =>
      seen.recent.findLast(place => place.frame <= state.frame - frames) ?? seen.recent[0],
    backTo(place, nowMs) {
      const { frame } = place;
      const originMs = nowMs - (frame + 1) * msPerFrame;
      const back = { originMs, pausedAtMs: clock.pausedAtMs === undefined ? undefined : nowMs };
      const followed = { ...place, isPatched: session.isPatched, state: { frame } };
      const started = startSession(
        rules,
        back,
        recordingUpTo(recording, frame),
        seenUpTo(seen, frame, trackStride(rules)),
        followed,
      );
      started.catchUp();
      return started.session;
    },
  };
  return { session, catchUp };
}
