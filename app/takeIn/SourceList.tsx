import { ownValue } from "#core";
import type { Kit, Mapping } from "#core";
import { ChoiceWord } from "../ui/ChoiceWord";
import { mapBelow, mapSource } from "./model/mapping";

/** Longer names get a line each. */
const LONG_LETTERS = 28;

/** The control of each column, name or signal, as a list of sentences. */
export function SourceList({
  kit,
  sources,
  signed,
  mapping,
  onChange,
}: {
  kit: Kit;
  sources: readonly string[];
  /** Those with values below 0, which can play another control. */
  signed: readonly string[];
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
        const below = ownValue(mapping.below ?? {}, source) ?? "";
        const isSigned = below !== "" || signed.includes(source);
        return (
          <li
            key={source}
            className="flex min-w-0 items-baseline gap-1 border-b border-dotted border-line py-1"
          >
            <span className="min-w-0 truncate font-mono" title={source}>
              {source}
            </span>
            <span className="text-soft">plays</span>
            <span className={`flex shrink-0 ${isSigned ? "max-w-[30%]" : "max-w-[45%]"}`}>
              <ChoiceWord
                label={`what ${source} plays`}
                value={control}
                choices={choices}
                isTight
                onChoose={id => onChange(mapSource(mapping, source, id === "" ? undefined : id))}
              />
            </span>
            {isSigned && (
              <>
                <span className="whitespace-nowrap text-soft">and below 0</span>
                <span className="flex max-w-[30%] shrink-0">
                  <ChoiceWord
                    label={`what ${source} plays below 0`}
                    value={below}
                    choices={choices}
                    isTight
                    onChoose={id => onChange(mapBelow(mapping, source, id === "" ? undefined : id))}
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
