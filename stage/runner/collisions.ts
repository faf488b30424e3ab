import { BODY_HEIGHT, beamUnder, HALF_WIDTH, SKIN, type RunnerState } from "./body";
import { isOverBeam, placeBeam } from "./beams";
import { isBeam, isThin, type Level } from "./level";
import type { RunnerProgram } from "./runnerProgram";

/** Returns whether any tile of a row is of a kind along the body's width. */
function isAlongRow(isKind: typeof isBeam, level: Level, x: number, row: number): boolean {
  return (
    isKind(level, Math.floor(x - HALF_WIDTH + SKIN), row) ||
    isKind(level, Math.floor(x + HALF_WIDTH - SKIN), row)
  );
}

export const isRowBlocked = (level: Level, x: number, row: number) => isAlongRow(isBeam, level, x, row);

/** Returns whether a body with its feet at a height is held by a row: one that is solid, or a thin one at its top. */
export function isHeldAt(level: Level, x: number, y: number): boolean {
  const row = Math.floor(y - SKIN * 2);
  return isRowBlocked(level, x, row) || (y >= row + 1 - SKIN && isAlongRow(isThin, level, x, row));
}

/**
 * Returns whether any tile of a column is solid along the body's height. The body is less than a tile high,
 * so its ends suffice.
 */
function isColumnBlocked(level: Level, column: number, y: number): boolean {
  return (
    isBeam(level, column, Math.floor(y + SKIN)) || isBeam(level, column, Math.floor(y + BODY_HEIGHT - SKIN))
  );
}

/**
 * Moves the body horizontally until its leading side meets a solid tile. Reads only the columns it enters, at
 * most the level's width.
 */
export function moveAcross(level: Level, body: RunnerState, by: number): void {
  body.isAtWall = false;
  const way = Math.sign(by);
  if (!way) return;
  const from = body.x + way * HALF_WIDTH;
  const last = Math.floor(Math.max(-1, Math.min(level.width, from + by)));
  for (let column = Math.floor(from); column !== last;) {
    column += way;
    if (!isColumnBlocked(level, column, body.y)) continue;
    body.x = way > 0 ? column - HALF_WIDTH - SKIN : column + 1 + HALF_WIDTH + SKIN;
    body.vx = 0;
    body.isAtWall = true;
    body.wallSide = way;
    return;
  }
  body.x += by;
}

function fall(level: Level, body: RunnerState, by: number): void {
  const next = body.y + by;
  const last = Math.max(0, Math.floor(next));
  for (let row = Math.min(level.height, Math.floor(body.y)) - 1; row >= last; row--) {
    if (!isRowBlocked(level, body.x, row) && !isAlongRow(isThin, level, body.x, row)) continue;
    body.y = row + 1;
    body.vy = 0;
    body.isGrounded = true;
    return;
  }
  body.y = next;
  body.isGrounded = isHeldAt(level, body.x, next);
}

/**
 * Returns by how far a rising body must be moved aside to pass the tiles of a row, at most `corner` tiles; undefined if it
 * cannot pass.
 */
function findWayPast(level: Level, body: RunnerState, row: number, corner: number): number | undefined {
  const left = Math.floor(body.x - HALF_WIDTH + SKIN);
  const right = Math.floor(body.x + HALF_WIDTH - SKIN);
  // With both of its sides free of the tiles, to the right of the left one or to the left of the right one.
  const ways = [left + 1 + HALF_WIDTH + SKIN - body.x, right - HALF_WIDTH - SKIN - body.x];
  return ways
    .filter(way => Math.abs(way) <= corner + 2 * SKIN)
    .sort((a, b) => Math.abs(a) - Math.abs(b))
    .find(way => {
      const x = body.x + way;
      const lead = Math.floor(x + Math.sign(way) * HALF_WIDTH);
      return !isRowBlocked(level, x, row) && !isColumnBlocked(level, lead, body.y);
    });
}

function rise(level: Level, body: RunnerState, by: number, corner: number): void {
  const head = body.y + BODY_HEIGHT;
  const last = Math.min(level.height - 1, Math.floor(head + by));
  for (let row = Math.max(-1, Math.floor(head)) + 1; row <= last; row++) {
    if (!isRowBlocked(level, body.x, row)) continue;
    const way = corner > 0 ? findWayPast(level, body, row, corner) : undefined;
    if (way !== undefined) {
      body.x += way;
      continue;
    }
    body.y = row - BODY_HEIGHT - SKIN;
    body.vy = 0;
    body.isAtCeiling = true;
    return;
  }
  body.y += by;
}

/** Carries the body along with the beam on which it is, from one moment of the game clock to another. */
export function carryBody(program: RunnerProgram, body: RunnerState, from: number, to: number): void {
  const beam = beamUnder(program, body);
  if (!beam) return;
  const { level } = program;
  const [before, now] = [placeBeam(beam, from), placeBeam(beam, to)];
  moveAcross(level, body, now.x - before.x);
  if (now.y > before.y) rise(level, body, now.y - before.y, 0);
  else body.y += now.y - before.y;
}

/** Lets a body that came down from `fromY` during this frame land on a beam that it met on the way. */
function landOnBeam({ beams }: RunnerProgram, body: RunnerState, fromY: number, before: number): void {
  for (let k = 0; k < beams.length; k++) {
    const beam = beams[k]!;
    const [was, now] = [placeBeam(beam, before), placeBeam(beam, body.clock)];
    const isMet = fromY >= was.y - SKIN && body.y <= now.y + SKIN;
    if (!isMet || !isOverBeam(beam, now.x, body.x, HALF_WIDTH)) continue;
    body.y = now.y;
    body.vy = 0;
    body.isGrounded = true;
    body.beam = k;
  }
}

/**
 * Moves the body vertically until it meets a solid tile. Reads only the rows it enters, at most the level's
 * height.
 */
function moveUp({ level, corner }: RunnerProgram, body: RunnerState, by: number): void {
  body.isGrounded = body.isAtCeiling = false;
  if (by > 0) rise(level, body, by, corner);
  else fall(level, body, by);
}

/** Moves the body vertically: on the beam that carries it, or until it meets a tile or a beam. */
export function moveVertically(program: RunnerProgram, body: RunnerState, before: number, dt: number): void {
  const own = beamUnder(program, body);
  if (own && body.vy <= 0) {
    const { x, y } = placeBeam(own, body.clock);
    body.isAtCeiling = false;
    body.isGrounded = isOverBeam(own, x, body.x, HALF_WIDTH) && Math.abs(body.y - y) < 4 * SKIN;
    if (body.isGrounded) return;
  }
  body.beam = -1;
  const fromY = body.y;
  moveUp(program, body, body.isGrounded && body.vy <= 0 ? -SKIN : body.vy * dt);
  if (body.vy <= 0) landOnBeam(program, body, fromY, before);
}
