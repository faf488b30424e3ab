import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseKit, readTake } from "#core";
import { compileRules, compileTakeJudge, runRules } from "#stage";
import { CHECKS as checks, drawTake, FRAMES } from "./playtest";

/** How a benchmark asks for one of two plain runs at once: it plays for a while and prints its frames a second. */
const PLAIN = "plain";
const PLAIN_MS = 3000;
const COUNT = Number(process.argv[2] ?? 1000);

const kit = parseKit(JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")));
if (!kit.ok) throw new Error("the demo does not read");
const kitId = kit.value.id;
const rules = compileRules(kit.value);
if (!rules.ok) throw new Error("the demo does not compile");

const seconds = (work: () => void): number => {
  const began = performance.now();
  work();
  return (performance.now() - began) / 1000;
};
const perSecond = (takes: number, took: number) =>
  `${((takes * FRAMES) / took / 1e6).toFixed(2)} million frames a second`;

const takes = Array.from({ length: 200 }, (_, k) => drawTake(k, kitId));
const run = () => takes.forEach(take => runRules(rules.value, readTake(rules.value.program, take)));
run();
if (process.argv[2] === PLAIN) {
  const began = performance.now();
  let rounds = 0;
  for (; performance.now() - began < PLAIN_MS; rounds++) run();
  console.log((rounds * takes.length * FRAMES * 1000) / (performance.now() - began));
  process.exit();
}
const plain = Math.min(...[0, 1, 2].map(() => seconds(run)));

/** Returns the frames a second of two plain runs at the same time: two cores of a shared machine do less than twice what one does. */
async function measureTwo(): Promise<number> {
  const runs = [0, 1].map(
    () =>
      new Promise<number>((resolve, reject) => {
        const child = spawn(process.execPath, ["bench/run.mjs", "checks", PLAIN]);
        let printed = "";
        child.stdout.on("data", text => (printed += text));
        child.on("error", reject);
        child.on("close", () => resolve(Number(printed)));
      }),
  );
  const [first, second] = await Promise.all(runs);
  return first! + second!;
}
const two = await measureTwo();
console.log(
  `the plain core on its stage: ${perSecond(200, plain)}, one thread; two at once ${(two / 1e6).toFixed(2)} million`,
);
const judge = compileTakeJudge(kit.value, checks);
if (!judge.ok) throw new Error("the checks do not go with the kit");
const judged = seconds(() => takes.forEach(take => judge.value(take)));
console.log(
  `200 takes of a minute × 40 checks, one thread: ${judged.toFixed(2)} s, ${perSecond(200, judged)}`,
);

const folder = mkdtempSync(join(tmpdir(), "moss-tap-bench-"));
try {
  const file = join(folder, "checks.json");
  writeFileSync(file, JSON.stringify({ format: "moss-tap/checks", version: 1, id: "b", name: "B", checks }));
  for (let k = 0; k < COUNT; k++)
    writeFileSync(
      join(folder, `take-${String(k).padStart(5, "0")}.json`),
      JSON.stringify(drawTake(k, kitId)),
    );
  const command = (name: string, ...args: readonly string[]) =>
    spawnSync(process.execPath, ["cli/run.mjs", name, "demo/belfry-runner/kit.json", ...args], {
      encoding: "utf8",
      maxBuffer: 1e9,
    });
  const judgeAll = () => void command("check", file, folder, "--out", join(folder, "results.tap"));
  const whole = Math.min(...[0, 1, 2].map(() => seconds(judgeAll)));
  const share = (COUNT * FRAMES) / whole / two;
  console.log(
    `check, ${COUNT} takes × 40 checks, two threads, from start to end: ${whole.toFixed(1)} s, ${perSecond(COUNT, whole)}: ${Math.round(share * 100)} % of two plain runs at once`,
  );
  for (const end of ["parquet", "csv"]) {
    const ran = command("judge", folder, "--out", join(folder, `presses.${end}`));
    console.log(`judge to .${end}: ${ran.stderr.split("\n").find(line => line.includes("frames a second"))}`);
  }
} finally {
  rmSync(folder, { recursive: true });
}
