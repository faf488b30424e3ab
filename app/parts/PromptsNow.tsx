import { HIDDEN, OPEN, TICKS, type Program, type State } from "#core";
import { usePad, usePadState } from "../input/context";
import type { PadState } from "../input/padState";
import { useWriter } from "../ui/LiveText";

/** Returns the share of its lead or window that a shown prompt has passed, 0 to 1. */
function passedOf({ prompts }: Program, state: State, prompt: number): number {
  const { leadTicks, windowTicks } = prompts[prompt]!;
  const isOpen = state.promptStage[prompt] === OPEN;
  const since = (isOpen ? state.openFrame : state.shownFrame)[prompt]!;
  const length = Math.max(1, (isOpen ? windowTicks : leadTicks) / TICKS);
  return Math.min(1, (state.frame - since) / length);
}

/** The time that a shown prompt has left of its window, or has passed of its lead, as a bar; written without a render. */
function PromptBar({ prompt, isOpen }: { prompt: number; isOpen: boolean }) {
  const bar = useWriter<HTMLSpanElement, PadState>(usePad(), (element, { session }) => {
    // The rules that follow an edit may no longer have it; the render that takes the bar away comes after this.
    if (!session?.program.prompts[prompt]) return;
    const passed = passedOf(session.program, session.state, prompt);
    element.style.width = `${100 * (isOpen ? 1 - passed : passed)}%`;
  });
  return (
    <span className="mt-1 block h-2 overflow-hidden rounded-full bg-sand" aria-hidden>
      <span ref={bar} className={`block h-full ${isOpen ? "bg-lichen" : "bg-fern"}`} />
    </span>
  );
}

/** Returns the prompts shown in the live session with their stages, in kit order: "2 1 4 2"; "" for none. */
function shownIn({ session }: PadState): string {
  const stages = session ? [...session.state.promptStage] : [];
  return stages.flatMap((stage, prompt) => (stage === HIDDEN ? [] : [`${prompt} ${stage}`])).join(" ");
}

/**
 * The prompts currently shown while playing, each with its elapsed time; optionally those of one rule only.
 */
export function PromptsNow({ only }: { only?: string | undefined }) {
  const session = usePadState(state => state.session);
  const text = usePadState(shownIn);
  if (!session || text === "") return null;
  const { program } = session;
  const { kit } = session.rules;
  const pairs = text.split(" ").map(Number);
  const shown = pairs
    .flatMap((prompt, k) => (k % 2 === 0 ? [{ prompt, isOpen: pairs[k + 1] === OPEN }] : []))
    .filter(({ prompt }) => only === undefined || program.prompts[prompt]?.id === only);
  if (shown.length === 0) return null;
  return (
    <ul aria-label="Prompts shown now" className="flex flex-wrap gap-3 text-sm" data-testid="prompts-now">
      {shown.map(({ prompt, isOpen }) => {
        const { name, ask } = kit.prompts![prompt]!;
        const wanted = ask.map(id => kit.patterns.find(pattern => pattern.id === id)?.name ?? id);
        return (
          <li key={prompt} className="min-w-36 rounded-xl border-2 border-lichen bg-leaf px-3 py-1">
            <b>{name}</b> <span className="text-soft">{wanted.join(" or ")}</span>
            <PromptBar prompt={prompt} isOpen={isOpen} />
          </li>
        );
      })}
    </ul>
  );
}
