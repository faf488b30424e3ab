/** Measurements of a session's input. Times in ms. */
export interface SessionFigures {
  readonly repeatsDropped: number;
  /**
   * The shortest press and the shortest gap between two presses of one control, as reported by the device;
   * undefined before the first.
   */
  readonly shortestPressMs: number | undefined;
  readonly shortestGapMs: number | undefined;
  /** The number of presses shorter than a frame that were extended to one frame. */
  readonly stretched: number;
  /** The delays from the device's time of an event until its frame was run. */
  readonly delaysMs: readonly number[];
  /** The intervals between animation frames, and between two reads of the pads. */
  readonly turnsMs: readonly number[];
  readonly readsMs: readonly number[];
}

const KEPT = 400;

/** Collects measurements while a session runs. */
export interface FigureKeeper {
  readonly repeat: () => void;
  /** Reports that a control went down or up at a device's time, and its frame. */
  readonly edge: (
    controlId: string,
    isDown: boolean,
    timeMs: number,
    frame: number,
    isStretched: boolean,
  ) => void;
  /** Reports that frames up to this one were run, at a time. */
  readonly ran: (frame: number, nowMs: number) => void;
  readonly turn: (nowMs: number) => void;
  readonly padsRead: (nowMs: number) => void;
  readonly read: () => SessionFigures;
}

function least(a: number | undefined, b: number): number {
  return a === undefined ? b : Math.min(a, b);
}

function keep(list: number[], value: number): void {
  list.push(value);
  if (list.length > KEPT) list.shift();
}

export function createFigureKeeper(): FigureKeeper {
  const downAt = new Map<string, number>();
  const upAt = new Map<string, number>();
  const waiting: { frame: number; timeMs: number }[] = [];
  const delaysMs: number[] = [];
  const turnsMs: number[] = [];
  const readsMs: number[] = [];
  let repeatsDropped = 0;
  let stretched = 0;
  let shortestPressMs: number | undefined;
  let shortestGapMs: number | undefined;
  let lastTurnMs: number | undefined;
  let lastReadMs: number | undefined;
  return {
    repeat: () => repeatsDropped++,
    edge(controlId, isDown, timeMs, frame, isStretched) {
      if (isStretched) stretched++;
      waiting.push({ frame, timeMs });
      if (isDown) {
        const up = upAt.get(controlId);
        if (up !== undefined) shortestGapMs = least(shortestGapMs, timeMs - up);
        downAt.set(controlId, timeMs);
        return;
      }
      const down = downAt.get(controlId);
      if (down !== undefined) shortestPressMs = least(shortestPressMs, timeMs - down);
      upAt.set(controlId, timeMs);
    },
    ran(frame, nowMs) {
      while (waiting.length > 0 && waiting[0]!.frame <= frame)
        keep(delaysMs, nowMs - waiting.shift()!.timeMs);
    },
    turn(nowMs) {
      if (lastTurnMs !== undefined) keep(turnsMs, nowMs - lastTurnMs);
      lastTurnMs = nowMs;
    },
    padsRead(nowMs) {
      if (lastReadMs !== undefined) keep(readsMs, nowMs - lastReadMs);
      lastReadMs = nowMs;
    },
    read: () => ({
      repeatsDropped,
      shortestPressMs,
      shortestGapMs,
      stretched,
      delaysMs: delaysMs.slice(),
      turnsMs: turnsMs.slice(),
      readsMs: readsMs.slice(),
    }),
  };
}
