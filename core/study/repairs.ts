import { ownValue } from "../formats/ownValue";
import type { PathStep } from "../formats/issue";
import type { Take } from "../input/takeSchema";
import { readAt, writeAt } from "../kit/editAt";
import type { Kit, Pattern } from "../kit/schema";
import { traitsOf } from "../patterns/recordOf";
import type { Rounding } from "../time/duration";
import { LAPSE_REASONS, LOSS_REASONS, type LapseReason } from "../trace/trace";
import type { Fate } from "./outcomes/fate";
import { prepareBare, type PrepareRun } from "./prepareRun";
import type { Price } from "./price";
import { createTrier, searchSmallest, type Lever } from "./tryChange";

/** The smallest change of one number that saves a press, verified by running the take again. */
export interface Repair {
  /** The change of the number, in frames. */
  readonly byFrames: number;
  readonly path: readonly PathStep[];
  /** The length as written ("0f" if absent), and its new value. */
  readonly from: string;
  readonly to: string;
  /** Other effects of the change, over all given takes. */
  readonly price: Price;
}

function lever(path: readonly PathStep[], rounding: Rounding, direction: 1 | -1, base = "0f"): Lever {
  return { path, rounding, direction, base };
}

/** Returns the numbers of a move that caused a loss. */
function leversOfLoss(kit: Kit, fate: Fate): Lever[] {
  return fate.losses.flatMap(loss => {
    const base = ["moves", loss.move] as const;
    const buffer = lever([...base, "buffer"], "atMost", 1);
    const needs = (kit.moves![loss.move]!.needs ?? []).map((_, k) =>
      lever([...base, "needs", k, "coyote"], "atMost", 1),
    );
    switch (LOSS_REASONS[loss.reason]!) {
      case "gate": {
        const gate = (kit.gates ?? [])[loss.because];
        const spent = gate ? [lever(["gates", loss.because, "spentFor"], "atLeast", -1)] : [];
        return [buffer, ...needs, ...spent];
      }
      case "cooldown":
        return [buffer, lever([...base, "cooldown"], "atLeast", -1)];
      case "late":
      case "ban":
      case "busy":
      case "uses":
        return [
          buffer,
          ...(kit.moves![loss.move]!.defer === undefined ? [] : [lever([...base, "defer"], "atLeast", -1)]),
        ];
      default:
        return [];
    }
  });
}

/** Returns the numbers of a pattern that caused a lapse. */
function leversOfLapse(pattern: Pattern, i: number, why: LapseReason): Lever[] {
  return (traitsOf(pattern.kind).levers?.(pattern, why) ?? []).map(({ path, rounding, direction, base }) =>
    lever(["patterns", i, ...path], rounding, direction, base),
  );
}

function leversOf(kit: Kit, fate: Fate): Lever[] {
  if (fate.outcome === "lost") return leversOfLoss(kit, fate);
  if (fate.outcome !== "lapsed") return [];
  const reasons = new Set(["too-short", "too-long", "too-slow"]);
  return fate.lapses.flatMap(({ pattern, reason }) =>
    reasons.has(LAPSE_REASONS[reason]!)
      ? leversOfLapse(kit.patterns[pattern]!, pattern, LAPSE_REASONS[reason]!)
      : [],
  );
}

/** Frames run after the loss while searching; a saved press is used within this time. */
const MARGIN_FRAMES = 120;

/** Options of a search for repairs. */
export interface RepairSearch {
  /** The maximum change of each number, in frames; default half a second. */
  readonly mostFrames?: number;
  /** Prepares a kit for running, for kits with a stage; default without one. */
  readonly prepare?: PrepareRun;
  /** Whether to return only the repair with the fewest frames, which takes a shorter search. */
  readonly isNearestOnly?: boolean;
  /** Further takes to include in the price, in addition to the press's own. */
  readonly others?: readonly Take[];
}

/**
 * Searches for changes that would have saved a lost or lapsed press, nearest first. Every number that caused
 * it is changed frame by frame and the take run again; the smallest change of each number that saves the
 * press is a repair, with its other effects. Ties keep the order of the reasons. Empty if no single number
 * within reach saves it, or the press needs no saving. Yields after every run, so that it can be cancelled.
 */
export function* searchRepairs(
  kit: Kit,
  take: Take,
  fate: Fate,
  {
    mostFrames = Math.ceil(kit.rate / 2),
    prepare = prepareBare,
    isNearestOnly = false,
    others = [],
  }: RepairSearch = {},
): Generator<undefined, Repair[]> {
  const lastFrame = Math.max(
    fate.frame,
    ...fate.losses.map(loss => loss.frame),
    ...fate.lapses.map(lapse => lapse.frame),
  );
  const shortFrames = ((lastFrame + mostFrames + MARGIN_FRAMES) * take.rate) / kit.rate;
  // Takes are cut to the frames in which the press must be used, and run in full only for the price.
  const near = createTrier(kit, [{ ...take, frames: Math.min(take.frames, shortFrames) }], prepare);
  const whole = createTrier(kit, [take, ...others], prepare);
  if (!near || !whole) return [];
  const wanted = [{ take: 0, control: fate.control, frame: fate.frame }];
  const found: Repair[] = [];
  const seen = new Set<string>();
  for (const lever of leversOf(kit, fate)) {
    if (seen.has(lever.path.join())) continue;
    seen.add(lever.path.join());
    const most = isNearestOnly && found[0] ? found[0].byFrames - 1 : mostFrames;
    const search = searchSmallest(near, kit, lever, wanted, most);
    let step = search.next();
    while (!step.done) {
      yield;
      step = search.next();
    }
    if (!step.value) continue;
    const { byFrames, from, to } = step.value;
    const tried = whole.tryChange(writeAt(kit, lever.path, to), wanted);
    yield;
    // A cut take may save a press that the complete take does not.
    if (!tried || tried.saved.length === 0) continue;
    if (isNearestOnly) found.length = 0;
    found.push({ byFrames, path: lever.path, from, to, price: tried.price });
  }
  return found.sort((a, b) => a.byFrames - b.byFrames);
}

/** Runs `searchRepairs` to its end and returns the repairs. */
export function findRepairs(kit: Kit, take: Take, fate: Fate, search?: RepairSearch): Repair[] {
  const steps = searchRepairs(kit, take, fate, search);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** The words for a number of the kit, by the last field of its path. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  buffer: "buffer",
  coyote: "coyote",
  max: "allow",
  for: "hold for",
  min: "charge from",
  full: "be full at",
  gap: "allow a gap of",
  spread: "allow a spread of",
  within: "allow a spread of",
  after: "wait only",
  total: "allow in all",
  limit: "allow up to",
  cooldown: "cool down for",
  defer: "wait only",
  spentFor: "stay spent for",
};

/**
 * Formats a repair as an offer with the rule it changes: "Hop: buffer 9f instead of 6f". `formatPrice`
 * formats its price.
 */
export function formatRepair(kit: Kit, { path, from, to }: Repair): string {
  const field = String(path.findLast(step => typeof step === "string"));
  const rule = readAt(kit, path.slice(0, 2)) as { readonly id: string; readonly name: string };
  const step = path[2] === "steps" ? `, step ${Number(path[3]) + 1}` : "";
  return `${rule.name || rule.id}${step}: ${ownValue(FIELD_WORDS, field) ?? field} ${to} instead of ${from}`;
}
