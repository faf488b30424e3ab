import { readdirSync, readFileSync } from "node:fs";
import { lyingPack, readLying } from "./ground/lyingPacks";
import { limitOf, survey, type Finding } from "./ground/survey";
import { createChance } from "./scenes";

/**
 * Runs thousands of malformed documents through readers, stage, fates, maps and exports, and packs with wrong
 * headers through their reader, and prints the results. Usage: `npm run ground -- [seed] [count]`.
 */
const seed = Number(process.argv[2] ?? 1);
const count = Number(process.argv[3] ?? 10_000);

const findings: Finding[] = [];
for (const finding of survey(seed, count)) {
  findings.push(finding);
  if (finding.thrown) console.log(`THROWN  ${finding.name}\n${finding.thrown}`);
}
const crafted = findings.length - count;
const became = new Map<string, number>();
for (const { became: kind } of findings) became.set(kind, (became.get(kind) ?? 0) + 1);
const slow = findings.filter(finding => finding.ms > limitOf(finding));
const times = findings.map(({ ms }) => ms).sort((a, b) => a - b);
const at = (share: number) => times[Math.min(times.length - 1, Math.floor(times.length * share))]!.toFixed(1);

console.log(`${count} mutated (seed ${seed}) and ${crafted} crafted documents`);
console.log(`became ${[...became].map(([kind, n]) => `${kind} ${n}`).join(", ")}`);
console.log(`thrown ${findings.filter(({ thrown }) => thrown).length}`);
console.log(`ms each: median ${at(0.5)}, 99 % ${at(0.99)}, longest ${at(1)}`);
console.log(`over 250 ms (under 100 KB) or 2 s: ${slow.length}`);
const slowest = [...findings].sort((a, b) => b.ms - a.ms);
for (const { name, ms, bytes } of slow.length > 0 ? slow : slowest.slice(0, 5))
  console.log(`  ${ms.toFixed(0).padStart(6)} ms  ${(bytes / 1024).toFixed(0).padStart(6)} KB  ${name}`);
if (slow.length > 0 || became.has("thrown")) process.exitCode = 1;

const FOLDER = "demo/belfry-runner";
const files = readdirSync(FOLDER).map(name => [name, readFileSync(`${FOLDER}/${name}`, "utf8")] as const);
const packs = Array.from({ length: Math.ceil(count / 10) }, (_, n) =>
  readLying(lyingPack(createChance(seed * 1_000_003 + n), files)),
);
const largest = Math.max(...packs.map(({ unpackedBytes }) => unpackedBytes));
const longest = Math.max(...packs.map(({ ms }) => ms));
console.log(
  `${packs.length} packs with wrong headers: largest unpacked ${(largest / 1024 / 1024).toFixed(1)} MB, longest ${longest.toFixed(0)} ms`,
);
