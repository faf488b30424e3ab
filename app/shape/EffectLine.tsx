import { deleteAt, writeAt, type Kit } from "#core";
import { Fragment, useDeferredValue, useMemo } from "react";
import {
  effectOf,
  findAdvantage,
  formatAdvantage,
  stageKind,
  stageOf,
  type Advantage,
  type Effect,
  type EffectKind,
} from "#stage";
import { useWorkbench } from "../document/workbenchContext";
import { ChoiceWord } from "../ui/ChoiceWord";
import { LengthStone } from "../ui/LengthStone";
import { NumberStone } from "../ui/NumberStone";

const NOTHING = { value: "", label: "does nothing", hint: "only the rules know of it" };

/** Returns the advantage after a blow, computed when input pauses because it runs the rules. */
function useAdvantage(newest: Kit, index: number, isWanted: boolean): Advantage | undefined {
  const kit = useDeferredValue(newest);
  return useMemo(() => (isWanted ? findAdvantage(kit, index) : undefined), [kit, index, isWanted]);
}

/** The effect of a move on the stage, as a sentence with editable numbers. */
export function EffectLine({ kit, index }: { kit: Kit; index: number }) {
  const workbench = useWorkbench();
  const stage = stageOf(kit);
  const move = kit.moves?.[index];
  const kinds = Object.entries<EffectKind>(stage ? stageKind(stage.kind).effects : {});
  const effect = effectOf(move);
  const advantage = useAdvantage(kit, index, effect !== undefined && "strike" in effect);
  if (!move || kinds.length === 0) return null;
  const [name, kind] = (effect && kinds.find(([, item]) => item.isThis(effect))) ?? [];
  const path = ["moves", index, "effect"];
  const choose = (value: string) => {
    const becomes = kinds.find(([id]) => id === value)?.[1].begins;
    workbench.editKit(`effect of ${move.name}`, now =>
      becomes ? writeAt(now, path, becomes) : deleteAt(now, path),
    );
  };
  const set = (field: string) => (value: unknown) =>
    workbench.editKit(`effect of ${move.name}`, now => writeAt(now, [...path, field], value));
  const { amount, more, lasts, lengths } = kind ?? {};
  /** A duration of the effect; the stage's own where it has none. */
  const length = (field: string, label: string, least = 0) => (
    <LengthStone
      label={label}
      value={String(effect?.[field] ?? (stage as Effect | undefined)?.[field] ?? "0f")}
      rateHz={kit.rate}
      rounding="atLeast"
      least={least}
      onChange={set(field)}
      beginStep={workbench.beginStep}
    />
  );
  return (
    <p className="mt-1 font-serif text-lg leading-[1.8]" data-testid="effect">
      On the stage it{" "}
      <ChoiceWord
        label="effect on the stage"
        value={name ?? ""}
        choices={[NOTHING, ...kinds.map(([value, { label, hint }]) => ({ value, label, hint }))]}
        onChoose={choose}
      />
      {effect &&
        [amount, more].map(
          place =>
            place && (
              <Fragment key={place.field}>
                {" "}
                {place.before}{" "}
                <NumberStone
                  label={`${place.field} of the effect`}
                  value={Number(effect[place.field])}
                  {...(place.least === undefined ? {} : { least: place.least })}
                  {...(place.most === undefined ? {} : { most: place.most })}
                  onChange={set(place.field)}
                  beginStep={workbench.beginStep}
                />{" "}
                {place.after}
              </Fragment>
            ),
        )}
      {lasts && effect && <> for {length(lasts, "length of the effect", 1)}</>}.
      {effect && lengths && (
        <span data-testid="effect-lengths">
          {" "}
          {lengths.map(({ field, before }) => (
            <Fragment key={field}>
              {before} {length(field, `${field} of the effect`)}
            </Fragment>
          ))}
          .
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
