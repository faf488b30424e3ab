import { expect, test } from "vitest";
import type { Gate, Kit, Move } from "../kit/schema";
import { compile } from "../kit/compile";
import { drawTake, play, sketchKit } from "../tests/strips";
import { formatIssue } from "../formats/formatIssue";
import { formatPhasedTrace } from "../trace/formatTrace";
import { evaluate } from "../run/run";
import { mustCompile } from "../tests/strips";

const gate = (id: string, fields: Partial<Gate> = {}): Gate => ({ id, name: id, ...fields });
const press = (id: string, control: string): Kit["patterns"][number] => ({
  id,
  name: id,
  kind: "press",
  control,
});
const move = (id: string, pattern: string, fields: Partial<Move> = {}): Move => ({
  id,
  name: id,
  pattern,
  ...fields,
});
const kitWith = (rest: Partial<Kit>): Kit =>
  sketchKit("ab", { patterns: [press("p", "a"), press("q", "b")], ...rest });

/** Returns the frames on which a move was performed. */
const framesOf = (run: ReturnType<typeof play>, id: string) =>
  run.of("performed").flatMap(event => (event.id === id ? [event.f] : []));

test("a lingering gate runs by the game's clock: it stands still in a freeze", () => {
  const kit = kitWith({ gates: [gate("g", { linger: "3f" })] });
  const take = {
    ...drawTake({ a: "............" }, { g: "##.........." }),
    speed: [
      [3, 0],
      [6, 100],
    ] as [number, number][],
  };
  const closed = play(kit, take)
    .of("gate")
    .find(event => !event.open)!.f;
  // Last open on 1; frames 2 and then 6 and 7 count: the age is 3 on frame 7.
  expect(closed).toBe(8);
});

test("an output is read by bans, derived gates, switches and prompts; nothing opens, paints or spends it", () => {
  const shield = move("shield", "p", { linger: "2f" });
  const kit = kitWith({
    gates: [gate("safe", { any: ["out:shield"] })],
    moves: [shield, move("bash", "q", { bans: ["out:shield"], slot: "arm" })],
  });
  const painted = drawTake({ a: ".##.......", b: ".....#...#" }, { "out:shield": "##########" });
  const run = play(kit, painted);
  expect(run.of("gate").map(({ f, id, open }) => [f, id, open])).toEqual([
    [2, "safe", true],
    [6, "safe", false],
  ]);
  expect(framesOf(run, "bash")).toEqual([9]);
  for (const [rest, words] of [
    [{ gates: [gate("out:shield")], moves: [shield] }, "cannot be declared"],
    [{ moves: [{ ...shield, spends: ["out:shield"] }] }, "cannot be spent"],
    [{ moves: [{ ...shield, opens: [{ gate: "out:shield", from: "1f", to: "2f" }] }] }, "cannot be opened"],
    [{ moves: [move("shield", "p", { bans: ["out:shield"] })] }, "give that move a linger"],
  ] as const) {
    const compiled = compile(kitWith(rest as Partial<Kit>));
    expect(compiled.ok ? [] : compiled.issues.map(formatIssue).join(" ")).toContain(words);
  }
});

test("phases name each part as it is reached, over at the end, and cut when another timeline takes the slot", () => {
  const kit = kitWith({
    moves: [
      move("swing", "p", { frames: { startup: "2f", active: "0f", recovery: "2f" } }),
      move("stop", "q", { frames: { startup: "0f", active: "0f", recovery: "0f" } }),
    ],
  });
  const program = mustCompile(kit);
  const take = drawTake({ a: ".#.......#....", b: "...........#.." });
  const { events } = formatPhasedTrace(program, evaluate(program, take));
  expect(
    events.flatMap(event => (event.kind === "phase" ? [`${event.f} ${event.id} ${event.phase}`] : [])),
  ).toEqual(["1 swing startup", "3 swing recovery", "5 swing over", "9 swing startup", "11 swing cut"]);
});
