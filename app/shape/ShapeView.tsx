import { useLayoutEffect, useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import { describeRule, formatIssue, type Issue } from "#core";
import { RuleTally } from "../maps/RuleTally";
import { pathOfRule } from "../edits/ruleEdits";
import { Button } from "../ui/Button";
import { NextStep } from "../parts/NextStep";
import { Sentence } from "../parts/Sentence";
import { EffectLine } from "./EffectLine";
import { MovesTable } from "./MovesTable";
import { NewRule } from "./NewRule";
import { Offers } from "./Offers";
import { RuleActions } from "./RuleActions";
import { RuleClips } from "./RuleClips";
import { RuleList } from "./RuleList";
import { RuleMap } from "./RuleMap";
import { firstRule, patternOf } from "./model/firstRule";
import { listRules, type RuleItem } from "./model/rules";
import { groupIssues, listShown } from "./model/ruleIssues";
import { TryIt } from "./TryIt";
import { useRestedRules } from "./useRestedRules";
import { useClipKeys } from "./useRuleClips";
import { useOpenRule } from "./useOpenRule";
import { curesOf, formatWarning } from "../parts/model/warningWords";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument, useHistory, useWorkbench } from "../document/workbenchContext";
import { useTape } from "../tape/hand/context";

/** An issue of a rule, with its cures as buttons. */
function Trouble({ issue }: { issue: Issue }) {
  const workbench = useWorkbench();
  const isFault = issue.severity === "fault";
  return (
    <p role={isFault ? "alert" : undefined} className={`mt-2 text-foxglove ${isFault ? "" : "text-sm"}`}>
      {formatWarning(issue)}{" "}
      {curesOf(issue).map(cure => (
        <Button key={cure.words} className="ml-1" onClick={() => workbench.editKit(cure.words, cure.edit)}>
          {cure.words}
        </Button>
      ))}
    </p>
  );
}

/** Sets the rule being shaped on the tape, while the view is open. */
function useShaping(rule: RuleItem | undefined): void {
  const { look } = useTape();
  const list = rule?.list;
  const index = rule?.index ?? 0;
  useLayoutEffect(() => {
    look.setState({ about: list && { list, index } });
    return () => look.setState({ about: undefined });
  }, [look, list, index]);
}

/** Shape: one rule as a sentence, its map of time, and a place to try it. */
export function ShapeView() {
  const kit = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  const faults = useEvaluation(state => state.faults);
  const all = useEvaluation(state => state.warnings);
  const wanted = useDocument(state => state.settings.wanted);
  const { canUndo } = useHistory();
  const [search] = useSearchParams();
  const rules = useMemo(() => (kit ? listRules(kit) : []), [kit]);
  const listed = useRestedRules(rules);
  const open = useOpenRule(rules, search.get("rule"), all => kit && firstRule(kit, all));
  const isTable = search.get("rule") === "moves" && (kit?.moves?.length ?? 0) > 0;
  useShaping(isTable ? undefined : open);
  useClipKeys(isTable ? undefined : open);
  const issues = useMemo(
    () => groupIssues(kit ? [...faults, ...listShown(kit, all, takes, wanted)] : []),
    [kit, faults, all, takes, wanted],
  );
  if (!kit) return null;
  const warned = rules
    .filter(rule => issues.of(rule).length > 0)
    .map(rule => rule.key)
    .join("|");
  const own = open ? issues.of(open) : [];
  const elsewhere = issues.elsewhere(rules);
  return (
    <div className="grid min-h-0 grow grid-cols-[264px_minmax(0,1fr)_230px] max-lg:grid-cols-[190px_minmax(0,1fr)_170px] narrow:block narrow:overflow-auto">
      <div className="flex flex-col gap-3 overflow-auto border-r border-line py-4 contain-strict narrow:max-h-32 narrow:flex-row narrow:flex-wrap narrow:items-center narrow:gap-x-1 narrow:gap-y-0 narrow:border-r-0 narrow:border-b narrow:py-1 narrow:contain-none">
        <NewRule />
        {(kit.moves?.length ?? 0) > 1 && (
          <Link
            to="?rule=moves"
            aria-current={isTable}
            className="px-5 text-sm text-moss underline-offset-4 hover:underline narrow:px-2 aria-[current=true]:font-semibold"
          >
            All moves as a table
          </Link>
        )}
        <RuleClips rules={listed} />
        <RuleList rules={listed} openKey={isTable ? undefined : open?.key} warned={warned} />
      </div>
      <section
        aria-label="The rule"
        className="overflow-auto px-7 py-5 contain-strict narrow:px-4 narrow:py-3 narrow:contain-none"
      >
        {!isTable && <h1 className="sr-only">{open?.name ? `Shape ${open.name}` : "Shape"}</h1>}
        {elsewhere.map(issue => (
          <p key={formatIssue(issue)} role="alert" className="mb-2 text-foxglove">
            {formatIssue(issue)}
          </p>
        ))}
        {rules.length > 0 && (
          <NextStep view="shape" isDone={canUndo}>
            Drag a yellow number left or right, or press ↑ on it: the map, the tape and what became of every
            press follow.
          </NextStep>
        )}
        {isTable ? (
          <MovesTable kit={kit} />
        ) : open ? (
          <>
            <Sentence
              key={open.key}
              parts={describeRule(kit, open.list, open.index)}
              base={pathOfRule(open)}
              issues={own}
            />
            {open.list === "moves" && <EffectLine kit={kit} index={open.index} />}
            <Offers key={`offers ${open.key}`} kit={kit} rule={open} />
            {own.map(issue => (
              <Trouble key={formatIssue(issue)} issue={issue} />
            ))}
            <RuleMap key={`map ${open.key}`} kit={kit} rule={open} />
            {(open.list === "patterns" || open.list === "moves" || open.list === "prompts") && (
              <RuleTally kit={kit} list={open.list} index={open.index} />
            )}
            <RuleActions kit={kit} rule={open} />
          </>
        ) : (
          <p className="text-soft">No rule yet. Start one at the left; it comes with numbers that work.</p>
        )}
      </section>
      <TryIt
        kit={kit}
        pattern={open && patternOf(kit, open)}
        moveId={open?.list === "moves" ? kit.moves?.[open.index]?.id : undefined}
        promptId={open?.list === "prompts" ? kit.prompts?.[open.index]?.id : undefined}
      />
    </div>
  );
}
