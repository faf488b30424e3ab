// Adds missing optional packages to package-lock.json. Run it after `npm install` with a registry that lacks
// builds of packages for other systems: npm then omits them and `npm ci` refuses the lock. Each entry gets
// the system and processor from its name, so that npm skips it on others.
import { readFileSync, writeFileSync } from "node:fs";

const SYSTEMS = ["android", "darwin", "freebsd", "linux", "openbsd", "openharmony", "win32", "wasi"];
const PROCESSORS = ["arm64", "arm", "x64", "ia32", "loong64", "ppc64", "riscv64", "s390x", "wasm32"];

const lock = JSON.parse(readFileSync("package-lock.json", "utf8"));
let added = 0;
for (const [at, entry] of Object.entries(lock.packages)) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    if (lock.packages[`node_modules/${name}`] || lock.packages[`${at}/node_modules/${name}`]) continue;
    const words = name.split("/").at(-1).split("-");
    const os = SYSTEMS.find(system => words.includes(system));
    const cpu = PROCESSORS.find(processor => words.includes(processor));
    if (!os || !cpu) continue;
    const where = `node_modules/${name}`;
    lock.packages[where] = {
      version,
      cpu: [cpu],
      ...(entry.dev ? { dev: true } : {}),
      optional: true,
      os: [os],
    };
    added++;
  }
}
lock.packages = Object.fromEntries(
  Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)),
);
writeFileSync("package-lock.json", JSON.stringify(lock, null, 2) + "\n");
console.log(`${added} entries added`);
