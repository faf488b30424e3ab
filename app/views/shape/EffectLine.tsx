import { deleteAt, writeAt, type Kit } from "#core";
import { effectSchema, stageOf, type Effect } from "#stage";
import * as v from "valibot";
import { beginGesture, editKit } from "../../document/workbench";
import { ChoiceWord, type Choice } from "../../ui/ChoiceWord";
import { LengthStone } from "../../ui/LengthStone";
import { NumberStone } from "../../ui/NumberStone";

interface EffectChoice extends Choice {
  readonly becomes: Effect | undefined;
}

const NOTHING: EffectChoice = {
  value: "",
  label: "does nothing",
  hint: "only the rules know of it",
  becomes: undefined,
};

const ON_BEAMS: readonly EffectChoice[] = [
  NOTHING,
  { value: "leap", label: "leaps", hint: "leaves the ground at a speed of its own", becomes: { leap: 19 } },
  {
    value: "output",
    label: "leaps as charged",
    hint: "at the worth of the charge, in tiles a second",
    becomes: { leap: "output" },
  },
  { value: "lift", label: "lifts", hint: "is pushed up for a while", becomes: { lift: 40, for: "12f" } },
  {
    value: "float",
    label: "floats",
    hint: "falls and rises more lightly for a while",
    becomes: { float: 0.5, for: "30f" },
  },
  { value: "run", label: "runs", hint: "faster, until the direction is let go", becomes: { run: 10 } },
  { value: "step", label: "steps", hint: "so many tiles, to the left where negative", becomes: { step: 1 } },
  { value: "dash", label: "dashes", hint: "the way it faces, for a while", becomes: { dash: 16, for: "8f" } },
];

const IN_A_DUEL: readonly EffectChoice[] = [
  NOTHING,
  {
    value: "strike",
    label: "strikes",
    hint: "lands after its startup, while it is active",
    becomes: { strike: 5 },
  },
  { value: "parry", label: "parries", hint: "turns a strike away for a while", becomes: { parry: "9f" } },
];

function kindOf(effect: Effect | undefined): string {
  if (!effect) return "";
  if ("leap" in effect && effect.leap === "output") return "output";
  return Object.keys(effect)[0] ?? "";
}

const UNITS: Readonly<Record<string, string>> = {
  leap: "at",
  lift: "by",
  float: "at",
  run: "at",
  step: "",
  dash: "at",
  strike: "with force",
};

const AFTER: Readonly<Record<string, string>> = {
  leap: "tiles a second",
  lift: "tiles a second a second",
  float: "of its gravity",
  run: "tiles a second",
  step: "tiles",
  dash: "tiles a second",
  strike: "",
};

/** What a move does on the stage, as a sentence of its own with its numbers in place. */
export function EffectLine({ kit, index }: { kit: Kit; index: number }) {
  const stage = stageOf(kit);
  const move = kit.moves?.[index];
  if (!move || !stage || stage.kind === "ropes") return null;
  const parsed = v.safeParse(effectSchema, move.effect);
  const effect = parsed.success ? parsed.output : undefined;
  const kind = kindOf(effect);
  const choices = stage.kind === "runner" ? ON_BEAMS : IN_A_DUEL;
  const path = ["moves", index, "effect"];
  const choose = (value: string) => {
    const becomes = choices.find(choice => choice.value === value)?.becomes;
    editKit(`effect of ${move.name}`, now => (becomes ? writeAt(now, path, becomes) : deleteAt(now, path)));
  };
  const set = (field: string) => (value: unknown) =>
    editKit(`effect of ${move.name}`, now => writeAt(now, [...path, field], value));
  const main = effect && kind !== "output" ? (effect as Record<string, unknown>)[kind] : undefined;
  const lasts = kind === "parry" ? (main as string) : effect && "for" in effect ? effect.for : undefined;
  return (
    <p className="mt-1 font-serif text-lg leading-[1.8]" data-testid="effect">
      On the stage it{" "}
      <ChoiceWord label="effect on the stage" value={kind} choices={choices} onChoose={choose} />
      {typeof main === "number" && (
        <>
          {" "}
          {UNITS[kind]}{" "}
          <NumberStone
            label={`${kind} of the effect`}
            value={main}
            {...(kind === "step" ? {} : { least: 0, most: kind === "float" ? 1 : 1000 })}
            onChange={set(kind)}
            onGesture={beginGesture}
          />{" "}
          {AFTER[kind]}
        </>
      )}
      {lasts !== undefined && (
        <>
          {" "}
          for{" "}
          <LengthStone
            label="length of the effect"
            value={lasts}
            rateHz={kit.rate}
            rounding="atLeast"
            least={1}
            onChange={set(kind === "parry" ? "parry" : "for")}
            onGesture={beginGesture}
          />
        </>
      )}
      .
    </p>
  );
}
