import type { Take } from "../../input/takeSchema";
import type { Gate, Kit, Move, Pattern, Prompt } from "../../kit/schema";
import type { PhasedTraceDocument } from "../../trace/traceSchema";
import { readInput } from "./input";
import { Lengths, watchPlain, type Edge, type Event, type Watcher } from "./patterns";
import { controlsOfStep, watchSequence } from "./sequence";
import { View } from "./view";

type Phase = "idle" | "forming" | "fired" | "sustained" | "lapsed";
type Reported = Record<string, unknown> & { f: number; kind: string; id: string };
type States = Record<string, boolean>;

interface Followed {
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

interface Request {
  readonly move: Move;
  readonly made: number;
  readonly edges: readonly Edge[];
  readonly isAgain: boolean;
  due: number | undefined;
  why?: string;
}

interface Showing {
  readonly shown: number;
  /** The pattern that a prompt with a seed asks for; absent if it asks for all, or has none to ask for. */
  readonly drawn?: string | undefined;
  opened?: number;
}

const isOnAll = (modes: readonly string[] | undefined, mode: string | undefined) =>
  modes === undefined || mode === undefined || modes.includes(mode);
const isSame = (a: Edge, b: Edge) => a[0] === b[0] && a[1] === b[1];
const share = (a: readonly Edge[], b: readonly Edge[]) =>
  a.some(edge => b.some(other => isSame(edge, other)));

function once(edges: readonly Edge[]): Edge[] {
  return edges.filter((edge, k) => edges.findIndex(other => isSame(edge, other)) === k);
}

const round = (value: number) => Math.round(value * 1e6) / 1e6 + 0;

/**
 * Runs the frame rules as literally as they are written and without any optimisation of the core: complete
 * histories, no sleeping, no skipping. Slow; shares with the core only the parsing of lengths and curves.
 * Returns the events of the trace, with the phases of moves.
 */
export function runReference(kit: Kit, take: Take): PhasedTraceDocument["events"] {
  return new Reference(kit, take).run();
}

class Reference {
  private readonly input;
  private readonly lengths;
  private readonly reported: Reported[] = [];
  private readonly sticks;
  private readonly followed: Followed[];
  private readonly gates: readonly Gate[];
  /** By gate: whether it is open, for every frame so far. */
  private readonly open = new Map<string, boolean[]>();
  private readonly spent = new Map<string, number>();
  /** By gate: the last frame on which it was open and not spent. */
  private readonly lastWhole = new Map<string, number>();
  /** By gate: the last frame on which a source had it open. */
  private readonly lastSourced = new Map<string, number>();
  /** By move: the first frame after its last performance on which its input no longer held. */
  private readonly outputEnds = new Map<string, number>();
  private readonly showingCounts = new Map<string, number>();
  private readonly counts = new Map<string, number>();
  private readonly performedAt = new Map<string, number>();
  private readonly timelines = new Map<string, { move: Move; at: number }>();
  private readonly usesLeft = new Map<string, number>();
  private requests: Request[] = [];
  private readonly taken: Edge[] = [];
  private readonly showings = new Map<string, Showing>();
  private readonly outcomes = new Map<string, { at: number; isSuccess: boolean }>();
  private readonly askedByTime = new Set<string>();
  private mode: string | undefined;
  private f = 0;

  constructor(
    private readonly kit: Kit,
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

  run(): PhasedTraceDocument["events"] {
    for (this.f = 0; this.f < this.input.frames; this.f++) {
      this.stepGates();
      this.stepMode();
      this.stepPrompts();
      this.stepPatterns();
      this.judgePrompts();
      this.stepMoves();
      this.reportPhases();
    }
    return this.reported as unknown as PhasedTraceDocument["events"];
  }

  private report(kind: string, id: string, what: Record<string, unknown> = {}): void {
    this.reported.push({ f: this.f, kind, id, ...what });
  }

  private timeOf = (clock: "game" | "real" | undefined) =>
    clock === "real" ? this.input.real : this.input.game;
  private age = (clock: "game" | "real" | undefined, frame: number) =>
    this.timeOf(clock)[this.f]! - this.timeOf(clock)[frame]!;
  private tickOf = (clock: "game" | "real" | undefined) =>
    this.f === 0 ? 0 : this.timeOf(clock)[this.f]! - this.timeOf(clock)[this.f - 1]!;
  private isOpen = (gate: string, f = this.f) => f >= 0 && this.open.get(gate)?.[f] === true;
  private turnsTo = (gate: string, isOpen: boolean) =>
    this.isOpen(gate) === isOpen && this.isOpen(gate, this.f - 1) !== isOpen;
  private isActive = ({ modes, off }: { modes?: readonly string[]; off?: boolean }, mode = this.mode) =>
    off !== true && isOnAll(modes, mode);

  private controlsOf(pattern: Pattern): readonly string[] {
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

  private follow(pattern: Pattern): Followed {
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

  // 3 Gates

  private opensByTimeline(gate: string): boolean {
    for (const [slot, { move, at }] of this.timelines) {
      const age = this.age(move.clock, at);
      const before = age - this.tickOf(move.clock);
      const { startup, active, recovery } = move.frames ?? {};
      const length =
        this.lengths.atLeast(startup) + this.lengths.atLeast(active) + this.lengths.atLeast(recovery);
      if (gate === `busy:${slot}` && age < length) return true;
      for (const opening of move.opens ?? []) {
        const from = this.lengths.atLeast(opening.from);
        if (opening.gate !== gate || age < from) continue;
        const isFirst = this.f === at + 1 || before < from;
        if (isFirst || age <= this.lengths.atMost(opening.to)) return true;
      }
    }
    return false;
  }

  private isOutputOn(gate: string): boolean {
    const move = (this.kit.moves ?? []).find(({ id }) => gate === `out:${id}`);
    const at = move && this.performedAt.get(move.id);
    if (!move || at === undefined || move.linger === undefined) return false;
    let end = this.outputEnds.get(move.id);
    if (end === undefined || end <= at) {
      const { phase } = this.followed.find(item => item.pattern.id === move.pattern)!;
      if (phase === "fired" || phase === "sustained") return true;
      this.outputEnds.set(move.id, (end = this.f));
    }
    return this.age(move.clock, end) < this.lengths.atLeast(move.linger);
  }

  private lingers({ id, linger }: Gate): boolean {
    if (this.isOpen(id)) this.lastSourced.set(id, this.f);
    const last = this.lastSourced.get(id);
    return (
      linger !== undefined && last !== undefined && this.age("game", last) <= this.lengths.atMost(linger)
    );
  }

  private isDerivedOpen(gate: Gate): boolean {
    const { all, any, none, while: pattern } = gate;
    if (all) return all.every(id => this.isOpen(id));
    if (any) return any.some(id => this.isOpen(id));
    if (none) return none.every(id => !this.isOpen(id));
    if (pattern === undefined) return this.isCountedOpen(gate);
    const { phase } = this.followed.find(item => item.pattern.id === pattern)!;
    return phase === "fired" || phase === "sustained";
  }

  private isCountedOpen(gate: Gate): boolean {
    const { fires, performs, atLeast, until } = gate;
    if (fires === undefined && performs === undefined) return false;
    const last = this.followed.find(item => item.pattern.id === fires);
    const isCounted =
      fires === undefined
        ? this.performedAt.get(performs!) === this.f - 1 && this.f > 0
        : last?.event.fires !== undefined;
    let count = (this.counts.get(gate.id) ?? 0) + (isCounted ? 1 : 0);
    if (until !== undefined && this.isOpen(until)) count = 0;
    this.counts.set(gate.id, count);
    return count >= (atLeast ?? 1);
  }

  private stepGates(): void {
    const prompts = (this.kit.prompts ?? []).filter(({ id }) => this.showings.get(id)?.opened !== undefined);
    for (const { id } of this.gates)
      this.open.get(id)![this.f] =
        (this.input.painted[id]?.[this.f] ?? false) ||
        this.opensByTimeline(id) ||
        this.isOutputOn(id) ||
        prompts.some(prompt => prompt.opens === id);
    for (const gate of this.gates) {
      if (this.isDerivedOpen(gate)) this.open.get(gate.id)![this.f] = true;
      if (this.lingers(gate)) this.open.get(gate.id)![this.f] = true;
      if (this.kit.gates?.includes(gate) && this.isOpen(gate.id) !== this.isOpen(gate.id, this.f - 1))
        this.report("gate", gate.id, { open: this.isOpen(gate.id) });
      this.followSpending(gate);
    }
    for (const item of this.followed) item.event = {};
  }

  private followSpending(gate: Gate): void {
    const since = this.spent.get(gate.id);
    if (since !== undefined && !this.isOpen(gate.id)) {
      this.spent.delete(gate.id);
      this.lastWhole.delete(gate.id);
    } else if (since !== undefined && this.age("game", since) >= this.spentFor(gate.id))
      this.spent.delete(gate.id);
    if (this.isOpen(gate.id) && !this.spent.has(gate.id)) this.lastWhole.set(gate.id, this.f);
  }

  private spentFor(id: string): number {
    return this.lengths.atLeast(this.gates.find(gate => gate.id === id)!.spentFor ?? "133ms");
  }

  // 4 Mode

  private stepMode(): void {
    if (this.mode === undefined) return;
    const found = (this.kit.switches ?? []).find(({ when }) =>
      "move" in when
        ? this.f > 0 && this.performedAt.get(when.move) === this.f - 1
        : this.turnsTo(when.gate, when.turns === "open"),
    );
    const from = this.mode;
    const to = found?.to ?? from;
    if (to !== from || this.f === 0) this.report("mode", to);
    if (to === from) return;
    this.mode = to;
    for (const item of this.followed) {
      if (item.pattern.off || this.isActive(item.pattern)) continue;
      if (!this.isActive(item.pattern, from)) continue;
      if (item.phase === "forming") this.reportLapse(item, { why: "mode", ...this.reachedOf(item) });
      Object.assign(item, this.follow(item.pattern), { veiled: item.veiled });
    }
    for (const move of this.kit.moves ?? []) {
      if (!this.isActive(move)) this.loseAll(request => request.move === move, "mode");
    }
    for (const prompt of this.kit.prompts ?? [])
      if (!this.isActive(prompt) && this.showings.has(prompt.id)) this.endShowing(prompt, "failed", "mode");
    const carries = this.kit.modes!.find(({ id }) => id === to)!.carry === true;
    for (const item of this.followed) {
      if (!this.isActive(item.pattern) || this.isActive(item.pattern, from)) continue;
      item.arrives = carries ? "carrying" : "anew";
    }
  }

  /**
   * Handles presses that are down when a pattern becomes active: seen as up until released, or carried from
   * their start.
   */
  private welcome(item: Followed): void {
    const carries = item.arrives === "carrying";
    item.arrives = undefined;
    const hidden = this.hiddenFrom(item);
    item.veiled.clear();
    for (const { id } of this.kit.controls)
      if (this.downAt(id, this.f - 1) && (!carries || hidden.has(id))) item.veiled.add(id);
    if (!carries) return;
    const carried = this.kit.controls
      .map(({ id }) => id)
      .filter(id => this.downAt(id, this.f - 1) && !item.veiled.has(id));
    let from = this.f;
    for (const id of carried) {
      let press = this.f - 1;
      while (this.downAt(id, press - 1)) press--;
      from = Math.min(from, press);
    }
    const seen = (f: number): States =>
      Object.fromEntries(
        this.kit.controls.map(({ id }) => [id, carried.includes(id) && this.isDownThrough(id, f)]),
      );
    for (let f = from; f < this.f; f++) this.watch(item, f, f === from ? {} : seen(f - 1), seen(f), true);
    this.phasesBefore.set(item.pattern.id, item.phase);
  }

  private downAt = (control: string, f: number) => f >= 0 && this.input.down[control]![f] === true;

  /** Returns whether a control was down on a frame and on every later one. */
  private isDownThrough(control: string, from: number): boolean {
    for (let f = from; f < this.f; f++) if (!this.downAt(control, f)) return false;
    return true;
  }

  // 5 Prompts

  private stepPrompts(): void {
    const prompts = (this.kit.prompts ?? []).filter(prompt => prompt.off !== true);
    for (const prompt of prompts) {
      const opened = this.showings.get(prompt.id)?.opened;
      if (opened !== undefined && this.age(prompt.clock, opened) > this.lengths.atMost(prompt.window))
        this.endShowing(prompt, "failed", "too-late");
    }
    for (const prompt of prompts) {
      const isCalled = this.isCalled(prompt);
      if (!isCalled || this.showings.has(prompt.id) || !this.isActive(prompt)) continue;
      const drawn = this.draw(prompt);
      this.showings.set(prompt.id, { shown: this.f, drawn });
      this.report("prompt", prompt.id, {
        outcome: "shown",
        ...(drawn === undefined ? {} : { asks: drawn }),
      });
    }
    for (const prompt of prompts) {
      const showing = this.showings.get(prompt.id);
      if (!showing || showing.opened !== undefined) continue;
      if (this.age(prompt.clock, showing.shown) < this.lengths.atLeast(prompt.lead)) continue;
      showing.opened = this.f;
      this.report("prompt", prompt.id, { outcome: "open" });
    }
  }

  /** Returns the pattern that a showing asks for, by whole numbers of any size. */
  private draw({ id, draw, ask }: Prompt): string | undefined {
    if (draw === undefined) return undefined;
    const k = this.showingCounts.get(id) ?? 0;
    this.showingCounts.set(id, k + 1);
    const from = ask.filter(name => !this.followed.find(item => item.pattern.id === name)!.pattern.off);
    if (from.length === 0) return undefined;
    const size = 2n ** 32n;
    let h = (BigInt(draw) + 0x9e3779b9n * BigInt(k + 1)) % size;
    h = ((h ^ (h >> 16n)) * 0x85ebca6bn) % size;
    h = ((h ^ (h >> 13n)) * 0xc2b2ae35n) % size;
    h ^= h >> 16n;
    return from[Number(h % BigInt(from.length))];
  }

  private isCalled(prompt: Prompt): boolean {
    const { starts } = prompt;
    if ("gate" in starts) return this.turnsTo(starts.gate, true);
    if ("prompt" in starts) {
      const outcome = this.outcomes.get(starts.prompt);
      if (outcome?.at !== this.f - 1) return false;
      return starts.on === "any" || (starts.on === "success") === outcome.isSuccess;
    }
    if (this.askedByTime.has(prompt.id)) return false;
    if (this.timeOf(prompt.clock)[this.f]! < this.lengths.atLeast(starts.at)) return false;
    this.askedByTime.add(prompt.id);
    return true;
  }

  private endShowing(prompt: Prompt, outcome: string, why?: string): void {
    this.showings.delete(prompt.id);
    this.outcomes.set(prompt.id, { at: this.f, isSuccess: outcome !== "failed" });
    this.report("prompt", prompt.id, { outcome, ...(why === undefined ? {} : { why }) });
  }

  // 6 Patterns

  private hiddenFrom(item: Followed): Set<string> {
    const hidden = new Set<string>();
    if (item.pattern.captures !== true) {
      for (const other of this.followed)
        if (other.pattern.captures === true && this.isActive(other.pattern))
          for (const id of other.controls) hidden.add(id);
    }
    for (const prompt of this.kit.prompts ?? []) {
      if (this.showings.get(prompt.id)?.opened === undefined || prompt.ask.includes(item.pattern.id))
        continue;
      for (const id of prompt.captures ?? []) hidden.add(id);
    }
    return hidden;
  }

  /** Updates the controls a pattern sees as up; returns whether one it saw down was hidden. */
  private veil(item: Followed): boolean {
    const hidden = this.hiddenFrom(item);
    let startsOver = false;
    for (const { id } of this.kit.controls) {
      const was = this.downAt(id, this.f - 1);
      const isDown = this.downAt(id, this.f);
      if (item.veiled.has(id)) {
        if (!was && !(hidden.has(id) && isDown)) item.veiled.delete(id);
        continue;
      }
      if (!hidden.has(id) || !isDown) continue;
      item.veiled.add(id);
      if (was && item.controls.includes(id)) startsOver = true;
    }
    return startsOver;
  }

  private stepPatterns(): void {
    for (const item of this.followed) {
      if (item.pattern.off) continue;
      if (item.arrives) this.welcome(item);
      const startsOver = this.veil(item);
      if (!this.isActive(item.pattern)) continue;
      const seen = (f: number): States =>
        Object.fromEntries(
          this.kit.controls.map(({ id }) => [id, this.downAt(id, f) && !item.veiled.has(id)]),
        );
      this.watch(item, this.f, seen(this.f - 1), seen(this.f), false, startsOver);
    }
  }

  private reachedOf = ({ watcher }: Followed) => (watcher.reached ? { reached: watcher.reached() } : {});

  private reportLapse({ pattern }: Followed, { why, reached }: { why: string; reached?: number }): void {
    this.report("lapsed", pattern.id, { why, ...(reached === undefined ? {} : { reached }) });
  }

  private watch(
    item: Followed,
    f: number,
    was: States,
    now: States,
    isMuted: boolean,
    startsOver = false,
  ): void {
    const { watcher, view, pattern } = item;
    view.goTo(f, was, now);
    let event: Event = {};
    const isOver = startsOver && item.phase === "forming";
    const reached = this.reachedOf(item);
    if (startsOver) watcher.startOver(view, isOver);
    const stepped = watcher.step(view);
    if (isOver) {
      const cancel = "cancel" in pattern ? pattern.cancel : undefined;
      const isCancelled = view.isAnyPressed(cancel);
      event = { lapses: { why: isCancelled ? "cancelled" : "hidden", ...reached } };
    } else event = stepped;
    if (event.fires) item.fired = { edges: once(event.fires.edges), carries: event.fires.carries ?? {} };
    if (event.fires) item.phase = "fired";
    else if (event.lapses) item.phase = "lapsed";
    else if (watcher.isSustained(view)) item.phase = "sustained";
    else item.phase = watcher.isForming(view) ? "forming" : "idle";
    watcher.close?.(item.phase === "forming");
    if (isMuted) return;
    item.event = event;
    if (event.lapses) this.reportLapse(item, event.lapses);
    if (!event.fires) return;
    const carries = Object.entries(item.fired!.carries).map(([name, value]) => [name, round(value)]);
    this.report("fired", pattern.id, { edges: item.fired!.edges, ...Object.fromEntries(carries) });
  }

  // 7 Prompts judge

  private judgePrompts(): void {
    for (const prompt of this.kit.prompts ?? []) {
      const showing = this.showings.get(prompt.id);
      if (!showing) continue;
      const isPressed = (id: string) => this.downAt(id, this.f) && !this.downAt(id, this.f - 1);
      const asked = this.followed.filter(item => prompt.ask.includes(item.pattern.id));
      if (showing.opened === undefined) {
        const early = asked.filter(item => showing.drawn === undefined || item.pattern.id === showing.drawn);
        const watched = early.flatMap(item => item.controls);
        if (prompt.early === "fail" && watched.some(isPressed))
          this.endShowing(prompt, "failed", "too-early");
        continue;
      }
      const from = prompt.early === "allow" ? showing.shown : showing.opened;
      const answers = asked.filter(
        item => item.event.fires && item.fired!.edges.every(edge => edge[1] >= from),
      );
      const isAsked = (item: Followed) => prompt.draw === undefined || item.pattern.id === showing.drawn;
      const answer = answers.find(isAsked);
      if (answer) {
        const off = this.age(prompt.clock, showing.opened) - this.lengths.atLeast(prompt.target);
        const grade = (prompt.grades ?? []).find(({ within, early, late }) =>
          off < 0 ? -off <= this.lengths.atMost(early ?? within) : off <= this.lengths.atMost(late ?? within),
        );
        this.endShowing(prompt, grade?.name ?? "ok");
        this.taken.push(...answer.fired!.edges);
      } else if (prompt.wrong === "fail" && ((prompt.wrongOn ?? []).some(isPressed) || answers.length > 0))
        this.endShowing(prompt, "failed", "wrong");
    }
  }

  // 8 Moves

  private now = (move: Move) => this.timeOf(move.clock)[this.f]!;
  private memory = (move: Move) => this.timeOf(move.memory ?? move.clock);

  private isWhole = (gate: string) => this.isOpen(gate) && !this.spent.has(gate);

  private needIsMet(
    move: Move,
    { gate, coyote }: { gate: string; coyote?: string },
  ): "" | "met" | "forgiven" {
    if (this.spent.has(gate)) return "";
    if (this.isOpen(gate)) return "met";
    const last = this.lastWhole.get(gate);
    if (coyote === undefined || last === undefined) return "";
    return this.age(move.clock, last) <= this.lengths.atMost(coyote) ? "forgiven" : "";
  }

  private obstacle(move: Move): string {
    for (const need of move.needs ?? []) if (this.needIsMet(move, need) === "") return `gate:${need.gate}`;
    for (const gate of move.bans ?? []) if (this.isOpen(gate)) return `ban:${gate}`;
    const last = this.performedAt.get(move.id);
    if (last !== undefined && this.age(move.clock, last) < this.lengths.atLeast(move.cooldown))
      return "cooldown";
    return this.usesLeft.get(move.id) === 0 ? "uses" : "";
  }

  private becomeDue(request: Request): void {
    const time = this.memory(request.move);
    const age = time[this.f]! - time[request.made]!;
    if (request.due === undefined && age >= this.lengths.atLeast(request.move.defer)) request.due = this.f;
  }

  private sinceDue({ move, due }: Request): number | undefined {
    return due === undefined ? undefined : this.memory(move)[this.f]! - this.memory(move)[due]!;
  }

  private isReady(request: Request): boolean {
    const since = this.sinceDue(request);
    if (since === undefined || since > this.lengths.atMost(request.move.buffer, 0)) return false;
    return this.obstacle(request.move) === "";
  }

  private isWanted({ when }: Move, carries: Readonly<Record<string, number>>): boolean {
    if (when?.count !== undefined && carries.count !== when.count) return false;
    return when?.level === undefined || (carries.level ?? -1) >= when.level;
  }

  private makeRequest(move: Move, before: ReadonlyMap<string, Phase>): void {
    const item = this.followed.find(other => other.pattern.id === move.pattern)!;
    if (!this.isActive(move) || item.pattern.off || !item.fired) return;
    if (!this.isWanted(move, item.fired.carries)) return;
    const { edges } = item.fired;
    const isTaken = share(edges, this.taken);
    if (item.event.fires) {
      const request: Request = { move, made: this.f, edges, isAgain: false, due: undefined };
      this.requests.push(request);
      this.becomeDue(request);
      if (isTaken) request.why = "prompt";
      else if (this.kit.queue !== "all") this.replaceOlder(request);
      return;
    }
    const was = before.get(move.pattern);
    const isHeldOn = item.phase === "sustained" && (was === "fired" || was === "sustained");
    const isPending = this.requests.some(request => request.move === move && request.why === undefined);
    if (move.again !== "held" || !isHeldOn || isTaken || isPending) return;
    this.requests.push({ move, made: this.f, edges, isAgain: true, due: this.f });
  }

  private replaceOlder(request: Request): void {
    const { move } = request;
    const isKept = this.lengths.atLeast(move.defer) + this.lengths.atMost(move.buffer, 0) > 0;
    if (!isKept && !this.isReady(request)) return;
    for (const other of this.requests)
      if (
        other.why === undefined &&
        other.made < this.f &&
        (other.move.slot ?? "main") === (move.slot ?? "main")
      )
        other.why = "replaced";
  }

  private phasesBefore = new Map<string, Phase>();

  private stepMoves(): void {
    const moves = this.kit.moves ?? [];
    for (const move of moves)
      if (move.uses && this.isWhole(move.uses.refill)) this.usesLeft.set(move.id, move.uses.max);
    for (const request of this.requests) {
      this.becomeDue(request);
      if (share(request.edges, this.taken)) request.why = "prompt";
    }
    for (const move of moves) this.makeRequest(move, this.phasesBefore);
    const performed = this.arbitrate(moves);
    for (const request of this.requests) {
      const since = this.sinceDue(request);
      if (request.why !== undefined || performed.has(request) || since === undefined) continue;
      if (since < this.lengths.atMost(request.move.buffer, 0)) continue;
      const slot = request.move.slot ?? "main";
      const isBusy = [...performed.keys()].some(other => (other.move.slot ?? "main") === slot);
      request.why = this.obstacle(request.move) || (isBusy ? "busy" : "late");
    }
    for (const move of moves)
      for (const [request, by] of performed)
        if (request.move === move)
          this.report("performed", move.id, { made: request.made, waited: this.f - request.made, by });
    this.reportLost();
    this.requests = this.requests.filter(request => !performed.has(request) && !request.isAgain);
    this.phasesBefore = new Map(this.followed.map(item => [item.pattern.id, item.phase]));
  }

  /** By slot: the timeline whose phases are reported, and the phase reported last. */
  private readonly phased = new Map<string, { move: Move; at: number; phase: string }>();

  /** Returns the part of a timeline that holds an age; "over" past its end. */
  private phaseAt({ frames }: Move, age: number): string {
    let end = 0;
    for (const part of ["startup", "active", "recovery"] as const) {
      end += this.lengths.atLeast(frames?.[part]);
      if (age < end) return part;
    }
    return "over";
  }

  private reportPhases(): void {
    const events: { move: Move; phase: string }[] = [];
    for (const [slot, { move, at }] of this.timelines) {
      const before = this.phased.get(slot);
      if (before && before.at !== at) events.push({ move: before.move, phase: "cut" });
      const phase = this.phaseAt(move, this.age(move.clock, at));
      const isNew = before?.at !== at;
      if (isNew ? at === this.f && phase !== "over" : phase !== before.phase) events.push({ move, phase });
      if (phase === "over") this.phased.delete(slot);
      else this.phased.set(slot, { move, at, phase });
    }
    for (const move of this.kit.moves ?? [])
      for (const event of events)
        if (event.move === move) this.report("phase", move.id, { phase: event.phase });
  }

  private reportLost(): void {
    for (const move of this.kit.moves ?? [])
      for (const { made, why, isAgain, move: of } of this.requests)
        if (of === move && why !== undefined && !isAgain) this.report("lost", move.id, { made, why });
    this.requests = this.requests.filter(request => request.why === undefined);
  }

  private loseAll(isMeant: (request: Request) => boolean, why: string): void {
    for (const request of this.requests) if (isMeant(request)) request.why = why;
    this.reportLost();
  }

  private arbitrate(moves: readonly Move[]): Map<Request, string> {
    const performed = new Map<Request, string>();
    const taken = new Set<string>();
    for (;;) {
      const ready = this.requests
        .filter(
          request =>
            request.why === undefined &&
            !performed.has(request) &&
            !taken.has(request.move.slot ?? "main") &&
            this.isReady(request),
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
      const isForgiven = (move.needs ?? []).some(need => this.needIsMet(move, need) === "forgiven");
      const isLate = request.due! < this.f;
      performed.set(request, isForgiven ? (isLate ? "both" : "coyote") : isLate ? "buffer" : "direct");
      taken.add(move.slot ?? "main");
      for (const gate of move.spends ?? []) if (this.spentFor(gate) > 0) this.spent.set(gate, this.f);
      this.performedAt.set(move.id, this.f);
      if (move.uses) this.usesLeft.set(move.id, this.usesLeft.get(move.id)! - 1);
      this.timelines.set(move.slot ?? "main", { move, at: this.f });
      for (const other of this.requests)
        if (
          other.why === undefined &&
          !performed.has(other) &&
          !other.move.shares &&
          share(other.edges, request.edges)
        )
          other.why = "beaten";
    }
  }
}
