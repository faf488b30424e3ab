import type { Program } from "./program";

/** A pattern's phase at the end of a frame. */
export const IDLE = 0;
export const FORMING = 1;
export const FIRED = 2;
export const SUSTAINED = 3;
export const LAPSED = 4;

/** When a pattern is stepped next: once a control it watches changes; on the next frame; or at its wake time, if not before. */
export const ASLEEP = 0;
export const AWAKE = 1;
export const TIMED = 2;

/** The number of values in a fire's payload, as columns of state.carried. */
export const CARRIED = 4;

/**
 * The head of a request in the pool: move, frame and ticks when made, frame and ticks when due (or −1), fate,
 * number of edges, whether repeated. Its edges follow.
 */
export const REQUEST_HEAD = 8;

/** The stages of a prompt. */
export const HIDDEN = 0;
export const LEADING = 1;
export const OPEN = 2;

/**
 * The mutable state of a run. Allocated once by createState, copied by copyState. Unknown frames are −1.
 * Ticks are hundredths of a frame on the game clock unless noted.
 */
export interface State {
  readonly numbers: Float64Array;
  readonly flags: Uint8Array;
  /** The last stepped frame, −1 before any. */
  frame: number;
  gameTicks: number;
  speedPercent: number;
  mode: number;
  /** Whether any control changed on the last frame, so that `was` must be updated. */
  isStirred: boolean;
  /** Whether all gates are unchanged and only time or a source can change them, so that they are skipped until then. */
  areGatesAtRest: boolean;
  /** The earliest time at which a gate at rest can change, in ticks of each clock; Infinity for never. */
  gatesWakeGame: number;
  gatesWakeReal: number;
  /** Whether nothing can happen without input before a wake time, so that frames are skipped until then. */
  isQuiet: boolean;
  /** The earliest wake time of patterns, in ticks of each clock; Infinity for never. */
  patternsWakeGame: number;
  patternsWakeReal: number;
  /** While it is quiet: the earliest wake time of patterns, gates and pending requests. */
  wakeGame: number;
  wakeReal: number;
  /** Whether any pattern must be stepped on the next frame regardless of input. */
  isAnyAwake: boolean;
  /** Whether any pattern has fired on this frame. */
  hasFires: boolean;
  /**
   * Raw and cleaned states of the controls; `was` is the cleaned state of the previous frame, `next` is
   * scratch space.
   */
  readonly raw: Uint8Array;
  readonly down: Uint8Array;
  readonly was: Uint8Array;
  readonly next: Uint8Array;
  readonly rawPressFrame: Float64Array;
  readonly pressFrame: Float64Array;
  readonly pressTicks: Float64Array;
  readonly painted: Uint8Array;
  readonly staged: Uint8Array;
  readonly gateOpen: Uint8Array;
  readonly gateWas: Uint8Array;
  /** For a closed gate: the last frame on which it was open and not spent, with its ticks. */
  readonly gateLastFrame: Float64Array;
  readonly gateLastTicks: Float64Array;
  readonly spentFrame: Float64Array;
  readonly spentTicks: Float64Array;
  /** Whether it is closed and within a coyote, which the tape draws. */
  readonly gateTrails: Uint8Array;
  /** For a counting gate: its current count. */
  readonly gateCount: Float64Array;
  /** For a gate with a linger: whether a source has it open, and the ticks of the last such frame before; −1 for none. */
  readonly gateSourced: Uint8Array;
  readonly sourcedTicks: Float64Array;
  readonly phase: Uint8Array;
  /** The phases at the end of the previous frame; only for kits with moves that repeat requests. */
  readonly phaseWas: Uint8Array;
  /** By pattern: ASLEEP, AWAKE or TIMED, and for TIMED the time to wake at, in ticks of its clock (see `sleepUntil`). */
  readonly awake: Uint8Array;
  readonly wakeTicks: Float64Array;
  readonly cells: Float64Array;
  readonly fireEdges: Float64Array;
  readonly fireEdgeCount: Float64Array;
  readonly carried: Float64Array;
  /**
   * Pattern × control: hidden now by captures or a prompt; veiled = seen as up until released; bared =
   * restarts now.
   */
  readonly hidden: Uint8Array;
  readonly veiled: Uint8Array;
  readonly startsOver: Uint8Array;
  /** Patterns a switch has just activated. */
  readonly arrives: Uint8Array;
  isHiddenStale: boolean;
  /** The number of controls still veiled after their hiding has ended, until they are released. */
  lingering: number;
  requests: Float64Array;
  requestCount: number;
  taken: Float64Array;
  takenCount: number;
  readonly performedFrame: Float64Array;
  readonly performedTicks: Float64Array;
  readonly usesLeft: Float64Array;
  /** By move: the first frame after its last performance on which its input no longer held, with its ticks. */
  readonly outputFrame: Float64Array;
  readonly outputTicks: Float64Array;
  /** By slot: the move whose timeline runs (or −1) and its start. */
  readonly slotMove: Float64Array;
  readonly slotFrame: Float64Array;
  readonly slotTicks: Float64Array;
  /** By slot: the move performed last in it. */
  readonly slotOwner: Float64Array;
  /** By slot: the timeline part at the end of the previous frame, an index into PARTS. */
  readonly slotPart: Uint8Array;
  /** By slot: the move whose phases are reported, or −1. */
  readonly slotPhased: Float64Array;
  readonly promptStage: Uint8Array;
  readonly promptAtPassed: Uint8Array;
  readonly promptSucceeded: Uint8Array;
  /** By prompt: the number of its showings, and the place in `drawFrom` that the present one has drawn, or −1. */
  readonly showings: Float64Array;
  readonly drawn: Float64Array;
  readonly shownFrame: Float64Array;
  readonly shownTicks: Float64Array;
  readonly openFrame: Float64Array;
  readonly openTicks: Float64Array;
  readonly outcomeFrame: Float64Array;
  /** By sequence: its live choices, `choiceStrides[i]` numbers each. */
  choices: Float64Array[];
  readonly choiceCount: Float64Array;
  /**
   * Only for kits that carry: [frame, ticks, percent] at each change of speed; [frame, gate, open] of
   * mirrors.
   */
  speedLog: number[];
  mirrorLog: number[];
}

/**
 * Takes typed arrays one after another out of two blocks, so that a copy of all is two calls. With empty blocks it only counts
 * their sizes.
 */
function carve(numbers: Float64Array, flags: Uint8Array) {
  const used = { numbers: 0, flags: 0 };
  const ofNumbers = (length: number): Float64Array => {
    used.numbers += length;
    return numbers.length === 0 ? numbers : numbers.subarray(used.numbers - length, used.numbers);
  };
  return {
    numbers,
    flags,
    used,
    ofNumbers,
    /** Numbers that are −1, for unknown, at the beginning. */
    ofUnknown: (length: number): Float64Array => ofNumbers(length).fill(-1),
    ofFlags(length: number): Uint8Array {
      used.flags += length;
      return flags.length === 0 ? flags : flags.subarray(used.flags - length, used.flags);
    },
  };
}

/**
 * Returns the state before frame 0, with its arrays from `carve`. It is one literal, so that every state has the same hidden class
 * and one compiled step serves all; and the order of its fields is that of the blocks.
 */
function layOut(program: Program, cut: ReturnType<typeof carve>): State {
  const { ofNumbers, ofUnknown, ofFlags } = cut;
  const controls = program.controls.length;
  const gates = program.gates.length;
  const patterns = program.patterns.length;
  const moves = program.moves.length;
  const slots = program.slots.length;
  const prompts = program.prompts.length;
  const veils = program.hides ? patterns * controls : 0;
  return {
    raw: ofFlags(controls),
    down: ofFlags(controls),
    was: ofFlags(controls),
    next: ofFlags(controls),
    rawPressFrame: ofUnknown(controls),
    pressFrame: ofUnknown(controls),
    pressTicks: ofNumbers(controls),
    painted: ofFlags(gates),
    staged: ofFlags(gates),
    gateOpen: ofFlags(gates),
    gateWas: ofFlags(gates),
    gateTrails: ofFlags(gates),
    gateLastFrame: ofUnknown(gates),
    gateLastTicks: ofNumbers(gates),
    spentFrame: ofUnknown(gates),
    spentTicks: ofNumbers(gates),
    gateCount: ofNumbers(gates),
    gateSourced: ofFlags(gates),
    sourcedTicks: ofUnknown(gates),
    phase: ofFlags(patterns),
    phaseWas: ofFlags(patterns),
    awake: ofFlags(patterns),
    wakeTicks: ofNumbers(patterns),
    cells: ofNumbers(program.cellCount),
    fireEdges: ofNumbers(patterns * program.edgeRoom),
    fireEdgeCount: ofNumbers(patterns),
    carried: ofNumbers(patterns * CARRIED),
    hidden: ofFlags(veils),
    veiled: ofFlags(veils),
    startsOver: ofFlags(patterns),
    arrives: ofFlags(patterns),
    performedFrame: ofUnknown(moves),
    performedTicks: ofNumbers(moves),
    usesLeft: ofNumbers(moves),
    outputFrame: ofUnknown(moves),
    outputTicks: ofNumbers(moves),
    slotMove: ofUnknown(slots),
    slotFrame: ofNumbers(slots),
    slotTicks: ofNumbers(slots),
    slotOwner: ofNumbers(slots),
    slotPart: ofFlags(slots),
    slotPhased: ofUnknown(slots),
    promptStage: ofFlags(prompts),
    promptAtPassed: ofFlags(prompts),
    promptSucceeded: ofFlags(prompts),
    showings: ofNumbers(prompts),
    drawn: ofUnknown(prompts),
    shownFrame: ofUnknown(prompts),
    shownTicks: ofNumbers(prompts),
    openFrame: ofUnknown(prompts),
    openTicks: ofNumbers(prompts),
    outcomeFrame: ofUnknown(prompts),
    choiceCount: ofNumbers(program.choiceStrides.length),
    numbers: cut.numbers,
    flags: cut.flags,
    frame: -1,
    gameTicks: 0,
    speedPercent: 100,
    mode: program.startMode,
    isStirred: false,
    areGatesAtRest: false,
    gatesWakeGame: Infinity,
    gatesWakeReal: Infinity,
    isQuiet: false,
    patternsWakeGame: Infinity,
    patternsWakeReal: Infinity,
    wakeGame: Infinity,
    wakeReal: Infinity,
    isAnyAwake: false,
    hasFires: false,
    isHiddenStale: program.hides,
    lingering: 0,
    requests: new Float64Array(8 * (REQUEST_HEAD + program.edgeRoom)),
    requestCount: 0,
    taken: new Float64Array(16),
    takenCount: 0,
    choices: program.choiceStrides.map(stride => new Float64Array(stride * 8)),
    speedLog: [],
    mirrorLog: [],
  };
}

/**
 * Creates a state before frame 0: everything up, closed and idle; full uses; the initial mode. Allocates
 * everything an idle run needs.
 */
export function createState(program: Program): State {
  const counted = carve(new Float64Array(0), new Uint8Array(0));
  layOut(program, counted);
  const { used } = counted;
  const state = layOut(program, carve(new Float64Array(used.numbers), new Uint8Array(used.flags)));
  program.moves.forEach((move, i) => (state.usesLeft[i] = move.usesMax));
  return state;
}

function copyPool(from: Float64Array, to: Float64Array, used: number): Float64Array {
  const room = to.length >= used ? to : new Float64Array(from.length);
  room.set(from.subarray(0, used));
  return room;
}

/** Copies `from` into `to`; both must come from createState of the same program. */
export function copyState(program: Program, from: State, to: State): void {
  to.numbers.set(from.numbers);
  to.flags.set(from.flags);
  to.frame = from.frame;
  to.gameTicks = from.gameTicks;
  to.speedPercent = from.speedPercent;
  to.mode = from.mode;
  to.isStirred = from.isStirred;
  to.areGatesAtRest = from.areGatesAtRest;
  to.gatesWakeGame = from.gatesWakeGame;
  to.gatesWakeReal = from.gatesWakeReal;
  to.isQuiet = from.isQuiet;
  to.patternsWakeGame = from.patternsWakeGame;
  to.patternsWakeReal = from.patternsWakeReal;
  to.wakeGame = from.wakeGame;
  to.wakeReal = from.wakeReal;
  to.isAnyAwake = from.isAnyAwake;
  to.hasFires = from.hasFires;
  to.isHiddenStale = from.isHiddenStale;
  to.lingering = from.lingering;
  to.requests = copyPool(from.requests, to.requests, from.requestCount * (REQUEST_HEAD + program.edgeRoom));
  to.requestCount = from.requestCount;
  to.taken = copyPool(from.taken, to.taken, from.takenCount);
  to.takenCount = from.takenCount;
  for (let i = 0; i < from.choices.length; i++) {
    to.choices[i] = copyPool(
      from.choices[i]!,
      to.choices[i]!,
      from.choiceCount[i]! * program.choiceStrides[i]!,
    );
  }
  to.speedLog = from.speedLog.slice();
  to.mirrorLog = from.mirrorLog.slice();
}

/** Returns the pool if it has room for `needed` numbers, otherwise a longer copy of it. */
export function growPool(pool: Float64Array, needed: number): Float64Array {
  if (needed <= pool.length) return pool;
  const longer = new Float64Array(Math.max(needed, pool.length * 2));
  longer.set(pool);
  return longer;
}
