import type { Move } from "../../kit/schema";
import type { Course } from "./course";

// The phases of moves, at the end of a frame.

/** Returns the part of a timeline that holds an age; "over" past its end. */
function phaseAt(course: Course, { frames }: Move, age: number): string {
  let end = 0;
  for (const part of ["startup", "active", "recovery"] as const) {
    end += course.lengths.atLeast(frames?.[part]);
    if (age < end) return part;
  }
  return "over";
}

/** Reports each part of a timeline that begins on this frame, and each timeline that is cut short. */
export function reportPhases(course: Course): void {
  const events: { move: Move; phase: string }[] = [];
  for (const [slot, { move, at }] of course.timelines) {
    const before = course.phased.get(slot);
    if (before && before.at !== at) events.push({ move: before.move, phase: "cut" });
    const phase = phaseAt(course, move, course.age(move.clock, at));
    const isNew = before?.at !== at;
    if (isNew ? at === course.f && phase !== "over" : phase !== before.phase) events.push({ move, phase });
    if (phase === "over") course.phased.delete(slot);
    else course.phased.set(slot, { move, at, phase });
  }
  for (const move of course.kit.moves ?? [])
    for (const event of events)
      if (event.move === move) course.report("phase", move.id, { phase: event.phase });
}
