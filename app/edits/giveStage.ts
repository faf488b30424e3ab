import { parseFrames, type Kit } from "#core";
import type { DuelDocument, RopesDocument, RunnerDocument } from "#stage";
import { freshId } from "./freshId";

/** The initial runner effect of a move with a well-known name. */
const RUNNER_WORDS: readonly (readonly [RegExp, Readonly<Record<string, unknown>>])[] = [
  [/jump|leap|hop|spring|vault/i, { leap: 19 }],
  [/dash|dodge|roll|dive/i, { dash: 16, for: "8f" }],
  [/run|sprint|scurry/i, { run: 10 }],
  [/glide|float|hover/i, { float: 0.5, for: "30f" }],
  [/lift|boost|thrust/i, { lift: 40, for: "12f" }],
  [/step|hitch/i, { step: 1 }],
];

/** Returns the initial duel effect of a move, by its name and length: slower moves strike harder. */
function duelEffect(kit: Kit, move: NonNullable<Kit["moves"]>[number]): Readonly<Record<string, unknown>> {
  if (/parry|guard|block/i.test(move.name)) return { parry: "9f" };
  const startup = parseFrames(move.frames?.startup ?? "6f", kit.rate, "atLeast") ?? 6;
  return { strike: Math.max(3, Math.min(12, Math.round(2 + startup / 2))) };
}

/** A small initial level: two platforms and a gap, a higher platform, and the ground again. */
const LEVEL = [
  "                                ",
  "                                ",
  "                    #####       ",
  "                                ",
  "  @          #####              ",
  "##########                ######",
  "##########   #####        ######",
];

/** Returns the control with that name, or bound to that arrow key; otherwise undefined. */
function findSide(kit: Kit, name: "left" | "right"): string | undefined {
  const arrow = name === "left" ? "key:ArrowLeft" : "key:ArrowRight";
  return kit.controls.find(
    control =>
      control.id === name || control.name.toLowerCase() === name || control.bindings.flat().includes(arrow),
  )?.id;
}

/**
 * Returns a kit with a runner stage: left and right are found by name or created on the arrow keys; the
 * ground opens the gate called Footing (or Ground), which is created if missing. Moves with well-known names and
 * without an effect get one; nothing else changes.
 */
export function giveRunner(kit: Kit): Kit {
  const taken = new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id));
  const bound = new Set(kit.controls.flatMap(control => control.bindings.flat()));
  const made: Kit["controls"][number][] = [];
  const side = (name: "left" | "right") => {
    const found = findSide(kit, name);
    if (found) return found;
    const id = freshId(name, taken);
    taken.add(id);
    const label = name === "left" ? "Left" : "Right";
    const codes = [`key:Arrow${label}`, name === "left" ? "pad:14" : "pad:15"];
    made.push({ id, name: label, bindings: codes.filter(code => !bound.has(code)).map(code => [code]) });
    return id;
  };
  const known = kit.gates?.find(gate => /^(footing|ground)$/i.test(gate.name));
  const footing = known?.id ?? freshId("footing", new Set((kit.gates ?? []).map(gate => gate.id)));
  const stage: RunnerDocument = {
    kind: "runner",
    tilePx: 32,
    level: LEVEL,
    run: { left: side("left"), right: side("right"), speed: 7, accel: 60 },
    fall: { up: 52, down: 70, most: 22 },
    height: { by: "fixed" },
    gates: { footing },
  };
  const moves = kit.moves?.map(move => {
    const effect =
      move.effect === undefined ? RUNNER_WORDS.find(([word]) => word.test(move.name))?.[1] : undefined;
    return effect ? { ...move, effect } : move;
  });
  return {
    ...kit,
    ...(moves ? { moves } : {}),
    controls: [...kit.controls, ...made],
    ...(known ? {} : { gates: [...(kit.gates ?? []), { id: footing, name: "Footing" }] }),
    stage,
  };
}

/** Returns the gate with a name, or a new one: its id, and the list of gates including it. */
export function findGate(kit: Kit, name: string): { id: string; gates: NonNullable<Kit["gates"]> } {
  const gates = kit.gates ?? [];
  const known = gates.find(gate => gate.name.toLowerCase() === name.toLowerCase());
  if (known) return { id: known.id, gates };
  const id = freshId(name, new Set(gates.map(gate => gate.id)));
  return { id, gates: [...gates, { id, name }] };
}

/**
 * Returns a kit with a duel stage: an opponent that strikes, guards and strikes again. Moves without an
 * effect strike; those called parry, guard or block parry. Being struck and being blocked open gates of those
 * names.
 */
export function giveDuel(kit: Kit): Kit {
  const struck = findGate(kit, "Struck");
  const blocked = findGate({ ...kit, gates: struck.gates }, "Blocked");
  const stage: DuelDocument = {
    kind: "duel",
    script: [
      { at: "90f", does: "strike" },
      { at: "180f", does: "guard", for: "40f" },
      { at: "270f", does: "strike" },
    ],
    every: "360f",
    strike: { startup: "24f", active: "4f", recovery: "30f" },
    stun: "24f",
    hitStop: "6f",
    gates: { hit: struck.id, blocked: blocked.id },
  };
  const moves = kit.moves?.map(move => {
    if (move.effect !== undefined) return move;
    return { ...move, effect: duelEffect(kit, move) };
  });
  return { ...kit, ...(moves ? { moves } : {}), gates: blocked.gates, stage };
}

/** Returns a kit with ropes as its stage: its prompts appear on them as written. */
export function giveRopes(kit: Kit): Kit {
  const stage: RopesDocument = { kind: "ropes", seed: 1 };
  return { ...kit, stage };
}
