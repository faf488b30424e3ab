import { LAPSE_REASONS, LOSS_REASONS, type FAILURES, type LapseReason, type LossReason } from "./trace";

/** The words for each reason of a lapse, following "lapsed:". The only table of these words. */
export const LAPSE_WORDS: Readonly<Record<LapseReason, string>> = {
  "too-short": "let go too soon",
  "too-long": "held too long",
  "too-slow": "too slow",
  broken: "broken by another press",
  cancelled: "cancelled",
  hidden: "its control was taken away",
  mode: "its mode was over",
};

/** The words for each reason of a loss, following "lost:"; a reason that refers to a gate takes its name. */
export const LOSS_WORDS: Readonly<Record<LossReason, (gate: string) => string>> = {
  gate: gate => `${gate} was not open`,
  ban: gate => `not while ${gate} is open`,
  cooldown: () => "still cooling down",
  uses: () => "no use left",
  busy: () => "another move came first",
  late: () => "too late",
  replaced: () => "a newer press took its place",
  beaten: () => "another move used the press",
  prompt: () => "a prompt took the press",
  mode: () => "its mode was over",
};

/** The words for each reason of a prompt's failure, following "failed:". */
export const FAILURE_WORDS: Readonly<Record<(typeof FAILURES)[number], string>> = {
  "too-late": "too late",
  "too-early": "pressed too early",
  wrong: "the wrong button",
  mode: "its mode was over",
};

/** Returns the words for an index into LAPSE_REASONS. */
export function lapseWords(reason: number): string {
  return LAPSE_WORDS[LAPSE_REASONS[reason]!];
}

/** Returns the words for an index into LOSS_REASONS, with the name of the gate concerned. */
export function lossWords(reason: number, gate = ""): string {
  return LOSS_WORDS[LOSS_REASONS[reason]!](gate);
}

/** Returns the words for a reason by its name in traces, for summaries of several losses. */
export function lossNameWords(name: string): string {
  return Object.hasOwn(LOSS_WORDS, name) ? LOSS_WORDS[name as LossReason]("a gate") : name;
}
