import type { Take } from "../input/takeSchema";
import type { Kit } from "../kit/schema";
import type { TraceEvent } from "../trace/traceSchema";
import { readInput } from "./reference/input";

/** The outcome of one press, counted from the kit, the take and the events of a trace file only. */
export interface SlowPress {
  readonly control: string;
  readonly frame: number;
  /** Ids of the moves and prompts that used it, in order, one entry per use. */
  readonly used: readonly string[];
  /** Ids of the moves that requested with it and were lost. */
  readonly lost: readonly string[];
  readonly fired: number;
}

type Edges = readonly (readonly [string, number])[];
type Of<K extends TraceEvent["kind"]> = Extract<TraceEvent, { readonly kind: K }>;

const ofKind = <K extends TraceEvent["kind"]>(events: readonly TraceEvent[], kind: K): Of<K>[] =>
  events.filter((event): event is Of<K> => event.kind === kind);

/** Returns the edges of the last fire of a pattern at or before a frame, which a repeated request uses. */
function edgesAt(events: readonly TraceEvent[], pattern: string, frame: number): Edges {
  return ofKind(events, "fired").findLast(({ id, f }) => id === pattern && f <= frame)?.edges ?? [];
}

/**
 * Returns the edges of the fire that answered a prompt on a frame: the first of its patterns, in kit order,
 * whose edges are late enough.
 */
function answerEdges(kit: Kit, events: readonly TraceEvent[], prompt: string, frame: number): Edges {
  const { ask, early } = kit.prompts!.find(({ id }) => id === prompt)!;
  const own = ofKind(events, "prompt").filter(({ id, f }) => id === prompt && f <= frame);
  const from = own.findLast(({ outcome }) => outcome === (early === "allow" ? "shown" : "open"))!.f;
  const { asks } = own.findLast(({ f, outcome }) => f <= frame && outcome === "shown")!;
  const fires = ofKind(events, "fired").filter(
    ({ f, id }) => f === frame && (asks === undefined ? ask.includes(id) : id === asks),
  );
  const inOrder = kit.patterns.flatMap(({ id }) => fires.filter(fire => fire.id === id));
  return inOrder.find(({ edges }) => edges.every(([, f]) => f >= from))?.edges ?? [];
}

/** Returns the controls of a pattern's attempt or steps. */
function controlsOf(kit: Kit, id: string): string[] {
  const pattern = kit.patterns.find(item => item.id === id)!;
  if ("control" in pattern) return [pattern.control];
  if ("controls" in pattern) return [...pattern.controls];
  return pattern.steps.flatMap(step => {
    if ("together" in step) return [...step.together];
    if (!("dir" in step))
      return ["press" in step ? step.press : "release" in step ? step.release : step.hold];
    const { up, down, left, right } = kit.sticks!.find(stick => step.dir.startsWith(`${stick.id}:`))!;
    return [up, down, left, right];
  });
}

/**
 * Returns the ids of the controls of which a press may have brought about an event; undefined for an event that no press
 * of another control brings about.
 */
export function listEnders(kit: Kit, event: TraceEvent): string[] | undefined {
  const all = kit.controls.map(({ id }) => id);
  if (event.kind === "lapsed") {
    const pattern = kit.patterns.find(({ id }) => id === event.id)!;
    const cancel = ("cancel" in pattern && pattern.cancel) || [];
    if (event.why === "cancelled") return [...cancel];
    if (event.why !== "broken") return undefined;
    const uncounted = [
      ...cancel,
      ...controlsOf(kit, event.id),
      ...(kit.sticks ?? []).flatMap(({ up, down, left, right }) => [up, down, left, right]),
    ];
    return all.filter(id => !uncounted.includes(id));
  }
  if (event.kind !== "prompt" || event.outcome !== "failed") return undefined;
  const { wrongOn, ask, draw } = kit.prompts!.find(({ id }) => id === event.id)!;
  if (event.why === "wrong") return draw === undefined ? [...(wrongOn ?? [])] : all;
  return event.why === "too-early" ? ask.flatMap(id => controlsOf(kit, id)) : undefined;
}

/**
 * Returns every press of a take with its outcome, ordered by frame and then by control. Slow; shares no code
 * with the reader.
 */
export function countPresses(kit: Kit, take: Take, events: readonly TraceEvent[]): SlowPress[] {
  const patternOf = (move: string) => kit.moves!.find(({ id }) => id === move)!.pattern;
  const uses = [
    ...ofKind(events, "performed").map(e => ({ ...e, edges: edgesAt(events, patternOf(e.id), e.made) })),
    ...ofKind(events, "prompt")
      .filter(({ outcome }) => !["shown", "open", "failed"].includes(outcome))
      .map(e => ({ ...e, edges: answerEdges(kit, events, e.id, e.f) })),
  ];
  const losses = ofKind(events, "lost").map(e => ({ ...e, edges: edgesAt(events, patternOf(e.id), e.made) }));
  const fires = ofKind(events, "fired");
  const { down, frames } = readInput(kit, take);
  const presses: { control: string; frame: number }[] = [];
  for (let frame = 0; frame < frames; frame++)
    for (const { id: control } of kit.controls)
      if (down[control]![frame] && !down[control]![frame - 1]) presses.push({ control, frame });
  return presses.map(({ control, frame }) => {
    const sticks = (kit.sticks ?? []).filter(({ up, down, left, right }) =>
      [up, down, left, right].includes(control),
    );
    const ids = [control, ...sticks.map(({ id }) => id)];
    const has = ({ edges }: { readonly edges: Edges }) =>
      edges.some(([id, f]) => ids.includes(id) && f === frame);
    return {
      control,
      frame,
      used: uses
        .filter(has)
        .map(({ id }) => id)
        .sort(),
      lost: losses
        .filter(has)
        .map(({ id }) => id)
        .sort(),
      fired: fires.filter(has).length,
    };
  });
}
