import { nanoid } from "nanoid";
import { useState } from "react";
import type { Kit } from "#core";
import { courseOf, effectsOf, handOf, playRoutine, type HandLine } from "#stage";
import type { KitSettings } from "../storage/records";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { LengthStone } from "../ui/LengthStone";
import { NumberStone } from "../ui/NumberStone";
import { useEvaluation, useEvaluationStore, usePlaybackControl } from "../document/evaluationContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { noStep } from "../ui/noStep";

const START = " start";
const SECONDS = 8;
const LONGEST_SECONDS = 120;
const MAX_DEVIATION = 30;

type Hand = NonNullable<KitSettings["hand"]>;

const TIMES = [
  { value: "each", label: "each time" },
  { value: "first", label: "the first time" },
] as const;

/** Returns the first line: a runner runs, in any other kit a control is pressed after a second. */
function firstLine(kit: Kit): HandLine {
  const course = courseOf(kit);
  const atOnce = { turns: "open", isEachTime: false } as const;
  if (course) return { ...atOnce, control: course.control, for: `${SECONDS * kit.rate}f`, after: "0f" };
  return { ...atOnce, control: kit.controls[0]?.id ?? "", for: "9f", after: `${kit.rate}f` };
}

/**
 * Returns a further line: the leap control, or the next one, shortly after the ground gate, or the first
 * gate, closes.
 */
function nextLine(kit: Kit, lines: readonly HandLine[]): HandLine {
  const leaping = kit.moves?.find(
    move => !move.off && effectsOf(move).some(({ effect }) => "leap" in effect),
  );
  const pattern = kit.patterns.find(item => item.id === leaping?.pattern);
  const free = kit.controls.find(control => lines.every(line => line.control !== control.id));
  const leap = pattern && "control" in pattern ? pattern.control : undefined;
  const isFirst = lines.every(line => line.control !== leap);
  const control = (isFirst ? leap : undefined) ?? free?.id ?? kit.controls[0]?.id ?? "";
  const gate = courseOf(kit)?.ground ?? kit.gates?.[0]?.id;
  return { control, for: "9f", after: "3f", gate, turns: "closed", isEachTime: true };
}

/** One line as a sentence with editable words and numbers. */
function Line({
  kit,
  line,
  onChange,
  onRemove,
}: {
  kit: Kit;
  line: HandLine;
  onChange: (line: HandLine) => void;
  onRemove: () => void;
}) {
  const length = (label: string, field: "for" | "after", least: number) => (
    <LengthStone
      label={label}
      value={line[field]}
      rateHz={kit.rate}
      rounding="atLeast"
      least={least}
      isBare
      onChange={written => onChange({ ...line, [field]: written })}
      beginStep={() => noStep(() => onChange(line))}
    />
  );
  const moments = (kit.gates ?? []).flatMap(gate => [
    { value: `open ${gate.id}`, label: `${gate.name} opens` },
    { value: `closed ${gate.id}`, label: `${gate.name} closes` },
  ]);
  return (
    <li className="flex items-start gap-2 border-b border-dotted border-line py-1 leading-loose">
      <span className="grow">
        Hold{" "}
        <ChoiceWord
          label="Control the hand holds"
          value={line.control}
          placeholder="a control that is gone"
          choices={kit.controls.map(control => ({ value: control.id, label: control.name }))}
          onChoose={control => onChange({ ...line, control })}
        />{" "}
        for {length("how long the hand holds", "for", 1)}, {length("how long the hand waits", "after", 0)}{" "}
        after{" "}
        <ChoiceWord
          label="What the hand waits for"
          value={line.gate === undefined ? START : `${line.turns} ${line.gate}`}
          placeholder="a gate that is gone"
          choices={[{ value: START, label: "the beginning" }, ...moments]}
          onChoose={value => {
            const [turns, ...rest] = value.split(" ");
            if (value === START) onChange({ ...line, gate: undefined });
            else onChange({ ...line, gate: rest.join(" "), turns: turns as HandLine["turns"] });
          }}
        />
        {line.gate !== undefined && (
          <>
            ,{" "}
            <ChoiceWord
              label="How often"
              value={line.isEachTime ? "each" : "first"}
              choices={TIMES}
              onChoose={value => onChange({ ...line, isEachTime: value === "each" })}
            />
          </>
        )}
      </span>
      <button
        type="button"
        aria-label="Take this line out"
        className="px-1 text-soft hover:text-foxglove"
        onClick={onRemove}
      >
        ×
      </button>
    </li>
  );
}

/** A scripted player: several lines at once, with optional random deviations; its input becomes a take. */
export function ScriptedHand({ close }: { close: () => void }) {
  const workbench = useWorkbench();
  const evaluation = useEvaluationStore();
  const playback = usePlaybackControl();
  const kit = useDocument(state => state.kit);
  const kept = useDocument(state => state.settings.hand);
  const isSound = useEvaluation(state => state.isSound);
  const [seconds, setSeconds] = useState(SECONDS);
  if (!kit) return null;
  const hand: Hand = kept ?? { lines: [firstLine(kit)], seed: 1, unevenFrames: 0 };
  const keep = (change: Partial<Hand>) =>
    workbench.updateKitSettings(settings => ({ ...settings, hand: { ...hand, ...change } }));
  const play = () => {
    const { rules } = evaluation.getState();
    if (!rules) return;
    const routine = handOf(hand.lines, kit.rate, hand.seed, hand.unevenFrames);
    const uneven = hand.unevenFrames > 0 ? `, ±${hand.unevenFrames}f, seed ${hand.seed}` : "";
    const take = playRoutine(
      rules,
      routine,
      Math.round(seconds * kit.rate),
      nanoid(8),
      `Scripted input${uneven}`,
    );
    workbench.addTake(take, "let written hands play");
    playback.toggle();
    close();
  };
  return (
    <section aria-label="What hands do" data-testid="scripted-hand">
      {kit.controls.length === 0 ? (
        <p className="text-soft">Add a control in Wire first: hands need something to hold.</p>
      ) : (
        <>
          <ul>
            {hand.lines.map((line, k) => (
              <Line
                key={k}
                kit={kit}
                line={line}
                onChange={next => keep({ lines: hand.lines.map((other, l) => (l === k ? next : other)) })}
                onRemove={() => keep({ lines: hand.lines.filter((_, l) => l !== k) })}
              />
            ))}
          </ul>
          <Button
            look="quiet"
            className="-ml-2"
            onClick={() => keep({ lines: [...hand.lines, nextLine(kit, hand.lines)] })}
          >
            … and one more line
          </Button>
          <p className="leading-loose">
            Each press up to{" "}
            <NumberStone
              label="unevenness"
              value={hand.unevenFrames}
              least={0}
              most={MAX_DEVIATION}
              isWhole
              onChange={unevenFrames => keep({ unevenFrames })}
              beginStep={() => noStep()}
            />{" "}
            f off, as seed{" "}
            <NumberStone
              label="seed of the hands"
              value={hand.seed}
              least={0}
              isWhole
              onChange={seed => keep({ seed })}
              beginStep={() => noStep()}
            />{" "}
            decides; for{" "}
            <NumberStone
              label="seconds the hands play"
              value={seconds}
              least={0.5}
              most={LONGEST_SECONDS}
              onChange={setSeconds}
              beginStep={() => noStep()}
            />{" "}
            s.
          </p>
          <p className="mt-2">
            <Button look="strong" disabled={!isSound || hand.lines.length === 0} onClick={play}>
              Run the script
            </Button>
          </p>
        </>
      )}
    </section>
  );
}
