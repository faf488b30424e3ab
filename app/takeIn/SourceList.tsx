import { useMemo } from "react";
import { ownValue, type Kit, type Mapping } from "#core";
import { ChoiceWord } from "../ui/ChoiceWord";
import { listSigned, listSources, mapBelow, mapSource, type Glance } from "./model/mapping";

/** The beginnings of choices that are controls and gates. */
const CONTROL = "control ";
const GATE = "gate ";

/** Returns the id of a chosen control; undefined for nothing. */
const idOf = (chosen: string) => (chosen === "" ? undefined : chosen.slice(CONTROL.length));

/** Longer names get a line each. */
const LONG_LETTERS = 28;

/** The control of each column, name or signal, as a list of sentences. */
export function SourceList({
  kit,
  glance,
  mapping,
  onChange,
}: {
  kit: Kit;
  glance: Glance;
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const sources = useMemo(() => listSources(glance, mapping), [glance, mapping]);
  // Those with values below 0, which can play another control.
  const signed = useMemo(() => listSigned(glance, mapping), [glance, mapping]);
  const nothing = { value: "", label: "nothing" };
  const controls = kit.controls.map(({ id, name }) => ({ value: `${CONTROL}${id}`, label: name || id }));
  const gates = (kit.gates ?? []).map(({ id, name }) => ({
    value: `${GATE}${id}`,
    label: name || id,
    hint: "a gate: open while it is not 0, in place of the stage",
  }));
  const isLong = sources.some(source => source.length > LONG_LETTERS);
  return (
    <ul
      aria-label="What plays which control"
      className={`mt-2 grid gap-x-8 text-sm ${isLong ? "grid-cols-1" : "grid-cols-2"}`}
    >
      {sources.map(source => {
        const control = ownValue(mapping.controls, source);
        const gate = ownValue(mapping.gates, source);
        const below = ownValue(mapping.below, source);
        const isSigned = below !== undefined || (gate === undefined && signed.includes(source));
        const played =
          control !== undefined ? `${CONTROL}${control}` : gate === undefined ? "" : `${GATE}${gate}`;
        return (
          <li
            key={source}
            className="flex min-w-0 items-baseline gap-1 border-b border-dotted border-line py-1"
          >
            <span className="min-w-0 truncate font-mono" title={source}>
              {source}
            </span>
            <span className="text-soft">{gate === undefined ? "plays" : "opens"}</span>
            <span className={`flex shrink-0 ${isSigned ? "max-w-[30%]" : "max-w-[45%]"}`}>
              <ChoiceWord
                label={`what ${source} plays`}
                value={played}
                choices={[nothing, ...controls, ...gates]}
                isTight
                onChoose={chosen =>
                  onChange(
                    chosen.startsWith(GATE)
                      ? mapSource(mapping, source, chosen.slice(GATE.length), "gates")
                      : mapSource(mapping, source, idOf(chosen)),
                  )
                }
              />
            </span>
            {isSigned && (
              <>
                <span className="whitespace-nowrap text-soft">and below 0</span>
                <span className="flex max-w-[30%] shrink-0">
                  <ChoiceWord
                    label={`what ${source} plays below 0`}
                    value={below === undefined ? "" : `${CONTROL}${below}`}
                    choices={[nothing, ...controls]}
                    isTight
                    onChoose={chosen => onChange(mapBelow(mapping, source, idOf(chosen)))}
                  />
                </span>
              </>
            )}
          </li>
        );
      })}
    </ul>
  );
}
