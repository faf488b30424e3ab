import { createTrace, landingFrame } from "#core";
import { createGameRun, type Act, type GameFrame } from "#link";
import type { Rules } from "#stage";
import { createRecording, laneOf } from "./recording";
import type { LiveSession } from "./liveSession";

/** A session whose input comes from a running game. Its stage takes no part: the game opens the gates. */
export interface LinkedSession extends LiveSession {
  /** The game's rate, in Hz, at which the recording is written. */
  readonly gameHz: number;
  /** The moves that the game itself performed, in frames of the game. */
  readonly acts: readonly Act[];
  /** Steps a frame of the game. */
  readonly play: (frame: GameFrame) => void;
}

/** The changes so far, in the game's frames, from which other rules are run. */
type Played = readonly GameFrame[];

/** Creates the session of a game that begins a take. */
export function createLinkedSession(rules: Rules, gameHz: number): LinkedSession {
  return startLinked(rules, gameHz, []);
}

function startLinked(rules: Rules, gameHz: number, before: Played): LinkedSession {
  const { unstaged: program } = rules;
  const trace = createTrace(program.rateHz);
  const run = createGameRun(program, gameHz, trace);
  const recording = createRecording(gameHz, true);
  const values = new Float64Array(program.controls.length);
  const places = new Map(program.controls.map(({ id }, c) => [id, c]));
  const speeds: number[] = [];
  const acts: Act[] = [];
  const played: GameFrame[] = [];

  /** Writes a value into a lane, if it differs from the last one. */
  const record = <V extends number>(lanes: Map<string, [number, V][]>, id: string, f: number, value: V) => {
    const lane = laneOf(lanes, id);
    if ((lane.at(-1)?.[1] ?? 0) !== value) lane.push([f, value]);
  };

  const play = (frame: GameFrame) => {
    const { f, set, gates, speed, did } = frame;
    if (set || gates || speed !== undefined || did) played.push(frame);
    for (const [id, given] of Object.entries(set ?? {})) {
      record(recording.lanes, id, f, Number(given));
      const c = places.get(id);
      if (c !== undefined) values[c] = Number(given);
    }
    for (const [id, isOpen] of Object.entries(gates ?? {})) record(recording.gates, id, f, isOpen ? 1 : 0);
    if (speed !== undefined && (recording.speed.at(-1)?.[1] ?? 100) !== speed) {
      recording.speed.push([f, speed]);
      speeds.push(landingFrame(f, program.rateHz, gameHz), speed);
    }
    for (const { id } of did ?? []) {
      acts.push({ f, id });
      const own = recording.did.get(id);
      if (own) own.push(f);
      else recording.did.set(id, [f]);
    }
    run.step(f, frame);
  };

  before.forEach(play);
  const idle = () => undefined;
  const self: LinkedSession = {
    rules,
    program,
    state: run.state,
    trace,
    bodies: undefined,
    track: [],
    speeds,
    recording,
    isPatched: false,
    get frames() {
      return run.gameFrame + 1;
    },
    values,
    gameHz,
    acts,
    play,
    // The game has the clock and the hands.
    setSpeed: idle,
    stepOnce: idle,
    setControl: idle,
    setGate: idle,
    pulseGate: idle,
    releaseAll: idle,
    advance: () => 0,
    markGap: () => 0,
    pause: idle,
    resume: idle,
    // All of it at once.
    place: () => ({ frame: run.state.frame, rules, bodies: undefined }),
    placeBefore: idle,
    backTo: () => self,
    under: other => ({ catchUp: () => startLinked(other, gameHz, lastFrame(played, run.gameFrame)) }),
  };
  return self;
}

/** Returns frames with the last one at the end, so that a run of them reaches it. */
function lastFrame(played: Played, gameFrame: number): Played {
  return gameFrame < 0 || played.at(-1)?.f === gameFrame ? played : [...played, { f: gameFrame }];
}
