import { LOSS_REASONS } from "../../trace/trace";

/** A move or a prompt that used a press. Indices into the program's lists, frames of the trace. */
export interface Use {
  readonly kind: "move" | "prompt";
  readonly index: number;
  /** The frame of the request, and the frame of the performance or the answer. */
  readonly made: number;
  readonly frame: number;
  /** An index into PERFORMED_BY; 0 for a prompt. */
  readonly by: number;
}

/** A request made of the press that was lost. */
export interface Loss {
  readonly move: number;
  readonly made: number;
  readonly frame: number;
  /** An index into LOSS_REASONS, and the gate concerned or the preferred move. */
  readonly reason: number;
  readonly because: number;
  /** The frame on which the open gate had been spent; −1 if it was not. */
  readonly spentAt: number;
}

/** A pattern that saw the press and lapsed. */
export interface Lapse {
  readonly pattern: number;
  readonly frame: number;
  /** An index into LAPSE_REASONS. */
  readonly reason: number;
}

/** An attempt of a pattern that the press cancelled or broke, or a showing of a prompt that it failed. */
export interface Ending {
  readonly kind: "pattern" | "prompt";
  readonly index: number;
  /** The frame of its end: that of the press, but for a drawn prompt that a fire of it failed. */
  readonly frame: number;
  /** An index into LAPSE_REASONS, or into FAILURES for a prompt. */
  readonly reason: number;
}

/**
 * The fate of one press edge. `used`: a move was performed or a prompt answered with it. `lost`: it was part
 * of at least one request, and none was performed. `fired`: patterns fired with it without a request.
 * `ended`: it only ended something: an attempt it cancelled or broke, or a prompt it failed.
 * `lapsed`: patterns saw it and lapsed. `unheard`: no pattern saw it, or none that did has ended yet.
 */
export interface Fate {
  readonly control: number;
  readonly frame: number;
  /** The frame of its release; undefined while it is held, and of one held to the end. */
  readonly released: number | undefined;
  readonly outcome: "used" | "lost" | "fired" | "ended" | "lapsed" | "unheard";
  readonly uses: readonly Use[];
  readonly losses: readonly Loss[];
  readonly fires: readonly { readonly pattern: number; readonly frame: number }[];
  readonly lapses: readonly Lapse[];
  /** All that it ended, whatever its outcome. */
  readonly endings: readonly Ending[];
  /** The pattern or prompt that hid the press from other rules; undefined if nothing did. */
  readonly kept: { readonly kind: "pattern" | "prompt"; readonly index: number } | undefined;
}

const BEATEN = LOSS_REASONS.indexOf("beaten");

/** Returns whether `because` of the loss is a gate. */
export function isOfGate({ reason }: Pick<Loss, "reason">): boolean {
  return LOSS_REASONS[reason] === "gate" || LOSS_REASONS[reason] === "ban";
}

/** Returns the losses that explain a lost press: losses to another move only if there are no others. */
export function explainingLosses(fate: Fate): readonly Loss[] {
  const telling = fate.losses.filter(({ reason }) => reason !== BEATEN);
  return telling.length > 0 ? telling : fate.losses;
}

/** Returns the last explaining loss; undefined for a press that no request lost. */
export function explainingLoss(fate: Fate): Loss | undefined {
  return explainingLosses(fate).at(-1);
}

/** Returns the moves that lost a press, each once; none for a press with any other fate. */
export function lostMovesOf(fate: Fate): readonly number[] {
  return fate.outcome === "lost" ? [...new Set(explainingLosses(fate).map(({ move }) => move))] : [];
}

/** Returns the moves, or the prompts, that used a press, each once, ordered by index. */
export function usersOf(fate: Fate, kind: Use["kind"]): readonly number[] {
  const used = fate.uses.filter(use => use.kind === kind).map(({ index }) => index);
  return [...new Set(used)].sort((a, b) => a - b);
}
