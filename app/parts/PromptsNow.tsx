import { HIDDEN, OPEN, TICKS, type Program, type State } from "#core";
import { usePadState } from "../input/context";

interface Standing {
  readonly prompt: number;
  readonly isOpen: boolean;
  /** The elapsed share of its lead or window, 0 to 1. */
  readonly passed: number;
}

/** Returns the prompts shown in a state, in kit order, with their elapsed time. */
function standingIn(program: Program, state: State): Standing[] {
  return program.prompts.flatMap(({ leadTicks, windowTicks }, prompt) => {
    const stage = state.promptStage[prompt];
    if (stage === HIDDEN) return [];
    const isOpen = stage === OPEN;
    const since = (isOpen ? state.openFrame : state.shownFrame)[prompt]!;
    const length = Math.max(1, (isOpen ? windowTicks : leadTicks) / TICKS);
    return [{ prompt, isOpen, passed: Math.min(1, (state.frame - since) / length) }];
  });
}

/**
 * The prompts currently shown while playing, each with its elapsed time; optionally those of one rule only.
 */
export function PromptsNow({ only }: { only?: string | undefined }) {
  const session = usePadState(state => state.session);
  usePadState(state => state.frame);
  if (!session) return null;
  const { program, state } = session;
  const { kit } = session.rules;
  const standing = standingIn(program, state).filter(
    ({ prompt }) => only === undefined || program.prompts[prompt]!.id === only,
  );
  if (standing.length === 0) return null;
  return (
    <ul aria-label="Prompts shown now" className="flex flex-wrap gap-3 text-sm" data-testid="prompts-now">
      {standing.map(({ prompt, isOpen, passed }) => {
        const { name, ask } = kit.prompts![prompt]!;
        const wanted = ask.map(id => kit.patterns.find(pattern => pattern.id === id)?.name ?? id);
        return (
          <li key={prompt} className="min-w-36 rounded-xl border-2 border-lichen bg-leaf px-3 py-1">
            <b>{name}</b> <span className="text-soft">{wanted.join(" or ")}</span>
            <span className="mt-1 block h-2 overflow-hidden rounded-full bg-sand" aria-hidden>
              <span
                className={`block h-full ${isOpen ? "bg-lichen" : "bg-fern"}`}
                style={{ width: `${100 * (isOpen ? 1 - passed : passed)}%` }}
              />
            </span>
          </li>
        );
      })}
    </ul>
  );
}
