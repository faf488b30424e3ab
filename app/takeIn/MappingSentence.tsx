import type { Kit, Mapping } from "#core";
import { KeptMarks } from "../ui/KeptMarks";
import { ChoiceWord } from "../ui/ChoiceWord";
import { noStep } from "../ui/noStep";
import { NumberStone } from "../ui/NumberStone";
import { guessControls, turnSort, type Glance } from "./model/mapping";

const UNITS = [
  { value: "frames", label: "frames" },
  { value: "s", label: "seconds" },
  { value: "ms", label: "ms" },
  { value: "us", label: "µs" },
  { value: "ns", label: "ns" },
] as const;

const SORTS = [
  { value: "changes", label: "one change", hint: "One column is the time, one the control, one its value." },
  { value: "frames", label: "one frame", hint: "Each control has a column of its own." },
] as const;

type Unit = NonNullable<Mapping["unit"]>;
type Start = NonNullable<Mapping["start"]>;

const STARTS = [
  { value: "zero", label: "0", hint: "frame 0 is at time 0" },
  { value: "first-row", label: "the first row", hint: "frame 0 is at the time of the first row" },
];

interface Props {
  readonly kit: Kit;
  readonly glance: Glance;
  readonly mapping: Mapping;
  readonly onChange: (mapping: Mapping) => void;
}

/** The columns of controls and values in a table of changes. */
function ChangeWords({ kit, glance, mapping, onChange }: Props & { glance: { sort: "table" } & Glance }) {
  const columns = glance.head.map(name => ({ value: name, label: name || "(no name)" }));
  return (
    <KeptMarks>
      {" "}
      The control is named in{" "}
      <ChoiceWord
        label="column of controls"
        value={mapping.control ?? ""}
        choices={columns}
        onChoose={control => onChange(guessControls(kit, glance, { ...mapping, control }))}
      />
      , its value in{" "}
      <ChoiceWord
        label="column of values"
        value={mapping.value ?? ""}
        choices={columns}
        onChoose={value => onChange({ ...mapping, value })}
      />
      .
    </KeptMarks>
  );
}

/** The interpretation of a table's rows and times. */
function TableWords(props: Props & { glance: { sort: "table" } & Glance }) {
  const { kit, glance, mapping, onChange } = props;
  const columns = glance.head.map(name => ({ value: name, label: name || "(no name)" }));
  const isFrames = mapping.sort === "frames";
  const setTime = (time: string) => {
    const { time: _was, unit, ...rest } = mapping;
    onChange(time === "" ? rest : { ...rest, time, ...(unit ? { unit } : {}) });
  };
  return (
    <>
      A row is{" "}
      <ChoiceWord
        label="what a row is"
        value={mapping.sort}
        choices={SORTS}
        onChoose={sort => onChange(turnSort(kit, glance, mapping, sort as "changes" | "frames"))}
      />
      .{" "}
      {isFrames && mapping.time === undefined ? (
        <KeptMarks>
          Frames follow each other, row by row (
          <ChoiceWord
            label="column of times"
            value=""
            choices={columns}
            placeholder="or by a column"
            onChoose={setTime}
          />
          ).
        </KeptMarks>
      ) : (
        <KeptMarks>
          Its times are in{" "}
          <ChoiceWord
            label="column of times"
            value={mapping.time ?? ""}
            choices={isFrames ? [{ value: "", label: "no column" }, ...columns] : columns}
            onChoose={setTime}
          />
          , counted in{" "}
          <ChoiceWord
            label="unit of times"
            value={mapping.unit ?? "frames"}
            choices={UNITS}
            onChoose={unit => onChange({ ...mapping, unit: unit as Unit })}
          />{" "}
          from{" "}
          <ChoiceWord
            label="start of times"
            value={mapping.start ?? "zero"}
            choices={STARTS}
            onChoose={start => onChange({ ...mapping, start: start as Start })}
          />
          .
        </KeptMarks>
      )}
      {!isFrames && <ChangeWords {...props} />}
    </>
  );
}

/** A mapping as an editable sentence. */
export function MappingSentence(props: Props) {
  const { glance, mapping, onChange } = props;
  return (
    <p className="mt-2 font-serif text-lg leading-relaxed">
      {glance.sort === "table" ? <TableWords {...props} glance={glance} /> : "Its times are its own."} The
      take has{" "}
      <NumberStone
        label="frames a second"
        value={mapping.rate}
        least={1}
        most={1000}
        onChange={rate => onChange({ ...mapping, rate })}
        beginStep={() => noStep()}
      />{" "}
      frames a second.
    </p>
  );
}
