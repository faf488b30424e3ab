import { readdirSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import {
  createInputCursor,
  createTrace,
  firstAbove,
  FORMING,
  HIDDEN,
  readOutcomes,
  listGateTurns,
  loadInput,
  notes,
  OPEN,
  readTake,
  REQUEST_HEAD,
  SUSTAINED,
  type Kit,
  type Take,
} from "#core";
import { compileRules, createStaging, stepStaging, type Rules } from "#stage";
import { anyKit, anyTake } from "../../../core/tests/arbitraries";
import { readKitAndTake } from "../../tests/evaluated";
import { buildTape, createTapeBuilder } from "./buildTape";
import { eachShown, overviewCells, type Shown } from "./outcomes";
import type { TapeModel, TapeRow } from "./tapeRows";

/** Returns every frame of the stretches of a look, as a set. */
function framesOf(
  from: readonly number[],
  to: readonly number[],
  isWanted: (k: number) => boolean,
): Set<number> {
  const frames = new Set<number>();
  from.forEach((first, k) => {
    if (isWanted(k)) for (let f = first; f < to[k]!; f++) frames.add(f);
  });
  return frames;
}

/** Returns the frames of each row and look of a tape. */
function facts(model: TapeModel) {
  const rows = new Map<string, Set<number>>();
  const add = (row: TapeRow, look: string, frames: Set<number>) =>
    rows.set(`${row.group} ${row.id} ${look}`, frames);
  for (const row of model.rows) {
    for (const look of new Set(row.spanLook))
      add(
        row,
        look,
        framesOf(row.spanFrom, row.spanTo, k => row.spanLook[k] === look),
      );
    add(
      row,
      "waiting",
      framesOf(row.waitFrom, row.waitTo, () => true),
    );
    for (const look of new Set(row.markLook))
      add(row, look, new Set(row.markFrame.filter((_, k) => row.markLook[k] === look)));
  }
  const frozen = framesOf(model.freezeFrom, model.freezeTo, () => true);
  return { on: (key: string, f: number) => rows.get(key)?.has(f) ?? false, frozen };
}

/** Steps a take frame by frame and compares the tape with the state on each frame. */
function holdAgainstState(rules: Rules, take: Take): void {
  const { program } = rules;
  const columns = readTake(program, take);
  const staging = createStaging(rules);
  const { state } = staging;
  const cursor = createInputCursor(program, columns);
  const trace = createTrace(program.rateHz);
  const live = createTapeBuilder(rules);
  const wrong: string[] = [];
  const seen: (() => void)[] = [];
  for (let f = 0; f < columns.frames; f++) {
    const since = trace.count;
    stepStaging(rules, staging, loadInput(cursor, f), trace);
    live.extend(trace);
    const busy = program.slots.map(slot => state.gateOpen[slot.busyGate] === 1);
    const open = program.gates.map((_, g) => state.gateOpen[g] === 1);
    const down = program.controls.map((_, c) => state.down[c] === 1);
    const phase = program.patterns.map((_, i) => state.phase[i]);
    const stages = program.prompts.map((_, p) => state.promptStage[p]!);
    const stride = REQUEST_HEAD + program.edgeRoom;
    const pending = new Set(
      Array.from({ length: state.requestCount }, (_, r) => state.requests[r * stride]!),
    );
    const { gameTicks, speedPercent } = state;
    const moved = new Set<string>();
    for (let i = since; i < trace.count; i++)
      if (trace.kind[i] === notes.performed.code) moved.add(program.moves[trace.subject[i]!]!.id);
    seen.push(() => {
      const { on, frozen } = tape;
      const expectOn = (key: string, wanted: boolean) => {
        if (on(key, f) !== wanted) wrong.push(`${f} ${key} ${wanted ? "missing" : "too much"}`);
      };
      program.controls.forEach((c, i) => expectOn(`controls ${c.id} down`, down[i]!));
      program.gates.forEach((g, i) => g.isListed && expectOn(`gates ${g.id} open`, open[i]!));
      program.gates.forEach(({ isNoted, id }, i) => {
        const { opened, closed } = turns[i]!;
        const isOpen = firstAbove(opened, f) > firstAbove(closed, f);
        if (isNoted && isOpen !== open[i]) wrong.push(`${f} ${id} ${isOpen ? "open" : "closed"}`);
      });
      program.gates.forEach((g, i) => {
        if (on(`gates ${g.id} forgiven`, f) && open[i]) wrong.push(`${f} ${g.id} forgiven while open`);
      });
      program.patterns.forEach((p, i) => {
        if (p.isOff) return;
        expectOn(`patterns ${p.id} forming`, phase[i] === FORMING);
        expectOn(`patterns ${p.id} sustained`, phase[i] === SUSTAINED);
      });
      program.prompts.forEach((p, i) => {
        if (p.isOff) return;
        expectOn(`prompts ${p.id} window`, stages[i] === OPEN);
        expectOn(`prompts ${p.id} lead`, stages[i] !== OPEN && stages[i] !== HIDDEN);
      });
      program.moves.forEach(m => !m.isOff && expectOn(`moves ${m.id} performed`, moved.has(m.id)));
      program.moves.forEach((m, i) => !m.isOff && expectOn(`moves ${m.id} waiting`, pending.has(i)));
      program.slots.forEach((_, s) => {
        const own = program.moves.filter(m => m.slot === s && !m.isOff);
        const parts = own.filter(m =>
          ["startup", "active", "recovery"].some(look => on(`moves ${m.id} ${look}`, f)),
        );
        if (parts.length > 1) wrong.push(`${f} two timelines in slot ${s}`);
        const starts = own.some(m => moved.has(m.id));
        if (!starts && parts.length > 0 !== busy[s])
          wrong.push(`${f} slot ${s} ${busy[s] ? "busy" : "free"}`);
      });
      if (frozen.has(f) !== (speedPercent === 0)) wrong.push(`${f} freeze`);
      if (model.clock.ticksAt(f) !== gameTicks)
        wrong.push(`${f} clock ${model.clock.ticksAt(f)} ${gameTicks}`);
    });
  }
  const model = buildTape(rules, trace, take);
  const tape = facts(model);
  const turns = listGateTurns(program.gates.length, trace);
  for (const check of seen) check();
  expect(wrong.slice(0, 6)).toEqual([]);
  const grown = live.extend(trace);
  const cut = (row: TapeRow) => ({
    ...row,
    spanTo: row.spanTo.map(to => Math.min(to, trace.frames)),
    waitTo: row.waitTo.map(to => Math.min(to, trace.frames)),
    valueFrame: [],
    value: [],
  });
  for (const row of grown.rows) {
    const other = model.rows.find(item => item.group === row.group && item.id === row.id)!;
    expect(cut(row)).toEqual(cut(other));
  }
  for (const row of model.rows) {
    for (const [from, to] of [
      [row.spanFrom, row.spanTo],
      [row.waitFrom, row.waitTo],
    ] as const) {
      from.forEach((first, k) => {
        expect(first).toBeLessThan(to[k]!);
        expect(to[k]!).toBeLessThanOrEqual(trace.frames);
        if (k > 0) expect(first).toBeGreaterThanOrEqual(to[k - 1]!);
      });
    }
    expect([...row.markFrame]).toEqual([...row.markFrame].sort((a, b) => a - b));
  }
  const whole = readOutcomes(program, trace);
  const fates = whole.presses;
  const lostMarks = model.rows.flatMap(row =>
    row.markLook.filter(look => row.group === "moves" && look === "lost"),
  );
  const lost = fates.filter(fate => fate.outcome === "lost");
  const lostRequests = new Set(lost.flatMap(fate => fate.losses.map(loss => `${loss.move} ${loss.made}`)));
  const directed = program.sticks.length > 0;
  if (directed) expect(lostMarks.length).toBeGreaterThanOrEqual(lostRequests.size);
  else expect(lostMarks.length).toBe(lostRequests.size);
  const outcomes: Record<Shown, number[]> = { presses: [], performed: [], lost: [] };
  eachShown(whole, (shown, frame) => outcomes[shown].push(frame));
  const cells = overviewCells(whole, trace.frames, 560);
  expect(outcomes.lost.length).toBe(lost.length);
  expect(outcomes.performed.length).toBe(
    model.rows.reduce((sum, row) => sum + row.markLook.filter(look => look === "performed").length, 0),
  );
  for (const look of ["presses", "performed", "lost"] as const) {
    const inCells = outcomes[look].map(frame => Math.min(559, Math.floor((frame * 560) / trace.frames)));
    expect(cells[look]).toEqual([...new Set(inCells)].sort((a, b) => a - b));
  }
}

const demos = readdirSync("demo").filter(name => !name.includes("."));
const takes = demos.flatMap(kit =>
  readdirSync(`demo/${kit}`)
    .filter(file => /^\d/.test(file))
    .map(file => [kit, file.replace(".json", "")] as const),
);

test.each(takes)("demo %s, take %s: no bar, mark or count that the trace does not have", (folder, name) => {
  const { kit, take } = readKitAndTake(`demo/${folder}`, name);
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(folder);
  holdAgainstState(rules.value, take);
});

test("on any kit and take the tape equals the state on every frame", () => {
  fc.assert(
    fc.property(anyKit, anyTake, (kit: Kit, take: Take) => {
      const rules = compileRules(kit);
      if (rules.ok) holdAgainstState(rules.value, take);
    }),
    { numRuns: Number(process.env.RUNS ?? 60) },
  );
});
