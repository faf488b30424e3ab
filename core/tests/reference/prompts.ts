import type { Prompt } from "../../kit/schema";
import type { Course, Followed } from "./course";

// Steps 5 and 7 of a frame: prompts are shown, and judged.

/** Returns the pattern that a showing asks for, by whole numbers of any size. */
function draw(course: Course, { id, draw, ask }: Prompt): string | undefined {
  if (draw === undefined) return undefined;
  const k = course.showingCounts.get(id) ?? 0;
  course.showingCounts.set(id, k + 1);
  const from = ask.filter(name => !course.followed.find(item => item.pattern.id === name)!.pattern.off);
  if (from.length === 0) return undefined;
  const size = 2n ** 32n;
  let h = (BigInt(draw) + 0x9e3779b9n * BigInt(k + 1)) % size;
  h = ((h ^ (h >> 16n)) * 0x85ebca6bn) % size;
  h = ((h ^ (h >> 13n)) * 0xc2b2ae35n) % size;
  h ^= h >> 16n;
  return from[Number(h % BigInt(from.length))];
}

function isCalled(course: Course, prompt: Prompt): boolean {
  const { starts } = prompt;
  if ("gate" in starts) return course.turnsTo(starts.gate, true);
  if ("prompt" in starts) {
    const outcome = course.outcomes.get(starts.prompt);
    if (outcome?.at !== course.f - 1) return false;
    return starts.on === "any" || (starts.on === "success") === outcome.isSuccess;
  }
  if (course.askedByTime.has(prompt.id)) return false;
  if (course.timeOf(prompt.clock)[course.f]! < course.lengths.atLeast(starts.at)) return false;
  course.askedByTime.add(prompt.id);
  return true;
}

/** Ends a prompt with an outcome. */
export function endShowing(course: Course, prompt: Prompt, outcome: string, why?: string): void {
  course.showings.delete(prompt.id);
  course.outcomes.set(prompt.id, { at: course.f, isSuccess: outcome !== "failed" });
  course.report("prompt", prompt.id, { outcome, ...(why === undefined ? {} : { why }) });
}

/** Ends prompts whose time is over, shows those that are called, and opens their windows. */
export function stepPrompts(course: Course): void {
  const prompts = (course.kit.prompts ?? []).filter(prompt => prompt.off !== true);
  for (const prompt of prompts) {
    const opened = course.showings.get(prompt.id)?.opened;
    if (opened !== undefined && course.age(prompt.clock, opened) > course.lengths.atMost(prompt.window))
      endShowing(course, prompt, "failed", "too-late");
  }
  for (const prompt of prompts) {
    const startsNow = isCalled(course, prompt);
    if (!startsNow || course.showings.has(prompt.id) || !course.isActive(prompt)) continue;
    const drawn = draw(course, prompt);
    course.showings.set(prompt.id, { shown: course.f, drawn });
    course.report("prompt", prompt.id, {
      outcome: "shown",
      ...(drawn === undefined ? {} : { asks: drawn }),
    });
  }
  for (const prompt of prompts) {
    const showing = course.showings.get(prompt.id);
    if (!showing || showing.opened !== undefined) continue;
    if (course.age(prompt.clock, showing.shown) < course.lengths.atLeast(prompt.lead)) continue;
    showing.opened = course.f;
    course.report("prompt", prompt.id, { outcome: "open" });
  }
}

/** Judges the answers of prompts that are open. */
export function judgePrompts(course: Course): void {
  for (const prompt of course.kit.prompts ?? []) {
    const showing = course.showings.get(prompt.id);
    if (!showing) continue;
    const isPressed = (id: string) => course.downAt(id, course.f) && !course.downAt(id, course.f - 1);
    const asked = course.followed.filter(item => prompt.ask.includes(item.pattern.id));
    if (showing.opened === undefined) {
      const early = asked.filter(item => showing.drawn === undefined || item.pattern.id === showing.drawn);
      const watched = early.flatMap(item => item.controls);
      if (prompt.early === "fail" && watched.some(isPressed))
        endShowing(course, prompt, "failed", "too-early");
      continue;
    }
    const from = prompt.early === "allow" ? showing.shown : showing.opened;
    const answers = asked.filter(
      item => item.event.fires && item.fired!.edges.every(edge => edge[1] >= from),
    );
    const isAsked = (item: Followed) => prompt.draw === undefined || item.pattern.id === showing.drawn;
    const answer = answers.find(isAsked);
    if (answer) {
      const off = course.age(prompt.clock, showing.opened) - course.lengths.atLeast(prompt.target);
      const grade = (prompt.grades ?? []).find(({ within, early, late }) =>
        off < 0
          ? -off <= course.lengths.atMost(early ?? within)
          : off <= course.lengths.atMost(late ?? within),
      );
      endShowing(course, prompt, grade?.name ?? "ok");
      course.taken.push(...answer.fired!.edges);
    } else if (prompt.wrong === "fail" && ((prompt.wrongOn ?? []).some(isPressed) || answers.length > 0))
      endShowing(course, prompt, "failed", "wrong");
  }
}
