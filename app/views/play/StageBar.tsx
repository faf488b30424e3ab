import { nanoid } from "nanoid";
import { leapAtEdges, playRoutine, stageOf } from "#stage";
import { freezePad, keepSession, pad, setPadSpeed, sleepPad, stepPad, wakePad } from "../../input/pad";
import { usePad } from "../../input/usePad";
import { goToFrame } from "../../document/playhead";
import { stageOfProgram } from "../../judging/staged";
import { addTake, compileOnce, workbench } from "../../document/workbench";
import { useCompiled, useWorkbench } from "../../document/useWorkbench";
import { toggleReplay } from "../../tape/hand/tapeActions";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";

const SPEEDS = [10, 25, 50, 100];
const ROUTINE_SECONDS = 8;

/** Keys go to the kit while it is awake: a button that was clicked must not keep them. */
function act(run: () => void) {
  return (event: { currentTarget: HTMLElement }) => {
    event.currentTarget.blur();
    run();
  };
}

/** Lets scripted hands leap at every edge, so many frames late, and opens what they played. */
function letItPlay(lateFrames: number): void {
  const { kit } = workbench.getState();
  const { program } = compileOnce(kit);
  const document = kit && stageOf(kit);
  const stage = program && stageOfProgram(program);
  if (!kit || !program || !stage || document?.kind !== "runner") return;
  const leaping = kit.moves?.find(
    move => move.effect !== undefined && "leap" in (move.effect as object) && !move.off,
  );
  const pattern = kit.patterns.find(item => item.id === leaping?.pattern);
  if (!pattern || !("control" in pattern)) return;
  const routine = leapAtEdges(document.run.right, pattern.control, lateFrames, Math.round(kit.rate / 3));
  const name = lateFrames === 0 ? "Scripted, at every edge" : `Scripted, ${lateFrames}f late`;
  addTake(
    playRoutine(kit, program, stage, routine, ROUTINE_SECONDS * kit.rate, nanoid(8), name),
    `let it play: ${name}`,
  );
  goToFrame(0, ROUTINE_SECONDS * kit.rate);
  toggleReplay();
}

/** Play, keep, freeze, step, slow down; or let scripted hands play. */
export function StageBar({ onDraw }: { onDraw: () => void }) {
  const isAwake = usePad(state => state.session !== undefined);
  const isRecording = usePad(state => state.isRecording);
  const isFrozen = usePad(state => state.isFrozen);
  const speed = usePad(state => state.speedPercent);
  const { program } = useCompiled();
  const isRunner = useWorkbench(state => state.kit !== undefined && stageOf(state.kit)?.kind === "runner");
  const keep = () => {
    const { session } = pad.getState();
    if (session) keepSession(session);
  };
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm" role="group" aria-label="Stage">
      <Button look="strong" disabled={!program} onClick={() => (isRecording ? sleepPad() : wakePad(true))}>
        {isRecording ? "Stop and keep" : isAwake ? "Record from here" : "Record a take"}
      </Button>
      {isAwake && (
        <>
          <Button onClick={act(keep)}>Keep what just happened</Button>
          <Button aria-pressed={isFrozen} onClick={act(freezePad)}>
            {isFrozen ? "Go on" : "Freeze"}
          </Button>
          <Button disabled={!isFrozen} onClick={act(stepPad)}>
            +1f
          </Button>
        </>
      )}
      {isAwake && (
        <span>
          at{" "}
          <ChoiceWord
            label="Speed of the game"
            value={String(speed)}
            choices={SPEEDS.map(percent => ({ value: String(percent), label: `${percent} %` }))}
            onChoose={value => setPadSpeed(Number(value))}
          />
        </span>
      )}
      {!isAwake && isRunner && (
        <span>
          or let it leap at every edge,{" "}
          <ChoiceWord
            label="Scripted hands"
            value=""
            choices={[0, 3, 6, 9, 12].map(late => ({
              value: String(late),
              label: late === 0 ? "at once" : `${late}f late`,
            }))}
            onChoose={value => letItPlay(Number(value))}
            placeholder="how late …"
          />
        </span>
      )}
      {!isAwake && isRunner && (
        <Button look="quiet" onClick={onDraw}>
          Draw the level
        </Button>
      )}
    </div>
  );
}
