import { CHARACTERS, type Character } from "#core";
import { OWN_HANDS } from "../../document/studySettings";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { noStep } from "../../ui/noStep";
import { NumberStone } from "../../ui/NumberStone";

const FIELDS = [
  { field: "biasMs", label: "late by", before: "comes", after: "ms late,", least: -1000, most: 1000 },
  {
    field: "spreadMs",
    label: "spread of the onset",
    before: "give or take",
    after: "ms;",
    least: 0,
    most: 1000,
  },
  {
    field: "lengthPercent",
    label: "spread of the length",
    before: "holds as long, give or take",
    after: "%;",
    least: 0,
    most: 100,
  },
  {
    field: "fingersMs",
    label: "fingers apart",
    before: "fingers meant together",
    after: "ms apart;",
    least: 0,
    most: 1000,
  },
  { field: "missedPercent", label: "missed", before: "misses", after: "presses of 100", least: 0, most: 100 },
  { field: "doubledPercent", label: "doubled", before: "and doubles", after: ".", least: 0, most: 100 },
] as const;

/** A character as a sentence with editable numbers. */
export function CharacterLine({
  character,
  known,
  side,
  own,
  onChange,
}: {
  character: Character;
  /** Characters to start from: the built-in ones, and a fitted one. */
  known: readonly Character[];
  /** A prefix for the labels of its numbers: "", or "second ". */
  side: string;
  /** The choice of hands fitted to the takes that they play, in words, and whether it is chosen. */
  own?: { readonly words: string; readonly isChosen: boolean; readonly choose: () => void };
  onChange: (character: Character) => void;
}) {
  const isAsShipped = known.some(
    item => FIELDS.every(({ field }) => item[field] === character[field]) && item.name === character.name,
  );
  return (
    <>
      <ChoiceWord
        label={`${side}character`}
        value={own?.isChosen ? OWN_HANDS : isAsShipped ? character.name : ""}
        placeholder={`A hand of your own, from ${character.name.toLowerCase()},`}
        choices={[
          ...known.map(item => ({
            value: item.name,
            label: `A ${item.name.toLowerCase()} hand`,
            hint: CHARACTERS.find(({ name }) => name === item.name)?.why ?? "the spread found in your takes",
          })),
          ...(own ? [{ value: OWN_HANDS, label: own.words, hint: "fitted to the takes that it plays" }] : []),
        ]}
        onChoose={name => {
          if (name === OWN_HANDS) return own?.choose();
          const found = known.find(item => item.name === name);
          if (found) onChange(found);
        }}
      />
      {!own?.isChosen &&
        FIELDS.map(({ field, label, before, after, least, most }) => (
          <span key={field}>
            {" "}
            {before}{" "}
            <NumberStone
              label={`${side}${label}`}
              value={character[field]}
              least={least}
              most={most}
              beginStep={() => noStep()}
              onChange={value => onChange({ ...character, [field]: value })}
            />{" "}
            {after}
          </span>
        ))}
    </>
  );
}
