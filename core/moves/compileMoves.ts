import { fault, type PathStep } from "../formats/issue";
import { outputGate, type Names } from "../kit/compileNames";
import type { Move } from "../kit/schema";
import type { MoveProgram } from "../program/program";
import { traitsOf } from "../patterns/recordOf";
import { isShorterAsWritten } from "../time/duration";

function checkWhen(move: Move, pattern: number, names: Names, path: readonly PathStep[]): void {
  const found = names.kit.patterns[pattern];
  if (!found || !move.when) return;
  for (const field of ["count", "level"] as const) {
    if (move.when[field] === undefined || traitsOf(found.kind).carries.includes(field)) continue;
    const hint = field === "count" ? "taps counts its presses" : "charge has levels";
    names.issues.push(
      fault("when-field", [...path, "when", field], { pattern: found.name || found.id, field, hint }),
    );
  }
}

function compileOpens(move: Move, names: Names, path: readonly PathStep[]): MoveProgram["opens"] {
  return (move.opens ?? []).map((opening, k) => {
    if (isShorterAsWritten(opening.to, opening.from, names.kit.rate)) {
      names.issues.push(
        fault("to-before-from", [...path, "opens", k, "to"], { from: opening.from, to: opening.to }),
      );
    }
    return {
      gate: names.openable(opening.gate, [...path, "opens", k, "gate"], "opened"),
      fromTicks: names.atLeast(opening.from, 0),
      toTicks: names.atMost(opening.to, 0),
    };
  });
}

function compileMove(move: Move, m: number, names: Names): MoveProgram {
  const path = ["moves", m] as const;
  const gates = (ids: readonly string[] | undefined, field: string) =>
    (ids ?? []).map((id, k) => names.gate(id, [...path, field, k]));
  const pattern = names.pattern(move.pattern, [...path, "pattern"]);
  checkWhen(move, pattern, names, path);
  const found = names.kit.patterns[pattern];
  const carries = found ? traitsOf(found.kind).carries : [];
  return {
    id: move.id,
    isOff: move.off ?? false,
    isReal: move.clock === "real",
    isMemoryReal: (move.memory ?? move.clock) === "real",
    asksAgain: move.again === "held",
    activeIn: names.activeIn(move.modes, path),
    pattern,
    countColumn: carries.indexOf("count"),
    levelColumn: carries.indexOf("level"),
    whenCount: move.when?.count ?? -1,
    whenLevel: move.when?.level ?? -1,
    needs: (move.needs ?? []).map((need, k) => ({
      gate: names.gate(need.gate, [...path, "needs", k, "gate"]),
      coyoteTicks: names.atMost(need.coyote, -1),
    })),
    bans: gates(move.bans, "bans"),
    bufferTicks: names.atMost(move.buffer, 0),
    deferTicks: names.atLeast(move.defer, 0),
    priority: move.priority ?? 0,
    slot: names.slots.indexOf(move.slot ?? "main"),
    spends: (move.spends ?? []).map((id, k) => names.openable(id, [...path, "spends", k], "spent")),
    shares: move.shares ?? false,
    cooldownTicks: names.atLeast(move.cooldown, 0),
    usesMax: move.uses?.max ?? 0,
    refillGate: move.uses ? names.gate(move.uses.refill, [...path, "uses", "refill"]) : -1,
    outputGate: move.linger === undefined ? -1 : names.gateIds.indexOf(outputGate(move.id)),
    lingerTicks: names.atLeast(move.linger, 0),
    startupTicks: names.atLeast(move.frames?.startup, 0),
    activeTicks: names.atLeast(move.frames?.active, 0),
    recoveryTicks: names.atLeast(move.frames?.recovery, 0),
    opens: compileOpens(move, names, path),
  };
}

/** Compiles every move, in kit order. */
export function compileMoves(names: Names): MoveProgram[] {
  return (names.kit.moves ?? []).map((move, m) => compileMove(move, m, names));
}
