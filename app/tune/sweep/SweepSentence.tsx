import type { SweepRange, SweptChoice } from "../../document/studySettings";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { noStep } from "../../ui/noStep";
import { NumberStone } from "../../ui/NumberStone";

/** Returns the unit of a swept number after its range, with a space before it; empty for a count. */
export function unitAfter({ swept }: SweptChoice): string {
  if (swept.kind === "group") return " %";
  return swept.kind === "length" ? ` ${swept.unit}` : "";
}

/** The number to sweep, and its range. */
export function SweepSentence({
  choices,
  choice,
  range,
  onChoose,
  onRange,
}: {
  choices: readonly SweptChoice[];
  choice: SweptChoice;
  range: SweepRange;
  onChoose: (key: string) => void;
  onRange: (range: SweepRange) => void;
}) {
  const bounds = {
    least: Number.isFinite(choice.least) ? Math.max(0, choice.least) : -1000,
    most: 100_000,
    isWhole: true,
  };
  return (
    <>
      <ChoiceWord
        label="number"
        value={choice.key}
        choices={choices.map(({ key, words }) => ({ value: key, label: words }))}
        onChoose={onChoose}
      />{" "}
      from{" "}
      <NumberStone
        label="from"
        value={range.from}
        onChange={from => onRange({ ...range, from })}
        beginStep={() => noStep()}
        {...bounds}
      />{" "}
      to{" "}
      <NumberStone
        label="to"
        value={range.to}
        onChange={to => onRange({ ...range, to })}
        beginStep={() => noStep()}
        {...bounds}
      />
      {unitAfter(choice)}
    </>
  );
}
