import { useMemo } from "react";
import { ownValue, type Kit, type Mapping } from "#core";
import { ChoiceWord } from "../ui/ChoiceWord";
import {
  listSigned,
  listSources,
  mapBelow,
  mapSource,
  purposeOf,
  type Glance,
  type SourceUse,
} from "./model/mapping";

/** The words between a source and its control, gate, move or speed. */
const VERBS: Readonly<Record<SourceUse, string>> = {
  controls: "plays",
  gates: "opens",
  performs: "shows",
  speed: "gives",
};

const SPEEDS = [
  { id: "times", name: "the speed, 1 is full" },
  { id: "percent", name: "the speed, 100 is full" },
  { id: "stops", name: "a stop, while not 0" },
];

/** Returns the value of a choice; empty for nothing. */
const choiceOf = (use: SourceUse, id: string | undefined) => (id === undefined ? "" : `${use} ${id}`);

/** Returns the use and the id of a chosen value; without an id for nothing. */
function readChoice(chosen: string): { readonly use: SourceUse; readonly id: string | undefined } {
  const at = chosen.indexOf(" ");
  if (at < 0) return { use: "controls", id: undefined };
  return { use: chosen.slice(0, at) as SourceUse, id: chosen.slice(at + 1) };
}

/** Returns the choices of one use. */
const listChoices = (
  use: SourceUse,
  items: readonly { readonly id: string; readonly name: string }[] = [],
  hint?: string,
) =>
  items.map(({ id, name }) => ({ value: choiceOf(use, id), label: name || id, ...(hint ? { hint } : {}) }));

/** Longer names get a line each. */
const LONG_LETTERS = 28;

/** The control of each column, name or signal, as a list of sentences. */
export function SourceList({
  kit,
  glance,
  mapping,
  met,
  onChange,
}: {
  kit: Kit;
  glance: Glance;
  mapping: Mapping;
  /** The sources that reading the whole file found beyond its preview. */
  met: readonly string[];
  onChange: (mapping: Mapping) => void;
}) {
  const sources = useMemo(() => listSources(glance, mapping, met), [glance, mapping, met]);
  // Those with values below 0, which can play another control.
  const signed = useMemo(() => listSigned(glance, mapping), [glance, mapping]);
  const nothing = { value: "", label: "nothing" };
  const controls = listChoices("controls", kit.controls);
  const gates = listChoices("gates", kit.gates, "a gate: open while it is not 0, in place of the stage");
  const moves = listChoices("performs", kit.moves, "a move, performed by the game: compared with the rules");
  const speeds = listChoices("speed", SPEEDS, "the speed of the game: hit stop and slow motion");
  const isLong = sources.some(source => source.length > LONG_LETTERS);
  return (
    <ul
      aria-label="What plays which control"
      className={`mt-2 grid gap-x-8 text-sm ${isLong ? "grid-cols-1" : "grid-cols-2"}`}
    >
      {sources.map(source => {
        const { use, id } = purposeOf(mapping, source) ?? { use: "controls" };
        const below = ownValue(mapping.below, source);
        const isSigned = below !== undefined || (use === "controls" && signed.includes(source));
        return (
          <li
            key={source}
            className="flex min-w-0 items-baseline gap-1 border-b border-dotted border-line py-1"
          >
            <span className="min-w-0 truncate font-mono" title={source}>
              {source}
            </span>
            <span className="text-soft">{VERBS[use]}</span>
            <span className={`flex shrink-0 ${isSigned ? "max-w-[30%]" : "max-w-[45%]"}`}>
              <ChoiceWord
                label={`what ${source} plays`}
                value={choiceOf(use, id)}
                choices={[nothing, ...controls, ...gates, ...moves, ...speeds]}
                isTight
                onChoose={chosen => {
                  const { use, id } = readChoice(chosen);
                  onChange(mapSource(mapping, source, id, use));
                }}
              />
            </span>
            {isSigned && (
              <>
                <span className="whitespace-nowrap text-soft">and below 0</span>
                <span className="flex max-w-[30%] shrink-0">
                  <ChoiceWord
                    label={`what ${source} plays below 0`}
                    value={choiceOf("controls", below)}
                    choices={[nothing, ...controls]}
                    isTight
                    onChoose={chosen => onChange(mapBelow(mapping, source, readChoice(chosen).id))}
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
