import type { RunnerDocument } from "#stage";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { KeptMarks } from "../../ui/KeptMarks";
import { heightBy } from "../model/leaps";
import type { JumpFields } from "./useJumpFields";

const SHARE = { least: 0, most: 1 };

const LIFT_ENDS = [
  { value: "release", label: "until it is let go", hint: "letting go ends it before its time" },
  { value: "keeps", label: "held or not", hint: "it needs no hand: a charged jump has it too" },
] as const;

const HEIGHTS = [
  { value: "fixed", label: "always the same", hint: "holding it changes nothing" },
  { value: "lift", label: "lifted while held", hint: "no gravity for up to so many frames while it is held" },
  { value: "float", label: "lighter while held", hint: "less gravity while it is held and rising" },
  { value: "cut", label: "cut on release", hint: "letting go while rising takes some of the speed away" },
  { value: "charged", label: "as charged", hint: "the charge before it decides" },
];

/** The numbers of a lift: its length, its start, its gravity, its end; the end of a sentence. */
function Lift({
  height,
  fields: { time, number, set },
}: {
  height: Extract<RunnerDocument["height"], { by: "lift" }>;
  fields: JumpFields;
}) {
  return (
    <>
      {" "}
      for {time("length of the lift", height.for, ["stage", "height", "for"], 1)} from{" "}
      {time("beginning of the lift", height.from ?? "0f", ["stage", "height", "from"])} after the launch, with{" "}
      {number("gravity left by the lift", height.share ?? 0, ["stage", "height", "share"], SHARE)} of its
      gravity,{" "}
      <KeptMarks>
        <ChoiceWord
          label="how the lift ends"
          value={height.keeps ? "keeps" : "release"}
          choices={LIFT_ENDS}
          onChoose={end => set("how the lift ends", ["stage", "height", "keeps"], end === "keeps", "")}
        />
        .
      </KeptMarks>
    </>
  );
}

/** How the height of a jump varies, and the numbers of that way; the end of a sentence. */
export function HeightWords({
  height,
  control,
  fields,
}: {
  height: RunnerDocument["height"];
  /** The control that a new way follows, by id. */
  control: string;
  fields: JumpFields;
}) {
  const { number, set } = fields;
  const way = (
    <ChoiceWord
      label="how height varies"
      value={height.by}
      choices={HEIGHTS}
      onChoose={by => set("height", ["stage", "height"], heightBy(by, control), by)}
    />
  );
  if (height.by === "lift")
    return (
      <>
        {way}
        <Lift height={height} fields={fields} />
      </>
    );
  return (
    <KeptMarks>
      {way}
      {height.by === "float" && (
        <> to {number("share of gravity", height.share, ["stage", "height", "share"], SHARE)} of it</>
      )}
      {height.by === "cut" && (
        <> to {number("what a cut leaves", height.to, ["stage", "height", "to"], SHARE)} of it</>
      )}
      .
    </KeptMarks>
  );
}
