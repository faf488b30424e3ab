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
  readonly pads: readonly {
    readonly index: number;
    /** The id by which the browser names it. */
    readonly id: string;
    readonly name: string;
    readonly isStandard: boolean;
  }[];
}

/** The resolution of analog values, so that the noise of a resting stick does not fill a take. */
const VALUE_PARTS = 128;

function roundValue(value: number): number {
  return Math.round(Math.max(0, Math.min(1, value)) * VALUE_PARTS) / VALUE_PARTS;
}

/**
 * Returns every code of one pad with its value: "pad:0" … for buttons, "pad:axis0+" and "pad:axis0-" for
 * half-axes. `prefix` replaces "pad", as "pad2" for the second.
 */
export function readPadCodes(pad: PadReading, prefix = "pad"): Map<string, number> {
  const values = new Map<string, number>();
  pad.buttons.forEach((button, b) => values.set(`${prefix}:${b}`, roundValue(button.value)));
  pad.axes.forEach((axis, a) => {
    values.set(`${prefix}:axis${a}+`, roundValue(axis));
    values.set(`${prefix}:axis${a}-`, roundValue(-axis));
  });
  return values;
}

/** Returns the prefix of codes that name a pad by its order, which it keeps while it is connected: "pad1" … */
const numberedPad = ({ index }: PadReading) => `pad${index + 1}`;

/** The value below which a button or half-axis counts as released, for what is ignored until then. */
const RELEASED_BELOW = 0.3;
const NONE: ReadonlySet<number> = new Set();

/** Polls every pad. */
export interface PadPoller {
  /**
   * Reads all pads and reports each code whose value changed: "pad:0" with the largest value of all pads, and for each
   * pad that is named in `numbers`, by its order from 1, "pad1:0" with its own. A disconnected pad releases what it alone
   * held.
   */
  readonly poll: (report: (code: string, value: number) => void, numbers?: ReadonlySet<number>) => void;
  readonly status: () => PadsStatus;
  /** Forgets the previous values, so that held codes are reported again. */
  readonly reset: () => void;
  /** Treats everything held now as up until it has been released. */
  readonly ignoreHeld: () => void;
}

/** Creates a poller of the browser's pads, or of the given reader; undefined means there is no API. */
export function createPadPoller(read: (() => readonly (PadReading | null)[]) | undefined): PadPoller {
  let reported = new Map<string, number>();
  const ignored = new Set<string>();

  /** Returns the value of a code, 0 while it is ignored. */
  function admit(code: string, value: number): number {
    if (value < RELEASED_BELOW) ignored.delete(code);
    return ignored.has(code) ? 0 : value;
  }

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
    poll(report, numbers = NONE) {
      const now = new Map<string, number>();
      for (const pad of readAll()) {
        // Of a code that several pads have, a pad counts whose own press is not ignored.
        const own = readPadCodes(pad, numberedPad(pad));
        for (const [code, value] of own) {
          const admitted = admit(code, value);
          const common = code.replace(/^pad\d+/, "pad");
          now.set(common, Math.max(admitted, now.get(common) ?? 0));
          if (numbers.has(pad.index + 1)) now.set(code, admitted);
        }
      }
      for (const [code, value] of now) if (value !== (reported.get(code) ?? 0)) report(code, value);
      for (const [code, value] of reported) if (!now.has(code) && value !== 0) report(code, 0);
      reported = now;
    },
    status: () => ({
      hasApi: read !== undefined,
      pads: readAll().map(pad => ({
        index: pad.index,
        id: pad.id,
        name: pad.id.replace(/\s*\([^)]*\)\s*$/, "") || "a pad without a name",
        isStandard: pad.mapping === "standard",
      })),
    }),
    reset() {
      reported = new Map();
      ignored.clear();
    },
    ignoreHeld() {
      for (const pad of readAll())
        for (const [code, value] of readPadCodes(pad, numberedPad(pad)))
          if (value >= RELEASED_BELOW) ignored.add(code);
      reported = new Map();
    },
  };
}

/** Returns the browser's own reader, or undefined without the API. */
export function browserPads(): (() => readonly (PadReading | null)[]) | undefined {
  return typeof navigator !== "undefined" && typeof navigator.getGamepads === "function"
    ? () => navigator.getGamepads()
    : undefined;
}
