import type { Course } from "./course";
import { endShowing } from "./prompts";
import { reachedOf, reportLapse } from "./following";
import { loseAll } from "./moves";

// Step 4 of a frame: the mode.

/** Changes the mode by the first switch that applies, and retires and activates rules. */
export function stepMode(course: Course): void {
  if (course.mode === undefined) return;
  const found = (course.kit.switches ?? []).find(({ when }) =>
    "move" in when
      ? course.f > 0 && course.performedAt.get(when.move) === course.f - 1
      : course.turnsTo(when.gate, when.turns === "open"),
  );
  const from = course.mode;
  const to = found?.to ?? from;
  if (to !== from || course.f === 0) course.report("mode", to);
  if (to === from) return;
  course.mode = to;
  for (const item of course.followed) {
    if (item.pattern.off || course.isActive(item.pattern)) continue;
    if (!course.isActive(item.pattern, from)) continue;
    if (item.phase === "forming") reportLapse(course, item, { why: "mode", ...reachedOf(item) });
    Object.assign(item, course.follow(item.pattern), { veiled: item.veiled });
  }
  for (const move of course.kit.moves ?? []) {
    if (!course.isActive(move)) loseAll(course, request => request.move === move, "mode");
  }
  for (const prompt of course.kit.prompts ?? [])
    if (!course.isActive(prompt) && course.showings.has(prompt.id))
      endShowing(course, prompt, "failed", "mode");
  const carries = course.kit.modes!.find(({ id }) => id === to)!.carry === true;
  for (const item of course.followed) {
    if (!course.isActive(item.pattern) || course.isActive(item.pattern, from)) continue;
    item.arrives = carries ? "carrying" : "anew";
  }
}
