import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { compile, formatIssue, type Kit } from "#core";
import { BLOWS, compileRules, findCancels, formatRanges, type Blow } from "#stage";
import { endFollow, findFollowWindow, letFollow, waitUntilFree, type FollowWhen } from "./cancelEdits";

const DUEL = JSON.parse(readFileSync("demo/clapper-duel/kit.json", "utf8")) as Kit;
const indexOf = (id: string) => DUEL.moves!.findIndex(move => move.id === id);

/** Returns the frames on which a move may follow another, by the outcome of its blow. */
function followsOf(kit: Kit, first: number, second: number): Readonly<Record<Blow, string>> {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error(compiled.issues.map(formatIssue).join("; "));
  const { follows } = findCancels(kit, first)!;
  const words = BLOWS.map(blow => [blow, formatRanges(follows.get(blow)![second]!)] as const);
  return Object.fromEntries(words) as Record<Blow, string>;
}

test("a move may follow another within the window that is asked, on the outcome that is asked, and as before once it ends", () => {
  const chime = indexOf("chime");
  for (const id of ["great-toll", "peal", "parry"]) {
    const second = indexOf(id);
    const before = followsOf(DUEL, chime, second);
    for (const when of ["any", ...BLOWS] as readonly FollowWhen[]) {
      const kit = letFollow(DUEL, chime, second, { when, from: "12f", to: "20f" });
      const after = followsOf(kit, chime, second);
      for (const blow of BLOWS) {
        const isAsked = when === "any" || when === blow;
        expect([id, when, blow, after[blow]]).toEqual([id, when, blow, isAsked ? "12–20f" : before[blow]]);
      }
      expect(findFollowWindow(kit, chime, second)).toBe(1);
      const ended = endFollow(kit, chime, second);
      expect([id, when, followsOf(ended, chime, second)]).toEqual([id, when, before]);
      expect(ended.moves![chime]!.opens).toEqual(DUEL.moves![chime]!.opens);
    }
  }
});

test("a move begins from neutral as before, and after several others", () => {
  const [chime, sweep, great] = [indexOf("chime"), indexOf("sweep"), indexOf("great-toll")];
  const window = { when: "any", from: "12f", to: "20f" } as const;
  const one = letFollow(DUEL, chime, great, window);
  const both = letFollow(one, sweep, great, { ...window, when: "hit" });
  expect(compile(both).ok).toBe(true);
  expect(followsOf(both, chime, great).miss).toBe("12–20f");
  expect(both.moves![great]!.needs).toHaveLength(1);
  expect(both.moves![great]!.bans).toEqual(["struck"]);
  const ended = endFollow(endFollow(both, chime, great), sweep, great);
  expect(compile(ended).ok).toBe(true);
  expect(followsOf(ended, chime, great)).toEqual(followsOf(DUEL, chime, great));
});

test("a window whose gate a move needs directly keeps the gate; a move that waits is banned while another runs", () => {
  const [chime, toll, shove] = [indexOf("chime"), indexOf("toll"), indexOf("shove")];
  expect(findFollowWindow(DUEL, chime, toll)).toBe(0);
  const ended = endFollow(DUEL, chime, toll);
  expect(followsOf(ended, chime, toll)).toEqual({ miss: "", hit: "", guard: "" });
  expect(ended.gates!.some(({ id }) => id === "toll-may-follow")).toBe(true);
  expect(endFollow(DUEL, chime, shove)).toBe(DUEL);
  expect(letFollow(DUEL, chime, shove, { when: "any", from: "12f", to: "20f" })).toBe(DUEL);
  expect(followsOf(DUEL, chime, shove).miss).toBe("1–25f");
  expect(followsOf(waitUntilFree(DUEL, chime, shove), chime, shove).miss).toBe("");
});

test("a window in which another move takes the press lets nothing follow", () => {
  const chime = indexOf("chime");
  const kit = letFollow(DUEL, chime, chime, { when: "any", from: "8f", to: "20f" });
  // From 10f to 24f a press is Toll, which has the higher priority.
  expect(followsOf(kit, chime, chime)).toEqual({ miss: "8–9f", hit: "8–9f", guard: "8–9f" });
});

test("without a duel a move can follow at any outcome only", () => {
  const { stage: _, ...rest } = DUEL;
  const bare = rest as Kit;
  const window = { from: "12f", to: "20f" };
  expect(letFollow(bare, 0, indexOf("great-toll"), { ...window, when: "hit" })).toBe(bare);
  const kit = letFollow(bare, 0, indexOf("great-toll"), { ...window, when: "any" });
  expect(formatRanges(findCancels(kit, 0)!.follows.get("miss")![indexOf("great-toll")]!)).toBe("12–20f");
});
