import * as v from "valibot";
import {
  BOUNDS,
  flagSchema as flag,
  idRecord,
  idSchema as id,
  rateSchema as rate,
  textSchema as text,
  type Kit,
  type TraceEvent,
} from "#core";

/** The version of the protocol, and the WebSocket subprotocol that names it. */
export const LINK_VERSION = 1;
export const SUBPROTOCOL = "moss-tap.link.v1";

/** The bounds of messages; docs/link.md lists them. */
export const LINK_BOUNDS = {
  /** Frames in one message. */
  frames: 240,
  /** The furthest that a frame may be from the one before it. */
  jump: 600,
  /** Changes in one take, which are held to run edited rules through them: hours of an analog stick. */
  changes: 10_000_000,
  /** Acts of the game on one frame. */
  acts: 64,
  /** Bytes of a message of a game, and of a host. */
  gameBytes: 64 * 1024,
  hostBytes: 32 * 1024 * 1024,
  /** Faults in a minute before the connection is closed. */
  faultsPerMinute: 20,
  /** Wrong codes in a minute before an address is refused for a minute. */
  codesPerMinute: 5,
  /** Links at once. */
  links: 64,
} as const;

const frameNumber = v.pipe(
  v.number("type"),
  v.integer("type"),
  v.minValue(0, "type"),
  v.maxValue(BOUNDS.frames - 1, "past-takes"),
);
const isLevel = (value: unknown) => typeof value === "boolean" || typeof value === "number";
/** The value of a control: true or false, or from 0 to 1. */
const level = v.pipe(
  v.custom<boolean | number>(isLevel, "type"),
  v.check(value => Number(value) >= 0 && Number(value) <= 1, "range"),
);
const revision = v.pipe(v.number("type"), v.integer("type"), v.minValue(0, "type"));
const percent = v.pipe(
  v.number("type"),
  v.integer("type"),
  v.minValue(0, "range"),
  v.maxValue(BOUNDS.speedPercent, "range"),
);
const act = v.strictObject({ kind: v.literal("performed", "choice"), id });

export const frameSchema = v.strictObject({
  f: frameNumber,
  set: v.exactOptional(idRecord(level)),
  gates: v.exactOptional(idRecord(flag)),
  speed: v.exactOptional(percent),
  did: v.exactOptional(v.pipe(v.array(act, "type"), v.maxLength(LINK_BOUNDS.acts, "many"))),
});

/** The messages of a host. */
export const HOST_MESSAGES = {
  open: v.strictObject({
    t: v.literal("open"),
    kit: v.unknown(),
    revision,
    code: v.exactOptional(text),
  }),
  follow: v.strictObject({
    t: v.literal("follow"),
    code: text,
    from: frameNumber,
    take: v.exactOptional(revision),
  }),
  edit: v.strictObject({ t: v.literal("edit"), revision, kit: v.unknown() }),
  close: v.strictObject({ t: v.literal("close") }),
} as const;

/** The messages of a game. */
export const GAME_MESSAGES = {
  join: v.strictObject({
    t: v.literal("join"),
    version: v.number("type"),
    code: text,
    name: text,
    rate,
    asks: flag,
    player: v.exactOptional(text),
    device: v.exactOptional(text),
  }),
  /** Its other fields are those of a frame, parsed one by one: see `parseFrame`. */
  frame: v.looseObject({ t: v.literal("frame") }),
  frames: v.strictObject({
    t: v.literal("frames"),
    frames: v.pipe(v.array(v.unknown(), "type"), v.maxLength(LINK_BOUNDS.frames, "many")),
  }),
  end: v.strictObject({ t: v.literal("end") }),
} as const;

/** One frame of a game: its number from 0 and only what changed on it. `set` are values of controls, `did` what the game itself performed. */
export type GameFrame = v.InferOutput<typeof frameSchema>;
export type Join = v.InferOutput<typeof GAME_MESSAGES.join>;
export type Open = v.InferOutput<typeof HOST_MESSAGES.open>;
export type Follow = v.InferOutput<typeof HOST_MESSAGES.follow>;
export type Edit = v.InferOutput<typeof HOST_MESSAGES.edit>;
export type FrameMessage = v.InferOutput<typeof GAME_MESSAGES.frame>;
export type FramesMessage = v.InferOutput<typeof GAME_MESSAGES.frames>;
export type EndMessage = v.InferOutput<typeof GAME_MESSAGES.end>;
export type CloseMessage = v.InferOutput<typeof HOST_MESSAGES.close>;
export type ClientMessage =
  | Join
  | Open
  | Follow
  | Edit
  | FrameMessage
  | FramesMessage
  | EndMessage
  | CloseMessage;

export type LinkEvent = TraceEvent;
export type FaultCode = "version" | "code" | "taken" | "rate" | "order" | "shape" | "bounds";

/** A refusal. `at` is the path of the part that was refused. */
export interface Fault {
  readonly t: "fault";
  readonly code: FaultCode;
  readonly at?: string;
  readonly message: string;
}

/** A game that plays, as its hosts get it. */
export interface Joined {
  readonly t: "joined";
  readonly name: string;
  readonly rate: number;
  readonly asks: boolean;
  readonly player?: string;
  readonly device?: string;
}

/** The end of a take: the game ended it, its connection broke, or it was closed for its faults. */
export interface Left {
  readonly t: "left";
  readonly why: "end" | "gone" | "fault";
}

/** Rules that came into force: `from` is the first frame of the game stepped under them. */
export interface KitInForce {
  readonly t: "kit";
  readonly revision: number;
  readonly from: number;
  readonly kit: Kit;
}

/** Frames as they came, from frame `from` of the take on, and the events of the rules on them. */
export interface Batch {
  readonly t: "batch";
  readonly from: number;
  readonly frames: readonly GameFrame[];
  readonly events: readonly LinkEvent[];
}

/** How long a ping of the server took to the game and back, in ms: every ten seconds. */
export interface Pulse {
  readonly t: "pulse";
  readonly ms: number;
}

/** An opened link. A host that follows gets the number of the take that is played, from 0. */
export interface Opened {
  readonly t: "opened";
  readonly code: string;
  readonly take?: number;
}

export type HostMessage = Opened | Joined | Left | KitInForce | Batch | Pulse | Fault;
export type GameMessage =
  | {
      readonly t: "welcome";
      readonly kit: Kit;
      readonly revision: number;
      readonly rate: number;
      readonly controls: readonly string[];
      readonly gates: readonly string[];
      readonly moves: readonly string[];
    }
  | { readonly t: "events"; readonly f: number; readonly events: readonly LinkEvent[] }
  | KitInForce
  | Fault;
