/** The part of the W3C Gamepad interface that is used. */
export interface PadReading {
  readonly index: number;
  readonly id: string;
  readonly mapping: string;
  readonly connected: boolean;
  readonly buttons: readonly { readonly value: number }[];
  readonly axes: readonly number[];
}

/** Whether the browser supports pads, and the connected ones. */
export interface PadsStatus {
  readonly hasApi: boolean;
  readonly pads: readonly { readonly index: number; readonly name: string; readonly isStandard: boolean }[];
}

/** The resolution of analog values, so that the noise of a resting stick does not fill a take. */
const VALUE_PARTS = 128;

function roundValue(value: number): number {
  return Math.round(Math.max(0, Math.min(1, value)) * VALUE_PARTS) / VALUE_PARTS;
}

/**
 * Returns every code of one pad with its value: "pad:0" … for buttons, "pad:axis0+" and "pad:axis0-" for
 * half-axes.
 */
export function readPadCodes(pad: PadReading): Map<string, number> {
  const values = new Map<string, number>();
  pad.buttons.forEach((button, b) => values.set(`pad:${b}`, roundValue(button.value)));
  pad.axes.forEach((axis, a) => {
    values.set(`pad:axis${a}+`, roundValue(axis));
    values.set(`pad:axis${a}-`, roundValue(-axis));
  });
  return values;
}

/** Polls every pad. */
export interface PadPoller {
  /**
   * Reads all pads and reports each code whose value changed: the largest of all pads. A disconnected pad
   * releases its codes.
   */
  readonly poll: (report: (code: string, value: number) => void) => void;
  readonly status: () => PadsStatus;
  /** Forgets the previous values, so that held codes are reported again. */
  readonly reset: () => void;
}

/** Creates a poller of the browser's pads, or of the given reader; undefined means there is no API. */
export function createPadPoller(read: (() => readonly (PadReading | null)[]) | undefined): PadPoller {
  let reported = new Map<string, number>();

  function readAll(): PadReading[] {
    if (!read) return [];
    try {
      return read().filter(pad => pad !== null && pad.connected) as PadReading[];
    } catch {
      // Permission policy may forbid reading pads; treated as no pad.
      return [];
    }
  }

  return {
    poll(report) {
      const now = new Map<string, number>();
      for (const pad of readAll()) {
        for (const [code, value] of readPadCodes(pad)) now.set(code, Math.max(value, now.get(code) ?? 0));
      }
      for (const [code, value] of now) if (value !== (reported.get(code) ?? 0)) report(code, value);
      for (const [code, value] of reported) if (!now.has(code) && value !== 0) report(code, 0);
      reported = now;
    },
    status: () => ({
      hasApi: read !== undefined,
      pads: readAll().map(pad => ({
        index: pad.index,
        name: pad.id.replace(/\s*\([^)]*\)\s*$/, "") || "a pad without a name",
        isStandard: pad.mapping === "standard",
      })),
    }),
    reset: () => (reported = new Map()),
  };
}

/** Returns the browser's own reader, or undefined without the API. */
export function browserPads(): (() => readonly (PadReading | null)[]) | undefined {
  return typeof navigator !== "undefined" && typeof navigator.getGamepads === "function"
    ? () => navigator.getGamepads()
    : undefined;
}
