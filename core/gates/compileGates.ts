import { fault, type PathStep } from "../formats/issue";
import { isOutputGate, type Names } from "../kit/compileNames";
import type { Gate, Move } from "../kit/schema";
import type { GateProgram } from "../program/program";
import { parseFrames } from "../time/duration";
import { TICKS } from "../time/clock";

const SPENT_FOR = "133ms";

const SOURCES = ["all", "any", "none", "while", "fires", "performs"] as const;

/** Returns the index of a gate that another derives from; it must be listed above. */
function gateAbove(id: string, g: number, names: Names, path: readonly PathStep[]): number {
  const place = names.gate(id, path);
  const listed = names.kit.gates?.length ?? 0;
  if (place >= g && place < listed) names.issues.push(fault("gate-above", path, { id }));
  return place;
}

/**
 * Compiles the counting of a gate. `atLeast` or `until` without a counted event is a fault; a count without a
 * number as well.
 */
function compileCount(gate: Gate, g: number, names: Names): Pick<GateProgram, "atLeast" | "until"> {
  const counts = gate.fires !== undefined || gate.performs !== undefined;
  if (counts !== (gate.atLeast !== undefined)) {
    const path = ["gates", g, "atLeast"];
    names.issues.push(fault("gate-count", path, { found: counts ? "missing" : "alone" }));
  } else if (!counts && gate.until !== undefined)
    names.issues.push(fault("gate-count", ["gates", g, "until"], { found: "alone" }));
  const until = gate.until === undefined ? -1 : gateAbove(gate.until, g, names, ["gates", g, "until"]);
  return { atLeast: gate.atLeast ?? 0, until };
}

function compileSources(gate: Gate, g: number, names: Names): Pick<GateProgram, "derive" | "of"> {
  const given = SOURCES.filter(key => gate[key] !== undefined);
  if (given.length > 1)
    names.issues.push(fault("gate-sources", ["gates", g], { found: given.join(" and ") }));
  const derive = given[0];
  if (derive === undefined) return { derive: "plain", of: [] };
  if (derive === "while" || derive === "fires")
    return { derive, of: [names.pattern(gate[derive]!, ["gates", g, derive])] };
  if (derive === "performs") return { derive, of: [names.move(gate.performs!, ["gates", g, "performs"])] };
  const of = gate[derive]!.map((id, k) => gateAbove(id, g, names, ["gates", g, derive, k]));
  return { derive, of };
}

/**
 * Returns, for each gate id, the longest coyote on a clock that refers to it, in ticks. A gate without one is
 * absent.
 */
function longestCoyotes(names: Names, clock: "game" | "real"): ReadonlyMap<string, number> {
  const longest = new Map<string, number>();
  for (const move of names.kit.moves ?? []) {
    if (move.off || (move.clock ?? "game") !== clock) continue;
    for (const { gate, coyote } of move.needs ?? [])
      if (coyote !== undefined) longest.set(gate, Math.max(longest.get(gate) ?? -1, names.atMost(coyote, 0)));
  }
  return longest;
}

/** Returns the gates that a move needs or is banned by. */
const listJudging = ({ needs = [], bans = [] }: Move): readonly string[] => [
  ...needs.map(({ gate }) => gate),
  ...bans,
];

/** Compiles the listed gates in kit order, then the busy gates of slots and the output gates of moves. */
export function compileGates(names: Names): GateProgram[] {
  const onGame = longestCoyotes(names, "game");
  const onReal = longestCoyotes(names, "real");
  const judging = new Set((names.kit.moves ?? []).flatMap(listJudging));
  const listed = (names.kit.gates ?? []).map((gate, g): GateProgram => ({
    id: gate.id,
    isListed: true,
    isOutput: false,
    isNoted: true,
    spentForTicks: names.atLeast(gate.spentFor ?? SPENT_FOR, 0),
    lingerTicks: names.atMost(gate.linger, -1),
    ...compileSources(gate, g, names),
    ...compileCount(gate, g, names),
    trailGameTicks: onGame.get(gate.id) ?? -1,
    trailRealTicks: onReal.get(gate.id) ?? -1,
  }));
  const implied = names.gateIds.slice(listed.length).map((id): GateProgram => ({
    id,
    isListed: false,
    isOutput: isOutputGate(id),
    isNoted: isOutputGate(id) || judging.has(id),
    spentForTicks: (parseFrames(SPENT_FOR, names.kit.rate, "atLeast") ?? 0) * TICKS,
    lingerTicks: -1,
    derive: "plain",
    of: [],
    atLeast: 0,
    until: -1,
    trailGameTicks: onGame.get(id) ?? -1,
    trailRealTicks: onReal.get(id) ?? -1,
  }));
  return [...listed, ...implied];
}
