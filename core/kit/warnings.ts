import { formatPath, warning, type Issue } from "../formats/issue";
import { LONGEST_WRITTEN } from "../time/duration";
import { listBeyond } from "./applyAssist";
import { traitsOf } from "../patterns/recordOf";
import { joinNames } from "../formats/words";
import { TICKS } from "../time/clock";
import {
  NEVER,
  type MoveProgram,
  type NeedProgram,
  type PatternBase,
  type Program,
} from "../program/program";
import { gateName, nameOf } from "./names";
import type { Kit } from "./schema";

/** The press lengths one pattern answers, in frames, both ends included; `to` may be Infinity. */
interface Stretch {
  readonly id: string;
  readonly from: number;
  readonly to: number;
}

/**
 * Returns the press lengths at full speed that end in a fire; undefined for kinds that do not judge length. A
 * press lasts at least one frame.
 */
export function answeredStretch(pattern: PatternBase): Stretch | undefined {
  const answered = traitsOf(pattern.kind).answers?.(pattern);
  return answered && { id: pattern.id, ...answered };
}

/** A range of press lengths and the pattern that answers it. */
interface AnsweredBy extends Stretch {
  readonly place: number;
  readonly activeIn: readonly boolean[];
}

function warnOfStretches(kit: Kit, program: Program): Issue[] {
  const issues: Issue[] = [];
  const answeredBy = kit.controls.map((): AnsweredBy[] => []);
  program.patterns.forEach((pattern, place) => {
    const stretch = pattern.isOff ? undefined : answeredStretch(pattern);
    if (!stretch || stretch.to < stretch.from) return;
    for (const c of new Set(pattern.controls))
      answeredBy[c]?.push({ ...stretch, place, activeIn: pattern.activeIn });
  });
  kit.controls.forEach((control, c) => {
    const answered = answeredBy[c]!;
    answered.sort((a, b) => a.from - b.from || a.to - b.to);
    for (let k = 1; k < answered.length; k++) {
      const one = answered[k - 1]!;
      const other = answered[k]!;
      if (!one.activeIn.some((isActive, mode) => isActive && other.activeIn[mode])) continue;
      const path = ["patterns", other.place];
      if (other.from <= one.to) {
        const to = Math.min(one.to, other.to);
        const facts = {
          control: control.name,
          from: other.from,
          ...(to === NEVER ? {} : { to }),
          one: nameOf(kit, "patterns", one.id),
          other: nameOf(kit, "patterns", other.id),
          oneId: one.id,
          otherId: other.id,
        };
        issues.push(warning("double-stretch", path, facts));
      } else if (other.from > one.to + 1) {
        const facts = {
          control: control.name,
          from: one.to + 1,
          to: other.from - 1,
          lower: nameOf(kit, "patterns", one.id),
          upper: nameOf(kit, "patterns", other.id),
          lowerId: one.id,
          upperId: other.id,
        };
        issues.push(warning("dead-stretch", path, facts));
      }
    }
  });
  return issues;
}

/** Marks the gates that the kit can open: by lists of others, moves, prompts, patterns and slots. */
function openableGates(program: Program): boolean[] {
  const can = program.gates.map(gate => gate.derive !== "plain");
  for (const slot of program.slots) can[slot.busyGate] = true;
  for (const m of program.outputMoves) can[program.moves[m]!.outputGate] = true;
  for (const move of program.moves)
    if (!move.isOff) for (const opening of move.opens) can[opening.gate] = true;
  for (const prompt of program.prompts)
    if (!prompt.isOff && prompt.opensGate >= 0) can[prompt.opensGate] = true;
  return can;
}

function warnOfMoves(kit: Kit, program: Program): Issue[] {
  const issues: Issue[] = [];
  const can = openableGates(program);
  program.moves.forEach((move, m) => {
    if (move.isOff) return;
    const path = ["moves", m];
    const pattern = program.patterns[move.pattern]!;
    const reason = whyUnreachable(kit, program, m);
    if (reason)
      issues.push(warning("unreachable-move", path, { name: nameOf(kit, "moves", move.id), reason }));
    if (move.bufferTicks > program.rateHz * TICKS) {
      issues.push(warning("long-buffer", [...path, "buffer"], { frames: move.bufferTicks / TICKS }));
    }
    if (!reason) issues.push(...warnOfHelp(kit, program, m));
    if (kit.stage !== undefined || pattern.isOff) return;
    move.needs.forEach((need, k) => {
      if (can[need.gate]) return;
      issues.push(warning("need-never", [...path, "needs", k], gateFacts(kit, program.gates[need.gate]!.id)));
    });
  });
  return issues;
}

/** Returns the modes in which a move can be requested; [0] in a kit without modes. */
function askedIn(program: Program, move: MoveProgram): number[] {
  const pattern = program.patterns[move.pattern]!;
  return move.activeIn.flatMap((isActive, mode) => (isActive && pattern.activeIn[mode] ? [mode] : []));
}

/**
 * Returns whether a gate is open throughout one of these modes, except for a start in one of them. True if
 * its opening is the only way into them and its closing always leads out. The first switch that applies wins,
 * so a switch listed before the closing one that could keep the mode makes it uncertain.
 */
function isOpenThroughout(program: Program, modes: readonly number[], gate: number): boolean {
  const isWayIn = (to: number) => modes.includes(to);
  if (program.switches.some(by => isWayIn(by.to) && !(by.gate === gate && by.turnsOpen))) return false;
  const closing = program.switches.find(by => by.gate === gate && !by.turnsOpen);
  return program.modes.length > 0 && closing !== undefined && !isWayIn(closing.to);
}

function warnOfHelp(kit: Kit, program: Program, m: number): Issue[] {
  const move = program.moves[m]!;
  const modes = askedIn(program, move);
  const name = nameOf(kit, "moves", move.id);
  const where = joinNames(modes.map(mode => nameOf(kit, "modes", program.modes[mode]?.id ?? "")));
  const whyOf = (gate: string) =>
    `it works in ${where} only, which begins when ${gate} opens and ends when it closes`;
  const found = move.needs.flatMap((need, k): Issue[] => {
    if (need.coyoteTicks <= 0 || !isOpenThroughout(program, modes, need.gate)) return [];
    const reason = whyOf(gateName(kit, program.gates[need.gate]!.id));
    const facts = { name, reason, frames: need.coyoteTicks / TICKS };
    return [warning("coyote-never", ["moves", m, "needs", k, "coyote"], facts)];
  });
  const waitsElse = move.bans.length > 0 || move.cooldownTicks > 0 || move.usesMax > 0;
  const isAlone = program.moves.every(other => other === move || other.isOff || other.slot !== move.slot);
  const isSpent = (gate: number) => program.moves.some(other => !other.isOff && other.spends.includes(gate));
  const isOpen = ({ gate }: NeedProgram) => !isSpent(gate) && isOpenThroughout(program, modes, gate);
  if (move.bufferTicks === 0 || waitsElse || !isAlone || !move.needs.every(isOpen)) return found;
  const [first] = move.needs;
  const reason = first ? whyOf(gateName(kit, program.gates[first.gate]!.id)) : "nothing ever blocks it";
  const facts = { name, reason, frames: move.bufferTicks / TICKS };
  return [...found, warning("buffer-never", ["moves", m, "buffer"], facts)];
}

function gateFacts(kit: Kit, id: string): Issue["facts"] {
  return { name: gateName(kit, id), id };
}

function whyUnreachable(kit: Kit, program: Program, m: number): string | undefined {
  const move = program.moves[m]!;
  const pattern = program.patterns[move.pattern]!;
  const name = nameOf(kit, "patterns", pattern.id);
  if (pattern.isOff) return `its pattern ${name} is off`;
  if (!pattern.activeIn.some((isActive, mode) => isActive && move.activeIn[mode])) {
    return `it shares no mode with its pattern ${name}`;
  }
  const never = traitsOf(pattern.kind).whyNever?.(pattern, move.whenCount, move.whenLevel);
  if (never !== undefined) return `${name} ${never}`;
  const banned = move.needs.find(need => need.coyoteTicks < 0 && move.bans.includes(need.gate));
  return banned ? `it both needs and bans ${gateName(kit, program.gates[banned.gate]!.id)}` : undefined;
}

function warnOfPatterns(kit: Kit, program: Program): Issue[] {
  return program.patterns.flatMap((pattern, i): Issue[] => {
    if (pattern.isOff) return [];
    const never = (reason: string) => [
      warning("never-fires", ["patterns", i], { name: nameOf(kit, "patterns", pattern.id), reason }),
    ];
    const stretch = answeredStretch(pattern);
    if (stretch && stretch.to < stretch.from)
      return never(`its longest press (${stretch.to} f) is below its shortest (${stretch.from} f)`);
    const found = traitsOf(pattern.kind).warn?.(pattern);
    if (!found) return [];
    if (found.code === "never-fires") return never(found.reason);
    const { code, field, ...facts } = found;
    return [warning(code, ["patterns", i, field], { name: nameOf(kit, "patterns", pattern.id), ...facts })];
  });
}

function warnOfBindings(kit: Kit): Issue[] {
  const issues: Issue[] = [];
  const heldBy = new Map<string, string>();
  kit.controls.forEach((control, c) => {
    control.bindings.forEach((binding, b) => {
      const code = [...binding].sort().join(" + ");
      const other = heldBy.get(code);
      if (other !== undefined)
        issues.push(
          warning("same-binding", ["controls", c, "bindings", b], { code, one: other, other: control.name }),
        );
      else heldBy.set(code, control.name);
    });
  });
  return issues;
}

function warnOfPrompts(kit: Kit, program: Program): Issue[] {
  return program.prompts.flatMap((compiled, p): Issue[] => {
    if (compiled.isOff) return [];
    const prompt = { ...compiled, name: nameOf(kit, "prompts", compiled.id) };
    const found: Issue[] = [];
    if (kit.prompts?.[p]?.wrong === "fail" && prompt.wrongControls.length === 0)
      found.push(warning("wrong-without-controls", ["prompts", p, "wrongOn"]));
    let from = p;
    for (let hops = 0; hops <= program.prompts.length && from >= 0; hops++)
      from = program.prompts[from]!.startsAfterPrompt;
    const after = prompt.startsAfterPrompt;
    if (from >= 0)
      found.push(
        warning("never-starts", ["prompts", p, "starts"], {
          name: prompt.name,
          reason: "the prompts it follows follow each other",
        }),
      );
    else if (after >= 0 && program.prompts[after]!.isOff)
      found.push(
        warning("never-starts", ["prompts", p, "starts"], {
          name: prompt.name,
          reason: `${nameOf(kit, "prompts", program.prompts[after]!.id)} is off`,
        }),
      );
    return found;
  });
}

function warnOfAssists(kit: Kit): Issue[] {
  return (kit.assists ?? []).flatMap((assist, a) =>
    listBeyond(kit, assist).map(({ path, written, percent }) =>
      warning("assist-beyond", ["assists", a], {
        percent,
        length: written,
        unit: written.endsWith("ms") ? "ms" : "f",
        place: formatPath(path),
        limit: LONGEST_WRITTEN,
      }),
    ),
  );
}

/** Returns warnings about everything in a kit that runs but is probably unintended. */
export function findWarnings(kit: Kit, program: Program): Issue[] {
  return [
    ...warnOfBindings(kit),
    ...warnOfPatterns(kit, program),
    ...warnOfStretches(kit, program),
    ...warnOfMoves(kit, program),
    ...warnOfPrompts(kit, program),
    ...warnOfAssists(kit),
  ];
}
