import { BOUNDS, describeSwitch, writeAt, type Kit } from "#core";
import { removeAt } from "../edits/kitEdits";
import { addMode, removeMode, freshSwitch } from "../edits/modeEdits";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { Sentence } from "../parts/Sentence";
import { ModeGrid } from "./ModeGrid";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { usePad, usePadState } from "../input/context";
import { useTakeAway } from "../document/useTakeAway";

const CARRY = [
  {
    value: "no",
    label: "must be pressed again",
    hint: "a button held from before is seen as up until it is let go",
  },
  {
    value: "yes",
    label: "counts on, from its press",
    hint: "as if it had watched the press from its start, but nothing from before is made good",
  },
];

function ModeLine({ kit, at }: { kit: Kit; at: number }) {
  const workbench = useWorkbench();
  const pad = usePad();
  const takeAway = useTakeAway();
  const mode = kit.modes![at]!;
  const isNow = usePadState(({ session }) => session !== undefined && session.state.mode === at);
  const isAwake = usePadState(({ session }) => session !== undefined);
  const isRecording = usePadState(state => state.isRecording);
  const isStart = (kit.start ?? kit.modes![0]!.id) === mode.id;
  const rename = (typed: string) => {
    const name = typed.trim();
    if (name !== "" && name !== mode.name)
      workbench.editKit(`renamed ${name}`, now => writeAt(now, ["modes", at, "name"], name));
  };
  const remove = () => {
    takeAway(
      `${mode.name} is deleted, with the switches to it.`,
      workbench.editKit(`deleted ${mode.name}`, now => removeMode(now, mode.id)),
    );
  };
  return (
    <li className="flex flex-wrap items-baseline gap-x-2">
      <input
        maxLength={BOUNDS.nameLetters}
        key={mode.name}
        aria-label={`Name of mode ${mode.name}`}
        size={Math.max(4, mode.name.length)}
        className={`[field-sizing:content] rounded bg-transparent font-semibold focus:bg-leaf ${isNow ? "border-b-2 border-moss" : ""}`}
        defaultValue={mode.name}
        onBlur={event => rename(event.target.value)}
        onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
      />
      <span>
        begins: a button still held{" "}
        <ChoiceWord
          label={`held buttons in ${mode.name}`}
          value={mode.carry ? "yes" : "no"}
          choices={CARRY}
          onChoose={value =>
            workbench.editKit(`carry of ${mode.name}`, now => {
              const { carry, ...rest } = now.modes![at]!;
              return writeAt(now, ["modes", at], value === "yes" ? { ...rest, carry: true } : rest);
            })
          }
        />
        .{isStart && " Play starts here."}
      </span>
      <span className="font-sans">
        {!isStart && (
          <Button
            look="quiet"
            aria-label={`Start in ${mode.name}`}
            onClick={() => workbench.editKit(`starts in ${mode.name}`, now => ({ ...now, start: mode.id }))}
          >
            Start here
          </Button>
        )}
        <Button
          look="quiet"
          aria-label={`Try ${mode.name} now`}
          disabled={!isAwake || isNow || isRecording}
          title={isRecording ? "Not while recording: a take knows no hand that turns modes" : ""}
          onClick={event => {
            event.currentTarget.blur();
            pad.tryMode(mode.id);
          }}
        >
          {isNow ? "On now" : "Try it now"}
        </Button>
        <Button look="quiet" aria-label={`Delete mode ${mode.name}`} onClick={remove}>
          ×
        </Button>
      </span>
    </li>
  );
}

function SwitchLine({ kit, at }: { kit: Kit; at: number }) {
  const workbench = useWorkbench();
  return (
    <li className="flex items-baseline gap-2">
      <Sentence parts={describeSwitch(kit.switches![at]!, kit)} base={["switches", at]} isSmall />
      <Button
        look="quiet"
        aria-label={`Delete switch ${at + 1}`}
        onClick={() => workbench.editKit("deleted a switch", now => removeAt(now, "switches", at))}
      >
        ×
      </Button>
    </li>
  );
}

/** The modes: which rules are active, the switches between them, and each control in each mode. */
export function Modes() {
  const workbench = useWorkbench();
  const kit = useDocument(state => state.kit);
  if (!kit) return null;
  const modes = kit.modes ?? [];
  const source = freshSwitch(kit);
  return (
    <section aria-label="Modes" className="min-h-0 grow overflow-auto px-6 py-4">
      <h1 className="font-serif text-2xl">Modes: one button, another meaning</h1>
      {modes.length === 0 && (
        <p className="mt-1 max-w-xl text-soft">
          Every rule is always on. Add modes to let the same button do one thing on the ground and another in
          the air; rules then name the modes they are active in.
        </p>
      )}
      <ul className="mt-2 font-serif text-lg leading-[1.8]">
        {modes.map((mode, at) => (
          <ModeLine key={mode.id} kit={kit} at={at} />
        ))}
      </ul>
      <p className="mt-1">
        <Button onClick={() => workbench.editKit("added a mode", addMode)}>Add a mode</Button>
      </p>
      {modes.length > 1 && (
        <>
          <ul className="mt-4" aria-label="Switches">
            {(kit.switches ?? []).map((_, at) => (
              <SwitchLine key={at} kit={kit} at={at} />
            ))}
          </ul>
          <p className="mt-1">
            <Button
              disabled={!source}
              onClick={() =>
                source &&
                workbench.editKit("added a switch", now => ({
                  ...now,
                  switches: [...(now.switches ?? []), source],
                }))
              }
            >
              Add a switch
            </Button>
            {!source && (
              <span className="ml-2 text-sm text-soft">
                {(kit.gates ?? []).length + (kit.moves ?? []).length === 0
                  ? "A switch watches a gate or a move: there is none yet."
                  : "There is a switch for every gate and move."}
              </span>
            )}
          </p>
          <ModeGrid kit={kit} />
        </>
      )}
    </section>
  );
}
