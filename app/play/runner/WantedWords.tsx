import { useState } from "react";
import { writeAt, type Kit } from "#core";
import {
  framesToTop,
  launchForHeight,
  launchForTop,
  type Follows,
  type JumpFacts,
  type Launch,
  type RunnerDocument,
} from "#stage";
import { useWorkbench } from "../../document/workbenchContext";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { NumberStone } from "../../ui/NumberStone";
import type { Leap } from "../model/leaps";
import type { Unit } from "../model/lengthUnits";
import type { JumpFields } from "./useJumpFields";
import { KeptMarks } from "../../ui/KeptMarks";

/** Numbers are stored with this precision. */
const PARTS = 1000;
const MAX_FRAMES = 300;

const FOLLOWS: readonly { readonly value: Follows; readonly label: string; readonly hint: string }[] = [
  { value: "both", label: "launch speed and gravity", hint: "the time to the top stays" },
  { value: "speed", label: "the launch speed", hint: "the gravity stays" },
  { value: "gravity", label: "the gravity", hint: "the launch speed stays" },
];

/** The height of the longest press and the frames to its top; the numbers of the jump follow what is typed here. */
export function WantedWords({
  kit,
  stage,
  leap,
  facts,
  heldFrames,
  unit,
  fields: { show, read },
}: {
  kit: Kit;
  stage: RunnerDocument;
  /** A leap at one launch speed. */
  leap: Leap;
  facts: JumpFacts;
  heldFrames: number;
  unit: Unit;
  fields: JumpFields;
}) {
  const workbench = useWorkbench();
  const [follows, setFollows] = useState<Follows>("both");
  const [launchSpeed] = leap.numbers;
  if (!launchSpeed) return null;
  const now: Launch = { speed: launchSpeed.value, gravityUp: stage.fall.up };
  const round = (value: number) => Math.round(value * PARTS) / PARTS;
  const write = (words: string, { speed, gravityUp }: Launch) =>
    workbench.editKit(words, before =>
      writeAt(writeAt(before, launchSpeed.path, round(speed)), ["stage", "fall", "up"], round(gravityUp)),
    );
  const setHeight = (typed: number) =>
    write(
      `a height of ${typed} ${unit}`,
      launchForHeight(stage, kit.rate, heldFrames, now, read(typed), follows),
    );
  const setTop = (frames: number) =>
    write(`the top after ${frames}f`, launchForTop(stage, kit.rate, heldFrames, now, frames));
  return (
    <p className="mt-2 leading-loose" data-testid="wanted">
      <KeptMarks>
        Wanted: a full jump{" "}
        <NumberStone
          label="wanted height"
          value={Math.round(show(facts.height) * 100) / 100}
          least={0.05}
          onChange={setHeight}
          beginStep={workbench.beginStep}
        />{" "}
        {unit} high, at its top after{" "}
        <NumberStone
          label="wanted frames to the top"
          value={framesToTop(facts)}
          least={1}
          most={MAX_FRAMES}
          isWhole
          onChange={setTop}
          beginStep={workbench.beginStep}
        />
        f. A height sets{" "}
        <ChoiceWord
          label="numbers that follow a wanted height"
          value={follows}
          choices={FOLLOWS}
          onChoose={value => setFollows(value as Follows)}
        />
        .
      </KeptMarks>
    </p>
  );
}
