// Runs the checks one after the other, adds up what passed and failed, and says so in one last line.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";

const BROWSER = ["/usr/bin/chromium", "/usr/bin/chromedriver"];
let passed = 0;
let failed = 0;

function run(command, args) {
  return spawnSync(command, args, { stdio: "inherit", env: { ...process.env, NO_COLOR: "1" } }).status === 0;
}

function check(name, command, args) {
  const began = Date.now();
  const isFine = run(command, args);
  if (isFine) passed++;
  else failed++;
  console.log(`${isFine ? "ok  " : "FAIL"} ${name} (${((Date.now() - began) / 1000).toFixed(1)} s)`);
  return isFine;
}

/** A Vitest run whose tests are counted one by one; one that never came to its tests counts as a failure. */
function checkTests(name, config) {
  const report = `.stamp/${name}.json`;
  rmSync(report, { force: true });
  const isFine = run("npx", [
    "--no-install",
    "vitest",
    "run",
    "--config",
    config,
    "--reporter=default",
    "--reporter=json",
    `--outputFile.json=${report}`,
  ]);
  const found = existsSync(report) ? JSON.parse(readFileSync(report, "utf8")) : undefined;
  passed += found?.numPassedTests ?? 0;
  failed += found?.numFailedTests ?? 0;
  if (!isFine && !found?.numFailedTests) failed++;
  console.log(`${isFine ? "ok  " : "FAIL"} ${name}`);
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

check("route types", "npx", ["--no-install", "react-router", "typegen"]);
check("types of core and stage, without the DOM", "npx", ["--no-install", "tsc", "-p", "tsconfig.core.json"]);
check("types", "npx", ["--no-install", "tsc", "-p", "tsconfig.json"]);
check("lint", "npx", ["--no-install", "eslint", "."]);
check("format", "npx", ["--no-install", "prettier", "--check", ".", "--log-level", "warn"]);
checkTests("unit", "vitest.config.ts");
if (check("build", "npx", ["--no-install", "react-router", "build"])) {
  if (haveBrowser()) checkTests("browser", "e2e/vitest.config.ts");
  else failed++;
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
