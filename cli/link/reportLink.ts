import { eventNotes, formatEventWords, gateName, landingFrame, nameOf, type Kit } from "#core";
import { slugOf } from "#handover";
import {
  addCounts,
  countDifferences,
  createComparison,
  explainDifference,
  formatCounts,
  formatDifference,
  framesLater,
  type DifferenceCounts,
  type GameFrame,
  type HostedTake,
  type LinkEvent,
  type PairedAct,
} from "#link";

/** The sums of a link so far, and the listeners that make them. */
export interface LinkReport {
  readonly onTake: (take: HostedTake) => void;
  readonly onFrames: (take: HostedTake, frames: readonly GameFrame[], events: readonly LinkEvent[]) => void;
  readonly onEnd: (take: HostedTake) => void;
  readonly counts: DifferenceCounts;
  /** The largest difference that both sides performed, in frames; Infinity if only one side did. */
  readonly largestFrames: number;
  /** The number of takes that ended, and of acts that games reported. */
  readonly takes: number;
  readonly acts: number;
}

const NONE: DifferenceCounts = { agreed: 0, apart: 0, onlyGame: 0, onlyRules: 0 };

/** Formats an event as a line: its frame, the name of its subject, and what became of it. */
function formatLine(kit: Kit, event: LinkEvent): string {
  const { list } = eventNotes[event.kind];
  const name = list === "gates" ? gateName(kit, event.id) : nameOf(kit, list, event.id);
  return `${event.f}f ${name}: ${formatEventWords(event, kit)}`;
}

/**
 * Reports what comes over a link in lines: the events for a game that asks, the differences for one that performs by its own
 * input code. `isQuiet` leaves out the events.
 */
export function createLinkReport(kit: Kit, print: (line: string) => void, isQuiet: boolean): LinkReport {
  let comparison = createComparison(kit.rate);
  let events: LinkEvent[] = [];
  let hasActs = false;
  let counts = NONE;
  let largestFrames = 0;
  let takes = 0;
  let acts = 0;

  const reportPair = (pair: PairedAct) => {
    counts = addCounts(counts, countDifferences([pair]));
    const later = framesLater(pair);
    largestFrames = Math.max(largestFrames, Math.abs(later ?? Infinity));
    if (later === 0) return;
    const why = explainDifference(kit, events, pair);
    const frame = Math.min(pair.game ?? Infinity, pair.rules ?? Infinity);
    print(`${frame}f ${nameOf(kit, "moves", pair.id)}: ${formatDifference(pair)}${why ? `: ${why}` : ""}`);
  };

  /** Rules are compared only with a game that has input code of its own. */
  const settle = (frame: number) => {
    const pairs = comparison.settle(frame);
    if (hasActs) pairs.forEach(reportPair);
  };

  return {
    get counts() {
      return counts;
    },
    get largestFrames() {
      return largestFrames;
    },
    get takes() {
      return takes;
    },
    get acts() {
      return acts;
    },
    onTake({ game }) {
      comparison = createComparison(kit.rate);
      events = [];
      hasActs = !game.asks;
      print(`take ${takes + 1} begins`);
    },
    onFrames({ game }, frames, found) {
      for (const { f, did } of frames) {
        for (const { id } of did ?? []) {
          acts++;
          hasActs = true;
          comparison.addAct(id, landingFrame(f, kit.rate, game.rate));
        }
      }
      events.push(...found);
      for (const event of found) {
        if (event.kind === "performed") comparison.addRules(event.id, event.f);
        if (game.asks && !isQuiet) print(formatLine(kit, event));
      }
      settle(landingFrame(frames.at(-1)!.f, kit.rate, game.rate));
    },
    onEnd({ taken }) {
      settle(Infinity);
      takes++;
      print(`take ${takes} ended after ${taken.frames}f${hasActs ? `: ${formatCounts(counts)}` : ""}`);
    },
  };
}

/** Returns the name of the file of a take: its number and its player. */
export const takeFileName = (n: number, player: string | undefined) =>
  `${String(n).padStart(3, "0")}-${slugOf(player ?? "") || "linked"}.json`;
