import { LOSS_REASONS, type LossReason } from "../../trace/trace";

/** A move or a prompt that used a press. Places are in the program's lists, frames in the trace. */
export interface Use {
  readonly kind: "move" | "prompt";
  readonly index: number;
  /** The frame on which the request was made, and the one on which it was performed or the prompt answered. */
  readonly made: number;
  readonly frame: number;
  /** Place in PERFORMED_BY; 0 for a prompt. */
  readonly by: number;
}

/** A request that had the press and was lost. */
export interface Loss {
  readonly move: number;
  readonly made: number;
  readonly frame: number;
  /** Place in LOSS_REASONS; with it the gate that was not open or was, or the move that was preferred. */
  readonly reason: number;
  readonly because: number;
  /** The frame on which the gate, though open, had been spent; −1 where it was not. */
  readonly spentAt: number;
}

/** A pattern that heard the press and lapsed. */
export interface Lapse {
  readonly pattern: number;
  readonly frame: number;
  /** Place in LAPSE_REASONS. */
  readonly reason: number;
}

/**
 * The fate of one press edge. `used`: a move was performed or a prompt answered with it. `lost`: at least one request had
 * it, and none was performed. `fired`: patterns fired with it, and nothing was asked. `lapsed`: patterns heard it and
 * lapsed. `unheard`: no pattern heard it, or none that did has ended yet.
 */
export interface Fate {
  readonly control: number;
  readonly frame: number;
  readonly outcome: "used" | "lost" | "fired" | "lapsed" | "unheard";
  readonly uses: readonly Use[];
  readonly losses: readonly Loss[];
  readonly fires: readonly { readonly pattern: number; readonly frame: number }[];
  readonly lapses: readonly Lapse[];
  /** The pattern or prompt that kept the press from other rules; undefined where nothing did. */
  readonly kept: { readonly kind: "pattern" | "prompt"; readonly index: number } | undefined;
}

/** The reasons of a loss to another request or another move. */
const WAYS_GIVEN: ReadonlySet<LossReason> = new Set(["replaced", "beaten", "busy"]);

/** Did the request give way to another one? `reason`: a place in LOSS_REASONS. */
export function gaveWay(reason: number): boolean {
  return WAYS_GIVEN.has(LOSS_REASONS[reason]!);
}

const BEATEN = LOSS_REASONS.indexOf("beaten");

/** Does `because` of the loss name a gate? */
export function isOfGate({ reason }: Pick<Loss, "reason">): boolean {
  return LOSS_REASONS[reason] === "gate" || LOSS_REASONS[reason] === "ban";
}

/** Returns the losses that say why the press was lost: those to another move that used it only where there are no others. */
export function tellingLosses(fate: Fate): readonly Loss[] {
  const telling = fate.losses.filter(({ reason }) => reason !== BEATEN);
  return telling.length > 0 ? telling : fate.losses;
}

/** Returns the last of the losses that say why; undefined for a press that no request lost. */
export function tellingLoss(fate: Fate): Loss | undefined {
  return tellingLosses(fate).at(-1);
}

/** Returns the moves that a lost press was lost for, each once; none for a press with any other fate. */
export function lostMovesOf(fate: Fate): readonly number[] {
  return fate.outcome === "lost" ? [...new Set(tellingLosses(fate).map(({ move }) => move))] : [];
}

/** Returns the moves, or the prompts, that used a press, each once, in order of their places. */
export function usersOf(fate: Fate, kind: Use["kind"]): readonly number[] {
  const used = fate.uses.filter(use => use.kind === kind).map(({ index }) => index);
  return [...new Set(used)].sort((a, b) => a - b);
}
