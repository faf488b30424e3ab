import { groupBy, type Issue, type Kit, type Take } from "#core";
import { gatesOfStage } from "#stage";
import { pathOfRule, type RulePlace } from "../../edits/ruleEdits";
import { wantedKeyOf } from "../../maps/pressLengths";

const keyOf = (path: readonly unknown[]) => path.slice(0, 2).join(" ");

/**
 * Returns the warnings that are worth showing: without those accepted as wanted, and without gates that nothing
 * in the kit opens but its stage or a take does.
 */
export function listShown(
  kit: Kit,
  warnings: readonly Issue[],
  takes: readonly Take[],
  wanted: readonly string[] = [],
): Issue[] {
  const opened = new Set([...gatesOfStage(kit), ...takes.flatMap(({ gates = {} }) => Object.keys(gates))]);
  return warnings.filter(issue =>
    issue.code === "need-never"
      ? !opened.has(String(issue.facts.id))
      : wanted.length === 0 || !wanted.includes(wantedKeyOf(issue, kit)),
  );
}

/** Groups issues by the rule they belong to; the returned function gives those of one rule. */
export function groupIssues(issues: readonly Issue[]): {
  readonly of: (rule: RulePlace) => readonly Issue[];
  readonly elsewhere: (rules: readonly RulePlace[]) => readonly Issue[];
} {
  const groups = groupBy(issues, ({ path }) => keyOf(path));
  return {
    of: rule => groups.get(keyOf(pathOfRule(rule))) ?? [],
    elsewhere: rules => {
      const known = new Set(rules.map(rule => keyOf(pathOfRule(rule))));
      return issues.filter(issue => issue.severity === "fault" && !known.has(keyOf(issue.path)));
    },
  };
}
