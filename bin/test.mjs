// Runs the checks one after the other, adds up what passed and failed, and says so in one last line.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";

const BROWSER = ["/usr/bin/chromium", "/usr/bin/chromedriver"];
let passed = 0;
let failed = 0;

/** Runs a command to its end, keeping what it says. */
function runQuietly(command, args) {
  return new Promise(resolve => {
    const child = spawn(command, args, { env: { ...process.env, NO_COLOR: "1" } });
    let output = "";
    child.stdout.on("data", text => (output += text));
    child.stderr.on("data", text => (output += text));
    child.on("error", error => resolve({ isFine: false, output: `${output}${error.message}\n` }));
    child.on("close", code => resolve({ isFine: code === 0, output }));
  });
}

/** One check. What it says is told when it is over, so that two at a time do not talk over each other. */
async function check(name, command, args) {
  const began = Date.now();
  const { isFine, output } = await runQuietly(command, args);
  if (isFine) passed++;
  else failed++;
  process.stdout.write(output);
  console.log(`${isFine ? "ok  " : "FAIL"} ${name} (${((Date.now() - began) / 1000).toFixed(1)} s)`);
  return isFine;
}

/** Checks one after the other. */
async function inTurn(...checks) {
  const fine = [];
  for (const one of checks) fine.push(await check(...one));
  return fine;
}

const npx = (...args) => ["npx", ["--no-install", ...args]];

/** A Vitest run whose tests are counted one by one; one that never came to its tests counts as a failure. */
async function checkTests(name, config) {
  const report = `.stamp/${name}.json`;
  rmSync(report, { force: true });
  const began = Date.now();
  const reporters = ["--reporter=default", "--reporter=json", `--outputFile.json=${report}`];
  const { isFine, output } = await runQuietly(...npx("vitest", "run", "--config", config, ...reporters));
  const found = existsSync(report) ? JSON.parse(readFileSync(report, "utf8")) : undefined;
  passed += found?.numPassedTests ?? 0;
  failed += found?.numFailedTests ?? 0;
  if (!isFine && !found?.numFailedTests) failed++;
  process.stdout.write(output);
  console.log(`${isFine ? "ok  " : "FAIL"} ${name} (${((Date.now() - began) / 1000).toFixed(1)} s)`);
}

/** Chromium and its driver, installed from Debian where they are missing and we may. */
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

await check("route types", ...npx("react-router", "typegen"));
// Two lanes, about as long as each other: there are two cores.
const [[isBuilt]] = await Promise.all([
  inTurn(
    ["build", ...npx("react-router", "build")],
    ["types of core and stage, without the DOM", ...npx("tsc", "-p", "tsconfig.core.json")],
    ["types", ...npx("tsc", "-p", "tsconfig.json")],
  ),
  inTurn(
    ["lint", ...npx("eslint", ".")],
    ["format", ...npx("prettier", "--check", ".", "--log-level", "warn")],
  ),
]);
await checkTests("unit", "vitest.config.ts");
if (isBuilt) {
  if (haveBrowser()) await checkTests("browser", "e2e/vitest.config.ts");
  else failed++;
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
