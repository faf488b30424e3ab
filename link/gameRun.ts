import {
  clearTrace,
  createFrameInput,
  createLaneReader,
  createState,
  createTrace,
  formatEvent,
  landingFrame,
  passOver,
  readValue,
  step,
  type Program,
  type State,
  type Trace,
} from "#core";
import type { GameFrame, LinkEvent } from "./messages";

type Changes = Pick<GameFrame, "set" | "gates" | "speed">;

/**
 * Rules that run on what a game sends, frame by frame, without a stage. Gives the events that a run of the take made of
 * the same frames gives. Frames of the game land on frames of the kit as those of a take do; a kit's frame is stepped
 * once no later frame of the game can land on it.
 */
export interface GameRun {
  readonly state: State;
  /** The last frame of the game that was stepped, −1 before any. */
  readonly gameFrame: number;
  /**
   * Steps the game's frame `f`, later than the last; nothing changes on frames between. `onEvent` gets each event in
   * order.
   */
  readonly step: (f: number, changes: Changes, onEvent?: (event: LinkEvent) => void) => void;
}

/** The changes of one control that have not landed yet: frame and code by turns, from `head` on. */
interface Landing {
  readonly entries: number[];
  head: number;
}

/**
 * Creates a run before frame 0. `rateHz` is the game's rate. Notes are appended to `kept`, if given; otherwise they are
 * not kept.
 */
export function createGameRun(program: Program, rateHz: number, kept?: Trace): GameRun {
  const state = createState(program);
  const trace = kept ?? createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(createLaneReader);
  const landings = program.controls.map((): Landing => ({ entries: [], head: 0 }));
  const controls = new Map(program.controls.map(({ id }, c) => [id, c]));
  const gates = new Map(program.gates.flatMap(({ id, isOutput }, g) => (isOutput ? [] : [[id, g] as const])));
  /** Gates and speed that change on the next frame; the last change of a frame counts. */
  const painted = new Map<number, number>();
  let waiting = 0;
  let gameFrame = -1;
  const landOf = (f: number) => landingFrame(f, program.rateHz, rateHz);

  /** Loads the changes of one frame of the kit. */
  const load = (frame: number) => {
    input.changeCount = 0;
    input.gateChangeCount = 0;
    for (let c = 0; c < landings.length && waiting > 0; c++) {
      const landing = landings[c]!;
      if (landing.entries[landing.head] !== frame) continue;
      input.changes[input.changeCount++] = landing.entries[landing.head + 1]!;
      landing.head += 2;
      waiting--;
      if (landing.head === landing.entries.length) landing.entries.length = landing.head = 0;
    }
    for (const [g, open] of painted) input.gateChanges[input.gateChangeCount++] = g * 2 + open;
    painted.clear();
  };

  const stepTo = (end: number, onEvent?: (event: LinkEvent) => void) => {
    while (state.frame + 1 < end) {
      const isIdle = waiting === 0 && painted.size === 0 && input.speedPercent === state.speedPercent;
      if (isIdle && passOver(program, state, trace, end - state.frame - 1) > 0) continue;
      load(state.frame + 1);
      if (!kept) clearTrace(trace);
      const since = trace.count;
      step(program, state, input, trace);
      for (let n = since; onEvent && n < trace.count; n++) {
        const event = formatEvent(program, trace, n);
        if (event) onEvent(event);
      }
    }
  };

  const collect = (frame: number, changes: Changes) => {
    for (const [id, value] of Object.entries(changes.set ?? {})) {
      const c = controls.get(id);
      if (c === undefined) continue;
      const reader = readers[c]!;
      const landed = readValue(reader, program.controls[c]!, frame, Number(value));
      if (landed < 0) continue;
      landings[c]!.entries.push(landed, c * 2 + (reader.isDown ? 1 : 0));
      waiting++;
    }
    for (const [id, isOpen] of Object.entries(changes.gates ?? {})) {
      const g = gates.get(id);
      if (g !== undefined) painted.set(g, isOpen ? 1 : 0);
    }
    if (changes.speed !== undefined) input.speedPercent = changes.speed;
  };

  return {
    state,
    get gameFrame() {
      return gameFrame;
    },
    step(f, changes, onEvent) {
      stepTo(landOf(f), onEvent);
      collect(landOf(f), changes);
      stepTo(landOf(f + 1), onEvent);
      gameFrame = f;
    },
  };
}
