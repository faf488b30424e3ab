import type { Move } from "../../kit/schema";
import { share, type Course, type Phase, type Request } from "./course";
import { spentFor } from "./gates";

// Step 8 of a frame: requests, moves and losses.

const memory = (course: Course, move: Move) => course.timeOf(move.memory ?? move.clock);

const isWhole = (course: Course, gate: string) => course.isOpen(gate) && !course.spent.has(gate);

function needIsMet(
  course: Course,
  move: Move,
  { gate, coyote }: { gate: string; coyote?: string },
): "" | "met" | "forgiven" {
  if (course.spent.has(gate)) return "";
  if (course.isOpen(gate)) return "met";
  const last = course.lastWhole.get(gate);
  if (coyote === undefined || last === undefined) return "";
  return course.age(move.clock, last) <= course.lengths.atMost(coyote) ? "forgiven" : "";
}

function obstacle(course: Course, move: Move): string {
  for (const need of move.needs ?? []) if (needIsMet(course, move, need) === "") return `gate:${need.gate}`;
  for (const gate of move.bans ?? []) if (course.isOpen(gate)) return `ban:${gate}`;
  const last = course.performedAt.get(move.id);
  if (last !== undefined && course.age(move.clock, last) < course.lengths.atLeast(move.cooldown))
    return "cooldown";
  return course.usesLeft.get(move.id) === 0 ? "uses" : "";
}

function becomeDue(course: Course, request: Request): void {
  const time = memory(course, request.move);
  const age = time[course.f]! - time[request.made]!;
  if (request.due === undefined && age >= course.lengths.atLeast(request.move.defer)) request.due = course.f;
}

function sinceDue(course: Course, { move, due }: Request): number | undefined {
  return due === undefined ? undefined : memory(course, move)[course.f]! - memory(course, move)[due]!;
}

function isReady(course: Course, request: Request): boolean {
  const since = sinceDue(course, request);
  if (since === undefined || since > course.lengths.atMost(request.move.buffer, 0)) return false;
  return obstacle(course, request.move) === "";
}

function isWanted(course: Course, { when }: Move, carries: Readonly<Record<string, number>>): boolean {
  if (when?.count !== undefined && carries.count !== when.count) return false;
  return when?.level === undefined || (carries.level ?? -1) >= when.level;
}

function makeRequest(course: Course, move: Move, before: ReadonlyMap<string, Phase>): void {
  const item = course.followed.find(other => other.pattern.id === move.pattern)!;
  if (!course.isActive(move) || item.pattern.off || !item.fired) return;
  if (!isWanted(course, move, item.fired.carries)) return;
  const { edges } = item.fired;
  const isTaken = share(edges, course.taken);
  if (item.event.fires) {
    const request: Request = { move, made: course.f, edges, isAgain: false, due: undefined };
    course.requests.push(request);
    becomeDue(course, request);
    if (isTaken) request.why = "prompt";
    else if (course.kit.queue !== "all") replaceOlder(course, request);
    return;
  }
  const was = before.get(move.pattern);
  const isHeldOn = item.phase === "sustained" && (was === "fired" || was === "sustained");
  const isPending = course.requests.some(request => request.move === move && request.why === undefined);
  if (move.again !== "held" || !isHeldOn || isTaken || isPending) return;
  course.requests.push({ move, made: course.f, edges, isAgain: true, due: course.f });
}

function replaceOlder(course: Course, request: Request): void {
  const { move } = request;
  const isKept = course.lengths.atLeast(move.defer) + course.lengths.atMost(move.buffer, 0) > 0;
  if (!isKept && !isReady(course, request)) return;
  for (const other of course.requests)
    if (
      other.why === undefined &&
      other.made < course.f &&
      (other.move.slot ?? "main") === (move.slot ?? "main")
    )
      other.why = "replaced";
}

function reportLost(course: Course): void {
  for (const move of course.kit.moves ?? [])
    for (const { made, why, isAgain, move: of } of course.requests)
      if (of === move && why !== undefined && !isAgain) course.report("lost", move.id, { made, why });
  course.requests = course.requests.filter(request => request.why === undefined);
}

/** Loses all requests that are meant, for one reason. */
export function loseAll(course: Course, isMeant: (request: Request) => boolean, why: string): void {
  for (const request of course.requests) if (isMeant(request)) request.why = why;
  reportLost(course);
}

function arbitrate(course: Course, moves: readonly Move[]): Map<Request, string> {
  const performed = new Map<Request, string>();
  const taken = new Set<string>();
  for (;;) {
    const ready = course.requests
      .filter(
        request =>
          request.why === undefined &&
          !performed.has(request) &&
          !taken.has(request.move.slot ?? "main") &&
          isReady(course, request),
      )
      .sort(
        (a, b) =>
          (b.move.priority ?? 0) - (a.move.priority ?? 0) ||
          b.made - a.made ||
          moves.indexOf(a.move) - moves.indexOf(b.move),
      );
    const [request] = ready;
    if (!request) return performed;
    const { move } = request;
    const isForgiven = (move.needs ?? []).some(need => needIsMet(course, move, need) === "forgiven");
    const isLate = request.due! < course.f;
    performed.set(request, isForgiven ? (isLate ? "both" : "coyote") : isLate ? "buffer" : "direct");
    taken.add(move.slot ?? "main");
    for (const gate of move.spends ?? []) if (spentFor(course, gate) > 0) course.spent.set(gate, course.f);
    course.performedAt.set(move.id, course.f);
    if (move.uses) course.usesLeft.set(move.id, course.usesLeft.get(move.id)! - 1);
    course.timelines.set(move.slot ?? "main", { move, at: course.f });
    for (const other of course.requests)
      if (
        other.why === undefined &&
        !performed.has(other) &&
        !other.move.shares &&
        share(other.edges, request.edges)
      )
        other.why = "beaten";
  }
}

/** Makes requests, performs those that are ready, and loses those that are over. */
export function stepMoves(course: Course): void {
  const moves = course.kit.moves ?? [];
  for (const move of moves)
    if (move.uses && isWhole(course, move.uses.refill)) course.usesLeft.set(move.id, move.uses.max);
  for (const request of course.requests) {
    becomeDue(course, request);
    if (share(request.edges, course.taken)) request.why = "prompt";
  }
  for (const move of moves) makeRequest(course, move, course.phasesBefore);
  const performed = arbitrate(course, moves);
  for (const request of course.requests) {
    const since = sinceDue(course, request);
    if (request.why !== undefined || performed.has(request) || since === undefined) continue;
    if (since < course.lengths.atMost(request.move.buffer, 0)) continue;
    const slot = request.move.slot ?? "main";
    const isBusy = [...performed.keys()].some(other => (other.move.slot ?? "main") === slot);
    request.why = obstacle(course, request.move) || (isBusy ? "busy" : "late");
  }
  for (const move of moves)
    for (const [request, by] of performed)
      if (request.move === move)
        course.report("performed", move.id, { made: request.made, waited: course.f - request.made, by });
  reportLost(course);
  course.requests = course.requests.filter(request => !performed.has(request) && !request.isAgain);
  course.phasesBefore = new Map(course.followed.map(item => [item.pattern.id, item.phase]));
}
