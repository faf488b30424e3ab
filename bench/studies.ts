import { readFileSync } from "node:fs";
import {
  CHARACTERS,
  findOverlaps,
  parseKit,
  parseTake,
  studyGoal,
  sweepValues,
  type Kit,
  type Swept,
  type Take,
} from "#core";
import { prepareStudied } from "#stage";
import { lengthenTake, makeLargeKit } from "./scenes";

const MINUTE = 3600;
const VALUES = Array.from({ length: 41 }, (_, k) => k);
const HANDS = 200;
const BUFFER: Swept = { kind: "length", path: ["moves", 0, "buffer"], unit: "f" };

const BUFFERS: Swept = { kind: "group", group: "buffers" };
const COYOTES: Swept = { kind: "group", group: "coyotes" };

const seconds = (work: () => void): number => {
  const began = performance.now();
  work();
  return (performance.now() - began) / 1000;
};

function finish(steps: Iterator<unknown>): void {
  while (!steps.next().done);
}

function printFigure(what: string, took: number, goal: string): void {
  console.log(`${what.padEnd(72)} ${took.toFixed(2).padStart(7)} s   ${goal}`);
}

/** Measures a goal's field: 21 buffers by 13 coyotes, over plays of a take by a steady hand. */
function measureGoal(kit: Kit, take: Take): number {
  return seconds(() => {
    for (let coyote = 0; coyote <= 12; coyote++)
      finish(
        studyGoal(
          {
            ...{ kit, character: CHARACTERS[1]!, seed: 1, count: HANDS, pressShare: 0.99 },
            ...{ swept: BUFFERS, besides: [{ swept: COYOTES, value: coyote }], values: VALUES.slice(0, 21) },
          },
          [take],
          prepareStudied(),
        ),
      );
  });
}

/** Measures the studies of Tune on one thread each; the page divides a sweep between two. */
export function benchStudies(): void {
  const read = (name: string) =>
    JSON.parse(readFileSync(`demo/belfry-runner/${name}.json`, "utf8")) as unknown;
  const kit = parseKit(read("kit"));
  const takes = ["1-clean-climb", "2-late-at-every-edge", "4-slow-twice"].map(name => {
    const take = parseTake(read(name));
    if (!take.ok) throw new Error(`${name} does not read`);
    return lengthenTake(take.value, MINUTE);
  });
  if (!kit.ok) throw new Error("the demo does not read");
  const { stage: _stage, ...bare } = kit.value;
  const ground: [number, 0 | 1][] = Array.from({ length: MINUTE / 40 }, (_, k): [number, 0 | 1] => [
    k * 40,
    k % 2 === 0 ? 1 : 0,
  ]);
  const painted = takes.map((take): Take => ({ ...take, gates: { footing: ground } }));
  const withoutEffects = { ...bare, moves: bare.moves?.map(({ effect: _effect, ...move }) => move) } as Kit;
  const sweep = (of: Kit, over: readonly Take[], hands?: number) =>
    seconds(() =>
      finish(
        sweepValues(
          {
            kit: of,
            swept: BUFFER,
            values: VALUES,
            areChecksDecided: true,
            ...(hands ? { hands: { character: CHARACTERS[1]!, seed: 1, count: hands } } : {}),
          },
          over,
          prepareStudied(),
        ),
      ),
    );
  sweep(kit.value, takes);
  printFigure(
    "sweep of 41 values, three one-minute takes, the runner's stage",
    sweep(kit.value, takes),
    "goal 1 s on two cores",
  );
  sweep(withoutEffects, painted);
  printFigure("the same without a stage", sweep(withoutEffects, painted), "goal 0.15 s on two cores");
  const one = [takes[0]!];
  printFigure(
    `41 values × ${HANDS} hands × one minute, the runner's stage`,
    sweep(kit.value, one, HANDS),
    "goal 5 s on two cores",
  );
  printFigure(
    "the same without a stage",
    sweep(withoutEffects, [painted[0]!], HANDS),
    "goal 2.5 s on two cores",
  );
  printFigure(
    `a goal of 21 × 13 values, ${HANDS} plays of a minute, the runner's stage`,
    measureGoal(kit.value, takes[1]!),
    "goal 20 s on two cores",
  );
  printFigure("the same without a stage", measureGoal(withoutEffects, painted[1]!), "goal 10 s on two cores");
  const large = { ...makeLargeKit(1) };
  const took = seconds(() => finish(findOverlaps(large)));
  printFigure(
    `overlaps of the large kit (${large.patterns.length} patterns, ${large.moves?.length ?? 0} moves)`,
    took,
    "goal 10 s",
  );
}
