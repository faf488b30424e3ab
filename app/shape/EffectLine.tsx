import { writeAt, type Kit } from "#core";
import { Fragment, useDeferredValue, useMemo } from "react";
import {
  effectsOf,
  findAdvantage,
  formatAdvantage,
  MAX_EFFECTS,
  stageKind,
  stageOf,
  type Advantage,
  type EffectAmount,
  type WrittenEffect,
} from "#stage";
import { kindsOn, setEffect } from "../edits/effectEdits";
import { useWorkbench } from "../document/workbenchContext";
import { ChoiceWord } from "../ui/ChoiceWord";
import { KeptMarks } from "../ui/KeptMarks";
import { LengthStone } from "../ui/LengthStone";
import { NumberStone } from "../ui/NumberStone";

const NOTHING = { value: "", label: "does nothing", hint: "only the rules know of it" };

/** Returns the advantage after a blow, computed when input pauses because it runs the rules. */
function useAdvantage(newest: Kit, index: number, isWanted: boolean): Advantage | undefined {
  const kit = useDeferredValue(newest);
  return useMemo(() => (isWanted ? findAdvantage(kit, index) : undefined), [kit, index, isWanted]);
}

/** One effect of a move, as part of a sentence with editable numbers. */
function EffectPart({
  kit,
  index,
  written: { effect, path: inMove },
  place,
  mark,
  onChoose,
}: {
  kit: Kit;
  index: number;
  written: WrittenEffect;
  /** Its place among the effects of the move, from 0. */
  place: number;
  /** The punctuation that follows it in the sentence. */
  mark: string;
  /** Replaces it by another, or takes it away: "". */
  onChoose: (kind: string) => void;
}) {
  const workbench = useWorkbench();
  const stage = stageOf(kit);
  const kinds = kindsOn(kit);
  const [name, kind] = kinds.find(([, item]) => item.isThis(effect)) ?? [];
  const of = place === 0 ? "the effect" : `effect ${place + 1}`;
  const set = (field: string) => (value: unknown) =>
    workbench.editKit(`effect of ${kit.moves![index]!.name}`, now =>
      writeAt(now, ["moves", index, ...inMove, field], value),
    );
  const { amount, more, lasts, lengths, others } = kind ?? {};
  const defaults = (stage && stageKind(stage.kind).effectDefaults?.(stage)) ?? {};
  /** A duration of the effect; the stage's own where it has none. */
  const length = (field: string, label: string, least = 0) => (
    <LengthStone
      label={label}
      value={String(effect[field] ?? defaults[field] ?? "0f")}
      rateHz={kit.rate}
      rounding="atLeast"
      least={least}
      onChange={set(field)}
      beginStep={workbench.beginStep}
    />
  );
  /** A number of the effect; the stage's own where it has none. */
  const number = ({ field, before, after, ...bounds }: EffectAmount) => (
    <Fragment key={field}>
      {before}{" "}
      <NumberStone
        label={`${field} of ${of}`}
        value={Number(effect[field] ?? defaults[field])}
        {...bounds}
        onChange={set(field)}
        beginStep={workbench.beginStep}
      />
      {after && ` ${after}`}
    </Fragment>
  );
  return (
    <KeptMarks>
      <ChoiceWord
        label={place === 0 ? "effect on the stage" : `effect ${place + 1} on the stage`}
        value={name ?? ""}
        choices={[
          place === 0 ? NOTHING : { ...NOTHING, label: "nothing more" },
          ...kinds.map(([value, { label, hint }]) => ({ value, label, hint })),
        ]}
        onChoose={onChoose}
      />
      {amount && <> {number(amount)}</>}
      {more && <> {number(more)}</>}
      {lasts && <> for {length(lasts, `length of ${of}`, 1)}</>}
      {lengths && (
        <>
          {". "}
          {lengths.map(({ field, before }) => (
            <Fragment key={field}>
              {before} {length(field, `${field} of ${of}`)}
            </Fragment>
          ))}
        </>
      )}
      {others && (
        <>
          {". "}
          {others.map(number)}
        </>
      )}
      {mark}
    </KeptMarks>
  );
}

/** The effects of a move on the stage, as a sentence with editable numbers. */
export function EffectLine({ kit, index }: { kit: Kit; index: number }) {
  const workbench = useWorkbench();
  const move = kit.moves?.[index];
  const kinds = kindsOn(kit);
  const effects = effectsOf(move);
  const advantage = useAdvantage(
    kit,
    index,
    effects.some(({ effect }) => "strike" in effect),
  );
  if (!move || kinds.length === 0) return null;
  const choose = (place: number) => (value: string) =>
    workbench.editKit(`effect of ${move.name}`, now => setEffect(now, index, place, value));
  return (
    <p className="mt-1 font-serif text-lg leading-[1.8]" data-testid="effect">
      On the stage it{" "}
      {effects.map((written, place) => (
        <EffectPart
          key={place}
          kit={kit}
          index={index}
          written={written}
          place={place}
          mark={place === effects.length - 1 ? "." : "; and "}
          onChoose={choose(place)}
        />
      ))}
      {effects.length === 0 && (
        <KeptMarks>
          <ChoiceWord
            label="effect on the stage"
            value=""
            choices={[NOTHING, ...kinds.map(([value, { label, hint }]) => ({ value, label, hint }))]}
            onChoose={choose(0)}
          />
          .
        </KeptMarks>
      )}
      {effects.length > 0 && effects.length < MAX_EFFECTS && kinds.length > 1 && (
        <span className="ml-2 font-sans text-sm">
          <ChoiceWord
            label="one more effect on the stage"
            value=""
            choices={kinds.map(([value, { label, hint }]) => ({ value, label, hint }))}
            onChoose={choose(effects.length)}
            placeholder="… and also"
          />
        </span>
      )}
      {advantage && (
        <span className="ml-2 text-base text-soft" data-testid="advantage">
          On a hit <b className="text-ink">{formatAdvantage(advantage.onHit)}</b>, on a guard{" "}
          <b className="text-ink">{formatAdvantage(advantage.onGuard)}</b>, on a miss{" "}
          <b className="text-ink">{formatAdvantage(advantage.onMiss)}</b>.
        </span>
      )}
    </p>
  );
}
