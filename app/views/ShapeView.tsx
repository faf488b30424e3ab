import { useSearchParams } from "react-router";
import { describeMove, describePattern, formatIssue, type Issue, type Kit, type PathStep } from "#core";
import { sayWarning } from "./warningWords";
import { addPattern, removePattern } from "../store/edits";
import { editKit, undo } from "../store/workbench";
import { useCompiled, useWorkbench } from "../store/useWorkbench";
import { say } from "../shell/notices";
import { Button } from "../ui/Button";
import { ControlPad } from "./ControlPad";
import { MeterRing } from "./MeterRing";
import { PressLengthMap } from "./PressLengthMap";
import { listRules, RuleList, type RuleItem } from "./RuleList";
import { Sentence } from "./Sentence";
import { Ticker } from "./Ticker";

function pathOf(rule: RuleItem): readonly PathStep[] {
  return [rule.kind === "pattern" ? "patterns" : "moves", rule.index];
}

function issuesOf(issues: readonly Issue[], rule: RuleItem): Issue[] {
  const [list, index] = pathOf(rule);
  return issues.filter(issue => issue.path[0] === list && issue.path[1] === index);
}

function patternOf(kit: Kit, rule: RuleItem) {
  if (rule.kind === "pattern") return kit.patterns[rule.index];
  const move = kit.moves?.[rule.index];
  return kit.patterns.find(pattern => pattern.id === move?.pattern);
}

function controlsOf(kit: Kit, rule: RuleItem): Kit["controls"] {
  const pattern = patternOf(kit, rule);
  if (!pattern) return [];
  const ids =
    "control" in pattern
      ? [pattern.control]
      : "controls" in pattern
        ? pattern.controls
        : kit.controls.map(control => control.id);
  return kit.controls.filter(control => ids.includes(control.id));
}

/** The starters for a new rule, in words. */
function Starters() {
  const kit = useWorkbench(state => state.kit);
  const [, setSearch] = useSearchParams();
  if (!kit) return null;
  const [control] = kit.controls;
  if (!control)
    return <p className="px-5 text-sm text-soft">Add a control in Wire first: a rule listens to one.</p>;
  const start = (kind: "press" | "tap" | "hold") => {
    const made = addPattern(kit, kind, control.id);
    editKit(`added a ${kind}`, () => made);
    setSearch(search => {
      search.set("rule", `pattern:${made.patterns.at(-1)!.id}`);
      return search;
    });
  };
  return (
    <div className="px-5">
      <h2 className="pb-1 text-sm text-soft">New rule on {control.name}</h2>
      <div className="flex gap-2">
        <Button onClick={() => start("press")}>Press</Button>
        <Button onClick={() => start("tap")}>Tap</Button>
        <Button onClick={() => start("hold")}>Hold</Button>
      </div>
    </div>
  );
}

/** Shape: one rule as a sentence, its map of time, and a place to try it. */
export function ShapeView() {
  const kit = useWorkbench(state => state.kit);
  const takes = useWorkbench(state => state.takes);
  const { faults, warnings: all } = useCompiled();
  const [search] = useSearchParams();
  if (!kit) return null;
  const rules = listRules(kit);
  const open =
    rules.find(rule => rule.key === search.get("rule")) ??
    rules.find(rule => patternOf(kit, rule)?.kind === "hold") ??
    rules[0];
  const warnings = all.filter(
    issue => issue.code !== "need-never" || !takes.some(take => take.gates?.[String(issue.facts.id)]),
  );
  const warned = new Set(
    rules.filter(rule => issuesOf([...faults, ...warnings], rule).length > 0).map(rule => rule.key),
  );
  const pattern = open && patternOf(kit, open);
  const remove = (rule: RuleItem) => {
    const name = rule.name;
    editKit(`deleted ${name}`, now => removePattern(now, now.patterns[rule.index]!.id));
    say({
      tone: "plain",
      title: `${name} is deleted.`,
      details: [],
      action: { label: "Put it back", run: undo },
    });
  };
  return (
    <div className="grid min-h-0 grow grid-cols-[286px_minmax(0,1fr)_236px]">
      <div className="flex flex-col gap-5 overflow-auto border-r border-line py-4">
        <RuleList rules={rules} openKey={open?.key} warned={warned} />
        <Starters />
      </div>
      <div className="overflow-auto px-7 py-5">
        {open ? (
          <>
            <Sentence
              parts={
                open.kind === "pattern"
                  ? describePattern(kit.patterns[open.index]!)
                  : describeMove(kit.moves![open.index]!)
              }
              base={pathOf(open)}
            />
            {issuesOf(faults, open).map(issue => (
              <p key={formatIssue(issue)} role="alert" className="mt-2 text-foxglove">
                {formatIssue(issue)}
              </p>
            ))}
            {issuesOf(warnings, open).map(issue => (
              <p key={formatIssue(issue)} className="mt-2 text-sm text-foxglove">
                {sayWarning(issue, kit)}
              </p>
            ))}
            {pattern && "control" in pattern && ["tap", "hold", "charge"].includes(pattern.kind) && (
              <PressLengthMap controlId={pattern.control} />
            )}
            {open.kind === "pattern" && (
              <p className="mt-4">
                <Button look="quiet" onClick={() => remove(open)}>
                  Delete this rule
                </Button>
              </p>
            )}
          </>
        ) : (
          <p className="text-soft">No rule yet. Start one at the left; it comes with numbers that work.</p>
        )}
      </div>
      <aside
        aria-label="Try it here"
        className="flex flex-col gap-4 overflow-auto border-l border-line px-5 py-4"
      >
        <h2 className="text-sm font-semibold">Try it here</h2>
        {open && (
          <>
            <div className="flex flex-wrap items-center justify-between gap-3">
              {controlsOf(kit, open)
                .slice(0, 4)
                .map(control => (
                  <ControlPad key={control.id} control={control} />
                ))}
              {pattern && <MeterRing patternId={pattern.id} name={pattern.name} />}
            </div>
            <Ticker
              only={(kind, id) =>
                kind === "pattern"
                  ? id === pattern?.id
                  : open.kind === "move" && id === kit.moves?.[open.index]?.id
              }
            />
          </>
        )}
      </aside>
    </div>
  );
}
