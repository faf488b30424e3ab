import { parseChecks, parseTake, type Check, type Kit, type Take } from "#core";
import { parseRules } from "#stage";

/** A built-in demo: a kit with takes recorded for it, read from the same files a user would export. */
export interface Demo {
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly checks: readonly Check[];
}

const FILES = import.meta.glob<unknown>("../../demo/*/*.json", { eager: true, import: "default" });

function readDemo(folder: string): Demo {
  const names = Object.keys(FILES).filter(
    name => name.startsWith(folder) && !/\/(kit|checks).json$/.test(name),
  );
  const rules = parseRules(FILES[`${folder}kit.json`]);
  const takes = names.sort().map(name => parseTake(FILES[name]));
  const checks = parseChecks(FILES[`${folder}checks.json`]);
  if (!rules.ok || !checks.ok || !takes.every(take => take.ok))
    throw new Error(`the demo in ${folder} does not read`);
  return { kit: rules.value.kit, takes: takes.map(take => take.value), checks: checks.value.checks };
}

/** Every built-in demo. */
export const DEMOS: readonly Demo[] = Object.keys(FILES)
  .filter(name => name.endsWith("/kit.json"))
  .sort()
  .map(name => readDemo(name.slice(0, -"kit.json".length)));
