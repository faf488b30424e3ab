import { gateName as nameOfGate, parseFrames, type Kit, type Move } from "#core";
import { createScale, type MapScale } from "./scale";
import type { TakesNow } from "./useTakes";
import { countWindow, listWindowDots, type WindowCounts, type WindowDot } from "./windowDots";

/** The drawn length of the open range: real ones differ, and only its two ends matter here. */
export const OPEN_FRAMES = 14;

type PlacedDot = WindowDot & { readonly of: TakesNow["takes"][number]; readonly take: number };

/** The layout of a window's map. Lengths in frames. */
export interface WindowLayout {
  readonly gateName: string;
  readonly buffer: number;
  readonly coyote: number;
  /** The frames shown before the opening and after the end. */
  readonly before: number;
  readonly after: number;
  readonly scale: MapScale;
  readonly dots: readonly PlacedDot[];
  readonly counts: WindowCounts;
  /** The frames each buffered request waited. */
  readonly waits: readonly number[];
  /** Returns the position of a dot on the scale, in frames. */
  readonly placeOf: (dot: WindowDot) => number;
}

/** Lays out the window of a move around one of its needed gates, with its requests in the takes. */
export function layoutWindow(kit: Kit, move: Move, index: number, need: number, now: TakesNow): WindowLayout {
  const { gate: gateId, coyote: written = "0f" } = move.needs![need]!;
  const gate = now.program.gates.findIndex(item => item.id === gateId);
  const buffer = parseFrames(move.buffer ?? "0f", kit.rate, "atMost") ?? 0;
  const coyote = parseFrames(written, kit.rate, "atMost") ?? 0;
  const dots = now.reads.flatMap((read, take) =>
    listWindowDots(read, index, gate).map(dot => ({ ...dot, of: read.of, take })),
  );
  const before = Math.max(12, Math.ceil(buffer * 1.6) + 3);
  const after = Math.max(12, Math.ceil(coyote * 1.6) + 3);
  return {
    gateName: nameOfGate(kit, gateId),
    buffer,
    coyote,
    before,
    after,
    scale: createScale(-before, OPEN_FRAMES + after - 1),
    dots,
    counts: countWindow(dots, buffer, coyote),
    waits: dots.filter(({ fate }) => fate === "buffer" || fate === "both").map(({ waited }) => waited),
    placeOf({ side, frames }) {
      if (side === "early") return -Math.min(frames, before) + 0.5;
      if (side === "late") return OPEN_FRAMES - 1 + Math.min(frames, after - 1) + 0.5;
      return Math.min(OPEN_FRAMES - 0.5, 0.5 + (OPEN_FRAMES - 1) * (1 - Math.exp(-frames / 20)));
    },
  };
}
