import { Fragment } from "react";
import { evaluateEasing, parseEasing, parseFrames, writeAt, type Kit } from "#core";
import { findJumpFacts, stageOf, type JumpFacts as Facts, type RunnerDocument } from "#stage";
import { NumberStone } from "../../../ui/NumberStone";
import type { NumberBounds } from "../../../ui/numberText";
import { ChoiceWord } from "../../../ui/ChoiceWord";
import { useDesk } from "../../../document/context";

const WIDTH = 280;
const HEIGHT = 96;
/** How long the three presses are held, in seconds. */
const PRESSES = [
  { name: "tap", seconds: 0.05 },
  { name: "half", seconds: 0.15 },
  { name: "full", seconds: 1 },
] as const;

const SHARE = { least: 0, most: 1 };
const TILE_PX = { least: 4, most: 256 };

const LOOKS = ["stroke-soft", "stroke-fern", "stroke-moss"] as const;

const HEIGHTS = [
  { value: "fixed", label: "always the same", hint: "the hand has no say" },
  { value: "lift", label: "lifted while held", hint: "no gravity for up to so many frames while it is held" },
  { value: "float", label: "lighter while held", hint: "less gravity while it is held and rising" },
  { value: "cut", label: "cut on release", hint: "letting go while rising takes some of the speed away" },
  { value: "charged", label: "as charged", hint: "the charge before it decides" },
];

/** What leaps: a move with a speed of its own, or one with the worth of a charge. */
interface Leap {
  readonly control: string;
  /** The three presses told of, each with its speed at the launch, and for how many seconds what made it is held then. */
  readonly presses: readonly { readonly name: string; readonly speed: number; readonly seconds: number }[];
  /** The numbers its speed is made of: where each stands, and its name. */
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

/** Shares of a charge that are told of. */
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
    if (move.off || effect?.leap !== "output" || pattern?.kind !== "charge") continue;
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

/** What the present numbers make of a jump: how high, how long, how far, how floaty; and the numbers themselves. */
export function JumpFacts({ kit }: { kit: Kit }) {
  const { workbench } = useDesk();
  const stage = stageOf(kit);
  const own = fixedLeap(kit);
  const leap = own ?? chargedLeap(kit);
  if (stage?.kind !== "runner" || !leap) return null;
  const { height } = stage;
  const lift = height.by === "lift" ? (parseFrames(height.for, kit.rate, "atLeast") ?? 0) : 0;
  // A charge was let go when it leaps: its height follows no hand any more.
  const followed = own ? stage : { ...stage, height: { by: "charged" } as const };
  const all = leap.presses.map(press =>
    findJumpFacts(followed, kit.rate, press.speed, Math.round(press.seconds * kit.rate), lift),
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
  return (
    <section aria-label="Jump facts" className="text-sm" data-testid="jump-facts">
      <h2 className="font-semibold">What a jump comes to</h2>
      <Arcs all={all} />
      <table className="w-full font-mono text-xs">
        <thead>
          <tr className="text-left text-soft">
            <td />
            <th scope="col" className="pr-2 font-normal">
              tiles high
            </th>
            <th scope="col" className="pr-2 font-normal">
              in the air
            </th>
            <th scope="col" className="pr-2 font-normal">
              tiles far
            </th>
            <th scope="col" className="pr-2 font-normal">
              near the top
            </th>
          </tr>
        </thead>
        <tbody>
          {leap.presses.map((press, k) => (
            <tr key={press.name} className="border-t border-line">
              <th scope="row" className="pr-2 text-left font-normal">
                {press.name}
              </th>
              <td>{all[k]!.height.toFixed(2)}</td>
              <td>{all[k]!.airFrames}f</td>
              <td>{all[k]!.distance.toFixed(1)}</td>
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
            {stone(label, value, path)}
          </Fragment>
        ))}
        {leap.numbers.length === 0 && "the worth of its charge, 0 to 1,"} tiles a second, drawn down by{" "}
        {stone("gravity rising", stage.fall.up, ["stage", "fall", "up"])} rising and{" "}
        {stone("gravity falling", stage.fall.down, ["stage", "fall", "down"])} falling, at most{" "}
        {stone("greatest fall", stage.fall.most, ["stage", "fall", "most"])}; running at{" "}
        {stone("run speed", stage.run.speed, ["stage", "run", "speed"])}. Its height is{" "}
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
        {height.by === "float" && (
          <> to {stone("share of gravity", height.share, ["stage", "height", "share"], SHARE)} of it</>
        )}
        {height.by === "cut" && (
          <> to {stone("what a cut leaves", height.to, ["stage", "height", "to"], SHARE)} of it</>
        )}
        . A tile is {stone("tile size", stage.tilePx, ["stage", "tilePx"], TILE_PX)} px:{" "}
        {(all[2]!.height * stage.tilePx).toFixed(0)} px high,{" "}
        {(leap.presses[2]!.speed * stage.tilePx).toFixed(0)} px a second at launch.
      </p>
    </section>
  );
}
