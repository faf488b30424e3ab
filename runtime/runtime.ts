import {
  clearTrace,
  compile,
  copyState,
  createFrameInput,
  createLaneReader,
  createState,
  createTrace,
  formatEvent,
  parseKit,
  readValue,
  stageGate,
  step,
  type LaneReader,
  type State,
  type TraceEvent,
} from "#core";

/** What a frame is stepped with. */
export interface RuntimeInput {
  /** Controls by id: true or false, or an analog value from 0 to 1. What is left out is up. */
  readonly controls: Readonly<Record<string, boolean | number>>;
  /** Gates that the game opens, by id; what is left out stays as it was, at first closed. */
  readonly gates?: Readonly<Record<string, boolean>>;
  /** The speed of the game clock on this frame in percent, a whole number from 0 to 400; 100 where left out. */
  readonly speedPercent?: number;
}

/** Everything a runtime remembers, to go back to. It is not to be changed, and goes with the runtime it came from. */
export interface SavedRuntime {
  readonly state: State;
  readonly readers: readonly Readonly<LaneReader>[];
}

/** A kit that runs, frame by frame. */
export interface Runtime {
  /** Frames a second; step so often. */
  readonly rate: number;
  /** Ids of what it hears and what it tells of, in the kit's order. */
  readonly controls: readonly string[];
  readonly gates: readonly string[];
  readonly moves: readonly string[];
  /** The last frame stepped, −1 before any. */
  readonly frame: number;
  /** Steps the next frame and gives what happened on it, as events of a trace file. */
  readonly step: (input: RuntimeInput) => TraceEvent[];
  /** Is a gate open as of the last frame? False for one the kit does not have. */
  readonly isOpen: (gate: string) => boolean;
  readonly save: () => SavedRuntime;
  readonly restore: (saved: SavedRuntime) => void;
}

/** A kit that was loaded, or what is wrong with it: a code, and where in the document. */
export type LoadedKit =
  | { readonly ok: true; readonly runtime: Runtime }
  | { readonly ok: false; readonly faults: readonly { readonly code: string; readonly path: string }[] };

/**
 * Loads a kit document (parsed JSON). A stage in it is passed over: the game moves its own bodies, and opens the gates that
 * tell of them. Never throws for what a document holds.
 */
export function loadKit(json: unknown): LoadedKit {
  const kit = parseKit(json);
  const program = kit.ok ? compile(kit.value) : kit;
  if (program.ok) return { ok: true, runtime: createRuntime(program.value) };
  return {
    ok: false,
    faults: program.issues.map(({ code, path }) => ({ code, path: path.join(".") })),
  };
}

function createRuntime(program: Extract<ReturnType<typeof compile>, { ok: true }>["value"]): Runtime {
  const state = createState(program);
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(createLaneReader);
  const places = new Map(program.gates.map(({ id }, g) => [id, g]));
  const toValue = (held: boolean | number | undefined) => (held === true ? 1 : Number(held ?? 0));
  return {
    rate: program.rateHz,
    controls: program.controls.map(({ id }) => id),
    gates: program.gates.map(({ id }) => id),
    moves: program.moves.map(({ id }) => id),
    get frame() {
      return state.frame;
    },
    step({ controls, gates, speedPercent = 100 }) {
      const frame = state.frame + 1;
      input.changeCount = input.gateChangeCount = 0;
      program.controls.forEach((control, c) => {
        const reader = readers[c]!;
        if (readValue(reader, control, frame, toValue(controls[control.id])) >= 0)
          input.changes[input.changeCount++] = c * 2 + (reader.isDown ? 1 : 0);
      });
      for (const id in gates) {
        const g = places.get(id);
        if (g !== undefined) stageGate(state, g, gates[id]!);
      }
      input.speedPercent = speedPercent;
      clearTrace(trace);
      step(program, state, input, trace);
      const events: TraceEvent[] = [];
      for (let i = 0; i < trace.count; i++) {
        const event = formatEvent(program, trace, i);
        if (event) events.push(event);
      }
      return events;
    },
    isOpen: gate => state.gateOpen[places.get(gate) ?? -1] === 1,
    save() {
      const kept = createState(program);
      copyState(program, state, kept);
      return { state: kept, readers: readers.map(reader => ({ ...reader })) };
    },
    restore(saved) {
      copyState(program, saved.state, state);
      saved.readers.forEach((reader, c) => Object.assign(readers[c]!, reader));
    },
  };
}
