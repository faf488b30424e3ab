import { expect, test } from "vitest";
import { formatTrace, readTake, type Kit, type Take } from "#core";
import { compileRules, runRules, type DuelDocument } from "../index";
import { findAdvantage } from "./advantage";

const STAGE: DuelDocument = {
  kind: "duel",
  script: [],
  every: "1000f",
  strike: { startup: "6f", active: "3f", recovery: "8f" },
  stun: "20f",
  hitStop: "4f",
  outcome: "9f",
  gates: { ownHit: "landed", ownBlocked: "guarded", ownMissed: "missed" },
};

/** A jab of 5, 3 and 10 frames, and a kick that may follow it only when it landed. */
function kitWith(stage: Partial<DuelDocument>, jab: object = {}): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "duel",
    name: "Duel",
    rate: 60,
    controls: ["a", "b"].map(id => ({ id, name: id, bindings: [] })),
    gates: ["landed", "guarded", "missed"].map(id => ({ id, name: id })),
    patterns: ["a", "b"].map(control => ({
      id: `press-${control}`,
      name: control,
      kind: "press" as const,
      control,
    })),
    moves: [
      {
        id: "jab",
        name: "Jab",
        pattern: "press-a",
        frames: { startup: "5f", active: "3f", recovery: "10f" },
        effect: { strike: 5, ...jab },
      },
      {
        id: "kick",
        name: "Kick",
        pattern: "press-b",
        needs: [{ gate: "landed" }],
        buffer: "30f",
        priority: 2,
        frames: { startup: "8f", active: "4f", recovery: "12f" },
      },
    ],
    stage: { ...STAGE, ...stage },
  };
}

function play(kit: Kit, lanes: Take["lanes"], frames = 120) {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  const take: Take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames, lanes };
  const { program } = compiled.value;
  const { events } = formatTrace(program, runRules(compiled.value, readTake(program, take)).trace);
  return {
    gates: (id: string) =>
      events.flatMap(event => (event.kind === "gate" && event.id === id ? [[event.f, event.open]] : [])),
    performed: events.flatMap(event => (event.kind === "performed" ? [[event.id, event.f]] : [])),
  };
}

const JAB: Take["lanes"] = {
  a: [
    [10, 1],
    [11, 0],
  ],
};
const GUARD = [{ at: "1f", does: "guard" as const, for: "60f" }];
const AWAY = [{ at: "1f", does: "away" as const, for: "60f" }];

test("a blow that lands opens its gate for its time, not counting the hit stop; the others stay closed", () => {
  const { gates } = play(kitWith({}), JAB);
  // It is performed on frame 10 and lands after 5 frames, on frame 14; the gate is open from 15 on. The game stops for 4
  // frames of these, then the 9 frames of the gate pass.
  expect(gates("landed")).toEqual([
    [15, true],
    [28, false],
  ]);
  expect(gates("guarded")).toEqual([]);
  expect(gates("missed")).toEqual([]);
});

test("a blow on a guard is blocked at its first contact; one that finds nobody has missed when its active frames end", () => {
  const blocked = play(kitWith({ script: GUARD }), JAB);
  expect(blocked.gates("guarded")).toEqual([
    [15, true],
    [24, false],
  ]);
  expect([blocked.gates("landed"), blocked.gates("missed")]).toEqual([[], []]);
  const missed = play(kitWith({ script: AWAY }), JAB);
  // Active on frames 14, 15 and 16.
  expect(missed.gates("missed")).toEqual([
    [17, true],
    [26, false],
  ]);
  expect([missed.gates("landed"), missed.gates("guarded")]).toEqual([[], []]);
});

test("a cancel on hit follows from the gate alone: on hit it comes, on a guard it is lost", () => {
  const lanes: Take["lanes"] = {
    ...JAB,
    b: [
      [12, 1],
      [13, 0],
    ],
  };
  expect(play(kitWith({}), lanes).performed.map(([id]) => id)).toEqual(["jab", "kick"]);
  expect(play(kitWith({ script: GUARD }), lanes).performed.map(([id]) => id)).toEqual(["jab"]);
});

test("a move's own stun, guard stun and hit stop are in force in place of the stage's; advantage follows", () => {
  const plain = findAdvantage(kitWith({}), 0)!;
  // Free 13 frames after it lands, less the frame of the landing; the opponent is stunned for 20.
  expect(plain).toEqual({ onHit: 20 - 13 - 1, onGuard: -13, onMiss: -13 });
  // A guard without stun ends on the frame after the contact, one with a stun of n frames n frames after it.
  const own = findAdvantage(kitWith({}, { stun: "26f", guardStun: "11f" }), 0)!;
  expect(own).toEqual({ onHit: plain.onHit + 6, onGuard: plain.onGuard + 10, onMiss: plain.onMiss });
  expect(findAdvantage(kitWith({ guardStun: "4f" }), 0)!.onGuard).toBe(plain.onGuard + 3);
  expect(play(kitWith({}, { hitStop: "0f" }), JAB).gates("landed")).toEqual([
    [15, true],
    [24, false],
  ]);
});

test("a guard that was hit holds for its stun, so that a second blow is blocked too", () => {
  const short = [{ at: "1f", does: "guard" as const, for: "15f" }];
  const twice: Take["lanes"] = {
    a: [
      [10, 1],
      [11, 0],
      [30, 1],
      [31, 0],
    ],
  };
  const slow = kitWith({ script: short });
  expect(play(slow, twice).gates("guarded").length).toBe(2);
  expect(play(slow, twice).gates("landed").length).toBe(2);
  const held = kitWith({ script: short }, { guardStun: "40f" });
  expect(
    play(held, twice)
      .gates("guarded")
      .filter(([, isOpen]) => isOpen).length,
  ).toBe(2);
  expect(play(held, twice).gates("landed")).toEqual([]);
});
