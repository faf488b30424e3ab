import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { parseRules } from "../rules";
import { findAdvantage, formatAdvantage } from "./advantage";

const read = parseRules(JSON.parse(readFileSync("demo/clapper-duel/kit.json", "utf8")));
if (!read.ok) throw new Error("the demo must read");
const { kit } = read.value;
const place = (id: string) => kit.moves!.findIndex(move => move.id === id);
const written = (field: "stun" | "hitStop") => parseInt((kit.stage as Record<string, string>)[field]!, 10);

test("on a hit the opponent is free when its stun ends, the fighter when its recovery does; on a guard at once", () => {
  const chime = kit.moves![place("chime")]!.frames!;
  const [active, recovery] = [parseInt(chime.active, 10), parseInt(chime.recovery, 10)];
  const found = findAdvantage(kit, place("chime"))!;
  // The blow lands at the end of its last frame of startup: both count from there, and the hit stop holds
  // both.
  expect(found.onHit).toBe(written("stun") - active - recovery - 1);
  expect(found.onGuard).toBe(-(active + recovery));
});

test("a longer recovery costs as many frames; a chained move is tried as if it might follow; others have none", () => {
  const slower = (by: number) => ({
    ...kit,
    moves: kit.moves!.map(move =>
      move.id === "chime"
        ? { ...move, frames: { ...move.frames!, recovery: `${parseInt(move.frames!.recovery, 10) + by}f` } }
        : move,
    ),
  });
  const [before, after] = [findAdvantage(kit, place("chime"))!, findAdvantage(slower(5), place("chime"))!];
  expect(after.onHit).toBe(before.onHit - 5);
  expect(findAdvantage(kit, place("toll"))).toBeDefined();
  expect(findAdvantage(kit, place("parry"))).toBeUndefined();
  expect(findAdvantage({ ...kit, stage: undefined }, place("chime"))).toBeUndefined();
  const { frames: _frames, ...bare } = kit.moves![place("chime")]!;
  const timeless = { ...kit, moves: kit.moves!.map(move => (move.id === "chime" ? bare : move)) };
  expect(findAdvantage(timeless, place("chime"))).toBeUndefined();
  expect([3, 0, -12].map(formatAdvantage)).toEqual(["+3f", "even", "−12f"]);
});
