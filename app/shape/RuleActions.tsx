import { useSearchParams } from "react-router";
import type { Kit } from "#core";
import { duplicateRule, keyOfRule, listLeaning, moveRule, removeRule, turnRule } from "../edits/ruleEdits";
import { addFollowing } from "../edits/starters/starters";
import { Button } from "../ui/Button";
import { IdStone } from "../parts/IdStone";
import type { RuleItem } from "./model/rules";
import { useRuleClips } from "./useRuleClips";
import { useWorkbench } from "../document/workbenchContext";
import { useTakeAway } from "../document/useTakeAway";

/** The actions on a whole rule: copy, disable, move up or down, delete. */
export function RuleActions({ kit, rule }: { kit: Kit; rule: RuleItem }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const { copy } = useRuleClips();
  const [, setSearch] = useSearchParams();
  const open = (key: string) =>
    setSearch(search => {
      search.set("rule", key);
      return search;
    });
  const canTurn = rule.list === "patterns" || rule.list === "moves" || rule.list === "prompts";
  const last = (kit[rule.list]?.length ?? 1) - 1;
  const name = rule.name || "This switch";
  const follows = rule.list === "moves" ? addFollowing(kit, rule.index) : undefined;
  const move = (by: 1 | -1) => {
    workbench.editKit(`moved ${name}`, now => moveRule(now, rule, by));
    if (rule.list === "switches") open(`switch:${rule.index + by}`);
  };
  const remove = () => {
    const leaning = listLeaning(kit, rule);
    takeAway(
      `${name} is deleted.`,
      workbench.editKit(`deleted ${name}`, now => removeRule(now, rule)),
      leaning.length > 0
        ? [`Rules that depend on it: ${leaning.join(", ")}. Each shows a fault until it is mended.`]
        : [],
    );
  };
  return (
    <p className="mt-4 -ml-2 flex flex-wrap gap-1" role="group" aria-label="This rule">
      {rule.list !== "switches" && (
        <Button
          look="quiet"
          onClick={() => {
            workbench.editKit(`duplicated ${name}`, now => duplicateRule(now, rule));
            const { kit: now } = workbench.getState();
            if (now) open(keyOfRule(now, { list: rule.list, index: rule.index + 1 }));
          }}
        >
          Duplicate
        </Button>
      )}
      {rule.list !== "switches" && (
        <Button look="quiet" title="Ctrl+C, and Ctrl+V on Shape of any kit" onClick={() => copy([rule])}>
          Copy
        </Button>
      )}
      {follows && (
        <Button
          look="quiet"
          onClick={() => {
            workbench.editKit(`added one after ${name}`, () => follows.kit);
            open(follows.opens);
          }}
        >
          One more after it
        </Button>
      )}
      {canTurn && (
        <Button
          look="quiet"
          aria-pressed={rule.isOff}
          onClick={() => workbench.editKit(`turned ${name}`, now => turnRule(now, rule))}
        >
          {rule.isOff ? "Switch on" : "Switch off"}
        </Button>
      )}
      <Button look="quiet" disabled={rule.index === 0} onClick={() => move(-1)}>
        Move up
      </Button>
      <Button look="quiet" disabled={rule.index >= last} onClick={() => move(1)}>
        Move down
      </Button>
      <Button look="quiet" aria-label="Delete this rule" onClick={remove}>
        Delete
      </Button>
      {rule.list !== "switches" && (
        <span className="ml-auto py-1">
          <IdStone
            key={rule.key}
            list={rule.list}
            id={rule.key.slice(rule.key.indexOf(":") + 1)}
            name={rule.name}
            onRenamed={id => open(`${rule.key.slice(0, rule.key.indexOf(":"))}:${id}`)}
          />
        </span>
      )}
    </p>
  );
}
