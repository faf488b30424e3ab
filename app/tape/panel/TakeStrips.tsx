import { useStore } from "zustand";
import type { Program, Take } from "#core";
import { LONG_TAKE_FRAMES } from "../../judging/judged";
import { evaluateOnce, openTake } from "../../document/workbench";
import { useCompiled, useWorkbench } from "../../document/useWorkbench";
import { countOutcomes } from "../model/outcomes";
import { Overview } from "./Overview";
import { tapeLook } from "../tapeLook";

/** By how much a count has changed since before a pull: "+1", "−2"; nothing where it has not. */
function Since({ now, before }: { now: number; before: number | undefined }) {
  if (before === undefined || before === now) return null;
  return <b className="text-dew"> {now > before ? `+${now - before}` : `−${before - now}`}</b>;
}

function Strip({ take, program, before }: { take: Take; program: Program; before: Program | undefined }) {
  if (take.frames > LONG_TAKE_FRAMES)
    return <span className="text-soft">a long take; it is judged when it is open</span>;
  const { trace } = evaluateOnce(program, take);
  const now = countOutcomes(program, trace);
  const was = before && countOutcomes(before, evaluateOnce(before, take).trace);
  return (
    <>
      <Overview trace={trace} view={undefined} onGo={() => openTake(take.id)} label={`All of ${take.name}`} />
      <span className="w-60 shrink-0 whitespace-nowrap" data-testid={`strip-${take.id}`}>
        {now.performed} performed
        <Since now={now.performed} before={was?.performed} />
        {", "}
        <span className={now.lost > 0 ? "text-foxglove" : "text-soft"}>
          {now.lost} {now.lost === 1 ? "press" : "presses"} lost
        </span>
        <Since now={now.lost} before={was?.lost} />
      </span>
    </>
  );
}

/** The other takes of the kit, each as a strip beside the open one; what a pull changes in them is counted as it is pulled. */
export function TakeStrips() {
  const takes = useWorkbench(state => state.takes);
  const openId = useWorkbench(state => state.openTakeId);
  const before = useStore(tapeLook, look => look.before?.program);
  const { program } = useCompiled();
  if (!program) return null;
  const others = takes.filter(take => take.id !== openId);
  return (
    <ul
      aria-label="Other takes"
      className="max-h-[104px] shrink-0 overflow-auto border-b border-line px-5 py-1 text-sm"
    >
      {others.map(take => (
        <li key={take.id} className="flex h-8 items-center gap-4">
          <button
            type="button"
            className="w-44 shrink-0 truncate text-left text-moss underline-offset-4 hover:underline"
            onClick={() => openTake(take.id)}
          >
            {take.name} <span className="font-mono text-soft">{Math.ceil(take.frames)}f</span>
          </button>
          <Strip take={take} program={program} before={before} />
        </li>
      ))}
      {others.length === 0 && <li className="py-1 text-soft">No other take yet. Record one more in Play.</li>}
    </ul>
  );
}
