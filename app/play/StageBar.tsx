import { countWords } from "#core";
import { nanoid } from "nanoid";
import { courseOf, effectsOf, leapAtEdges, playRoutine } from "#stage";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { Flap } from "../ui/Flap";
import { GameFigures } from "./LinkBar";
import { ScriptedHand } from "./ScriptedHand";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument } from "../document/workbenchContext";
import type { SceneSources } from "./model/readScene";
import { useSceneSources } from "./useSceneSources";
import { useGameLink, useGameLinkState } from "../link/context";
import { benchKeyOf, SPEEDS, type BenchAct } from "../input/benchKeys";
import { usePad, usePadState } from "../input/context";

const ROUTINE_SECONDS = 8;
/** The delays offered for the scripted player, in frames. */
const LATE_FRAMES = Array.from({ length: 21 }, (_, n) => n);

/** Keys belong to the kit while the pad is awake, so a clicked button must not keep the focus. */
function act(run: () => void) {
  return (event: { currentTarget: HTMLElement }) => {
    event.currentTarget.blur();
    run();
  };
}

/** Lets a scripted player leap at every edge, a number of frames late, and opens the resulting take. */
function letItPlay(
  { workbench, evaluation, playback }: Pick<SceneSources, "workbench" | "evaluation" | "playback">,
  lateFrames: number,
): void {
  const { rules } = evaluation.getState();
  const course = rules && courseOf(rules.kit);
  if (!rules || !course) return;
  const { kit } = rules;
  const leaping = kit.moves?.find(
    move => effectsOf(move).some(({ effect }) => "leap" in effect) && !move.off,
  );
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
      title={act === "slower" || act === "faster" ? act : undefined}
      className="ml-0.5 rounded border border-line px-1 font-mono text-[11px] text-soft"
    >
      {benchKeyOf(act)}
    </kbd>
  );
}

/** Keeps what was played since the pad was woken, or before it ended, as a take. */
function KeepButton() {
  const pad = usePad();
  return (
    <Button
      aria-label="Keep what just happened"
      title="Keeps what just happened as a take, until a minute after its end"
      onClick={act(pad.keep)}
    >
      Keep
    </Button>
  );
}

/** The actions on a running session: keep, freeze, step, slow down. */
function SessionActions() {
  const pad = usePad();
  const isFrozen = usePadState(state => state.isFrozen);
  const speed = usePadState(state => state.speedPercent);
  const freezeWord = isFrozen ? "Go on" : "Freeze";
  return (
    <>
      <KeepButton />
      <Button aria-pressed={isFrozen} aria-keyshortcuts={benchKeyOf("freeze")} onClick={act(pad.freeze)}>
        {freezeWord} <KeyHint act="freeze" />
      </Button>
      <Button disabled={!isFrozen} aria-keyshortcuts={benchKeyOf("step")} onClick={act(pad.step)}>
        +1f <KeyHint act="step" />
      </Button>
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
    </>
  );
}

/** Marks a frame, and goes back to it or to two seconds ago, so that one jump can be tried again and again. */
function PlaceActions() {
  const pad = usePad();
  const place = usePadState(state => state.place);
  const isRecording = usePadState(state => state.isRecording);
  const kept = isRecording ? "; what was recorded so far is kept as a take" : "";
  return (
    <span className="-mx-1 flex items-center" role="group" aria-label="Try again">
      <Button
        look="quiet"
        className="px-1!"
        title={`Marks this frame as the place to go back to${place ? `; now ${place.frame}f` : ""}`}
        aria-keyshortcuts={benchKeyOf("mark")}
        onClick={act(pad.markPlace)}
      >
        Mark <KeyHint act="mark" />
      </Button>
      <Button
        look="quiet"
        className="px-1!"
        disabled={!place}
        title={
          place ? `Goes on from frame ${place.frame}, by the present rules${kept}` : "Mark a place first"
        }
        aria-keyshortcuts={benchKeyOf("back")}
        onClick={act(() => pad.goBack("mark"))}
      >
        Back <KeyHint act="back" />
      </Button>
      <Button
        look="quiet"
        className="px-1!"
        title={`Goes on from two seconds ago, by the present rules${kept}`}
        aria-keyshortcuts={benchKeyOf("again")}
        onClick={act(() => pad.goBack("recent"))}
      >
        −2 s <KeyHint act="again" />
      </Button>
    </span>
  );
}

/** The assist that is played with; nothing if the kit has none. */
function AssistWord() {
  const pad = usePad();
  const assist = usePadState(state => state.assist);
  const assists = useDocument(state => state.kit?.assists) ?? [];
  if (assists.length === 0) return null;
  return (
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
  );
}

/** The scripted player that leaps at every edge, a number of frames late. */
function EdgePlayer() {
  const sources = useSceneSources();
  return (
    <span>
      or auto-play the edges,{" "}
      <ChoiceWord
        label="Scripted hands"
        value=""
        choices={LATE_FRAMES.map(late => ({
          value: String(late),
          label: late === 0 ? "on the last frame of ground" : `${late}f late`,
          ...(late === 0 ? {} : { hint: `${countWords(late, "frame")} after the ground was lost` }),
        }))}
        onChoose={value => letItPlay(sources, Number(value))}
        placeholder="how late …"
      />
    </span>
  );
}

/** Play, keep, freeze, step and slow down; or run a scripted player. */
export function StageBar({ onDraw }: { onDraw: () => void }) {
  const pad = usePad();
  const isAwake = usePadState(state => state.session !== undefined);
  const hasEnded = usePadState(state => state.ended !== undefined);
  const isRecording = usePadState(state => state.isRecording);
  const isPlayable = useEvaluation(state => state.rules !== undefined);
  const isLinked = usePadState(state => state.isLinked);
  const gameLink = useGameLink();
  const hasLink = useGameLinkState(state => state.status !== "off");
  const isCourse = useDocument(state => state.kit !== undefined && courseOf(state.kit) !== undefined);
  if (isLinked) return <GameFigures />;
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm" role="group" aria-label="Stage">
      <Button
        look="strong"
        disabled={!isPlayable}
        onClick={() => (isRecording ? pad.sleep() : pad.wake(true))}
      >
        {isRecording ? "Stop and keep" : isAwake ? "Record from here" : "Record a take"}
      </Button>
      {isAwake && <SessionActions />}
      {hasEnded && (
        <span>
          Listening ended. <KeepButton />
        </span>
      )}
      {isAwake && <PlaceActions />}
      <AssistWord />
      {!isAwake && isCourse && <EdgePlayer />}
      {!isAwake && (
        <Flap
          word="Script an input"
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
      {!isAwake && !hasLink && (
        <Button look="quiet" disabled={!isPlayable} onClick={gameLink.open}>
          Link a game
        </Button>
      )}
    </div>
  );
}
