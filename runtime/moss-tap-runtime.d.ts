/** Moss Tap runtime: runs a kit frame by frame, and asks nothing of any host. See docs/embedding.md. */

/** What a frame is stepped with. */
export interface RuntimeInput {
  /** Controls by id: true or false, or an analog value from 0 to 1. What is left out is up. */
  readonly controls: Readonly<Record<string, boolean | number>>;
  /** Gates that the game opens, by id; what is left out stays as it was, at first closed. */
  readonly gates?: Readonly<Record<string, boolean>>;
  /** The speed of the game clock on this frame in percent, a whole number from 0 to 400; 100 where left out. */
  readonly speedPercent?: number;
}

/** Something that happened on a frame, as in a trace file. `f` is the frame, `id` what it is about. */
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

/** Everything a runtime remembers, to go back to. Not to be changed; it goes with the runtime it came from. */
export interface SavedRuntime {
  readonly state: unknown;
  readonly readers: readonly unknown[];
}

export interface Runtime {
  /** Frames a second; step so often. */
  readonly rate: number;
  readonly controls: readonly string[];
  readonly gates: readonly string[];
  readonly moves: readonly string[];
  /** The last frame stepped, −1 before any. */
  readonly frame: number;
  /** Steps the next frame and gives what happened on it. */
  step(input: RuntimeInput): TraceEvent[];
  /** Is a gate open as of the last frame? */
  isOpen(gate: string): boolean;
  save(): SavedRuntime;
  restore(saved: SavedRuntime): void;
}

export type LoadedKit =
  | { readonly ok: true; readonly runtime: Runtime }
  | { readonly ok: false; readonly faults: readonly { readonly code: string; readonly path: string }[] };

/** Loads a kit document (parsed JSON). A stage in it is passed over. Never throws for what a document holds. */
export function loadKit(json: unknown): LoadedKit;
