import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useStored } from "../../storage/context";
import { beginKit } from "../../edits/goals/beginKit";
import { GOALS } from "../../edits/goals/goals";
import { Logo } from "../../shell/Logo";
import { ThemeButton } from "../../shell/ThemeButton";
import { Button } from "../../ui/Button";
import { NO_PARTS } from "../../storage/records";
import { GoalPicture } from "./GoalPicture";

/** Returns the label of the create button for a number of goals. */
function buildWords(count: number): string {
  if (count === 0) return "Begin with an empty kit";
  return count === 1 ? "Build it, and play" : `Build these ${count}, and play`;
}

/** A new kit: one or several goals, each with a picture, or none yet. */
export function NewKitView() {
  const { shelf } = useStored();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const turn = (id: string) =>
    setChosen(was => (was.includes(id) ? was.filter(other => other !== id) : [...was, id]));
  const build = async () => {
    const begun = beginKit(chosen, Date.now());
    const { kitId } = await shelf.add({ ...NO_PARTS, ...begun }, "new");
    const view = chosen.length === 0 ? "wire" : "play";
    await navigate(`/kit/${encodeURIComponent(kitId)}/${view}`);
  };
  return (
    <div className="min-h-[calc(100dvh-var(--notices-px))]">
      <header className="flex h-14 items-center justify-between border-b border-line px-5">
        <Logo />
        <ThemeButton />
      </header>
      <main className="mx-auto max-w-[1120px] px-6 py-7 narrow:px-4 narrow:py-4">
        <h1 className="font-serif text-3xl font-semibold">What do you want to build?</h1>
        <p className="text-soft">
          Choose one or several. Each comes on keys of its own, with rules that work, and a take that shows
          it; everything can be changed.
        </p>
        <ul className="mt-5 grid grid-cols-2 gap-3 narrow:grid-cols-1" aria-label="What can be built">
          {GOALS.map(goal => {
            const isChosen = chosen.includes(goal.id);
            return (
              <li
                key={goal.id}
                className={`relative flex items-center gap-4 rounded-stone border-2 px-4 py-2 hover:border-moss ${isChosen ? "border-moss bg-paper" : "border-line bg-leaf"}`}
              >
                <GoalPicture goal={goal.id} />
                <div className="min-w-0 grow">
                  <button
                    type="button"
                    aria-pressed={isChosen}
                    aria-describedby={`goal-${goal.id}`}
                    className="text-left font-serif text-xl font-bold after:absolute after:inset-0 after:rounded-stone"
                    onClick={() => turn(goal.id)}
                  >
                    {goal.words}
                  </button>
                  <p id={`goal-${goal.id}`} className="text-sm text-soft">
                    {goal.line}
                  </p>
                </div>
                <svg aria-hidden viewBox="0 0 24 24" className="size-6 shrink-0">
                  <ellipse
                    cx="12"
                    cy="13"
                    rx="10"
                    ry="8"
                    strokeWidth="2"
                    className={isChosen ? "fill-moss stroke-moss" : "fill-none stroke-line"}
                  />
                  {isChosen && <path d="m7 13 4 4 7-8" className="fill-none stroke-leaf" strokeWidth="2.5" />}
                </svg>
              </li>
            );
          })}
          <li className="flex items-center gap-4 px-4">
            <Button look="strong" className="px-6 py-3 text-base" onClick={() => void build()}>
              {buildWords(chosen.length)}
            </Button>
            <Link to="/" className="text-sm text-moss underline-offset-4 hover:underline">
              Back to the shelf
            </Link>
          </li>
        </ul>
      </main>
    </div>
  );
}
