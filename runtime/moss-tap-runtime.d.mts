/** Moss Tap runtime: runs a kit frame by frame and requests nothing from any host. See docs/embedding.md. */

/** The input of one frame. */
export interface RuntimeInput {
  /** Controls by id: true or false, or an analog value from 0 to 1. An absent control is up. */
  readonly controls: Readonly<Record<string, boolean | number>>;
  /** Gates that the game opens or closes, by id; an absent gate keeps its state and starts closed. */
  readonly gates?: Readonly<Record<string, boolean>>;
  /** The speed of the game clock on this frame in percent, a whole number from 0 to 400; default 100. */
  readonly speedPercent?: number;
}

/** An event of a frame, as in a trace file. `f` is the frame, `id` the subject. */
export type TraceEvent =
  | { readonly f: number; readonly kind: "mode"; readonly id: string }
  | { readonly f: number; readonly kind: "gate"; readonly id: string; readonly open: boolean }
  | {
      readonly f: number;
      readonly kind: "fired";
      readonly id: string;
      readonly edges: readonly (readonly [id: string, frame: number])[];
      readonly repeat?: number;
      readonly held?: number;
      readonly count?: number;
      readonly age?: number;
      readonly ratio?: number;
      readonly level?: number;
      readonly value?: number;
    }
  | {
      readonly f: number;
      readonly kind: "lapsed";
      readonly id: string;
      readonly why: string;
      readonly reached?: number;
    }
  | {
      readonly f: number;
      readonly kind: "prompt";
      readonly id: string;
      readonly outcome: string;
      readonly why?: string;
      readonly asks?: string;
    }
  | {
      readonly f: number;
      readonly kind: "phase";
      readonly id: string;
      readonly phase: "startup" | "active" | "recovery" | "over" | "cut";
    }
  | {
      readonly f: number;
      readonly kind: "performed";
      readonly id: string;
      readonly made: number;
      readonly waited: number;
      readonly by: "direct" | "buffer" | "coyote" | "both";
    }
  | {
      readonly f: number;
      readonly kind: "lost";
      readonly id: string;
      readonly made: number;
      readonly why: string;
    };

/** The state of a runtime, for going back. Do not change it; it belongs to the runtime that made it. */
export interface SavedRuntime {
  readonly state: unknown;
  readonly readers: readonly unknown[];
}

export interface Runtime {
  /** Frames per second: the rate at which to call `step`. */
  readonly rate: number;
  readonly controls: readonly string[];
  readonly gates: readonly string[];
  readonly moves: readonly string[];
  /** The last stepped frame, −1 before any. */
  readonly frame: number;
  /** Steps the next frame and returns its events. */
  step(input: RuntimeInput): TraceEvent[];
  /** Returns whether a gate was open on the last frame. */
  isOpen(gate: string): boolean;
  save(): SavedRuntime;
  restore(saved: SavedRuntime): void;
}

export type LoadedKit =
  | { readonly ok: true; readonly runtime: Runtime }
  | { readonly ok: false; readonly faults: readonly { readonly code: string; readonly path: string }[] };

/** The options of a runtime. */
export interface RuntimeOptions {
  /** Whether `step` also returns the phases of moves, last in their frame. */
  readonly phases?: boolean;
}

/** Loads a kit document (parsed JSON). Ignores its stage. Never throws for the contents of a document. */
export function loadKit(json: unknown, options?: RuntimeOptions): LoadedKit;
