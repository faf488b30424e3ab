import type { AskedEvent, KeptEvent } from "../checks/askedEvent";
import type { Check } from "../checks/checksSchema";
import type { Verdict } from "../checks/compileCheck";
import type { Kit } from "../kit/schema";
import type { PhasedTraceDocument } from "../trace/traceSchema";

/** A press edge: its control and its frame. */
export type Press = readonly [control: string, frame: number];

/** The input of a check: the events of a trace file, and the cleaned press edges. */
export interface Seen {
  readonly events: PhasedTraceDocument["events"];
  readonly presses: readonly Press[];
  readonly frames: number;
  readonly rateHz: number;
}

const inFrames = (kit: Kit, rateHz: number, written: string) =>
  written.endsWith("ms") ? (parseFloat(written) * rateHz) / 1000 : (parseFloat(written) * rateHz) / kit.rate;

function isMatch(event: Seen["events"][number], asked: AskedEvent): boolean {
  return Object.entries(asked).every(([field, wanted]) => {
    const found = (event as Record<string, unknown>)[field];
    return Array.isArray(wanted) ? wanted.some(one => one === found) : found === wanted;
  });
}

/** Returns the story by its definition: filter, then sort by frame, kind, id. */
function storyOf(events: Seen["events"]): KeptEvent[] {
  const story = events.flatMap((event): KeptEvent[] => {
    if (event.kind === "performed") return [[event.f, "performed", event.id]];
    if (event.kind !== "prompt" || event.outcome === "shown" || event.outcome === "open") return [];
    return [[event.f, "prompt", event.id, event.outcome]];
  });
  const key = ([f, kind, id]: KeptEvent) => `${String(f).padStart(9, "0")} ${kind} ${id}`;
  return story.sort((a, b) => (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : 0));
}

/** Returns the controls of a pattern's attempt or steps. */
function controlsOf(kit: Kit, id: string): readonly string[] {
  const pattern = kit.patterns.find(item => item.id === id)!;
  if ("controls" in pattern) return pattern.controls;
  if ("control" in pattern) return [pattern.control];
  return pattern.steps.flatMap(step => {
    if ("press" in step) return [step.press];
    if ("release" in step) return [step.release];
    if ("hold" in step) return [step.hold];
    if ("together" in step) return step.together;
    const stick = kit.sticks!.find(item => step.dir.startsWith(`${item.id}:`))!;
    return [stick.up, stick.down, stick.left, stick.right];
  });
}

/** Returns whether nothing from one frame to another could have made an event happen. */
function isIdle(kit: Kit, { kind, id }: AskedEvent, seen: Seen, from: number, to: number): boolean {
  const stretch = seen.events.filter(event => event.f >= from && event.f <= to);
  const has = (kinds: readonly string[], of: string) =>
    stretch.some(event => event.id === of && kinds.includes(event.kind));
  if (kind === "performed" || kind === "lost" || kind === "phase")
    return (
      !has(["performed", "lost"], id) && !has(["fired"], kit.moves!.find(move => move.id === id)!.pattern)
    );
  if (kind === "fired" || kind === "lapsed") {
    const controls = controlsOf(kit, id);
    const isPressed = seen.presses.some(([control, f]) => controls.includes(control) && f >= from && f <= to);
    return !has(["fired", "lapsed"], id) && !isPressed;
  }
  if (kind !== "prompt") return from > to;
  const own = seen.events.flatMap(event => (event.kind === "prompt" && event.id === id ? [event] : []));
  for (let f = from; f <= to; f++) {
    const before = own.filter(event => event.f <= f);
    const isOver = before.at(-1) !== undefined && !["shown", "open"].includes(before.at(-1)!.outcome);
    if (before.length > 0 && (!isOver || before.at(-1)!.f === f)) return false;
  }
  return true;
}

/** Judges a check as literally as the rules are written; the fast implementation must agree. */
export function judgeSlowly(kit: Kit, check: Check, seen: Seen): Verdict {
  const verdict = judgeStretch(kit, check, seen);
  if (!verdict.ok) return verdict;
  const when = (written: string) => Math.floor(inFrames(kit, seen.rateHz, written) + 0.5);
  const from = check.from === undefined ? 0 : when(check.from);
  const to = check.to === undefined ? seen.frames - 1 : Math.min(when(check.to), seen.frames - 1);
  const isVacuous =
    from > to ||
    ("never" in check && isIdle(kit, check.never, seen, from, to)) ||
    ("counts" in check && check.min === undefined && isIdle(kit, check.counts, seen, from, to)) ||
    ("answers" in check &&
      !seen.presses.some(([control, f]) => control === check.answers && f >= from && f <= to));
  return isVacuous ? { ...verdict, vacuous: true } : verdict;
}

function judgeStretch(kit: Kit, check: Check, seen: Seen): Verdict {
  const when = (written: string) => Math.floor(inFrames(kit, seen.rateHz, written) + 0.5);
  const leeway = (written: string) => Math.floor(inFrames(kit, seen.rateHz, written) + 1e-9);
  const from = check.from === undefined ? 0 : when(check.from);
  const to = check.to === undefined ? seen.frames - 1 : Math.min(when(check.to), seen.frames - 1);
  const stretch = seen.events.filter(event => event.f >= from && event.f <= to);
  if ("happens" in check) {
    const at = when(check.at);
    const found = stretch.filter(event => isMatch(event, check.happens)).map(event => event.f);
    if (found.length === 0) return { ok: false, why: "never" };
    const least = Math.min(...found.map(f => Math.abs(f - at)));
    const f = Math.min(...found.filter(one => Math.abs(one - at) === least));
    const slip = f - at;
    if (least <= leeway(check.within ?? "0f")) return { ok: true, f, slip };
    return { ok: false, why: slip < 0 ? "early" : "late", f, slip };
  }
  if ("never" in check) {
    const found = stretch.find(event => isMatch(event, check.never));
    return found ? { ok: false, why: "happened", f: found.f } : { ok: true };
  }
  if ("counts" in check) {
    const count = stretch.filter(event => isMatch(event, check.counts)).length;
    if (check.min !== undefined && count < check.min) return { ok: false, why: "too-few", count };
    if (check.max !== undefined && count > check.max) return { ok: false, why: "too-many", count };
    return { ok: true, count };
  }
  if ("order" in check) {
    const left = [...stretch];
    let frame = from;
    let reached = 0;
    for (const asked of check.order) {
      const found = left.findIndex(event => event.f >= frame && isMatch(event, asked));
      if (found < 0) return { ok: false, why: "broken", reached };
      frame = left[found]!.f;
      left.splice(found, 1);
      reached++;
    }
    return { ok: true };
  }
  if ("answers" in check) {
    const isAnswered = ([control, pressed]: Press) =>
      seen.events.some(event => {
        if (event.kind !== "performed" || (check.move !== undefined && event.id !== check.move)) return false;
        const pattern = kit.moves!.find(move => move.id === event.id)!.pattern;
        const isInTime = check.within === undefined || event.f - pressed <= leeway(check.within);
        return seen.events.some(
          fire =>
            fire.kind === "fired" &&
            fire.id === pattern &&
            fire.f === event.made &&
            isInTime &&
            fire.edges.some(edge => edge[0] === control && edge[1] === pressed),
        );
      });
    const presses = seen.presses.filter(
      ([control, frame]) => control === check.answers && frame >= from && frame <= to,
    );
    const missed = presses.filter(press => !isAnswered(press));
    if (missed.length === 0) return { ok: true, count: 0 };
    return { ok: false, why: "unanswered", f: missed[0]![1], count: missed.length };
  }
  const slip = leeway(check.slip ?? "0f");
  const story = storyOf(stretch);
  const kept = check.same.map(([f, ...rest]) => [when(`${f}f`), ...rest] as const);
  const agree = (k: number) =>
    k < story.length &&
    k < kept.length &&
    JSON.stringify(story[k]!.slice(1)) === JSON.stringify(kept[k]!.slice(1)) &&
    Math.abs(story[k]![0] - kept[k]![0]) <= slip;
  let reached = 0;
  while (agree(reached)) reached++;
  if (reached === story.length && reached === kept.length) return { ok: true };
  return { ok: false, why: "differs", f: story[reached]?.[0] ?? kept[reached]![0], reached };
}
