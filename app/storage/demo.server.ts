import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseKit, parseTake, type Kit, type Take } from "#core";

/** A demo as it ships: a kit and the takes recorded for it, read from the same files a user would export. */
export interface Demo {
  readonly kit: Kit;
  readonly takes: readonly Take[];
}

const DEMO_FOLDER = join(process.cwd(), "demo");

function readJson(file: string): unknown {
  return JSON.parse(readFileSync(file, "utf8"));
}

function readDemo(folder: string): Demo {
  const files = readdirSync(folder).filter(name => name.endsWith(".json") && name !== "kit.json");
  const kit = parseKit(readJson(join(folder, "kit.json")));
  const takes = files.sort().map(name => parseTake(readJson(join(folder, name))));
  if (!kit.ok || !takes.every(take => take.ok)) throw new Error(`the demo in ${folder} does not read`);
  return { kit: kit.value, takes: takes.map(take => take.value) };
}

let demos: readonly Demo[] | undefined;

/** Every demo that ships. Read once. */
export function listDemos(): readonly Demo[] {
  demos ??= readdirSync(DEMO_FOLDER, { withFileTypes: true })
    .filter(entry => entry.isDirectory())
    .map(entry => readDemo(join(DEMO_FOLDER, entry.name)));
  return demos;
}
