import { BOUNDS } from "../formats/bounds";
import { askableNotes } from "../trace/noteKinds";
import type { AskedEvent, KeptEvent } from "./askedEvent";
import type { Check } from "./checksSchema";
import type { Expectation } from "./expectations/kinds";
import { expectationOf, expectationRecord } from "./expectations/kinds";

/** Returns a check with an id replaced, after an item of a list of the kit was renamed. */
export function renameInCheck(
  check: Check,
  list: "controls" | "patterns" | "moves" | "gates" | "prompts",
  from: string,
  to: string,
): Check {
  const swap = (id: string) => (id === from ? to : id);
  const inWhy = (why: unknown): unknown =>
    Array.isArray(why)
      ? why.map(inWhy)
      : list === "gates" && typeof why === "string"
        ? why.replace(/^(gate|ban):(.*)$/s, (_, word: string, gate: string) => `${word}:${swap(gate)}`)
        : why;
  const renamed = expectationRecord(expectationOf(check)).rename(check, {
    event(event) {
      const id = askableNotes[event.kind].list === list ? swap(event.id) : event.id;
      return { ...event, id, ...("why" in event ? { why: inWhy(event.why) } : {}) } as AskedEvent;
    },
    kept([f, kind, id, ...rest]) {
      return [f, kind, askableNotes[kind].list === list ? swap(id) : id, ...rest] as unknown as KeptEvent;
    },
    id: (own, id) => (own === list ? swap(id) : id),
  });
  return renamed as Check;
}

/**
 * Returns a check converted to a new rate of its kit, both in Hz: frames are converted so that they keep
 * their time in the takes. Times in ms are unchanged. No frame exceeds the longest take.
 */
export function changeCheckRate(check: Check, fromHz: number, toHz: number): Check {
  const inFrames = (f: number) => Math.min(BOUNDS.frames, Math.round((f * toHz) / fromHz));
  const time = (written: string) => (written.endsWith("f") ? `${inFrames(parseInt(written, 10))}f` : written);
  const { times, changeRate } = expectationRecord(expectationOf(check));
  const written = check as Readonly<Record<string, unknown>>;
  const converted = Object.fromEntries(
    ["from", "to", ...times].flatMap(field => {
      const value = written[field];
      return typeof value === "string" ? [[field, time(value)]] : [];
    }),
  );
  const changed = { ...check, ...converted };
  return (changeRate ? changeRate(changed as Expectation, inFrames) : changed) as Check;
}
