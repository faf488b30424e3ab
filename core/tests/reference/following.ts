import type { Event } from "./patterns";
import { once, round, type Course, type Followed, type States } from "./course";

// Step 6 of a frame: patterns, each with the controls as it sees them.

/** Returns the steps made so far, for a lapse. */
export const reachedOf = ({ watcher }: Followed) => (watcher.reached ? { reached: watcher.reached() } : {});

export function reportLapse(
  course: Course,
  { pattern }: Followed,
  { why, reached }: { why: string; reached?: number },
): void {
  course.report("lapsed", pattern.id, { why, ...(reached === undefined ? {} : { reached }) });
}

function hiddenFrom(course: Course, item: Followed): Set<string> {
  const hidden = new Set<string>();
  if (item.pattern.captures !== true) {
    for (const other of course.followed)
      if (other.pattern.captures === true && course.isActive(other.pattern))
        for (const id of other.controls) hidden.add(id);
  }
  for (const prompt of course.kit.prompts ?? []) {
    if (course.showings.get(prompt.id)?.opened === undefined || prompt.ask.includes(item.pattern.id))
      continue;
    for (const id of prompt.captures ?? []) hidden.add(id);
  }
  return hidden;
}

/** Updates the controls a pattern sees as up; returns whether one it saw down was hidden. */
function veil(course: Course, item: Followed): boolean {
  const hidden = hiddenFrom(course, item);
  let startsOver = false;
  for (const { id } of course.kit.controls) {
    const was = course.downAt(id, course.f - 1);
    const isDown = course.downAt(id, course.f);
    if (item.veiled.has(id)) {
      if (!was && !(hidden.has(id) && isDown)) item.veiled.delete(id);
      continue;
    }
    if (!hidden.has(id) || !isDown) continue;
    item.veiled.add(id);
    if (was && item.controls.includes(id)) startsOver = true;
  }
  return startsOver;
}

function watch(
  course: Course,
  item: Followed,
  f: number,
  was: States,
  now: States,
  isMuted: boolean,
  startsOver = false,
): void {
  const { watcher, view, pattern } = item;
  view.goTo(f, was, now);
  let event: Event = {};
  const isOver = startsOver && item.phase === "forming";
  const reached = reachedOf(item);
  if (startsOver) watcher.startOver(view, isOver);
  const stepped = watcher.step(view);
  if (isOver) {
    const cancel = "cancel" in pattern ? pattern.cancel : undefined;
    const isCancelled = view.isAnyPressed(cancel);
    event = { lapses: { why: isCancelled ? "cancelled" : "hidden", ...reached } };
  } else event = stepped;
  if (event.fires) item.fired = { edges: once(event.fires.edges), carries: event.fires.carries ?? {} };
  if (event.fires) item.phase = "fired";
  else if (event.lapses) item.phase = "lapsed";
  else if (watcher.isSustained(view)) item.phase = "sustained";
  else item.phase = watcher.isForming(view) ? "forming" : "idle";
  watcher.close?.(item.phase === "forming");
  if (isMuted) return;
  item.event = event;
  if (event.lapses) reportLapse(course, item, event.lapses);
  if (!event.fires) return;
  const carries = Object.entries(item.fired!.carries).map(([name, value]) => [name, round(value)]);
  course.report("fired", pattern.id, { edges: item.fired!.edges, ...Object.fromEntries(carries) });
}

/**
 * Handles presses that are down when a pattern becomes active: seen as up until released, or carried from
 * their start.
 */
function welcome(course: Course, item: Followed): void {
  const carries = item.arrives === "carrying";
  item.arrives = undefined;
  const hidden = hiddenFrom(course, item);
  item.veiled.clear();
  for (const { id } of course.kit.controls)
    if (course.downAt(id, course.f - 1) && (!carries || hidden.has(id))) item.veiled.add(id);
  if (!carries) return;
  const carried = course.kit.controls
    .map(({ id }) => id)
    .filter(id => course.downAt(id, course.f - 1) && !item.veiled.has(id));
  let from = course.f;
  for (const id of carried) {
    let press = course.f - 1;
    while (course.downAt(id, press - 1)) press--;
    from = Math.min(from, press);
  }
  const seen = (f: number): States =>
    Object.fromEntries(
      course.kit.controls.map(({ id }) => [id, carried.includes(id) && course.isDownThrough(id, f)]),
    );
  for (let f = from; f < course.f; f++) watch(course, item, f, f === from ? {} : seen(f - 1), seen(f), true);
  course.phasesBefore.set(item.pattern.id, item.phase);
}

/** Steps every active pattern. */
export function stepPatterns(course: Course): void {
  for (const item of course.followed) {
    if (item.pattern.off) continue;
    if (item.arrives) welcome(course, item);
    const startsOver = veil(course, item);
    if (!course.isActive(item.pattern)) continue;
    const seen = (f: number): States =>
      Object.fromEntries(
        course.kit.controls.map(({ id }) => [id, course.downAt(id, f) && !item.veiled.has(id)]),
      );
    watch(course, item, course.f, seen(course.f - 1), seen(course.f), false, startsOver);
  }
}
