import { ownValue } from "#core";
import type { Kit, Mapping } from "#core";
import { ChoiceWord } from "../ui/ChoiceWord";
import { mapSource } from "./model/mapping";

/** Longer names get a line each. */
const LONG_LETTERS = 28;

/** The control of each column, name or signal, as a list of sentences. */
export function SourceList({
  kit,
  sources,
  mapping,
  onChange,
}: {
  kit: Kit;
  sources: readonly string[];
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const choices = [
    { value: "", label: "nothing" },
    ...kit.controls.map(({ id, name }) => ({ value: id, label: name || id })),
  ];
  const isLong = sources.some(source => source.length > LONG_LETTERS);
  return (
    <ul
      aria-label="What plays which control"
      className={`mt-2 grid gap-x-8 text-sm ${isLong ? "grid-cols-1" : "grid-cols-2"}`}
    >
      {sources.map(source => {
        const control = ownValue(mapping.controls, source) ?? "";
        return (
          <li
            key={source}
            className="flex min-w-0 items-baseline gap-1 border-b border-dotted border-line py-1"
          >
            <span className="min-w-0 truncate font-mono" title={source}>
              {source}
            </span>
            <span className="text-soft">plays</span>
            <span className="flex max-w-[45%] shrink-0">
              <ChoiceWord
                label={`what ${source} plays`}
                value={control}
                choices={choices}
                isTight
                onChoose={id => onChange(mapSource(mapping, source, id === "" ? undefined : id))}
              />
            </span>
          </li>
        );
      })}
    </ul>
  );
}
