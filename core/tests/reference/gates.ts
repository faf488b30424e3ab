import type { Gate } from "../../kit/schema";
import type { Course } from "./course";

// Step 3 of a frame: gates.

function opensByTimeline(course: Course, gate: string): boolean {
  for (const [slot, { move, at }] of course.timelines) {
    const age = course.age(move.clock, at);
    const before = age - course.tickOf(move.clock);
    const { startup, active, recovery } = move.frames ?? {};
    const length =
      course.lengths.atLeast(startup) + course.lengths.atLeast(active) + course.lengths.atLeast(recovery);
    if (gate === `busy:${slot}` && age < length) return true;
    for (const opening of move.opens ?? []) {
      const from = course.lengths.atLeast(opening.from);
      if (opening.gate !== gate || age < from) continue;
      const isFirst = course.f === at + 1 || before < from;
      if (isFirst || age <= course.lengths.atMost(opening.to)) return true;
    }
  }
  return false;
}

function isOutputOn(course: Course, gate: string): boolean {
  const move = (course.kit.moves ?? []).find(({ id }) => gate === `out:${id}`);
  const at = move && course.performedAt.get(move.id);
  if (!move || at === undefined || move.linger === undefined) return false;
  let end = course.outputEnds.get(move.id);
  if (end === undefined || end <= at) {
    const { phase } = course.followed.find(item => item.pattern.id === move.pattern)!;
    if (phase === "fired" || phase === "sustained") return true;
    course.outputEnds.set(move.id, (end = course.f));
  }
  return course.age(move.clock, end) < course.lengths.atLeast(move.linger);
}

function lingers(course: Course, { id, linger }: Gate): boolean {
  if (course.isOpen(id)) course.lastSourced.set(id, course.f);
  const last = course.lastSourced.get(id);
  return (
    linger !== undefined && last !== undefined && course.age("game", last) <= course.lengths.atMost(linger)
  );
}

function isDerivedOpen(course: Course, gate: Gate): boolean {
  const { all, any, none, while: pattern } = gate;
  if (all) return all.every(id => course.isOpen(id));
  if (any) return any.some(id => course.isOpen(id));
  if (none) return none.every(id => !course.isOpen(id));
  if (pattern === undefined) return isCountedOpen(course, gate);
  const { phase } = course.followed.find(item => item.pattern.id === pattern)!;
  return phase === "fired" || phase === "sustained";
}

function isCountedOpen(course: Course, gate: Gate): boolean {
  const { fires, performs, atLeast, until } = gate;
  if (fires === undefined && performs === undefined) return false;
  const last = course.followed.find(item => item.pattern.id === fires);
  const isCounted =
    fires === undefined
      ? course.performedAt.get(performs!) === course.f - 1 && course.f > 0
      : last?.event.fires !== undefined;
  let count = (course.counts.get(gate.id) ?? 0) + (isCounted ? 1 : 0);
  if (until !== undefined && course.isOpen(until)) count = 0;
  course.counts.set(gate.id, count);
  return count >= (atLeast ?? 1);
}

/** Returns for how long a gate stays spent, in ticks. */
export function spentFor(course: Course, id: string): number {
  return course.lengths.atLeast(course.gates.find(gate => gate.id === id)!.spentFor ?? "133ms");
}

function followSpending(course: Course, gate: Gate): void {
  const since = course.spent.get(gate.id);
  if (since !== undefined && !course.isOpen(gate.id)) {
    course.spent.delete(gate.id);
    course.lastWhole.delete(gate.id);
  } else if (since !== undefined && course.age("game", since) >= spentFor(course, gate.id))
    course.spent.delete(gate.id);
  if (course.isOpen(gate.id) && !course.spent.has(gate.id)) course.lastWhole.set(gate.id, course.f);
}

/** Opens and closes every gate, reports changes, and follows spending. */
export function stepGates(course: Course): void {
  const prompts = (course.kit.prompts ?? []).filter(
    ({ id }) => course.showings.get(id)?.opened !== undefined,
  );
  for (const { id } of course.gates)
    course.open.get(id)![course.f] =
      (course.input.painted[id]?.[course.f] ?? false) ||
      opensByTimeline(course, id) ||
      isOutputOn(course, id) ||
      prompts.some(prompt => prompt.opens === id);
  for (const gate of course.gates) {
    if (isDerivedOpen(course, gate)) course.open.get(gate.id)![course.f] = true;
    if (lingers(course, gate)) course.open.get(gate.id)![course.f] = true;
    if (course.kit.gates?.includes(gate) && course.isOpen(gate.id) !== course.isOpen(gate.id, course.f - 1))
      course.report("gate", gate.id, { open: course.isOpen(gate.id) });
    followSpending(course, gate);
  }
  for (const item of course.followed) item.event = {};
}
