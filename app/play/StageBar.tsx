import { nanoid } from "nanoid";
import { courseOf, effectOf, leapAtEdges, playRoutine } from "#stage";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { Flap } from "../ui/Flap";
import { ScriptedHand } from "./ScriptedHand";
import { useDesk, useDocument, useEvaluation, type Desk } from "../document/context";
import { benchKeyOf, SPEEDS, type BenchAct } from "../input/benchKeys";
import { usePad, usePadState } from "../input/context";

const ROUTINE_SECONDS = 8;

/** Keys belong to the kit while the pad is awake, so a clicked button must not keep the focus. */
function act(run: () => void) {
  return (event: { currentTarget: HTMLElement }) => {
    event.currentTarget.blur();
    run();
  };
}

/** Lets a scripted player leap at every edge, a number of frames late, and opens the resulting take. */
function letItPlay({ workbench, evaluation, playback }: Desk, lateFrames: number): void {
  const { rules } = evaluation.getState();
  const course = rules && courseOf(rules.kit);
  if (!rules || !course) return;
  const { kit } = rules;
  const leaping = kit.moves?.find(move => "leap" in (effectOf(move) ?? {}) && !move.off);
  const pattern = kit.patterns.find(item => item.id === leaping?.pattern);
  if (!pattern || !("control" in pattern)) return;
  const routine = leapAtEdges(course.control, pattern.control, lateFrames, Math.round(kit.rate / 3));
  const name = lateFrames === 0 ? "Scripted, at every edge" : `Scripted, ${lateFrames}f late`;
  const take = playRoutine(rules, routine, ROUTINE_SECONDS * kit.rate, nanoid(8), name);
  workbench.addTake(take, `let it play: ${name}`);
  playback.toggle();
}

/** The key of the same action while the pad is awake. */
function KeyHint({ act }: { act: BenchAct }) {
  return (
    <kbd
      aria-hidden
      title={act === "slower" || act === "faster" ? act : undefined}
      className="ml-0.5 rounded border border-line px-1 font-mono text-[11px] text-soft"
    >
      {benchKeyOf(act)}
    </kbd>
  );
}

/** Play, keep, freeze, step and slow down; or run a scripted player. */
export function StageBar({ onDraw }: { onDraw: () => void }) {
  const pad = usePad();
  const isAwake = usePadState(state => state.session !== undefined);
  const isRecording = usePadState(state => state.isRecording);
  const isFrozen = usePadState(state => state.isFrozen);
  const speed = usePadState(state => state.speedPercent);
  const assist = usePadState(state => state.assist);
  const assists = useDocument(state => state.kit?.assists) ?? [];
  const desk = useDesk();
  const isPlayable = useEvaluation(state => state.rules !== undefined);
  const isCourse = useDocument(state => state.kit !== undefined && courseOf(state.kit) !== undefined);
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm" role="group" aria-label="Stage">
      <Button
        look="strong"
        disabled={!isPlayable}
        onClick={() => (isRecording ? pad.sleep() : pad.wake(true))}
      >
        {isRecording ? "Stop and keep" : isAwake ? "Record from here" : "Record a take"}
      </Button>
      {isAwake && (
        <>
          <Button onClick={act(pad.keep)}>Keep what just happened</Button>
          <Button
            aria-pressed={isFrozen}
            aria-label={isFrozen ? "Go on" : "Freeze"}
            aria-keyshortcuts={benchKeyOf("freeze")}
            onClick={act(pad.freeze)}
          >
            {isFrozen ? "Go on" : "Freeze"} <KeyHint act="freeze" />
          </Button>
          <Button
            disabled={!isFrozen}
            aria-label="+1f"
            aria-keyshortcuts={benchKeyOf("step")}
            onClick={act(pad.step)}
          >
            +1f <KeyHint act="step" />
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
            onChoose={value => pad.setSpeed(Number(value))}
          />{" "}
          <KeyHint act="slower" /> <KeyHint act="faster" />
        </span>
      )}
      {assists.length > 0 && (
        <span>
          with{" "}
          <ChoiceWord
            label="Assist"
            value={assists.some(({ id }) => id === assist) ? (assist ?? "") : ""}
            choices={[
              { value: "", label: "no assist" },
              ...assists.map(({ id, name }) => ({ value: id, label: `“${name}” on` })),
            ]}
            onChoose={value => pad.setAssist(value || undefined)}
          />
        </span>
      )}
      {!isAwake && isCourse && (
        <span>
          or let it leap at every edge,{" "}
          <ChoiceWord
            label="Scripted hands"
            value=""
            choices={[0, 3, 6, 9, 12].map(late => ({
              value: String(late),
              label: late === 0 ? "on the last frame of ground" : `${late}f late`,
              ...(late === 0 ? {} : { hint: `${late} frames after the ground was lost` }),
            }))}
            onChoose={value => letItPlay(desk, Number(value))}
            placeholder="how late …"
          />
        </span>
      )}
      {!isAwake && (
        <Flap
          word="Write what hands do"
          wordLook="px-2 py-1 font-semibold text-moss underline-offset-4 hover:underline"
          anchor="bottom start"
          panelLook="w-[520px] p-4"
        >
          {close => <ScriptedHand close={close} />}
        </Flap>
      )}
      {!isAwake && isCourse && (
        <Button look="quiet" onClick={onDraw}>
          Draw the level
        </Button>
      )}
    </div>
  );
}
