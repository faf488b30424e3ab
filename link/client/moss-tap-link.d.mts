/** An event of the rules, as in a trace file: its frame, its kind, and the id of the rule it is about. */
export interface LinkEvent {
  readonly f: number;
  readonly kind: string;
  readonly id?: string;
  readonly [field: string]: unknown;
}

/** The input of one frame: as for the runtime, with what the game itself performed. */
export interface LinkInput {
  /** Controls by id: true or false, or an analog value from 0 to 1. An absent control is up. */
  readonly controls: Readonly<Record<string, boolean | number>>;
  /** Gates that the game opens or closes, by id; an absent gate keeps its state and starts closed. */
  readonly gates?: Readonly<Record<string, boolean>>;
  /** The speed of the game clock on this frame in percent, a whole number from 0 to 400; default 100. */
  readonly speedPercent?: number;
  /** The ids of the moves that the game performed on this frame by its own input code. */
  readonly did?: readonly string[];
}

/** A refusal of the server; `at` is the path of the part that was refused. */
export interface LinkFault {
  readonly code: "version" | "code" | "taken" | "rate" | "order" | "shape" | "bounds" | "socket";
  readonly at?: string;
  readonly message: string;
}

/** Not joined yet or again; joined; ended by `close`; never to be joined, as `onFault` reports. */
export type LinkState = "joining" | "playing" | "closed" | "refused";

export interface LinkOptions {
  /** The code that the page or `moss-tap link` displays. */
  readonly code: string;
  /** The address of the server; default ws://localhost:3000/link. */
  readonly url?: string;
  /** The game's name on the page. */
  readonly name?: string;
  /** Frames per second, at which `step` is called; default 60. If the game asks, it must be the kit's. */
  readonly rate?: number;
  /** Whether the game acts on the events of the rules (default), or only reports what it does. */
  readonly asks?: boolean;
  readonly player?: string;
  readonly device?: string;
  /** The WebSocket class, for Node before version 22: that of the package `ws`. */
  readonly WebSocket?: unknown;
  readonly onState?: (state: LinkState) => void;
  /** Gets the kit when the game joins, and whenever an edit of it comes into force. */
  readonly onKit?: (message: { readonly kit: unknown; readonly revision: number }) => void;
  readonly onFault?: (fault: LinkFault) => void;
}

/** A game on a live link. Its `step` is that of the runtime. */
export interface LinkedGame {
  readonly rate: number;
  readonly state: LinkState;
  /** The ids of the kit's inputs and moves; empty until the game has joined. */
  readonly controls: readonly string[];
  readonly gates: readonly string[];
  readonly moves: readonly string[];
  /** The last frame that was sent, −1 before any. Starts anew whenever the game joins. */
  readonly frame: number;
  /**
   * Sends the next frame, and returns the events that arrived since the last call: as a rule those of the frame before.
   * Returns none while the game is not joined. Never throws.
   */
  readonly step: (input: LinkInput) => LinkEvent[];
  /** Whether the rules reported a gate as open; false for an unknown gate. */
  readonly isOpen: (gate: string) => boolean;
  /** Ends the take; the next step begins another. */
  readonly end: () => void;
  /** Leaves the link for good. */
  readonly close: () => void;
}

/** Joins a link, and joins it again with growing waits whenever the connection breaks. Never throws. */
export function joinLink(options: LinkOptions): LinkedGame;
