import {
  joinNames,
  listPatternSights,
  listPromptsFailedBy,
  type PatternSight,
  type Kit,
  type Program,
} from "#core";
import type { Rules } from "#stage";
import { formatCode } from "../input/codes";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument } from "../document/workbenchContext";
import { usePadState } from "../input/context";
import { describeBodyUse } from "./model/bodyUse";

/** Describes a pattern in a mode with its moves and prompts. */
function describeRule(kit: Kit, program: Program, pattern: number, mode: number): string {
  const isWaiting = (rule: { readonly isOff: boolean; readonly activeIn: readonly boolean[] }) =>
    !rule.isOff && rule.activeIn[mode] === true;
  const moves = program.moves.flatMap((move, m) =>
    move.pattern === pattern && isWaiting(move) ? [kit.moves![m]!.name] : [],
  );
  const prompts = program.prompts.flatMap((prompt, p) =>
    prompt.ask.includes(pattern) && isWaiting(prompt) ? [kit.prompts![p]!.name] : [],
  );
  const name = kit.patterns[pattern]?.name ?? "?";
  const waiting = [...moves, ...prompts];
  return waiting.length > 0 ? `${name} (for ${joinNames(waiting)})` : name;
}

/** Describes which patterns and prompts use a control in a mode; indices are those of the rules' own kit. */
function describeSights({ kit, program }: Rules, control: number, mode: number): string {
  const sights = listPatternSights(program, control, mode);
  const nameOf = (i: number) => kit.patterns[i]?.name ?? "?";
  const named = (verdict: PatternSight["verdict"], format = nameOf) =>
    joinNames(sights.filter(item => item.verdict === verdict).map(item => format(item.pattern)));
  const visible = named("hears", i => describeRule(kit, program, i, mode));
  const wrong = listPromptsFailedBy(program, control, mode).map(p => kit.prompts![p]!.name);
  const captor = sights.find(item => item.verdict === "captured");
  const uses = [
    visible && `used by ${visible}`,
    named("cancels") && `cancels ${named("cancels")}`,
    wrong.length > 0 && `a wrong answer to ${joinNames(wrong)}`,
  ].filter(Boolean);
  const parts = [
    ...(uses.length > 0 ? uses : ["no rule uses it"]),
    captor && `${nameOf(captor.by)} takes it away from ${named("captured")}`,
    named("other-mode") && `${named("other-mode")} not active here`,
    named("off") && `${named("off")} switched off`,
  ];
  return parts.filter(Boolean).join("; ");
}

/** Describes how a key plays a control: alone, or only together with others. */
function describePlayed(control: Kit["controls"][number], code: string): string {
  const bindings = control.bindings.filter(binding => binding.includes(code));
  if (bindings.length === 0 || bindings.some(binding => binding.length === 1)) return control.name;
  const together = bindings.map(binding =>
    joinNames(binding.filter(other => other !== code).map(other => formatCode(other))),
  );
  return `${control.name}, only together with ${together.join(", or with ")}`;
}

function ModeLine({
  rules,
  control,
  mode,
  isNow,
}: {
  rules: Rules;
  control: number;
  mode: number;
  isNow: boolean;
}) {
  const use = describeBodyUse(rules, control, mode);
  const sentence = [use, describeSights(rules, control, mode)].filter(Boolean).join("; ");
  const name = rules.kit.modes?.[mode]?.name;
  return (
    <p className={isNow ? "" : "text-soft"}>
      {name && <b>{isNow ? `${name}, now: ` : `In ${name}: `}</b>}
      {name ? sentence : `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}`}.
    </p>
  );
}

/**
 * The explanation of a key, by default the last one pressed: the controls it plays, and the patterns that see
 * them in each mode.
 */
export function KeyCard({ code: chosen }: { code: string | undefined }) {
  const kit = useDocument(state => state.kit);
  const rules = useEvaluation(state => state.rules);
  const isSound = useEvaluation(state => state.isSound);
  const pressed = usePadState(
    state => state.log.find(event => event.value > 0 && event.dropped !== "repeat")?.code,
  );
  const mode = usePadState(state => state.session?.state.mode ?? -1);
  const code = chosen ?? pressed;
  if (!kit || !rules) return null;
  if (!code)
    return (
      <section aria-label="What is on this key?" className="border-b border-line px-5 py-3 text-sm">
        <h2 className="font-semibold">What is on this key?</h2>
        <p className="text-soft">Start listening and press it, or choose it on the board under Keys.</p>
      </section>
    );
  const controlId = code.startsWith("screen:") ? code.slice(7) : undefined;
  const played = kit.controls.filter(
    control => control.id === controlId || control.bindings.some(binding => binding.includes(code)),
  );
  const modes = rules.program.modes.length > 0 ? rules.program.modes.map((_, m) => m) : [0];
  const now = mode >= 0 ? mode : 0;
  return (
    <section
      aria-label="What is on this key?"
      className="max-h-[min(12rem,60%)] shrink-0 overflow-auto border-b border-line px-5 py-3 text-sm"
      data-testid="hear"
    >
      <h2 className="font-semibold">
        <span className="font-mono">{controlId ? "On screen" : formatCode(code)}</span>
        {played.length > 0
          ? ` plays ${played.map(control => describePlayed(control, code)).join("; and ")}`
          : " plays nothing here"}
      </h2>
      {!isSound && played.length > 0 && (
        <p className="text-foxglove">
          The kit has faults: below are the rules that used it before. Shape lists the faults.
        </p>
      )}
      {played.map(({ id }) => {
        const c = rules.program.controls.findIndex(control => control.id === id);
        if (c < 0) return null;
        return (
          <div key={id}>
            {[now, ...modes.filter(m => m !== now)].map(m => (
              <ModeLine key={m} rules={rules} control={c} mode={m} isNow={m === now} />
            ))}
          </div>
        );
      })}
    </section>
  );
}
