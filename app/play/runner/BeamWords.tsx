import { deleteAt, writeAt, type Kit } from "#core";
import type { RunnerDocument } from "#stage";
import { useWorkbench } from "../../document/workbenchContext";
import { addBeam, MAX_BEAMS } from "../../edits/levelEdits";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { LengthStone } from "../../ui/LengthStone";
import { NumberStone } from "../../ui/NumberStone";
import { KeptMarks } from "../../ui/KeptMarks";

type Beam = NonNullable<RunnerDocument["beams"]>[number];
type Place = "x" | "y" | "width" | "across" | "up";

/** The bounds of the numbers of a beam, in tiles. */
const BOUNDS_OF: Readonly<Record<Place, { readonly least: number; readonly most: number }>> = {
  x: { least: -4096, most: 4096 },
  y: { least: -4096, most: 4096 },
  across: { least: -4096, most: 4096 },
  up: { least: -4096, most: 4096 },
  width: { least: 0.5, most: 64 },
};

/** The two ways of a jump from a moving beam. */
const JUMPS = [
  { value: "", label: "leaves its speed behind", hint: "the body has its own speed alone" },
  { value: "throws", label: "takes its speed along", hint: "across, and up while it rises" },
];

/** One moving beam as a sentence. */
function BeamLine({ kit, beam, at }: { kit: Kit; beam: Beam; at: number }) {
  const workbench = useWorkbench();
  const path = ["stage", "beams", at];
  const name = `moving beam ${at + 1}`;
  const set = (field: string) => (value: unknown) =>
    workbench.editKit(name, now => writeAt(now, [...path, field], value));
  const number = (label: string, field: Place) => (
    <NumberStone
      label={`${label} of ${name}`}
      value={beam[field]}
      {...BOUNDS_OF[field]}
      onChange={set(field)}
      beginStep={workbench.beginStep}
    />
  );
  const remove = () =>
    workbench.editKit(`removed ${name}`, now => {
      const left = (now.stage as RunnerDocument).beams!.filter((_, k) => k !== at);
      return left.length > 0 ? writeAt(now, ["stage", "beams"], left) : deleteAt(now, ["stage", "beams"]);
    });
  return (
    <li>
      <KeptMarks>
        A beam of {number("width", "width")} tiles moves from {number("left end", "x")} across and{" "}
        {number("height", "y")} up by {number("way across", "across")} across and {number("way up", "up")} up,
        and back, in{" "}
        <LengthStone
          label={`time of ${name}`}
          value={beam.every}
          rateHz={kit.rate}
          rounding="atLeast"
          least={1}
          onChange={set("every")}
          beginStep={workbench.beginStep}
        />
        ; a jump from it{" "}
        <ChoiceWord
          label={`jump from ${name}`}
          value={beam.throws ? "throws" : ""}
          choices={JUMPS}
          onChoose={word =>
            workbench.editKit(name, now =>
              word ? writeAt(now, [...path, "throws"], true) : deleteAt(now, [...path, "throws"]),
            )
          }
        />
        .{" "}
        <Button look="quiet" aria-label={`Remove ${name}`} onClick={remove}>
          ×
        </Button>
      </KeptMarks>
    </li>
  );
}

/** The beams that move, as sentences, and the offer of one more. */
export function BeamWords({ kit, stage }: { kit: Kit; stage: RunnerDocument }) {
  const workbench = useWorkbench();
  const beams = stage.beams ?? [];
  return (
    <>
      {beams.length > 0 && (
        <ul aria-label="Moving beams">
          {beams.map((beam, k) => (
            <BeamLine key={k} kit={kit} beam={beam} at={k} />
          ))}
        </ul>
      )}
      {beams.length < MAX_BEAMS && (
        <Button look="quiet" className="-ml-2" onClick={() => workbench.editKit("a moving beam", addBeam)}>
          … a moving beam
        </Button>
      )}
    </>
  );
}
