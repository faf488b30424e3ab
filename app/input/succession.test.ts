import { expect, test } from "vitest";
import { compile, evaluate, formatTrace, readTake, type Kit, type Take } from "#core";
import { compileRules, runRules, type Rules, type RunnerState } from "#stage";
import { createRuns } from "../../handover/runs";
import { withoutStage, withStageWritten } from "../../handover/vectors/bareKit";
import { readKitAndTakes } from "../tests/evaluated";
import { createLiveSession, type LiveSession } from "./liveSession";
import { takeOf } from "./recording";
import { createSeenTracks } from "./seenTracks";

const FRAME_MS = 1000 / 60;

function mustCompile(kit: Kit): Rules {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  return compiled.value;
}

/** Plays a take's lanes on a live session, from a frame until another. */
function playTake(session: LiveSession, take: Take, from: number, to: number): void {
  const changes = session.program.controls
    .flatMap(({ id }, control) =>
      (take.lanes[id] ?? []).map(([x, value]) => ({ control, x: (x * 60) / take.rate, value })),
    )
    .sort((a, b) => a.x - b.x);
  for (let f = from; f < to; f++) {
    for (const { control, x, value } of changes)
      if (x > f - 1 && x <= f) session.setControl(control, value, x * FRAME_MS);
    session.advance(f * FRAME_MS + 0.01);
  }
}

const keep = (session: LiveSession) =>
  takeOf(session.recording, session.frames, { id: "t", name: "T", kitId: session.rules.kit.id }, () => true);

const eventsOf = ({ program, trace }: LiveSession) => formatTrace(program, trace).events;

const editMoves = (kit: Kit, change: (move: NonNullable<Kit["moves"]>[number]) => object): Kit => ({
  ...kit,
  moves: kit.moves!.map(move => ({ ...move, ...change(move) })),
});

/** Edits of each demo that change what its rules make of a take. */
const EDITS: readonly (readonly [demo: string, what: string, edit: (kit: Kit) => Kit])[] = [
  ["belfry-runner", "no buffer", kit => editMoves(kit, () => ({ buffer: "0f" }))],
  ["belfry-runner", "moves in another order", kit => ({ ...kit, moves: [...kit.moves!].reverse() })],
  [
    "belfry-runner",
    "a longer coyote",
    kit => editMoves(kit, ({ needs }) => ({ needs: needs?.map(need => ({ ...need, coyote: "20f" })) ?? [] })),
  ],
  ["clapper-duel", "no buffer", kit => editMoves(kit, () => ({ buffer: "0f" }))],
  ["clapper-duel", "moves in another order", kit => ({ ...kit, moves: [...kit.moves!].reverse() })],
];

test.each(EDITS)(
  "%s, %s: the new rules' state is what they make of all that was played with gates and speed as they were; bodies stay",
  (demo, _what, edit) => {
    const { kit, takes } = readKitAndTakes(`demo/${demo}`);
    const [rules, changed] = [mustCompile(kit), mustCompile(edit(kit))];
    const bare = compile(withoutStage(changed.kit));
    if (!bare.ok) throw new Error("the bare kit must compile");
    for (const take of takes)
      for (const at of [40, 137, 250]) {
        const before = createLiveSession(rules, 0);
        playTake(before, take, 0, at);
        const bodies = structuredClone(before.bodies);
        const seen = [...before.track];
        const runs = createRuns({ kit, takes: [] })!;
        const written = withStageWritten(kit, keep(before), runs);

        const after = before.under(changed).catchUp()!;
        expect(after.state.frame).toBe(before.state.frame);
        expect(eventsOf(after)).toEqual(formatTrace(bare.value, evaluate(bare.value, written)).events);
        if (demo === "belfry-runner") expect(after.bodies).toEqual({ ...bodies, isStill: false });
        expect(after.track).toEqual(seen);
        expect(after.isPatched).toBe(true);

        playTake(after, take, at, at + 60);
        expect(after.track.slice(0, seen.length)).toEqual(seen);
        expect(after.frames).toBe(before.frames + 60);
        expect(keep(after).lanes).toEqual(keep(before).lanes);
      }
  },
);

test("a body in the air goes on from its place and speed under other numbers of the jump", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  const stage = kit.stage as { fall: object };
  const lighter = { ...kit, stage: { ...stage, fall: { ...stage.fall, up: 10, down: 10 } } } as Kit;
  const before = createLiveSession(mustCompile(kit), 0);
  const take = takes[0]!;
  let at = 0;
  const body = () => before.bodies as RunnerState;
  for (; !(body().vy > 4); at++) playTake(before, take, at, at + 1);
  const { x, y, vx, vy } = body();
  const after = before.under(mustCompile(lighter)).catchUp()!;
  playTake(after, take, at, at + 1);
  const now = after.bodies as RunnerState;
  // A frame later it has gained a frame of the new gravity, 10 tiles a second squared, or its share while the key is held.
  expect(vy - now.vy).toBeGreaterThan(0);
  expect(vy - now.vy).toBeLessThanOrEqual(10 / 60 + 1e-9);
  expect(Math.abs(now.y - y - now.vy / 60)).toBeLessThan(0.01);
  expect(Math.abs(now.x - x)).toBeLessThan(Math.abs(vx) / 60 + 0.05);
});

test("caught up in slices while play goes on, the session is the same as caught up at once", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  const [rules, changed] = [mustCompile(kit), mustCompile(editMoves(kit, () => ({ buffer: "0f" })))];
  const take = takes[0]!;
  const sliced = createLiveSession(rules, 0);
  playTake(sliced, take, 0, 200);
  const successor = sliced.under(changed);
  let played = 200;
  let after: LiveSession | undefined;
  let slices = 0;
  while (!after) {
    // Eight frames a slice, four frames of play between two.
    after = successor.catchUp(() => false);
    if (after) break;
    playTake(sliced, take, played, played + 4);
    if (slices++ % 5 === 0) sliced.setSpeed(slices % 2 === 0 ? 100 : 50);
    played += 4;
  }
  expect(slices).toBeGreaterThan(20);
  expect(after.state.frame).toBe(played - 1);
  const reference = runRules(rules, readTake(rules.program, keep(after)));
  expect([...reference.track].slice(0, 400).map(v => v.toFixed(4))).toEqual(
    after.track.slice(0, 400).map(v => v.toFixed(4)),
  );
  const bare = compile(withoutStage(changed.kit));
  const written = withStageWritten(kit, keep(after), createRuns({ kit, takes: [] })!);
  expect(bare.ok && eventsOf(after)).toEqual(
    bare.ok && formatTrace(bare.value, evaluate(bare.value, written)).events,
  );
});

test("under rules with another kind of stage, what was played is run anew with its bodies", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  const { stage: _stage, ...rest } = kit;
  const bare = mustCompile({
    ...rest,
    moves: rest.moves!.map(({ effect: _effect, ...move }) => move),
  });
  const before = createLiveSession(bare, 0);
  playTake(before, takes[0]!, 0, 100);
  const after = before.under(mustCompile(kit)).catchUp()!;
  const whole = runRules(after.rules, readTake(after.program, keep(after)));
  expect(after.isPatched).toBe(false);
  expect(eventsOf(after)).toEqual(formatTrace(after.program, whole.trace).events);
  expect(after.track.map(v => v.toFixed(4))).toEqual([...whole.track].map(v => v.toFixed(4)));
});

test.each(["belfry-runner", "clapper-duel", "rope-catch"])(
  "%s: from a marked place the same input gives the same play again and again, and other rules begin from there",
  demo => {
    const { kit, takes } = readKitAndTakes(`demo/${demo}`);
    const rules = mustCompile(kit);
    for (const take of takes) {
      let session = createLiveSession(rules, 0);
      playTake(session, take, 0, 150);
      const place = session.place();
      playTake(session, take, 150, 260);
      const [track, events] = [[...session.track], eventsOf(session)];
      for (let again = 0; again < 3; again++) {
        session = session.backTo(place, 150 * FRAME_MS);
        expect(session.state.frame).toBe(place.frame);
        expect(session.bodies).toMatchObject({
          ...place.bodies,
          ...(demo === "belfry-runner" ? { isStill: false } : {}),
        });
        playTake(session, take, 150, 260);
        expect(session.track).toEqual(track);
        expect(eventsOf(session)).toEqual(events);
      }
      const two = session.placeBefore(30)!;
      expect(two.frame).toBe(session.state.frame - 30);
      const back = session.backTo(two, 0);
      expect(keep(back).frames).toBe(two.frame + 1);
      const last = Math.max(...Object.values(keep(back).lanes).flatMap(lane => lane.map(([x]) => x)));
      expect(last).toBeLessThanOrEqual(two.frame);
      const changed = back.under(mustCompile({ ...kit, name: "Other" })).catchUp()!;
      expect(changed.state.frame).toBe(two.frame);
    }
  },
);

test("a kept take is compared with the bodies that were seen: the first frame on which a whole run differs", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  const rules = mustCompile(kit);
  const heavier = mustCompile({
    ...kit,
    stage: { ...(kit.stage as object), fall: { ...(kit.stage as { fall: object }).fall, up: 90 } },
  } as Kit);
  const take = takes[0]!;
  const seen = createSeenTracks();
  const differs = (id: string, session: LiveSession) =>
    seen.differsFrom(
      id,
      session.rules,
      runRules(session.rules, readTake(session.program, keep(session))).track,
    );

  const plain = createLiveSession(rules, 0);
  playTake(plain, take, 0, 200);
  seen.keep("plain", plain);
  expect(differs("plain", plain)).toBeUndefined();

  const renamed = plain.under(mustCompile({ ...kit, name: "Other" })).catchUp()!;
  playTake(renamed, take, 200, 240);
  seen.keep("renamed", renamed);
  expect(differs("renamed", renamed)).toBeUndefined();

  const patched = renamed.under(heavier).catchUp()!;
  playTake(patched, take, 240, 300);
  seen.keep("patched", patched);
  const whole = runRules(heavier, readTake(heavier.program, keep(patched))).track;
  const first = patched.track.findIndex((value, k) => Math.abs(value - whole[k]!) > 1e-3);
  expect(first).toBeGreaterThan(0);
  expect(differs("patched", patched)).toBe(Math.floor(first / 2));
});
