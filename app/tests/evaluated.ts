import { readdirSync, readFileSync } from "node:fs";
import { parseTake, type Kit, type Take } from "#core";
import { compileRules, parseRules } from "#stage";
import { createJudge, type Evaluated } from "../judging/judge";

/** Evaluates a take under a kit, which must compile. */
export function evaluateWith(kit: Kit, take: Take): Evaluated {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
  return createJudge().evaluate(rules.value, take);
}

/** Reads a kit and a take from files of the repository. */
export function readKitAndTake(folder: string, takeName: string): { kit: Kit; take: Take } {
  const rules = parseRules(JSON.parse(readFileSync(`${folder}/kit.json`, "utf8")));
  const take = parseTake(JSON.parse(readFileSync(`${folder}/${takeName}.json`, "utf8")));
  if (!rules.ok || !take.ok) throw new Error(`${folder} does not read`);
  return { kit: rules.value.kit, take: take.value };
}

/** Reads a kit of the repository with all of its takes, in the order of their files. */
export function readKitAndTakes(folder: string): { kit: Kit; takes: readonly Take[] } {
  const names = readdirSync(folder).filter(name => name !== "kit.json" && name !== "checks.json");
  const read = names.map(name => readKitAndTake(folder, name.replace(/\.json$/, "")));
  return { kit: read[0]!.kit, takes: read.map(({ take }) => take) };
}
