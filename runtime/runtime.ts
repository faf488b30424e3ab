import {
  clearTrace,
  compile,
  copyState,
  createFrameInput,
  createLaneReader,
  createState,
  createTrace,
  formatEvent,
  formatPhasedEvent,
  parseKit,
  readValue,
  stageGate,
  step,
  type LaneReader,
  type PhasedTraceDocument,
  type State,
  ownValue,
} from "#core";

/** The input of one frame. */
export interface RuntimeInput {
  /** Controls by id: true or false, or an analog value from 0 to 1. An absent control is up. */
  readonly controls: Readonly<Record<string, boolean | number>>;
  /** Gates that the game opens or closes, by id; an absent gate keeps its state and starts closed. */
  readonly gates?: Readonly<Record<string, boolean>>;
  /** The speed of the game clock on this frame in percent, a whole number from 0 to 400; default 100. */
  readonly speedPercent?: number;
}

/** The state of a runtime, for going back. It must not be changed and belongs to the runtime that made it. */
export interface SavedRuntime {
  readonly state: State;
  readonly readers: readonly Readonly<LaneReader>[];
}

/** A kit that runs frame by frame. */
export interface Runtime {
  /** Frames per second: the rate at which to call `step`. */
  readonly rate: number;
  /** The ids of its inputs and of the rules it reports, in kit order. */
  readonly controls: readonly string[];
  readonly gates: readonly string[];
  readonly moves: readonly string[];
  /** The last stepped frame, −1 before any. */
  readonly frame: number;
  /** Steps the next frame and returns its events as in a trace file. */
  readonly step: (input: RuntimeInput) => PhasedTraceDocument["events"][number][];
  /** Returns whether a gate was open on the last frame; false for an unknown gate. */
  readonly isOpen: (gate: string) => boolean;
  readonly save: () => SavedRuntime;
  readonly restore: (saved: SavedRuntime) => void;
}

/** A loaded kit, or its problems: a code, and the place in the document. */
export type LoadedKit =
  | { readonly ok: true; readonly runtime: Runtime }
  | { readonly ok: false; readonly faults: readonly { readonly code: string; readonly path: string }[] };

/** The options of a runtime. */
export interface RuntimeOptions {
  /** Whether `step` also returns the phases of moves, last in their frame. */
  readonly phases?: boolean;
}

/**
 * Loads a kit document (parsed JSON). Ignores its stage: the game moves its own bodies and opens the gates
 * that depend on them. Never throws for the contents of a document. Example: `const loaded = loadKit(json);
 * if (loaded.ok) loaded.runtime.step({ controls: { leap: true } })`.
 */
export function loadKit(json: unknown, options: RuntimeOptions = {}): LoadedKit {
  const kit = parseKit(json);
  const program = kit.ok ? compile(kit.value) : kit;
  if (program.ok) return { ok: true, runtime: createRuntime(program.value, options) };
  return {
    ok: false,
    faults: program.issues.map(({ code, path }) => ({ code, path: path.join(".") })),
  };
}

function createRuntime(
  program: Extract<ReturnType<typeof compile>, { ok: true }>["value"],
  options: RuntimeOptions,
): Runtime {
  const state = createState(program);
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const readers = program.controls.map(createLaneReader);
  const places = new Map(program.gates.map(({ id }, g) => [id, g]));
  const isOutput = (gate: number) => program.gates[gate]!.isOutput;
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
        if (readValue(reader, control, frame, toValue(ownValue(controls, control.id))) >= 0)
          input.changes[input.changeCount++] = c * 2 + (reader.isDown ? 1 : 0);
      });
      for (const id in gates) {
        const g = places.get(id);
        if (g !== undefined && !isOutput(g)) stageGate(state, g, ownValue(gates, id)!);
      }
      input.speedPercent = speedPercent;
      clearTrace(trace);
      step(program, state, input, trace);
      const format = options.phases ? formatPhasedEvent : formatEvent;
      const events: PhasedTraceDocument["events"][number][] = [];
      for (let i = 0; i < trace.count; i++) {
        const event = format(program, trace, i);
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
