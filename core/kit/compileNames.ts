import { fault, type Issue, type PathStep } from "../formats/issue";
import { TICKS } from "../time/clock";
import { parseFrames, type Rounding } from "../time/duration";
import type { Kit } from "./schema";

/**
 * The context shared by the parts of the compiler: resolves names to indices and lengths to ticks, and
 * collects issues.
 */
export interface Names {
  readonly kit: Kit;
  readonly issues: Issue[];
  /** Returns the index of a name, or −1 after adding a fault. */
  readonly control: (id: string, path: readonly PathStep[]) => number;
  readonly stick: (id: string, path: readonly PathStep[]) => number;
  readonly gate: (id: string, path: readonly PathStep[]) => number;
  /** The same for a gate that is to be opened or spent (`what`), which no output gate can be. */
  readonly openable: (id: string, path: readonly PathStep[], what: "opened" | "spent") => number;
  readonly pattern: (id: string, path: readonly PathStep[]) => number;
  readonly move: (id: string, path: readonly PathStep[]) => number;
  readonly mode: (id: string, path: readonly PathStep[]) => number;
  readonly prompt: (id: string, path: readonly PathStep[]) => number;
  /** Converts a written length to ticks, rounding up or down; `fallbackTicks` if it is absent. */
  readonly atLeast: (text: string | undefined, fallbackTicks: number) => number;
  readonly atMost: (text: string | undefined, fallbackTicks: number) => number;
  /** Returns, for each mode, whether a rule with this list of modes is active in it. */
  readonly activeIn: (modes: readonly string[] | undefined, path: readonly PathStep[]) => boolean[];
  readonly slots: readonly string[];
  /**
   * Listed gates in kit order, then the busy gates of slots and any other busy gates named, then the output gates of
   * moves with a linger.
   */
  readonly gateIds: readonly string[];
}

const NO_OUTPUT_HINT = "give that move a linger, or name another gate";
const NO_GATE_HINT = "add it under gates, or name one that is there";

interface Named {
  readonly id: string;
}

function listNames(what: string, list: readonly Named[], listPath: string, issues: Issue[]) {
  const places = new Map<string, number>();
  list.forEach((item, i) => {
    if (places.has(item.id)) issues.push(fault("duplicate-id", [listPath, i, "id"], { id: item.id, what }));
    else places.set(item.id, i);
  });
  return (
    id: string,
    path: readonly PathStep[],
    hint = `add it under ${listPath}, or name one that is there`,
  ) => {
    const place = places.get(id);
    if (place !== undefined) return place;
    issues.push(fault("unknown-id", path, { what, id, hint }));
    return -1;
  };
}

/** Returns the slots of moves, in order of first appearance. */
function listSlots(kit: Kit): string[] {
  return [...new Set((kit.moves ?? []).map(move => move.slot ?? "main"))];
}

/** Returns every busy gate named anywhere in the kit, whether or not a move uses its slot. */
function listMentionedBusy(part: unknown): string[] {
  if (typeof part === "string") return part.startsWith("busy:") ? [part] : [];
  return typeof part === "object" && part !== null ? Object.values(part).flatMap(listMentionedBusy) : [];
}

/** The gate that is open while a move's output is on. */
export const outputGate = (moveId: string) => `out:${moveId}`;
export const isOutputGate = (id: string) => id.startsWith("out:");

/** Creates the name context of a kit. Duplicate ids, and output gates that are declared, are faults. */
export function gatherNames(kit: Kit, issues: Issue[]): Names {
  const slots = listSlots(kit);
  const listed = kit.gates ?? [];
  const mentioned = listMentionedBusy([kit.gates, kit.moves, kit.switches, kit.prompts, kit.sticks]);
  const busy = new Set([...slots.map(slot => `busy:${slot}`), ...mentioned]);
  const outputs = (kit.moves ?? []).flatMap(({ id, linger }) =>
    linger === undefined ? [] : [outputGate(id)],
  );
  const ids = new Set(listed.map(gate => gate.id));
  const implied = [...new Set([...busy, ...outputs])].filter(id => !ids.has(id)).map(id => ({ id }));
  const gates = [...listed, ...implied];
  listed.forEach(({ id }, g) => {
    if (isOutputGate(id)) issues.push(fault("output-gate", ["gates", g, "id"], { id, what: "declared" }));
  });
  const findGate = listNames("gate", gates, "gates", issues);
  const sticks = kit.sticks ?? [];
  const control = listNames("control", kit.controls, "controls", issues);
  const modes = kit.modes ?? [];
  const mode = listNames("mode", modes, "modes", issues);
  const toTicks = (text: string | undefined, fallbackTicks: number, rounding: Rounding) =>
    text === undefined ? fallbackTicks : (parseFrames(text, kit.rate, rounding) ?? 0) * TICKS;
  sticks.forEach((stick, i) => {
    if (kit.controls.some(c => c.id === stick.id)) {
      issues.push(fault("duplicate-id", ["sticks", i, "id"], { id: stick.id, what: "control" }));
    }
  });
  return {
    kit,
    issues,
    control,
    stick: listNames("stick", sticks, "sticks", issues),
    gate: (id, path) => findGate(id, path, isOutputGate(id) ? NO_OUTPUT_HINT : NO_GATE_HINT),
    openable(id, path, what) {
      if (isOutputGate(id)) issues.push(fault("output-gate", path, { id, what }));
      return findGate(id, path, NO_GATE_HINT);
    },
    pattern: listNames("pattern", kit.patterns, "patterns", issues),
    move: listNames("move", kit.moves ?? [], "moves", issues),
    mode,
    prompt: listNames("prompt", kit.prompts ?? [], "prompts", issues),
    atLeast: (text, fallbackTicks) => toTicks(text, fallbackTicks, "atLeast"),
    atMost: (text, fallbackTicks) => toTicks(text, fallbackTicks, "atMost"),
    activeIn(wanted, path) {
      wanted?.forEach((id, k) => mode(id, [...path, "modes", k]));
      if (modes.length === 0) return [wanted === undefined];
      return modes.map(m => wanted === undefined || wanted.includes(m.id));
    },
    slots,
    gateIds: gates.map(gate => gate.id),
  };
}
