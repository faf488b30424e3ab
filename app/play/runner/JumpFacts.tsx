import { Fragment, useState } from "react";
import type { Kit } from "#core";
import { findJumpFacts, stageOf, type RunnerDocument } from "#stage";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { chargedLeap, fixedLeap, PRESSES, type Leap } from "../model/leaps";
import { UNITS, type Unit } from "../model/lengthUnits";
import { FallWords } from "./FallWords";
import { HeightWords } from "./HeightWords";
import { JumpArcs } from "./JumpArcs";
import { JumpTable, type ShownPress } from "./JumpTable";
import { WantedWords } from "./WantedWords";
import { useJumpFields, type JumpFields } from "./useJumpFields";
import { KeptMarks } from "../../ui/KeptMarks";

const TILE_PX = { least: 4, most: 256 };

/** The numbers of the leap as a sentence. */
function LeapSentence({
  stage,
  leap,
  unit,
  fields,
}: {
  stage: RunnerDocument;
  leap: Leap;
  unit: Unit;
  fields: JumpFields;
}) {
  const { far, number } = fields;
  return (
    <p className="mt-2 leading-loose">
      <KeptMarks>
        Launched at{" "}
        {leap.numbers.map(({ label, value, path }, k) => (
          <Fragment key={label}>
            {k > 0 && " to "}
            {far(label, value, path)}
          </Fragment>
        ))}
        {leap.numbers.length === 0 && "the worth of its charge, 0 to 1,"} {unit}/s; gravity{" "}
        {far("gravity rising", stage.fall.up, ["stage", "fall", "up"])} rising and{" "}
        {far("gravity falling", stage.fall.down, ["stage", "fall", "down"])} falling, in {unit}/s²; it falls
        at most at {far("greatest fall", stage.fall.most, ["stage", "fall", "most"])} and runs at{" "}
        {far("run speed", stage.run.speed, ["stage", "run", "speed"])} {unit}/s. Its height is{" "}
        <HeightWords height={stage.height} control={leap.control} fields={fields} /> A tile is{" "}
        {number("tile size", stage.tilePx, ["stage", "tilePx"], TILE_PX)} px.
      </KeptMarks>
    </p>
  );
}

/** The numbers of the run as a sentence; an absent one follows the number it defaults to. */
function RunSentence({
  run,
  unit,
  fields: { far, time },
}: {
  run: RunnerDocument["run"];
  unit: Unit;
  fields: JumpFields;
}) {
  const ground = { accel: run.accel, brake: run.brake ?? run.accel, turn: run.turn ?? run.accel };
  const air = { ...ground, ...run.air };
  return (
    <p className="leading-loose">
      <KeptMarks>
        On the ground it speeds up by {far("speeding up", ground.accel, ["stage", "run", "accel"])}, brakes by{" "}
        {far("braking", ground.brake, ["stage", "run", "brake"])} and turns by{" "}
        {far("turning", ground.turn, ["stage", "run", "turn"])}; in the air by{" "}
        {far("speeding up in the air", air.accel, ["stage", "run", "air", "accel"])},{" "}
        {far("braking in the air", air.brake, ["stage", "run", "air", "brake"])} and{" "}
        {far("turning in the air", air.turn, ["stage", "run", "air", "turn"])} {unit}/s². A walk goes on for{" "}
        {time("walking on", run.linger ?? "0f", ["stage", "run", "linger"])} after its direction is let go; a
        run stops at once.
      </KeptMarks>
    </p>
  );
}

/** The figures of a jump with the current numbers (height, length, distance, floatiness), and the numbers. */
export function JumpFacts({ kit }: { kit: Kit }) {
  const stage = stageOf(kit);
  const own = fixedLeap(kit);
  const leap = own ?? chargedLeap(kit);
  if (stage?.kind !== "runner" || !leap) return null;
  return <Facts kit={kit} stage={stage} leap={leap} isCharged={!own} />;
}

function Facts({
  kit,
  stage,
  leap,
  isCharged,
}: {
  kit: Kit;
  stage: RunnerDocument;
  leap: Leap;
  isCharged: boolean;
}) {
  const [unit, setUnit] = useState<Unit>("tiles");
  /** The edited lengths of the presses shown, in frames; undefined for the default. */
  const [held, setHeld] = useState<readonly (number | undefined)[]>([]);
  const fields = useJumpFields(kit, unit, stage.tilePx);
  // A charge is released when it leaps, so its height follows no control.
  const followed = isCharged ? { ...stage, height: { by: "charged" } as const } : stage;
  const presses = leap.presses.map(({ name, speed, seconds }, k): ShownPress => {
    const heldFrames = isCharged ? undefined : (held[k] ?? Math.round(seconds * kit.rate));
    return { name, heldFrames, facts: findJumpFacts(followed, kit.rate, speed, heldFrames ?? 0) };
  });
  const longest = presses.at(-1);
  return (
    <section aria-label="Jump facts" className="text-sm" data-testid="jump-facts">
      <h2 className="flex items-baseline gap-2 font-semibold">
        Jump measurements
        <span className="ml-auto font-normal">
          in{" "}
          <ChoiceWord
            label="Unit of lengths"
            value={unit}
            choices={UNITS}
            onChoose={next => setUnit(next as Unit)}
          />
        </span>
      </h2>
      <JumpArcs all={presses.map(({ facts }) => facts)} />
      <JumpTable
        presses={presses}
        unit={unit}
        show={fields.show}
        onHeld={(press, frames) => setHeld(PRESSES.map((_, p) => (p === press ? frames : held[p])))}
      />
      {longest?.heldFrames !== undefined && (
        <WantedWords
          kit={kit}
          stage={stage}
          leap={leap}
          facts={longest.facts}
          heldFrames={longest.heldFrames}
          unit={unit}
          fields={fields}
        />
      )}
      <LeapSentence stage={stage} leap={leap} unit={unit} fields={fields} />
      <FallWords kit={kit} fall={stage.fall} unit={unit} fields={fields} />
      <h2 className="mt-3 leading-normal font-semibold">How it runs</h2>
      <RunSentence run={stage.run} unit={unit} fields={fields} />
    </section>
  );
}
