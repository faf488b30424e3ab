// Runs every check in three lanes, sums up the results, and prints them in one last line.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";
import { setPriority } from "node:os";

const BROWSER = ["/usr/bin/chromium", "/usr/bin/chromedriver"];
/** The priority of work beside the browser tests, which follow a clock: the lowest. */
const BESIDE = 19;
let passed = 0;
let failed = 0;

/** Runs a command to its end and returns its output. */
function runQuietly(command, args, priority = 0) {
  return new Promise(resolve => {
    const child = spawn(command, args, { env: { ...process.env, NO_COLOR: "1" } });
    if (child.pid !== undefined && priority !== 0) setPriority(child.pid, priority);
    let output = "";
    child.stdout.on("data", text => (output += text));
    child.stderr.on("data", text => (output += text));
    child.on("error", error => resolve({ isFine: false, output: `${output}${error.message}\n` }));
    child.on("close", code => resolve({ isFine: code === 0, output }));
  });
}

/** Prints the output of a finished check in one piece, so that lanes do not interleave. */
function report(name, beganMs, { isFine, output }) {
  process.stdout.write(output);
  console.log(`${isFine ? "ok  " : "FAIL"} ${name} (${((Date.now() - beganMs) / 1000).toFixed(1)} s)`);
}

/** Runs one check, which counts as one test. */
async function check(name, command, args, priority) {
  const beganMs = Date.now();
  const result = await runQuietly(command, args, priority);
  if (result.isFine) passed++;
  else failed++;
  report(name, beganMs, result);
  return result.isFine;
}

const bin = (name, ...args) => [`node_modules/.bin/${name}`, args];

/** Runs Vitest and counts its tests one by one; a run that executed none counts as a failure. */
async function checkTests(name, config, priority) {
  const file = `.stamp/${name}.json`;
  rmSync(file, { force: true });
  const beganMs = Date.now();
  const reporters = ["--reporter=default", "--reporter=json", `--outputFile.json=${file}`];
  const result = await runQuietly(...bin("vitest", "run", "--config", config, ...reporters), priority);
  const found = existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined;
  passed += found?.numPassedTests ?? 0;
  failed += found?.numFailedTests ?? 0;
  if (!result.isFine && !found?.numFailedTests) failed++;
  report(name, beganMs, result);
}

/** Returns whether Chromium and its driver exist, after installing them from Debian if they do not. */
function haveBrowser() {
  if (BROWSER.every(existsSync)) return true;
  if (process.getuid?.() === 0) {
    console.log("Installing chromium and chromium-driver …");
    spawnSync("apt-get", ["update"], { stdio: "ignore" });
    spawnSync("apt-get", ["install", "-y", "--no-install-recommends", "chromium", "chromium-driver"], {
      stdio: "ignore",
    });
  }
  if (BROWSER.every(existsSync)) return true;
  console.log("The browser tests need Chromium: apt-get install chromium chromium-driver");
  return false;
}

/** The browser tests: they need the build, and take the longest. */
async function browserLane() {
  if (!(await check("build", ...bin("react-router", "build")))) return;
  if (haveBrowser()) await checkTests("browser", "e2e/vitest.config.ts");
  else failed++;
}

/** The unit tests, in the time that the browser tests leave. */
const unitLane = () => checkTests("unit", "vitest.config.ts", BESIDE);

/** The checks of the sources, in the time that the browser tests leave. */
async function sourceLane() {
  const tsc = project => [
    process.execPath,
    ["node_modules/typescript-native/bin/tsc", "-p", project],
    BESIDE,
  ];
  await check("types of core and stage, without the DOM", ...tsc("tsconfig.core.json"));
  await check("types", ...tsc("tsconfig.json"));
  await check(
    "lint",
    ...bin("oxlint", "-c", "oxlint.config.js", "--report-unused-disable-directives", "."),
    BESIDE,
  );
  await check("format", ...bin("oxfmt", "--check", "."), BESIDE);
}

await check("route types", ...bin("react-router", "typegen"));
await Promise.all([browserLane(), unitLane(), sourceLane()]);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
