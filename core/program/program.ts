/** A limit that is never reached. */
export const NEVER = Infinity;

/** A compiled control: the thresholds of its analog value, 0 to 1. */
export interface ControlProgram {
  readonly id: string;
  readonly pressAt: number;
  readonly releaseAt: number;
  /** Whether one press turns it down and the next one up. */
  readonly isToggle: boolean;
}

export interface StickProgram {
  readonly id: string;
  /** Indices of the controls up, down, left and right. */
  readonly up: number;
  readonly down: number;
  readonly left: number;
  readonly right: number;
  readonly opposites: "neutral" | "latest" | "first";
  /** The gate under which left and right are swapped in the digit, or −1. */
  readonly mirrorGate: number;
}

/** A compiled gate, listed in the kit or implied by a slot (`busy:SLOT`) or a move with a linger (`out:MOVE`). */
export interface GateProgram {
  readonly id: string;
  readonly isListed: boolean;
  /** Whether it is open while the output of a move is on. */
  readonly isOutput: boolean;
  /** Whether its turns are noted in traces: of a busy gate, those of one that a move needs or is banned by. */
  readonly isNoted: boolean;
  readonly spentForTicks: number;
  /** How long it stays open after its last source; −1 for not at all. */
  readonly lingerTicks: number;
  readonly derive: "all" | "any" | "none" | "while" | "fires" | "performs" | "plain";
  /** The gates of all, any and none; one pattern for while and fires; one move for performs. */
  readonly of: readonly number[];
  /** For a counting gate: the count that opens it, and the gate that resets the count, or −1. */
  readonly atLeast: number;
  readonly until: number;
  /**
   * The longest coyote of any need on it, by moves on the game clock and on the real clock, in ticks; −1 for
   * none.
   */
  readonly trailGameTicks: number;
  readonly trailRealTicks: number;
}

/** The fields common to all compiled patterns. Times are in ticks, hundredths of a frame. */
export interface PatternBase {
  /** Its kind in the registry of patterns, which this module does not know. */
  readonly kind: string;
  readonly id: string;
  readonly isOff: boolean;
  readonly isReal: boolean;
  readonly captures: boolean;
  /** Whether it is active in each mode; one entry in a kit without modes. */
  readonly activeIn: readonly boolean[];
  /** The controls of its attempt or steps, which captures take and hiding hides. */
  readonly controls: readonly number[];
  readonly cancel: readonly number[];
  /** Every control whose change wakes it. */
  readonly watches: readonly number[];
  /** The offset and number of its cells in state.cells. */
  readonly base: number;
  readonly cellCount: number;
  /** The number of values in the payload of its fires, at least 1. */
  readonly payloadSize: number;
  /** The column of the payload with its output, in the game's units; −1 for none. */
  readonly outputColumn: number;
  /** The maximum number of edges of its fires. */
  readonly edgeRoom: number;
}

export interface NeedProgram {
  readonly gate: number;
  /** −1 without coyote: only an open gate meets the need. */
  readonly coyoteTicks: number;
}

export interface OpeningProgram {
  readonly gate: number;
  readonly fromTicks: number;
  readonly toTicks: number;
}

export interface MoveProgram {
  readonly id: string;
  readonly isOff: boolean;
  readonly isReal: boolean;
  /** The clock its requests age on. */
  readonly isMemoryReal: boolean;
  /** Whether it repeats its request while the fired input is held. */
  readonly asksAgain: boolean;
  readonly activeIn: readonly boolean[];
  readonly pattern: number;
  /** The columns of the payload with a count and a level; −1 for none. */
  readonly countColumn: number;
  readonly levelColumn: number;
  /** The required count of taps or level of a charge; −1 for any. */
  readonly whenCount: number;
  readonly whenLevel: number;
  readonly needs: readonly NeedProgram[];
  readonly bans: readonly number[];
  readonly bufferTicks: number;
  readonly deferTicks: number;
  readonly priority: number;
  readonly slot: number;
  readonly spends: readonly number[];
  readonly shares: boolean;
  readonly cooldownTicks: number;
  /** 0 for no limit. */
  readonly usesMax: number;
  readonly refillGate: number;
  /** The gate that is open while its output is on, and how long that lasts after its input; −1 for no such gate. */
  readonly outputGate: number;
  readonly lingerTicks: number;
  readonly startupTicks: number;
  readonly activeTicks: number;
  readonly recoveryTicks: number;
  readonly opens: readonly OpeningProgram[];
}

export interface ModeProgram {
  readonly id: string;
  readonly carry: boolean;
}

export interface SwitchProgram {
  /** The gate to watch, or −1 for a switch by move. */
  readonly gate: number;
  readonly turnsOpen: boolean;
  readonly move: number;
  readonly to: number;
}

export interface GradeProgram {
  readonly name: string;
  /** How far before and after the target it reaches. */
  readonly earlyTicks: number;
  readonly lateTicks: number;
}

export interface PromptProgram {
  readonly id: string;
  readonly isOff: boolean;
  readonly isReal: boolean;
  readonly activeIn: readonly boolean[];
  /** The patterns that answer, in kit order, without disabled ones. */
  readonly ask: readonly number[];
  /** The seed of its draws, and the patterns drawn from, as written; −1 if it asks for all of `ask`. */
  readonly draw: number;
  readonly drawFrom: readonly number[];
  readonly startsAtTicks: number;
  readonly startsOnGate: number;
  readonly startsAfterPrompt: number;
  readonly startsOn: "success" | "failure" | "any";
  readonly leadTicks: number;
  readonly windowTicks: number;
  readonly targetTicks: number;
  readonly grades: readonly GradeProgram[];
  readonly early: "ignore" | "allow" | "fail";
  /** Controls whose early press fails it; empty unless early is "fail". */
  readonly earlyControls: readonly number[];
  /** The same for each of `drawFrom`; empty unless it draws. */
  readonly earlyControlsOf: readonly (readonly number[])[];
  /** Whether a wrong answer fails it. */
  readonly failsWrong: boolean;
  /** Controls whose press in the window fails it; empty unless wrong is "fail". */
  readonly wrongControls: readonly number[];
  readonly captures: readonly number[];
  readonly opensGate: number;
}

/**
 * A compiled kit, as plain data that can be cloned, hashed and sent to a worker. Rules refer to each other by
 * index; times are in ticks, hundredths of a frame. `P` is the type of its patterns: `KitProgram` has those of
 * every kind.
 */
export interface Program<P extends PatternBase = PatternBase> {
  readonly rateHz: number;
  readonly controls: readonly ControlProgram[];
  readonly sticks: readonly StickProgram[];
  readonly gates: readonly GateProgram[];
  readonly patterns: readonly P[];
  readonly moves: readonly MoveProgram[];
  readonly modes: readonly ModeProgram[];
  readonly startMode: number;
  readonly switches: readonly SwitchProgram[];
  readonly prompts: readonly PromptProgram[];
  readonly keepsAllRequests: boolean;
  /** For each slot, its name and the gate that is open while it is busy. */
  readonly slots: readonly { readonly id: string; readonly busyGate: number }[];
  /** For each control, the patterns to wake when it changes. */
  readonly watchers: readonly (readonly number[])[];
  /** Whether gates follow the phases of patterns, and whether prompts open gates: they are stepped after each such change. */
  readonly gatesFollowPatterns: boolean;
  readonly promptsOpenGates: boolean;
  /** Moves with a gate that is open while their output is on. */
  readonly outputMoves: readonly number[];
  /** Moves with a limited number of uses. */
  readonly limitedMoves: readonly number[];
  /** Moves that repeat their request while the fired input is held. */
  readonly againMoves: readonly number[];
  /** Whether anything hides a control from a pattern. */
  readonly hides: boolean;
  /** Whether any mode carries presses, which requires a log of the clock and of mirroring. */
  readonly carries: boolean;
  /** The number of controls and sticks: the base in which edges are numbered. */
  readonly sourceCount: number;
  readonly edgeRoom: number;
  readonly cellCount: number;
  /** The row length of one choice, for each sequence. */
  readonly choiceStrides: readonly number[];
}

/** Encodes an edge as one number: its frame and its source (a control, or after all controls a stick). */
export function edgeKey(frame: number, source: number, sourceCount: number): number {
  return frame * sourceCount + source;
}

/** Returns the frame of an edge (see edgeKey). */
export function keyFrame({ sourceCount }: Pick<Program, "sourceCount">, key: number): number {
  return Math.floor(key / sourceCount);
}

/** Returns the source of an edge: a control's index, or the number of controls + a stick's index. */
export function keySource({ sourceCount }: Pick<Program, "sourceCount">, key: number): number {
  return key % sourceCount;
}

/** Returns the controls whose presses an edge can represent: its own control, or the four of its stick. */
export function controlsOfKey(
  { sourceCount, controls, sticks }: Pick<Program, "sourceCount" | "controls" | "sticks">,
  key: number,
): readonly number[] {
  const source = key % sourceCount;
  if (source < controls.length) return [source];
  const { up, down, left, right } = sticks[source - controls.length]!;
  return [up, down, left, right];
}

/**
 * Returns whether an edge belongs to the press of a control on a frame: its own press edge, or a direction
 * that began with it.
 */
export function isOfPress(
  program: Pick<Program, "sourceCount" | "controls" | "sticks">,
  key: number,
  control: number,
  frame: number,
): boolean {
  return keyFrame(program, key) === frame && controlsOfKey(program, key).includes(control);
}

/** Returns whether the edge is a press of a control and not a direction of a stick. */
export function isPressKey(
  { sourceCount, controls }: Pick<Program, "sourceCount" | "controls">,
  key: number,
): boolean {
  return key % sourceCount < controls.length;
}

/** Returns the id of an edge's source. */
export function sourceId(program: Program, source: number): string {
  const controls = program.controls.length;
  return source < controls ? program.controls[source]!.id : program.sticks[source - controls]!.id;
}
