import { Fragment, useState } from "react";
import { evaluateEasing, parseEasing, writeAt, type Kit } from "#core";
import { findJumpFacts, stageOf, type JumpFacts as Facts, type RunnerDocument } from "#stage";
import { LengthStone } from "../../ui/LengthStone";
import { NumberStone } from "../../ui/NumberStone";
import type { NumberBounds } from "../../ui/numberText";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { useDesk } from "../../document/context";
import { noStep } from "../../ui/noStep";

const WIDTH = 280;
const HEIGHT = 96;
/** The three presses shown, with their default lengths in seconds. */
const PRESSES = [
  { name: "tap", seconds: 0.05 },
  { name: "half", seconds: 0.15 },
  { name: "full", seconds: 1 },
] as const;
/** The maximum length of a press shown, in frames. */
const LONGEST_PRESS = 600;

const SHARE = { least: 0, most: 1 };
const TILE_PX = { least: 4, most: 256 };

/** The units of lengths in fields and figures. */
const UNITS = [
  { value: "tiles", label: "tiles" },
  { value: "px", label: "px" },
] as const;
type Unit = (typeof UNITS)[number]["value"];

const roundTo = (value: number, digits: number) => Number(value.toFixed(digits));

/** Converts a length in tiles to a unit, and back; lengths are stored in tiles. */
function lengthIn(unit: Unit, tilePx: number) {
  return unit === "px"
    ? {
        show: (tiles: number) => roundTo(tiles * tilePx, 1),
        read: (typed: number) => roundTo(typed / tilePx, 4),
      }
    : { show: (tiles: number) => tiles, read: (typed: number) => typed };
}

const LOOKS = ["stroke-soft", "stroke-fern", "stroke-moss"] as const;

const LIFT_ENDS = [
  { value: "release", label: "until it is let go", hint: "letting go ends it before its time" },
  { value: "keeps", label: "held or not", hint: "it needs no hand: a charged jump has it too" },
] as const;

const HEIGHTS = [
  { value: "fixed", label: "always the same", hint: "the hand has no say" },
  { value: "lift", label: "lifted while held", hint: "no gravity for up to so many frames while it is held" },
  { value: "float", label: "lighter while held", hint: "less gravity while it is held and rising" },
  { value: "cut", label: "cut on release", hint: "letting go while rising takes some of the speed away" },
  { value: "charged", label: "as charged", hint: "the charge before it decides" },
];

/** A move that leaps: with a speed of its own, or with the output of a charge. */
interface Leap {
  readonly control: string;
  /**
   * The three presses shown, each with its launch speed, and the seconds its control is held after the
   * launch.
   */
  readonly presses: readonly { readonly name: string; readonly speed: number; readonly seconds: number }[];
  /** The numbers of its speed, with their paths and names. */
  readonly numbers: readonly {
    readonly label: string;
    readonly value: number;
    readonly path: readonly (string | number)[];
  }[];
}

function fixedLeap(kit: Kit): Leap | undefined {
  const index = (kit.moves ?? []).findIndex(
    move => !move.off && typeof (move.effect as { leap?: unknown } | undefined)?.leap === "number",
  );
  if (index < 0) return undefined;
  const move = kit.moves![index]!;
  const pattern = kit.patterns.find(item => item.id === move.pattern);
  const speed = (move.effect as { leap: number }).leap;
  return {
    control: pattern && "control" in pattern ? pattern.control : (kit.controls[0]?.id ?? ""),
    presses: PRESSES.map(press => ({ ...press, speed })),
    numbers: [{ label: "launch speed", value: speed, path: ["moves", index, "effect", "leap"] }],
  };
}

/** The shares of a charge shown. */
const CHARGES = [
  { name: "least", share: 0 },
  { name: "half", share: 0.5 },
  { name: "full", share: 1 },
] as const;

function chargedLeap(kit: Kit): Leap | undefined {
  for (const move of kit.moves ?? []) {
    const effect = move.effect as { leap?: unknown } | undefined;
    const index = kit.patterns.findIndex(item => item.id === move.pattern);
    const pattern = kit.patterns[index];
    if (move.off || effect?.leap !== "output" || !pattern || !("curve" in pattern || "full" in pattern))
      continue;
    const [low, high] = pattern.output ?? [0, 1];
    const easing = parseEasing(pattern.curve ?? "linear");
    const worth = (share: number) =>
      low + (high - low) * (easing.ok ? evaluateEasing(easing.value, share) : share);
    return {
      control: pattern.control,
      presses: CHARGES.map(({ name, share }) => ({ name, speed: Math.max(0, worth(share)), seconds: 0 })),
      numbers: pattern.output
        ? [
            { label: "least launch speed", value: low, path: ["patterns", index, "output", 0] },
            { label: "full launch speed", value: high, path: ["patterns", index, "output", 1] },
          ]
        : [],
    };
  }
  return undefined;
}

function heightBy(by: string, control: string): RunnerDocument["height"] {
  switch (by) {
    case "lift":
      return { by, control, for: "12f" };
    case "float":
      return { by, control, share: 0.5 };
    case "cut":
      return { by, control, to: 0.45 };
    default:
      return { by: by === "charged" ? "charged" : "fixed" };
  }
}

function Arcs({ all }: { all: readonly Facts[] }) {
  const most = Math.max(1, ...all.map(facts => facts.height)) * 1.1;
  const frames = Math.max(1, ...all.map(facts => facts.airFrames));
  const path = (facts: Facts) =>
    [
      "M0 " + HEIGHT,
      ...facts.arc.map(
        (y, k) => `L${(((k + 1) / frames) * WIDTH).toFixed(1)} ${(HEIGHT - (y / most) * HEIGHT).toFixed(1)}`,
      ),
      `L${((facts.airFrames / frames) * WIDTH).toFixed(1)} ${HEIGHT}`,
    ].join("");
  return (
    <svg
      viewBox={`0 -4 ${WIDTH} ${HEIGHT + 6}`}
      className="w-full"
      role="img"
      aria-label="Arcs of a tap, a half and a full press"
    >
      {Array.from({ length: Math.floor(most) + 1 }, (_, tile) => (
        <line
          key={tile}
          x1="0"
          x2={WIDTH}
          y1={HEIGHT - (tile / most) * HEIGHT}
          y2={HEIGHT - (tile / most) * HEIGHT}
          className="stroke-line"
        />
      ))}
      {all.map((facts, k) => (
        <path
          key={k}
          d={path(facts)}
          fill="none"
          strokeWidth={1.5 + k * 0.6}
          strokeDasharray={k === 0 ? "3 4" : undefined}
          className={LOOKS[k]}
        />
      ))}
    </svg>
  );
}

/** The figures of a jump with the current numbers (height, length, distance, floatiness), and the numbers. */
export function JumpFacts({ kit }: { kit: Kit }) {
  const { workbench } = useDesk();
  const [unit, setUnit] = useState<Unit>("tiles");
  const [held, setHeld] = useState<readonly (number | undefined)[]>([]);
  const stage = stageOf(kit);
  const own = fixedLeap(kit);
  const leap = own ?? chargedLeap(kit);
  if (stage?.kind !== "runner" || !leap) return null;
  const { height } = stage;
  const ground = {
    accel: stage.run.accel,
    brake: stage.run.brake ?? stage.run.accel,
    turn: stage.run.turn ?? stage.run.accel,
  };
  const air = { ...ground, ...stage.run.air };
  const { show, read } = lengthIn(unit, stage.tilePx);
  const heldOf = (k: number, seconds: number) => held[k] ?? Math.round(seconds * kit.rate);
  // A charge is released when it leaps, so its height follows no control.
  const followed = own ? stage : { ...stage, height: { by: "charged" } as const };
  const all = leap.presses.map((press, k) =>
    findJumpFacts(followed, kit.rate, press.speed, own ? heldOf(k, press.seconds) : 0),
  );
  const stone = (
    label: string,
    value: number,
    path: readonly (string | number)[],
    bounds: NumberBounds = { least: 0, most: 1000 },
  ) => (
    <NumberStone
      label={label}
      value={value}
      {...bounds}
      onChange={next => workbench.editKit(`${label} ${next}`, now => writeAt(now, path, next))}
      beginStep={workbench.beginStep}
    />
  );
  /** An editable length, speed or acceleration in the chosen unit, stored in tiles. */
  const far = (label: string, value: number, path: readonly (string | number)[]) => (
    <NumberStone
      label={label}
      value={show(value)}
      least={0}
      onChange={typed => {
        const next = Math.min(1000, read(typed));
        workbench.editKit(`${label} ${typed} ${unit}`, now => writeAt(now, path, next));
      }}
      beginStep={workbench.beginStep}
    />
  );
  const time = (label: string, value: string, path: readonly (string | number)[], least = 0) => (
    <LengthStone
      label={label}
      value={value}
      rateHz={kit.rate}
      rounding="atLeast"
      least={least}
      onChange={next => workbench.editKit(`${label} ${next}`, now => writeAt(now, path, next))}
      beginStep={workbench.beginStep}
    />
  );
  return (
    <section aria-label="Jump facts" className="text-sm" data-testid="jump-facts">
      <h2 className="flex items-baseline gap-2 font-semibold">
        What a jump comes to
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
      <Arcs all={all} />
      <table className="w-full font-mono text-xs">
        <thead>
          <tr className="text-left text-soft">
            <td />
            <th scope="col" className="pr-2 font-normal">
              {unit} high
            </th>
            <th scope="col" className="pr-2 font-normal">
              air
            </th>
            <th scope="col" className="pr-2 font-normal">
              {unit} far
            </th>
            <th scope="col" className="pr-2 font-normal">
              top
            </th>
          </tr>
        </thead>
        <tbody>
          {leap.presses.map((press, k) => (
            <tr key={press.name} className="border-t border-line">
              <th scope="row" className="py-0.5 pr-2 text-left font-normal whitespace-nowrap">
                {press.name}
                {own && (
                  <>
                    {" "}
                    <NumberStone
                      label={`frames a ${press.name} is held`}
                      value={heldOf(k, press.seconds)}
                      least={1}
                      most={LONGEST_PRESS}
                      isWhole
                      onChange={frames => setHeld(PRESSES.map((_, p) => (p === k ? frames : held[p])))}
                      beginStep={() => noStep(() => setHeld(held))}
                    />
                    f
                  </>
                )}
              </th>
              <td>{show(all[k]!.height).toFixed(unit === "px" ? 0 : 2)}</td>
              <td>{all[k]!.airFrames}f</td>
              <td>{show(all[k]!.distance).toFixed(unit === "px" ? 0 : 1)}</td>
              <td>{Math.round(all[k]!.floatiness * 100)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 leading-loose">
        Launched at{" "}
        {leap.numbers.map(({ label, value, path }, k) => (
          <Fragment key={label}>
            {k > 0 && " to "}
            {far(label, value, path)}
          </Fragment>
        ))}
        {leap.numbers.length === 0 && "the worth of its charge, 0 to 1,"} {unit} a second, drawn down by{" "}
        {far("gravity rising", stage.fall.up, ["stage", "fall", "up"])} rising and{" "}
        {far("gravity falling", stage.fall.down, ["stage", "fall", "down"])} falling, at most{" "}
        {far("greatest fall", stage.fall.most, ["stage", "fall", "most"])}; running at{" "}
        {far("run speed", stage.run.speed, ["stage", "run", "speed"])}. Its height is{" "}
        <ChoiceWord
          label="how height varies"
          value={height.by}
          choices={HEIGHTS}
          onChoose={by =>
            workbench.editKit(`height ${by}`, now =>
              writeAt(now, ["stage", "height"], heightBy(by, leap.control)),
            )
          }
        />
        {height.by === "lift" && (
          <>
            {" "}
            for {time("length of the lift", height.for, ["stage", "height", "for"], 1)} from{" "}
            {time("beginning of the lift", height.from ?? "0f", ["stage", "height", "from"])} after the
            launch, with{" "}
            {stone("gravity left by the lift", height.share ?? 0, ["stage", "height", "share"], SHARE)} of its
            gravity,{" "}
            <ChoiceWord
              label="how the lift ends"
              value={height.keeps ? "keeps" : "release"}
              choices={LIFT_ENDS}
              onChoose={end =>
                workbench.editKit("how the lift ends", now =>
                  writeAt(now, ["stage", "height", "keeps"], end === "keeps"),
                )
              }
            />
          </>
        )}
        {height.by === "float" && (
          <> to {stone("share of gravity", height.share, ["stage", "height", "share"], SHARE)} of it</>
        )}
        {height.by === "cut" && (
          <> to {stone("what a cut leaves", height.to, ["stage", "height", "to"], SHARE)} of it</>
        )}
        . A tile is {stone("tile size", stage.tilePx, ["stage", "tilePx"], TILE_PX)} px.
      </p>
      <h2 className="mt-3 leading-normal font-semibold">How it runs</h2>
      <p className="leading-loose">
        On the ground it speeds up by {far("speeding up", stage.run.accel, ["stage", "run", "accel"])}, comes
        to rest by {far("braking", ground.brake, ["stage", "run", "brake"])} and turns by{" "}
        {far("turning", ground.turn, ["stage", "run", "turn"])}; in the air by{" "}
        {far("speeding up in the air", air.accel, ["stage", "run", "air", "accel"])},{" "}
        {far("braking in the air", air.brake, ["stage", "run", "air", "brake"])} and{" "}
        {far("turning in the air", air.turn, ["stage", "run", "air", "turn"])} {unit} a second a second. A
        walk goes on for {time("walking on", stage.run.linger ?? "0f", ["stage", "run", "linger"])} after its
        direction is let go; a run stops at once.
      </p>
    </section>
  );
}
