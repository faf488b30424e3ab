import type { Take } from "../../input/takeSchema";
import type { Gate, Kit, Move, Pattern } from "../../kit/schema";
import { readInput } from "./input";
import { Lengths, watchPlain, type Edge, type Event, type Watcher } from "./patterns";
import { controlsOfStep, watchSequence } from "./sequence";
import { View } from "./view";

export type Phase = "idle" | "forming" | "fired" | "sustained" | "lapsed";
type Reported = Record<string, unknown> & { f: number; kind: string; id: string };
export type States = Record<string, boolean>;

export interface Followed {
  readonly pattern: Pattern;
  readonly controls: readonly string[];
  view: View;
  watcher: Watcher;
  phase: Phase;
  /** Controls seen as up until they have been released. */
  veiled: Set<string>;
  /** Set if just activated, by a mode that carries presses or one that does not. */
  arrives: "carrying" | "anew" | undefined;
  /** Its last fire. */
  fired: { edges: readonly Edge[]; carries: Readonly<Record<string, number>> } | undefined;
  event: Event;
}

export interface Request {
  readonly move: Move;
  readonly made: number;
  readonly edges: readonly Edge[];
  readonly isAgain: boolean;
  due: number | undefined;
  why?: string;
}

export interface Showing {
  readonly shown: number;
  /** The pattern that a prompt with a seed asks for; absent if it asks for all, or has none to ask for. */
  readonly drawn?: string | undefined;
  opened?: number;
}

const isOnAll = (modes: readonly string[] | undefined, mode: string | undefined) =>
  modes === undefined || mode === undefined || modes.includes(mode);
const isSame = (a: Edge, b: Edge) => a[0] === b[0] && a[1] === b[1];
export const share = (a: readonly Edge[], b: readonly Edge[]) =>
  a.some(edge => b.some(other => isSame(edge, other)));

export function once(edges: readonly Edge[]): Edge[] {
  return edges.filter((edge, k) => edges.findIndex(other => isSame(edge, other)) === k);
}

export const round = (value: number) => Math.round(value * 1e6) / 1e6 + 0;

/** Everything that the steps of a frame read and write: complete histories, by frame or by id. */
export class Course {
  readonly input;
  readonly lengths;
  readonly reported: Reported[] = [];
  readonly sticks;
  readonly followed: Followed[];
  readonly gates: readonly Gate[];
  /** By gate: whether it is open, for every frame so far. */
  readonly open = new Map<string, boolean[]>();
  readonly spent = new Map<string, number>();
  /** By gate: the last frame on which it was open and not spent. */
  readonly lastWhole = new Map<string, number>();
  /** By gate: the last frame on which a source had it open. */
  readonly lastSourced = new Map<string, number>();
  /** By move: the first frame after its last performance on which its input no longer held. */
  readonly outputEnds = new Map<string, number>();
  readonly showingCounts = new Map<string, number>();
  readonly counts = new Map<string, number>();
  readonly performedAt = new Map<string, number>();
  readonly timelines = new Map<string, { move: Move; at: number }>();
  readonly usesLeft = new Map<string, number>();
  requests: Request[] = [];
  readonly taken: Edge[] = [];
  readonly showings = new Map<string, Showing>();
  readonly outcomes = new Map<string, { at: number; isSuccess: boolean }>();
  readonly askedByTime = new Set<string>();
  mode: string | undefined;
  f = 0;
  phasesBefore = new Map<string, Phase>();
  /** By slot: the timeline whose phases are reported, and the phase reported last. */
  readonly phased = new Map<string, { move: Move; at: number; phase: string }>();

  constructor(
    readonly kit: Kit,
    take: Take,
  ) {
    this.input = readInput(kit, take);
    this.lengths = new Lengths(kit.rate);
    this.sticks = kit.sticks ?? [];
    this.mode = kit.modes?.length ? (kit.start ?? kit.modes[0]!.id) : undefined;
    const slots = (kit.moves ?? []).map(move => `busy:${move.slot ?? "main"}`);
    const named = JSON.stringify(kit).match(/(?<=")busy:[^"]*(?=")/g) ?? [];
    const listed = kit.gates ?? [];
    const outputs = (kit.moves ?? []).filter(move => move.linger !== undefined).map(({ id }) => `out:${id}`);
    const implied = new Set(
      [...slots, ...named, ...outputs].filter(id => !listed.some(gate => gate.id === id)),
    );
    this.gates = [...listed, ...[...implied].map(id => ({ id, name: id }))];
    for (const { id } of this.gates) this.open.set(id, []);
    for (const move of kit.moves ?? []) if (move.uses) this.usesLeft.set(move.id, move.uses.max);
    this.followed = kit.patterns.map(pattern => this.follow(pattern));
  }

  report(kind: string, id: string, what: Record<string, unknown> = {}): void {
    this.reported.push({ f: this.f, kind, id, ...what });
  }

  timeOf = (clock: "game" | "real" | undefined) => (clock === "real" ? this.input.real : this.input.game);
  age = (clock: "game" | "real" | undefined, frame: number) =>
    this.timeOf(clock)[this.f]! - this.timeOf(clock)[frame]!;
  tickOf = (clock: "game" | "real" | undefined) =>
    this.f === 0 ? 0 : this.timeOf(clock)[this.f]! - this.timeOf(clock)[this.f - 1]!;
  isOpen = (gate: string, f = this.f) => f >= 0 && this.open.get(gate)?.[f] === true;

  turnsTo = (gate: string, isOpen: boolean) =>
    this.isOpen(gate) === isOpen && this.isOpen(gate, this.f - 1) !== isOpen;

  isActive = ({ modes, off }: { modes?: readonly string[]; off?: boolean }, mode = this.mode) =>
    off !== true && isOnAll(modes, mode);

  downAt = (control: string, f: number) => f >= 0 && this.input.down[control]![f] === true;

  /** Returns whether a control was down on a frame and on every later one. */
  isDownThrough(control: string, from: number): boolean {
    for (let f = from; f < this.f; f++) if (!this.downAt(control, f)) return false;
    return true;
  }

  controlsOf(pattern: Pattern): readonly string[] {
    switch (pattern.kind) {
      case "chord":
      case "mash":
        return pattern.controls;
      case "sequence":
        return [...new Set(pattern.steps.flatMap(step => controlsOfStep(step, this.sticks)))];
      default:
        return [pattern.control];
    }
  }

  follow(pattern: Pattern): Followed {
    const mirror = (stick: { mirrorWhen?: string }, f: number) =>
      stick.mirrorWhen !== undefined && this.isOpen(stick.mirrorWhen, f);
    const watcher =
      pattern.kind === "sequence"
        ? watchSequence(
            pattern,
            this.lengths,
            this.kit.controls.map(({ id }) => id),
            this.sticks,
          )
        : watchPlain(pattern, this.lengths);
    return {
      pattern,
      controls: this.controlsOf(pattern),
      view: new View(this.sticks, this.timeOf(pattern.clock), mirror),
      watcher,
      phase: "idle",
      veiled: new Set(),
      arrives: undefined,
      fired: undefined,
      event: {},
    };
  }
}
