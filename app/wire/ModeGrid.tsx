import type { Control, Kit, Program } from "#core";
import { listPatternSights, listPromptsFailedBy } from "#core";
import { isActiveIn, setActiveIn } from "../edits/modeEdits";
import { useEvaluation } from "../document/evaluationContext";
import { useWorkbench } from "../document/workbenchContext";
import { Flap } from "../ui/Flap";
import { describeBodyUse } from "./model/bodyUse";
import type { Rules } from "#stage";

interface Rule {
  readonly list: "patterns" | "moves";
  readonly id: string;
  readonly name: string;
  readonly modes?: readonly string[];
}

/** Returns the patterns that a control forms or cancels, each with its moves. */
function rulesOf(kit: Kit, program: Program, control: number): Rule[] {
  return listPatternSights(program, control, 0).flatMap(({ pattern }) => {
    const found = kit.patterns[pattern]!;
    const moves = (kit.moves ?? []).filter(move => move.pattern === found.id);
    return [
      { ...found, list: "patterns" as const },
      ...moves.map(move => ({ ...move, list: "moves" as const })),
    ];
  });
}

/**
 * Describes a control in one mode: the moves it leads to, otherwise the patterns that see it; and how a body uses it
 * directly.
 */
function summary({ kit, program }: Pick<Rules, "kit" | "program">, control: number, mode: number): string {
  const sights = listPatternSights(program, control, mode);
  const visible = sights.filter(sight => sight.verdict === "hears");
  const cancelled = sights.filter(sight => sight.verdict === "cancels");
  const names = visible.flatMap(({ pattern }) => {
    const found = kit.patterns[pattern]!;
    const moves = (kit.moves ?? []).filter(
      move => move.pattern === found.id && !move.off && isActiveIn(move, kit.modes![mode]!.id),
    );
    return moves.length > 0 ? moves.map(move => move.name) : [found.name];
  });
  const use = describeBodyUse({ kit, program }, control, mode);
  const ends = [
    ...cancelled.map(({ pattern }) => `cancels ${kit.patterns[pattern]!.name}`),
    ...listPromptsFailedBy(program, control, mode).map(p => `fails ${kit.prompts![p]!.name}`),
  ];
  return [...new Set([...names, ...ends, ...(use ? [use] : [])])].join(", ");
}

function Cell({
  kit,
  program,
  control,
  c,
  mode,
}: {
  kit: Kit;
  program: Program;
  control: Control;
  c: number;
  mode: number;
}) {
  const workbench = useWorkbench();
  const { id, name } = kit.modes![mode]!;
  const words = summary({ kit, program }, c, mode);
  const rules = rulesOf(kit, program, c);
  return (
    <Flap
      word={words || "nothing"}
      label={`${control.name} in ${name}: ${words || "nothing"}`}
      wordLook={`block w-full rounded-lg px-2 py-1.5 text-left hover:bg-sand ${words ? "" : "text-soft"}`}
      anchor="bottom start"
      panelLook="w-72 p-3"
    >
      {() => (
        <>
          <p className="mb-1 font-semibold">
            {control.name} in {name}
          </p>
          {rules.length === 0 && <p className="text-soft">No rule listens to {control.name} yet.</p>}
          {rules.map(rule => (
            <label key={`${rule.list}:${rule.id}`} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="size-4 accent-moss"
                checked={isActiveIn(rule, id)}
                onChange={event =>
                  workbench.editKit(`${rule.name} in ${name}`, now =>
                    setActiveIn(now, rule.list, rule.id, id, event.target.checked),
                  )
                }
              />
              <span className={rule.list === "moves" ? "pl-3 font-semibold" : ""}>{rule.name}</span>
            </label>
          ))}
        </>
      )}
    </Flap>
  );
}

/** Controls by modes. A cell opens to enable and disable its rules there. */
export function ModeGrid({ kit }: { kit: Kit }) {
  const rules = useEvaluation(state => state.rules);
  if (rules?.kit !== kit) return null;
  const { program } = rules;
  return (
    <table className="mt-6 w-full max-w-3xl border-collapse text-sm" data-testid="mode-grid">
      <caption className="mb-1 text-left text-soft">
        What each control does in each mode. Open a cell to switch its rules on or off there.
      </caption>
      <thead>
        <tr>
          <td />
          {kit.modes!.map(mode => (
            <th key={mode.id} scope="col" className="px-2 py-1 text-left">
              {mode.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {kit.controls.map((control, c) => (
          <tr key={control.id} className="border-t border-line">
            <th scope="row" className="py-1 pr-3 text-left font-normal">
              {control.name}
            </th>
            {kit.modes!.map((mode, m) => (
              <td key={mode.id} className="align-top">
                <Cell kit={kit} program={program} control={control} c={c} mode={m} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
