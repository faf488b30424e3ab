import { BOUNDS, type Mapping, type Take } from "#core";

/** So many things that were not understood are told one by one; the rest is counted. */
const MOST_TOLD = 20;

/** What came of a recording: the take, and what of it was not understood, with its place. */
export interface ReadRecording {
  readonly take: Take;
  readonly notes: readonly string[];
}

/** A take that grows, change by change, as a recording is read. */
export interface Recording {
  /** A control's value from a time on, in frames of the take; times of one control that run back are told and left out. */
  readonly set: (source: string, x: number, value: number, place: string) => void;
  /** Something that was not understood, and where. */
  readonly note: (words: string) => void;
  /** The take so far: as long as its last change and a second more, or to an end that is known. */
  readonly finish: (
    named: { readonly id: string; readonly name: string; readonly kit?: string },
    end?: number,
  ) => ReadRecording;
}

/** Begins a recording that is read by a mapping. Sources that the mapping does not know are told once each, with how often they came. */
export function createRecording({ rate, controls }: Mapping): Recording {
  const lanes = new Map<string, [number, number][]>();
  const strangers = new Map<string, { count: number; first: string }>();
  const notes: string[] = [];
  let untold = 0;
  let last = 0;
  const note = (words: string) => {
    if (notes.length < MOST_TOLD) notes.push(words);
    else untold++;
  };
  return {
    note,
    set(source, x, value, place) {
      const control = Object.hasOwn(controls, source) ? controls[source] : undefined;
      if (control === undefined) {
        const known = strangers.get(source) ?? { count: 0, first: place };
        known.count++;
        strangers.set(source, known);
        return;
      }
      if (!Number.isFinite(x) || x < 0) return note(`${place}: ${x} is no time`);
      if (x > BOUNDS.frames - rate) return note(`${place}: ${x} frames are more than a take may have`);
      const lane = lanes.get(control) ?? [];
      lanes.set(control, lane);
      const before = lane.at(-1);
      if (before && x < before[0])
        return note(`${place}: ${source} goes back in time, to ${x} frames from ${before[0]}`);
      last = Math.max(last, x);
      if ((before?.[1] ?? 0) === value) return;
      if (before?.[0] === x) before[1] = value;
      else lane.push([x, value]);
    },
    finish({ id, name, kit }, end) {
      const told = [...strangers].map(
        ([source, { count, first }]) =>
          `${first}: “${source}” plays no control here; ${count} ${count === 1 ? "value was" : "values were"} left out`,
      );
      return {
        take: {
          format: "moss-tap/take",
          version: 1,
          id,
          name,
          ...(kit === undefined ? {} : { kit }),
          rate,
          frames: Math.min(BOUNDS.frames, Math.ceil(end ?? last + rate)),
          lanes: Object.fromEntries(lanes),
        },
        notes: [...notes, ...(untold > 0 ? [`and ${untold} more places like these`] : []), ...told],
      };
    },
  };
}

const WORDS: Readonly<Record<string, number>> = {
  down: 1,
  pressed: 1,
  press: 1,
  on: 1,
  true: 1,
  yes: 1,
  up: 0,
  released: 0,
  release: 0,
  off: 0,
  false: 0,
  no: 0,
  "": 0,
};

/** A cell as a value from 0 to 1: a number in that range, or a word for down or up; undefined for anything else. */
export function readCell(cell: string): number | undefined {
  const written = cell.trim().toLowerCase();
  if (Object.hasOwn(WORDS, written)) return WORDS[written];
  const value = Number(written.replace(",", "."));
  return value >= 0 && value <= 1 ? value : undefined;
}

/** Seconds of each unit of time; frames are the rate's. */
export const SECONDS = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9 } as const;

/** A time in a unit as frames of a rate. A time that is a whole number of millionths of a frame stays exactly that. */
export function toFrames(time: number, unit: NonNullable<Mapping["unit"]>, rateHz: number): number {
  if (unit === "frames") return time;
  return Math.round(time * SECONDS[unit] * rateHz * 1e6) / 1e6;
}
