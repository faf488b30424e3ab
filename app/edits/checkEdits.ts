import { BOUNDS, type AskedEvent, type Check, type KeptEvent } from "#core";
import type { IdList } from "./renameId";

/** The list of a kit that contains the subject of each kind of event. */
const LISTS: Readonly<Record<AskedEvent["kind"], IdList | undefined>> = {
  performed: "moves",
  lost: "moves",
  fired: "patterns",
  lapsed: "patterns",
  prompt: "prompts",
  gate: "gates",
  mode: undefined,
};

/** Returns a check with an id replaced, after an item of the kit was renamed. */
export function renameInCheck(check: Check, list: IdList, from: string, to: string): Check {
  const swap = (id: string) => (id === from ? to : id);
  const inWhy = (why: unknown): unknown =>
    Array.isArray(why)
      ? why.map(inWhy)
      : list === "gates" && typeof why === "string"
        ? why.replace(/^(gate|ban):(.*)$/s, (_, word: string, gate: string) => `${word}:${swap(gate)}`)
        : why;
  const inEvent = (event: AskedEvent): AskedEvent => {
    const id = LISTS[event.kind] === list ? swap(event.id) : event.id;
    return { ...event, id, ...("why" in event ? { why: inWhy(event.why) } : {}) } as AskedEvent;
  };
  const inKept = (kept: KeptEvent): KeptEvent => {
    if (LISTS[kept[1]] !== list || kept[2] !== from) return kept;
    return kept[1] === "performed" ? [kept[0], kept[1], to] : [kept[0], kept[1], to, kept[3]];
  };
  if ("happens" in check) return { ...check, happens: inEvent(check.happens) };
  if ("never" in check) return { ...check, never: inEvent(check.never) };
  if ("counts" in check) return { ...check, counts: inEvent(check.counts) };
  if ("order" in check) return { ...check, order: check.order.map(inEvent) };
  if ("same" in check) return { ...check, same: check.same.map(inKept) };
  return {
    ...check,
    ...(list === "controls" ? { answers: swap(check.answers) } : {}),
    ...(list === "moves" && check.move !== undefined ? { move: swap(check.move) } : {}),
  };
}

/**
 * Returns a check converted to a new rate: frames are converted so that they keep their time in the takes.
 * Times in ms are unchanged. No frame exceeds the longest take.
 */
export function changeCheckRate(check: Check, fromHz: number, toHz: number): Check {
  const inFrames = (f: number) => Math.min(BOUNDS.frames, Math.round((f * toHz) / fromHz));
  const time = (written: string) => (written.endsWith("f") ? `${inFrames(parseInt(written, 10))}f` : written);
  const fields = ["from", "to", "at", "within", "slip"] as const;
  const times = fields.flatMap(field => {
    const written = (check as { readonly [key in (typeof fields)[number]]?: string })[field];
    return written === undefined ? [] : [[field, time(written)] as const];
  });
  const same = "same" in check ? { same: check.same.map(([f, ...rest]) => [inFrames(f), ...rest]) } : {};
  return { ...check, ...Object.fromEntries(times), ...same } as Check;
}
