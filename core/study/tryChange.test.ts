import fc from "fast-check";
import { expect, test } from "vitest";
import { writeAt } from "../kit/editAt";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import { drawTake, mustCompile, sketchKit } from "../tests/strips";
import { readOutcomes } from "./outcomes/readOutcomes";
import { prepareBare } from "./prepareRun";
import { formatPrice } from "./price";
import { createTrier, searchSmallest, type Lever, type WantedPress } from "./tryChange";

const BUFFER: Lever = { path: ["moves", 0, "buffer"], rounding: "atMost", direction: 1, base: "0f" };
const COYOTE: Lever = {
  path: ["moves", 0, "needs", 0, "coyote"],
  rounding: "atMost",
  direction: 1,
  base: "0f",
};

const HOP = sketchKit("a", {
  gates: [
    { id: "ground", name: "Ground" },
    { id: "calm", name: "Calm" },
  ],
  patterns: [{ id: "leap", name: "Leap", kind: "press", control: "a" }],
  moves: [
    { id: "hop", name: "Hop", pattern: "leap", needs: [{ gate: "ground", coyote: "2f" }], buffer: "3f" },
  ],
});

type Take = ReturnType<typeof drawTake>;

function lostIn(kit: Kit, takes: readonly Take[]): WantedPress[] {
  const program = mustCompile(kit);
  return takes.flatMap((take, t) =>
    readOutcomes(program, evaluate(program, take)).presses.flatMap(({ outcome, control, frame }) =>
      outcome === "lost" ? [{ take: t, control, frame }] : [],
    ),
  );
}

function smallest(kit: Kit, lever: Lever, takes: readonly Take[], mostFrames = 60) {
  const trier = createTrier(kit, takes, prepareBare)!;
  const search = searchSmallest(trier, kit, lever, lostIn(kit, takes), mostFrames);
  let step = search.next();
  while (!step.done) step = search.next();
  return step.value;
}

test("the smallest length that saves a press is found over all takes, with how many it saves", () => {
  // Eight frames late in one take, five and five in the other.
  const takes = [
    drawTake({ a: "..........#..." }, { ground: "##............" }),
    drawTake({ a: ".......#......#......" }, { ground: "##......##..........." }),
  ];
  const found = smallest(HOP, COYOTE, takes)!;
  expect([found.from, found.to, found.saved.length]).toEqual(["2f", "5f", 1]);
  expect(found.saved[0]).toEqual({ take: 1, control: 0, frame: 14 });
});

test("a length that saves several presses reports them, and their changes are not in its price", () => {
  const takes = [drawTake({ a: ".....#.........#...." }, { ground: "##........##........" })];
  const found = smallest(HOP, COYOTE, takes)!;
  expect([found.to, found.saved.length]).toEqual(["4f", 2]);
  expect(formatPrice(HOP, found.price)).toBe("nothing else changes in this take");
});

test("no length is offered if another gate is closed anyway", () => {
  const kit: Kit = {
    ...HOP,
    moves: [{ ...HOP.moves![0]!, needs: [...HOP.moves![0]!.needs!, { gate: "calm" }] }],
  };
  const takes = [drawTake({ a: "......#............." }, { ground: "##........##########", calm: "" })];
  expect(smallest(kit, COYOTE, takes)).toBeUndefined();
  expect(smallest(kit, BUFFER, takes)).toBeUndefined();
});

test("a press lost on the frame on which another is does not hide what happens to that one", () => {
  // Both are lost on one frame: the older is replaced, the newer finds its gate closed. A longer buffer saves
  // only the newer.
  const kit: Kit = { ...HOP, queue: "all", moves: [{ ...HOP.moves![0]!, buffer: "3f" }] };
  const takes = [drawTake({ a: "..#.#.........." }, { ground: "........##....." })];
  const found = smallest(kit, BUFFER, takes)!;
  expect([found.to, found.saved]).toEqual(["4f", [{ take: 0, control: 0, frame: 4 }]]);
  // The older is lost a frame later and must not be counted with the saved one.
  expect(formatPrice(kit, found.price)).toBe("over this take: Hop is lost once at another time");
});

test("an unchanged number of losses is not reported as an additional one", () => {
  // The newer press replaces the buffered one, and both losses of the old rules fell on one frame.
  const kit: Kit = { ...HOP, moves: [{ ...HOP.moves![0]!, buffer: "2f" }] };
  const takes = [drawTake({ a: ".#.#......#...." }, { ground: "......#........" })];
  const trier = createTrier(kit, takes, prepareBare)!;
  const wanted = lostIn(kit, takes);
  const changed = writeAt(kit, ["moves", 0, "buffer"], "3f");
  const { saved, price } = trier.tryChange(changed, wanted)!;
  const losses = (of: Kit) => lostIn(of, takes).length;
  expect([losses(kit), losses(changed), saved.length]).toEqual([3, 2, 1]);
  expect(price.lines.filter(({ kind, more }) => kind === "lost" && more > 0)).toEqual([]);
});

const strip = fc
  .array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 9 })), { minLength: 4, maxLength: 10 })
  .map(runs => runs.map(([on, n]) => (on ? "#" : ".").repeat(n)).join(""));

test("an offer saves the presses it reports, no smaller one saves any, and without an offer no length within reach does", () => {
  let offers = 0;
  let none = 0;
  fc.assert(
    fc.property(fc.array(fc.tuple(strip, strip), { minLength: 1, maxLength: 3 }), drawn => {
      const takes = drawn.map(([a, ground]) => drawTake({ a }, { ground }));
      const wanted = lostIn(HOP, takes);
      if (wanted.length === 0) return;
      const usedWith = (frames: number) => {
        const program = mustCompile(writeAt(HOP, BUFFER.path, `${frames}f`));
        return wanted.filter(({ take, frame }) => {
          const { presses } = readOutcomes(program, evaluate(program, takes[take]!));
          return presses.find(press => press.frame === frame)!.outcome === "used";
        }).length;
      };
      const found = smallest(HOP, BUFFER, takes, 20);
      const upTo = found ? parseInt(found.to, 10) : 24;
      for (let frames = 3; frames < upTo; frames++) expect(usedWith(frames)).toBe(0);
      if (found) expect(usedWith(upTo)).toBe(found.saved.length);
      if (found) offers++;
      else none++;
    }),
    { numRuns: 250 },
  );
  expect([offers > 5, none > 5]).toEqual([true, true]);
});
