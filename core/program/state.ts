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
  /** While it is quiet: the earliest wake time of patterns and gates. */
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

/** Allocates typed arrays out of two blocks, so that a copy is two calls. A first pass counts sizes. */
function carve(numbers: Float64Array, flags: Uint8Array) {
  let atNumber = 0;
  let atFlag = 0;
  return {
    numbers(length: number) {
      const view = numbers.subarray(atNumber, atNumber + length);
      atNumber += length;
      return view;
    },
    flags(length: number) {
      const view = flags.subarray(atFlag, atFlag + length);
      atFlag += length;
      return view;
    },
    sizes: () => ({ numbers: atNumber, flags: atFlag }),
  };
}

type Cut = ReturnType<typeof carve>;

function layoutMoves(program: Program, cut: Cut) {
  const moves = program.moves.length;
  const slots = program.slots.length;
  return {
    performedFrame: cut.numbers(moves),
    performedTicks: cut.numbers(moves),
    usesLeft: cut.numbers(moves),
    outputFrame: cut.numbers(moves),
    outputTicks: cut.numbers(moves),
    slotMove: cut.numbers(slots),
    slotFrame: cut.numbers(slots),
    slotTicks: cut.numbers(slots),
    slotOwner: cut.numbers(slots),
    slotPart: cut.flags(slots),
    slotPhased: cut.numbers(slots),
  };
}

function layoutPrompts(program: Program, cut: Cut) {
  const prompts = program.prompts.length;
  return {
    promptStage: cut.flags(prompts),
    promptAtPassed: cut.flags(prompts),
    promptSucceeded: cut.flags(prompts),
    showings: cut.numbers(prompts),
    drawn: cut.numbers(prompts),
    shownFrame: cut.numbers(prompts),
    shownTicks: cut.numbers(prompts),
    openFrame: cut.numbers(prompts),
    openTicks: cut.numbers(prompts),
    outcomeFrame: cut.numbers(prompts),
  };
}

function layout(program: Program, numbers: Float64Array, flags: Uint8Array) {
  const cut = carve(numbers, flags);
  const controls = program.controls.length;
  const gates = program.gates.length;
  const patterns = program.patterns.length;
  const veils = program.hides ? patterns * controls : 0;
  const views = {
    raw: cut.flags(controls),
    down: cut.flags(controls),
    was: cut.flags(controls),
    next: cut.flags(controls),
    rawPressFrame: cut.numbers(controls),
    pressFrame: cut.numbers(controls),
    pressTicks: cut.numbers(controls),
    painted: cut.flags(gates),
    staged: cut.flags(gates),
    gateOpen: cut.flags(gates),
    gateWas: cut.flags(gates),
    gateTrails: cut.flags(gates),
    gateLastFrame: cut.numbers(gates),
    gateLastTicks: cut.numbers(gates),
    spentFrame: cut.numbers(gates),
    spentTicks: cut.numbers(gates),
    gateCount: cut.numbers(gates),
    gateSourced: cut.flags(gates),
    sourcedTicks: cut.numbers(gates),
    phase: cut.flags(patterns),
    phaseWas: cut.flags(patterns),
    awake: cut.flags(patterns),
    wakeTicks: cut.numbers(patterns),
    cells: cut.numbers(program.cellCount),
    fireEdges: cut.numbers(patterns * program.edgeRoom),
    fireEdgeCount: cut.numbers(patterns),
    carried: cut.numbers(patterns * CARRIED),
    hidden: cut.flags(veils),
    veiled: cut.flags(veils),
    startsOver: cut.flags(patterns),
    arrives: cut.flags(patterns),
    ...layoutMoves(program, cut),
    ...layoutPrompts(program, cut),
    choiceCount: cut.numbers(program.choiceStrides.length),
  };
  return { views, sizes: cut.sizes() };
}

/**
 * Creates a state before frame 0: everything up, closed and idle; full uses; the initial mode. Allocates
 * everything an idle run needs.
 */
export function createState(program: Program): State {
  const { sizes } = layout(program, new Float64Array(0), new Uint8Array(0));
  const numbers = new Float64Array(sizes.numbers);
  const flags = new Uint8Array(sizes.flags);
  const { views } = layout(program, numbers, flags);
  for (const unknown of [views.rawPressFrame, views.pressFrame, views.gateLastFrame, views.spentFrame])
    unknown.fill(-1);
  for (const unknown of [views.performedFrame, views.slotMove, views.shownFrame, views.openFrame])
    unknown.fill(-1);
  for (const unknown of [
    views.outcomeFrame,
    views.sourcedTicks,
    views.outputFrame,
    views.drawn,
    views.slotPhased,
  ])
    unknown.fill(-1);
  program.moves.forEach((move, i) => (views.usesLeft[i] = move.usesMax));
  // Written out instead of spread, so that every state has the same hidden class and one compiled step serves
  // all.
  return {
    raw: views.raw,
    down: views.down,
    was: views.was,
    next: views.next,
    rawPressFrame: views.rawPressFrame,
    pressFrame: views.pressFrame,
    pressTicks: views.pressTicks,
    painted: views.painted,
    staged: views.staged,
    gateOpen: views.gateOpen,
    gateWas: views.gateWas,
    gateTrails: views.gateTrails,
    gateLastFrame: views.gateLastFrame,
    gateLastTicks: views.gateLastTicks,
    spentFrame: views.spentFrame,
    spentTicks: views.spentTicks,
    gateCount: views.gateCount,
    gateSourced: views.gateSourced,
    sourcedTicks: views.sourcedTicks,
    phase: views.phase,
    phaseWas: views.phaseWas,
    awake: views.awake,
    wakeTicks: views.wakeTicks,
    cells: views.cells,
    fireEdges: views.fireEdges,
    fireEdgeCount: views.fireEdgeCount,
    carried: views.carried,
    hidden: views.hidden,
    veiled: views.veiled,
    startsOver: views.startsOver,
    arrives: views.arrives,
    performedFrame: views.performedFrame,
    performedTicks: views.performedTicks,
    usesLeft: views.usesLeft,
    outputFrame: views.outputFrame,
    outputTicks: views.outputTicks,
    slotMove: views.slotMove,
    slotFrame: views.slotFrame,
    slotTicks: views.slotTicks,
    slotOwner: views.slotOwner,
    slotPart: views.slotPart,
    slotPhased: views.slotPhased,
    promptStage: views.promptStage,
    promptAtPassed: views.promptAtPassed,
    promptSucceeded: views.promptSucceeded,
    showings: views.showings,
    drawn: views.drawn,
    shownFrame: views.shownFrame,
    shownTicks: views.shownTicks,
    openFrame: views.openFrame,
    openTicks: views.openTicks,
    outcomeFrame: views.outcomeFrame,
    choiceCount: views.choiceCount,
    numbers,
    flags,
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
