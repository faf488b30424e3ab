// Asks the registry for known faults of the packages that are shipped, and prints its answer, or that it has none.
import { spawnSync } from "node:child_process";

/** Exit codes: no known fault, known faults, no answer. */
const [CLEAN, FOUND, UNKNOWN] = [0, 1, 2];

function finish(words, code) {
  console.log(words);
  process.exit(code);
}

const { stdout } = spawnSync("npm", ["audit", "--omit=dev", "--json"], { encoding: "utf8" });
const answer = (() => {
  try {
    return JSON.parse(stdout);
  } catch {
    return {};
  }
})();
const counts = answer.metadata?.vulnerabilities;
if (!counts)
  finish(
    `The registry did not answer: ${answer.message ?? (stdout.trim() || "it could not be asked")}`,
    UNKNOWN,
  );
for (const [name, { severity, range, fixAvailable }] of Object.entries(answer.vulnerabilities ?? {}))
  console.log(`${severity}  ${name} ${range}${fixAvailable ? ", mended in a newer version" : ""}`);
finish(
  `${counts.total} known faults in ${answer.metadata.dependencies?.prod ?? "all"} packages that are shipped`,
  counts.total > 0 ? FOUND : CLEAN,
);
