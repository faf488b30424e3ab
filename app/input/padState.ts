import type { DropReason } from "./held";
import type { PadsStatus } from "./gamepads";
import type { LiveSession, Place } from "./liveSession";

/** One device report: its time, its content, and the frame it landed on or the reason it was dropped. */
export interface RawEvent {
  readonly key: number;
  readonly code: string;
  readonly value: number;
  /** Since the pad was woken. */
  readonly timeMs: number;
  /** The frame on which a control changed because of it; −1 for none. */
  readonly frame: number;
  readonly dropped: DropReason | "unused" | "focus lost" | "unplugged" | "stuck";
  readonly isStretched: boolean;
}

/** The state of the pad: asleep, or awake and running the kit. While awake, keys belong to the kit. */
export interface PadState {
  readonly session: LiveSession | undefined;
  /** The session that ended last, unrecorded, while it can still be kept as a take. */
  readonly ended: LiveSession | undefined;
  readonly isRecording: boolean;
  /** Whether a running game plays, over a live link, in place of the devices. Keys then belong to the page. */
  readonly isLinked: boolean;
  readonly isFrozen: boolean;
  /** Whether a text field has the keys: what is typed there plays nothing. */
  readonly isResting: boolean;
  /** Whether the stage fills the window. */
  readonly isWide: boolean;
  /** The frame to go back to, if one was marked. */
  readonly place: Place | undefined;
  readonly speedPercent: number;
  /** The active assist, by id. */
  readonly assist: string | undefined;
  /** The kind of device used last; prompts name its buttons. */
  readonly inHand: "key" | "pad" | "mouse";
  /** The last stepped frame; increases while awake. */
  readonly frame: number;
  readonly log: readonly RawEvent[];
  readonly repeatsDropped: number;
  /** The time that passed without being played, in ms: the machine slept, or the rules were too slow. */
  readonly missedMs: number;
  /** Codes held now, and the maximum held together since the pad was woken. */
  readonly codesDown: readonly string[];
  readonly mostTogether: readonly string[];
  /** Pairs of codes seen held together, each as "a b" in alphabetical order. */
  readonly pairsSeen: ReadonlySet<string>;
  readonly pads: PadsStatus;
}

/** The fields that start anew when the pad is woken. */
export const UNTOUCHED = {
  ended: undefined,
  frame: -1,
  log: [],
  repeatsDropped: 0,
  missedMs: 0,
  codesDown: [],
  mostTogether: [],
  pairsSeen: new Set<string>(),
} as const;

export const ASLEEP: PadState = {
  ...UNTOUCHED,
  session: undefined,
  isRecording: false,
  isLinked: false,
  isFrozen: false,
  isResting: false,
  isWide: false,
  place: undefined,
  speedPercent: 100,
  assist: undefined,
  inHand: "key",
  pads: { hasApi: true, pads: [] },
};

/** The change that lets the stage fill the window, or not. */
export const flipWide = ({ isWide }: PadState): Partial<PadState> => ({ isWide: !isWide });
