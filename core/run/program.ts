import type { PatternProgram } from "../patterns/kinds";

export type { PatternProgram };

/** A limit that is never reached. */
export const NEVER = Infinity;

/** A control as the core reads it: thresholds on its analog value, 0 to 1. */
export interface ControlProgram {
  readonly id: string;
  readonly pressAt: number;
  readonly releaseAt: number;
  /** Does a press turn it down and the next one up again? */
  readonly isToggle: boolean;
}

export interface StickProgram {
  readonly id: string;
  /** Controls: up, down, left, right. */
  readonly up: number;
  readonly down: number;
  readonly left: number;
  readonly right: number;
  readonly opposites: "neutral" | "latest" | "first";
  /** Gate under which left and right change places in the digit, or −1. */
  readonly mirrorGate: number;
}

/** A gate, listed in the kit or implied by a slot (`busy:SLOT`). */
export interface GateProgram {
  readonly id: string;
  readonly isListed: boolean;
  readonly spentForTicks: number;
  readonly derive: "all" | "any" | "none" | "while" | "fires" | "performs" | "plain";
  /** Gates for all, any and none; one pattern for while and fires; one move for performs. */
  readonly of: readonly number[];
  /** For a gate that counts: how many open it, and the gate that sets the count to nothing, or −1. */
  readonly atLeast: number;
  readonly until: number;
  /** The longest coyote that a need gives it, by moves on the game clock and by those on the real one; −1 for none. Ticks. */
  readonly trailGameTicks: number;
  readonly trailRealTicks: number;
}

/** What every compiled pattern has. Times are in hundredths of a frame (ticks). */
export interface PatternBase {
  readonly id: string;
  readonly isOff: boolean;
  readonly isReal: boolean;
  readonly captures: boolean;
  /** Whether it is active in each mode; one entry in a kit without modes. */
  readonly activeIn: readonly boolean[];
  /** Controls of its attempt or steps: what captures takes and hiding hides. */
  readonly controls: readonly number[];
  readonly cancel: readonly number[];
  /** Every control whose change it must be woken for. */
  readonly watches: readonly number[];
  /** Where its cells begin in state.cells, and how many there are. */
  readonly base: number;
  readonly cellCount: number;
  /** The most edges a fire of it carries. */
  readonly edgeRoom: number;
}

export interface NeedProgram {
  readonly gate: number;
  /** −1 without coyote: then only an open gate will do. */
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
  /** Does it ask anew while what fired it is held? */
  readonly asksAgain: boolean;
  readonly activeIn: readonly boolean[];
  readonly pattern: number;
  /** Wanted count of taps or level of a charge; −1 for any. */
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
  /** Gate to watch, or −1 for a switch by move. */
  readonly gate: number;
  readonly turnsOpen: boolean;
  readonly move: number;
  readonly to: number;
}

export interface GradeProgram {
  readonly name: string;
  readonly withinTicks: number;
}

export interface PromptProgram {
  readonly id: string;
  readonly isOff: boolean;
  readonly isReal: boolean;
  readonly activeIn: readonly boolean[];
  /** Patterns that answer, in kit order, those that are off left out. */
  readonly ask: readonly number[];
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
  /** Controls whose press in the window fails it; empty unless wrong is "fail". */
  readonly wrongControls: readonly number[];
  readonly captures: readonly number[];
  readonly opensGate: number;
}

/**
 * A kit made ready to run: plain data, so that it can be cloned, hashed and sent to a worker.
 * Everything is named by its place in its list; times are in ticks, hundredths of a frame.
 */
export interface Program {
  readonly rateHz: number;
  readonly controls: readonly ControlProgram[];
  readonly sticks: readonly StickProgram[];
  readonly gates: readonly GateProgram[];
  readonly patterns: readonly PatternProgram[];
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
  /** Do patterns or prompts open gates by themselves, so that no frame's gates can be passed over? */
  readonly gatesNeverRest: boolean;
  /** Moves with a limited number of uses. */
  readonly limitedMoves: readonly number[];
  /** Moves that ask again while what fired them is held. */
  readonly againMoves: readonly number[];
  /** Does anything ever hide a control from a pattern? */
  readonly hides: boolean;
  /** Does any mode carry presses over? Then a log of the clock and of mirroring is kept. */
  readonly carries: boolean;
  /** Controls and sticks together: the base in which edges are numbered. */
  readonly sourceCount: number;
  readonly edgeRoom: number;
  readonly cellCount: number;
  /** Sizes, in numbers, of one choice of each sequence. */
  readonly choiceStrides: readonly number[];
}

/** An edge as one number: its frame and its source (a control, or after all controls a stick). */
export function edgeKey(frame: number, source: number, sourceCount: number): number {
  return frame * sourceCount + source;
}

/** Returns the frame of an edge (see edgeKey). */
export function keyFrame({ sourceCount }: Pick<Program, "sourceCount">, key: number): number {
  return Math.floor(key / sourceCount);
}

/** Returns the source of an edge: a control's place, or the number of controls + a stick's place. */
export function keySource({ sourceCount }: Pick<Program, "sourceCount">, key: number): number {
  return key % sourceCount;
}

/**
 * Returns the controls whose presses an edge can stand for: a control's own, or of a direction the four of its stick.
 */
export function controlsOfKey(
  { sourceCount, controls, sticks }: Pick<Program, "sourceCount" | "controls" | "sticks">,
  key: number,
): readonly number[] {
  const source = key % sourceCount;
  if (source < controls.length) return [source];
  const { up, down, left, right } = sticks[source - controls.length]!;
  return [up, down, left, right];
}

/** Does an edge belong to the press of a control on a frame: its own press edge, or a direction that began with it? */
export function isOfPress(
  program: Pick<Program, "sourceCount" | "controls" | "sticks">,
  key: number,
  control: number,
  frame: number,
): boolean {
  return keyFrame(program, key) === frame && controlsOfKey(program, key).includes(control);
}

/** Is the edge a press of a control, not a direction of a stick? */
export function isPressKey(
  { sourceCount, controls }: Pick<Program, "sourceCount" | "controls">,
  key: number,
): boolean {
  return key % sourceCount < controls.length;
}

/** The name of an edge's source. */
export function sourceId(program: Program, source: number): string {
  const controls = program.controls.length;
  return source < controls ? program.controls[source]!.id : program.sticks[source - controls]!.id;
}
